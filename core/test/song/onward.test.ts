import { firstOf, lastOf, nth, sure } from "../../src/base/list";
import fc from "fast-check";
import { analyzeSection } from "../../src/hear/harmony/analyze";
import { bassLines } from "../../src/write/bass/write";
import { BASS_STYLES } from "../../src/write/bass/styles";
import { checkSong } from "../../src/judge/check/check";
import { firstNote, waysOn } from "../../src/song/onward";
import { harmonizeMelody } from "../../src/arrange/reharm/harmonize";
import { judgeProgression } from "../../src/arrange/reharm/verdict";
import { mod, noteOf, pitchClass, pitchMidi } from "../../src/theory/pitch/pitch";
import { must } from "../../src/base/result";
import { passEndings } from "../../src/write/bass/endings";
import { realize } from "../../src/song/realize";
import { reharmonize } from "../../src/arrange/reharm/reharmonize";
import { voiceSection } from "../../src/arrange/voicing/section";
import type { Edit } from "../../src/song/edits/list";
import type { Song } from "../../src/song/schema/song";
import { motionBetween } from "../../src/theory/motion/motion";
import { edit, notesOf, songWith } from "../helpers";

/** A verse in F of four bars before a chorus that begins on Db. */
function verseAndChorus(verse: string, chorus: string, bass: readonly string[] = []): Song {
  const song = edit(songWith({ key: "F major", line: verse }), { do: "addSection", name: "Chorus", bars: 2 });
  const id = nth(song.sections, 1).id;
  return edit(
    song,
    { do: "setLine", section: id, line: chorus },
    { do: "setNotes", section: id, part: "bass", notes: notesOf(bass) },
  );
}
const firstRoot = (symbol: string) => pitchClass(sure(/^[A-G][#b]?/.exec(symbol))[0]);
/** By step, by a fifth or fourth. */
const LEADS = [1, 2, 5, 7, 10, 11];

test("a verse in F before a chorus on Db: the last note of every style leads there by step or fifth, and says so", () => {
  const song = verseAndChorus("| F | Bb | C7 | F |", "| Db | Ab |");
  const led = BASS_STYLES.filter((s) => !s.pedals && !s.sustains);
  expect(led.length).toBeGreaterThan(8);
  for (const style of led)
    for (const line of must(bassLines(song, { section: "s1", part: "bass", style: style.id }))) {
      const last = lastOf([...line.notes].sort((a, b) => a.start - b.start));
      expect([style.id, line.title, LEADS.includes(mod(pitchMidi(last.pitch) - firstRoot("Db"), 12))]).toEqual([
        style.id,
        line.title,
        true,
      ]);
      expect(last.start).toBeGreaterThanOrEqual(4 * 1920 - 480);
    }
});

test("alone the same verse leads back to its own beginning", () => {
  const song = songWith({ key: "F major", line: "| F | Bb | C7 | Db |" });
  const [line] = must(bassLines(song, { section: "s1", part: "bass", style: "walking" }));
  const last = lastOf(sure(line).notes);
  expect(LEADS.includes(mod(pitchMidi(last.pitch) - firstRoot("F"), 12))).toBe(true);
});

test("a turnaround is offered before what begins at home, in the loop or in the next section, and nowhere else", () => {
  const verse = "| F | Bb | C7 | F |";
  const turns = (song: Song) =>
    [0.2, 0.6, 0.9]
      .flatMap((range) =>
        reharmonize({ song, section: "s1", chordIds: [lastOf(firstOf(song.sections).chords).id], range }),
      )
      .filter((o) => o.technique === "turnaround")
      .map((o) => sure(firstOf(o.reasons).params).first);
  expect(turns(songWith({ key: "F major", line: verse }))).toContain("F");
  expect(turns(verseAndChorus(verse, "| Fmaj7 | Bb |"))).toContain("Fmaj7");
  expect(turns(verseAndChorus(verse, "| Db | Ab |"))).toEqual([]);
});

test("a loop stands still where it comes back as it is, not where the next pass is higher", () => {
  const song = edit(
    songWith({ line: "| C | Am | F | C |" }),
    { do: "setProfile", profile: "loop" },
    { do: "addPass", section: "s1" },
  );
  const ends = (s: Song) => checkSong(s).filter((f) => f.rule === "loop-end").length;
  expect(ends(song)).toBe(1);
  expect(ends(edit(song, { do: "setPass", pass: nth(song.form, 1).id, transpose: 2 }))).toBe(0);
});

test("random verses and choruses: what leads on leads to the first note that is written there, wherever it is", () => {
  const roots = ["C", "Db", "D", "Eb", "E", "F", "Gb", "G", "Ab", "A", "Bb", "B"];
  fc.assert(
    fc.property(
      fc.constantFrom(...roots),
      fc.constantFrom(...roots),
      fc.constantFrom("2", "1"),
      (end, begin, octave) => {
        if (end === begin) return;
        const song = verseAndChorus(`| F | Bb | C7 | ${end} |`, `| ${begin} | F |`, [`0 ${begin}${octave} 4`]);
        const [line] = must(bassLines(song, { section: "s1", part: "bass", style: "kick-locked" }));
        const last = lastOf([...sure(line).notes].sort((a, b) => a.start - b.start));
        expect([end, begin, last.pitch, LEADS.includes(mod(pitchMidi(last.pitch) - firstRoot(begin), 12))]).toEqual([
          end,
          begin,
          last.pitch,
          true,
        ]);
      },
    ),
    { numRuns: 60, seed: 3 },
  );
});

describe("ways on", () => {
  test("are counted by passes, told apart by what follows; a pass that closes the song or stops early has none", () => {
    const song = verseAndChorus("| F | Bb |", "| Db | Ab |", ["0 Db2 4"]);
    const chorus = nth(song.sections, 1).id;
    // verse chorus verse verse chorus
    const form = edit(
      song,
      { do: "addPass", section: "s1" },
      { do: "addPass", section: "s1" },
      { do: "addPass", section: chorus },
    );
    const ways = waysOn(form, "s1");
    expect(ways.map((w) => [w.passes.length, w.into, w.symbol, w.again])).toEqual([
      [2, "Chorus", "Db", false],
      [1, "Verse", "F", true],
    ]);
    expect(firstNote(form, firstOf(ways), "bass")).toMatchObject({ pitch: "Db2", after: 0 });
    expect(waysOn(form, chorus).map((w) => [w.into, w.symbol])).toEqual([["Verse", "F"]]);
    const early = edit(form, { do: "setPass", pass: firstOf(form.form).id, bars: [0, 1] });
    expect(waysOn(early, "s1").map((w) => w.passes.length)).toEqual([1, 1]);
  });

  test("what follows is named in the key of the section that ends: moved together they go on alike", () => {
    const song = verseAndChorus("| F | Bb |", "| Db | Ab |", ["0 Db2 4"]);
    const both = song.form.map((p): Edit => ({ do: "setPass", pass: p.id, transpose: 3 }));
    const [plain, moved] = [waysOn(song, "s1"), waysOn(edit(song, ...both), "s1")];
    expect(moved.map(({ symbol, key }) => [symbol, key])).toEqual(plain.map(({ symbol, key }) => [symbol, key]));
    const higher = waysOn(edit(song, nth(both, 1)), "s1");
    expect(firstOf(higher).symbol).toBe("Fb");
    expect(noteOf(sure(firstNote(edit(song, nth(both, 1)), firstOf(higher), "bass")).pitch)).toBe("Fb");
  });
});

describe("a section that is followed by different ones", () => {
  /** Verse, chorus on Db, verse, bridge on B, verse once more: three ways on. */
  function song(): Song {
    const base = verseAndChorus("| F | Bb | C7 | F |", "| Db | Ab |", ["0 Db2 4"]);
    const chorus = nth(base.sections, 1).id;
    const two = edit(base, { do: "addPass", section: chorus, at: 0 }, { do: "removePass", pass: nth(base.form, 1).id });
    const bridged = edit(two, { do: "addSection", name: "Bridge", bars: 2 });
    const bridge = nth(bridged.sections, 2).id;
    // chorus verse bridge + chorus once more behind a verse
    return edit(
      bridged,
      { do: "setLine", section: bridge, line: "| B | E |" },
      { do: "addPass", section: "s1", at: 0 },
      { do: "addPass", section: "s1" },
      { do: "addPass", section: chorus },
    );
  }

  test("is written once, and the pass that goes elsewhere gets its own last bar; every end leads on", () => {
    const start = song();
    expect(waysOn(start, "s1").map((w) => [w.symbol, w.passes.length])).toEqual([
      ["Db", 2],
      ["B", 1],
    ]);
    const request = { section: "s1", part: "bass", style: "walking" };
    const [line] = must(bassLines(start, request));
    const edits = passEndings(start, request, sure(line).notes);
    const done = edit(start, { do: "setNotes", section: "s1", part: "bass", notes: sure(line).notes }, ...edits);
    const own = done.form.filter((p) => p.own);
    expect(own.map((p) => [p.sectionId, sure(p.own).map((o) => [o.bars, Object.keys(sure(o.notes))])])).toEqual([
      ["s1", [[[3, 4], ["bass"]]]],
    ]);
    const real = sure(realize(done).parts.find((p) => p.id === "bass")).notes;
    done.form.forEach((pass, i) => {
      const next = done.form[i + 1];
      if (pass.sectionId !== "s1" || !next) return;
      const goal = next.sectionId === nth(done.sections, 1).id ? "Db" : "B";
      expect([
        i,
        LEADS.includes(mod(sure(real.findLast((n) => n.pass === pass.id)).midi - firstRoot(goal), 12)),
      ]).toEqual([i, true]);
    });
    // Asked again, nothing more is needed.
    expect(passEndings(done, request, sure(line).notes)).toEqual([]);
  });

  test("a section that repeats itself and then goes on leads back once and on once", () => {
    const base = edit(verseAndChorus("| F | Bb | C7 | Gb |", "| Db | Ab |", ["0 Db2 4"]), {
      do: "addPass",
      section: "s1",
      at: 0,
    });
    const request = { section: "s1", part: "bass", style: "walking" };
    const [line] = must(bassLines(base, request));
    const done = edit(
      base,
      { do: "setNotes", section: "s1", part: "bass", notes: sure(line).notes },
      ...passEndings(base, request, sure(line).notes),
    );
    const real = sure(realize(done).parts.find((p) => p.id === "bass")).notes;
    const last = (i: number) => sure(real.findLast((n) => n.pass === nth(done.form, i).id)).midi;
    expect(LEADS.includes(mod(last(0) - firstRoot("F"), 12))).toBe(true);
    expect(LEADS.includes(mod(last(1) - firstRoot("Db"), 12))).toBe(true);
  });
});

describe("harmony looks over the border", () => {
  test("a dominant at the end of a verse is that of the chorus, not of its own beginning", () => {
    const song = verseAndChorus("| F | Dm | Bbm | Ab7 |", "| Db | Ab |");
    const report = analyzeSection(song, "s1");
    expect(report.chords.at(-1)).toMatchObject({ roman: "V7/bVI", category: "applied-dominant" });
    expect(sure(report.join).text).toMatch(/^A♭7 on to D♭, where Chorus begins/);
    expect(sure(analyzeSection(songWith({ key: "F major", line: "| F | Dm | Bbm | Ab7 |" }), "s1").join).text).toMatch(
      /back to F/,
    );
  });

  test("an open ending of a harmonized tune is the dominant of what follows", () => {
    const melody = ["0 A4 2", "2 F4 2", "4 Bb4 2", "6 D5 2", "8 C5 2", "10 Bb4 2", "12 Eb5 2", "14 C5 2"];
    const song = edit(verseAndChorus("| F | F | F | F |", "| Db | Ab |"), {
      do: "setNotes",
      section: "s1",
      part: "melody",
      notes: notesOf(melody),
    });
    const last = harmonizeMelody({ song, section: "s1", part: "melody", rhythm: "bar", ending: "open" }).map(
      (h) => lastOf(h.events).symbol,
    );
    expect(last[0]).toBe("Ab7");
    const alone = songWith({ key: "F major", melody });
    expect(
      lastOf(
        firstOf(harmonizeMelody({ song: alone, section: "s1", part: "melody", rhythm: "bar", ending: "open" })).events,
      ).symbol,
    ).toMatch(/^C/);
  });

  test("a progression that is reharmonized leads into the chorus: less motion to its chord than to its own beginning", () => {
    const song = verseAndChorus("| F | Bb | Gm | C7 |", "| Db | Ab |");
    expect(judgeProgression(song, "s1").text).toMatch(/on to Chorus/);
    const tops = reharmonize({ song, section: "s1", chordIds: [nth(firstOf(song.sections).chords, 3).id], range: 0.6 });
    expect(tops.map((c) => lastOf(c.chords).symbol).some((s) => /^(Ab|D)/.test(s))).toBe(true);
  });

  test("the voicings of the last chord lie near the chorus where that is far away", () => {
    const base = verseAndChorus("| F | Bb | Gm | C7 |", "| Db | Ab |");
    const chorus = nth(base.sections, 1).id;
    const high = edit(base, {
      do: "pinVoicing",
      section: chorus,
      part: "keys",
      chord: firstOf(nth(base.sections, 1).chords).id,
      pitches: ["F4", "Ab4", "Db5", "F5"],
    });
    const way = must(voiceSection(high, "s1", "keys"));
    const alone = must(voiceSection({ ...high, form: high.form.slice(0, 1) }, "s1", "keys"));
    const goal = ["F4", "Ab4", "Db5", "F5"].map(pitchMidi);
    const motion = (v: typeof way) => motionBetween(lastOf(v.chords).pitches.map(pitchMidi), goal);
    expect(motion(way)).toBeLessThan(motion(alone));
    expect(way.chords).toHaveLength(4);
    expect(way.ids).toHaveLength(4);
  });
});
