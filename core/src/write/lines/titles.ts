import { freeName } from "../../theory/words/english";

/** A first rhythm, and one that nothing sets apart but that it is another one. */
export const AS_IT_IS = "As the style has it";
export const ANOTHER = "Another rhythm";
const MEETS_MOST = "Meets most aims";

/** So much fuller or sparser is heard; a share of the notes (common practice). */
const FULLER = 1.08;
const SPARSER = 0.93;

/** A line against another one, in words, by how many notes it has. */
export function byDensity(notes: number, first: number): string[] {
  const more = notes / Math.max(1, first);
  if (more > FULLER) return ["fuller"];
  return more < SPARSER ? ["sparser"] : [];
}

/**
 * Lines, each with a title that no other has. A rhythm that is only another one says what sets it apart from the first
 * line, lines that are called the same what sets them apart from the first so called; where nothing does, they are
 * counted. The first line says that it meets most aims, where it does and nothing else is to be said of it.
 */
export function setApart<L extends { title: string }>(
  lines: readonly L[],
  { meetsMost, apart }: { meetsMost: boolean; apart: (line: L, first: L) => readonly string[] },
): L[] {
  const firsts = new Map<string, L>();
  const taken = new Set<string>();
  const [best] = lines;
  return lines.map((line) => {
    const own = line === best && meetsMost && line.title === ANOTHER ? MEETS_MOST : line.title;
    const only = line !== best && own.toLowerCase().endsWith(ANOTHER.toLowerCase());
    const model = only ? best : firsts.get(own);
    const names = model ? apart(line, model).map((words) => `${own}, ${words}`) : [];
    if (!firsts.has(own)) firsts.set(own, line);
    const title = [...names, own].find((name) => !taken.has(name)) ?? freeName(taken, own);
    taken.add(title);
    return { ...line, title };
  });
}
