import { mod } from "../../../theory/pitch/pitch";
import { rootPc } from "../../../theory/chord/chord";
import type { Technique } from "../technique";
import { halves, has } from "../tools";

export const delayed: Technique = {
  id: "delayed",
  title: "Delayed resolution",
  explanation:
    "The dominant hangs on into the place of the chord it leads to and resolves late, over the new bass or as " +
    "a suspension.",
  source: "common practice",
  adventure: 0.32,
  aim: "more",
  words: {
    late: "{dominant} holds on over {bass} and resolves late",
    hang: "{new} keeps the dominant hanging before {old}",
  },
  propose(spot) {
    const { chord, event } = spot.here;
    const prev = spot.prev?.chord;
    const cut = halves(spot.here, spot.meter);
    if (!prev || !cut || mod(rootPc(prev) - rootPc(chord), 12) !== 7 || !has(prev, "3")) return [];
    const then = { symbol: event.symbol, duration: cut[1] };
    const held = `${prev.root}${prev.quality}/${chord.root}`;
    const sus = `${prev.root}7sus4`;
    return [
      {
        chords: [{ symbol: held, duration: cut[0] }, then],
        needsPrev: true,
        reason: "late",
        params: { dominant: prev.root + prev.quality, bass: chord.root },
      },
      {
        chords: [{ symbol: sus, duration: cut[0] }, then],
        needsPrev: true,
        reason: "hang",
        params: { new: sus, old: event.symbol },
      },
    ];
  },
};
