import { factsOf } from "../../src/facts/memory";
import { must } from "../../src/base/result";
import { rhythmOf } from "../../src/write/bass/rhythm";
import { bassRequest } from "../../src/write/bass/write";
import type { RhythmPlace } from "../../src/write/bass/style";
import { songWith } from "../helpers";

/** A kick that must be met on the second half of beat two, in a line so sparse that nothing else is let through. */
const { ctx, style } = must(
  bassRequest(
    factsOf(
      songWith({
        line: "| C |",
        kicks: [
          [0, 100],
          [1.5, 110],
        ],
      }),
    ),
    { section: "s1", part: "bass", style: "kick-locked", settings: { density: 0, variation: 0, ending: false } },
  ),
);
const place = (use: RhythmPlace["use"], priority: number): RhythmPlace => ({ at: 720, use, priority });
const at720 = (...places: RhythmPlace[]) => rhythmOf(ctx, style, 1, places).find((s) => s.start === 720)?.use;

test("what sounds on a kick that must be met is what the style wants most there, of equals the first", () => {
  expect(at720()).toBe("kick");
  expect(at720(place("octave", 0.2), place("hook", 0.1))).toBe("octave");
  expect(at720(place("octave", 0.1), place("hook", 0.2))).toBe("hook");
  expect(at720(place("octave", 0.2), place("hook", 0.2))).toBe("octave");
  expect(at720(place("hook", 0.2), place("octave", 0.2))).toBe("hook");
  // What the style does not want at all does not sound.
  expect(at720(place("octave", 0))).toBe("kick");
});
