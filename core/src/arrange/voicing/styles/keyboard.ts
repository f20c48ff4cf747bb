import { firstOf, lastOf, nth } from "../../../base/list";
import { mod, type Midi } from "../../../theory/pitch/pitch";
import { bassPc, rootPc, type Chord, type ChordTone } from "../../../theory/chord/chord";
import { handStrain } from "../../../theory/instrument/hands";
import { doublingCost, importanceOf } from "../stack";
import type { VoicingStyle } from "../style";

interface ToneSet {
  tones: ChordTone[];
  missing: number;
  doubling: number;
}

/** Sets of tones for a number of voices: those whose loss is within one point of the smallest. */
function toneSets(chord: Chord, voices: number, bassCovered: boolean): ToneSet[] {
  const { tones } = chord;
  const weights = tones.map((t) => importanceOf(t, chord, bassCovered));
  const sets: ToneSet[] = [];
  const size = Math.min(voices, tones.length);
  const choose = (from: number, picked: number[]) => {
    if (picked.length === size) {
      const missing = weights.reduce((sum, w, i) => (picked.includes(i) ? sum : sum + w), 0);
      sets.push({ tones: picked.map((i) => nth(tones, i)), missing, doubling: 0 });
      return;
    }
    for (let i = from; i < tones.length; i++) choose(i + 1, [...picked, i]);
  };
  choose(0, []);
  const least = Math.min(...sets.map((s) => s.missing));
  const good = sets.filter((s) => s.missing <= least + 1);
  if (voices <= tones.length) return good;
  // Fewer tones than voices: double until the voices are filled.
  let filled = good;
  for (let v = tones.length; v < voices; v++)
    filled = filled.flatMap((s) =>
      tones.map((t) => ({ ...s, tones: [...s.tones, t], doubling: s.doubling + doublingCost(t) })),
    );
  return filled;
}

export const keyboard: VoicingStyle = {
  id: "keyboard",
  title: "Keyboard, any spread",
  explanation:
    "Every inversion and every spread of the chord that lies in range and under two hands. The cheapest path " +
    "through all of them is chosen.",
  source: "common practice",
  candidates(chord, { low, high, voices, span, bassCovered }) {
    const root = rootPc(chord);
    const pcsOf = chord.tones.map((t) => mod(root + t.semitones, 12));
    // Without a bass part the written bass lies below everything; one that is a tone of the chord is one of its voices.
    const lowest = bassCovered ? null : bassPc(chord);
    const slash = lowest !== null && !pcsOf.includes(lowest) ? lowest : null;
    const seen = new Map<string, { pitches: Midi[]; missing: number; doubling: number }>();
    for (const set of toneSets(chord, slash === null ? voices : Math.max(2, voices - 1), bassCovered)) {
      const pcs = set.tones.map((t) => mod(root + t.semitones, 12));
      const place = (i: number, pitches: Midi[]) => {
        if (i === pcs.length) {
          const sorted = [...pitches].sort((a, b) => a - b);
          if (slash !== null) {
            const bottom = firstOf(sorted) - 1 - mod(firstOf(sorted) - 1 - slash, 12);
            if (bottom < low - 12) return;
            sorted.unshift(bottom);
          }
          if (lowest !== null && mod(firstOf(sorted), 12) !== lowest) return;
          if (new Set(sorted).size < sorted.length || handStrain(sorted, span) === Infinity) return;
          const id = sorted.join();
          const known = seen.get(id);
          if (!known || known.missing + known.doubling > set.missing + set.doubling)
            seen.set(id, { pitches: sorted, missing: set.missing, doubling: set.doubling });
          return;
        }
        for (let midi = low + mod(nth(pcs, i) - low, 12); midi <= high; midi += 12) place(i + 1, [...pitches, midi]);
      };
      place(0, []);
    }
    return [...seen.values()].sort(
      (a, b) => firstOf(a.pitches) - firstOf(b.pitches) || lastOf(a.pitches) - lastOf(b.pitches),
    );
  },
};
