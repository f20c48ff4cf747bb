import { firstOf, pairwise } from "../../base/list";
import { mod, type Midi } from "../../theory/pitch/pitch";
import type { Meter, Ticks } from "../../theory/time/meter";
import { chordPitchClasses } from "../../theory/chord/chord";
import { chordAtTick, type RealizedChord, type RealizedNote } from "../../song/realize";
import { parallelPerfect } from "../../theory/motion/motion";
import { shared } from "./doubles";

/** What two lines can do to each other. */
export type BetweenKind = "crossing" | "overlap" | "unison" | "parallel" | "contrary" | "unequal" | "clash";

/** One place where it happens, with the note of each line. */
export interface Between {
  kind: BetweenKind;
  tick: Ticks;
  /** For a clash: how long the two rub. */
  duration: Ticks;
  first: RealizedNote;
  second: RealizedNote;
  /** Of parallels: the interval; of clashes: the distance in semitones. */
  interval?: "fifth" | "octave";
  semitones: number;
  /** Of parallels, contrary perfects, unequal fifths and overlaps: the notes before, which make them. */
  before?: readonly [RealizedNote, RealizedNote];
}

export interface PairGround {
  meter: Meter;
  chords: readonly RealizedChord[];
  /**
   * Semitones by which the first line lies above the second elsewhere, where that is known: it tells which is the upper
   * one where neither mostly lies above here.
   */
  leaning?: number | undefined;
  /** Whether the first line is the upper one, where that is decided. */
  above?: boolean | undefined;
}

/** A stretch of bars in which one of two lines moves more, or both move together. */
export interface Leading {
  from: Ticks;
  to: Ticks;
  who: "first" | "second" | "together";
}

/** What two lines do to each other. */
export interface PairPlaces {
  /** The first line lies above the second, where they sound together. */
  above: boolean;
  /** How often both go to another pitch at once. */
  moves: number;
  places: Between[];
}

/** How two lines go together. */
export interface PairReport extends PairPlaces {
  /** Ticks in which both sound. */
  together: Ticks;
  /** Share of all attacks that are struck together. */
  sameRhythm: number;
  leads: Leading[];
}

type Line = readonly RealizedNote[];

const end = (n: { start: Ticks; duration: Ticks }): Ticks => n.start + n.duration;
/** Intervals that rub most: a semitone and a minor ninth (any arranging handbook). */
export const isRub = (a: Midi, b: Midi): boolean => Math.abs(a - b) === 1 || Math.abs(a - b) === 13;
/**
 * Whether a pitch rubs over a chord: against something that sounds with it, or a minor ninth above a tone of the chord.
 * Two tones that both belong to the chord are its own color.
 */
export function rubsOver(pcs: readonly number[], midi: Midi, around: readonly Midi[]): boolean {
  const own = pcs.includes(mod(midi, 12));
  return (
    around.some((other) => isRub(midi, other) && !(own && pcs.includes(mod(other, 12)))) ||
    (!own && pcs.includes(mod(midi - 1, 12)))
  );
}

/** Share of the moves of two lines that lie in octaves where one doubles the other throughout (common practice). */
const DOUBLED = 0.85;

/** Whether two lines double each other in octaves throughout: orchestration, not parallels. */
const doubled = (moves: readonly { octave: boolean }[]): boolean =>
  moves.length > 3 && moves.filter((m) => m.octave).length >= DOUBLED * moves.length;

const mean = (line: Line): number => line.reduce((sum, n) => sum + n.midi, 0) / Math.max(1, line.length);

/** What two lines sound at a moment at which either begins a note. */
interface Pair {
  tick: Ticks;
  x: RealizedNote;
  y: RealizedNote;
}

/** Walks along a line: the note that began last of those that sound at a tick. Ticks are asked for in order. */
function walkAlong(line: Line): (tick: Ticks) => RealizedNote | undefined {
  let next = 0;
  /** What has begun and may still sound, the latest last. */
  let begun: RealizedNote[] = [];
  return (tick) => {
    if (begun.length) begun = begun.filter((n) => end(n) > tick);
    for (let note = line[next]; note && note.start <= tick; note = line[++next]) if (end(note) > tick) begun.push(note);
    return begun.at(-1);
  };
}

/** The ticks at which either of two lines begins a note, in order. Lines are in order of their starts. */
function momentsOf(a: Line, b: Line): Ticks[] {
  const out: Ticks[] = [];
  for (let [i, k] = [0, 0]; i < a.length || k < b.length;) {
    const tick = Math.min(a[i]?.start ?? Infinity, b[k]?.start ?? Infinity);
    out.push(tick);
    while (a[i]?.start === tick) i++;
    while (b[k]?.start === tick) k++;
  }
  return out;
}

/** All moments at which both sound. */
function pairsOf(a: Line, b: Line): Pair[] {
  const [first, second] = [walkAlong(a), walkAlong(b)];
  return momentsOf(a, b).flatMap((tick) => {
    const [x, y] = [first(tick), second(tick)];
    return x && y ? [{ tick, x, y }] : [];
  });
}

const placeOf = (kind: BetweenKind, { tick, x, y }: Pair, more: Partial<Between> = {}): Between => ({
  kind,
  tick,
  first: x,
  second: y,
  duration: Math.min(end(x), end(y)) - tick,
  semitones: x.midi - y.midi,
  ...more,
});

/** What a move of both lines makes: parallel perfects, the same in contrary motion, or a fifth after a smaller one. */
function perfectsAt(here: Pair, was: Pair): Between[] {
  if (here.x.midi === was.x.midi || here.y.midi === was.y.midi) return [];
  const low = was.x.midi < was.y.midi ? ("x" as const) : ("y" as const);
  const high = low === "x" ? "y" : "x";
  const [down, up] = [here[low].midi - was[low].midi, here[high].midi - was[high].midi];
  const [from, to] = [was[high].midi - was[low].midi, here[high].midi - here[low].midi];
  const before = [was.x, was.y] as const;
  const parallel = parallelPerfect(was[low].midi, here[low].midi, was[high].midi, here[high].midi);
  if (parallel) return [placeOf("parallel", here, { interval: parallel, before })];
  const [was12, is12] = [mod(from, 12), mod(to, 12)];
  if (Math.sign(down) === Math.sign(up))
    return was12 === 6 && is12 === 7 && up > 0 ? [placeOf("unequal", here, { before })] : [];
  const interval = PERFECT[is12];
  return interval && to >= 0 && was12 === is12 ? [placeOf("contrary", here, { interval, before })] : [];
}
const PERFECT: Record<number, "fifth" | "octave"> = { 0: "octave", 7: "fifth" };

/** One has moved past where the other one just was. */
function overlapAt(here: Pair, was: Pair, [upper, lower]: readonly ["x", "y"] | readonly ["y", "x"]): Between[] {
  const [top, low, topWas, lowWas] = [here[upper], here[lower], was[upper], was[lower]];
  if (top.midi < low.midi) return [];
  const past = (top !== topWas && top.midi < lowWas.midi) || (low !== lowWas && low.midi > topWas.midi);
  return past ? [placeOf("overlap", here, { before: [was.x, was.y] })] : [];
}

/** What is to be said of a moment; `was` is the one before, where it belongs to the same phrase of both. */
function placesAt(
  here: Pair,
  was: Pair | null,
  { above, octaves, chords }: { above: boolean; octaves: boolean; chords: readonly RealizedChord[] },
): Between[] {
  const order = above ? (["x", "y"] as const) : (["y", "x"] as const);
  const [upper, lower] = order;
  const crosses = here[upper].midi < here[lower].midi;
  return [
    ...(crosses ? [placeOf("crossing", here)] : []),
    ...(here.x.midi === here.y.midi && !octaves ? [placeOf("unison", here)] : []),
    ...(rubs(here, chords) ? [placeOf("clash", here)] : []),
    ...(was && !octaves ? perfectsAt(here, was) : []),
    ...(was ? overlapAt(here, was, order) : []),
  ];
}

/** Share of the moments at which a line must lie above another one to be the upper one here. */
const MOSTLY = 2 / 3;

/** Which line is the upper one: that which mostly lies above here, else in the song, else on the whole here. */
function isAbove(pairs: readonly Pair[], { a, b, leaning = 0 }: { a: Line; b: Line; leaning?: number | undefined }) {
  const higher = pairs.filter(({ x, y }) => x.midi > y.midi).length;
  const lower = pairs.filter(({ x, y }) => x.midi < y.midi).length;
  const told = higher + lower;
  if (told && Math.max(higher, lower) >= MOSTLY * told) return higher > lower;
  if (leaning !== 0) return leaning > 0;
  return higher === lower ? mean(a) >= mean(b) : higher > lower;
}

/** So many moves in a row in octaves or unison are no mistake: for that time two lines are one. */
const RUN = 4;

/** The moments, by index, at which two lines go along in octaves or unison for long. */
function goingAlong(pairs: readonly Pair[]): Set<number> {
  const out = new Set<number>();
  let run: number[] = [];
  let moves = 0;
  const close = () => {
    if (moves >= RUN) run.forEach((i) => out.add(i));
    run = [];
    moves = 0;
  };
  pairs.forEach(({ x, y }, i) => {
    const before = pairs[i - 1];
    if (mod(x.midi - y.midi, 12) !== 0) return close();
    if (run.length && before && x.midi !== before.x.midi) moves++;
    run.push(i);
  });
  close();
  return out;
}

/** What two lines do to each other, in order of time. */
export const placesBetween = (a: Line, b: Line, ground: PairGround): Between[] =>
  placesOf(pairsOf(a, b), { a, b }, ground).places;

function placesOf(
  pairs: readonly Pair[],
  { a, b }: { a: Line; b: Line },
  { meter, chords, leaning, above: known }: PairGround,
): { above: boolean; places: Between[] } {
  const above = known ?? isAbove(pairs, { a, b, leaning });
  const octaves = doubled(pairs.map(({ x, y }) => ({ octave: mod(x.midi - y.midi, 12) === 0 })));
  const along = goingAlong(pairs);
  const beat = firstOf(meter.beats).duration;
  const places = pairs.flatMap((here, i) => {
    const before = pairs[i - 1];
    // A rest shorter than a beat does not part two notes of a line.
    const joined = before && here.x.start - end(before.x) < beat && here.y.start - end(before.y) < beat;
    return placesAt(here, joined ? before : null, { above, octaves: octaves || along.has(i), chords });
  });
  return { above, places };
}

/** What two lines do to each other, place by place. */
export function pairPlaces(a: Line, b: Line, ground: PairGround): PairPlaces {
  const pairs = pairsOf(a, b);
  const moves = pairwise(pairs).filter(([was, is]) => was.x.midi !== is.x.midi && was.y.midi !== is.y.midi).length;
  return { ...placesOf(pairs, { a, b }, ground), moves };
}

/** How two lines go together, place by place. */
export function pairReport(a: Line, b: Line, ground: PairGround): PairReport {
  const { meter } = ground;
  const { above, moves, places } = pairPlaces(a, b, ground);
  const struck = [new Set(a.map((n) => n.start)), new Set(b.map((n) => n.start))] as const;
  const common = [...struck[0]].filter((t) => struck[1].has(t)).length;
  const moments = new Set([...struck[0], ...struck[1]]).size;
  return {
    above,
    together: shared(a, b, meter.bar).both,
    sameRhythm: moments ? common / moments : 0,
    leads: leading(struck, meter),
    moves,
    places,
  };
}

/** A semitone or minor ninth that the chord of the moment does not hold by itself. */
function rubs(
  { tick, x, y }: { tick: Ticks; x: RealizedNote; y: RealizedNote },
  chords: readonly RealizedChord[],
): boolean {
  if (!isRub(x.midi, y.midi)) return false;
  const chord = chordAtTick(chords, Math.max(0, tick))?.chord;
  const pcs = chord ? chordPitchClasses(chord) : [];
  return !(pcs.includes(mod(x.midi, 12)) && pcs.includes(mod(y.midi, 12)));
}

/** Attacks of a bar that must be struck together for neither line to lead. */
const TOGETHER = 0.7;

/** Who leads, bar by bar: the line that strikes by itself more often. */
function leading([a, b]: readonly [ReadonlySet<Ticks>, ReadonlySet<Ticks>], meter: Meter): Leading[] {
  const bars = new Map<number, { own: [number, number]; both: number }>();
  for (const tick of new Set([...a, ...b])) {
    const bar = Math.floor(tick / meter.bar);
    const counts = bars.get(bar) ?? { own: [0, 0], both: 0 };
    if (a.has(tick) && b.has(tick)) counts.both++;
    else counts.own[a.has(tick) ? 0 : 1]++;
    bars.set(bar, counts);
  }
  const out: Leading[] = [];
  for (const [bar, { own, both }] of [...bars].sort(([x], [y]) => x - y)) {
    const all = own[0] + own[1] + both;
    let who: "second" | "together" | "first";
    if (both >= TOGETHER * all || own[0] === own[1]) who = "together";
    else if (own[0] > own[1]) who = "first";
    else who = "second";
    const last = out.at(-1);
    const [from, to] = [bar * meter.bar, (bar + 1) * meter.bar];
    if (last?.who === who && last.to === from) last.to = to;
    else out.push({ from, to, who });
  }
  return out;
}
