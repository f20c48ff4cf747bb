import { given } from "../../base/given";
import { neckOf } from "../../theory/instrument/neck";
import { fail, ok, type Result } from "../../base/result";
import { type Midi, type PitchClass, type PitchName, type Semitones } from "../../theory/pitch/pitch";
import { chordSymbol, type Chord } from "../../theory/chord/chord";
import type { Neck } from "../../theory/instrument/fretboard";
import { shapeOf } from "../../theory/instrument/fretboard";
import { handStrain } from "../../theory/instrument/hands";
import { instrumentOf, midiRange, type Instrument, type WithInstruments } from "../../theory/instrument/instruments";
import type { HeldShape, Profile } from "../../song/schema";
import { weightsWith, type Judge, type TopShape, type Weights } from "./cost";
import type { RawVoicing, VoicingLimits, VoicingStyle } from "./style";
import { VOICING_STYLES } from "./styles";
import { fourPart } from "./styles/fourPart";
import { keyboard } from "./styles/keyboard";
import { shapes } from "./styles/shapes";
import { single } from "./styles/single";

export interface PathOptions {
  style?: string;
  /** Id of the instrument, one of the song's own or a known one. */
  instrument?: string;
  song?: WithInstruments;
  loop?: boolean;
  voices?: number;
  bassCovered?: boolean;
  profile?: Profile;
  /** Lowest and highest note; by default the middle of the keyboard, or of the instrument. */
  range?: [PitchName, PitchName];
  /** Semitones by which that window is moved. */
  register?: Semitones;
  weights?: Partial<Weights>;
  topShape?: TopShape;
  /** Widest span of one hand in semitones, and how many hands play. */
  span?: Semitones;
  hands?: 1 | 2;
  capo?: Semitones;
  /** Pitch classes of the key. */
  scale?: readonly PitchClass[];
  /** Open strings, where they differ from the instrument's. */
  tuning?: PitchName[];
  /** Fixed voicings by index of the chord. */
  pins?: Record<number, PitchName[]>;
  /** How fixed voicings are held on a neck, where that is known, by index of the chord. */
  shapes?: Record<number, HeldShape>;
  /** Wanted top and lowest notes by index of the chord. */
  outer?: Record<number, { top?: PitchName; bottom?: PitchName }>;
}

/** Part of the keyboard a chord part lives in: around the middle, above most bass notes. */
const WINDOW: [Midi, Midi] = [47, 79];

/** What the instrument makes of the layouts of a style. */
export function playedOn(
  instrument: Instrument,
  style: VoicingStyle,
  limits: VoicingLimits,
  hands: 1 | 2,
): (raw: RawVoicing[]) => RawVoicing[] {
  const { held, polyphony } = instrument;
  if (held.by === "hands")
    return (raw) =>
      style === fourPart ? raw : raw.filter((v) => handStrain(v.pitches, limits.span, hands) < Infinity);
  if (held.by === "frets")
    return (raw) =>
      raw.flatMap((v) => {
        if (v.shape) return [v];
        const shape =
          limits.neck && v.pitches.length <= limits.neck.strings.length ? shapeOf(limits.neck, v.pitches) : null;
        return shape ? [{ ...v, shape }] : [];
      });
  return (raw) => raw.filter((v) => v.pitches.length <= polyphony);
}

/**
 * Layouts of a style with a wanted top or lowest note: its own ones, else that note laid over or under fewer voices.
 */
function withOuterNotes(
  make: (limits: VoicingLimits) => RawVoicing[],
  limits: VoicingLimits,
  top: Midi | undefined,
  bottom: Midi | undefined,
): RawVoicing[] {
  if (top === undefined && bottom === undefined) return make(limits);
  const wide = {
    ...limits,
    high: Math.max(limits.high, top ?? 0),
    low: Math.min(limits.low, bottom ?? 127, top !== undefined ? top - 19 : 127),
    ...(top === undefined ? {} : { top }),
  };
  const fits = (v: RawVoicing) =>
    (top === undefined || v.pitches.at(-1) === top) && (bottom === undefined || v.pitches[0] === bottom);
  const own = make(wide).filter(fits);
  if (own.length) return own;
  const added = [top, bottom].filter((m) => m !== undefined);
  const seen = new Set<string>();
  return make({
    ...wide,
    voices: Math.max(1, limits.voices - added.length),
    ...(top === undefined ? {} : { high: top - 1 }),
    ...(bottom === undefined ? {} : { low: bottom + 1 }),
  }).flatMap((v) => {
    const pitches = [...new Set([...v.pitches, ...added])].sort((a, b) => a - b);
    const { shape: _, ...rest } = v;
    const layout = { ...rest, pitches };
    if (!fits(layout) || seen.has(pitches.join())) return [];
    seen.add(pitches.join());
    return [layout];
  });
}

/** Everything that follows from the options before a chord is looked at. */
export interface Setting {
  options: PathOptions;
  instrument: Instrument;
  neck: Neck | undefined;
  /**
   * The style that was asked for, and the free one that steps in for it; `replaced` where the instrument cannot play
   * the style at all.
   */
  style: VoicingStyle;
  replaced: boolean;
  free: VoicingStyle;
  judge: Judge;
  limits: VoicingLimits;
  hands: 1 | 2;
  /** Where layouts lie best. */
  center: number;
}

/**
 * Lowest and highest pitch of the layouts: the window within the instrument; one that does not meet it gives way to
 * what is comfortable.
 */
function rangeOf(instrument: Instrument, options: PathOptions): [Midi, Midi] {
  const { by } = instrument.held;
  const [lowest, highest] = midiRange(by === "hands" ? instrument.comfortable : instrument.range);
  let window: readonly [number, number];
  if (options.range) window = midiRange(options.range);
  else if (by === "frets") window = [lowest, highest] as const;
  else window = WINDOW;
  const register = options.register ?? 0;
  const inside = (m: number) => Math.min(highest, Math.max(lowest, m));
  const [low, high] = [inside(window[0] + register), inside(window[1] + register)];
  if (high - low >= 12) return [low, high];
  const comfort = midiRange(instrument.comfortable);
  return [Math.min(low, comfort[0]), Math.max(high, Math.min(comfort[1], comfort[0] + 24))];
}

/** As many voices as the style is used to; otherwise four, and as many strings as there are for shapes on a neck. */
export const usualVoices = (style: VoicingStyle, { held }: Pick<Instrument, "held">): number =>
  style.voices ?? (held.by === "frets" && style.held === "frets" ? held.strings.length : 4);

/** The style in which an instrument lays out freely: shapes on a neck, single notes, or any spread for hands. */
function freeStyle({ held, polyphony }: Instrument): VoicingStyle {
  if (held.by === "frets") return shapes;
  return polyphony === 1 ? single : keyboard;
}

/** Whether an instrument is not held as a style is meant for. */
const isForeign = (style: VoicingStyle, { held }: Instrument): boolean =>
  (style.held ?? held.by) !== held.by || (held.by !== "hands" && style.id === "every");

/** Where the layouts lie by themselves: the middle of a neck above its capo, or a little under that of the range. */
function centerOf(neck: Neck | undefined, [low, high]: readonly [Midi, Midi], register: number): number {
  if (!neck) return (low + high) / 2 - 1;
  return (Math.min(...neck.strings) + Math.max(...neck.strings)) / 2 + neck.capo + 2 + register;
}

/** What is judged by: four-part writing brings its own rules along. */
const judgeOf = (style: VoicingStyle, options: PathOptions): Setting["judge"] => ({
  profile: style === fourPart ? "chorale" : (options.profile ?? "band"),
  weights: weightsWith(options.weights, style.weights),
  top: options.topShape ?? "smooth",
});

const mayPlay = (style: VoicingStyle, instrument: Instrument): boolean =>
  instrument.polyphony > 1 && !isForeign(style, instrument) && style !== keyboard;

export function voicingSetting(options: PathOptions): Result<Setting> {
  const { style: asked = "keyboard", instrument: played = "piano", scale } = options;
  const { bassCovered = true, hands = 2, register = 0 } = options;
  const wanted = VOICING_STYLES.find((s) => s.id === asked);
  if (!wanted)
    return fail("voicing.style", `No voicing style is called "${asked}"`, {
      hint: `Styles: ${VOICING_STYLES.map((s) => s.id).join(", ")}.`,
    });
  const instrument = instrumentOf(played, options.song);
  const { held, polyphony } = instrument;
  const neck = neckOf(instrument, options.capo, options.tuning);
  // The free style of a fretted instrument are its shapes; an instrument of one note plays single notes.
  const free = freeStyle(instrument);
  const style = mayPlay(wanted, instrument) ? wanted : free;
  const [low, high] = rangeOf(instrument, options);
  return ok({
    options,
    instrument,
    neck,
    style,
    replaced: style !== wanted && wanted !== keyboard && wanted.id !== "every",
    free,
    judge: judgeOf(style, options),
    limits: {
      low,
      high,
      voices: Math.min(options.voices ?? usualVoices(style, instrument), polyphony),
      span: held.by === "hands" ? (options.span ?? held.span) : 127,
      bassCovered,
      ...given({ scale }),
      ...(neck ? { neck } : {}),
    },
    hands,
    center: centerOf(neck, [low, high], register),
  });
}

export interface Outer {
  top?: Midi;
  bottom?: Midi;
}

/** Layouts of a chord in a style, each worked out once. */
export function layoutsInStyle({
  instrument,
  limits,
  hands,
}: Setting): (style: VoicingStyle, chord: Chord, outer?: Outer) => RawVoicing[] {
  const made = new Map<
    VoicingStyle,
    { playable: (raw: RawVoicing[]) => RawVoicing[]; plain: Map<string, RawVoicing[]> }
  >();
  return (style, chord, outer) => {
    let known = made.get(style);
    if (!known) made.set(style, (known = { playable: playedOn(instrument, style, limits, hands), plain: new Map() }));
    const { playable, plain } = known;
    if (outer) return playable(withOuterNotes((l) => style.candidates(chord, l), limits, outer.top, outer.bottom));
    const id = chordSymbol(chord);
    let list = plain.get(id);
    if (!list) plain.set(id, (list = playable(style.candidates(chord, limits))));
    return list;
  };
}
