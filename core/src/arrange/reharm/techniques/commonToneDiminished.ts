import type { Technique } from "../technique";
import { halves, has } from "../tools";

export const commonToneDiminished: Technique = {
  id: "common-tone-diminished",
  title: "Common-tone diminished",
  explanation:
    "A diminished seventh on the chord's own root delays it: the root stays, the other notes lean and step into place.",
  source: "Kostka & Payne, Tonal Harmony",
  adventure: 0.45,
  aim: "more",
  words: { lean: "{root} stays while the other notes of {new} step into {old}" },
  propose(spot) {
    const { chord, event } = spot.here;
    const cut = halves(spot.here, spot.meter);
    if (!cut || chord.bass || !has(chord, "3") || has(chord, "b7")) return [];
    const symbol = `${chord.root}dim7`;
    return [
      {
        chords: [
          { symbol, duration: cut[0] },
          { symbol: event.symbol, duration: cut[1] },
        ],
        reason: "lean",
        params: { root: chord.root, new: symbol, old: event.symbol },
      },
    ];
  },
};
