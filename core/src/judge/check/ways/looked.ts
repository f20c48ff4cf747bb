/**
 * Ways out are looked for again only where something changed in what was looked at for them: the bars they were weighed
 * in, the voices there, and what holds for the whole section.
 */
import { sameEntries } from "../../../base/list";
import type { Ticks } from "../../../theory/time/meter";
import { lastBegun, type RealizedNote } from "../../../song/realize";
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

/** What was found last, by the note it is first about: another note is another matter. */
const kept = new WeakMap<RealizedNote, Map<string, Kept>>();

/**
 * Ways out that are about a note, worked out again where something that was looked at for them is another. `id` says
 * what is asked; `against` which voices a voice meets, and above which of them it lies.
 */
export function remembered(
  ctx: CheckContext,
  { note, id, against }: { note: RealizedNote; id: string; against: (line: Line) => string },
  make: () => Fix[],
): Fix[] {
  const own = kept.get(note) ?? new Map<string, Kept>();
  kept.set(note, own);
  const asked = `${ctx.rule} ${id}`;
  const was = own.get(asked);
  if (was && sameEntries(was.seen, seenIn(ctx, was.looked, against))) return was.fixes;
  const looking: Looked = { from: Infinity, to: -Infinity, voices: new Set() };
  looks.set(ctx, looking);
  const fixes = make();
  looks.delete(ctx);
  const looked = { ...looking, voices: [...looking.voices].map(nameOf) };
  own.set(asked, { looked, seen: seenIn(ctx, looked, against), fixes });
  return fixes;
}

export const nameOf = ({ part, place }: Line): string => `${part.id}/${place}`;

/**
 * The bars of a stretch, its chords with their layouts, the notes of voices inside chords there, who the voices are
 * and how they stand to each other; and what holds for the whole section.
 */
function seenIn(ctx: CheckContext, { from, to, voices }: Kept["looked"], against: (line: Line) => string): unknown[] {
  const { bars } = ctx.sliced;
  const barOf = (tick: Ticks) => Math.min(bars.length - 1, Math.max(0, Math.floor(tick / ctx.meter.bar)));
  const lines = linesOf(ctx);
  // What a part with one voice has there stands in the bars.
  const inside = lines.filter((l) => l.of > 1);
  return [
    ctx.ground(),
    castOf(ctx),
    ...(bars.length ? bars.slice(barOf(from), barOf(to - 1) + 1) : []),
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
