/**
 * Ways out are looked for again only where something changed in what was looked at for them: the bars they were weighed
 * in, the voices there, and what holds for the whole section.
 */
import type { Ticks } from "../../../theory/time/meter";
import { lastBegun } from "../../../song/realize";
import type { CheckContext, Fix, Line } from "../rule";
import { linesOf, notesWithin, separateLines } from "../rules/lines";
import { harmonyEnds } from "./ends";

/** A stretch of the section that was looked at, and the voices that were weighed against others. */
interface Looked {
  from: Ticks;
  to: Ticks;
  voices: Set<Line>;
}

const looks = new WeakMap<CheckContext, Looked>();

/** Says that a stretch of the section was looked at; what has no end there is looked at to the end of the section. */
export function look(ctx: CheckContext, from: Ticks, to: Ticks): void {
  const looked = looks.get(ctx);
  if (!looked) return;
  looked.from = Math.min(looked.from, from);
  looked.to = Math.max(looked.to, to);
}

/** Says that a voice was weighed against those it meets. */
export const lookAgainst = (ctx: CheckContext, line: Line): void => void looks.get(ctx)?.voices.add(line);

interface Kept {
  looked: { from: Ticks; to: Ticks; voices: string[] };
  seen: readonly unknown[];
  fixes: Fix[];
}

/** What was found, by what holds for the whole section; the oldest go where there are too many. */
const kept = new WeakMap<object, Map<string, Kept>>();
const MOST = 5000;

/** `against` says which voices a voice meets, and above which of them it lies. */
export function remembered(
  ctx: CheckContext,
  id: string,
  { against, make }: { against: (line: Line) => string; make: () => Fix[] },
): Fix[] {
  const ground = ctx.ground();
  const own = kept.get(ground) ?? new Map<string, Kept>();
  kept.set(ground, own);
  const key = `${ctx.rule} ${id}`;
  const was = own.get(key);
  if (was && sameEntries(was.seen, seenIn(ctx, was.looked, against))) return was.fixes;
  const looked: Looked = { from: Infinity, to: -Infinity, voices: new Set() };
  looks.set(ctx, looked);
  const fixes = make();
  looks.delete(ctx);
  const stretch = { ...looked, voices: [...looked.voices].map(nameOf) };
  own.delete(key);
  own.set(key, { looked: stretch, seen: seenIn(ctx, stretch, against), fixes });
  if (own.size > MOST) for (const old of [...own.keys()].slice(0, MOST / 2)) own.delete(old);
  return fixes;
}

export const nameOf = ({ part, place }: Line): string => `${part.id}/${place}`;

const sameEntries = (a: readonly unknown[], b: readonly unknown[]): boolean =>
  a.length === b.length && a.every((x, i) => x === b[i]);

/**
 * The bars of a stretch, its chords with their layouts, the notes of voices inside chords there, who the voices are,
 * and how they stand to each other.
 */
function seenIn(ctx: CheckContext, { from, to, voices }: Kept["looked"], against: (line: Line) => string): unknown[] {
  const { bars } = ctx.sliced;
  const barOf = (tick: Ticks) => Math.min(bars.length - 1, Math.max(0, Math.floor(tick / ctx.meter.bar)));
  const lines = linesOf(ctx);
  // What a part with one voice has there stands in the bars.
  const inside = lines.filter((l) => l.of > 1);
  return [
    castOf(ctx),
    ...(bars.length ? bars.slice(barOf(from), barOf(to) + 1) : []),
    ...ctx.section.chords.slice(
      Math.max(0, lastBegun(ctx.section.chords, from)),
      lastBegun(ctx.section.chords, to) + 1,
    ),
    ...inside.flatMap((l) => [l.part.id, ...notesWithin(l, from, to)]),
    ...voices.map((v) => {
      const line = lines.find((l) => nameOf(l) === v);
      return line ? against(line) : null;
    }),
  ];
}

const casts = new WeakMap<CheckContext, string>();

/** Who the voices of a section are: which are lines, which of them double another one, which are outer ones. */
function castOf(ctx: CheckContext): string {
  const told = casts.get(ctx);
  if (told !== undefined) return told;
  const separate = new Set(separateLines(ctx));
  const [top, bottom] = harmonyEnds(ctx);
  const cast = linesOf(ctx)
    .map((l) => [nameOf(l), l.name, l.main, l.lighter, separate.has(l), l === top, l === bottom].join())
    .join(";");
  casts.set(ctx, cast);
  return cast;
}
