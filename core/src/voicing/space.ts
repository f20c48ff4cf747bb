import { fail, ok, type Result } from "../result";
import { mod, pitchMidi, type Midi, type PitchName, type Semitones } from "../pitch/pitch";
import { bassPc, chordSymbol, type Chord } from "../chord/chord";
import type { Neck } from "../instrument/fretboard";
import { shapeOf } from "../instrument/fretboard";
import { handStrain } from "../instrument/hands";
import { instrumentOf, midiRange, type Instrument, type WithInstruments } from "../instrument/instruments";
import type { Profile } from "../song/schema";
import { prepare, type Lattice, type Prepared } from "../lattice/lattice";
import { roughness } from "../motion/roughness";
import { nodeTerms, stepCost, sumTerms, weightsWith, type Judge, type Terms, type TopShape, type Weights } from "./cost";
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
  /** Open strings, where they differ from the instrument's. */
  tuning?: PitchName[];
  /** Fixed voicings by index of the chord. */
  pins?: Record<number, PitchName[]>;
  /** Wanted top and lowest notes by index of the chord. */
  outer?: Record<number, { top?: PitchName; bottom?: PitchName }>;
}

/** Whether a wanted top note was met, by a tone of the chord or laid over it; if not, why. */
export interface TopReport {
  wanted: PitchName;
  met: "chord" | "over" | "no";
  why?: string;
}

export interface Candidate extends RawVoicing {
  terms: Terms;
  cost: number;
}

export interface Column {
  chord: Chord;
  candidates: Candidate[];
  /** The style had nothing for this chord; the free one was used. */
  fallback: boolean;
  top?: TopReport;
  /** A wanted lowest note that could not be had. */
  bottomMissed?: PitchName;
}

export interface VoicingSpace {
  columns: Column[];
  lattice: Lattice;
  /** The costs of the lattice; worked out when they are first asked for. */
  readonly prepared: Prepared;
  /** The last chord leads back to the first. */
  closed: boolean;
  judge: Judge;
  neck?: Neck;
}

/** Part of the keyboard a chord part lives in: around the middle, above most bass notes. */
const WINDOW: [Midi, Midi] = [47, 79];
/** A bass part is expected in the octave from E1 up. */
const BASS_OCTAVE: Midi = 28;

export const neckOf = (instrument: Instrument, capo = 0, tuning?: readonly PitchName[]): Neck | undefined =>
  instrument.held.by === "frets"
    ? {
        strings: (tuning?.length ? tuning : instrument.held.strings).map(pitchMidi),
        frets: instrument.held.frets,
        scale: instrument.held.scale,
        capo,
      }
    : undefined;

/** What the instrument makes of the layouts of a style. */
function playedOn(instrument: Instrument, style: VoicingStyle, limits: VoicingLimits, hands: 1 | 2): (raw: RawVoicing[]) => RawVoicing[] {
  const { held, polyphony } = instrument;
  if (held.by === "hands")
    return (raw) => (style === fourPart ? raw : raw.filter((v) => handStrain(v.pitches, limits.span, hands) < Infinity));
  if (held.by === "frets")
    return (raw) =>
      raw.flatMap((v) => {
        if (v.shape) return [v];
        const shape = limits.neck && v.pitches.length <= limits.neck.strings.length ? shapeOf(limits.neck, v.pitches) : null;
        return shape ? [{ ...v, shape }] : [];
      });
  return (raw) => raw.filter((v) => v.pitches.length <= polyphony);
}

/** Layouts of a style with a wanted top or lowest note: its own ones, else that note laid over or under fewer voices. */
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
  const fits = (v: RawVoicing) => (top === undefined || v.pitches.at(-1) === top) && (bottom === undefined || v.pitches[0] === bottom);
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
interface Setting {
  options: PathOptions;
  instrument: Instrument;
  neck: Neck | undefined;
  /** The style that was asked for, and the free one that steps in for it. */
  style: VoicingStyle;
  free: VoicingStyle;
  judge: Judge;
  limits: VoicingLimits;
  hands: 1 | 2;
  /** Where layouts lie best. */
  center: number;
}

/** Lowest and highest pitch of the layouts: the window within the instrument; one that does not meet it gives way to what is comfortable. */
function rangeOf(instrument: Instrument, options: PathOptions): [Midi, Midi] {
  const { by } = instrument.held;
  const [lowest, highest] = midiRange(by === "hands" ? instrument.comfortable : instrument.range);
  const window = options.range ? midiRange(options.range) : by === "frets" ? ([lowest, highest] as const) : WINDOW;
  const register = options.register ?? 0;
  const inside = (m: number) => Math.min(highest, Math.max(lowest, m));
  const [low, high] = [inside(window[0] + register), inside(window[1] + register)];
  if (high - low >= 12) return [low, high];
  const comfort = midiRange(instrument.comfortable);
  return [Math.min(low, comfort[0]), Math.max(high, Math.min(comfort[1], comfort[0] + 24))];
}

function settingOf(options: PathOptions): Result<Setting> {
  const wanted = VOICING_STYLES.find((s) => s.id === (options.style ?? "keyboard"));
  if (!wanted)
    return fail("voicing.style", `No voicing style is called "${options.style}"`, {
      hint: `Styles: ${VOICING_STYLES.map((s) => s.id).join(", ")}.`,
    });
  const instrument = instrumentOf(options.instrument ?? "piano", options.song);
  const { held, polyphony } = instrument;
  const neck = neckOf(instrument, options.capo, options.tuning);
  const oneNote = polyphony === 1;
  const free = held.by === "frets" ? shapes : oneNote ? single : keyboard;
  // The free style of a fretted instrument are its shapes; an instrument of one note plays single notes.
  const foreign = (wanted.held ?? held.by) !== held.by || (held.by !== "hands" && wanted.id === "every");
  const style = oneNote || foreign || wanted === keyboard ? free : wanted;
  const [low, high] = rangeOf(instrument, options);
  const register = options.register ?? 0;
  return ok({
    options,
    instrument,
    neck,
    style,
    free,
    judge: {
      // Four-part writing brings its own rules along.
      profile: style === fourPart ? "chorale" : (options.profile ?? "band"),
      weights: weightsWith(options.weights),
      top: options.topShape ?? "smooth",
    },
    limits: {
      low,
      high,
      voices: Math.min(options.voices ?? 4, polyphony),
      span: held.by === "hands" ? (options.span ?? held.span) : 127,
      bassCovered: options.bassCovered ?? true,
      ...(neck ? { neck } : {}),
    },
    hands: options.hands ?? 2,
    center: neck ? (Math.min(...neck.strings) + Math.max(...neck.strings)) / 2 + neck.capo + 2 + register : (low + high) / 2 - 1,
  });
}

interface Outer {
  top?: Midi;
  bottom?: Midi;
}

/** Layouts of a chord in a style, each worked out once. */
function layoutsOf({ instrument, limits, hands }: Setting): (style: VoicingStyle, chord: Chord, outer?: Outer) => RawVoicing[] {
  const made = new Map<VoicingStyle, { playable: (raw: RawVoicing[]) => RawVoicing[]; plain: Map<string, RawVoicing[]> }>();
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

/** A pinned layout as it is, with its shape where it has one. */
function pinnedLayout(pin: readonly PitchName[], neck: Neck | undefined): RawVoicing {
  const pitches = pin.map(pitchMidi).sort((a, b) => a - b);
  const shape = neck ? shapeOf(neck, pitches, { highest: 24, span: 24, reach: 999, fingers: 9, muted: 9 }) : null;
  return { pitches, missing: 0, doubling: 0, ...(shape ? { shape } : {}) };
}

type Layouts = ReturnType<typeof layoutsOf>;
type Found = Pick<Column, "top" | "bottomMissed"> & { raw: RawVoicing[] };

/** Layouts with wanted outer notes, and what became of the wishes. */
function withWishes(s: Setting, layouts: Layouts, chord: Chord, wish: { top?: PitchName; bottom?: PitchName }): Found {
  const outer: Outer = {
    ...(wish.top ? { top: pitchMidi(wish.top) } : {}),
    ...(wish.bottom ? { bottom: pitchMidi(wish.bottom) } : {}),
  };
  const whole = midiRange(s.instrument.range);
  const away = [outer.top, outer.bottom].some((m) => m !== undefined && (m < whole[0] || m > whole[1]));
  let raw = away ? [] : layouts(s.style, chord, outer);
  if (!raw.length && !away) raw = layouts(s.free, chord, outer);
  const bottomMissed = !raw.length && wish.bottom ? { bottomMissed: wish.bottom } : {};
  if (!raw.length && wish.bottom && wish.top && !away) raw = layouts(s.free, chord, { top: outer.top! });
  if (!wish.top) return { raw, ...bottomMissed };
  const inChord = chord.tones.some((t) => mod(pitchMidi(chord.root + "4") + t.semitones, 12) === mod(outer.top!, 12));
  const why = away ? `outside the range of the ${s.instrument.title.toLowerCase()}` : "no layout of the chord fits under it";
  const met = !raw.length ? "no" : inChord ? "chord" : "over";
  return { raw, ...bottomMissed, top: { wanted: wish.top, met, ...(raw.length ? {} : { why }) } };
}

/** Layouts of the style, else free ones, else fewer voices: they are better than silence. */
function anyLayouts(
  { instrument, style, free, limits, hands }: Setting,
  layouts: Layouts,
  chord: Chord,
): { raw: RawVoicing[]; fallback: boolean } {
  let raw = layouts(style, chord);
  const fallback = !raw.length;
  if (fallback) raw = layouts(free, chord);
  for (let voices = limits.voices - 1; !raw.length && voices > 0; voices--)
    raw = playedOn(instrument, keyboard, limits, hands)(keyboard.candidates(chord, { ...limits, voices }));
  return { raw, fallback };
}

/** What each layout of a chord costs by itself. */
function priced({ instrument, judge, limits, hands, center }: Setting, chord: Chord, raw: readonly RawVoicing[]): Candidate[] {
  const bass = limits.bassCovered ? BASS_OCTAVE + mod(bassPc(chord) - BASS_OCTAVE, 12) : undefined;
  const rough = raw.map((v) => (judge.weights.roughness ? roughness(bass === undefined ? v.pitches : [bass, ...v.pitches]) : 0));
  const smoothest = Math.min(...rough);
  return raw.map((v, k): Candidate => {
    const strain = v.shape ? v.shape.strain : instrument.held.by === "hands" ? handStrain(v.pitches, 127, hands) : 0;
    const terms: Terms = {
      ...nodeTerms(v, center, judge.weights, bass),
      roughness: (rough[k]! - smoothest) * 0.6 * judge.weights.roughness,
      hand: Math.min(strain, 20) * judge.weights.hand,
    };
    return { ...v, terms, cost: sumTerms(terms) };
  });
}

/** Makes the column of a chord; null where nothing can be laid out. Chords of one name share their candidates. */
function columnMaker(s: Setting): (i: number, chord: Chord) => Column | null {
  const layouts = layoutsOf(s);
  const judged = new Map<string, Candidate[]>();
  return (i, chord) => {
    const pin = s.options.pins?.[i];
    const wish = s.options.outer?.[i];
    if (pin) return { chord, fallback: false, candidates: priced(s, chord, [pinnedLayout(pin, s.neck)]) };
    const wished = wish && withWishes(s, layouts, chord, wish);
    const { raw, fallback } = wished?.raw.length ? { raw: wished.raw, fallback: false } : anyLayouts(s, layouts, chord);
    if (!raw.length) return null;
    if (wished) {
      const { raw: _, ...became } = wished;
      return { chord, fallback, ...became, candidates: priced(s, chord, raw) };
    }
    const id = chordSymbol(chord);
    let candidates = judged.get(id);
    if (!candidates) judged.set(id, (candidates = priced(s, chord, raw)));
    return { chord, fallback, candidates };
  };
}

/** All candidates of every chord and the lattice over them. Errors: `voicing.style`, `voicing.none`. */
export function voicingSpace(chords: readonly Chord[], options: PathOptions): Result<VoicingSpace> {
  const setting = settingOf(options);
  if (!setting.ok) return setting;
  const { judge, neck } = setting.value;
  const columnOf = columnMaker(setting.value);
  const columns: Column[] = [];
  for (const [i, chord] of chords.entries()) {
    const column = columnOf(i, chord);
    if (!column)
      return fail("voicing.none", `Chord ${i + 1} (${chordSymbol(chord)}) has no voicing in this range`, { hint: "Use fewer voices." });
    columns.push(column);
  }
  return ok(spaceOver(columns, judge, options.loop ?? false, neck));
}

/** The space over columns that are known. */
export function spaceOver(columns: Column[], judge: Judge, loop: boolean, neck: Neck | undefined): VoicingSpace {
  const lattice: Lattice = {
    sizes: columns.map((c) => c.candidates.length),
    node: (c, i) => columns[c]!.candidates[i]!.cost,
    step: (c, i, j) => stepCost(columns[c]!.candidates[i]!, columns[(c + 1) % columns.length]!.candidates[j]!, judge),
    closed: loop,
    alike: (c) => columns[c]!.candidates,
  };
  let prepared: Prepared | undefined;
  return {
    columns,
    lattice,
    get prepared() {
      return (prepared ??= prepare(lattice));
    },
    closed: loop && columns.length > 1,
    judge,
    ...(neck ? { neck } : {}),
  };
}
