import { firstOf, nth } from "../../src/base/list";
import { counterRequest } from "../../src/write/counter/write";
import { factsOf } from "../../src/facts/memory";
import { must } from "../../src/base/result";
import { pitchMidi } from "../../src/theory/pitch/pitch";
import type { Edit } from "../../src/song/edits/list";
import { BROKEN, speciesNode, speciesStep, speciesTurn } from "../../src/write/counter/species";
import { strictBreaks } from "../../src/write/counter/strict";
import { note, withFiddle, write } from "./fiddle";
import { edit, songWith } from "../helpers";

describe("what single steps of the strict style cost", () => {
  const ctx = {
    ...must(
      counterRequest(factsOf(withFiddle(songWith({ melody: ["0 C4 4"] }))), {
        section: "s1",
        part: "answer",
        style: "species",
        settings: { side: "above" },
      }),
    ).ctx,
  };
  const slots = (...tune: number[]) => tune.map((t, i) => ({ start: 1920 * i, duration: 1920, tune: t }));
  /** Of an interval inside a line over C4. */
  const node = (midi: number) => speciesNode(ctx, { start: 960, duration: 960, tune: 60 }, midi);
  /** Of a move over a tune that stands or steps, three notes before the end. */
  const step = (to: number, tune = 2) => speciesStep(slots(60, 60 + tune, 60, 60), 0, 72, to);

  test("up to a tenth is near, a twelfth and a thirteenth are far; perfect intervals are taken less inside", () => {
    expect(node(60 + 16) - node(60 + 4)).toBe(0);
    expect(node(60 + 19) - node(60 + 7)).toBeCloseTo(1.5);
    expect(node(60 + 21) - node(60 + 9)).toBe(1.5);
    expect(node(60 + 7) - node(60 + 4)).toBeCloseTo(0.6);
    expect(node(60)).toBeGreaterThanOrEqual(BROKEN);
    expect([1, 2, 5, 6, 10, 11].every((i) => node(60 + i) === Infinity)).toBe(true);
    expect(node(60 - 3)).toBe(Infinity);
  });

  test("tritone, major sixth, sevenths and what is wider than an octave are broken; a minor sixth and an octave stand", () => {
    const broken = Array.from({ length: 14 }, (_, i) => i).filter((i) => step(72 - i, 0) >= BROKEN);
    // A tune that stands: no direct perfects.
    expect(broken).toEqual([6, 9, 10, 11, 13]);
    const cost = [0, 1, 2, 3, 4, 5, 7, 8, 12].map((i) => step(72 - i, 0));
    expect(cost).toEqual([1.5, 0, 0, 0.35, 0.35, 0.7, 0.7, 1.2, 1.2]);
  });

  test("the same way into a fifth or an octave is broken, into a sixth it costs a little, against it nothing", () => {
    // The tune steps up to D4: A4 is its fifth, D5 its octave, B4 its sixth.
    const from = (own: number, to: number, tune: number) => speciesStep(slots(60, 60 + tune, 60, 60), 0, own, to);
    expect(from(67, 69, 2)).toBeGreaterThanOrEqual(BROKEN);
    expect(from(72, 74, 2)).toBeGreaterThanOrEqual(BROKEN);
    expect(from(69, 71, 2)).toBe(0.5);
    expect(from(71, 69, 2)).toBe(0);
    expect(from(71, 67, -2)).toBeLessThan(BROKEN);
  });

  test("the last step comes by step; a fourth and more turns back; three notes outline no tritone", () => {
    const last = (to: number) => speciesStep(slots(62, 60), 0, 71, to);
    expect([last(72), last(73)].map((c) => c >= 3)).toEqual([false, false]);
    expect([last(71), last(74)].map((c) => c >= 3)).toEqual([true, true]);
    const turn = (...line: [number, number, number]) => speciesTurn(slots(60, 62, 64), 0, line);
    expect([turn(70, 74, 76), turn(70, 75, 77), turn(70, 75, 74)]).toEqual([0.8, 1.5, 0]);
    expect(turn(72, 72, 72)).toBe(2);
    // Thirds all the way, against thirds but one.
    expect([turn(64, 65, 67), turn(64, 65, 71)].map((c) => c > 0.39 && c < 0.41)).toEqual([true, false]);
  });
});

describe("first species", () => {
  // Fux, Gradus ad Parnassum (1725), the dorian cantus firmus and the counterpoint above it, both from memory.
  const CANTUS = "D4 F4 E4 D4 G4 F4 A4 G4 F4 E4 D4";
  const ABOVE = "A4 A4 G4 A4 B4 C5 C5 B4 D5 C#5 D5";
  const whole = (text: string) => text.split(" ").map((pitch, i) => note(i * 4, pitch, 4));
  const cantus = (text: string, key: string) => {
    const bare = withFiddle(songWith({ key }));
    const long = edit(bare, { do: "setSection", section: "s1", bars: text.split(" ").length });
    return edit(long, { do: "setNotes", section: "s1", part: "melody", notes: whole(text) } as Edit);
  };
  /** What Fux forbids, checked by itself. */
  function faults(tune: number[], line: number[], above: boolean): string[] {
    const out: string[] = [];
    const interval = (i: number) => Math.abs(nth(line, i) - nth(tune, i)) % 12;
    line.forEach((m, i) => {
      if (above ? m < nth(tune, i) : m > nth(tune, i)) out.push(`crosses at ${i}`);
      if (![0, 3, 4, 7, 8, 9].includes(interval(i))) out.push(`dissonance at ${i}`);
      if (m === tune[i] && i > 0 && i < line.length - 1) out.push(`unison at ${i}`);
      if (!i) return;
      const [own, other] = [m - nth(line, i - 1), nth(tune, i) - nth(tune, i - 1)];
      if ([0, 7].includes(interval(i)) && own * other > 0) out.push(`direct or parallel at ${i}`);
      if ([6, 10, 11].includes(Math.abs(own)) || Math.abs(own) > 12) out.push(`leap at ${i}`);
    });
    if (interval(0) !== 0 && !(above && interval(0) === 7)) out.push("beginning");
    if (interval(line.length - 1) !== 0) out.push("end");
    return out;
  }

  test("Fux's own counterpoint breaks no rule, and parallel fifths do", () => {
    const judged = (text: string) => {
      const song = edit(cantus(CANTUS, "D dorian"), {
        do: "setNotes",
        section: "s1",
        part: "answer",
        notes: whole(text),
      } as Edit);
      const { ctx } = must(
        counterRequest(factsOf(song), { section: "s1", part: "answer", style: "species", settings: { side: "above" } }),
      );
      return strictBreaks(ctx);
    };
    expect(judged(ABOVE)).toEqual([]);
    expect(judged("A4 C5 B4 A4 D5 C5 E5 D5 C5 B4 A4").length).toBeGreaterThan(8);
  });

  test("lines above and below published cantus firmi keep every rule", () => {
    // Fux's dorian and phrygian ones and one in C by Salzer & Schachter, Counterpoint in Composition, all from memory.
    for (const [text, key] of [
      [CANTUS, "D dorian"],
      ["E4 C4 D4 C4 A3 A4 G4 E4 F4 E4", "E phrygian"],
      ["C4 D4 F4 E4 A4 G4 E4 F4 E4 D4 C4", "C major"],
    ] as const)
      for (const side of ["above", "below"] as const) {
        const song = edit(cantus(text, key), {
          do: "setPart",
          part: "answer",
          range: side === "above" ? ["C4", "A5"] : ["D3", "E4"],
        } as Edit);
        const lines = write(song, "species", { settings: { side } });
        const tune = text.split(" ").map(pitchMidi);
        for (const line of lines) {
          expect([key, side, line.notes.length]).toEqual([key, side, tune.length]);
          const own = faults(
            tune,
            line.notes.map((n) => pitchMidi(n.pitch)),
            side === "above",
          );
          // What a line breaks is named.
          expect([key, side, own.length > 0]).toEqual([key, side, line.conflicts.some((c) => c.code === "strict")]);
        }
        expect([key, side, firstOf(lines).conflicts.filter((c) => c.code === "strict")]).toEqual([key, side, []]);
      }
  });
});
