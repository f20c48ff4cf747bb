import { sure } from "../../src/base/list";
import { must } from "../../src/base/result";
import { withVariation } from "../../src/arrange/groove/patterns";
import { parseMeter } from "../../src/theory/time/meter";

test("hats are louder off the beat and softer on it in every second pass, and their sum stays in MIDI's range", () => {
  const hits = Array.from({ length: 32 }, (_, i) => ({ start: i * 240, velocity: i < 16 ? 80 : 124 }));
  const meter = must(parseMeter("4/4"));
  const [lane] = withVariation([{ drum: "closedHat", hits }], meter, 1, { length: 2 * 1920, seed: 1 });
  const at = (start: number) => sure(sure(lane).hits.find((h) => h.start === start)).velocity;
  expect([at(0), at(240), at(1680)]).toEqual([80, 80, 80]);
  expect([at(1920), at(1920 + 240)]).toEqual([72, 90]);
});
