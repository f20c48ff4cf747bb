import { firstOf, nth } from "../../src/base/list";
import { counterRequest } from "../../src/write/counter/write";
import { factsOf } from "../../src/facts/memory";
import { must } from "../../src/base/result";
import { pitchMidi } from "../../src/theory/pitch/pitch";
import type { Edit } from "../../src/song/edits/list";
import { strictBreaks } from "../../src/write/counter/strict";
import { note, withFiddle, write } from "./fiddle";
import { edit, songWith } from "../helpers";

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
