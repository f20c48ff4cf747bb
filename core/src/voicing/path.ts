import { fail, ok, type Result } from "../result";
import { mod, pitchMidi, pitchName, plainName, type Midi, type PitchName } from "../pitch/pitch";
import { bassPc, chordToneName, type Chord } from "../chord/chord";
import { parseChord } from "../chord/parse";
import { NO_CHORD } from "../chord/progression";
import { sectionOf, partOf } from "../song/document";
import type { Profile, Song } from "../song/schema";
import { cheapestPaths, prepare, type Lattice, type Prepared } from "../lattice/lattice";
import { commonTones, motionBetween } from "../motion/motion";
import { instrumentOf, midiRange } from "../instrument/instruments";
import { nodeTerms, stepCost, stepTerms, sumTerms, type Terms } from "./cost";
import type { RawVoicing } from "./style";
import { VOICING_STYLES } from "./styles";
import { fourPart } from "./styles/fourPart";
import { keyboard, playable } from "./styles/keyboard";

export interface PathOptions {
  style?: string;
  instrument?: string;
  loop?: boolean;
  voices?: number;
  bassCovered?: boolean;
  profile?: Profile;
  /** Lowest and highest note; by default the middle of the keyboard. */
  range?: [PitchName, PitchName];
  /** Fixed voicings by index of the chord. */
  pins?: Record<number, PitchName[]>;
}

interface Column {
  chord: Chord;
  candidates: (RawVoicing & { terms: Terms; cost: number })[];
  /** The style had nothing for this chord; the free one was used. */
  instead: boolean;
}

export interface VoicingSpace {
  columns: Column[];
  lattice: Lattice;
  prepared: Prepared;
  profile: Profile;
}

/** Part of the keyboard the chord part lives in: around the middle, above most bass notes. */
const WINDOW: [Midi, Midi] = [47, 79];
/** A bass part is expected in the octave from E1 up. */
const BASS_OCTAVE: Midi = 28;

/** All candidates of every chord and the lattice over them. */
export function voicingSpace(chords: readonly Chord[], options: PathOptions): Result<VoicingSpace> {
  const style = VOICING_STYLES.find((s) => s.id === (options.style ?? "keyboard"));
  if (!style)
    return fail("voicing.style", `No voicing style is called "${options.style}"`, {
      hint: `Styles: ${VOICING_STYLES.map((s) => s.id).join(", ")}.`,
    });
  // Four-part writing brings its own rules along.
  const profile = style === fourPart ? "chorale" : (options.profile ?? "band");
  const [rangeLow, rangeHigh] = midiRange(instrumentOf(options.instrument ?? "piano").comfortable);
  const window = options.range ? midiRange(options.range) : WINDOW;
  const limits = {
    low: Math.max(rangeLow, window[0]),
    high: Math.min(rangeHigh, window[1]),
    voices: options.voices ?? 4,
    span: 14,
    bassCovered: options.bassCovered ?? true,
  };
  const center = (limits.low + limits.high) / 2 - 1;
  const columns: Column[] = [];
  for (const [i, chord] of chords.entries()) {
    const pin = options.pins?.[i];
    const own = pin ? [] : style.candidates(chord, limits).filter((v) => style === fourPart || playable(v.pitches, limits.span));
    const raw: RawVoicing[] = pin
      ? [{ pitches: pin.map(pitchMidi).sort((a, b) => a - b), missing: 0, doubling: 0 }]
      : own.length
        ? own
        : keyboard.candidates(chord, limits);
    if (!raw.length) return fail("voicing.none", `Chord ${i + 1} has no voicing in this range`, { hint: "Use fewer voices." });
    columns.push({
      chord,
      instead: !pin && !own.length,
      candidates: raw.map((v) => {
        const terms = nodeTerms(v, center, limits.bassCovered ? BASS_OCTAVE + mod(bassPc(chord) - BASS_OCTAVE, 12) : undefined);
        return { ...v, terms, cost: sumTerms(terms) };
      }),
    });
  }
  const lattice: Lattice = {
    sizes: columns.map((c) => c.candidates.length),
    node: (c, i) => columns[c]!.candidates[i]!.cost,
    step: (c, i, j) => stepCost(columns[c]!.candidates[i]!.pitches, columns[(c + 1) % columns.length]!.candidates[j]!.pitches, profile),
    closed: options.loop ?? false,
  };
  return ok({ columns, lattice, prepared: prepare(lattice), profile });
}

export interface VoicedChord {
  pitches: PitchName[];
  /** Terms of the voicing itself and of the step from the chord before. */
  terms: Terms;
  cost: number;
  /** Semitones moved from the chord before, and tones kept; null for the first chord of an open path. */
  motion: number | null;
  kept: number | null;
}

export interface VoicedPath {
  chords: VoicedChord[];
  cost: number;
  /** Total motion in semitones. */
  motion: number;
  /** Candidates looked at for each chord. */
  candidates: number[];
}

/** Spelled as the chord wants it. */
export const spellVoicing = (pitches: readonly Midi[], chord: Chord): PitchName[] =>
  pitches.map((midi) => pitchName(midi, chordToneName(chord, mod(midi, 12)) ?? plainName(midi, true)));

function describe(space: VoicingSpace, picks: readonly number[], cost: number): VoicedPath {
  const n = picks.length;
  const pitchesAt = (c: number) => space.columns[c]!.candidates[picks[c]!]!;
  const chords = picks.map((_, c): VoicedChord => {
    const here = pitchesAt(c);
    const before = c > 0 || space.prepared.closed ? pitchesAt((c + n - 1) % n) : null;
    const terms = { ...(before ? stepTerms(before.pitches, here.pitches, space.profile) : {}), ...here.terms };
    return {
      pitches: spellVoicing(here.pitches, space.columns[c]!.chord),
      terms,
      cost: sumTerms(terms),
      motion: before ? motionBetween(before.pitches, here.pitches) : null,
      kept: before ? commonTones(before.pitches, here.pitches) : null,
    };
  });
  return {
    chords,
    cost,
    motion: chords.reduce((sum, c) => sum + (c.motion ?? 0), 0),
    candidates: space.columns.map((c) => c.candidates.length),
  };
}

/** The k cheapest voicing paths; alternatives differ in at least a quarter of the chords. */
export function voicePaths(chords: readonly Chord[], options: PathOptions & { k?: number }): Result<VoicedPath[]> {
  if (!chords.length) return ok([]);
  const space = voicingSpace(chords, options);
  if (!space.ok) return space;
  const least = Math.max(1, Math.ceil(chords.length / 4));
  const paths = cheapestPaths(space.value.prepared, {
    k: options.k ?? 1,
    differs: (a, b) => a.filter((x, i) => x !== b[i]).length >= least,
    limit: 3000,
  });
  return ok(paths.map((p) => describe(space.value, p.picks, p.cost)));
}

export interface ProgressionRequest {
  chords: string[];
  instrument?: string;
  style?: string;
  loop?: boolean;
  voices?: number;
  bassCovered?: boolean;
  pins?: Record<number, PitchName[]>;
}

/** Voices a list of chord symbols; best first. Errors name the chord that cannot be read or voiced. */
export function tryVoiceProgression(
  request: ProgressionRequest & { k?: number },
): Result<{ voicings: PitchName[][]; motion: number; terms: Terms[] }[]> {
  const chords: Chord[] = [];
  for (const symbol of request.chords) {
    const chord = parseChord(symbol);
    if (!chord.ok) return chord;
    chords.push(chord.value);
  }
  const paths = voicePaths(chords, request);
  return paths.ok
    ? ok(paths.value.map((p) => ({ voicings: p.chords.map((c) => c.pitches), motion: p.motion, terms: p.chords.map((c) => c.terms) })))
    : paths;
}

/** The list alone, best first; empty where `tryVoiceProgression` would name an error. */
export function voiceProgression(
  request: ProgressionRequest & { k?: number },
): { voicings: PitchName[][]; motion: number; terms: Terms[] }[] {
  const result = tryVoiceProgression(request);
  return result.ok ? result.value : [];
}

export interface SectionVoicing extends VoicedPath {
  /** Chord event ids in the order of `chords`; N.C. has none. */
  ids: string[];
  /** Ids of the chords that the style does not suit: they are laid out freely. */
  instead: string[];
  /** Other layouts for each chord beside its present neighbours, cheapest first, each with another bottom or top note. */
  alternatives: Record<string, { pitches: PitchName[]; terms: Terms; cost: number }[]>;
}

/** Voices a section for one chord part, keeping pinned voicings. */
export function voiceSection(song: Song, sectionId: string, partId: string): Result<SectionVoicing> {
  const section = sectionOf(song, sectionId);
  const part = partOf(song, partId);
  if (!section || !part) return fail("voicing.place", `No section "${sectionId}" or part "${partId}"`);
  const events = section.chords.filter((c) => c.symbol !== NO_CHORD);
  const chords = events.flatMap((e) => {
    const c = parseChord(e.symbol);
    return c.ok ? [c.value] : [];
  });
  const pins: Record<number, PitchName[]> = {};
  events.forEach((e, i) => {
    const v = e.voicings?.[partId];
    if (v?.pinned) pins[i] = v.pitches;
  });
  if (!chords.length) return ok({ ids: [], chords: [], cost: 0, motion: 0, candidates: [], instead: [], alternatives: {} });
  const bassCovered = song.parts.some((p) => p.role === "bass");
  const wanted = typeof part.settings.style === "string" ? part.settings.style : "keyboard";
  const options = {
    // A style that a later version wrote is voiced freely.
    style: VOICING_STYLES.some((s) => s.id === wanted) ? wanted : "keyboard",
    instrument: part.instrument,
    loop: part.link?.loop ?? false,
    voices: Number(part.settings.voices ?? 4),
    profile: song.profile,
    bassCovered,
    pins,
    ...(part.range ? { range: part.range } : {}),
  };
  const space = voicingSpace(chords, options);
  if (!space.ok) return space;
  const [best] = cheapestPaths(space.value.prepared, { k: 1 });
  if (!best) return fail("voicing.none", "No path of voicings fits the pins");
  const path = describe(space.value, best.picks, best.cost);
  const alternatives: SectionVoicing["alternatives"] = {};
  const free = Object.keys(pins).length ? voicingSpace(chords, { ...options, pins: {} }) : space;
  events.forEach((event, c) => {
    if (free.ok) alternatives[event.id] = beside(space.value, free.value, best.picks, c);
  });
  return ok({
    ...path,
    ids: events.map((e) => e.id),
    instead: events.filter((_, c) => space.value.columns[c]!.instead).map((e) => e.id),
    alternatives,
  });
}

/** The cheapest layouts of one chord while its neighbours stay; each has another pair of bottom and top note. */
function beside(
  space: VoicingSpace,
  free: VoicingSpace,
  picks: readonly number[],
  c: number,
): { pitches: PitchName[]; terms: Terms; cost: number }[] {
  const n = picks.length;
  const { closed } = space.prepared;
  const neighbor = (at: number) =>
    (closed ? space.columns[mod(at, n)]!.candidates[picks[mod(at, n)]!] : space.columns[at]?.candidates[picks[at]!])?.pitches;
  const before = n > 1 ? neighbor(c - 1) : undefined;
  const after = n > 1 ? neighbor(c + 1) : undefined;
  const ranked = free.columns[c]!.candidates.map((v) => ({
    v,
    cost: v.cost + (before ? stepCost(before, v.pitches, space.profile) : 0) + (after ? stepCost(v.pitches, after, space.profile) : 0),
  })).sort((a, b) => a.cost - b.cost);
  const seen = new Set<string>();
  const out = [];
  for (const { v, cost } of ranked) {
    const id = `${mod(v.pitches[0]!, 12)}:${v.pitches.at(-1)}`;
    if (seen.has(id)) continue;
    seen.add(id);
    out.push({
      pitches: spellVoicing(v.pitches, free.columns[c]!.chord),
      terms: { ...(before ? stepTerms(before, v.pitches, space.profile) : {}), ...v.terms },
      cost,
    });
    if (out.length === 8) break;
  }
  return out;
}
