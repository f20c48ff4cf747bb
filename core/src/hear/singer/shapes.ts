import { must } from "../../base/result";
import { keyName, parseKey, transposeKey } from "../../theory/pitch/key";
import { mod, pitchMidi, type Semitones } from "../../theory/pitch/pitch";
import { chordSymbol, rootPc, transposeChord, type Chord } from "../../theory/chord/chord";
import { chordOf } from "../../theory/chord/progression";
import { findShapes, SHAPE_LIMITS } from "../../theory/instrument/fretboard";
import { instrumentOf } from "../../theory/instrument/instruments";
import { movedBetween } from "../../song/realize";
import type { Song } from "../../song/schema";

/** How a song is held on a neck in one key. */
export interface NeckKey {
  instrument: "guitar" | "ukulele";
  capo: number;
  /** The key the player thinks in. */
  keyOfShapes: string;
  /** The chords as they are held, the most played first. */
  chords: string[];
  /** Mean strain of a chord: 1 and less is easy. */
  strain: number;
}

/** A capo above this is out of the way of most hands; each fret of it is worth a little (common practice). */
const HIGHEST_CAPO = 7;
const CAPO_COST = 0.06;
/** Open position and the barre chords next to it. */
const NEAR = { ...SHAPE_LIMITS, highest: 5 };
/** Where no hand can hold it. */
const IMPOSSIBLE = 8;

const strains = new Map<string, number>();

/** How hard the easiest shape of a chord near the nut is; `pc` is its root. */
function strainOf(instrument: NeckKey["instrument"], chord: Chord, root: number): number {
  const id = `${instrument}:${root}:${chord.quality}`;
  const known = strains.get(id);
  if (known !== undefined) return known;
  const { held } = instrumentOf(instrument);
  if (held.by !== "frets") return IMPOSSIBLE;
  const neck = { strings: held.strings.map(pitchMidi), frets: held.frets, capo: 0, scale: held.scale };
  const pcs = chord.tones.map((t) => mod(root + t.semitones, 12));
  // What names the chord must sound; a plain fifth and, on four strings, the root may be missing.
  const needed = chord.tones.filter(
    (t) =>
      [2, 3, 4, 6, 7].includes(t.degree) ||
      (t.degree === 1 && instrument === "guitar") ||
      (t.degree === 5 && t.alter !== 0),
  );
  const found = findShapes(
    neck,
    pcs,
    needed.map((t) => mod(root + t.semitones, 12)),
    { limits: NEAR, least: Math.min(4, neck.strings.length) },
  );
  const best = found.reduce((least, s) => Math.min(least, s.strain), IMPOSSIBLE);
  if (strains.size > 2000) strains.clear();
  strains.set(id, best);
  return best;
}

/** The chords of a song with the time each takes in all sections, the longest first. */
function chordsOf(song: Song): { chord: Chord; weight: number }[] {
  const out = new Map<string, { chord: Chord; weight: number }>();
  for (const c of song.sections.flatMap((s) => s.chords)) {
    const chord = chordOf(c.symbol);
    if (!chord) continue;
    const { bass: _, ...plain } = chord;
    const id = chordSymbol(plain);
    const known = out.get(id);
    if (known) known.weight += c.duration;
    else out.set(id, { chord: plain, weight: c.duration });
  }
  return [...out.values()].sort((a, b) => b.weight - a.weight);
}

/**
 * How a song that is moved by so many semitones is held easiest: the capo, and the chords under it. Null where it has
 * no chords.
 */
export function neckKey(song: Song, semitones: Semitones, instrument: NeckKey["instrument"]): NeckKey | null {
  const chords = chordsOf(song);
  const all = chords.reduce((sum, c) => sum + c.weight, 0);
  if (!all) return null;
  const home = must(parseKey(song.key));
  const mean = (capo: number) =>
    chords.reduce(
      (sum, c) => sum + c.weight * strainOf(instrument, c.chord, mod(rootPc(c.chord) + semitones - capo, 12)),
      0,
    ) / all;
  const capos = Array.from({ length: HIGHEST_CAPO + 1 }, (_, capo) => ({ capo, strain: mean(capo) }));
  const best = capos.reduce((a, b) => (b.strain + b.capo * CAPO_COST < a.strain + a.capo * CAPO_COST - 1e-9 ? b : a));
  const by = semitones - best.capo;
  const key = mod(by, 12) === 0 ? home : transposeKey(home, by);
  const move = movedBetween(home, key, by);
  return {
    instrument,
    capo: best.capo,
    keyOfShapes: keyName(key),
    chords: chords.map((c) => chordSymbol(transposeChord(c.chord, move))),
    strain: Math.round(best.strain * 100) / 100,
  };
}
