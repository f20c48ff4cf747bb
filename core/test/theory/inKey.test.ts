import { firstOf, sure } from "../../src/base/list";
import { must } from "../../src/base/result";
import { chordSymbol } from "../../src/theory/chord/chord";
import { moveInScale } from "../../src/theory/chord/modify";
import { parseChord } from "../../src/theory/chord/parse";
import { TEMPLATES } from "../../src/theory/chord/qualities";
import { parseKey, rootInKey } from "../../src/theory/pitch/key";
import { beatText, parseMeter, positionText } from "../../src/theory/time/meter";

/**
 * Roots on every semitone above the tonic: lowered degrees, and raised ones for chords that lead up by a semitone;
 * double accidentals and far white keys by their plain names (common practice).
 */
test.each([
  ["C major", "C Db D Eb E F Gb G Ab A Bb B", "C C# D D# E F F# G G# A A# B"],
  ["A minor", "A Bb B C C# D Eb E F F# G G#", "A A# B C C# D D# E F F# G G#"],
  ["Eb major", "Eb E F Gb G Ab A Bb Cb C Db D", "Eb E F F# G Ab A Bb B C C# D"],
  ["E major", "E F F# G G# A Bb B C C# D D#", "E F F# G G# A A# B C C# D D#"],
])("roots in %s have the names that a lead sheet gives them", (name, lowered, raised) => {
  const key = must(parseKey(name));
  const names = (leads: boolean) =>
    Array.from({ length: 12 }, (_, i) => rootInKey(firstOf(key.pcs) + i, key, leads)).join(" ");
  expect([names(false), names(true)]).toEqual([lowered, raised]);
});

test("a chord moved along the scale is what the scale has there: triads, sevenths, ninths, suspensions", () => {
  const key = must(parseKey("C major"));
  const row = (symbol: string) =>
    Array.from({ length: 7 }, (_, i) => chordSymbol(moveInScale(must(parseChord(symbol)), i, key))).join(" ");
  expect(row("C")).toBe("C Dm Em F G Am Bdim");
  expect(row("Cmaj7")).toBe("Cmaj7 Dm7 Em7 Fmaj7 G7 Am7 Bm7b5");
  expect(row("Csus4")).toBe("Csus4 Dsus4 Esus4 Fsus4 Gsus4 Asus4 Bsus4(b5)");
  expect(row("Cmaj9").split(" ").slice(0, 2)).toEqual(["Cmaj9", "Dm9"]);
  expect(row("C6").split(" ")[3]).toBe("F6");
  // Elevenths and thirteenths are those of the scale: sharp over F, flat over E and A.
  expect(row("Dm11").split(" ").slice(0, 3)).toEqual(["Dm11", "Em11(b9)", "Fmaj9(#11)"]);
  expect(row("Cmaj13").split(" ")).toEqual(expect.arrayContaining(["G13"]));
});

test("a ninth may be missing only under an eleventh or a thirteenth; an eleventh only under a thirteenth", () => {
  const optional = (quality: string) =>
    [...sure(TEMPLATES.find((t) => t.quality === quality)).optional.values()].map((o) => o.label).sort();
  expect(optional("9")).not.toContain("9");
  expect(optional("13")).toContain("9");
  expect(optional("7")).toEqual(["3", "5"]);
  expect(optional("")).toEqual(["5"]);
});

test("a beat is named with its bar and without it, in a pickup too", () => {
  const meter = must(parseMeter("6/8"));
  expect([positionText(meter, 1440 + 720), beatText(meter, 1440 + 720)]).toEqual(["bar 2, beat 2", "beat 2"]);
  expect([positionText(meter, -240), beatText(meter, -240)]).toEqual(["pickup, beat 2⅔", "beat 2⅔"]);
});
