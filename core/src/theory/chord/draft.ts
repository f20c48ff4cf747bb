import { tone, type ChordTone } from "./chord";

/** What the steps of the parser fill in. */
export interface Draft {
  third: "major" | "minor" | "none";
  fifth: -1 | 0 | 1;
  seventh: "none" | "minor" | "major" | "diminished";
  /** Highest stacked degree: 0, 9, 11 or 13. */
  extension: 0 | 9 | 11 | 13;
  sus: (2 | 4)[];
  sixth: boolean;
  added: ChordTone[];
  altered: ChordTone[];
  omitted: number[];
}

/** The altered dominant: no fifth, both altered ninths, the raised eleventh, the lowered thirteenth. */
const ALTERED = ["b9", "#9", "#11", "b13"].sort().join();

const mark = (t: ChordTone): string => {
  const sign = () => {
    if (t.alter < 0) return "b";
    if (t.alter > 0) return "#";
    return "";
  };
  return sign() + t.degree;
};

/** Names of sevenths by how they are altered. */
export const SEVENTHS: Record<number, Draft["seventh"]> = { 0: "minor", 1: "major" };

/** Which of ninth, eleventh and thirteenth are stacked on the seventh. */
export function stackedOf({ extension, third }: Draft): Record<9 | 11 | 13, boolean> {
  // The eleventh belongs to 11 chords and minor thirteenths; over a major third the thirteenth chord leaves it out
  // (common practice).
  const eleventh = extension === 11 || (extension === 13 && third === "minor");
  return { 9: extension >= 9, 11: eleventh, 13: extension === 13 };
}

/** The third, or what stands in its place. */
const middle = ({ sus, third }: Draft): ChordTone[] => {
  if (sus.length) return sus.map((d) => tone(d));
  return third === "none" ? [] : [tone(3, third === "minor" ? -1 : 0)];
};

/** Tones in order of degree, from a finished draft. */
export function build(draft: Draft): ChordTone[] {
  const tones = [tone(1), ...middle(draft), tone(5, draft.fifth)];
  if (draft.sixth) tones.push(tone(6));
  if (draft.seventh !== "none") tones.push(tone(7, { minor: 0, major: 1, diminished: -1 }[draft.seventh]));
  const stacked = stackedOf(draft);
  const replaced = (degree: number) =>
    draft.altered.some((t) => t.degree === degree) || (degree === 11 && draft.sus.includes(4));
  for (const degree of [9, 11, 13] as const) if (stacked[degree] && !replaced(degree)) tones.push(tone(degree));
  tones.push(...draft.altered);
  for (const added of draft.added) if (!tones.some((t) => t.semitones % 12 === added.semitones % 12)) tones.push(added);
  const same = (a: ChordTone) => (b: ChordTone) => a.degree === b.degree && a.alter === b.alter;
  return tones
    .filter((t, i) => !draft.omitted.includes(t.degree) && tones.findIndex(same(t)) === i)
    .sort((a, b) => a.degree - b.degree || a.alter - b.alter);
}

/** Names of the triads and seventh chords that carry their fifth in the name; the others name it after them. */
function wholeName({ third, fifth, seventh, sixth, sus }: Draft, figure: string): string | null {
  if (third === "minor" && fifth === -1) {
    if (seventh === "diminished") return "dim7";
    if (seventh === "minor") return `m${figure}b5`;
    return seventh === "none" && !sixth ? "dim" : null;
  }
  const plain = seventh === "none" && !sixth && !sus.length;
  return third === "major" && fifth === 1 && plain ? "aug" : null;
}

/** The name without its fifth: third, sixth or seventh, and how far it is stacked. */
function stackName({ third, seventh, sixth }: Draft, figure: string): string {
  const minor = third === "minor" ? "m" : "";
  if (third === "none") return "5";
  if (seventh === "none") return minor + (sixth ? "6" : "");
  if (seventh === "major") return minor ? `mMaj${figure}` : `maj${figure}`;
  return seventh === "diminished" ? "dim7" : minor + figure;
}

const byDegree = (a: ChordTone, b: ChordTone): number => a.degree - b.degree || a.alter - b.alter;
const isNinth = (t: ChordTone): boolean => t.degree === 9 && t.alter === 0;

/** Canonical quality of a finished draft. */
export function quality(draft: Draft): string {
  const figure = String(draft.extension || 7);
  const whole = wholeName(draft, figure);
  const altered = [...(whole === null && draft.fifth ? [tone(5, draft.fifth)] : []), ...draft.altered];
  const sixNine = draft.sixth && draft.seventh === "none" && draft.added.some(isNinth);
  const sus = draft.sus.length ? "sus" + draft.sus.join("") : "";
  const name = (whole ?? stackName(draft, figure)) + (sixNine ? "/9" : "") + sus;
  const alt = draft.omitted.join() === "5" && !draft.added.length && altered.map(mark).sort().join() === ALTERED;
  if (name === "7" && alt) return "7alt";
  const rest = [
    ...altered.sort(byDegree).map(mark),
    ...draft.added
      .filter((t) => !(sixNine && isNinth(t)))
      .sort(byDegree)
      .map((t) => `add${mark(t)}`),
    ...draft.omitted.map((d) => `no${d}`),
  ];
  return name + (rest.length ? `(${rest.join(",")})` : "");
}
