import { firstOf, nth, sure } from "../../src/base/list";
import fc from "fast-check";
import { accentMap } from "../../src/hear/accents/accentMap";
import { agreeOnAccents } from "../../src/arrange/groove/agree";
import { applyEdit } from "../../src/song/edits";
import { bassRequest } from "../../src/write/bass/write";
import { factsOf } from "../../src/facts/memory";
import { moveAway, nearness, parseReference, swapDistance } from "../../src/arrange/groove/reference";
import { must } from "../../src/base/result";
import { parseMeter } from "../../src/theory/time/meter";
import { quantize, quantizeHits } from "../../src/song/played";
import { syncopation } from "../../src/hear/accents/syncopation";
import { weavePlan } from "../../src/write/bass/others";
import type { Edit } from "../../src/song/edits/list";
import type { Song } from "../../src/song/schema/song";
import { edit, songWith } from "../helpers";

const steps = (text: string) => must(parseReference(text));
const hits = (song: Song, drum: "rim" | "snare", at: number[], bars = 2): Song =>
  Array.from({ length: bars }, (_, bar) =>
    at.map((step) => ({ do: "setHit" as const, section: "s1", drum, start: bar * 1920 + step * 120, velocity: 104 })),
  )
    .flat()
    .reduce((s, e) => edit(s, e), song);
// The rim strikes a sixteenth before the kick in the middle of the bar, and alone on the last beat.
const nearMisses = hits(
  songWith({
    line: "| C | F |",
    kicks: [
      [0, 110],
      [2, 110],
      [4, 110],
      [6, 110],
    ],
  }),
  "rim",
  [7, 12],
);

describe("where accents just miss each other", () => {
  test("the agreement moves the lighter one to the kick, says so politely, and then nobody is early or late", () => {
    const agreed = must(agreeOnAccents(nearMisses, "s1"));
    expect(agreed.players.map((p) => [p.id, p.moves])).toEqual([["drum:rim", [[7, 8]]]]);
    expect(firstOf(agreed.players).note).toMatch(
      /^Rim: you accent beat 2¾, a sixteenth before the others\. Would you try it on beat 3 with kick\?/,
    );
    expect(agreed.steps).toEqual([0, 8, 12]);
    const after = edit(nearMisses, agreed.edit);
    expect(sure(firstOf(after.sections).groove.lanes.find((l) => l.drum === "rim")).hits.map((h) => h.start)).toEqual([
      960, 1440, 2880, 3360,
    ]);
    expect(must(accentMap(after, "s1")).pairs.filter((p) => p.kind === "fight")).toEqual([]);
    expect(agreeOnAccents(after, "s1")).toMatchObject({ ok: false, error: { code: "accents.agreed" } });
  });
  test("the kick counts one and a half times: a rim as loud gives way to it, one at full strength on the beat does not", () => {
    const movedBy = (velocity: number): string[] => {
      const kicks = [0, 7, 16, 23].map((step): [number, number] => [step / 4, 97]);
      const song = [8, 24].reduce(
        (now, step) => edit(now, { do: "setHit", section: "s1", drum: "rim", start: step * 120, velocity }),
        songWith({ line: "| C | F |", kicks }),
      );
      return must(agreeOnAccents(song, "s1")).players.map((p) => p.id);
    };
    expect([movedBy(104), movedBy(127)]).toEqual([["drum:rim"], ["drum:kick"]]);
  });
  test("a part of chords is asked in its rhythm, a tune never", () => {
    const song = songWith({
      line: "| C | F |",
      kicks: [
        [0, 110],
        [2, 110],
        [4, 110],
        [6, 110],
      ],
      melody: ["1.75 E4 1", "5.75 E4 1"],
    });
    const chop = edit(
      song,
      ...firstOf(song.sections).chords.map((c): Edit => ({
        do: "pinVoicing",
        section: "s1",
        part: "keys",
        chord: c.id,
        pitches: ["C4", "F4"],
      })),
      { do: "setPlaying", part: "keys", comp: { rhythm: "x......x--......" } },
    );
    const agreed = must(agreeOnAccents(chop, "s1"));
    expect(agreed.players.map((p) => p.id)).toEqual(["keys"]);
    const after = edit(chop, agreed.edit);
    expect(sure(after.parts.find((p) => p.id === "keys")).playing.comp?.rhythm).toBe("x.......x-......");
  });
  test("weaving takes the kick and who stands clear of it, and leaves what would smear", () => {
    const { ctx } = must(bassRequest(factsOf(nearMisses), { section: "s1", part: "bass", style: "weave" }));
    expect(weavePlan(ctx).map((p) => [p.step, p.take])).toEqual([
      [0, true],
      [7, false],
      [8, true],
      [12, true],
    ]);
  });
});

describe("a rhythm beside a reference", () => {
  // Distances between five-stroke timelines (Toussaint 2004, Table of swap distances; from memory, and they follow from
  // the definition).
  const son = "x..x..x...x.x...";
  test.each([
    ["x..x..x...x.x...", 0],
    ["x...x.x...x.x...", 1],
    ["x..x..x...xx....", 1],
    ["x..x...x..x.x...", 1],
    ["x..x..x...x..x..", 1],
    ["x..x..x...x...x.", 2],
  ])("%s is %i swaps away", (other, distance) => {
    expect(swapDistance(steps(son), steps(other))).toBe(distance);
    expect(swapDistance(steps(other), steps(son))).toBe(distance);
  });
  test("directed swaps equal brute force over all ways to send many strokes to few", () => {
    const bits = fc.array(fc.boolean(), { minLength: 8, maxLength: 8 });
    fc.assert(
      fc.property(bits, bits, (a, b) => {
        const on = (x: boolean[]) => x.flatMap((s, i) => (s ? [i] : []));
        const [many, few] = [on(a), on(b)].sort((x, y) => y.length - x.length) as [number[], number[]];
        let best = few.length ? Infinity : 0;
        const walk = (i: number, used: number[], cost: number): void => {
          if (i === many.length) {
            if (new Set(used).size === few.length) best = Math.min(best, cost);
            return;
          }
          few.forEach((f, j) => walk(i + 1, [...used, j], cost + Math.abs(nth(many, i) - f)));
        };
        if (few.length && few.length ** many.length < 70_000) walk(0, [], 0);
        else return;
        expect(swapDistance(a, b)).toBe(best);
      }),
      { seed: 7, numRuns: 120 },
    );
  });
  test("a turned copy is found, and moving away ends below the limit", () => {
    const turned = son.slice(6) + son.slice(0, 6);
    expect(nearness(steps(turned), steps(son))).toMatchObject({ rotatedShare: 1 });
    const moves = moveAway(steps(son), steps(son), 0.6);
    const moved = steps(son);
    for (const [from, to] of moves) [moved[from], moved[to]] = [false, true];
    expect(nearness(moved, steps(son)).share).toBeLessThan(0.6);
    expect(moves.every(([from]) => from !== 0)).toBe(true);
    expect(parseReference("x..q")).toMatchObject({ ok: false, error: { position: 3 } });
  });
});

describe("playing in", () => {
  test("drums: each key goes to its lane, doubles become the louder, keys without a drum are left out", () => {
    const stroke = (midi: number, start: number, velocity: number) => ({ midi, start, end: start + 50, velocity });
    const lanes = quantizeHits(
      [stroke(36, 10, 90), stroke(36, -20, 100), stroke(38, 470, 80), stroke(99, 480, 80), stroke(36, 3900, 80)],
      (midi) => {
        if (midi === 36) return "kick";
        if (midi === 38) return "snare";
        return null;
      },
      { grid: 120, strength: 0 },
      { from: 0, to: 3840 },
    );
    expect(lanes).toEqual([
      { drum: "kick", hits: [{ start: 0, velocity: 100, offset: -20 }] },
      { drum: "snare", hits: [{ start: 480, velocity: 80, offset: -10 }] },
    ]);
  });
  const song = songWith({ line: "| C | F |" });
  const section = firstOf(song.sections);
  const grid = { grid: 240, strength: 1, ends: true, single: true };
  test("early and late strokes go to their place, a held one ends with the next, what is outside is left out", () => {
    const played = [
      { midi: 36, start: -70, end: 200, velocity: 90 },
      { midi: 43, start: 500, end: 1500, velocity: 70 },
      { midi: 41, start: 930, end: 1100, velocity: 80 },
      { midi: 48, start: 3900, end: 4000, velocity: 80 },
    ];
    expect(
      quantize(song, section, { played, how: grid, from: 0, to: 3840 }).map((n) => [n.start, n.duration, n.pitch]),
    ).toEqual([
      [0, 240, "C2"],
      [480, 480, "G2"],
      [960, 240, "F2"],
    ]);
    const [loose] = quantize(song, section, { played, how: { ...grid, strength: 0.5 }, from: 0, to: 3840 });
    expect(loose).toMatchObject({ start: 0, offset: -35 });
  });
  test("whatever is played: on the grid, in order, one at a time, and a song that takes it", () => {
    const note = fc.record({
      midi: fc.integer({ min: 28, max: 60 }),
      start: fc.integer({ min: -200, max: 4000 }),
      length: fc.integer({ min: 1, max: 2000 }),
      velocity: fc.integer({ min: 1, max: 127 }),
    });
    fc.assert(
      fc.property(
        fc.array(note, { maxLength: 30 }),
        fc.constantFrom(120, 160, 240, 480),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (list, step, strength) => {
          const notes = quantize(song, section, {
            played: list.map((n) => ({ ...n, end: n.start + n.length })),
            how: { grid: step, strength, ends: false, single: true },
            from: 0,
            to: 3840,
          });
          notes.forEach((n, i) => {
            expect(n.start % step).toBe(0);
            expect(n.duration).toBeGreaterThan(0);
            if (notes[i + 1]) expect(n.start + n.duration).toBeLessThanOrEqual(nth(notes, i + 1).start);
          });
          expect(applyEdit(song, { do: "setNotes", section: "s1", part: "bass", notes }).ok).toBe(true);
        },
      ),
      { seed: 3, numRuns: 100 },
    );
  });
});

describe("agreement", () => {
  const clave = (at: number[], drum: "clave" | "rim" | "conga", song: Song): Song =>
    Array.from({ length: 2 }, (_, bar) =>
      at.map((step) => ({ do: "setHit" as const, section: "s1", drum, start: bar * 1920 + step * 120, velocity: 104 })),
    )
      .flat()
      .reduce((s, e) => edit(s, e), song);
  const fights = (song: Song) => must(accentMap(song, "s1")).pairs.filter((p) => p.kind === "fight");

  test(
    "works across the bar line: what stands a sixteenth before the bar comes to its first beat, also from the " +
      "end to the beginning",
    () => {
      const kicks: [number, number][] = [0, 2, 4, 6].map((b) => [b, 110]);
      const song = clave([15, 8], "rim", songWith({ line: "| C | F |", kicks }));
      const agreed = must(agreeOnAccents(song, "s1"));
      expect(agreed.players.map((p) => [p.id, p.moves])).toEqual([["drum:rim", [[15, 0]]]]);
      const after = edit(song, agreed.edit);
      expect(sure(firstOf(after.sections).groove.lanes.find((l) => l.drum === "rim")).hits.map((h) => h.start)).toEqual(
        [0, 960, 1920, 2880],
      );
    },
  );

  test("a clave stays where it is, and the others come to it, the kick as well", () => {
    const kicks: [number, number][] = [0, 1.75, 4, 5.75].map((b) => [b, 120]);
    const song = clave([0, 6, 12], "clave", songWith({ line: "| C | F |", kicks }));
    const agreed = must(agreeOnAccents(song, "s1"));
    expect(agreed.players.map((p) => [p.id, p.moves])).toEqual([["drum:kick", [[7, 6]]]]);
    expect(fights(edit(song, agreed.edit))).toEqual([]);
  });

  test("ends with pairs that no longer fight, whoever plays where", () => {
    const steps = fc.uniqueArray(fc.integer({ min: 0, max: 15 }), { minLength: 1, maxLength: 4 });
    fc.assert(
      fc.property(steps, steps, steps, (a, b, c) => {
        const kicks = a.flatMap((s): [number, number][] => [
          [s / 4, 110],
          [s / 4 + 4, 110],
        ]);
        const song = clave(c, "conga", clave(b, "rim", songWith({ line: "| C | F |", kicks })));
        const agreed = agreeOnAccents(song, "s1");
        if (agreed.ok) expect(fights(edit(song, agreed.value.edit))).toEqual([]);
        else expect(fights(song)).toEqual([]);
      }),
      { numRuns: 60, seed: 5 },
    );
  });
});

test.each([
  ["3/4", [960], 1],
  ["3/4", [240], 2],
  ["2/4", [480], 1],
  ["6/8", [720], 1],
  ["6/8", [480], 2],
  ["4/4", [1440], 2],
  ["4/4", [960], 1],
])(
  "in %s an attack at %j that is tied over weighs %i (Longuet-Higgins & Lee 1984, by hand)",
  (meter, starts, weight) => {
    const read = must(parseMeter(meter));
    expect(syncopation(starts, read, read.bar)).toBe(weight);
  },
);
