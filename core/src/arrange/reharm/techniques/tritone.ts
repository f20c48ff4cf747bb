import { mod, type NoteName } from "../../../theory/pitch/pitch";
import { rootPc } from "../../../theory/chord/chord";
import type { Proposal, Spot, Technique } from "../technique";
import { before, dominantRoot, halves, has, read, replacement, substituteRoot } from "../tools";

export const tritone: Technique = {
  id: "tritone",
  title: "Tritone substitute",
  explanation:
    "A dominant seventh a tritone away keeps third and seventh, changed over, and lets the bass fall a semitone.",
  source: "any jazz harmony textbook",
  adventure: 0.6,
  aim: "more",
  words: {
    bass: "{new} keeps the third and seventh of {old}; the bass falls a semitone to {root}",
    related: "{two} is the ii of {new}, which stands for {old} and falls a semitone to {root}",
  },
  propose(spot) {
    const { chord, key, event } = spot.here;
    const next = spot.next?.chord;
    if (!next) return [];
    const root = next.root;
    const isFive = mod(rootPc(chord) - rootPc(next), 12) === 7 && has(chord, "b7") && !has(chord, "b3");
    const place = substituteRoot(next, key);
    const symbol = `${place}9`;
    if (isFive)
      return [
        ...["7", "9", "7(#11)"].flatMap((quality) => {
          const sub = place + quality;
          return replacement(spot, sub, "bass", {
            params: { new: sub, old: event.symbol, root },
            more: { needsNext: true },
          });
        }),
        ...withTwo(spot, place),
      ];
    return rootPc(next) === rootPc(chord)
      ? []
      : before(spot, symbol, "bass", { new: symbol, old: `${dominantRoot(next, key)}7`, root });
  },
};

/** The substitute with the ii that belongs to it: Abm7 Db7 in the place of G7. */
function withTwo(spot: Spot, place: NoteName): Proposal[] {
  const cut = halves(spot.here, spot.meter);
  if (!cut || !spot.next) return [];
  const sub = `${place}7`;
  const two = `${dominantRoot(read(place), spot.here.key)}m7`;
  return [
    {
      chords: [
        { symbol: two, duration: cut[0] },
        { symbol: sub, duration: cut[1] },
      ],
      needsNext: true,
      reason: "related",
      params: { two, new: sub, old: spot.here.event.symbol, root: spot.next.chord.root },
    },
  ];
}
