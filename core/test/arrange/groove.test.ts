import { firstOf, sure } from "../../src/base/list";
import { accentMap, pairOf } from "../../src/hear/accents/accentMap";
import { applyEdit } from "../../src/song/edits";
import { DRUM_KINDS, DRUMS } from "../../src/theory/instrument/drums";
import {
  DRUM_PATTERNS,
  mergeLanes,
  patternLanes,
  roll,
  withFill,
  withVariation,
} from "../../src/arrange/groove/patterns";
import { euclid } from "../../src/arrange/groove/euclid";
import { GM_DRUMS } from "../../src/files/midi";
import { kicks } from "../../src/hear/slice/accents";
import { must } from "../../src/base/result";
import { parseMeter } from "../../src/theory/time/meter";
import { parseSong } from "../../src/song/document";
import { realize } from "../../src/song/realize";
import { syncopation, syncopations } from "../../src/hear/accents/syncopation";
import { edit, songWith } from "../helpers";

const METERS = ["4/4", "3/4", "6/8", "12/8", "5/4", "7/8"];
const text = (row: boolean[]) => row.map((x) => (x ? "x" : ".")).join("");

test.each<[number, number, string]>([
  [3, 8, "x..x..x."],
  [5, 8, "x.xx.xx."],
  [2, 5, "x.x.."],
  [3, 4, "x.xx"],
  [4, 9, "x.x.x.x.."],
  [5, 16, "x..x..x..x..x..."],
])("E(%i,%i) is %s up to rotation (Toussaint 2005)", (pulses, steps, row) => {
  const turns = Array.from({ length: steps }, (_, i) => text(euclid(pulses, steps, i)));
  expect(turns).toContain(row);
  expect(text(euclid(pulses, steps))[0]).toBe("x");
});

test("pulses are as even as they go: gaps differ by one step at most, whatever the numbers", () => {
  for (let steps = 1; steps <= 24; steps++)
    for (let pulses = 1; pulses <= steps; pulses++) {
      const row = euclid(pulses, steps);
      const at = row.flatMap((x, i) => (x ? [i] : []));
      const gaps = at.map((a, i) => (at[i + 1] ?? firstOf(at) + steps) - a);
      expect([steps, pulses, at.length, Math.max(...gaps) - Math.min(...gaps) <= 1]).toEqual([
        steps,
        pulses,
        pulses,
        true,
      ]);
    }
  expect(euclid(0, 5)).toEqual([false, false, false, false, false]);
});

test("syncopation counts a silent or held stronger position after a weaker attack (Longuet-Higgins & Lee 1984)", () => {
  const meter = must(parseMeter("4/4"));
  // On the beats nothing is syncopated.
  expect(syncopation([0, 480, 960, 1440], meter, 1920)).toBe(0);
  // An eighth before the middle of the bar, which stays silent: from level −3 to −1.
  expect(syncopations([0, 720], meter, 1920, false)).toEqual([{ start: 720, stronger: 960, weight: 2 }]);
  // Before the bar line, into a silent downbeat: from −3 to 0.
  expect(syncopations([480, 1680], meter, 1920).map((s) => [s.start, s.weight])).toEqual([
    [480, 1],
    [1680, 3],
  ]);
  // Moving every attack an eighth early makes a rhythm more syncopated.
  expect(syncopation([240, 720, 1200, 1680], meter, 1920)).toBeGreaterThan(
    syncopation([0, 480, 960, 1440], meter, 1920),
  );
});

test("patterns by feel fit every meter, have a kick on the first beat of every bar, and are what their names say", () => {
  for (const name of METERS) {
    const meter = must(parseMeter(name));
    for (const pattern of DRUM_PATTERNS) {
      const lanes = patternLanes(pattern, meter, 4);
      const kick = sure(lanes.find((l) => l.drum === "kick")).hits.map((h) => h.start);
      expect([name, pattern.id, kick]).toEqual([
        name,
        pattern.id,
        expect.arrayContaining([0, 1, 2, 3].map((b) => b * meter.bar)),
      ]);
      for (const lane of lanes)
        for (const hit of lane.hits)
          expect([name, pattern.id, hit.start < 4 * meter.bar, hit.start % 40]).toEqual([name, pattern.id, true, 0]);
    }
  }
  const of = (id: string, drum: string, meter = "4/4") =>
    sure(
      patternLanes(sure(DRUM_PATTERNS.find((p) => p.id === id)), must(parseMeter(meter)), 1).find(
        (l) => l.drum === drum,
      ),
    ).hits.map((h) => h.start / 480);
  expect(of("four-floor", "kick")).toEqual([0, 1, 2, 3]);
  expect(of("half-time", "snare")).toEqual([2]);
  expect(of("boom-bap", "snare")).toEqual([1, 3]);
  expect(of("bossa", "kick")).toEqual([0, 1.5, 2, 3.5]);
  expect(of("waltz", "snare", "3/4")).toEqual([1, 2]);
  expect(of("six-eight", "snare", "6/8")).toEqual([1.5]);
  expect(of("shuffle", "closedHat").slice(0, 4)).toEqual([0, 2 / 3, 1, 5 / 3]);
});

test("merged, filled, varied, rolled: nothing that should stay is lost", () => {
  const meter = must(parseMeter("4/4"));
  const [a, b] = ["boom-bap", "bossa"].map((id) =>
    patternLanes(sure(DRUM_PATTERNS.find((p) => p.id === id)), meter, 4),
  );
  const merged = mergeLanes(sure(a), sure(b));
  for (const lanes of [sure(a), sure(b)])
    for (const lane of lanes)
      for (const hit of lane.hits)
        expect(
          sure(sure(merged.find((l) => l.drum === lane.drum)).hits.find((h) => h.start === hit.start)).velocity,
        ).toBeGreaterThanOrEqual(hit.velocity);
  const filled = withFill(sure(a), meter, 3, { length: 1, seed: 5 });
  const last = 3 * 1920 + 1440;
  expect(filled.filter((l) => /Hat/.test(l.drum)).every((l) => l.hits.every((h) => h.start < last))).toBe(true);
  const struck = filled
    .filter((l) => l.drum === "snare" || l.drum === "tom")
    .flatMap((l) => l.hits.filter((h) => h.start >= last));
  expect(struck.length).toBeGreaterThan(1);
  expect(filled.find((l) => l.drum === "kick")).toEqual(sure(a).find((l) => l.drum === "kick"));
  expect(withFill(sure(a), meter, 3, { length: 1, seed: 5 })).toEqual(filled);
  const varied = withVariation(sure(a), meter, 2, { length: 4 * 1920, seed: 3 });
  const pass = (lanes: typeof varied, from: number) =>
    lanes.map((l) => l.hits.filter((h) => h.start >= from && h.start < from + 3840));
  expect(pass(varied, 0)).toEqual(pass(sure(a), 0));
  expect(pass(varied, 3840)).not.toEqual(pass(sure(a), 3840));
  expect(roll(0, 480, 120, { from: 40, to: 100 }).map((h) => h.velocity)).toEqual([40, 60, 80, 100]);
});

test(
  "a lane swings and lies by itself, an open hat ends where it is closed, a tuned drum has pitches; notated " +
    "positions stay",
  () => {
    let song = songWith({ kicks: [[0, 100]] });
    song = edit(
      song,
      { do: "setHit", section: "s1", drum: "openHat", start: 240, velocity: 80 },
      { do: "setHit", section: "s1", drum: "closedHat", start: 480, velocity: 80 },
      { do: "setHit", section: "s1", drum: "shaker", start: 240, velocity: 80 },
      { do: "setLane", section: "s1", drum: "shaker", change: { swing: 2 / 3, offset: 12 } },
      { do: "setLane", section: "s1", drum: "kick", change: { tuned: true, name: "Low drum" } },
      { do: "changeHit", section: "s1", drum: "kick", start: 0, change: { pitch: "F1", offset: -6 } },
    );
    const hits = realize(song, { section: "s1" }).hits;
    const of = (drum: string) => sure(hits.find((h) => h.drum === drum));
    // Swing of 66.7 % puts the second eighth on the third of the triplet.
    expect([of("shaker").start, of("shaker").played]).toEqual([240, 332]);
    expect(of("openHat").duration).toBe(240);
    expect([of("kick").midi, of("kick").played, of("kick").start]).toEqual([29, -6, 0]);
    expect(kicks(firstOf(song.sections).groove, must(parseMeter("4/4")))[0]).toMatchObject({ start: 0, main: true });
    const back = edit(song, { do: "setLane", section: "s1", drum: "shaker", change: { swing: null, offset: null } });
    expect(firstOf(back.sections).groove.lanes.find((l) => l.drum === "shaker")).toEqual({
      drum: "shaker",
      hits: [{ start: 240, velocity: 80 }],
    });
    expect(parseSong(JSON.stringify(song)).ok).toBe(true);
    expect(applyEdit(song, { do: "setLane", section: "s1", drum: "kick", change: { swing: 0.9 } })).toMatchObject({
      ok: false,
    });
    expect(
      applyEdit(song, { do: "changeHit", section: "s1", drum: "kick", start: 0, change: { pitch: "H2" } }),
    ).toMatchObject({ ok: false });
  },
);

test("every drum has a name and a note of its own on the General MIDI map (GM System Level 1, values from memory)", () => {
  expect(new Set(DRUMS.map((d) => GM_DRUMS[d])).size).toBe(DRUMS.length);
  expect(
    ["kick", "rim", "snare", "clap", "closedHat", "pedalHat", "openHat", "ride", "tambourine", "clave", "triangle"].map(
      (d) => GM_DRUMS[d as keyof typeof GM_DRUMS],
    ),
  ).toEqual([36, 37, 38, 39, 42, 44, 46, 51, 54, 75, 81]);
  expect(Object.values(DRUM_KINDS).every((d) => d.title.length > 2)).toBe(true);
});

describe("the accent map", () => {
  const song = songWith({
    line: "| C | C |",
    kicks: [0, 2.5, 4, 6.5].map((b) => [b, 110]),
    bass: ["0 C2 1", "2.5 C2 1", "4 C2 1", "6.5 G2 1"],
    melody: ["0.5 E4 0.5", "1.5 G4 1", "4.5 E4 0.5", "5.5 G4 1"],
  });
  const map = must(accentMap(song, "s1"));
  const row = (id: string) => sure(map.rows.find((r) => r.id === id));
  const pair = (a: string, b: string) =>
    sure(map.pairs.find((p) => (p.a === a && p.b === b) || (p.a === b && p.b === a)));

  test("says for every sixteenth of the bar who strikes and how strongly, a chord counting once", () => {
    expect(map.steps).toBe(16);
    expect(row("drum:kick").accents).toEqual([0, 10]);
    expect(row("drum:kick").strength[0]).toBeCloseTo(110 / 127);
    expect(map.total[0]).toBeCloseTo(map.rows.reduce((sum, r) => sum + firstOf(r.strength), 0));
    const chords = edit(song, {
      do: "pinVoicing",
      section: "s1",
      part: "keys",
      chord: firstOf(firstOf(song.sections).chords).id,
      pitches: ["C4", "E4", "G4"],
    });
    expect(sure(must(accentMap(chords, "s1")).rows.find((r) => r.id === "keys")).strength[0]).toBeCloseTo(72 / 127 / 2);
  });

  test("pairs: bass with the kick agrees, the tune between them interlocks, a sixteenth beside the kick just misses it", () => {
    expect(pair("bass", "drum:kick")).toMatchObject({ kind: "agree", together: [0, 10] });
    expect(pair("melody", "drum:kick").kind).toBe("interlock");
    expect(pairOf({ id: "a", accents: [0, 6, 10] }, { id: "b", accents: [0, 7, 11] }, 16)).toMatchObject({
      kind: "fight",
      together: [0],
      nearMisses: [
        [6, 7],
        [10, 11],
      ],
    });
    // The end of the bar lies beside its beginning.
    expect(pairOf({ id: "a", accents: [0, 8] }, { id: "b", accents: [15, 4] }, 16).nearMisses).toEqual([[0, 15]]);
  });

  test("syncopation is counted for every player, for a bar", () => {
    // Beat 3½ into a silent beat 4 and bar line: one syncopated attack a bar.
    expect(row("drum:kick").syncopations).toHaveLength(2);
    expect(row("drum:kick").syncopation).toBeGreaterThan(0);
    expect(
      firstOf(must(accentMap(songWith({ kicks: [0, 1, 2, 3].map((b) => [b, 100]) }), "s1")).rows).syncopations.length,
    ).toBeLessThanOrEqual(1);
  });
});

test("where triplets are struck the bar is shown in their steps, where both are, in the finest", () => {
  const shuffle = edit(songWith({ line: "| C | C |" }), {
    do: "setDrums",
    section: "s1",
    lanes: patternLanes(sure(DRUM_PATTERNS.find((p) => p.id === "shuffle")), must(parseMeter("4/4")), 2),
  });
  const map = must(accentMap(shuffle, "s1"));
  expect([map.step, map.steps]).toEqual([80, 24]);
  const hat = sure(map.rows.find((r) => r.id === "drum:closedHat"));
  expect(hat.strength.flatMap((s, i) => (s > 0 ? [i * map.step] : []))).toEqual([
    0, 320, 480, 800, 960, 1280, 1440, 1760,
  ]);
  const both = edit(shuffle, { do: "setHit", section: "s1", drum: "rim", start: 120, velocity: 100 });
  expect(must(accentMap(both, "s1"))).toMatchObject({ step: 40, steps: 48 });
  // A sixteenth of nearMisses is the same length on every grid.
  expect(pairOf({ id: "a", accents: [0, 12] }, { id: "b", accents: [3, 24] }, 48, 40).nearMisses).toEqual([[0, 3]]);
  expect(pairOf({ id: "a", accents: [0] }, { id: "b", accents: [4] }, 48, 40).nearMisses).toEqual([]);
});
