import { firstOf, nth, sure } from "../../src/base/list";
import { applyEdit } from "../../src/song/edits";
import { BASS_STYLES } from "../../src/write/bass/styles";
import { bassRequest, bassLines, type BassLine } from "../../src/write/bass/write";
import { bassPc } from "../../src/theory/chord/chord";
import { DRUM_PATTERNS, patternLanes } from "../../src/arrange/groove/patterns";
import { mod, pitchMidi } from "../../src/theory/pitch/pitch";
import { must } from "../../src/base/result";
import { parseChord } from "../../src/theory/chord/parse";
import { parseMeter } from "../../src/theory/time/meter";
import { realize } from "../../src/song/realize";
import { reportBass } from "../../src/write/bass/write";
import { bassSettings } from "../../src/write/bass/write";
import type { BassSettings } from "../../src/write/bass/settings";
import { factsOf } from "../../src/facts/memory";
import type { Song } from "../../src/song/schema/song";
import { demoSongs } from "../demos";
import { edit, songWith } from "../helpers";

const at = { section: "s1", part: "bass" };
const groove = nth(demoSongs(), 1);
const BEATS: [number, number][] = [0, 4, 8, 12].map((b) => [b, 100]);
const plain = songWith({ key: "C major", line: "| C | Am | Dm7 | G7 |", kicks: BEATS });
const write = (song: Song, style: string, settings: Partial<BassSettings> = {}, seed = 1): BassLine[] =>
  must(bassLines(song, { ...at, style, seed, settings }));
const starts = (line: BassLine) => line.notes.map((n) => n.start);
const midis = (line: BassLine) => line.notes.map((n) => pitchMidi(n.pitch));
const patterned = (song: Song, pattern: string, bars = 4, meter = "4/4") =>
  edit(song, {
    do: "setDrums",
    section: "s1",
    lanes: patternLanes(sure(DRUM_PATTERNS.find((p) => p.id === pattern)), must(parseMeter(meter)), bars),
  });

describe("styles do what they are called after", () => {
  test("driving eighths: nearly every half-beat, on the written bass", () => {
    const [line] = write(plain, "driving-eighths");
    expect(starts(sure(line)).filter((s) => s % 240 === 0).length).toBeGreaterThan(25);
    const real = realize(plain, { section: "s1" });
    const onBass = sure(line).notes.filter((n) => {
      const chord = sure(real.chords.find((c) => c.start <= n.start && n.start < c.start + c.duration));
      return mod(pitchMidi(n.pitch), 12) === bassPc(sure(chord.chord));
    });
    expect(onBass.length / sure(line).notes.length).toBeGreaterThan(0.7);
  });
  test("walking: a note on every beat, and into every new chord by step or by fifth", () => {
    for (const line of write(plain, "walking")) {
      const beats = new Set(starts(line).filter((s) => s % 480 === 0));
      expect(beats.size).toBe(16);
      line.notes.forEach((n, i) => {
        const next = line.notes[i + 1];
        if (!next || next.start % 1920 !== 0) return;
        const distance = Math.abs(pitchMidi(next.pitch) - pitchMidi(n.pitch));
        expect([line.title, next.start, distance <= 2 || distance === 5 || distance === 7]).toEqual([
          line.title,
          next.start,
          true,
        ]);
      });
    }
  });
  test("scale walk and step by inversion move by step; leaps name where no step is possible", () => {
    for (const style of ["scale-walk", "slash-bass"])
      for (const line of write(plain, style))
        if (sure(line.report.stepwise) < 0.5) expect(line.conflicts.map((c) => c.code)).toContain("leaps");
    const [line] = write(songWith({ line: "| C | G | Am | Em | F | C | Dm7 | G |", kicks: [[0, 100]] }), "slash-bass");
    expect(sure(line).report.stepwise).toBeGreaterThan(0.6);
    // The slash chords it asks for are chords, over the note it plays.
    expect(sure(line).slashes.length).toBeGreaterThan(1);
    for (const s of sure(line).slashes) expect(must(parseChord(s.symbol)).bass).toBeDefined();
  });
  test("pedal: one pitch class under all chords, each a line of its own; other chords are heard and named", () => {
    const lines = write(plain, "pedal");
    for (const line of lines) expect(new Set(midis(line).map((m) => mod(m, 12))).size).toBe(1);
    expect(new Set(lines.map((l) => mod(firstOf(midis(l)), 12)))).toEqual(new Set([0, 7]));
    const taken = edit(plain, { do: "setNotes", ...at, notes: firstOf(lines).notes });
    const report = must(reportBass(taken, at));
    expect(report.sounding.length).toBeGreaterThan(0);
    expect(report.longestOutside).toBe(0);
  });
  test("bossa-type: the root on the first beat, the fifth in the middle", () => {
    const [line] = write(songWith({ line: "| C | C | F | F |", kicks: [] }), "bossa");
    const pcAt = (tick: number) => mod(pitchMidi(sure(sure(line).notes.find((n) => n.start === tick)).pitch), 12);
    expect([0, 960, 3840, 4800].map(pcAt)).toEqual([0, 7, 5, 0]);
  });
  test("stab and bounce: short, with silence, and octaves between the beats", () => {
    const [line] = write(plain, "stab-bounce");
    expect(Math.max(...sure(line).notes.map((n) => n.duration))).toBeLessThanOrEqual(240);
    expect(sure(line).report.silence).toBeGreaterThan(0.3);
    expect(sure(line).notes.some((n, i) => i > 0 && pitchMidi(n.pitch) - nth(midis(sure(line)), i - 1) === 12)).toBe(
      true,
    );
  });
  test("arpeggio: chord tones of three kinds; root-fifth-octave: hardly anything but roots and fifths", () => {
    const tones = (style: string) => {
      const taken = edit(plain, { do: "setNotes", ...at, notes: firstOf(write(plain, style)).notes });
      const { overMajor: a, overMinor: b } = must(reportBass(taken, at));
      return { root: a.root + b.root, third: a.third + b.third, fifth: a.fifth + b.fifth };
    };
    const arp = tones("arpeggio");
    expect(Math.min(arp.root, arp.third, arp.fifth)).toBeGreaterThan(1);
    const rfo = tones("root-fifth-octave");
    expect(rfo.third).toBeLessThan((rfo.root + rfo.fifth) / 4);
  });
  test("weave: sounds with the other player's accents as well as with the kick", () => {
    let song = songWith({
      line: "| C | F |",
      kicks: [
        [0, 110],
        [4, 110],
      ],
    });
    for (const beat of [1.5, 2.5, 5.5, 6.5])
      song = edit(song, { do: "setHit", section: "s1", drum: "rim", start: beat * 480, velocity: 110 });
    const [line] = write(song, "weave");
    expect(starts(sure(line))).toEqual(expect.arrayContaining([0, 720, 1200, 1920]));
    expect(sure(line).reasons.map((r) => sure(r).id)).toContain("weave");
  });
});

describe("settings", () => {
  const groovy = patterned(songWith({ key: "C minor", line: "| Cm7 | Abmaj7 | Fm7 | G7 |" }), "boom-bap");
  test("more density never takes notes away", () => {
    for (const style of BASS_STYLES) {
      const counts = [0, 0.25, 0.5, 0.75, 1].map(
        (density) => firstOf(write(groovy, style.id, { density, ending: false })).notes.length,
      );
      expect([style.id, ...counts]).toEqual([style.id, ...[...counts].sort((a, b) => a - b)]);
    }
  });
  test("lock: new chords only, main accents, or every kick", () => {
    const song = songWith({
      line: "| C | F |",
      kicks: [
        [0, 100],
        [1.5, 70],
        [2, 100],
        [4, 100],
        [5.5, 70],
        [6, 100],
      ],
    });
    const kicks = sure(firstOf(song.sections).groove.lanes.find((l) => l.drum === "kick")).hits.map((h) => h.start);
    const met = (lock: BassSettings["lock"]) => {
      const [line] = write(song, "root-anchored", { lock, density: 0, ending: false });
      return kicks.filter((k) => starts(sure(line)).includes(k)).length;
    };
    expect(met("every")).toBe(kicks.length);
    expect(met("main")).toBeLessThan(kicks.length);
    expect(met("chords")).toBeLessThan(met("main"));
  });
  test("gate, rests, range, octaves and the number of pitches are kept", () => {
    for (const style of ["kick-locked", "root-fifth-octave", "arpeggio"]) {
      const [cut] = write(groovy, style, { gate: "cut" });
      expect([style, sure(cut).report.backbeatsFree]).toEqual([style, sure(cut).report.backbeats]);
      const [rests] = write(groovy, style, { rests: true, lock: "chords", ending: false });
      for (const end of [3840, 7680])
        expect([style, sure(rests).notes.some((n) => n.start < end && n.start + n.duration > end - 480)]).toEqual([
          style,
          false,
        ]);
      const [narrow] = write(groovy, style, { low: "G1", high: "F#2", octaves: "none" });
      expect(Math.min(...midis(sure(narrow)))).toBeGreaterThanOrEqual(31);
      expect(Math.max(...midis(sure(narrow)))).toBeLessThanOrEqual(42);
      const [few] = write(groovy, style, { pitches: 1 });
      expect([style, sure(few).report.pitchClasses]).toEqual([style, 1]);
    }
    expect(bassLines(groovy, { ...at, settings: { low: "C2", high: "G2" } })).toMatchObject({
      ok: false,
      error: { code: "bass.range" },
    });
  });
  test("color over minor chords follows the preference", () => {
    const minor = songWith({ key: "A minor", line: "| Am | Am | Dm | Dm |", kicks: BEATS });
    const thirds = (overMinor: BassSettings["overMinor"]) =>
      firstOf(write(minor, "arpeggio", { overMinor, density: 1 })).report.overMinor;
    expect(thirds("third").third).toBeGreaterThanOrEqual(thirds("fifth").third);
    expect(
      firstOf(write(minor, "kick-locked", { overMinor: "third", density: 1, octaves: "none" })).report.overMinor.third,
    ).toBeGreaterThanOrEqual(
      firstOf(write(minor, "kick-locked", { overMinor: "fifth", density: 1, octaves: "none" })).report.overMinor.third,
    );
  });
  test("what is set for a section counts there alone, and a value that is none is refused", () => {
    const song = edit(
      plain,
      { do: "setPlaying", part: "bass", bass: { density: 0.2 } },
      { do: "setPlaying", part: "bass", section: "s1", bass: { density: 0.9, style: "walking" } },
    );
    expect(applyEdit(song, { do: "setPlaying", part: "bass", bass: { gate: "sideways" as "cut" } }).ok).toBe(false);
    const part = sure(song.parts.find((p) => p.id === "bass"));
    const here = bassSettings(part, song.sections[0]);
    expect([here.density, bassSettings(part, undefined).density, here.gate]).toEqual([0.9, 0.2, "ring"]);
    expect(must(bassRequest(factsOf(song), at)).style.id).toBe("walking");
    // A copy of the section is played as it is.
    const copied = edit(song, { do: "addSection", name: "Again", bars: 4, copyOf: "s1" });
    expect(must(bassRequest(factsOf(copied), { section: nth(copied.sections, 1).id, part: "bass" })).style.id).toBe(
      "walking",
    );
  });
  test("a figure of its own differs from the one of the other section", () => {
    let song = edit(groovy, { do: "addSection", name: "Chorus", bars: 4, copyOf: "s1" });
    const other = nth(song.sections, 1).id;
    song = edit(song, {
      do: "setNotes",
      section: other,
      part: "bass",
      notes: firstOf(write(song, "kick-locked")).notes.map(({ id: _, ...n }) => n),
    });
    const share = (ownFigure: boolean) =>
      firstOf(firstOf(write(song, "kick-locked", { ownFigure })).report.likeness).share;
    expect(share(false)).toBeGreaterThan(0.95);
    expect(share(true)).toBeLessThan(share(false));
  });
});

describe("against a tune", () => {
  // The tune moves in the first half of every bar and holds in the second.
  const tune = [0, 4, 8, 12].flatMap((b) => [
    `${b} E4 0.5`,
    `${b + 0.5} F4 0.5`,
    `${b + 1} G4 0.5`,
    `${b + 1.5} A4 2.5`,
  ]);
  const song = songWith({ line: "| C | Am | F | G |", kicks: BEATS, melody: tune });
  test("the line moves in the gaps more than it would without listening, and stays out of the tune's octave", () => {
    for (const style of ["kick-locked", "root-fifth-octave", "arpeggio"]) {
      const [with_, without] = [true, false].map((melody) => sure(firstOf(write(song, style, { melody })).report.tune));
      expect([style, sure(with_).under <= sure(without).under, sure(with_).close]).toEqual([style, true, 0]);
      expect([style, sure(with_).inGaps >= sure(with_).under]).toEqual([style, true]);
    }
  });
  test("a low tune is reported as what keeps the bass from staying an octave below", () => {
    const low = songWith({
      line: "| C | G |",
      kicks: [
        [0, 100],
        [4, 100],
      ],
      melody: ["0 E2 4", "4 D2 4"],
    });
    const [line] = write(low, "kick-locked");
    expect(sure(sure(line).report.tune).close).toBeGreaterThan(0);
    expect(sure(line).conflicts.map((c) => c.code)).toContain("tune");
  });
});

test("the same seed gives the same lines; another seed others", () => {
  const notes = (seed: number) => JSON.stringify(write(groove, "kick-locked", {}, seed).map((l) => l.notes));
  expect(notes(1)).toBe(notes(1));
  expect(notes(1)).not.toBe(notes(2));
});

test("pinned notes stay as they are, and what they prevent is named", () => {
  const base = songWith({ line: "| C | N.C. | F | G |", kicks: [...BEATS, [2, 100]] });
  const song = edit(base, {
    do: "setNotes",
    ...at,
    notes: [{ start: 480, duration: 960, pitch: "C#2", velocity: 80, pinned: true }],
  });
  for (const { notes, conflicts } of write(song, "root-fifth-octave")) {
    expect(notes.filter((n) => n.pinned)).toEqual(firstOf(song.sections).notes.bass);
    expect(notes.some((n) => !n.pinned && n.start < 1440 && n.start + n.duration > 480)).toBe(false);
    expect(notes.some((n) => n.start >= 1920 && n.start < 3840)).toBe(false);
    expect(conflicts.map((c) => c.code)).toEqual(expect.arrayContaining(["noChord", "held", "pin"]));
  }
  expect(bassLines(songWith({}), at)).toMatchObject({ ok: false, error: { code: "bass.chords" } });
  expect(bassLines(song, { ...at, style: "polka" })).toMatchObject({ ok: false, error: { code: "bass.style" } });
});

test("glides lead into the next note", () => {
  const [line] = write(songWith({ line: "| C | F | C | G |", kicks: BEATS }), "root-anchored", { slides: "some" });
  const gliding = sure(line).notes.filter((n) => n.slide);
  expect(gliding.length).toBeGreaterThan(0);
  for (const n of gliding)
    expect(sure(sure(line).notes.find((m) => m.start === n.start + n.duration)).pitch).toBe(sure(n.slide).to);
});
