import { firstOf, lastOf, nth, sure } from "../../src/base/list";
import fc from "fast-check";
import { blockNotes } from "../../src/arrange/voicing/block";
import { chordPitchClasses } from "../../src/theory/chord/chord";
import { invert } from "../../src/arrange/voicing/invert";
import { must } from "../../src/base/result";
import { parseChord } from "../../src/theory/chord/parse";
import { voicedProgressions, voicePaths } from "../../src/arrange/voicing/path";
import { narrowed, pathsOf, pathSteps } from "../../src/arrange/voicing/ways";
import { pitchMidi } from "../../src/theory/pitch/pitch";
import { cheapestPaths } from "../../src/search/lattice";
import { realize } from "../../src/song/realize";
import { sectionPaths, voiceSection } from "../../src/arrange/voicing/section";
import { sumTerms, TERM_NAMES, trade } from "../../src/arrange/voicing/cost";
import { voicingSpace } from "../../src/arrange/voicing/space";
import { edit, songWith } from "../helpers";

const chords = (...symbols: string[]) => symbols.map((s) => must(parseChord(s)));
const LOOP = ["Dm9", "G13", "Cmaj9", "A7(b9)", "Dm7", "G7sus4", "Em7", "A7"];
const song = songWith({
  line: "| Dm7 | G7 | Cmaj7 | Am7 |",
  melody: ["0 F4 2", "2 A4 2", "4 B4 4", "8 D5 4", "12 E5 4"],
});
const voiced = (s = song) => must(voiceSection(s, "s1", "keys"));

test("a weight turned up lowers its own raw cost, exactly as an optimum must; at 0 the term is free", () => {
  const raw = (weight: number, term: (typeof TERM_NAMES)[number]) => {
    const [path] = must(voicePaths(chords(...LOOP), { loop: true, weights: { [term]: weight } }));
    return sure(sure(path).terms[term]) / (weight || 1);
  };
  for (const term of ["motion", "common", "register", "roughness", "spacing", "topLine"] as const) {
    expect([term, raw(3, term) <= raw(1, term) + 1e-9]).toEqual([term, true]);
    expect([term, raw(0, term)]).toEqual([term, 0]);
  }
});

test("terms add up to the cost, for every path and every chord", () => {
  fc.assert(
    fc.property(fc.shuffledSubarray(LOOP, { minLength: 3, maxLength: 6 }), fc.boolean(), (symbols, loop) => {
      const [path] = must(voicePaths(chords(...symbols), { loop, voices: 3 }));
      expect(sumTerms(sure(path).terms)).toBeCloseTo(sure(path).cost, 6);
      expect(sure(path).chords.reduce((sum, c) => sum + c.cost, 0)).toBeCloseTo(sure(path).cost, 6);
    }),
    { numRuns: 12, seed: 4 },
  );
});

test(
  "the six cheapest ways: the first is the cheapest, each differs at the top or bottom of a quarter of the " +
    "chords, brute force finds the same second",
  () => {
    const space = must(voicingSpace(chords("C", "F", "G7"), { voices: 3, loop: true }));
    const found = pathsOf(space, 3);
    const outer = (picks: readonly number[]) =>
      picks.map((x, c) => {
        const { pitches } = nth(nth(space.columns, c).candidates, x);
        return `${pitches[0]}:${pitches.at(-1)}`;
      });
    const { lattice } = space;
    let second = Infinity;
    const best = outer(firstOf(found).path.picks);
    for (let a = 0; a < firstOf(lattice.sizes); a++)
      for (let b = 0; b < nth(lattice.sizes, 1); b++)
        for (let c = 0; c < nth(lattice.sizes, 2); c++) {
          if (outer([a, b, c]).every((o, i) => o === best[i])) continue;
          const cost =
            lattice.node(0, a) +
            lattice.node(1, b) +
            lattice.node(2, c) +
            lattice.step(0, a, b) +
            lattice.step(1, b, c) +
            lattice.step(2, c, a);
          if (cost < second) second = cost;
        }
    expect(found.map((f) => f.exact)).toEqual([true, true, true]);
    expect(nth(found, 1).path.cost).toBeCloseTo(second, 9);

    const long = must(voicePaths(chords(...LOOP, ...LOOP), { loop: true, k: 6 }));
    expect(long).toHaveLength(6);
    for (const [i, p] of long.entries()) {
      expect(p.cost).toBeGreaterThanOrEqual(firstOf(long).cost);
      for (const q of long.slice(0, i)) {
        const apart = p.chords.filter(
          (c, k) =>
            c.pitches[0] !== nth(q.chords, k).pitches[0] || c.pitches.at(-1) !== nth(q.chords, k).pitches.at(-1),
        );
        expect(apart.length).toBeGreaterThanOrEqual(4);
      }
    }
    const ways = must(sectionPaths(song, "s1", "keys"));
    expect(firstOf(ways).trades).toEqual([]);
    expect(ways.slice(1).some((w) => w.trades.length > 0)).toBe(true);
    expect(trade({ motion: 4 }, { motion: 7, roughness: 0.1 })).toEqual([
      { term: "motion", by: 3, words: "moves more" },
    ]);
  },
);

test("other ways are made of the eighty layouts nearest the cheapest path: few are proven, many cost hardly more", () => {
  const spaceOf = (more: object) => must(voicingSpace(chords(...LOOP), { loop: false, style: "keyboard", ...more }));
  const few = spaceOf({ voices: 3, range: ["C3", "C5"] });
  const many = spaceOf({});
  expect(Math.max(...few.lattice.sizes)).toBeLessThanOrEqual(80);
  expect(Math.max(...many.lattice.sizes)).toBeGreaterThan(80);
  const flags = (space: typeof few) => pathsOf(space, 4).map((f) => f.exact);
  expect(flags(few)).toEqual([true, true, true, true]);
  expect(flags(many)).toEqual([true, false, false, false]);

  // Against all layouts there are, in order of cost.
  const outer = many.columns.map((c) => c.candidates.map((v) => `${firstOf(v.pitches)} ${lastOf(v.pitches)}`));
  const differs = (a: readonly number[], b: readonly number[]) =>
    a.filter((x, c) => nth(nth(outer, c), x) !== nth(nth(outer, c), nth(b, c))).length >= LOOP.length / 4;
  const all = cheapestPaths(many.lattice, { k: 4, differs, limit: 4000 });
  pathsOf(many, 4).forEach(({ path }, i) => {
    expect(path.cost).toBeGreaterThanOrEqual(nth(all, i).cost - 1e-9);
    expect(path.cost).toBeLessThanOrEqual(nth(all, i).cost * 1.01);
  });
});

test("eighty layouts of a chord are all of them, of eighty-one one is left out: never the one that is chosen", () => {
  const same = (...sizes: number[]) => ({ sizes, node: () => 1, step: () => 0 });
  const near = (sizes: number[], best: number[]) => {
    const { at, whole } = narrowed(same(...sizes), best);
    return [...at.map((list) => list.length), whole];
  };
  expect(near([80, 3], [0, 0])).toEqual([80, 3, true]);
  expect(near([81, 3], [0, 0])).toEqual([80, 3, false]);
  // However many cost the same.
  expect(narrowed(same(300, 3), [299, 1]).at[0]).toContain(299);
});

test("other ways are told as they are found, and stopped there are those until then", () => {
  const space = must(voicingSpace(chords(...LOOP, ...LOOP), { loop: true, style: "keyboard" }));
  const told: number[] = [];
  const steps = pathSteps(space, 6);
  let now = steps.next();
  for (; !now.done; now = steps.next()) told.push(now.value.length);
  expect(told[0]).toBe(1);
  expect(told).toEqual(told.toSorted((a, b) => a - b));
  expect(now.value).toHaveLength(6);
  const stopped = pathSteps(space, 6);
  stopped.next();
  expect(stopped.next(false)).toMatchObject({ done: true, value: [{ exact: true }] });
});

test("a top line shape is followed: still, rising and falling", () => {
  const tops = (topShape: "still" | "rising" | "falling") =>
    firstOf(must(voicePaths(chords(...LOOP), { topShape, weights: { topLine: 3 } }))).chords.map((c) =>
      pitchMidi(lastOf(c.pitches)),
    );
  const moves = (t: number[]) => t.slice(1).map((m, i) => m - nth(t, i));
  expect(moves(tops("still")).reduce((sum, m) => sum + Math.abs(m), 0)).toBeLessThanOrEqual(4);
  expect(moves(tops("rising")).filter((m) => m < 0).length).toBeLessThanOrEqual(1);
  expect(moves(tops("falling")).filter((m) => m > 0).length).toBeLessThanOrEqual(1);
});

test("any top note and any lowest note can be wanted; what cannot be had is said, with the reason", () => {
  const ends = { 0: { top: "A4" }, 1: { top: "A4", bottom: "F3" }, 2: { top: "Bb4" } };
  const [path] = must(voicedProgressions({ chords: ["Dm7", "G7", "Cmaj7"], outer: ends }));
  expect(firstOf(sure(path).voicings).at(-1)).toBe("A4");
  expect([nth(sure(path).voicings, 1)[0], nth(sure(path).voicings, 1).at(-1)]).toEqual(["F3", "A4"]);
  expect(pitchMidi(lastOf(nth(sure(path).voicings, 2)))).toBe(70);
  const space = must(voicingSpace(chords("Dm7", "G7", "Cmaj7", "F"), { outer: { ...ends, 3: { top: "C9" } } }));
  expect(space.columns.map((c) => c.top?.met)).toEqual(["chord", "over", "over", "no"]);
  expect(sure(nth(space.columns, 3).top).why).toContain("range");
  // Stored with the chord, kept by the next path, and given back.
  const id = nth(firstOf(song.sections).chords, 1).id;
  const pinned = edit(
    song,
    { do: "pinVoicing", section: "s1", part: "keys", chord: id, pitches: nth(voiced().chords, 1).pitches },
    { do: "pinEnds", section: "s1", part: "keys", chord: id, top: "D5", bottom: "F3" },
  );
  const now = nth(voiced(pinned).chords, 1).pitches;
  expect([now[0], now.at(-1)]).toEqual(["F3", "D5"]);
  const freed = edit(pinned, { do: "pinEnds", section: "s1", part: "keys", chord: id, top: null, bottom: null });
  expect(sure(nth(firstOf(freed.sections).chords, 1).voicings).keys).not.toHaveProperty("top");
});

test("melodic chords: the top of every chord follows the tune, and the report says where it cannot", () => {
  const follow = edit(song, { do: "setLink", part: "keys", link: { kind: "voicing", loop: true, top: "melody" } });
  const { chords: out, tops, ids } = voiced(follow);
  expect(out.map((c) => pitchMidi(lastOf(c.pitches)))).toEqual(["F4", "B4", "D5", "E5"].map(pitchMidi));
  expect(ids.map((id) => sure(tops[id]).met)).toEqual(["chord", "chord", "over", "chord"]);
  const high = edit(
    follow,
    { do: "setPart", part: "keys", instrument: "vibraphone" },
    { do: "setNotes", section: "s1", part: "melody", notes: [{ start: 0, duration: 480, pitch: "C2", velocity: 80 }] },
  );
  expect(Object.values(voiced(high).tops)[0]).toMatchObject({
    wanted: "C2",
    met: "no",
    why: expect.stringContaining("vibraphone"),
  });
});

test(
  "block chords: every note of the tune has four close tones under it; foreign ones pass on a diminished seventh " +
    "or stand in",
  () => {
    const passing = songWith({ line: "| C6 | Am7 |", melody: ["0 C5 1", "1 D5 1", "2 E5 1", "3 F5 1", "4 G5 4"] });
    const part = firstOf(
      edit(passing, {
        do: "addPart",
        name: "Block",
        role: "chords",
        instrument: "piano",
        link: { kind: "block", top: "melody" },
      }).parts,
    ).id;
    const withPart = edit(passing, {
      do: "addPart",
      name: "Block",
      role: "chords",
      instrument: "piano",
      link: { kind: "block", top: "melody" },
    });
    const notes = sure(must(blockNotes(withPart, "s1", part)));
    const starts = [...new Set(notes.map((n) => n.start))];
    expect(starts).toEqual([0, 480, 960, 1440, 1920]);
    const chord = must(parseChord("C6"));
    for (const [k, start] of starts.entries()) {
      const stack = notes
        .filter((n) => n.start === start)
        .map((n) => pitchMidi(n.pitch))
        .sort((a, b) => a - b);
      expect(stack.at(-1)).toBe(pitchMidi(nth(["C5", "D5", "E5", "F5", "G5"], k)));
      expect(stack.length).toBe(4);
      expect(lastOf(stack) - firstOf(stack)).toBeLessThanOrEqual(12);
      if (k === 0 || k === 2) expect(stack.every((m) => chordPitchClasses(chord).includes(m % 12))).toBe(true);
    }
    expect(must(blockNotes(song, "s1", "keys"))).toBeNull();
    // Stored, the part plays them and nothing else.
    const stored = edit(withPart, { do: "setNotes", section: "s1", part, notes });
    const real = sure(realize(stored, { section: "s1" }).parts.find((p) => p.id === part));
    expect([real.linked, real.notes.length]).toEqual([true, notes.length]);
  },
);

test(
  "turning: every voice to the next tone, so that spreads keep their kind, the turn back is exact and four turns " +
    "are an octave",
  () => {
    let v = ["C4", "E4", "G4", "Bb4"];
    expect(invert(v, 1)).toEqual(["E4", "G4", "Bb4", "C5"]);
    expect(invert(v, -1)).toEqual(["Bb3", "C4", "E4", "G4"]);
    const spread = ["G3", "C4", "Eb4", "Bb4"];
    expect(invert(spread, 1)).toEqual(["Bb3", "Eb4", "G4", "C5"]);
    expect(invert(invert(spread, 1), -1)).toEqual(spread);
    for (let i = 0; i < 4; i++) v = invert(v, 1);
    expect(v).toEqual(["C5", "E5", "G5", "Bb5"]);
  },
);

test("weights and the register live with the part: a setting null goes back to the usual", () => {
  const low = edit(song, { do: "setPlaying", part: "keys", voicing: { register: -8 } });
  const mean = (s: typeof song) =>
    voiced(s)
      .chords.flatMap((c) => c.pitches.map(pitchMidi))
      .reduce((a, b, _, l) => a + b / l.length, 0);
  expect(mean(low)).toBeLessThan(mean(song) - 3);
  const weighed = edit(song, { do: "setPlaying", part: "keys", voicing: { weights: { motion: 3 } } });
  const back = edit(weighed, { do: "setPlaying", part: "keys", voicing: { weights: { motion: null } } });
  expect(sure(back.parts.find((p) => p.id === "keys")).playing).toEqual(
    sure(song.parts.find((p) => p.id === "keys")).playing,
  );
});

test("a stretch past an octave comes with a layout that spares the hand, of whatever style", () => {
  const wide = edit(song, {
    do: "setPlaying",
    part: "keys",
    voicing: { style: "open", hands: 1, span: 17, voices: 3 },
  });
  const { chords: out, easier, ids } = voiced(wide);
  const far = ids.filter(
    (_, i) => pitchMidi(lastOf(nth(out, i).pitches)) - pitchMidi(firstOf(nth(out, i).pitches)) > 12,
  );
  expect(far.length).toBeGreaterThan(0);
  expect(Object.keys(easier)).toEqual(far);
  for (const p of Object.values(easier)) expect(pitchMidi(lastOf(p)) - pitchMidi(firstOf(p))).toBeLessThanOrEqual(12);
});

test("instruments of one note play single notes, small ones fewer voices, a choir keeps to its range", () => {
  const on = (instrument: string) =>
    voiced(edit(song, { do: "setPart", part: "keys", instrument })).chords.map((c) => c.pitches.map(pitchMidi));
  expect(on("flute").every((v) => v.length === 1 && firstOf(v) >= 60)).toBe(true);
  expect(on("steelPan").every((v) => v.length === 2)).toBe(true);
  expect(
    on("choir")
      .flat()
      .every((m) => m >= 40 && m <= 79),
  ).toBe(true);
});
