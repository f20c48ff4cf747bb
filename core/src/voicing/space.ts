import { fail, ok, type Result } from "../result";
import { mod, pitchMidi, type Midi, type PitchName, type Semitones } from "../pitch/pitch";
import { bassPc, chordSymbol, type Chord } from "../chord/chord";
import type { Neck } from "../instrument/fretboard";
import { shapeOf } from "../instrument/fretboard";
import { handStrain, NINTH_SPAN } from "../instrument/hands";
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
  prepared: Prepared;
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

/** All candidates of every chord and the lattice over them. Errors: `voicing.style`, `voicing.none`. */
export function voicingSpace(chords: readonly Chord[], options: PathOptions): Result<VoicingSpace> {
  const wanted = VOICING_STYLES.find((s) => s.id === (options.style ?? "keyboard"));
  if (!wanted)
    return fail("voicing.style", `No voicing style is called "${options.style}"`, {
      hint: `Styles: ${VOICING_STYLES.map((s) => s.id).join(", ")}.`,
    });
  const instrument = instrumentOf(options.instrument ?? "piano", options.song);
  const { by } = instrument.held;
  const neck = neckOf(instrument, options.capo, options.tuning);
  const oneNote = instrument.polyphony === 1;
  const free = by === "frets" ? shapes : oneNote ? single : keyboard;
  // The free style of a fretted instrument are its shapes; an instrument of one note plays single notes.
  const style = oneNote || (wanted.held ?? by) !== by || wanted === keyboard || (by !== "hands" && wanted.id === "every") ? free : wanted;
  const judge: Judge = {
    // Four-part writing brings its own rules along.
    profile: style === fourPart ? "chorale" : (options.profile ?? "band"),
    weights: weightsWith(options.weights),
    top: options.topShape ?? "smooth",
  };
  const [lowest, highest] = midiRange(by === "hands" ? instrument.comfortable : instrument.range);
  const window = options.range ? midiRange(options.range) : by === "frets" ? ([lowest, highest] as const) : WINDOW;
  const register = options.register ?? 0;
  // A window that does not meet the instrument gives way to what is comfortable on it.
  const comfort = midiRange(instrument.comfortable);
  const inside = (m: number) => Math.min(highest, Math.max(lowest, m));
  let [low, high] = [inside(window[0] + register), inside(window[1] + register)];
  if (high - low < 12) [low, high] = [Math.min(low, comfort[0]), Math.max(high, Math.min(comfort[1], comfort[0] + 24))];
  const limits: VoicingLimits = {
    low,
    high,
    voices: Math.min(options.voices ?? 4, instrument.polyphony),
    span: by === "hands" ? (options.span ?? (instrument.held.by === "hands" ? instrument.held.span : NINTH_SPAN)) : 127,
    bassCovered: options.bassCovered ?? true,
    ...(neck ? { neck } : {}),
  };
  const hands = options.hands ?? 2;
  const center = neck ? (Math.min(...neck.strings) + Math.max(...neck.strings)) / 2 + neck.capo + 2 + register : (low + high) / 2 - 1;
  const made = new Map<VoicingStyle, (chord: Chord, outer?: { top?: Midi; bottom?: Midi }) => RawVoicing[]>();
  const layouts = (s: VoicingStyle) => {
    let make = made.get(s);
    if (!make) {
      const playable = playedOn(instrument, s, limits, hands);
      const plain = new Map<string, RawVoicing[]>();
      make = (chord, outer) => {
        if (outer) return playable(withOuterNotes((l) => s.candidates(chord, l), limits, outer.top, outer.bottom));
        const id = chordSymbol(chord);
        let list = plain.get(id);
        if (!list) plain.set(id, (list = playable(s.candidates(chord, limits))));
        return list;
      };
      made.set(s, make);
    }
    return make;
  };
  const judged = new Map<string, Candidate[]>();
  const columns: Column[] = [];
  for (const [i, chord] of chords.entries()) {
    const column = candidatesOf(i, chord);
    if (!column)
      return fail("voicing.none", `Chord ${i + 1} (${chordSymbol(chord)}) has no voicing in this range`, { hint: "Use fewer voices." });
    columns.push(column);
  }

  function candidatesOf(i: number, chord: Chord): Column | null {
    const pin = options.pins?.[i];
    const wish = options.outer?.[i];
    let top: TopReport | undefined;
    let raw: RawVoicing[] = [];
    let fallback = false;
    let bottomMissed: PitchName | undefined;
    if (pin) {
      const pitches = pin.map(pitchMidi).sort((a, b) => a - b);
      const shape = neck ? shapeOf(neck, pitches, { highest: 24, span: 24, reach: 999, fingers: 9, muted: 9 }) : null;
      raw = [{ pitches, missing: 0, doubling: 0, ...(shape ? { shape } : {}) }];
    } else {
      if (wish) {
        const outer = {
          ...(wish.top ? { top: pitchMidi(wish.top) } : {}),
          ...(wish.bottom ? { bottom: pitchMidi(wish.bottom) } : {}),
        };
        const whole = midiRange(instrument.range);
        const away = [outer.top, outer.bottom].some((m) => m !== undefined && (m < whole[0] || m > whole[1]));
        raw = away ? [] : layouts(style)(chord, outer);
        if (!raw.length && !away) raw = layouts(free)(chord, outer);
        if (!raw.length && wish.top && wish.bottom && !away) {
          raw = layouts(free)(chord, { top: outer.top! });
          if (raw.length) bottomMissed = wish.bottom;
        }
        if (wish.top) {
          const inChord = chord.tones.some((t) => mod(pitchMidi(chord.root + "4") + t.semitones, 12) === mod(outer.top!, 12));
          top = {
            wanted: wish.top,
            met: !raw.length ? "no" : inChord ? "chord" : "over",
            ...(raw.length
              ? {}
              : { why: away ? `outside the range of the ${instrument.title.toLowerCase()}` : "no layout of the chord fits under it" }),
          };
        }
        if (!raw.length && wish.bottom) bottomMissed = wish.bottom;
      }
      if (!raw.length) raw = layouts(style)(chord);
      if (!raw.length) {
        fallback = true;
        raw = layouts(free)(chord);
      }
      // Fewer voices than asked for are better than silence.
      for (let voices = limits.voices - 1; !raw.length && voices > 0; voices--)
        raw = playedOn(instrument, keyboard, limits, hands)(keyboard.candidates(chord, { ...limits, voices }));
    }
    if (!raw.length) return null;
    const id = chordSymbol(chord);
    const known = pin || wish ? undefined : judged.get(id);
    if (known) return { chord, fallback, candidates: known };
    const bass = limits.bassCovered ? BASS_OCTAVE + mod(bassPc(chord) - BASS_OCTAVE, 12) : undefined;
    const rough = raw.map((v) => (judge.weights.roughness ? roughness(bass === undefined ? v.pitches : [bass, ...v.pitches]) : 0));
    const smoothest = Math.min(...rough);
    const candidates = raw.map((v, k): Candidate => {
      const strain = v.shape ? v.shape.strain : by === "hands" ? handStrain(v.pitches, 127, hands) : 0;
      const terms: Terms = {
        ...nodeTerms(v, center, judge.weights, bass),
        roughness: (rough[k]! - smoothest) * 0.6 * judge.weights.roughness,
        hand: Math.min(strain, 20) * judge.weights.hand,
      };
      return { ...v, terms, cost: sumTerms(terms) };
    });
    if (!pin && !wish) judged.set(id, candidates);
    return { chord, fallback, ...(top ? { top } : {}), ...(bottomMissed ? { bottomMissed } : {}), candidates };
  }

  const lattice: Lattice = {
    sizes: columns.map((c) => c.candidates.length),
    node: (c, i) => columns[c]!.candidates[i]!.cost,
    step: (c, i, j) => stepCost(columns[c]!.candidates[i]!, columns[(c + 1) % columns.length]!.candidates[j]!, judge),
    closed: options.loop ?? false,
    alike: (c) => columns[c]!.candidates,
  };
  return ok({ columns, lattice, prepared: prepare(lattice), judge, ...(neck ? { neck } : {}) });
}
