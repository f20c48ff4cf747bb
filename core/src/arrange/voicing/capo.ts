import { firstOf } from "../../base/list";
import { must, ok, type Result } from "../../base/result";
import { keyName, parseKey, transposeKey } from "../../theory/pitch/key";
import { HIGHEST_CAPO } from "../../theory/instrument/fretboard";
import type { Song } from "../../song/schema";
import { describe } from "./path";
import { pathsOf } from "./ways";
import { askVoicing, pathOf } from "./section";
import { voicingSpace } from "./space";

export interface CapoChoice {
  capo: number;
  /** Strain on the hand over the whole song, position changes included. */
  strain: number;
  barres: number;
  /** Open strings that sound. */
  open: number;
  /** The key the player thinks in. */
  keyOfShapes: string;
}

/** Keys in which guitarists think: few accidentals, open shapes (common practice). */
const FAMILIAR = new Set(["C", "G", "D", "A", "E", "F", "Am", "Em", "Dm", "Bm", "F#m"]);
const isFamiliar = (name: string): boolean =>
  FAMILIAR.has(firstOf(name.split(" ")) + (/minor|dorian|phrygian|locrian/.test(name) ? "m" : ""));

/**
 * High on the neck strings are short and thin: of capos that are about as easy the lower one comes first (common
 * practice).
 */
const weighed = ({ strain, capo }: CapoChoice): number => strain * (1 + capo * 0.03);

/**
 * The capo that makes the whole song easiest for a fretted part: no capo, and every fret up to `highest` under which
 * the player thinks in a key one knows shapes of; easiest first.
 */
export function chooseCapo(song: Song, partId: string, highest = HIGHEST_CAPO): Result<CapoChoice[]> {
  const out: CapoChoice[] = [];
  for (let capo = 0; capo <= highest; capo++) {
    const keyOfShapes = keyName(transposeKey(must(parseKey(song.key)), -capo));
    if (capo && !isFamiliar(keyOfShapes)) continue;
    const sum = { capo, strain: 0, barres: 0, open: 0, keyOfShapes };
    for (const section of song.sections) {
      const asked = askVoicing(song, section.id, partId);
      if (!asked.ok) return asked;
      // Each capo is tried through the section alone: what follows is held with another one now.
      const { onto: _, ...own } = asked.value;
      const { chords, options } = pathOf(own);
      if (!chords.length) continue;
      const space = voicingSpace(chords, { ...options, capo, pins: {} });
      if (!space.ok) return space;
      const best = firstOf(pathsOf(space.value, 1)).path;
      const path = describe(space.value, best);
      sum.strain += path.terms.hand ?? 0;
      for (const { shape } of path.chords) {
        if (!shape) continue;
        sum.barres += shape.barre ? 1 : 0;
        sum.open += shape.frets.filter((f) => f === 0).length;
      }
    }
    out.push({ ...sum, strain: Math.round(sum.strain * 10) / 10 });
  }
  return ok(out.sort((a, b) => weighed(a) - weighed(b)));
}
