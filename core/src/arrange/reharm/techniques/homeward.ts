import { rootPc, type Chord } from "../../../theory/chord/chord";
import { diatonicChord } from "../../../theory/chord/numerals";
import type { Technique } from "../technique";
import { belongs } from "../../../hear/harmony/context";
import { read, replacement, shared, sizeOf } from "../tools";

export const homeward: Technique = {
  id: "homeward",
  title: "Back into the key",
  explanation:
    "A chord from outside gives way to the chord of the key that stands on the same degree, or to the one that " +
    "keeps most of its notes.",
  source: "common practice",
  adventure: 0.1,
  aim: "less",
  words: { plain: "{new} is the key's own chord in the place of {old}; it keeps {kept}" },
  propose(spot) {
    const { chord, key, event } = spot.here;
    if (belongs(chord, key)) return [];
    const own = [0, 1, 2, 3, 4, 5, 6].map((step) => read(diatonicChord(key, step, sizeOf(chord))));
    const best = (list: Chord[]) => list.sort((a, b) => shared(b, chord) - shared(a, chord))[0];
    const same = own.find((c) => rootPc(c) === rootPc(chord));
    const found = same ?? best(own);
    const kept = found ? shared(found, chord) : 0;
    if (!found || !kept) return [];
    const symbol = found.root + found.quality;
    return replacement(spot, symbol, "plain", {
      params: { new: symbol, old: event.symbol, kept: `${kept} of its notes` },
    });
  },
};
