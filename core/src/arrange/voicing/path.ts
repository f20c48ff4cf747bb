import { firstOf, nth } from "../../base/list";
import { fail, ok, type Result } from "../../base/result";
import { mod, pitchName, plainName, type Midi, type PitchName } from "../../theory/pitch/pitch";
import { chordToneName, type Chord } from "../../theory/chord/chord";
import { parseChord } from "../../theory/chord/parse";
import type { Path } from "../../search/lattice";
import type { Shape } from "../../theory/instrument/fretboard";
import { commonTones, motionBetween } from "../../theory/motion/motion";
import { layoutStep, stepTerms, sumTerms, trade, type TermName, type Terms, type Weights } from "./cost";
import { voicingSpace, type VoicingSpace } from "./space";
import type { PathOptions } from "./setting";
import { pathsOf } from "./ways";

export interface VoicedChord {
  pitches: PitchName[];
  /** Terms of the voicing itself and of the step from the chord before. */
  terms: Terms;
  cost: number;
  /** Semitones moved from the chord before, and tones kept; null for the first chord of an open path. */
  motion: number | null;
  kept: number | null;
  /** How it lies on a neck. */
  shape?: Shape;
  /** What it is made of, where that has a name. */
  says?: string;
}

export interface VoicedPath {
  chords: VoicedChord[];
  cost: number;
  /** Total motion in semitones. */
  motion: number;
  /** Sums of the terms over the whole path. */
  terms: Terms;
  /** Candidates looked at for each chord. */
  candidates: number[];
  /** Chords, by index, that the style does not suit: they are laid out freely. */
  freely: number[];
  /** No cheaper path differs from those before it; otherwise it is the cheapest that was found. */
  exact: boolean;
}

/** Spelled as the chord wants it. */
export const spellVoicing = (pitches: readonly Midi[], chord: Chord): PitchName[] =>
  pitches.map((midi) => pitchName(midi, chordToneName(chord, mod(midi, 12)) ?? plainName(midi, true)));

/** A path of a voicing space with its terms. */
export function describe(space: VoicingSpace, { picks, cost }: Path, exact = true): VoicedPath {
  const n = picks.length;
  const at = (c: number) => nth(nth(space.columns, c).candidates, nth(picks, c));
  const total: Terms = {};
  const chords = picks.map((_, c): VoicedChord => {
    const here = at(c);
    const before = c > 0 || space.closed ? at((c + n - 1) % n) : null;
    const step = before ? stepTerms(before, here, space.judge) : {};
    const terms: Terms = { ...here.terms };
    for (const [name, value] of Object.entries(step) as [TermName, number][]) terms[name] = (terms[name] ?? 0) + value;
    for (const [name, value] of Object.entries(terms) as [TermName, number][]) total[name] = (total[name] ?? 0) + value;
    return {
      pitches: spellVoicing(here.pitches, nth(space.columns, c).chord),
      terms,
      cost: sumTerms(terms),
      motion: before ? motionBetween(before.pitches, here.pitches) : null,
      kept: before ? commonTones(before.pitches, here.pitches) : null,
      ...(here.shape ? { shape: here.shape } : {}),
      ...(here.says ? { says: here.says } : {}),
    };
  });
  return {
    chords,
    cost,
    motion: chords.reduce((sum, c) => sum + (c.motion ?? 0), 0),
    terms: total,
    candidates: space.columns.map((c) => c.candidates.length),
    freely: space.columns.flatMap((c, i) => (c.fallback ? [i] : [])),
    exact,
  };
}

/** The cheapest voicing path and its alternatives, as `pathsOf` says. */
export function voicePaths(chords: readonly Chord[], options: PathOptions & { k?: number }): Result<VoicedPath[]> {
  if (!chords.length) return ok([]);
  const space = voicingSpace(chords, options);
  if (!space.ok) return space;
  return ok(pathsOf(space.value, options.k ?? 1).map(({ path, exact }) => describe(space.value, path, exact)));
}

export interface ProgressionRequest {
  chords: string[];
  instrument?: string;
  style?: string;
  loop?: boolean;
  voices?: number;
  bassCovered?: boolean;
  capo?: number;
  /** Pitch classes of the key, from which colors are taken that a symbol does not name. */
  scale?: readonly number[];
  weights?: Partial<Weights>;
  pins?: Record<number, PitchName[]>;
  outer?: NonNullable<PathOptions["outer"]>;
}

export interface VoicedProgression {
  voicings: PitchName[][];
  motion: number;
  terms: Terms[];
  /** Fret shapes of a fretted instrument. */
  shapes?: Shape[];
  /** Chords, by index, that the style does not suit: they are laid out freely. */
  fallbacks: number[];
}

/** Voices a list of chord symbols; best first. Errors name the chord that cannot be read or voiced. */
export function voicedProgressions(request: ProgressionRequest & { k?: number }): Result<VoicedProgression[]> {
  const chords: Chord[] = [];
  for (const symbol of request.chords) {
    const chord = parseChord(symbol);
    if (!chord.ok) return chord;
    chords.push(chord.value);
  }
  const paths = voicePaths(chords, request);
  if (!paths.ok) return paths;
  return ok(
    paths.value.map((p) => {
      const shapes = p.chords.flatMap((c) => c.shape ?? []);
      return {
        voicings: p.chords.map((c) => c.pitches),
        motion: p.motion,
        terms: p.chords.map((c) => c.terms),
        fallbacks: p.freely,
        ...(shapes.length ? { shapes } : {}),
      };
    }),
  );
}

/** The list alone, best first; empty where `voicedProgressions` would name an error. */
export function voiceProgression(request: ProgressionRequest & { k?: number }): VoicedProgression[] {
  const result = voicedProgressions(request);
  return result.ok ? result.value : [];
}

export interface Alternative {
  pitches: PitchName[];
  terms: Terms;
  cost: number;
  /** What it trades against the one that is chosen. */
  trades: string[];
  shape?: Shape;
}

/** The cheapest layouts of one chord while its neighbors stay; each has another pair of bottom and top note. */
export function alternativesAt(
  space: VoicingSpace,
  free: VoicingSpace,
  picks: readonly number[],
  { c, most = 8 }: { c: number; most?: number | undefined },
): Alternative[] {
  const n = picks.length;
  const { closed } = space;
  const neighbor = (at: number) =>
    closed
      ? nth(space.columns, mod(at, n)).candidates[nth(picks, mod(at, n))]
      : space.columns[at]?.candidates[nth(picks, at)];
  const before = n > 1 ? neighbor(c - 1) : undefined;
  const after = n > 1 ? neighbor(c + 1) : undefined;
  const both = (v: (typeof free.columns)[number]["candidates"][number]): Terms => {
    const sum: Terms = { ...v.terms };
    for (const step of [before ? stepTerms(before, v, space.judge) : {}, after ? stepTerms(v, after, space.judge) : {}])
      for (const [name, value] of Object.entries(step) as [TermName, number][]) sum[name] = (sum[name] ?? 0) + value;
    return sum;
  };
  const chosen = both(nth(nth(space.columns, c).candidates, nth(picks, c)));
  const ranked = nth(free.columns, c)
    .candidates.map((v) => ({
      v,
      cost:
        v.cost + (before ? layoutStep(before, v, space.judge) : 0) + (after ? layoutStep(v, after, space.judge) : 0),
    }))
    .sort((a, b) => a.cost - b.cost);
  const seen = new Set<string>();
  const out: Alternative[] = [];
  for (const { v, cost } of ranked) {
    const id = `${mod(firstOf(v.pitches), 12)}:${v.pitches.at(-1)}`;
    if (seen.has(id)) continue;
    seen.add(id);
    const terms = both(v);
    out.push({
      pitches: spellVoicing(v.pitches, nth(free.columns, c).chord),
      terms,
      cost,
      trades: trade(chosen, terms)
        .slice(0, 3)
        .map((t) => t.words),
      ...(v.shape ? { shape: v.shape } : {}),
    });
    if (out.length === most) break;
  }
  return out;
}

/** An error for a song that has no such place. */
export const noPlace = (section: string, part: string): Result<never> =>
  fail("voicing.place", `No section "${section}" or part "${part}"`);
