import { rootPc } from "../../../theory/chord/chord";
import { pcOf, places, toneAt, voiced } from "../stack";
import type { VoicingStyle } from "../style";

export const power: VoicingStyle = {
  id: "power",
  title: "Thirdless and power",
  explanation:
    "Root and fifth, doubled at the octave, without any third: neither major nor minor, made for distortion " +
    "and for open loops.",
  source: "common practice",
  alone: true,
  fixed: true,
  candidates(chord, limits) {
    const fifth = toneAt(chord, 5);
    if (!fifth || fifth.alter) return [];
    const [root, five] = [rootPc(chord), pcOf(chord, fifth)];
    const stacks = [
      [root, five],
      [root, five, root],
      [five, root],
      [five, root, five],
    ];
    return stacks.flatMap((s, i) =>
      voiced(chord, places(s, limits), limits, { missing: s.length === 2 ? 0.6 : 0, doubling: i >= 2 ? 0.6 : 0 }),
    );
  },
};
