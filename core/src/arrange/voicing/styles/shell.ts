import { firstOf } from "../../../base/list";
import { rootPc } from "../../../theory/chord/chord";
import { lossOf, pcOf, places, toneAt, voiced } from "../stack";
import type { VoicingStyle } from "../style";

export const shell: VoicingStyle = {
  id: "shell",
  title: "Shell",
  explanation:
    "Root, third and seventh only, in either order; of a triad root and third, with or without the fifth: the " +
    "least that tells the chord, with room for everybody else.",
  source: "any jazz piano handbook",
  fixed: true,
  candidates(chord, limits) {
    const third = toneAt(chord, 3, 4, 2);
    const seventh = toneAt(chord, 7, 6);
    if (!third) return [];
    if (!seventh) {
      // A triad's shell: root and third, with the fifth between or above them where there is room.
      const [root, a] = [rootPc(chord), pcOf(chord, third)];
      const fifth = toneAt(chord, 5);
      const stacks = [[root, a], [a, root], ...(fifth ? [[root, pcOf(chord, fifth), a]] : [])];
      return stacks.flatMap((s) => voiced(chord, places(s, limits), limits, { missing: s.length > 2 ? 0 : 0.2 }));
    }
    const [root, a, b] = [rootPc(chord), pcOf(chord, third), pcOf(chord, seventh)];
    const used = [firstOf(chord.tones), third, seventh];
    const stacks = [
      [root, a, b],
      [root, b, a],
    ];
    return voiced(
      chord,
      stacks.flatMap((s) => places(s, limits)),
      limits,
      { missing: lossOf(chord, used, false) * 0.3 },
    );
  },
};
