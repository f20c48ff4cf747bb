import { firstOf, nth, sure } from "../../src/base/list";
import { Note, Progression, Scale } from "tonal";
import { afterMove } from "../../src/hear/singer/moved";
import { applyEdit } from "../../src/song/edits";
import { chooseCapo } from "../../src/arrange/voicing/capo";
import { chordPitchClasses, chordToneName } from "../../src/theory/chord/chord";
import { keyName, MODES, parseKey } from "../../src/theory/pitch/key";
import { mod, noteOf, pitchClass, pitchMidi } from "../../src/theory/pitch/pitch";
import { must } from "../../src/base/result";
import { parseChord } from "../../src/theory/chord/parse";
import type { Edit } from "../../src/song/edits/list";
import type { Song } from "../../src/song/schema/song";
import { edit, songWith } from "../helpers";

const KEYS = ["C", "G", "D", "A", "E", "B", "F#", "Db", "Ab", "Eb", "Bb", "F"];
const chordTones = (symbol: string) => {
  const chord = must(parseChord(symbol));
  return chordPitchClasses(chord).map((pc) => sure(chordToneName(chord, pc)));
};
const symbols = (song: Song, i = 0) =>
  nth(song.sections, i)
    .chords.map((c) => c.symbol)
    .join(" ");
const pitches = (song: Song, part = "melody") =>
  sure(firstOf(song.sections).notes[part])
    .map((n) => n.pitch)
    .join(" ");

describe("against tonal, in all keys", () => {
  test.each(KEYS)(
    "a part in %s by an interval: tonal transposes each note to the same name, and the way back is exact",
    (tonic) => {
      const scale = Scale.get(`${tonic} major`).notes;
      const melody = scale.map((n, i) => `${i} ${n}4 1`);
      const song = songWith({ key: `${tonic} major`, line: `| ${tonic} | ${tonic} |`, melody });
      for (const [semitones, interval] of [
        [1, "2m"],
        [2, "2M"],
        [3, "3m"],
        [4, "3M"],
        [5, "4P"],
        [7, "5P"],
        [-2, "-2M"],
        [-5, "-4P"],
      ] as const) {
        const there = edit(song, { do: "transposePart", part: "melody", semitones });
        const wanted = scale.map((n) => Note.transpose(`${n}4`, interval));
        const plain = (p: string) => (Math.abs(Note.get(p).alt) > 2 ? String(Note.midi(p)) : p);
        expect([interval, pitches(there)]).toEqual([interval, wanted.map(plain).join(" ")]);
        expect(pitches(edit(there, { do: "transposePart", part: "melody", semitones: -semitones }))).toBe(
          pitches(song),
        );
      }
    },
  );

  test.each(KEYS)(
    "the song in %s major to every other key: each chord is tonal's, there and back identical",
    (tonic) => {
      const from = must(parseKey(`${tonic} major`));
      const song = songWith({
        key: keyName(from),
        line: `| ${Progression.fromRomanNumerals(tonic, ["IMaj7", "VIm7", "IIm7", "V7"]).join(" | ")} |`,
      });
      for (const to of KEYS) {
        if (to === tonic) continue;
        const semitones = mod(pitchClass(to) - pitchClass(tonic) + 5, 12) - 5;
        const there = edit(song, { do: "transpose", key: `${to} major`, semitones });
        const wanted = Progression.fromRomanNumerals(to, ["IMaj7", "VIm7", "IIm7", "V7"]).map((s) =>
          s.replace("Maj", "maj"),
        );
        expect([to, symbols(there)]).toEqual([to, wanted.join(" ")]);
        expect(edit(there, { do: "transpose", key: `${tonic} major`, semitones: -semitones })).toEqual(song);
      }
    },
  );

  test.each(KEYS)("along the scale of %s: seven steps are an octave, one step is tonal's next degree", (tonic) => {
    const scale = Scale.get(`${tonic} major`).notes;
    const song = songWith({
      key: `${tonic} major`,
      line: `| ${scale[0]} | ${scale[3]} | ${scale[4]}7 |`,
      melody: scale.map((n, i) => `${i} ${n}4 1`),
    });
    const up = edit(song, { do: "transposePart", part: "melody", steps: 1 });
    const names = sure(firstOf(up.sections).notes.melody).map((n) => noteOf(n.pitch));
    expect(names).toEqual([...scale.slice(1), scale[0]]);
    const octave = edit(song, { do: "transposePart", part: "melody", steps: 7 });
    expect(sure(firstOf(octave.sections).notes.melody).map((n) => pitchMidi(n.pitch))).toEqual(
      sure(firstOf(song.sections).notes.melody).map((n) => pitchMidi(n.pitch) + 12),
    );
    const shifted = edit(song, { do: "shiftInScale", section: "s1", steps: 1 });
    // I IV V7 become ii V vi7.
    expect(symbols(shifted)).toBe(`${scale[1]}m ${scale[4]} ${scale[5]}m7`);
    expect(symbols(edit(shifted, { do: "shiftInScale", section: "s1", steps: -1 }))).toBe(symbols(song));
  });

  test.each(KEYS)(
    "%s major to its parallel and its relative minor: degrees stay degrees, by tonal's scales",
    (tonic) => {
      const major = Scale.get(`${tonic} major`).notes;
      const relative = Note.transpose(tonic, "-3m");
      for (const to of [tonic, Note.simplify(relative)]) {
        const key = parseKey(`${to} minor`);
        if (!key.ok) continue;
        const minor = Scale.get(`${key.value.tonic} minor`).notes;
        const song = songWith({
          key: `${tonic} major`,
          line: `| ${major[0]} | ${major[3]} |`,
          melody: major.map((n, i) => `${i * 0.5} ${n}4 0.5`),
        });
        const there = edit(song, { do: "changeMode", key: keyName(key.value) });
        expect([to, sure(firstOf(there.sections).notes.melody).map((n) => noteOf(n.pitch))]).toEqual([to, minor]);
        expect(symbols(there)).toBe(`${minor[0]}m ${minor[3]}m`);
        expect(there.key).toBe(keyName(key.value));
        const back = edit(there, { do: "changeMode", key: `${tonic} major` });
        expect(sure(firstOf(back.sections).notes.melody).map((n) => noteOf(n.pitch))).toEqual(major);
      }
    },
  );
});

describe("mode change as it is taught (any harmony textbook)", () => {
  const inMode = (line: string, key: string, to: string, melody: string[] = []) =>
    edit(songWith({ key, line, melody }), { do: "changeMode", key: to });
  test.each([
    ["| C | Am | F | G7 |", "C major", "C minor", "Cm Ab Fm G7"],
    ["| C | Am | F | G7 |", "C major", "A minor", "Am F Dm E7"],
    ["| Cmaj7 | Dm7 | G7 | Cmaj7 |", "C major", "C minor", "Cm7 Dm7b5 G7 Cm7"],
    ["| C | Bdim | Bm7b5 | C |", "C major", "C minor", "Cm Bdim Bdim7 Cm"],
    ["| Am | Dm | E7 | Am |", "A minor", "A major", "A D E7 A"],
    ["| Am | F | C | G |", "A minor", "C major", "C Am Em Bdim"],
    // What comes from outside keeps its kind.
    ["| C | D7 | G7 | C |", "C major", "C minor", "Cm D7 G7 Cm"],
    ["| C/E | F/A | G/B | C |", "C major", "C minor", "Cm/Eb Fm/Ab G/B Cm"],
    // What leads to a chord goes with it: its dominant, the second degree before that, the diminished chord on its
    // leading tone.
    ["| C | E7/G# | Am | A7 | Dm7 | G7 | C |", "C major", "C minor", "Cm Eb7/G Ab A7 Dm7b5 G7 Cm"],
    ["| C | D#dim7 | Em | Bm7b5 E7 | Am | Gm7 C7 | F |", "C major", "C minor", "Cm Ddim7 Eb Bbm7b5 Eb7 Ab Gm7 C7 Fm"],
    ["| C | E7 | Am | Am7 D7 | G7 | C |", "C major", "A minor", "Am C7 F F#m7 B7 E7 Am"],
    // What major borrows from minor is at home there; so are the sixth and seventh of melodic minor, and its major
    // third, in major.
    ["| C | Bb | Eb | Fm | Db | C |", "C major", "C minor", "Cm Bb Eb Fm Db Cm"],
    ["| Cm6 | Cm(maj7) | Fm9 | Cm11 | C |", "C minor", "C major", "C6 Cmaj7 Fmaj9 Cmaj9 C"],
    // A sixth stays a major one, a lowered ninth or thirteenth belongs to dominants.
    ["| C6 | Am9 | Dm9 | G13 |", "C major", "C minor", "Cm6 Abmaj9 Dm7b5 G7(b9,b13)"],
  ])("%s from %s to %s is %s", (line, key, to, wanted) => {
    expect(symbols(inMode(line, key, to))).toBe(wanted);
  });
  test("a line keeps its leading tone over the dominant, not elsewhere; the raised seventh of minor comes home in major", () => {
    const there = inMode("| C | G7 |", "C major", "C minor", ["0 B4 1", "1 E4 1", "4 B4 1", "5 G4 1", "6 A4 1"]);
    expect(pitches(there)).toBe("Bb4 Eb4 B4 G4 Ab4");
    expect(pitches(inMode("| Cm | G7 |", "C minor", "C major", ["0 Eb4 1", "4 B4 1", "5 A4 1", "6 Ab4 1"]))).toBe(
      "E4 B4 A4 A4",
    );
  });
  test("a chord tone stays that tone, whatever becomes of its chord; borrowed notes come home", () => {
    const line = "| C | E7 | Am | Fm | G7 | C |";
    const melody = ["0 Eb4 1", "4 G#4 1", "5 F#4 1", "6 Ab4 1", "7 B4 1", "8 A4 1", "12 Ab4 1", "16 B4 1", "17 A4 1"];
    // Over V7/VI (E7, then Eb7): its third, its ninth, its third by another name, its fifth.
    expect(pitches(inMode(line, "C major", "C minor", melody))).toBe("Eb4 G4 F4 G4 Bb4 Ab4 Ab4 B4 A4");
    const song = songWith({ key: "C major", line, melody });
    const up = edit(song, { do: "shiftInScale", section: "s1", steps: 1 });
    expect(symbols(up)).toBe("Dm F#7 Bdim Gm Am7 Dm");
    expect(pitches(up)).toBe("F4 A#4 G#4 A#4 C#5 B4 Bb4 C5 B4");
  });
  test(
    "no augmented second: beside the leading tone the sixth is raised, too, as in melodic minor, unless the " +
      "chord has it (any harmony textbook)",
    () => {
      const up = ["0 G4 1", "1 A4 1", "2 B4 1", "3 C5 1", "4 B4 1", "5 A4 1", "6 G4 1", "7 A4 1"];
      expect(pitches(inMode("| G7 | G7 |", "C major", "C minor", up))).toBe("G4 A4 B4 C5 B4 A4 G4 Ab4");
      expect(pitches(inMode("| C | Am |", "C major", "C minor", up))).toBe("G4 Ab4 Bb4 C5 Bb4 Ab4 G4 Ab4");
      // The ninth of the dominant and the third of the subdominant stay.
      expect(pitches(inMode("| F G7 |", "C major", "C minor", ["1 A4 1", "2 B4 1", "3 C5 1"]))).toBe("Ab4 B4 C5");
      expect(pitches(inMode("| G9 |", "C major", "C minor", ["0 B4 1", "1 A4 1"]))).toBe("B4 Ab4");
    },
  );
  test("along the scale an altered name never sounds as its neighbor in the key", () => {
    const song = songWith({ key: "C major", line: "| C | Bb | Eb | A7 |", melody: ["0 C#4 1", "1 Bb4 1"] });
    const up = edit(song, { do: "shiftInScale", section: "s1", steps: 1 });
    expect(symbols(up)).toBe("Dm C F B7");
    expect(pitches(up)).toBe("D#4 C5");
  });
  test.each(["C major", "G major", "Eb major", "A minor", "F minor"])(
    "in %s, every tone of every chord is a tone of what the chord becomes",
    (key) => {
      const line = "| C | Am7 | Dm7 G7 | E7 | A7b9 | Dm7b5 G7alt | Fm6 | Bb13 | Ebmaj9 | F#dim7 | C/G |";
      const at = mod(pitchClass(firstOf(key.split(" "))) - (key.endsWith("minor") ? 9 : 0), 12);
      const base = songWith({ key: key.endsWith("minor") ? "A minor" : "C major", line });
      const song = at ? edit(base, { do: "transpose", key, semitones: at > 6 ? at - 12 : at }) : base;
      const chords = firstOf(song.sections).chords;
      const notes = chords.flatMap(({ symbol, start }) =>
        chordTones(symbol).map((name, i): Edit => ({
          do: "addNote",
          section: "s1",
          part: "melody",
          note: { start: start + 120 * i, duration: 60, pitch: `${name}4`, velocity: 80 },
        })),
      );
      const full = edit(song, ...notes);
      const other = key.endsWith("minor") ? key.replace("minor", "major") : key.replace("major", "minor");
      for (const change of [
        { do: "changeMode", key: other },
        { do: "shiftInScale", steps: 1 },
        { do: "shiftInScale", steps: -3 },
      ] as Edit[]) {
        const moved = firstOf(edit(full, change).sections);
        const strange = sure(moved.notes.melody).filter((n) => {
          const chord = sure(moved.chords.findLast((c) => c.start <= n.start));
          const before = sure(chords.find((c) => c.id === chord.id));
          // An extension that the new symbol does not say is heard beside it.
          const said = chordTones(chord.symbol).length === chordTones(before.symbol).length;
          return (
            said &&
            !chordTones(chord.symbol)
              .map(pitchClass)
              .includes(pitchClass(noteOf(n.pitch)))
          );
        });
        expect([change, strange.map((n) => n.pitch)]).toEqual([change, []]);
      }
    },
  );
  test(
    "every mode to every other: scale degrees go to scale degrees, of the song or of one section; the same mode " +
      "is refused",
    () => {
      for (const from of Object.keys(MODES))
        for (const to of Object.keys(MODES)) {
          const key = must(parseKey(`D ${from}`));
          const goal = must(parseKey(`D ${to}`));
          const song = songWith({ key: keyName(key), melody: key.scale.map((n, i) => `${i} ${n}4 1`) });
          const edits: Edit[] = [
            { do: "changeMode", key: keyName(goal) },
            { do: "changeMode", key: keyName(goal), section: "s1" },
          ];
          for (const change of edits) {
            const done = applyEdit(song, change);
            if (from === to) expect(done).toMatchObject({ ok: false, error: { code: "edit.mode" } });
            else
              expect(sure(firstOf(must(done).song.sections).notes.melody).map((n) => noteOf(n.pitch))).toEqual(
                goal.scale,
              );
          }
        }
    },
  );
});

describe("what is moved and what is left", () => {
  test("some notes of a part, by semitones or steps; a linked part and drums are refused, and say why", () => {
    const song = songWith({
      key: "F major",
      line: "| F | Bb |",
      melody: ["0 F4 1", "1 A4 1", "2 Bb4 1"],
      bass: ["0 F2 4"],
    });
    const [first, second] = sure(firstOf(song.sections).notes.melody).map((n) => n.id) as [string, string];
    expect(
      pitches(edit(song, { do: "transposePart", part: "melody", section: "s1", notes: [first, second], steps: 2 })),
    ).toBe("A4 C5 Bb4");
    expect(pitches(edit(song, { do: "transposePart", part: "melody", notes: [second], semitones: 1 }))).toBe(
      "F4 Bb4 Bb4",
    );
    expect(applyEdit(song, { do: "transposePart", part: "keys", semitones: 1 })).toMatchObject({
      ok: false,
      error: { message: expect.stringMatching(/Piano has no notes of its own/) as string },
    });
    const high = songWith({ melody: ["0 G9 1"] });
    for (const change of [{ semitones: 3 }, { steps: 2 }])
      expect(applyEdit(high, { do: "transposePart", part: "melody", ...change })).toMatchObject({
        ok: false,
        error: { message: expect.stringMatching(/leave the range of all instruments/) as string },
      });
  });

  test("afterwards: notes out of comfort and out of range are counted as often as they are played", () => {
    const song = edit(songWith({ key: "C major", line: "| C |", melody: ["0 C5 1", "1 D5 1"] }), {
      do: "addPass",
      section: "s1",
    });
    const moved = edit(song, { do: "setPass", pass: nth(song.form, 1).id, transpose: 3 });
    const told = sure(afterMove(song, moved).find((t) => t.what.startsWith("Voice")));
    expect(told.what).toMatch(/Voice: [12] notes?/);
    expect(told.why).toMatch(/comfortable; singing high for long tires/);
    expect(afterMove(song, edit(song, { do: "setPass", pass: nth(song.form, 1).id, transpose: -1 }))).toEqual([]);
    const low = edit(song, { do: "transposePart", part: "melody", semitones: -24 });
    expect(afterMove(song, low).map((t) => t.why.slice(0, 5))).toContain("below");
    expect(afterMove(song, song)).toEqual([]);
  });

  test("capos in F: E shapes at 1, D at 3, C at 5, A at 8 (common practice)", () => {
    const song = edit(songWith({ key: "F major", line: "| F | Bb | C7 | F |" }), {
      do: "setPart",
      part: "keys",
      instrument: "guitar",
    });
    const found = must(chooseCapo(song, "keys"));
    const shapes = Object.fromEntries(found.map((c) => [c.capo, c.keyOfShapes.split(" ")[0]]));
    expect(shapes).toEqual({ 0: "F", 1: "E", 3: "D", 5: "C", 8: "A" });
    expect(firstOf(found).capo).toBeGreaterThan(0);
  });
});

test("notes in a bar of a pass's own go along the scale with it", () => {
  const song = edit(songWith({ line: "| C | F |", melody: ["0 C4 4", "4 F4 4"] }), { do: "addPass", section: "s1" });
  const pass = nth(song.form, 1).id;
  const own = edit(song, { do: "inPass", pass, here: true, edit: { do: "shiftInScale", section: "s1", steps: 2 } });
  expect(own.sections).toEqual(song.sections);
  expect(sure(firstOf(sure(nth(own.form, 1).own)).chords).map((c) => c.symbol)).toEqual(["Em", "Am"]);
  expect(sure(sure(firstOf(sure(nth(own.form, 1).own)).notes).melody).map((n) => n.pitch)).toEqual(["E4", "A4"]);
});

test(
  "what passes have for themselves and what takes keep goes along: a part by interval, a section along its " +
    "scale, a mode with its leading tones",
  () => {
    const base = edit(songWith({ line: "| C | G7 |", melody: ["0 E4 4", "4 B4 4"] }), { do: "addPass", section: "s1" });
    const pass = nth(base.form, 1).id;
    const last = nth(sure(firstOf(base.sections).notes.melody), 1).id;
    const here: Edit = { do: "changeNotes", section: "s1", part: "melody", notes: [{ id: last, pitch: "D5" }] };
    const song = edit(
      base,
      { do: "inPass", pass, here: true, edit: here },
      {
        do: "inPass",
        pass,
        here: true,
        edit: {
          do: "addNote",
          section: "s1",
          part: "melody",
          note: { start: 2400, duration: 240, pitch: "B4", velocity: 90 },
        },
      },
      { do: "keepTake", section: "s1", part: "melody", name: "first" },
    );
    const own = (s: Song) =>
      sure(sure(firstOf(sure(nth(s.form, 1).own)).notes).melody)
        .map((n) => n.pitch)
        .join(" ");
    const take = (s: Song) =>
      sure(sure(firstOf(s.takes).notes).melody)
        .map((n) => n.pitch)
        .join(" ");
    expect([own(song), take(song)]).toEqual(["D5 B4", "E4 B4"]);
    const up = edit(song, { do: "transposePart", part: "melody", semitones: 5 });
    expect([pitches(up), own(up), take(up)]).toEqual(["A4 E5", "G5 E5", "A4 E5"]);
    expect(own(edit(up, { do: "transposePart", part: "melody", semitones: -5 }))).toBe(own(song));
    const shifted = edit(song, { do: "shiftInScale", steps: 1 });
    expect([pitches(shifted), own(shifted), take(shifted)]).toEqual(["F4 C5", "E5 C5", "F4 C5"]);
    const minor = edit(song, { do: "changeMode", key: "C minor" });
    expect([pitches(minor), own(minor), take(minor)]).toEqual(["Eb4 B4", "D5 B4", "Eb4 B4"]);
    // Only some notes of the section: what passes have for themselves stays.
    expect(own(edit(song, { do: "transposePart", part: "melody", section: "s1", notes: [last], steps: 1 }))).toBe(
      own(song),
    );
    for (const by of [{}, { semitones: 0 }, { semitones: 2, steps: 1 }])
      expect(applyEdit(song, { do: "transposePart", part: "melody", ...by })).toMatchObject({
        ok: false,
        error: { message: "A part is moved by semitones or along the scale" },
      });
  },
);
