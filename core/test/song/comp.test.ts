import { firstOf, lastOf, nth, sure } from "../../src/base/list";
import { COMP_KINDS } from "../../src/song/comp/kinds";
import { linkedNotes } from "../../src/song/linked";
import { must } from "../../src/base/result";
import { parseMeter } from "../../src/theory/time/meter";
import { parsePattern, PATTERNS, STEP, stepsOf } from "../../src/song/comp/patterns";
import { pitchMidi } from "../../src/theory/pitch/pitch";
import { realize } from "../../src/song/realize";
import { storeVoicing, voiceSection } from "../../src/arrange/voicing/section";
import type { Link, Song } from "../../src/song/schema/song";
import type { PlayingOf } from "../../src/song/schema/playing";
import { edit, songWith } from "../helpers";

const plain = songWith({
  line: "| C | F | G7 | C |",
  kicks: [
    [0, 110],
    [2.5, 80],
  ],
  melody: ["0 E5 1", "1 G5 1", "8 D5 4", "12 C5 2"],
});
const base = edit(plain, storeVoicing("s1", "keys", must(voiceSection(plain, "s1", "keys"))));
const keys = firstOf(base.sections).chords.map((c) =>
  sure(sure(c.voicings).keys)
    .pitches.map(pitchMidi)
    .sort((a, b) => a - b),
);

/** The notes of a part of a kind that plays the piano's voicings. */
const play = (kind: Link["kind"], comp: PlayingOf<"comp"> = {}, from: Song = base) => {
  const song = edit(from, {
    do: "addPart",
    name: "X",
    role: "chords",
    instrument: "pad",
    link: { kind, from: "keys" },
    playing: { comp },
  });
  return firstOf(realize(song, { section: "s1" }).parts).notes;
};
const at = (notes: ReturnType<typeof play>) => [...new Set(notes.map((n) => n.start / 480))];

test("every kind is a full card and plays only tones of the voicings it comes from", () => {
  for (const kind of COMP_KINDS) {
    expect([kind.id, kind.explanation.length > 40]).toEqual([kind.id, true]);
    if (kind.id === "block") continue;
    const notes = play(kind.id);
    expect([kind.id, notes.length > 0]).toEqual([kind.id, true]);
    for (const n of notes) {
      const index = firstOf(base.sections).chords.findIndex((c) => c.id === n.chordId);
      expect([
        kind.id,
        nth(keys, index)
          .map((m) => m % 12)
          .includes(n.midi % 12),
      ]).toEqual([kind.id, true]);
    }
  }
});

test("patterns by name fill whole bars of any meter; one of one's own is read or refused by its place", () => {
  for (const text of ["4/4", "3/4", "6/8", "12/8", "5/4", "7/8"]) {
    const meter = must(parseMeter(text));
    for (const p of PATTERNS) {
      const steps = stepsOf(p.id, meter);
      expect([text, p.id, (steps.length * STEP) % meter.bar, /^[Xx.-]+$/.test(steps), /[xX]/.test(steps)]).toEqual([
        text,
        p.id,
        0,
        true,
        true,
      ]);
    }
  }
  expect(stepsOf("backbeat", must(parseMeter("4/4")))).toBe("....X.......X...");
  expect(must(parsePattern("x-.X | x---"))).toBe("x-.Xx---");
  expect(parsePattern("x-o")).toMatchObject({ ok: false, error: { code: "pattern.mark", position: 2 } });
});

test(
  "rhythms: chops on the backbeat are short, a held attack is struck anew where the chord changes, a push plays " +
    "what comes",
  () => {
    const chops = play("voicing", { rhythm: "backbeat" });
    expect(at(chops)).toEqual([1, 3, 5, 7, 9, 11, 13, 15]);
    expect(chops.every((n) => n.duration < STEP)).toBe(true);
    const long = play("voicing", { rhythm: "x".padEnd(32, "-") });
    expect(at(long)).toEqual([0, 4, 8, 12]);
    const last = firstOf(base.sections).chords.map((c) => c.id);
    const pushed = play("voicing", { rhythm: "..............x-", anticipate: true });
    expect([...new Set(pushed.map((n) => n.chordId))]).toEqual([last[1], last[2], last[3], last[0]]);
    const plainly = play("voicing", { rhythm: "..............x-" });
    expect([...new Set(plainly.map((n) => n.chordId))]).toEqual(last);
    expect(at(play("voicing", { follow: "kick" }))).toEqual([0, 2.5]);
  },
);

test("a pad ties what stays and keeps every chord sounding; a high layer lies above C5; an octave doubles the top", () => {
  const pad = play("pad");
  for (const [i, chord] of firstOf(base.sections).chords.entries()) {
    const sounding = pad
      .filter((n) => n.start <= chord.start && n.start + n.duration >= chord.start + chord.duration)
      .map((n) => n.midi);
    expect([...new Set(sounding)].sort((a, b) => a - b)).toEqual(keys[i]);
  }
  expect(pad.length).toBeLessThan(keys.flat().length);
  expect(pad.every((n) => n.played === n.start)).toBe(true);
  expect(play("high").every((n) => n.midi >= 72)).toBe(true);
  expect(play("octave").map((n) => n.midi)).toEqual(keys.map((k) => lastOf(k) + 12));
});

test(
  "arpeggios go as they are told; fills sound only in the tune's gaps; a reversed chord swells and ends on its " +
    "root together",
  () => {
    const up = play("arpeggio", { step: 240 })
      .slice(0, 4)
      .map((n) => n.midi);
    expect(up).toEqual(firstOf(keys).slice(0, 4));
    expect(firstOf(play("arpeggio", { step: 240, way: "down" })).midi).toBe(firstOf(keys).at(-1));
    const tune = sure(firstOf(base.sections).notes.melody);
    for (const n of play("fills", { gap: 1 }))
      expect(tune.every((t) => n.start + n.duration <= t.start || n.start >= t.start + t.duration)).toBe(true);
    expect(play("fills", { gap: 1 }).length).toBeGreaterThan(2);
    const first = play("reversed").filter((n) => n.chordId === firstOf(firstOf(base.sections).chords).id);
    expect(first.every((n) => n.swell && n.start + n.duration === 1920)).toBe(true);
    expect(lastOf(first).midi).toBe(firstOf(keys)[0]);
    expect(first.map((n) => n.velocity)).toEqual([...first.map((n) => n.velocity)].sort((a, b) => a - b));
  },
);

test("strum and loose hands move what is played, never what is notated; the same seed plays the same", () => {
  const strummed = play("voicing", { strum: 20, slope: -4 });
  const chord = strummed.filter((n) => n.start === 0);
  expect(chord.map((n) => n.played)).toEqual([0, 20, 40, 60].slice(0, chord.length));
  expect(chord.map((n) => n.velocity)).toEqual(chord.map((_, i) => 72 - 4 * i));
  expect(lastOf(play("voicing", { strum: 20, strumWay: "down" }).filter((n) => n.start === 0)).played).toBe(0);
  const loose = play("voicing", { human: 20, seed: 3 });
  expect(loose).toEqual(play("voicing", { human: 20, seed: 3 }));
  expect(loose.map((n) => n.played)).not.toEqual(play("voicing", { human: 20, seed: 4 }).map((n) => n.played));
  expect(loose.map((n) => n.start)).toEqual(play("voicing").map((n) => n.start));
});

test("linked parts follow the chords until they are detached; a source that goes leaves its followers their notes", () => {
  const song = edit(base, {
    do: "addPart",
    name: "Pad",
    role: "chords",
    instrument: "pad",
    link: { kind: "pad", from: "keys" },
  });
  const { id } = firstOf(song.parts);
  const before = linkedNotes(song, firstOf(song.sections), firstOf(song.parts)).map((n) => n.note.pitch);
  const detached = edit(song, { do: "setLink", part: id, link: null });
  expect(sure(firstOf(detached.sections).notes[id]).map((n) => n.pitch)).toEqual(before);
  const changed = edit(detached, { do: "setVoicings", section: "s1", part: "keys", pitches: {} });
  expect(firstOf(realize(changed, { section: "s1" }).parts).notes.map((n) => n.pitch)).toEqual(before);
  const gone = edit(song, { do: "removePart", part: "keys" });
  expect(firstOf(gone.parts).link).toBeUndefined();
  expect(sure(firstOf(gone.sections).notes[id]).map((n) => n.pitch)).toEqual(before);
});
