/**
 * Ways out of what notes do: other tones for one of them, for two, for all that are struck with them, or another octave
 * for a phrase; those first that bring nothing that is not there already.
 */
import { nth } from "../../../base/list";
import { mod, type Midi } from "../../../theory/pitch/pitch";
import { lastBegun, type RealizedNote } from "../../../song/realize";
import type { Part } from "../../../song/schema";
import { rangeOfPart } from "../../../hear/singer/range";
import type { CheckContext, Fix, Line } from "../rule";
import { chordOfLine, endOf, goesOn, isLine, pcsOf, separateLines } from "../rules/lines";
import { moveAll, type Way } from "./move";
import { harmonyEnds } from "./ends";
import { look, remembered } from "./looked";
import { lineOf, metBy, soundsAs, trouble, type Pitches } from "./trouble";

export interface Asked {
  /** Notes that could move; and those that are moved where these would bring more. */
  notes: readonly RealizedNote[];
  later?: readonly RealizedNote[];
  /** Whether the fault is gone where notes sound so. */
  clear(pitches: Pitches): boolean;
  /** Whole phrases may go to another octave. */
  phrases?: boolean;
  /** Another pitch for the first of the notes, where tones of the chord are not all it could have. */
  also?: Midi;
  /** Ways that are no other tones alone. */
  ways?: readonly NamedWay[];
}

/** So many ways are offered, and so many that bring nothing are looked for among other tones of one note. */
const OFFERED = 3;
const ENOUGH = 2;
/** What brings so much is as bad as what it would mend (common practice). */
const AS_BAD = 3;
/** How far a tone that mends may lie from the one that stands there. */
const NEAR = 12;
/** So many ways of one note are weighed against each other, and so many tones of each where several move. */
const WEIGHED = 16;
const EACH = 2;
/** So many ways of several notes at once are weighed. */
const TRIED = 24;
/** So many voices that strike together can be laid out anew. */
const VOICES = 4;

/** What is mended beside the fault, against what is brought. */
const MENDED = 0.5;
/** What moving costs by itself, against what it brings: who moves, how far in semitones, who is not meant first. */
const TUNE = 4;
const OUTER = 0.2;
const FURTHER = 0.04;
const LATER = 0.5;

/** The ways out, the one that brings least first; at most three. */
export function waysOut(ctx: CheckContext, asked: Asked): Fix[] {
  const note = asked.notes[0] ?? asked.later?.[0];
  return note ? sought(ctx, { note, id: askedId(asked) }, () => waysFound(ctx, asked)) : [];
}

/** Ways out about a note, where somebody asks for them. */
const sought = (ctx: CheckContext, about: { note: RealizedNote; id: string }, make: () => Fix[]): Fix[] =>
  ctx.bare ? [] : remembered(ctx, { ...about, against: metBy(ctx) }, make);

const askedId = ({ notes, later = [], phrases, also, ways = [] }: Asked): string =>
  [notes.map(noteId), later.map(noteId), phrases ?? false, also ?? "", ways.map(wayId)].join(" | ");

const noteId = (n: RealizedNote): string => `${n.part}/${n.id}`;
const wayId = ({ way, label = "", extra = 0 }: NamedWay): string =>
  `${way.map((s) => `${noteId(s.note)}:${s.midi}`).join("+")} ${label} ${extra}`;

function waysFound(ctx: CheckContext, asked: Asked): Fix[] {
  for (const note of [...asked.notes, ...(asked.later ?? [])]) look(ctx, note.start, endOf(note));
  const movers = moversOf(ctx, asked);
  const alone = movers.flatMap(({ note, tones, last }) =>
    tones.map((midi): NamedWay => ({ way: [{ note, midi }], ...(last ? { extra: LATER } : {}) })),
  );
  const isClear = ({ way }: NamedWay) => asked.clear(soundsAs(way));
  const named = asked.ways ?? [];
  const first = [
    ...weighed(ctx, named, { isClear, most: named.length, enough: named.length }),
    ...weighed(ctx, alone, { isClear, most: WEIGHED, enough: ENOUGH }),
  ];
  if (first.some((w) => w.brings === 0)) return offered(ctx, first);
  const more = [
    ...(asked.phrases ? phrasesOf(ctx, movers) : []),
    ...together(ctx, movers).map(unnamed),
    ...first.flatMap(({ way }) => withNeighbor(ctx, way)).map(unnamed),
  ];
  return offered(ctx, [...first, ...weighed(ctx, more, { isClear, most: TRIED, enough: 1 })]);
}

/** Of ways that are known to mend those that bring little, the one that brings least first. */
export function bestOf(ctx: CheckContext, ways: readonly NamedWay[]): Fix[] {
  const note = ways[0]?.way[0]?.note;
  const all = { isClear: () => true, most: ways.length, enough: ways.length };
  return note
    ? sought(ctx, { note, id: ways.map(wayId).join(" | ") }, () => offered(ctx, weighed(ctx, ways, all)))
    : [];
}

/** A way with what it is called, where its notes do not say it. */
export interface NamedWay {
  way: Way;
  label?: string | undefined;
  /** What it costs besides. */
  extra?: number;
}

const unnamed = (way: Way): NamedWay => ({ way });

interface Weighed extends NamedWay {
  brings: number;
  cost: number;
}

/** Ways by what they cost by themselves are weighed until enough are found that bring nothing, or the most are. */
function weighed(
  ctx: CheckContext,
  ways: readonly NamedWay[],
  { isClear, most, enough }: { isClear(way: NamedWay): boolean; most: number; enough: number },
): Weighed[] {
  const troubleOf = trouble(ctx);
  const sorted = ways
    .map((named) => ({ ...named, own: (named.extra ?? 0) + ownCost(ctx, named.way) }))
    .sort((a, b) => a.own - b.own);
  const found: Weighed[] = [];
  let [clean, tried] = [0, 0];
  for (const named of sorted) {
    if (tried >= most || clean >= enough) break;
    if (!isClear(named)) continue;
    tried++;
    const { brings, mends } = troubleOf(named.way);
    if (brings === 0) clean++;
    if (brings < AS_BAD) found.push({ ...named, brings, cost: brings + named.own - MENDED * mends });
  }
  return found;
}

function offered(ctx: CheckContext, ways: readonly Weighed[]): Fix[] {
  const fixes: Fix[] = [];
  const moved = new Set<string>();
  for (const { way, label } of [...ways].sort((a, b) => a.cost - b.cost)) {
    if (fixes.length === OFFERED) break;
    // Of ways that move the same several notes one is enough.
    const which = way
      .map((s) => s.note.id)
      .sort()
      .join();
    if (way.length > 1 && moved.has(which)) continue;
    moved.add(which);
    const fix = moveAll(ctx, way, label);
    if (fix) fixes.push(fix);
  }
  return fixes;
}

function moversOf(ctx: CheckContext, { notes, later = [], also }: Asked): Mover[] {
  return [...new Set([...notes, ...later])].flatMap((note, i): Mover[] => {
    const line = note.pinned ? undefined : lineOf(ctx, note);
    if (!line) return [];
    const tones = tonesFor(ctx, line, note);
    const last = !notes.includes(note);
    return [{ line, note, last, tones: i === 0 && also !== undefined ? [...new Set([also, ...tones])] : tones }];
  });
}

interface Mover {
  line: Line;
  note: RealizedNote;
  /** Moved where the others would bring more. */
  last: boolean;
  tones: Midi[];
}

/** What a way costs by itself. */
const ownCost = (ctx: CheckContext, way: Way): number =>
  way.reduce((sum, s) => sum + moverCost(ctx, s.note) + FURTHER * Math.abs(s.midi - s.note.midi), 0);

const costs = new WeakMap<CheckContext, Map<RealizedNote, number>>();

function moverCost(ctx: CheckContext, note: RealizedNote): number {
  const known = costs.get(ctx) ?? new Map<RealizedNote, number>();
  costs.set(ctx, known);
  const cost = known.get(note) ?? costOf(ctx, lineOf(ctx, note));
  known.set(note, cost);
  return cost;
}

function costOf(ctx: CheckContext, line: Line | undefined): number {
  if (line?.part.role === "melody") return TUNE;
  return !line || harmonyEnds(ctx).includes(line) ? OUTER : 0;
}

const ranges = new WeakMap<CheckContext, Map<Part, readonly [Midi, Midi]>>();

/** The lowest and the highest note of a part. */
function rangeIn(ctx: CheckContext, part: Part): readonly [Midi, Midi] {
  const known = ranges.get(ctx) ?? new Map<Part, readonly [Midi, Midi]>();
  ranges.set(ctx, known);
  const range = known.get(part) ?? rangeOfPart(ctx.song, part).extremes;
  known.set(part, range);
  return range;
}

/** Tones of the chord inside the range that could stand in place of a note: near to it, or to its neighbors. */
function tonesFor(ctx: CheckContext, { part, notes }: Line, note: RealizedNote): Midi[] {
  const pcs = pcsOf(chordOfLine(ctx, note.start));
  const allowed = pcs.length ? pcs : ctx.key.pcs;
  const [low, high] = rangeIn(ctx, part);
  const at = lastBegun(notes, note.start);
  lookAround(ctx, notes, [at, at]);
  const beside = [notes[at - 1], notes[at + 1]].flatMap((n) => n?.midi ?? []);
  const far = (m: Midi) =>
    Math.min(Math.abs(m - note.midi), ...(beside.length ? [Math.max(...beside.map((b) => Math.abs(m - b)))] : []));
  return Array.from({ length: high - low + 1 }, (_, k) => low + k)
    .filter((m) => m !== note.midi && allowed.includes(mod(m, 12)) && far(m) <= NEAR)
    .sort((a, b) => far(a) - far(b));
}

/** The phrases the notes stand in, an octave higher or lower. */
function phrasesOf(ctx: CheckContext, movers: readonly Mover[]): NamedWay[] {
  return movers.flatMap(({ line, note }) =>
    [12, -12].flatMap((by) => {
      const [low, high] = rangeIn(ctx, line.part);
      const way: Way = phraseAround(ctx, line, note).map((n) => ({ note: n, midi: n.midi + by }));
      const fits = way.length > 1 && way.every((s) => !s.note.pinned && s.midi >= low && s.midi <= high);
      if (!fits) return [];
      const label = `This phrase of ${line.part.name.split(",")[0]} an octave ${by > 0 ? "higher" : "lower"}`;
      return [{ way, label }];
    }),
  );
}

/** A phrase of more notes is not moved for one of them. */
const PHRASE = 16;

/** Notes of a line from rest to rest around one of them; none where there are too many. */
function phraseAround(ctx: CheckContext, { notes }: Line, note: RealizedNote): RealizedNote[] {
  let [from, to] = [lastBegun(notes, note.start), lastBegun(notes, note.start)];
  while (from > 0 && to - from < PHRASE && goesOn(ctx, nth(notes, from - 1), nth(notes, from))) from--;
  while (to + 1 < notes.length && to - from < PHRASE && goesOn(ctx, nth(notes, to), nth(notes, to + 1))) to++;
  lookAround(ctx, notes, [from, to]);
  return to - from < PHRASE ? notes.slice(from, to + 1) : [];
}

/** From the note before some notes of a line to the one after them. */
const lookAround = (ctx: CheckContext, notes: readonly RealizedNote[], [from, to]: readonly [number, number]): void => {
  const [before, after] = [notes[from - 1], notes[to + 1]];
  look(ctx, before ? before.start : -Infinity, after ? endOf(after) : Infinity);
};

/** A note that moves, and the one before it or after it with it. */
function withNeighbor(ctx: CheckContext, way: Way): Way[] {
  const [step] = way;
  const line = way.length === 1 && step && lineOf(ctx, step.note);
  if (!line) return [];
  const at = lastBegun(line.notes, step.note.start);
  return [line.notes[at + 1], line.notes[at - 1]]
    .flatMap((note) =>
      note && !note.pinned
        ? tonesFor(ctx, line, note)
            .slice(0, EACH)
            .map((midi) => ({ note, midi }))
        : [],
    )
    .map((other): Way => [step, other]);
}

/** Several notes at once: those that were named, then all lines that strike with the first of them, the tune apart. */
function together(ctx: CheckContext, movers: readonly Mover[]): Way[] {
  const [first] = movers;
  if (!first) return [];
  const others = isLine(first.line)
    ? separateLines(ctx)
        .filter((l) => l.part.role !== "melody")
        .flatMap((line): Mover[] => {
          const note = line.notes[lastBegun(line.notes, first.note.start)];
          return note?.start === first.note.start && !note.pinned && endOf(note) > first.note.start
            ? [{ line, note, last: true, tones: tonesFor(ctx, line, note) }]
            : [];
        })
    : [];
  const all = [...movers, ...others.filter((o) => !movers.some((m) => m.note === o.note))].slice(0, VOICES);
  return combined(all).filter((way) => way.length > 1);
}

/** Every choice of staying or going to one of the nearest tones. */
const combined = (movers: readonly Mover[]): Way[] =>
  movers.reduce<Way[]>(
    (ways, { note, tones }) =>
      ways.flatMap((way) => [way, ...tones.slice(0, EACH).map((midi): Way => [...way, { note, midi }])]),
    [[]],
  );
