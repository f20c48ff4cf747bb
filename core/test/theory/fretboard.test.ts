import { firstOf, nth, sure } from "../../src/base/list";
import guitar from "@tombatossals/chords-db/lib/guitar.json";
import ukulele from "@tombatossals/chords-db/lib/ukulele.json";
import { chooseCapo } from "../../src/arrange/voicing/capo";
import { findShapes, holdShape, SHAPE_LIMITS, shapeOf, type Neck } from "../../src/theory/instrument/fretboard";
import { handStrain, twoHands } from "../../src/theory/instrument/hands";
import { instrumentOf } from "../../src/theory/instrument/instruments";
import { must } from "../../src/base/result";
import { neckOf } from "../../src/theory/instrument/neck";
import { pitchMidi } from "../../src/theory/pitch/pitch";
import { tabOf } from "../../src/arrange/voicing/tab";
import { voicedProgressions } from "../../src/arrange/voicing/path";
import { voiceSection } from "../../src/arrange/voicing/section";
import { edit, songWith } from "../helpers";

interface Position {
  frets: number[];
  baseFret: number;
}
interface Data {
  chords: Record<string, { key: string; suffix: string; positions: Position[] }[]>;
}
const NECKS: [string, Data, Neck][] = [
  ["guitar", guitar as unknown as Data, sure(neckOf(instrumentOf("guitar")))],
  ["ukulele", ukulele as unknown as Data, sure(neckOf(instrumentOf("ukulele")))],
];

test.each(NECKS)(
  "open data: the search finds at least 95 %% of the %s shapes that obey its limits (@tombatossals/chords-db, MIT)",
  (_, data, neck) => {
    let obey = 0;
    let found = 0;
    const searched = new Map<string, Set<string>>();
    for (const group of Object.values(data.chords))
      for (const { positions } of group)
        for (const position of positions) {
          const frets = position.frets.map((f) => {
            if (f < 0) return null;
            if (f === 0) return 0;
            return f + position.baseFret - 1;
          });
          const held = holdShape(neck, frets);
          const sounding = frets.flatMap((f, s) => (f === null ? [] : [nth(neck.strings, s) + f]));
          const within =
            held &&
            held.fingers <= SHAPE_LIMITS.fingers &&
            held.span <= SHAPE_LIMITS.span &&
            held.reach <= SHAPE_LIMITS.reach &&
            held.muted <= SHAPE_LIMITS.muted &&
            Math.max(0, ...frets.map((f) => f ?? 0)) <= Math.min(SHAPE_LIMITS.highest, neck.frets) &&
            sounding.length >= 3;
          if (!within) continue;
          obey++;
          const pcs = [...new Set(sounding.map((m) => m % 12))].sort((a, b) => a - b);
          const id = pcs.join();
          if (!searched.has(id)) searched.set(id, new Set(findShapes(neck, pcs, pcs).map((s) => s.frets.join())));
          if (sure(searched.get(id)).has(frets.join())) found++;
        }
    expect(obey).toBeGreaterThan(1000);
    expect(found / obey).toBeGreaterThanOrEqual(0.95);
  },
);

test("shapes every player knows are held as every player holds them (common practice)", () => {
  const neck = firstOf(NECKS)[2];
  expect(holdShape(neck, [1, 3, 3, 2, 1, 1])).toMatchObject({
    fingers: 4,
    barre: { fret: 1, from: 0, to: 5 },
    span: 2,
  });
  expect(holdShape(neck, [null, 3, 2, 0, 1, 0])).toMatchObject({ fingers: 3, barre: null, muted: 0 });
  // An open string under a barre cannot sound: five fingers would be needed.
  expect(sure(holdShape(neck, [2, 4, 4, 0, 2, 2])).fingers).toBe(5);
  expect(sure(holdShape(neck, [null, 0, null, 2, null, 2])).muted).toBe(2);
  const c = findShapes(neck, [0, 4, 7], [0, 4, 7]);
  expect(c.map((s) => s.frets.map((f) => f ?? "x").join(""))).toEqual(expect.arrayContaining(["x32010", "x35553"]));
  expect(c.every((s) => s.pitches.every((p) => [0, 4, 7].includes(p % 12)) && s.reach <= SHAPE_LIMITS.reach)).toBe(
    true,
  );
  expect(sure(shapeOf(neck, ["E2", "B2", "E3", "G#3", "B3", "E4"].map(pitchMidi))).frets).toEqual([0, 2, 2, 1, 0, 0]);
  expect(shapeOf(neck, ["C4", "C#4", "D4"].map(pitchMidi))).toBeNull();
});

test("a shape keeps every limit of the hand, and is found where it just keeps it", () => {
  const neck = firstOf(NECKS)[2];
  const free = { ...SHAPE_LIMITS, fingers: 9, muted: 9, reach: 99, span: 99, highest: 22 };
  for (const pitches of [
    ["C3", "E3", "G3", "C4", "E4"],
    ["F2", "C3", "F3", "A3", "C4", "F4"],
    ["G2", "B3", "D4", "G4"],
  ])
    for (const limit of ["fingers", "muted", "reach", "span"] as const) {
      const midis = pitches.map(pitchMidi);
      const easiest = sure(shapeOf(neck, midis, free));
      expect(shapeOf(neck, midis, { ...free, [limit]: easiest[limit] })?.frets).toEqual(easiest.frets);
      const tighter = shapeOf(neck, midis, { ...free, [limit]: easiest[limit] - 1 });
      expect(tighter?.[limit] ?? -1).toBeLessThan(easiest[limit]);
    }
});

test("a guitar part is made of shapes, position changes count, and the capo that eases the song is found", () => {
  const [path] = must(voicedProgressions({ chords: ["C", "Am", "F", "G7"], instrument: "guitar", loop: true }));
  expect(sure(path).shapes).toHaveLength(4);
  sure(path).voicings.forEach((v, i) => expect(v.map(pitchMidi)).toEqual(nth(sure(sure(path).shapes), i).pitches));
  // In E flat a capo on the first fret gives the shapes of D, on the third those of C: both have one barre.
  const song = edit(songWith({ key: "Eb major", line: "| Eb | Cm | Ab | Bb7 |" }), {
    do: "setPart",
    part: "keys",
    instrument: "guitar",
  });
  const capos = must(chooseCapo(song, "keys", 5));
  expect(
    capos
      .slice(0, 2)
      .map((c) => [c.capo, c.keyOfShapes, c.barres])
      .sort(),
  ).toEqual([
    [1, "D major", 1],
    [3, "C major", 1],
  ]);
  expect(firstOf(capos).strain).toBeLessThan(sure(capos.find((c) => c.capo === 0)).strain);
  const free = must(voiceSection(song, "s1", "keys"));
  const still = must(
    voiceSection(edit(song, { do: "setPlaying", part: "keys", voicing: { weights: { hand: 3 } } }), "s1", "keys"),
  );
  expect(sure(still.terms.hand) / 3).toBeLessThanOrEqual(sure(free.terms.hand) + 1e-9);
  // Another tuning is searched as it is.
  const open = must(
    voiceSection(
      edit(song, { do: "setPlaying", part: "keys", voicing: { tuning: ["D2", "A2", "D3", "F#3", "A3", "D4"] } }),
      "s1",
      "keys",
    ),
  );
  for (const { shape } of open.chords) expect(sure(shape).frets).toHaveLength(6);
});

test("tablature: a scale stays in one position, chords keep a string for each note, what is off the neck is left out", () => {
  const neck = firstOf(NECKS)[2];
  const scale = ["A3", "B3", "C#4", "D4", "E4", "F#4", "G#4", "A4"].map((p) => [pitchMidi(p)]);
  const places = tabOf(neck, scale);
  places.forEach((p, i) =>
    expect(nth(neck.strings, firstOf(sure(p)).string) + firstOf(sure(p)).fret).toBe(nth(scale, i)[0]),
  );
  const fretted = places.flatMap((p) => sure(p).map((x) => x.fret)).filter((f) => f > 0);
  expect(Math.max(...fretted) - Math.min(...fretted)).toBeLessThanOrEqual(5);
  const [chord, gone] = tabOf(neck, [["C3", "E3", "G3", "C4"].map(pitchMidi), [20]]);
  expect(new Set(sure(chord).map((p) => p.string)).size).toBe(4);
  expect(gone).toBeNull();
});

test("two hands: the easiest sharing, stretches named, six notes never under one hand", () => {
  const of = (...names: string[]) => names.map(pitchMidi);
  expect(twoHands(of("C4", "E4", "G4", "B4"))).toMatchObject({
    left: { fingers: 0 },
    right: { fingers: 4, span: 11 },
    stretch: "none",
  });
  expect(twoHands(of("C2", "C3", "E4", "G4", "C5"))).toMatchObject({
    left: { span: 12 },
    right: { span: 8 },
    stretch: "none",
  });
  expect(twoHands(of("C3", "E4"), 16, 1)).toMatchObject({ right: { span: 16 }, stretch: "far" });
  expect(twoHands(of("C3", "E4"), 14, 1)).toBeNull();
  expect(twoHands(of("C4", "D4", "E4", "F4", "G4", "A4"), 14, 1)).toBeNull();
  expect(handStrain(of("C3", "D4"), 14, 1)).toBeCloseTo(1);
  expect(handStrain(of("C3", "E4"), 14, 1)).toBe(Infinity);
});
