import { Bass, Chord, Key, must, type RealizedChord, Song } from "../../core/src/index";
import { laneRange, lyricLines, setAside, snapPitch, snapTick, stepPitch } from "../score/geometry";
import { schedule } from "../app/audio/events";
import { edit, songWith } from "../../core/test/helpers";

const chord: RealizedChord = {
  id: "c",
  pass: "o",
  start: 0,
  duration: 1920,
  symbol: "Cm7",
  chord: must(Chord.parse("Cm7")),
};
const key = must(Key.parse("Eb major"));

test("note heads that would overlap are set aside, in turn; others stay", () => {
  expect(
    setAside(
      [
        { start: 0, y: 50 },
        { start: 0, y: 44 },
        { start: 0, y: 35 },
        { start: 480, y: 44 },
      ],
      14,
    ),
  ).toEqual([0, 1, 0, 0]);
  expect(
    setAside(
      [
        { start: 0, y: 50 },
        { start: 0, y: 48 },
        { start: 0, y: 46 },
      ],
      14,
    ),
  ).toEqual([0, 1, 2]);
  expect(
    setAside(
      [
        { start: 0, y: 50 },
        { start: 0, y: 20 },
      ],
      14,
    ),
  ).toEqual([0, 0]);
});

test("words that would touch go to the other line", () => {
  expect(
    lyricLines([
      { x: 0, text: "Hang" },
      { x: 20, text: "a" },
      { x: 40, text: "light" },
    ]),
  ).toEqual([0, 1, 0]);
});

test("snapping by chord tone, scale and semitone", () => {
  expect([
    snapPitch(49.4, "chord", chord, key),
    snapPitch(49.4, "scale", chord, key),
    snapPitch(49.4, "semitone", chord, key),
  ]).toEqual([48, 50, 49]);
  expect([
    stepPitch(48, 1, "chord", { chord, key }),
    stepPitch(48, -1, "scale", { chord, key }),
    stepPitch(48, 1, "semitone", { chord, key }),
  ]).toEqual([51, 46, 49]);
  expect(snapPitch(49.4, "chord", null, key)).toBe(50);
  expect(snapTick(330, 240)).toBe(240);
  expect(laneRange([40, 42], [28, 46], 17)).toEqual([33, 50]);
});

test(
  "what sounds: swing, offsets, count-in, click, solo, mute, a stretch in the middle, a pickup only where there " +
    "is room",
  () => {
    let song = songWith({
      line: "| C | F |",
      kicks: [[0.5, 100]],
      bass: ["0 C2 1", "0.5 G2 0.5", "4 F2 4"],
      melody: ["-1 G4 1", "0 C5 2"],
    });
    song = edit(song, { do: "setTempo", tempo: 120 }, { do: "setSwing", ratio: 2 / 3, unit: 8 });
    const real = Song.realize(song, { section: "s1" });
    const starts = (options: Parameters<typeof schedule>[1], part: string) =>
      schedule(real, options)
        .events.filter((e) => e.kind !== "click" && e.part === part)
        .map((e) => Number(e.time.toFixed(4)));
    expect(starts({}, "bass")).toEqual([0, 0.3333, 2]);
    expect(starts({}, "drums")).toEqual([0.3333]);
    expect(starts({}, "melody")).toEqual([0]);
    expect(starts({ countIn: true }, "melody")).toEqual([1.5, 2]);
    expect(schedule(real, { countIn: true }).events.filter((e) => e.kind === "click")).toHaveLength(4);
    expect(schedule(real, { click: true }).events.filter((e) => e.kind === "click")).toHaveLength(8);
    expect(schedule(real, { solo: ["bass"] }).events).toHaveLength(3);
    expect(starts({ from: 960, to: 3840 }, "bass")).toEqual([1]);
    expect(starts({ from: 2400, to: 3840 }, "bass")).toEqual([0]);
    const muted = Song.realize(edit(song, { do: "setPart", part: "bass", muted: true }), { section: "s1" });
    expect(schedule(muted).events.some((e) => e.kind === "note" && e.part === "bass")).toBe(false);
    expect(schedule(Song.realize(must(Song.create({ title: "empty" })), {})).events).toEqual([]);
  },
);

test("one drum alone beside a part, and a tuned drum with its tail and its slide", () => {
  let song = songWith({
    line: "| C | F |",
    kicks: [
      [0, 100],
      [2, 90],
    ],
    bass: ["0 C2 2", "2 F1 2"],
  });
  song = edit(
    song,
    { do: "setTempo", tempo: 120 },
    { do: "setHit", section: "s1", drum: "snare", start: 480, velocity: 90 },
  );
  const solo = (ids: string[]) =>
    schedule(Song.realize(song, { section: "s1" }), { solo: ids }).events.map((e) =>
      e.kind === "drum" ? e.drum : e.kind,
    );
  expect(solo(["bass", "drum:kick"]).sort()).toEqual(["kick", "kick", "note", "note"]);
  expect(solo(["drum:snare"])).toEqual(["snare"]);
  // Muted drums are heard when they are asked for by name.
  song = edit(song, { do: "setPart", part: "drums", muted: true });
  expect(solo(["drum:kick"])).toEqual(["kick", "kick"]);
  song = edit(
    song,
    must(Bass.fromDrum(song, "s1", "bass", { drum: "kick", how: { rhythm: "drum", glides: true, instead: false } })),
    {
      do: "setPart",
      part: "drums",
      muted: false,
    },
  );
  const [first, second] = schedule(Song.realize(song, { section: "s1" })).events.filter(
    (e) => e.kind === "drum" && e.drum === "kick",
  );
  // Two beats at 120 less fifteen ticks.
  expect(first).toMatchObject({ midi: 36, glideTo: 29 });
  expect((first as { duration: number }).duration).toBeCloseTo(945 / 960);
  expect(second).toMatchObject({ midi: 29 });
  expect(second).not.toHaveProperty("glideTo");
});
