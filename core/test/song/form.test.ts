import { firstOf, lastOf, nth, sure } from "../../src/base/list";
import fc from "fast-check";
import { parseMidi } from "midi-file";
import { applyEdit } from "../../src/song/edits";
import { busyOf } from "../../src/hear/slice/busy";
import { createMemory } from "../../src/facts/memory";
import { formOf, timeText } from "../../src/song/form";
import { keyName } from "../../src/theory/pitch/key";
import { must } from "../../src/base/result";
import { realize } from "../../src/song/realize";
import { secondsAt } from "../../src/song/realized";
import { writeMidi } from "../../src/files/midi";
import type { Edit } from "../../src/song/edits/list";
import type { Song } from "../../src/song/schema/song";
import { demoSongs } from "../demos";
import { edit, songWith } from "../helpers";

/** A verse in F of four bars and a chorus in Db of two, each once. */
function two(): Song {
  const verse = edit(
    songWith({
      key: "F major",
      line: "| F | Bb | C7 | F |",
      melody: ["0 F4 4", "12 A4 4"],
      bass: ["0 F2 2", "2 C3 2"],
    }),
    {
      do: "addSection",
      name: "Chorus",
      bars: 2,
    },
  );
  const named = JSON.parse(JSON.stringify(verse).replaceAll(`"${nth(verse.sections, 1).id}"`, '"s2"')) as Song;
  return edit(
    named,
    { do: "setLine", section: "s2", line: "| Db | Ab |" },
    { do: "setNotes", section: "s2", part: "melody", notes: [{ start: 0, duration: 960, pitch: "Ab4", velocity: 90 }] },
  );
}
const order = (song: Song) => song.form.map((p) => p.sectionId).join(" ");
const refusal = (song: Song, e: Edit): string => {
  const done = applyEdit(song, e);
  return done.ok ? "done" : done.error.message;
};

test("passes are added, repeated, moved and taken out; ids stay; sections are left alone", () => {
  const song = two();
  const [verse, chorus] = song.form.map((p) => p.id) as [string, string];
  const longer = edit(song, { do: "addPass", section: "s1" }, { do: "addPass", section: "s2", at: 1 });
  expect(order(longer)).toBe("s1 s2 s2 s1");
  expect([firstOf(longer.form).id, nth(longer.form, 2).id]).toEqual([verse, chorus]);
  const moved = edit(longer, { do: "movePass", pass: chorus, to: 0 });
  expect(order(moved)).toBe("s2 s1 s2 s1");
  expect(firstOf(moved.form).id).toBe(chorus);
  expect(order(edit(moved, { do: "removePass", pass: verse }))).toBe("s2 s2 s1");
  expect(moved.sections).toEqual(song.sections);
});

test("a pass stores only what is different, gives it back, and is repeated with it", () => {
  const song = two();
  const chorus = nth(song.form, 1).id;
  const own = edit(song, {
    do: "setPass",
    pass: chorus,
    bars: [0, 1],
    transpose: 2,
    muted: ["melody"],
    name: "Last time",
  });
  expect(own.form[1]).toEqual({
    id: chorus,
    sectionId: "s2",
    bars: [0, 1],
    transpose: 2,
    muted: ["melody"],
    name: "Last time",
  });
  expect(formOf(own)[1]).toMatchObject({
    name: "Last time",
    bars: 1,
    own: ["only bar 1", "2 semitones up", "without Voice"],
  });
  const real = realize(own);
  expect(real.chords.filter((c) => c.pass === chorus).map((c) => c.symbol)).toEqual(["Eb"]);
  expect(sure(real.parts.find((p) => p.id === "melody")).notes.filter((n) => n.pass === chorus)).toEqual([]);
  const again = edit(own, { do: "addPass", section: "s2", like: chorus });
  expect({ ...again.form[2], id: chorus }).toEqual(own.form[1]);
  const back = edit(own, { do: "setPass", pass: chorus, bars: null, transpose: null, muted: null, name: null });
  expect(back.form).toEqual(song.form);
  // What is as in the section is not stored.
  expect(
    edit(song, { do: "setPass", pass: chorus, bars: [0, 2], transpose: 0, muted: [], name: "Chorus" }).form,
  ).toEqual(song.form);
});

test("an edit of a section changes all its passes but the bars that one has for itself", () => {
  const base = edit(two(), { do: "addPass", section: "s2" });
  const third = nth(base.form, 2).id;
  const song: Song = {
    ...base,
    form: base.form.map((p) =>
      p.id === third
        ? { ...p, own: [{ bars: [1, 2], chords: [{ id: "c900", start: 1920, duration: 1920, symbol: "Gb6" }] }] }
        : p,
    ),
  };
  const after = edit(song, { do: "setLine", section: "s2", line: "| Bbm7 | Eb7 |" });
  const chords = (pass: string) =>
    realize(after)
      .chords.filter((c) => c.pass === pass)
      .map((c) => c.symbol);
  expect(chords(nth(song.form, 1).id)).toEqual(["Bbm7", "Eb7"]);
  expect(chords(third)).toEqual(["Bbm7", "Gb6"]);
});

test.each<[what: string, edit: Edit, words: RegExp]>([
  [
    "trimming to what is not there",
    { do: "setPass", pass: "o2", bars: [1, 5] },
    /Chorus has 2 bars; bars 2 to 5 are not all in it/,
  ],
  ["trimming to nothing", { do: "setPass", pass: "o2", bars: [1, 1] }, /ends after it begins/],
  ["moving into its own gap", { do: "movePass", pass: "o2", to: 2 }, /Chorus is there already/],
  ["a place that is none", { do: "addPass", section: "s1", at: 9 }, /no place 10/],
  ["two sections in one", { do: "addPass", section: "s1", like: "o2" }, /one of Chorus/],
  ["out of MIDI's range", { do: "transposeSection", section: "s2", key: "F major", semitones: -24 }, /done/],
  [
    "a key elsewhere",
    { do: "transposeSection", section: "s2", key: "G major", semitones: 3 },
    /does not lie 3 semitones above/,
  ],
  ["another mode", { do: "transposeSection", section: "s2", key: "G minor", semitones: 2 }, /another mode/],
  [
    "a meter that breaks notes",
    { do: "setSectionTime", section: "s1", meter: "2/4" },
    /Verse has a note or hit at bar 1, beat 3/,
  ],
])("%s is said in a sentence, and nothing is changed", (_, e, words) => {
  const song = two();
  const named = JSON.parse(JSON.stringify(e).replace("o2", nth(song.form, 1).id)) as Edit;
  const before = JSON.stringify(song);
  expect(refusal(song, named)).toMatch(words);
  expect(JSON.stringify(song)).toBe(before);
});

test("the last pass stays", () => {
  const song = songWith({});
  expect(refusal(song, { do: "removePass", pass: firstOf(song.form).id })).toMatch(/at least one pass/);
});

test("72 bars of 4/4 at 100 are 2:52.8; times are exact where tempo and meter change", () => {
  const song = edit(songWith({}), { do: "setSection", section: "s1", bars: 72 }, { do: "setTempo", tempo: 100 });
  expect(timeText(firstOf(formOf(song)).seconds)).toBe("2:52.8");
  expect([timeText(60), timeText(59.96), timeText(0)]).toEqual(["1:00", "1:00", "0:00"]);
  const mixed = edit(
    two(),
    { do: "setSectionTime", section: "s2", tempo: 150, meter: "7/8" },
    { do: "addPass", section: "s1" },
    { do: "addPass", section: "s2" },
  );
  const form = formOf(mixed);
  const real = realize(mixed);
  form.forEach((p, i) => {
    expect([p.start, p.duration]).toEqual([nth(real.sections, i).start, nth(real.sections, i).duration]);
    expect(p.startSeconds).toBeCloseTo(secondsAt(real, p.start), 9);
  });
  // Two bars of 7/8 at 150 are 2 × 3.5 quarters.
  expect(nth(form, 1).seconds).toBeCloseTo((7 * 60) / 150, 9);
  // Read back from the MIDI file by another program's reader.
  const starts = secondsOf(writeMidi(mixed, { swing: "straight" }), 65);
  expect(starts).toHaveLength(2);
  expect(nth(starts, 1) - firstOf(starts)).toBeCloseTo(nth(form, 2).startSeconds - firstOf(form).startSeconds, 2);
});

/** Seconds at which a note begins in a MIDI file: ticks of all tracks against the tempos of all tracks. */
function secondsOf(bytes: Uint8Array | number[], note: number): number[] {
  const { header, tracks } = parseMidi(bytes);
  const timed = tracks.flatMap((track) => {
    let at = 0;
    return track.map((e) => ({ e, at: (at += e.deltaTime) }));
  });
  const tempos = timed
    .flatMap(({ e, at }) => (e.type === "setTempo" ? [{ at, micro: e.microsecondsPerBeat }] : []))
    .sort((a, b) => a.at - b.at);
  const seconds = (tick: number) => {
    let [sum, from, micro] = [0, 0, 500_000];
    for (const t of tempos) {
      if (t.at >= tick) break;
      sum += ((t.at - from) * micro) / sure(header.ticksPerBeat) / 1e6;
      [from, micro] = [t.at, t.micro];
    }
    return sum + ((tick - from) * micro) / sure(header.ticksPerBeat) / 1e6;
  };
  return timed
    .flatMap(({ e, at }) => (e.type === "noteOn" && e.noteNumber === note && e.velocity > 0 ? [seconds(at)] : []))
    .sort((a, b) => a - b);
}

test("sections have a key, tempo, meter and swing of their own, obeyed when they are realized, given back by null", () => {
  const song = two();
  const own = edit(song, {
    do: "setSectionTime",
    section: "s2",
    key: "Db major",
    tempo: 120,
    meter: "3/4",
    swing: { ratio: 0.6, unit: 8 },
  });
  const real = firstOf(realize(own, { section: "s2" }).sections);
  expect([real.key.tonic, real.tempo, real.meter.text, real.swing.ratio, real.duration]).toEqual([
    "Db",
    120,
    "3/4",
    0.6,
    2 * 1440,
  ]);
  const chords = nth(own.sections, 1).chords.map((c) => [c.symbol, c.start, c.duration]);
  expect(chords).toEqual([
    ["Db", 0, 1440],
    ["Ab", 1440, 1440],
  ]);
  const back = edit(own, { do: "setSectionTime", section: "s2", key: null, tempo: null, meter: null, swing: null });
  expect(back.sections[1]).toEqual(song.sections[1]);
  // What is the song's own is not stored.
  expect(
    edit(song, { do: "setSectionTime", section: "s2", key: "F major", tempo: song.tempo, meter: song.meter })
      .sections[1],
  ).toEqual(song.sections[1]);
});

test("a section is moved by an interval or to a key, there and back to the letter, and nothing else with it", () => {
  for (const song of demoSongs()) {
    for (const semitones of [1, -2, 5]) {
      const section = lastOf(song.sections);
      const { key: home } = firstOf(realize(song, { section: section.id }).sections);
      const away = moved(song, section.id, home.mode, semitones);
      expect(away.sections.slice(0, -1)).toEqual(song.sections.slice(0, -1));
      const [before, after] = [realize(song, { section: section.id }), realize(away, { section: section.id })];
      for (const [i, c] of before.chords.entries())
        if (c.chord)
          expect(sure(nth(after.chords, i).chord).tones.map((t) => t.semitones)).toEqual(
            c.chord.tones.map((t) => t.semitones),
          );
      const back = edit(away, {
        do: "transposeSection",
        section: section.id,
        key: keyName(home),
        semitones: -semitones,
      });
      expect(back).toEqual(song);
    }
  }
});
/** A section moved to the first key of its mode that lies so many semitones away. */
function moved(song: Song, section: string, mode: string, semitones: number): Song {
  const names = ["C", "Db", "D", "Eb", "E", "F", "F#", "G", "Ab", "A", "Bb", "B", "C#", "D#", "G#", "A#", "Gb"];
  const found = names
    .map((n) => applyEdit(song, { do: "transposeSection", section, key: `${n} ${mode}`, semitones }))
    .find((r) => r.ok);
  return must(sure(found)).song;
}

test("eighths for quarters in one section or pass double a part's attacks there, change no pitch, and nothing elsewhere", () => {
  const [ballad] = demoSongs();
  const [one, other] = sure(ballad).sections.map((s) => s.id) as [string, string];
  const plain: Song = {
    ...sure(ballad),
    form: [one, other, other, one].map((sectionId, i) => ({ id: `o90${i}`, sectionId })),
  };
  const part = sure(plain.parts.find((p) => p.name === "Piano")).id;
  const base = plain;
  const beats = edit(base, { do: "setPlaying", part, comp: { rhythm: "beats" } });
  const notesOf = (song: Song) => sure(realize(song).parts.find((p) => p.id === part)).notes;
  const of = (song: Song, pass: string) => notesOf(song).filter((n) => n.pass === pass);
  const attacks = (song: Song, pass: string) => new Set(of(song, pass).map((n) => n.start)).size;
  const pitches = (song: Song, pass: string) => [...new Set(of(song, pass).map((n) => n.midi))].sort();
  const [verse, chorus, again, last] = base.form.map((p) => p.id) as [string, string, string, string];
  const inSection = edit(beats, { do: "setPlaying", part, section: other, comp: { rhythm: "driving" } });
  const inPass = edit(beats, { do: "setPlaying", part, pass: again, comp: { rhythm: "driving" } });
  for (const [song, doubled] of [
    [inSection, [chorus, again]],
    [inPass, [again]],
  ] as const)
    for (const pass of [verse, chorus, again, last]) {
      expect(attacks(song, pass)).toBe(attacks(beats, pass) * (doubled.includes(pass) ? 2 : 1));
      expect(pitches(song, pass)).toEqual(pitches(beats, pass));
      if (!doubled.includes(pass)) expect(of(song, pass)).toEqual(of(beats, pass));
    }
  const busy = sure(busyOf(inPass, createMemory().at(inPass)).get(part));
  expect([verse, chorus, again, last].map((p) => sure(busy.get(p)).attacks)).toEqual([4, 4, 8, 4]);
  const out = edit(inPass, { do: "setPass", pass: last, muted: [part] });
  expect(sure(busyOf(out, createMemory().at(out)).get(part)).get(last)).toEqual({ attacks: 0, muted: true });
});

test("any row of edits of the form leaves a song whose form and sound agree", () => {
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.nat(5), fc.nat(6), fc.nat(6), fc.integer({ min: -5, max: 5 })), { maxLength: 14 }),
      (steps) => {
        let song = two();
        for (const [kind, a, b, n] of steps) {
          const pass = nth(song.form, a % song.form.length);
          const e: Edit = nth(
            [
              { do: "addPass", section: `s${(a % 2) + 1}`, at: b % (song.form.length + 1) } as const,
              { do: "movePass", pass: pass.id, to: b % (song.form.length + 1) } as const,
              { do: "setPass", pass: pass.id, transpose: n } as const,
              { do: "setPass", pass: pass.id, bars: [a % 2, (a % 2) + 1] as [number, number] } as const,
              { do: "removePass", pass: pass.id } as const,
              { do: "addPass", section: pass.sectionId, like: pass.id } as const,
            ],
            kind,
          );
          const done = applyEdit(song, e);
          if (done.ok) song = done.value.song;
        }
        const form = formOf(song);
        const real = realize(song);
        expect(form.map((p) => [p.id, p.start, p.bars])).toEqual(real.sections.map((s) => [s.pass, s.start, s.bars]));
        expect(new Set(form.map((p) => p.id)).size).toBe(form.length);
      },
    ),
    { numRuns: 60, seed: 3 },
  );
});
