import { firstOf, nth, sure } from "../../src/base/list";
import { chordPitchClasses } from "../../src/theory/chord/chord";
import { motionBetween } from "../../src/theory/motion/motion";
import { must } from "../../src/base/result";
import { parseChord } from "../../src/theory/chord/parse";
import { pitchMidi } from "../../src/theory/pitch/pitch";
import { voicePaths, voicedProgressions } from "../../src/arrange/voicing/path";
import { voicingSpace } from "../../src/arrange/voicing/space";

const chord = (symbol: string) => must(parseChord(symbol));

describe("voicings", () => {
  test("rootless ii–V–I moves 1 + 5 semitones (Levine, The Jazz Piano Book, value from memory)", () => {
    const left = [
      ["F3", "A3", "C4", "E4"],
      ["F3", "A3", "B3", "E4"],
      ["E3", "G3", "B3", "D4"],
    ].map((v) => v.map(pitchMidi));
    expect([motionBetween(firstOf(left), nth(left, 1)), motionBetween(nth(left, 1), nth(left, 2))]).toEqual([1, 5]);
  });

  test("the path is the cheapest: equal to brute force on short progressions, open and looping", () => {
    for (const loop of [false, true])
      for (const symbols of [
        ["C", "F", "G7"],
        ["Dm9", "G13", "Cmaj9"],
        ["Ebmaj9", "C7(b9)", "Fm7"],
      ]) {
        const space = must(voicingSpace(symbols.map(chord), { loop, voices: 3 }));
        const { lattice } = space;
        let best = Infinity;
        for (let a = 0; a < firstOf(lattice.sizes); a++)
          for (let b = 0; b < nth(lattice.sizes, 1); b++) {
            const head = lattice.node(0, a) + lattice.node(1, b) + lattice.step(0, a, b);
            if (head >= best) continue;
            for (let c = 0; c < nth(lattice.sizes, 2); c++)
              best = Math.min(
                best,
                head + lattice.node(2, c) + lattice.step(1, b, c) + (loop ? lattice.step(2, c, a) : 0),
              );
          }
        expect(firstOf(must(voicePaths(symbols.map(chord), { loop, voices: 3 }))).cost).toBeCloseTo(best, 9);
      }
  });

  test("every voicing names its chord: no foreign tone, guide tones kept, in range, spelled as the chord", () => {
    const symbols = [
      "Ebmaj9",
      "Cm7",
      "F7sus4",
      "F13(b9)",
      "Bbm7",
      "Eb9(#11)",
      "Abmaj7",
      "Db6/9",
      "G7alt",
      "Caug",
      "Am7b5",
      "D5",
      "E/G#",
    ];
    const [path] = must(voicedProgressions({ chords: symbols, loop: true }));
    sure(path).voicings.forEach((pitches, i) => {
      const c = chord(nth(symbols, i));
      const pcs = chordPitchClasses(c);
      const sounding = pitches.map((p) => pitchMidi(p) % 12);
      for (const pc of sounding) expect(pcs).toContain(pc);
      for (const tone of c.tones.filter((t) => t.degree === 3 || t.degree === 7 || t.degree === 4))
        expect([symbols[i], sounding]).toEqual([
          symbols[i],
          expect.arrayContaining([(firstOf(pcs) + tone.semitones) % 12]),
        ]);
      for (const p of pitches) expect(pitchMidi(p)).toBeGreaterThanOrEqual(47);
    });
    expect(firstOf(sure(path).voicings).join()).not.toMatch(/#/);
  });

  test("a pin stays and the rest follows; without a bass part the written bass lies lowest", () => {
    const pins = { 1: ["A3", "C4", "F4", "A4"] };
    const [path] = must(voicedProgressions({ chords: ["C", "F", "G7"], loop: true, pins }));
    expect(sure(path).voicings[1]).toEqual(pins[1]);
    const [bare] = must(voicedProgressions({ chords: ["C/E", "F", "D7/F#"], bassCovered: false }));
    expect(sure(bare).voicings.map((v) => firstOf(v).replace(/\d/, ""))).toEqual(["E", expect.any(String), "F#"]);
    expect(voicedProgressions({ chords: ["C", "Zm"] })).toMatchObject({ ok: false, error: { code: "chord.root" } });
  });
});
