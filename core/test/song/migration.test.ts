import { firstOf, nth, sure } from "../../src/base/list";
import { createHash } from "node:crypto";
import { readFileSync } from "node:fs";
import path from "node:path";
import { bassSettings, bassStyleOf, usualFor } from "../../src/write/bass/write";
import { checkSong } from "../../src/judge/check/check";
import { EDITS } from "../../src/song/edits/list";
import { must } from "../../src/base/result";
import { parseSong, partOf, sectionOf } from "../../src/song/document";
import { voiceSection } from "../../src/arrange/voicing/section";
import { writeMidi } from "../../src/files/midi";
import { goldenSong, textOf, VERSION1 } from "../fixtures";
import { edit } from "../helpers";

/**
 * What version 0.1.0 of the application made of each file: MIDI bytes, findings with their waivers, settings of the
 * bass, layouts.
 */
interface Expected {
  midi: { straight: string; played: string };
  findings: [rule: string, section: string, tick: number, severity: string, waived: string | null][];
  bass: Record<string, Record<string, unknown>>;
  voicings: Record<string, string[]>;
}
const EXPECTED = JSON.parse(
  readFileSync(path.join(__dirname, "../fixtures", "version1.expected.json"), "utf8"),
) as Record<string, Expected>;

const sha = (bytes: Uint8Array): string => createHash("sha1").update(bytes).digest("hex");

describe.each(VERSION1)("%s, a file of version 1", (name) => {
  const song = goldenSong(name);
  const expected = sure(EXPECTED[name]);
  test("becomes a song of version 2 that reads back as it is", () => {
    expect(song.version).toBe(2);
    expect(must(parseSong(JSON.stringify(song)))).toEqual(song);
  });
  test("sounds the same to the byte, straight and played", () => {
    expect([sha(writeMidi(song, { swing: "straight" })), sha(writeMidi(song, { swing: "played" }))]).toEqual([
      expected.midi.straight,
      expected.midi.played,
    ]);
  });
  test("is judged the same, and what was let stand stands for the same reason", () => {
    // By the rules of that time, place by place: which places make one finding, and in which order, is another matter.
    const known = new Set(VERSION1.flatMap((n) => sure(EXPECTED[n]).findings.map(([rule]) => rule)));
    const found = checkSong(song).flatMap((f) =>
      known.has(f.rule) ? f.places.map((p) => [f.rule, f.where.section, p.tick, f.severity, f.waived ?? null]) : [],
    );
    const inOrder = (list: readonly unknown[]) => list.map((x) => JSON.stringify(x)).sort();
    expect(inOrder(found)).toEqual(inOrder(expected.findings));
  });
  test("its bass and its layouts are written as they were", () => {
    for (const [place, values] of Object.entries(expected.bass)) {
      const [part, section] = place.split(" ").map((id, i) => (i ? sectionOf(song, id) : partOf(song, id))) as [
        ReturnType<typeof partOf>,
        ReturnType<typeof sectionOf>,
      ];
      const style = bassStyleOf(sure(part), section);
      // Whether the last bar ends differently has another name now.
      const { turn: ending, ...rest } = values;
      expect([place, { style: style.id, ...bassSettings(sure(part), section, usualFor(style)) }]).toEqual([
        place,
        { ...rest, ending },
      ]);
    }
    for (const [place, chords] of Object.entries(expected.voicings)) {
      const [part, section] = place.split(" ");
      // Each section by itself, as it was laid out when a form led nowhere.
      const alone = { ...song, form: song.form.filter((p) => p.sectionId === section).slice(0, 1) };
      expect([
        place,
        must(voiceSection(alone, sure(section), sure(part))).chords.map((c) => c.pitches.join(" ")),
      ]).toEqual([place, chords]);
    }
  });
  test("every text, number and name of the file is still in the song", () => {
    const values = (x: unknown): string[] =>
      typeof x === "object" && x !== null ? Object.values(x).flatMap(values) : [String(x)];
    const kept = new Set([...values(song), ...JSON.stringify(song).split(/["\s]/)]);
    const before = JSON.parse(textOf(name)) as { waivers: unknown; version: unknown };
    // A waiver says the same by other means, which the findings above show; a check mark for slides became a word, a
    // "turn" an "ending".
    const lost = values({ ...before, waivers: [], version: 2 }).filter(
      (v) => !kept.has(v) && !/^(true|false|turn)$/.test(v) && !v.includes(" "),
    );
    expect(lost).toEqual([]);
  });
});

test("settings are sorted by the way of playing they belong to; what has no name any more is kept apart", () => {
  const song = goldenSong("every-setting");
  const named = (name: string) => sure(song.parts.find((p) => p.name === name));
  const chorus = nth(song.sections, 1);
  expect(named("Bass").playing).toEqual({
    bass: expect.objectContaining({
      style: "walking",
      density: 0.7,
      slides: "many",
      low: "F1",
      melody: false,
      ending: false,
    }),
  });
  expect(chorus.playing).toEqual({ bass: { bass: { style: "bossa", density: 0.2, low: "E1" } } });
  expect(named("Piano")).toMatchObject({
    playing: {
      voicing: {
        style: "rootless",
        hands: 1,
        span: 12,
        topShape: "rising",
        weights: { motion: 2, hand: 0.5 },
        school: "chorale",
      },
      comp: { rhythm: "offbeats", follow: "snare", gate: 60, strumWay: "down", slope: -2, seed: 4 },
    },
    unread: { "w.later": 3 },
  });
  expect(named("Guitar").playing.voicing).toMatchObject({ capo: 3, tuning: ["D2", "A2", "D3", "G3", "B3", "E4"] });
  expect(named("Voice").unread).toEqual({ someday: "kept", tilt: 3 });
  expect(named("Drums").playing).toEqual({ drums: { reference: "x..x..x." } });
  expect(sure(goldenSong("glides").parts.find((p) => p.role === "bass")).playing.bass).toEqual({
    style: "root-anchored",
    slides: "some",
  });
});

test("what version 1 let stand although nothing could use it is mended, not refused", () => {
  const file = JSON.parse(textOf("pickup")) as Record<string, unknown> & {
    parts: Record<string, unknown>[];
    sections: Record<string, unknown>[];
    takes: unknown[];
    form: Record<string, unknown>[];
  };
  const [section] = file.sections as { id: string; chords: { id: string }[]; groove: { lanes: object[] } }[];
  sure(section).chords.forEach((c) => (c.id = "twice"));
  sure(section).groove.lanes = [
    { drum: "kick", hits: [{ start: 0, velocity: 90 }] },
    { drum: "kick", hits: [{ start: 480, velocity: 80 }] },
  ];
  nth(file.sections, 1).copyOf = "nowhere";
  firstOf(file.parts).range = ["C6", "C4"];
  firstOf(file.parts).instrument = "serpent";
  nth(file.parts, 1).link = { kind: "voicing", loop: true, from: "nobody" };
  firstOf(file.form).muted = ["nobody", "bass"];
  file.takes.push({ id: "t1", name: "of nobody", sectionId: "s1", partId: "nobody", notes: [] });
  file.nextId = 1;
  const song = must(parseSong(file));
  expect(new Set(firstOf(song.sections).chords.map((c) => c.id)).size).toBe(sure(section).chords.length);
  expect(firstOf(song.sections).groove.lanes).toEqual([
    {
      drum: "kick",
      hits: [
        { start: 0, velocity: 90 },
        { start: 480, velocity: 80 },
      ],
    },
  ]);
  expect(song.parts[0]).toMatchObject({ range: ["C4", "C6"], instrument: "serpent" });
  expect(sure(song.instruments).map((i) => i.id)).toEqual(["serpent"]);
  expect([nth(song.parts, 1).link, firstOf(song.form).muted, song.takes]).toEqual([
    { kind: "voicing", loop: true },
    ["bass"],
    [],
  ]);
  const more = edit(song, {
    do: "addNote",
    section: "s1",
    part: "melody",
    note: { start: 0, duration: 480, pitch: "C5", velocity: 80 },
  });
  expect(parseSong(more).ok).toBe(true);
});

test("a broken file of version 1 is refused with the path in that file", () => {
  const file = JSON.parse(textOf("glides")) as { sections: { notes: { bass: { pitch: string }[] } }[] };
  nth(firstOf(file.sections).notes.bass, 1).pitch = "H2";
  expect(parseSong(file)).toMatchObject({
    ok: false,
    error: { message: expect.stringContaining("sections.0.notes.bass.1.pitch") },
  });
});

test("edits keep the names they had", () => {
  const names =
    "setTitle setKey setTempo setMeter setSwing setProfile setSection addSection removeSection setLine " +
    "setChord setChords pinChords setReadings arrangeChords moveChords copyChords setBorder respell " +
    "setVoicings pinVoicing pinEnds addNote changeNotes removeNotes setNotes setHit changeHit setLane setDrums " +
    "repeatDrums setAccents setPart addPart setLink setInstrument removeInstrument removePart keepTake " +
    "removeTake waive unwaive";
  expect(EDITS.map((d) => d.name)).toEqual(expect.arrayContaining(names.split(" ")));
});
