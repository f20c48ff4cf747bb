import { nth } from "../../base/list";
import { inSentence } from "../../theory/words/english";
import { fail, ok, type Result } from "../../base/result";
import { mod, pitchMidi, type Midi, type PitchName } from "../../theory/pitch/pitch";
import { bassPc, chordSymbol, type Chord } from "../../theory/chord/chord";
import type { Neck } from "../../theory/instrument/fretboard";
import { shapeOf } from "../../theory/instrument/fretboard";
import type { HeldShape } from "../../song/schema";
import { heldAs } from "./strung";
import { handStrain } from "../../theory/instrument/hands";
import { midiRange } from "../../theory/instrument/instruments";
import type { BoundedLattice } from "../../search/onward";
import { roughness } from "../../theory/motion/roughness";
import { steppedLattice } from "./bounds";
import { nodeTerms, sumTerms, type Judge, type Terms } from "./cost";
import type { Candidate, Column } from "./candidate";
import { keptFor, laidFor, pricedFor, type Kept, type LaidWays, type Searched } from "./kept";
import type { RawVoicing } from "./style";
import { keyboard } from "./styles/keyboard";
import { layoutsInStyle, playedOn, voicingSetting, type Outer, type PathOptions, type Setting } from "./setting";

export interface VoicingSpace {
  columns: Column[];
  lattice: BoundedLattice;
  /** The last chord leads back to the first. */
  closed: boolean;
  judge: Judge;
  neck?: Neck;
  kept: Kept;
  /** The last search over a space like this one. */
  searched: Searched;
}

/** A bass part is expected in the octave from E1 up. */
const BASS_OCTAVE: Midi = 28;

/** A pinned layout as it is, with its shape where it has one. */
function pinnedLayout(pin: readonly PitchName[], neck: Neck | undefined, held: HeldShape | undefined): RawVoicing {
  const pitches = pin.map(pitchMidi).sort((a, b) => a - b);
  const asHeld = neck && held ? heldAs(neck, pitches, held) : null;
  if (asHeld) return { pitches, missing: 0, doubling: 0, shape: asHeld };
  const shape = neck ? shapeOf(neck, pitches, { highest: 24, span: 24, reach: 999, fingers: 9, muted: 9 }) : null;
  return { pitches, missing: 0, doubling: 0, ...(shape ? { shape } : {}) };
}

type Layouts = ReturnType<typeof layoutsInStyle>;
type Found = Pick<Column, "top" | "bottomMissed"> & { raw: RawVoicing[] };

/** Layouts with wanted outer notes, and what became of the wishes. */
function withWishes(s: Setting, layouts: Layouts, chord: Chord, wish: { top?: PitchName; bottom?: PitchName }): Found {
  const outer: Outer = {
    ...(wish.top ? { top: pitchMidi(wish.top) } : {}),
    ...(wish.bottom ? { bottom: pitchMidi(wish.bottom) } : {}),
  };
  const { raw, missed } = layoutsUnder(s, layouts, chord, outer);
  const bottomMissed = missed && wish.bottom ? { bottomMissed: wish.bottom } : {};
  if (!wish.top) return { raw, ...bottomMissed };
  if (raw.length) {
    const inChord = chord.tones.some((t) => mod(pitchMidi(chord.root + "4") + t.semitones, 12) === mod(outer.top!, 12));
    return { raw, ...bottomMissed, top: { wanted: wish.top, met: inChord ? "chord" : "over" } };
  }
  const why = isAway(s, outer)
    ? `outside the range of the ${inSentence(s.instrument.title)}`
    : "no layout of the chord fits under it";
  return { raw, ...bottomMissed, top: { wanted: wish.top, met: "no", why } };
}

const isAway = ({ instrument }: Setting, outer: Outer): boolean => {
  const [low, high] = midiRange(instrument.range);
  return [outer.top, outer.bottom].some((m) => m !== undefined && (m < low || m > high));
};

/** Layouts between outer notes: of the style, else of the free one; the lower wish gives way before the upper. */
function layoutsUnder(
  s: Setting,
  layouts: Layouts,
  chord: Chord,
  outer: Outer,
): { raw: RawVoicing[]; missed: boolean } {
  if (isAway(s, outer)) return { raw: [], missed: true };
  for (const style of [s.style, s.free]) {
    const raw = layouts(style, chord, outer);
    if (raw.length) return { raw, missed: false };
  }
  const { top, bottom } = outer;
  const both = top !== undefined && bottom !== undefined;
  return { raw: both ? layouts(s.free, chord, { top }) : [], missed: true };
}

/** Layouts of the style, else free ones, else fewer voices: they are better than silence. */
function anyLayouts(
  { instrument, style, replaced, free, limits, hands }: Setting,
  layouts: Layouts,
  chord: Chord,
): { raw: RawVoicing[]; fallback: boolean } {
  let raw = layouts(style, chord);
  const fallback = replaced || !raw.length;
  if (!raw.length) raw = layouts(free, chord);
  for (let voices = limits.voices - 1; !raw.length && voices > 0; voices--)
    raw = playedOn(instrument, keyboard, limits, hands)(keyboard.candidates(chord, { ...limits, voices }));
  return { raw, fallback };
}

/** What each layout of a chord costs by itself. */
function priced({ instrument, judge, limits, hands, center }: Setting, chord: Chord, laid: LaidWays): Candidate[] {
  const { raw } = laid;
  const bass = limits.bassCovered ? BASS_OCTAVE + mod(bassPc(chord) - BASS_OCTAVE, 12) : undefined;
  if (judge.weights.roughness)
    laid.rough ??= raw.map((v) => roughness(bass === undefined ? v.pitches : [bass, ...v.pitches]));
  const rough = judge.weights.roughness ? laid.rough! : raw.map(() => 0);
  const smoothest = Math.min(...rough);
  return raw.map((v, k): Candidate => {
    let strain: number;
    if (v.shape) strain = v.shape.strain;
    else if (instrument.held.by === "hands") strain = handStrain(v.pitches, 127, hands);
    else strain = 0;
    const terms: Terms = {
      ...nodeTerms(v, center, judge.weights, bass),
      roughness: (nth(rough, k) - smoothest) * 0.6 * judge.weights.roughness,
      hand: Math.min(strain, 20) * judge.weights.hand,
    };
    return { ...v, terms, cost: sumTerms(terms) };
  });
}

/**
 * Makes the column of a chord; null where nothing can be laid out. Chords of one name and wish share their candidates.
 */
function columnMaker(s: Setting, kept: Kept): (i: number, chord: Chord) => Column | null {
  const layouts = layoutsInStyle(s);
  const laidOut = (
    chord: Chord,
    { pin, held }: { pin: readonly PitchName[] | undefined; held: HeldShape | undefined },
    wish: { top?: PitchName; bottom?: PitchName } | undefined,
  ): LaidWays | null => {
    if (pin) return { raw: [pinnedLayout(pin, s.neck, held)], fallback: false };
    const wished = wish && withWishes(s, layouts, chord, wish);
    const laid = wished?.raw.length ? { raw: wished.raw, fallback: false } : anyLayouts(s, layouts, chord);
    return laid.raw.length ? { ...wished, ...laid } : null;
  };
  return (i, chord) => {
    const pin = s.options.pins?.[i];
    const held = pin && s.options.shapes?.[i];
    const wish = pin ? undefined : s.options.outer?.[i];
    const pinned = pin ? `${pin.join()} ${held ? `${held.capo}: ${held.frets.join()}` : ""}` : "";
    const id = `${chordSymbol(chord)} ${pinned} ${wish?.bottom ?? ""} ${wish?.top ?? ""}`;
    const laid = laidFor(kept, id, () => laidOut(chord, { pin, held }, wish));
    if (!laid) return null;
    const { raw: _, rough: __, ...became } = laid;
    return { chord, ...became, candidates: pricedFor(kept, id, () => priced(s, chord, laid)) };
  };
}

/** All candidates of every chord and the lattice over them. Errors: `voicing.style`, `voicing.none`. */
export function voicingSpace(chords: readonly Chord[], options: PathOptions): Result<VoicingSpace> {
  const setting = voicingSetting(options);
  if (!setting.ok) return setting;
  const { judge, neck } = setting.value;
  const kept = keptFor(setting.value);
  const columnOf = columnMaker(setting.value, kept);
  const columns: Column[] = [];
  for (const [i, chord] of chords.entries()) {
    const column = columnOf(i, chord);
    if (!column)
      return fail("voicing.none", `Chord ${i + 1} (${chordSymbol(chord)}) has no voicing in this range`, {
        hint: "Use fewer voices.",
      });
    columns.push(column);
  }
  return ok(spaceOver(columns, judge, { loop: options.loop ?? false, neck, kept, searched: kept.free }));
}

/** The space over columns that are known. */
export function spaceOver(
  columns: Column[],
  judge: Judge,
  { loop, neck, kept, searched }: { loop: boolean; neck: Neck | undefined; kept: Kept; searched: Searched },
): VoicingSpace {
  const lattice = steppedLattice(columns, judge, loop);
  return {
    columns,
    lattice,
    closed: loop && columns.length > 1,
    judge,
    kept,
    searched,
    ...(neck ? { neck } : {}),
  };
}
