import { listeningTest } from "../../src/hear/harmony/listening";

/** The smallest test by ear that divides the readings of a chord (home is heard from the bass, common practice). */
test.each([
  // F A C D: with F below, then with D.
  [["F6", "Dm7"], "These notes with F, then D below: which is home?", [["F6"], ["Dm7"]]],
  // One root: the tone that only some have.
  [["G7", "G"], "With F and without it: which is meant?", [["G7"], ["G"]]],
  // Of four readings the roots divide first; readings on one root stay together.
  [
    ["C6", "Am7", "Am", "C"],
    "These notes with C, then A below: which is home?",
    [
      ["C6", "C"],
      ["Am7", "Am"],
    ],
  ],
  // Of three on one root the tone that parts them most evenly; both kinds of seventh are heard as such.
  [["Dm7", "Dm", "Dm9"], "With C and without it: which is meant?", [["Dm7", "Dm9"], ["Dm"]]],
  [["C", "Cm"], "With E and without it: which is meant?", [["C"], ["Cm"]]],
])("%j", (readings, question, keeps) => {
  const test = listeningTest(readings);
  expect(test?.question).toBe(question);
  expect(test?.ways.map((w) => w.keeps)).toEqual(keeps);
});

test("what is heard are the notes that were played, with the one that decides; the answer is told with the chord", () => {
  const test = listeningTest(["F6", "Dm7"], ["A3", "C4", "D4", "F4"]);
  expect(test?.ways.map((w) => w.pitches)).toEqual([
    ["F2", "A3", "C4", "D4", "F4"],
    ["D2", "A3", "C4", "D4", "F4"],
  ]);
  expect(test?.ways[1]?.why).toEqual({ id: "heardHome", params: { pitch: "D" } });
  // Four diminished sevenths are one sound on four roots: three of them are a comparison, not more.
  expect(listeningTest(["Bdim7", "Ddim7", "Fdim7", "Abdim7"])?.ways).toHaveLength(3);
});

test("one reading, or readings that are one chord, ask for nothing", () => {
  expect(listeningTest(["C"])).toBeNull();
  expect(listeningTest(["C", "C"])).toBeNull();
  expect(listeningTest(["C", "N.C."])).toBeNull();
});
