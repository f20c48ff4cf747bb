import { rootPc } from "../../chord/chord";
import { lossOf, pcOf, places, toneAt, voiced } from "../stack";
import type { VoicingStyle } from "../style";

export const shell: VoicingStyle = {
  id: "shell",
  title: "Shell",
  explanation: "Root, third and seventh only, in either order: the least that tells the chord, with room for everybody else.",
  source: "any jazz piano handbook",
  fixed: true,
  candidates(chord, limits) {
    const third = toneAt(chord, 3, 4, 2);
    const seventh = toneAt(chord, 7, 6);
    if (!third || !seventh) return [];
    const [root, a, b] = [rootPc(chord), pcOf(chord, third), pcOf(chord, seventh)];
    const used = [chord.tones[0]!, third, seventh];
    const stacks = [
      [root, a, b],
      [root, b, a],
    ];
    return voiced(
      chord,
      stacks.flatMap((s) => places(s, limits)),
      limits,
      lossOf(chord, used, false) * 0.3,
    );
  },
};
