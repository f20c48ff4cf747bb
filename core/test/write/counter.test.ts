import { firstOf, nth, sure } from "../../src/base/list";
import { cheapestSecond, type SecondOrder } from "../../src/search/second";
import type { Chord } from "../../src/theory/chord/chord";
import { chordOf } from "../../src/theory/chord/progression";
import { COUNTER_STYLES } from "../../src/write/counter/styles";
import type { CounterContext } from "../../src/write/counter/context";
import { counterLines, counterRequest } from "../../src/write/counter/write";
import { factsOf } from "../../src/facts/memory";
import { must } from "../../src/base/result";
import { pitchMidi } from "../../src/theory/pitch/pitch";
import type { Edit } from "../../src/song/edits/list";
import type { Note } from "../../src/song/schema/material";
import type { Song } from "../../src/song/schema/song";
import fc from "fast-check";
import { CELL_WAYS, refit } from "../../src/write/counter/cell";
import { lineLattice, pitchSlots } from "../../src/write/counter/pitches";
import { COUNTER_GRID, counterSong, judgeCounter } from "../../../bench/counterGrid";
import { note, withFiddle, write } from "./fiddle";
import { edit, songWith } from "../helpers";

/** Every way through all columns, one by one. */
function bruteForce({ sizes, node, step, turn }: SecondOrder): number {
  let best = Infinity;
  const walk = (picks: number[], cost: number): void => {
    const c = picks.length;
    if (cost === Infinity) return;
    if (c === sizes.length) {
      best = Math.min(best, cost);
      return;
    }
    for (let i = 0; i < nth(sizes, c); i++) {
      const joint = c ? step(c - 1, nth(picks, c - 1), i) : 0;
      const three = c > 1 ? turn(c - 2, nth(picks, c - 2), nth(picks, c - 1), i) : 0;
      walk([...picks, i], cost + node(c, i) + joint + three);
    }
  };
  walk([], 0);
  return best;
}

const costOf = ({ node, step, turn }: SecondOrder, picks: readonly number[]): number =>
  picks.reduce(
    (sum, i, c) =>
      sum +
      node(c, i) +
      (c ? step(c - 1, nth(picks, c - 1), i) : 0) +
      (c > 1 ? turn(c - 2, nth(picks, c - 2), nth(picks, c - 1), i) : 0),
    0,
  );

describe("the lattice of three in a row", () => {
  test("finds what brute force finds, with forbidden candidates, steps and turns among them", () => {
    const cost = fc.oneof(
      { weight: 6, arbitrary: fc.integer({ min: 0, max: 20 }) },
      { weight: 1, arbitrary: fc.constant(Infinity) },
    );
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 4 }), { minLength: 1, maxLength: 6 }),
        fc.array(cost, { minLength: 97, maxLength: 97 }),
        (sizes, costs) => {
          const at = (...key: number[]) =>
            nth(
              costs,
              key.reduce((hash, k) => (hash * 31 + k * 7 + 3) % 97, 11),
            );
          const lattice: SecondOrder = {
            sizes,
            node: (c, i) => at(c, i),
            step: (c, i, j) => at(c, i, j, 1),
            turn: (c, i, j, k) => at(c, i, j, k, 2),
          };
          const found = cheapestSecond(lattice);
          const best = bruteForce(lattice);
          expect(found ? found.cost : Infinity).toBe(best);
          if (found) expect(costOf(lattice, found.picks)).toBe(best);
        },
      ),
      { seed: 14, numRuns: 150 },
    );
    expect(cheapestSecond({ sizes: [], node: () => 0, step: () => 0, turn: () => 0 })).toBeNull();
  });
  test("short lines of every style that chooses pitches are the cheapest there are", () => {
    for (const c of COUNTER_GRID.filter((_, i) => i % 53 === 0)) {
      const { ctx, style } = must(
        counterRequest(factsOf(counterSong(c)), { section: "s1", part: "answer", style: c.style }),
      );
      const { slots } = pitchSlots(ctx, style, style.slots(ctx, 4, 0).slice(0, 4));
      // A few candidates of each, so that every way can be tried.
      const few = slots.map((s) => ({ ...s, candidates: s.candidates.filter((_, i) => i % 2 === 0).slice(0, 7) }));
      if (!few.length) continue;
      const lattice = lineLattice(style, few);
      const found = cheapestSecond(lattice);
      expect([c.style, found ? Math.round(found.cost * 1e6) : Infinity]).toEqual([
        c.style,
        Math.round(bruteForce(lattice) * 1e6),
      ]);
    }
  });
});

/** A fixed sample of the whole grid, which `npm run bench -- grid` writes. */
const SAMPLE = COUNTER_GRID.filter((_, i) => i % 13 === 0);
const rubs = (a: number, b: number) => [1, 13].includes(Math.abs(a - b));

const within = <T extends { start: number; duration: number }>(list: readonly T[], tick: number): T | undefined =>
  list.find((x) => x.start <= tick && tick < x.start + x.duration);

interface Sung {
  start: number;
  duration: number;
  midi: number;
  pitch: string;
}

const pcsOf = (chord: Chord | null | undefined): number[] =>
  chord ? chord.tones.map((t) => (t.semitones + pitchMidi(`${chord.root}4`)) % 12) : [];

/** Beats of four bars on which a note rubs against the tune, by plain arithmetic. */
function roughBeats(
  { meter, chords }: CounterContext,
  notes: readonly (Sung & { reason?: { id: string } | undefined })[],
  tune: readonly Sung[],
): string[] {
  const beats = [0, 1, 2, 3].flatMap((bar) => meter.beats.map((b) => bar * meter.bar + b.start));
  return beats.flatMap((tick) => {
    const [n, against, chord] = [within(notes, tick), within(tune, tick), within(chords, tick)];
    if (!n || !against || n.reason?.id === "suspension" || !rubs(n.midi, against.midi)) return [];
    const own = [n, against].every((x) => pcsOf(chord?.chord).includes(x.midi % 12));
    // Held into the chord and falling by step, it is a suspension as well.
    const next = notes.find((m) => m.start === n.start + n.duration);
    const hangs = n.start < (chord?.start ?? 0) && next !== undefined && [1, 2].includes(n.midi - next.midi);
    return own || hangs ? [] : [`${tick}: ${n.pitch} against ${against.pitch}`];
  });
}

test("over a grid of tunes, keys, meters and chords every style meets its aims, or names the conflict that prevents it", () => {
  expect(COUNTER_GRID.length).toBeGreaterThan(500);
  expect(new Set(SAMPLE.map((c) => c.style)).size).toBe(COUNTER_STYLES.length);
  let [met, written, choice] = [0, 0, 0];
  for (const c of SAMPLE) {
    const place = `${c.style} ${c.tune} ${c.meter} ${c.line}`;
    const outcome = judgeCounter(c);
    if ("nothing" in outcome) {
      // Only an answer finds no place, and only where the tune never rests for a beat.
      expect([place, outcome.nothing, c.style]).toEqual([place, "counter.place", "answer"]);
      expect(["busy", "long"]).toContain(c.tune);
      continue;
    }
    written++;
    const { song, notes, unmet, unexplained, lines, conflicts } = outcome;
    expect([place, unexplained.map((m) => `${m.id}: ${m.value}`)]).toEqual([place, []]);
    expect([place, notes.length > 0, notes.every((n) => n.reason)]).toEqual([place, true, true]);
    if (lines > 1) choice++;
    if (!unmet.length) met++;
    // On a beat no note rubs against the tune, by plain arithmetic; a suspension and two tones of the chord may.
    const { ctx } = must(counterRequest(factsOf(song), { section: "s1", part: "answer", style: c.style }));
    const tune = sure(firstOf(song.sections).notes.melody).map((n) => ({ ...n, midi: pitchMidi(n.pitch) }));
    if (!conflicts.some((x) => x.measures.includes("clashes")))
      expect([place, roughBeats(ctx, notes, tune)]).toEqual([place, []]);
  }
  expect(met / written).toBeGreaterThan(0.9);
  expect(choice / written).toBeGreaterThan(0.95);
});

describe("styles", () => {
  const phrases = withFiddle(
    songWith({
      line: "| Dm7 | G7 | Cmaj7 | Am7 |",
      melody: ["0 F4 1", "1 A4 1", "4 B4 1", "5 G4 1", "8 E4 1", "9 G4 1", "12 C5 1", "13 A4 2"],
      kicks: [[0, 100]],
    }),
  );

  test("an answer begins in the gaps and is silent when the tune goes on", () => {
    for (const line of write(phrases, "answer")) {
      for (const n of line.notes)
        expect([n.start % 1920 >= 960, (n.start % 1920) + n.duration <= 1920]).toEqual([true, true]);
      expect(line.report.overlap).toBe(0);
    }
    const busy = withFiddle(songWith({ line: "| C | F |", melody: ["0 E4 4", "4 F4 4"] }));
    expect(counterLines(busy, { section: "s1", part: "answer", style: "answer" })).toMatchObject({
      ok: false,
      error: { code: "counter.place" },
    });
  });

  test("a drum's hits are taken, every one, and given other pitches by rule", () => {
    let song = phrases;
    for (const beat of [0.5, 1.5, 2, 3.75])
      song = edit(song, { do: "setHit", section: "s1", drum: "clap", start: beat * 480, velocity: 90 });
    const lines = write(song, "percussion");
    expect(lines.map((l) => l.title)).toEqual(
      expect.arrayContaining(["Few pitches", "Up and down the chord", "A line by step"]),
    );
    for (const l of lines) expect(l.notes.map((n) => n.start)).toEqual([240, 720, 960, 1800]);
    const few = sure(lines.find((l) => l.title === "Few pitches"));
    expect(new Set(few.notes.map((n) => n.pitch)).size).toBe(1);
  });

  test("guide tones go by step through a chain of fifths: C–B–B–A, or F–F–E–E", () => {
    const song = withFiddle(songWith({ line: "| Dm7 | G7 | Cmaj7 | Fmaj7 |" }));
    const [line] = write(song, "guideTones", { settings: { density: 0 } });
    const tones = sure(line).notes.flatMap((n) =>
      Array.from({ length: n.duration / 1920 }, () => n.pitch.replace(/\d/, "")),
    );
    expect(["C B B A", "F F E E"]).toContain(tones.join(" "));
  });

  test("double-stops are thirds or sixths of the chord, and say so", () => {
    const [sixths] = write(phrases, "doubleStops");
    const byStart = new Map(
      sure(sixths).notes.map((n) => [n.start, sure(sixths).notes.filter((m) => m.start === n.start)]),
    );
    for (const [, pair] of byStart) {
      expect(pair).toHaveLength(2);
      const [a, b] = pair.map((n) => pitchMidi(n.pitch)).sort((x, y) => x - y);
      expect([3, 4, 5, 7, 8, 9]).toContain(sure(b) - sure(a));
    }
    expect(firstOf(write(phrases, "doubleStops", { settings: { under: "thirds" } })).title).toContain("thirds");
  });

  test("a drawn cell is refitted by degrees, moved along the scale, or held with its clashes listed", () => {
    const drawn = withFiddle(songWith({ line: "| C | F | G7 | C |" }), [
      note(0, "C5", 1),
      note(1, "E5", 1),
      note(2, "G5", 1),
      note(3, "E5", 1),
    ]);
    const of = (cell: "refit" | "scale" | "hold") => {
      const line = sure(write(drawn, "ostinato", { settings: { cell } }).find((l) => l.title === CELL_WAYS[cell]));
      return {
        second: line.notes.slice(4, 8).map((n) => n.pitch),
        third: line.notes.slice(8, 12).map((n) => n.pitch),
        line,
      };
    };
    expect(of("refit").second).toEqual(["F5", "A5", "C6", "A5"]);
    expect(of("refit").third).toEqual(["G4", "B4", "D5", "B4"]);
    expect(of("scale").second).toEqual(["F5", "A5", "C6", "A5"]);
    const held = of("hold");
    expect(held.second).toEqual(["C5", "E5", "G5", "E5"]);
    // E over F is its major seventh, held on beat 2 against nothing but the chord: a color; over G7, C rubs above its
    // third.
    expect(held.line.conflicts.map((c) => c.message).join()).toContain("C5 in bar 3, beat 1");
    // The same degree over another quality: the third stays the third, the seventh falls to what the chord has.
    const [c7, fm, g] = ["C7", "Fm", "G6"].map((s) => sure(chordOf(s)));
    const ctx = { key: must(counterRequest(factsOf(drawn), { section: "s1", part: "answer" })).ctx.key };
    expect([refit(64, sure(c7), sure(fm), ctx) % 12, refit(70, sure(c7), sure(g), ctx) % 12]).toEqual([8, 4]);
  });

  test("the second half comes back to the first with more, and leaves the first as it is", () => {
    const first = [note(0, "A5", 2), note(2, "F5", 2), note(4, "D5", 4)];
    const lines = write(withNotes(phrases, first), "variation");
    for (const line of lines) {
      expect(line.notes.slice(0, 3).map((n) => [n.start, n.pitch])).toEqual(first.map((n) => [n.start, n.pitch]));
      const second = line.notes.filter((n) => n.start >= 3840);
      expect(second.length).toBeGreaterThanOrEqual(3);
      expect(second.map((n) => n.start)).toEqual(expect.arrayContaining([3840, 4800]));
    }
    expect(counterLines(phrases, { section: "s1", part: "answer", style: "variation" })).toMatchObject({
      ok: false,
      error: { code: "counter.place" },
    });
  });

  const withNotes = (song: Song, notes: Omit<Note, "id">[]): Song =>
    edit(song, { do: "setNotes", section: "s1", part: "answer", notes } as Edit);

  test("pinned notes stay, the range is kept, and what cannot be is said", () => {
    const pinned = withNotes(phrases, [note(2, "D5", 2, { pinned: true })]);
    for (const style of ["answer", "sustained", "guideTones", "descending"])
      for (const line of write(pinned, style))
        expect(line.notes.filter((n) => n.pinned).map((n) => [n.start, n.pitch])).toEqual([[960, "D5"]]);
    for (const line of write(phrases, "sustained", { settings: { low: "G4", high: "E5" } }))
      for (const n of line.notes) expect([pitchMidi(n.pitch) >= 67, pitchMidi(n.pitch) <= 76]).toEqual([true, true]);
    const code = (request: object) => {
      const result = counterLines(phrases, { section: "s1", part: "answer", ...request });
      return result.ok ? "ok" : result.error.code;
    };
    expect(code({ settings: { low: "G4", high: "A4" } })).toBe("counter.range");
    expect(code({ style: "nothing" })).toBe("counter.style");
    expect(code({ section: "none" })).toBe("counter.section");
    expect(code({ part: "none" })).toBe("counter.part");
    expect(code({ against: "answer" })).toBe("counter.against");
    expect(counterLines(withFiddle(songWith({ melody: ["0 C4 1"] })), { section: "s1", part: "answer" })).toMatchObject(
      {
        error: { code: "counter.chords" },
      },
    );
  });
});
