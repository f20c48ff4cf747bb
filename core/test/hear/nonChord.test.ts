import { KIND_WORDS, textbookKind, type RoleKind } from "../../src/hear/slice/roles";
import { nonChordTones } from "../../src/hear/slice/nonChord";
import { songWith } from "../helpers";

/**
 * Kinds of non-chord tones by how they are reached and left: Kostka & Payne, Tonal Harmony (chapters on non-chord
 * tones), definitions from memory; the examples are made for each definition. Beats in quarters; the tone that is meant
 * is named with its kind, and with ! where it is accented.
 */
const EXAMPLES: readonly [name: string, line: string, melody: string[], kinds: string[]][] = [
  ["passing, unaccented", "| C |", ["0 C5 0.5", "0.5 D5 0.5", "1 E5 1"], ["D5 passing"]],
  ["passing, accented", "| C |", ["0.5 C5 0.5", "1 D5 0.5", "1.5 E5 0.5"], ["D5 passing!"]],
  ["passing down, chromatic", "| C |", ["0 E5 1", "1 Eb5 0.5", "1.5 D5 0.5", "2 C5 1"], ["Eb5 passing!", "D5 passing"]],
  [
    "passing between chords",
    "| C F |",
    ["0 E4 1", "1 G4 0.5", "1.5 G4 0.25", "1.75 F4 0.25", "2 F4 1"],
    ["F4 anticipation"],
  ],
  ["upper neighbor", "| C |", ["0 G4 0.5", "0.5 A4 0.5", "1 G4 1"], ["A4 neighbor"]],
  ["lower neighbor, chromatic", "| C |", ["0 G4 0.5", "0.5 F#4 0.5", "1 G4 1"], ["F#4 neighbor"]],
  ["suspension 4–3, tied", "| F C |", ["0 F4 3", "3 E4 1"], ["F4 suspension!"]],
  ["suspension 7–6, struck again", "| G7 C |", ["0 F4 2", "2 F4 1", "3 E4 1"], ["F4 suspension!"]],
  ["suspension 9–8", "| G C |", ["0 D5 3", "3 C5 1"], ["D5 suspension!"]],
  ["retardation", "| G7 C |", ["0 B4 3", "3 C5 1"], ["B4 retardation!"]],
  ["appoggiatura", "| C |", ["0 E4 1", "1 A4 0.5", "1.5 G4 0.5"], ["A4 appoggiatura!"]],
  ["escape tone", "| C G |", ["0 E4 1.5", "1.5 F4 0.5", "2 D4 2"], ["F4 escape"]],
  ["cambiata", "| C Em |", ["0 C5 1", "1 B4 1", "2 G4 0.5", "2.5 A4 0.5", "3 B4 1"], ["B4 cambiata", "A4 passing"]],
  ["anticipation", "| G C |", ["0 B4 1.5", "1.5 C5 0.5", "2 C5 2"], ["C5 anticipation"]],
  ["pedal", "| C G C |", ["0 C4 4"], ["C4 pedal!"]],
];

test.each(EXAMPLES)("%s", (_name, line, melody, kinds) => {
  const found = nonChordTones(songWith({ line, melody }), { section: "s1", part: "melody" });
  expect(found.map((t) => `${t.note.pitch} ${t.kind}${t.accented ? "!" : ""}`)).toEqual(kinds);
});

test("a tone of the chord is none, and a color that lasts is none", () => {
  const at = (melody: string[], line = "| Cmaj9 |") =>
    nonChordTones(songWith({ line, melody }), { section: "s1", part: "melody" });
  expect(at(["0 C5 1", "1 E5 1", "2 G5 1", "3 D5 1"])).toEqual([]);
  // The ninth over a triad is a color while it is held, and a passing tone where it only passes.
  expect(at(["0 C5 0.5", "0.5 D5 3", "3.5 E5 0.5"], "| C |")).toEqual([]);
  expect(at(["0 C5 0.5", "0.5 D5 0.5", "1 E5 3"], "| C |").map((t) => t.kind)).toEqual(["passing"]);
  // What comes after a long rest is not led to.
  expect(at(["0 C5 0.5", "2 D5 0.5"], "| C |")).toEqual([]);
});

test("every kind has its word, and kinds that are no figure have none of the textbook's names", () => {
  const kinds = Object.keys(KIND_WORDS) as RoleKind[];
  const span = (kind: RoleKind) => ({ start: 0, duration: 480, chord: null, role: "9", kind, label: "" });
  expect(kinds.filter((k) => textbookKind(span(k)) === null)).toEqual(["chord", "tension", "outside", "free"]);
  expect(textbookKind({ ...span("tension"), as: "passing" })).toBe("passing");
});
