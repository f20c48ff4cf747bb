import { pairwise, sure } from "../../../base/list";
import { mod, noteOf, type Midi } from "../../../theory/pitch/pitch";
import { isAugmentedSecond, isHardLeap } from "../../../theory/pitch/interval";
import type { Ticks } from "../../../theory/time/meter";
import { bassPc, chordPitchClasses, rootPc } from "../../../theory/chord/chord";
import { isRub, placesBetween, type BetweenKind } from "../../../hear/line/between";
import { fallsFrom, leadingToneOf, risesFrom, seventhOf, WIDEST_UPPER } from "../../../hear/harmony/tendency";
import { sliceAt, type Slice, type SliceNote } from "../../../hear/slice/slices";
import { spellOver } from "../../../song/spell";
import { lastBegun, type RealizedChord, type RealizedNote } from "../../../song/realize";
import type { CheckContext, Line } from "../rule";
import { holdsOf, type Holds } from "./hand";
import { look, lookAgainst, nameOf } from "./looked";
import type { Way } from "./move";
import { chordOfLine, endOf, goesOn, isLine, linesOf, noteAt, notesWithin, pcsOf, separateLines } from "../rules/lines";

/** What is wrong at a few notes, by what it is about, with how grave it is. */
type Troubles = Map<string, number>;

/** What the notes sound in a way that is tried, and what was found there. */
interface Sought {
  pitchOf: Pitches;
  found: Troubles;
}

/** How grave what two voices do to each other is, against what the chord and the line ask for (common practice). */
const BETWEEN: Partial<Record<BetweenKind, number>> = {
  crossing: 3,
  parallel: 3,
  overlap: 1,
  unison: 0.5,
  unequal: 0.5,
  contrary: 0.5,
};
/** A tone that the chord has lost, by its degree; its bass; a foreign note; a rub; a tone that leads, heard twice. */
const LOST: Record<number, number> = { 1: 1, 3: 3, 5: 0.5, 7: 2 };
const LOST_COLOR = 0.5;
const BASS = 3;
const FOREIGN = 2;
const RUB = 2;
const LED_TWICE = 2;
/** A tone that does not go where it wants to; a leap that is hard, by who leaps; an augmented second; a gap. */
const NOT_LED = 2;
const HARD = 1;
const FAR = 1;
const AUGMENTED = 1;
const APART = 1;
/** What no player can hold is no way out. */
const NOT_HELD = 10;

/** What a way brings that is not there now, and what it mends that is: how grave each is, 0 where it is nothing. */
export interface Trouble {
  brings: number;
  mends: number;
}

/**
 * What changes of notes would bring. Only what sounds around the notes is looked at, so that a way costs the same in a
 * song of any length.
 */
export function trouble(ctx: CheckContext): (way: Way) => Trouble {
  const scene = sceneOf(ctx);
  const now = new Map<string, Troubles>();
  return (way) => {
    const place = way.map((s) => `${s.note.part}/${s.note.id}`).join();
    const before = now.get(place) ?? troublesOf(scene, way, asWritten);
    now.set(place, before);
    const after = troublesOf(scene, way, soundsAs(way));
    let [brings, mends] = [0, 0];
    for (const [about, cost] of after) if (!before.has(about)) brings += cost;
    for (const [about, cost] of before) if (!after.has(about)) mends += cost;
    return { brings, mends };
  };
}

const asWritten: Pitches = (note) => note.midi;

/** What is looked up again and again while ways are weighed. */
interface Scene {
  ctx: CheckContext;
  lines: readonly Line[];
  slices: readonly Slice[];
  chords: readonly RealizedChord[];
  /** Moments of a chord that were asked for. */
  moments: Map<RealizedChord, readonly Slice[]>;
  /** Voices that a voice is judged against, with whether it lies above them. */
  against: Map<Line, { line: Line; above: boolean }[]>;
  /** What the players that were asked for can hold. */
  hands: Map<string, Holds | null>;
  /** Upper voices may not lie too far apart. */
  close: boolean;
}

const scenes = new WeakMap<CheckContext, Scene>();

function sceneOf(ctx: CheckContext): Scene {
  const known = scenes.get(ctx);
  if (known) return known;
  const { slices, real } = ctx.sliced;
  const scene: Scene = {
    ctx,
    lines: linesOf(ctx),
    slices,
    chords: real.chords,
    moments: new Map(),
    against: new Map(),
    hands: new Map(),
    close: ctx.song.profile === "chorale",
  };
  scenes.set(ctx, scene);
  return scene;
}

/** The voice that has a note; undefined where it is no note of a voice. */
export const lineOf = (ctx: CheckContext, note: RealizedNote): Line | undefined =>
  linesOf(ctx).find((l) => l.part.id === note.part && l.notes[lastBegun(l.notes, note.start)]?.id === note.id);

/** What a note sounds. */
export type Pitches = (note: RealizedNote) => Midi;

/** What each note sounds in a way. */
export const soundsAs =
  (way: Way): Pitches =>
  (note) =>
    way.find((s) => s.note.id === note.id && s.note.part === note.part)?.midi ?? note.midi;

function troublesOf(scene: Scene, way: Way, pitchOf: Pitches): Troubles {
  const { ctx } = scene;
  const found: Troubles = new Map();
  const changed = [...new Set(way.flatMap((s) => lineOf(ctx, s.note) ?? []))];
  const stretch = stretchOf(ctx, way);
  look(ctx, ...stretch);
  const own = new Map(changed.map((l) => [l, notesWithin(l, ...stretch).map((n) => sounding(ctx, n, pitchOf))]));
  for (const [other, notes] of own) {
    for (const { line, above } of judgedAgainst(scene, other)) {
      if (own.has(line) && changed.indexOf(line) <= changed.indexOf(other)) continue;
      const heard = { line, notes: own.get(line) ?? notesWithin(line, ...stretch) };
      betweenTwo(scene, { line: other, notes, above }, heard, found);
    }
    inLine(ctx, other, notes, found);
  }
  inHand(scene, way, pitchOf, found);
  for (const chord of chordsOf(scene, way)) inChord(scene, chord, way, { pitchOf, found });
  if (scene.close) apart(ctx, way, pitchOf, found);
  return found;
}

/** From the note before the first to the end of the note after the last. */
function stretchOf(ctx: CheckContext, way: Way): [Ticks, Ticks] {
  const ends = way.map(({ note }): [Ticks, Ticks] => {
    const notes = lineOf(ctx, note)?.notes ?? [note];
    const at = lastBegun(notes, note.start);
    return [(notes[at - 1] ?? note).start, endOf(notes[at + 1] ?? note)];
  });
  return [Math.min(...ends.map(([from]) => from)), Math.max(...ends.map(([, to]) => to))];
}

function sounding(ctx: CheckContext, note: RealizedNote, pitchOf: Pitches): RealizedNote {
  const midi = pitchOf(note);
  if (midi === note.midi) return note;
  return { ...note, midi, pitch: spellOver(ctx.key, chordOfLine(ctx, note.start)?.chord, midi) };
}

/** Whether two voices are judged against each other: lines, and the voices inside the chords of one player. */
const meet = (ctx: CheckContext, a: Line, b: Line): boolean =>
  a !== b && (isLine(a) && isLine(b) ? !ctx.areOne(a, b) : !isLine(a) && !isLine(b) && a.part === b.part);

/** Which voices a voice meets, in words: with those it lies above. */
export const metBy =
  (ctx: CheckContext) =>
  (line: Line): string =>
    judgedAgainst(sceneOf(ctx), line)
      .map((met) => `${nameOf(met.line)} ${met.above}`)
      .join();

function judgedAgainst({ ctx, lines, against }: Scene, line: Line): { line: Line; above: boolean }[] {
  lookAgainst(ctx, line);
  const known = against.get(line);
  if (known) return known;
  const found = lines
    .filter((other) => meet(ctx, line, other))
    .map((other) => ({ line: other, above: ctx.pair(line, other).above }));
  against.set(line, found);
  return found;
}

interface Heard {
  line: Line;
  notes: readonly RealizedNote[];
}

function betweenTwo({ ctx, chords }: Scene, a: Heard & { above: boolean }, b: Heard, found: Troubles): void {
  const ground = { meter: ctx.meter, chords, above: a.above };
  for (const p of placesBetween(a.notes, b.notes, ground)) {
    const cost = BETWEEN[p.kind];
    if (cost) found.set(`${p.kind}|${nameOf(a.line)}|${nameOf(b.line)}|${p.tick}`, cost);
  }
}

/** Leaps of a voice, and tones that want to go on by step. */
function inLine(ctx: CheckContext, line: Line, notes: readonly RealizedNote[], found: Troubles): void {
  const led = line.part.role === "melody" || line.part.role === "vocal";
  for (const [from, to] of pairwise(notes)) {
    if (!goesOn(ctx, from, to)) continue;
    const size = Math.abs(to.midi - from.midi);
    const put = (what: string, cost: number) => found.set(`${what}|${nameOf(line)}|${to.start}`, cost);
    if (led && isHardLeap(size)) put("leap", HARD);
    else if (size > 12) put("leap", FAR);
    if (isAugmentedSecond(noteOf(from.pitch), noteOf(to.pitch), to.midi - from.midi)) put("augmented", AUGMENTED);
    const [was, is] = [chordOfLine(ctx, from.start), chordOfLine(ctx, to.start)];
    if (!was || !is || was === is) continue;
    if (fallsFrom(from.midi, to.midi, seventhOf(was), pcsOf(is)) !== null) put("seventh", NOT_LED);
    const leads = leadingToneOf(ctx.key, was);
    if (risesFrom(from.midi, to.midi, leads, pcsOf(is))) put("leading", NOT_LED);
  }
}

/** Chords under which some notes sound. */
function chordsOf({ chords }: Scene, way: Way): RealizedChord[] {
  const under = way.flatMap(({ note }) =>
    chords.slice(Math.max(0, lastBegun(chords, Math.max(0, note.start))), lastBegun(chords, endOf(note) - 1) + 1),
  );
  return [...new Set(under)];
}

const within = (all: readonly Slice[], from: Ticks, to: Ticks): Slice[] =>
  all.slice(Math.max(0, lastBegun(all, from)), lastBegun(all, to - 1) + 1).filter((s) => s.start >= from);

/** The moments of a chord. */
function momentsOf({ slices, moments }: Scene, chord: RealizedChord): readonly Slice[] {
  const known = moments.get(chord) ?? within(slices, chord.start, endOf(chord));
  moments.set(chord, known);
  return known;
}

/** What a chord has lost, what is foreign to it, what rubs in it. */
function inChord(scene: Scene, here: RealizedChord, way: Way, { pitchOf, found }: Sought): void {
  const { chord } = here;
  look(scene.ctx, here.start, endOf(here));
  if (!chord) return;
  const moments = momentsOf(scene, here);
  const pcs = chordPitchClasses(chord);
  const root = rootPc(chord);
  const leads = leadingToneOf(scene.ctx.key, here);
  const heard = new Set<number>();
  for (const { start, notes } of moments) {
    let leading = 0;
    for (const { note } of notes) {
      const pc = mod(pitchOf(note), 12);
      heard.add(mod(pc - root, 12));
      if (pc === leads) leading++;
    }
    if (leading > 1) found.set(`twice|${start}`, LED_TWICE);
    for (const { note } of way)
      if (notes.some((n) => n.note === note)) rubs(note, { notes, pcs, here }, pitchOf, found);
  }
  for (const { semitones, degree } of chord.tones)
    if (isLost(heard, semitones, degree)) found.set(`lost|${here.id}|${degree}`, LOST[degree] ?? LOST_COLOR);
  const lowest = mod(Math.min(...(moments[0]?.notes ?? []).map((n) => pitchOf(n.note))), 12);
  // What is no tone of the chord is foreign, and makes no other inversion.
  if (pcs.includes(lowest) && lowest !== bassPc(chord)) found.set(`bass|${here.id}`, BASS);
}

/** Whether nobody has a tone; a fourth, or the other third, that stands in the place of a third is told as foreign. */
const isLost = (heard: ReadonlySet<number>, semitones: number, degree: number): boolean =>
  !heard.has(mod(semitones, 12)) && !(degree === 3 && (heard.has(5) || heard.has(7 - semitones)));

/** Whether a note is foreign to its chord, and what it rubs against. */
function rubs(
  note: RealizedNote,
  { notes, pcs, here }: { notes: readonly SliceNote[]; pcs: readonly number[]; here: RealizedChord },
  pitchOf: Pitches,
  found: Troubles,
): void {
  const midi = pitchOf(note);
  const own = pcs.includes(mod(midi, 12));
  if (!own) found.set(`foreign|${note.id}|${here.id}`, FOREIGN);
  for (const { note: other } of notes) {
    const beside = pitchOf(other);
    if (isRub(midi, beside) && !(own && pcs.includes(mod(beside, 12)))) found.set(`rub|${note.id}|${other.id}`, RUB);
  }
}

/** What one player strikes at once and cannot hold. */
function inHand(scene: Scene, way: Way, pitchOf: Pitches, found: Troubles): void {
  const { ctx, hands, slices } = scene;
  for (const { note } of way) {
    const struck = sliceAt(slices, note.start)?.notes.filter((n) => n.part === note.part && n.attack) ?? [];
    if (struck.length < 2) continue;
    const known = hands.get(note.part);
    const holds = known === undefined ? holdsOf(ctx, sure(ctx.song.parts.find((p) => p.id === note.part))) : known;
    hands.set(note.part, holds);
    if (!holds) continue;
    const midis = [...new Set(struck.map((n) => pitchOf(n.note)))].sort((a, b) => a - b);
    if (!holds(midis)) found.set(`hand|${note.part}|${note.start}`, NOT_HELD);
  }
}

/** Neighbors of the upper voices that lie too far apart as the notes begin. */
function apart(ctx: CheckContext, way: Way, pitchOf: Pitches, found: Troubles): void {
  const lines = separateLines(ctx);
  for (const tick of new Set(way.map((s) => Math.max(s.note.start, 0)))) {
    const midis = lines
      .flatMap((l) => noteAt(l, tick) ?? [])
      .map(pitchOf)
      .sort((a, b) => a - b);
    for (const [low, high] of pairwise(midis.slice(1)))
      if (high - low > WIDEST_UPPER) found.set(`apart|${tick}|${midis.indexOf(low)}`, APART);
  }
}
