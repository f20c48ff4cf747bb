import { firstOf, nth, sure } from "../../src/base/list";
import { bassLayers } from "../../src/write/bass/layers";
import { drumAsBass } from "../../src/write/bass/fromDrum";
import { layerOffers } from "../../src/write/bass/sharing";
import { buildUp, gates, thinOut } from "../../src/write/bass/shape";
import { impliedChords, impliedRoots } from "../../src/write/bass/implied";
import { mod, pitchMidi } from "../../src/theory/pitch/pitch";
import { must } from "../../src/base/result";
import { realize } from "../../src/song/realize";
import { rootPc } from "../../src/theory/chord/chord";
import { bassLines } from "../../src/write/bass/write";
import type { Song } from "../../src/song/schema/song";
import { GRID, gridSong } from "../../../bench/bassGrid";
import { edit, songWith } from "../helpers";

const at = { section: "s1", part: "bass" };
const notesOf = (song: Song, part = "bass") => firstOf(song.sections).notes[part] ?? [];
const written = (song: Song, style: string): Song =>
  edit(song, { do: "setNotes", ...at, notes: firstOf(must(bassLines(song, { ...at, style }))).notes });
const grooves: [number, number][] = [
  [0, 100],
  [1.5, 80],
  [4, 100],
  [5.5, 80],
  [8, 100],
  [12, 100],
];
const base = songWith({ key: "A minor", line: "| Am | Dm | G | C |", kicks: grooves });

describe("thin out and build up", () => {
  test("a note without a reason goes first, what must sound stays to the last, pinned notes stay for good", () => {
    let song = edit(written(base, "root-fifth-octave"), {
      do: "addNote",
      ...at,
      note: { start: 2520, duration: 60, pitch: "Bb4", velocity: 80 },
    });
    const pinned = sure(notesOf(song).find((n) => n.start % 1920 !== 0 && n.start !== 2520));
    song = edit(song, { do: "changeNotes", ...at, notes: [{ id: pinned.id, pinned: true }] });
    const first = must(thinOut(song, at));
    expect([first.tick, first.reason]).toEqual([2520, null]);
    let steps = 0;
    for (;;) {
      const step = thinOut(song, at);
      if (!step.ok) break;
      const before = notesOf(song).length;
      song = edit(song, step.value.edit);
      expect(notesOf(song)).toHaveLength(before - 1);
      expect(++steps).toBeLessThan(60);
    }
    expect(notesOf(song).map((n) => n.id)).toContain(pinned.id);
    // Left are the chords' beginnings, the main accents, and the pin.
    expect(
      notesOf(song)
        .filter((n) => !n.pinned)
        .every((n) => n.start % 1920 === 0),
    ).toBe(true);
  });
  test(
    "building from nothing states chords and accents first, then the rest, each with a reason and in the chord " +
      "or led on",
    () => {
      let song = base;
      const places: number[] = [];
      for (let i = 0; i < 12; i++) {
        const step = must(buildUp(song, { ...at, style: "kick-locked" }));
        expect(step.reason).not.toBeNull();
        places.push(step.tick);
        song = edit(song, step.edit);
        const list = notesOf(song);
        list.forEach((n, k) => expect(list[k + 1] ? n.start + n.duration <= nth(list, k + 1).start : true).toBe(true));
      }
      expect(places.slice(0, 4).sort((a, b) => a - b)).toEqual([0, 1920, 3840, 5760]);
      expect(places.slice(4, 6).sort((a, b) => a - b)).toEqual([720, 2640]);
    },
  );
  test("states are kept once, come back note for note, and go with their part", () => {
    let song = written(base, "kick-locked");
    const before = notesOf(song);
    song = edit(song, { do: "keepTake", ...at, name: "first" }, { do: "keepTake", ...at, name: "again" });
    expect(song.takes.map((t) => t.name)).toEqual(["first"]);
    song = edit(song, must(thinOut(song, at)).edit, { do: "keepTake", ...at, name: "thinner" });
    song = edit(song, { do: "setNotes", ...at, notes: sure(sure(firstOf(song.takes).notes).bass) });
    expect(notesOf(song)).toEqual(before);
    for (let i = 0; i < 40; i++)
      song = edit(
        song,
        { do: "changeNotes", ...at, notes: [{ id: firstOf(before).id, velocity: 1 + i }] },
        { do: "keepTake", ...at, name: `v${i}` },
      );
    // The first, the thinner one, and forty more: none is dropped unasked.
    expect(song.takes).toHaveLength(42);
    expect(edit(song, { do: "removePart", part: "bass" }).takes).toEqual([]);
  });
  test("lengths: cut, ring, short and breathing do what they say, and say what they do", () => {
    let song = written(base, "driving-eighths");
    for (const bar of [0, 1, 2, 3])
      for (const beat of [1, 3])
        song = edit(song, { do: "setHit", section: "s1", drum: "snare", start: bar * 1920 + beat * 480, velocity: 90 });
    song = edit(song, sure(must(gates(song, at)).gates.find((g) => g.id === "ring")).edit);
    const { now, gates: list } = must(gates(song, at));
    const by = Object.fromEntries(list.map((g) => [g.id, g]));
    expect(now.silence).toBeLessThan(0.02);
    expect(sure(by.ring).changed).toBe(0);
    expect(sure(by.cut).effect.backbeatsFree).toBe(8);
    expect(sure(by.short).effect.silence).toBeGreaterThan(0.4);
    const breathing = edit(song, sure(by.breath).edit);
    for (const end of [3840, 7680])
      expect(
        notesOf(breathing).filter(
          (n) => n.start + n.duration > end - 480 && n.start < end && n.reason?.id !== "rootOnKick",
        ),
      ).toEqual([]);
  });
});

describe("bass first", () => {
  test("the roots a root-anchored line implies are those of the chords it was written for", () => {
    const cases = GRID.filter((c) => c.style === "root-anchored" && c.meter === "4/4" && c.kick === "half-time");
    let [right, all] = [0, 0];
    for (const c of cases) {
      const song = written(gridSong(c), "root-anchored");
      const chords = realize(song, { section: "s1" }).chords;
      const bare = edit(song, { do: "setChords", section: "s1", from: 0, to: 7680, chords: [] });
      const roots = must(impliedRoots(bare, "s1", "bass"));
      for (let t = 0; t < 7680; t += 240) {
        const chord = sure(chords.find((x) => x.start <= t && t < x.start + x.duration));
        const found = sure(roots.find((x) => x.start <= t && t < x.start + x.duration));
        all++;
        // A slash chord sounds its bass: that is what a bass alone can tell.
        if (
          found.root === rootPc(sure(chord.chord)) ||
          (sure(chord.chord).bass && found.root === mod(pitchMidi(`${sure(chord.chord).bass}3`), 12))
        )
          right++;
      }
    }
    expect(right / all).toBeGreaterThan(0.9);
  });
  test("an arpeggio tells root, third and quality; the key tells what the line leaves open", () => {
    const song = songWith({
      key: "C major",
      bass: [
        "0 A1 1",
        "1 C2 1",
        "2 E2 1",
        "3 C2 1",
        "4 D2 1",
        "5 F#2 1",
        "6 A2 1",
        "7 C3 1",
        "8 G1 2",
        "10 D2 2",
        "12 C2 4",
      ],
    });
    const roots = must(impliedRoots(song, "s1", "bass"));
    expect(roots.map((r) => r.symbol).slice(0, 4)).toEqual(["Am", "D7", "G", "C"]);
    expect(firstOf(roots).reason).toMatch(/its third 50 % .*its root 25 %/);
    const applied = edit(song, { do: "setChords", section: "s1", from: 0, to: 15360, chords: impliedChords(roots) });
    expect(
      firstOf(applied.sections)
        .chords.slice(0, 4)
        .map((c) => c.symbol),
    ).toEqual(["Am", "D7", "G", "C"]);
    expect(impliedRoots(songWith({}), "s1", "bass")).toMatchObject({ ok: false, error: { code: "bass.empty" } });
  });
});

describe("layers", () => {
  const two = edit(written(base, "root-fifth-octave"), {
    do: "addPart",
    name: "Sub",
    role: "bass",
    instrument: "bassGuitar5",
  });
  const sub = sure(two.parts.find((p) => p.name === "Sub")).id;
  test("every offer gives what it is called: turns never meet, one voice agrees note for note", () => {
    const offers = must(layerOffers(two, "s1", "bass", sub));
    expect(offers.map((o) => o.id)).toEqual(expect.arrayContaining(["turns-figure", "turns-roots", "voice"]));
    const total = notesOf(two).length;
    for (const o of offers) {
      const song = edit(two, o.edit);
      const { kind, problems } = must(bassLayers(song, "s1"));
      expect([o.id, kind, problems]).toEqual([o.id, o.id.startsWith("turns") ? "turns" : "voice", []]);
      const [a, b] = [notesOf(song).length, notesOf(song, sub).length];
      expect([o.id, o.id.startsWith("turns") ? a + b : Math.min(a, b)]).toEqual([o.id, total]);
    }
    expect(layerOffers(base, "s1", "bass", "bass")).toMatchObject({ ok: false });
  });
  test("the first bass stays the first when another joins", () => {
    expect(two.parts.filter((p) => p.role === "bass").map((p) => p.id)).toEqual(["bass", sub]);
  });
  test("a tuned drum follows the line: its pitch at every hit, and no tail into the next", () => {
    const song = edit(base, {
      do: "setNotes",
      ...at,
      notes: sure(firstOf(written(base, "root-anchored").sections).notes.bass),
    });
    for (const rhythm of ["drum", "line"] as const) {
      const tuned = edit(
        song,
        must(drumAsBass(song, "s1", "bass", { drum: "kick", how: { rhythm, glides: true, instead: true } })),
      );
      const hits = realize(tuned, { section: "s1" }).hits.filter((h) => h.drum === "kick");
      expect(hits).toHaveLength(rhythm === "line" ? notesOf(song).length : grooves.length);
      hits.forEach((h, i) => {
        const under = notesOf(song).find((n) => n.start <= h.start && h.start < n.start + n.duration);
        if (under) expect(h.midi).toBe(pitchMidi(under.pitch));
        expect(h.start + sure(h.duration)).toBeLessThan(hits[i + 1]?.start ?? 7681);
      });
      // Alone it is the one bass; the check that asks for a bass on the kick is silent.
      expect(must(bassLayers(tuned, "s1"))).toMatchObject({ kind: "alone", problems: [] });
    }
    expect(
      drumAsBass(song, "s1", "bass", { drum: "snare", how: { rhythm: "line", glides: false, instead: false } }),
    ).toMatchObject({
      ok: false,
      error: { code: "bass.drum" },
    });
  });
});
