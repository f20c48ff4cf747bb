import { firstOf, sure } from "../../../../base/list";
import { counted } from "../../../../theory/words/english";
import { positionText, type Ticks } from "../../../../theory/time/meter";
import { parallelPerfect } from "../../../../theory/motion/motion";
import type { Slice, SliceNote } from "../../../../hear/slice/slices";
import type { CheckContext, Fix, RawFinding, Rule } from "../../rule";
import { waysOut } from "../../ways/ways";

export const outerParallels: Rule = {
  id: "parallels",
  title: "Parallel fifths and octaves between outer voices",
  family: "voices",
  explanation:
    "When the bass and the top voice move the same way from one fifth or octave into another, the two voices " +
    "fuse and one of them is lost to the ear. In band, jazz and loop styles this is often wanted, so it is " +
    "only mentioned there; parts that double each other in octaves, or move in parallels throughout (planing, " +
    "power chords), are not told.",
  source: "Huron 2001; any harmony textbook",
  severity: { chorale: "fault", band: "note", jazz: "off", loop: "off" },
  find(ctx) {
    const { found, moves } = outerIn(ctx);
    return ctx.song.profile === "chorale" ? found : found.filter((f) => !planes(f.parts, found, moves));
  },
};

interface OuterMoves {
  found: RawFinding[];
  /** How often each pair of players moved. */
  moves: Map<string, number>;
}

const known = new WeakMap<CheckContext, OuterMoves>();

function outerIn(ctx: CheckContext): OuterMoves {
  const told = known.get(ctx) ?? readOuter(ctx);
  known.set(ctx, told);
  return told;
}

/** Whether two parts move in parallel into a tick as bass and top voice: then it is told of those. */
export const isOuter = (ctx: CheckContext, tick: Ticks, parts: readonly string[]): boolean =>
  outerIn(ctx).found.some((f) => f.tick === tick && f.parts.every((p) => parts.includes(p)));

function readOuter(ctx: CheckContext): OuterMoves {
  const found: RawFinding[] = [];
  const moves = new Map<string, number>();
  const beat = firstOf(ctx.meter.beats).duration;
  let before: { outer: Outer; end: Ticks } | null = null;
  const roleOf = new Map(ctx.sliced.real.parts.map((p) => [p.id, p.role]));
  for (const slice of ctx.sliced.slices) {
    const bass = slice.notes.find((n) => roleOf.get(n.part) === "bass");
    const top = slice.notes.at(-1);
    // A rest shorter than a beat does not part two notes of a line.
    if (!bass || !top || top === bass) continue;
    const now: Outer = { bass, top };
    const was = before && slice.start - before.end < beat ? before.outer : null;
    if (was && strike(now) && samePlayers(was, now)) {
      const pair = `${bass.part}+${top.part}`;
      if (was.bass.note.midi !== bass.note.midi) moves.set(pair, (moves.get(pair) ?? 0) + 1);
      const finding = parallelAt(ctx, slice, was, now);
      if (finding) found.push(finding);
    }
    before = { outer: now, end: slice.start + slice.duration };
  }
  return { found, moves };
}

/** The outer voices of a moment. */
interface Outer {
  bass: SliceNote;
  top: SliceNote;
}

const strike = ({ bass, top }: Outer): boolean => bass.attack && top.attack;
const samePlayers = (a: Outer, b: Outer): boolean => a.bass.part === b.bass.part && a.top.part === b.top.part;
const parallel = (before: Outer, { bass, top }: Outer, midi = bass.note.midi) =>
  parallelPerfect(before.bass.note.midi, midi, before.top.note.midi, top.note.midi);

function parallelAt(ctx: CheckContext, slice: Slice, before: Outer, now: Outer): RawFinding | null {
  const kind = parallel(before, now);
  if (!kind) return null;
  const { bass, top } = now;
  const name = sure(ctx.sliced.real.parts.find((p) => p.id === top.part)).name;
  return {
    tick: slice.start,
    duration: slice.duration,
    parts: [bass.part, top.part],
    notes: [before.bass.note.id, before.top.note.id, bass.note.id, top.note.id],
    fixes: fixesAt(ctx, before, now),
    amount: counted(Math.abs(bass.note.midi - before.bass.note.midi), "semitone"),
    message:
      `Parallel ${kind}s into ${positionText(ctx.meter, slice.start)}: bass ` +
      `${before.bass.note.pitch}–${bass.note.pitch}, ${name} ${before.top.note.pitch}–${top.note.pitch}.`,
  };
}

/** Another tone for the bass, there or before; or for the top where that is no tune; else for several. */
const fixesAt = (ctx: CheckContext, before: Outer, { bass, top }: Outer): Fix[] =>
  waysOut(ctx, {
    notes: [bass.note, top.note],
    later: [before.bass.note, before.top.note],
    clear: (p) =>
      p(bass.note) < p(top.note) &&
      parallelPerfect(p(before.bass.note), p(bass.note), p(before.top.note), p(top.note)) === null,
  });

/**
 * Share of the moves of two parts from which parallels are how they go together: octave doubling, power chords,
 * planing; and how many say so.
 */
const PLANING = 0.6;
const FEWEST = 4;

const planes = (
  parts: readonly string[],
  found: readonly RawFinding[],
  moves: ReadonlyMap<string, number>,
): boolean => {
  const own = parts.join("+");
  const all = moves.get(own) ?? 0;
  return all >= FEWEST && found.filter((f) => f.parts.join("+") === own).length >= all * PLANING;
};
