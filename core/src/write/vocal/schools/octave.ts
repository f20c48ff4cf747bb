import type { VocalSchool } from "../school";
import { copyAt } from "./fixed";

export const octave: VocalSchool = {
  id: "octave",
  title: "Octave",
  explanation:
    "The tune once more, an octave below or above: thicker, not another line. Assumes that tune and double are " +
    "heard as one.",
  source: "common practice",
  voices: [1, 1],
  needs: ["tune"],
  targets: { given: true, parallel: true },
  uses: ["side"],
  ways: (ctx) => {
    const way = ctx.settings.side === "above" ? 1 : -1;
    return [way, -way].map((w) => copyAt(ctx, 12 * w, w > 0 ? "An octave above" : "An octave below"));
  },
};
