import { demoSongs } from "../../core/test/demos";
import {
  Bass,
  type BassLine,
  Check,
  Comp,
  type Edit,
  firstOf,
  Groove,
  lastOf,
  Midi,
  Meter,
  must,
  nth,
  Pitch,
  Song,
  SongFile,
  sure,
  Tune,
} from "../../core/src/index";
import { acceptEdit } from "../app/commands/audition";
import { acceptLine, linesId, writeLines } from "../app/commands/written";
import { acceptOffer } from "../app/commands/offers";
import { paintHits } from "../app/commands/drums";
import { addSection } from "../app/commands/sections";
import { useResults } from "../app/store/results";
import { chooseChord, showSection } from "../app/store/selection";
import { songNow, useSong } from "../app/store/song";
import { workers } from "../app/workers/sync";
import { guessUses, midiChoices, usesOf, writtenText } from "../kit/midiChoices";
import { inBars, keyText, milliseconds, oneDecimal, percent, plainSigns, ticksOf, typedPitch } from "../kit/texts";
import { WORKSPACES } from "../workspaces";
import { bench, idle, layouts, make, section, symbols } from "./bench";

jest.mock("../app/workers/client");
jest.mock("../app/audio/sound");

const demos = demoSongs();
const findings = () => useResults.getState().findings;
const kept = () => must(Song.parse(JSON.stringify(songNow())));

test("from nothing to a song: chords, kick, bass line, a finding fixed, all of it undone and redone", async () => {
  await bench();
  const empty = songNow();
  await make(
    { do: "setLine", section: "s1", line: "| Ebmaj9 | Cm7 F7sus4 F7 | Bbm7 Eb9 | Abmaj7 |" },
    { do: "setKey", key: "Eb major" },
  );
  expect(layouts().every((l) => l.split(" ").length === 4)).toBe(true);
  paintHits("s1", "kick", [0, 1200], { on: true, quiet: false });
  await make({ do: "repeatDrums", section: "s1", bar: 0 });
  await writeLines("s1", "bass", 1);
  const [line] = useResults.getState().lines as BassLine[];
  expect(sure(line).report.accentsMet).toBe(sure(line).report.accents);
  acceptLine({ do: "setNotes", section: "s1", part: "bass", notes: sure(line).notes });
  await idle();
  expect(useResults.getState().lines).toEqual([]);
  expect(findings().filter((f) => f.rule === "uncovered-accent")).toEqual([]);
  expect(sure(useResults.getState().report).report.accentsMet).toBe(8);
  // Take the note off the first kick: it is found, and its fix puts one there.
  await make({ do: "removeNotes", section: "s1", part: "bass", notes: [firstOf(sure(section().notes.bass)).id] });
  const finding = sure(findings().find((f) => f.rule === "uncovered-accent"));
  expect(finding.message).toContain("bar 1, beat 1");
  acceptEdit(firstOf(finding.fixes).edit);
  await idle();
  expect(findings().filter((f) => f.rule === "uncovered-accent")).toEqual([]);
  const full = songNow();
  while (useSong.getState().past.length) useSong.getState().undo();
  expect(songNow()).toBe(empty);
  while (useSong.getState().future.length) useSong.getState().redo();
  expect(songNow()).toBe(full);
  expect(kept()).toEqual(full);
});

test("groove: a pattern, a variation of one lane, accents by hand, and who misses whom", async () => {
  await bench();
  const meter = Song.meterOf(songNow(), section());
  const pattern = firstOf(Groove.PATTERNS);
  await make(
    { do: "setLine", section: "s1", line: "| Dm | Bb | F | C |" },
    { do: "setDrums", section: "s1", lanes: Groove.lanes(pattern, meter, 4) },
    { do: "setLane", section: "s1", drum: "kick", change: { swing: 0.6, offset: 10, name: "low drum" } },
  );
  paintHits("s1", "rim", [840, 2760, 4680, 6600], { on: true, quiet: false });
  await idle();
  const view = sure(await workers.judge.accents("s1", "bass"));
  expect(view.map.rows.some((r) => r.name.toLowerCase().includes("low drum"))).toBe(true);
  expect(view.plan.length).toBeGreaterThan(0);
  expect(sure(section().groove.lanes.find((l) => l.drum === "rim")).hits).toHaveLength(4);
});

test("chords: one is reharmonized, a row as a whole, and a reason is left behind that says why", async () => {
  await bench();
  await make({ do: "setLine", section: "s1", line: "| Cmaj7 | Am7 | Dm7 | G7 |" });
  chooseChord(nth(section().chords, 3).id);
  const offers = await workers.writer.reharmonize({
    section: "s1",
    chordIds: [nth(section().chords, 3).id],
    range: 0.6,
  });
  const tritone = sure(must(offers).find((c) => c.technique === "tritone" || /tritone/i.test(JSON.stringify(c))));
  const offer = {
    id: "x",
    label: "x",
    edit: { do: "setChords", section: "s1", from: tritone.from, to: tritone.to, chords: tritone.chords } as Edit,
    from: tritone.from,
    to: tritone.to,
  };
  const before = layouts();
  await acceptOffer(offer);
  await idle();
  expect(symbols()).toMatch(/^Cmaj7 Am7 Dm7 Db/);
  expect(nth(section().chords, 3).why).toBeDefined();
  // The others stay as they were laid out.
  expect(layouts().slice(0, 3)).toEqual(before.slice(0, 3));
  const whole = must(await workers.writer.reharmonizeSection({ section: "s1", range: 0.5 } as never));
  expect(whole.length).toBeGreaterThan(1);
});

test("voicings: what laying out anew gains is said, and taking it gains it", async () => {
  await bench();
  await make({ do: "setLine", section: "s1", line: "| Cmaj7 | Am7 | Dm7 | G7 | Em7 | A7 | Dm7 | G7 |" });
  expect(must(await workers.writer.anew("s1", "keys"))).toBeNull();
  // Pinned far away and let go again: the others stay where they are, and so does this one.
  const chord = nth(section().chords, 2);
  await make(
    { do: "pinVoicing", section: "s1", part: "keys", chord: chord.id, pitches: ["F4", "A4", "C5", "E5"] },
    { do: "pinVoicing", section: "s1", part: "keys", chord: chord.id, pitches: null },
  );
  const anew = sure(must(await workers.writer.anew("s1", "keys")));
  expect(anew.gain).toBeGreaterThan(0);
  expect(anew.changed).toBeGreaterThan(0);
  await make({ do: "setVoicings", section: "s1", part: "keys", pitches: anew.pitches });
  expect(must(await workers.writer.anew("s1", "keys"))).toBeNull();
  expect(sure(useResults.getState().voicing.keys).motion).toBe(anew.motion[0]);
});

test("bass: a second sound shares the line; a tuned drum takes it over and gives it back", async () => {
  await bench(nth(demos, 3));
  const [first, second] = songNow().parts.filter((p) => p.role === "bass");
  const [offer] = must(Bass.layerOffers(songNow(), "s1", sure(first).id, sure(second).id));
  await make(sure(offer).edit);
  expect(sure(section().notes[sure(second).id]).length).toBeGreaterThan(0);
  const line = sure(section().notes[sure(first).id]);
  await make(
    must(
      Bass.fromDrum(songNow(), "s1", sure(first).id, {
        drum: "kick",
        how: { rhythm: "line", glides: false, instead: true },
      }),
    ),
  );
  expect(section().notes[sure(first).id]).toEqual([]);
  expect(sure(section().groove.lanes.find((l) => l.drum === "kick")).tuned).toBe(true);
  await make(Bass.untuneDrum(songNow(), "s1", sure(first).id, "kick"));
  expect(sure(section().notes[sure(first).id]).map((n) => [n.start, n.pitch])).toEqual(
    line.map((n) => [n.start, n.pitch]),
  );
  expect(sure(section().groove.lanes.find((l) => l.drum === "kick")).tuned).toBeUndefined();
});

test("check: every finding of a section full of faults has a place, parts that are there, and fixes that can be made", async () => {
  await bench();
  await make(
    { do: "setLine", section: "s1", line: "| C | Am | F | G7 |" },
    {
      do: "setNotes",
      section: "s1",
      part: "bass",
      notes: ["C#2", "A3", "B1", "F#2"].map((pitch, i) => ({ start: i * 1920, duration: 1920, pitch, velocity: 90 })),
    },
    {
      do: "setNotes",
      section: "s1",
      part: "melody",
      notes: ["G5", "C#5", "F3", "Ab4"].map((pitch, i) => ({ start: i * 1920, duration: 1920, pitch, velocity: 90 })),
    },
  );
  paintHits("s1", "kick", [480, 2400], { on: true, quiet: false });
  await idle();
  const all = findings();
  expect(all.length).toBeGreaterThan(5);
  const parts = new Set(songNow().parts.map((p) => p.id));
  const fixed = [];
  for (const f of all) {
    expect([f.message, f.where.parts.every((p) => parts.has(p)), f.where.tick >= 0]).toEqual([f.message, true, true]);
    // A fix mends the place it is offered for; the one for all places mends them all.
    const all = f.forAll.map((fix) => ({ fix, ids: f.places.map((p) => p.id) }));
    for (const { fix, ids } of [...f.places.flatMap((p) => p.fixes.map((fix) => ({ fix, ids: [p.id] }))), ...all]) {
      const before = songNow();
      await make(fix.edit);
      const now = new Set(Check.song(songNow()).flatMap((x) => x.places.map((p) => p.id)));
      fixed.push([fix.label, ids.some((id) => now.has(id))]);
      useSong.getState().undo();
      await idle();
      expect(songNow()).toBe(before);
    }
  }
  expect(fixed.length).toBeGreaterThan(5);
  expect(fixed.filter(([, still]) => still)).toEqual([]);
  // Left with a reason, it is no longer open; judged again it is.
  await make({ do: "waive", finding: firstOf(all).id, reason: "meant so" });
  expect(sure(findings().find((f) => f.id === firstOf(all).id)).waived).toBe("meant so");
  await make({ do: "unwaive", waiver: firstOf(songNow().waivers).id });
  expect(sure(findings().find((f) => f.id === firstOf(all).id)).waived).toBeUndefined();
});

test("form and hand over: a second section, its own settings, the files and back again", async () => {
  await bench(firstOf(demos));
  addSection(section());
  await idle();
  const copy = lastOf(songNow().sections);
  showSection(copy.id);
  await make({ do: "setPlaying", part: "keys", section: copy.id, voicing: { style: "shell" } });
  expect(sure(sure(lastOf(songNow().sections).playing).keys).voicing).toEqual({ register: -14, style: "shell" });
  expect(layouts("keys", 0)).toEqual(
    firstOf(firstOf(demos).sections).chords.map((c) => sure(sure(c.voicings).keys).pitches.join(" ")),
  );
  const back = must(Song.parse(SongFile.write(songNow())));
  expect(back).toEqual(songNow());
  const read = must(Midi.read(Midi.write(songNow(), { swing: "straight" })));
  expect(read.tracks.length).toBeGreaterThan(3);
  await make({ do: "removeSection", section: copy.id });
  expect(songNow().sections).toHaveLength(2);
});

describe("workspaces say which lanes they are about", () => {
  test("each names parts of the song, the first the most; whatever is chosen is among them", () => {
    for (const demo of demos)
      for (const w of WORKSPACES) {
        const focus = w.focus({ song: demo, voicePart: "", bassPart: "", linePart: "", findings: [], chosen: "" });
        expect([w.id, focus.every((id) => demo.parts.some((p) => p.id === id)), new Set(focus).size]).toEqual([
          w.id,
          true,
          focus.length,
        ]);
        expect(
          w.focus({
            song: demo,
            voicePart: "nobody",
            bassPart: "nobody",
            linePart: "nobody",
            findings: [],
            chosen: "nobody",
          }),
        ).not.toContain("nobody");
      }
    const of = (id: string) => sure(WORKSPACES.find((w) => w.id === id));
    const context = { song: nth(demos, 3), voicePart: "", bassPart: "", linePart: "", findings: [], chosen: "" };
    expect(of("bass").focus(context)[0]).toBe("bass");
    expect(of("groove").focus(context)[0]).toBe("drums");
    expect(of("check").focus({ ...context, chosen: "melody" })[0]).toBe("melody");
  });
});

describe("a MIDI file", () => {
  const contents = must(Midi.read(Midi.write(nth(demos, 1), { swing: "straight" })));
  const settings = {
    bars: [1, 4] as [number, number],
    unit: "bar" as const,
    keep: { tempo: true, meter: true, key: false },
    drumMap: {},
    addDrums: false,
  };

  test("what its tracks are is guessed by channel, register and number of voices", () => {
    const uses = guessUses(contents, undefined);
    const useOf = (name: RegExp) => uses[sure(contents.tracks.find((t) => name.test(t.name))).id];
    expect([useOf(/Bass/), useOf(/piano/i), useOf(/Clarinet/), useOf(/Drums/i)]).toEqual([
      "bass",
      "chords",
      "melody",
      "drums",
    ]);
    expect(Object.values(guessUses(contents, "drums")).filter((u) => u === "drums")).toHaveLength(1);
    expect(Object.values(guessUses(contents, "bass")).filter((u) => u === "bass")).toHaveLength(1);
    expect([usesOf(true, undefined), usesOf(false, "bass")]).toEqual([
      ["–", "drums"],
      ["–", "bass"],
    ]);
  });

  test("bars are counted from one for people and from nought for the importer; one track can be chords and bass", () => {
    const uses = { ...guessUses(contents, undefined) };
    const piano = sure(contents.tracks.find((t) => /piano/i.test(t.name))).id;
    const choices = midiChoices(contents, uses, settings, { file: "strut.mid", parts: {} });
    expect(choices).toMatchObject({ bars: [0, 4], chords: [piano], tempo: true, key: false, file: "strut.mid" });
    const both = midiChoices(contents, { [piano]: "chords and bass" }, settings, {
      file: "strut.mid",
      parts: { bassPart: "bass" },
    });
    expect(both).toMatchObject({ chords: [piano], bass: piano, bassPart: "bass" });
    expect(both).not.toHaveProperty("melody");
    expect(writtenText(choices, 1, undefined, "Verse")).toBe(
      "Written into Verse: 1 chord, the tune, the bass, the drums.",
    );
    expect(writtenText(both, 3, "bass", "Verse")).toBe("Written into Verse: the bass.");
  });
});

describe("texts", () => {
  test("a typed pitch is read with small letters and real accidentals, and refused with its reason", () => {
    const said: string[] = [];
    const read = (text: string) => typedPitch(text, (p) => void said.push(p.message));
    expect([read("eb4"), read(" F♯3 "), read("B♭2"), read("C-1")]).toEqual(["Eb4", "F#3", "Bb2", "C-1"]);
    expect([read("H4"), read("C"), read("")]).toEqual([null, null, null]);
    expect(said[0]).toBe('"H4" is not a pitch');
  });

  test("keys are shown with real accidentals, and read with them", () => {
    expect([keyText("Eb major"), keyText("F# dorian"), keyText("B minor")]).toEqual([
      "E♭ major",
      "F♯ dorian",
      "B minor",
    ]);
    for (const key of ["Eb major", "F# minor", "Bb mixolydian"]) expect(plainSigns(keyText(key))).toBe(key);
  });

  test("numbers", () => {
    expect([oneDecimal(2), oneDecimal(0.25), oneDecimal(-1.04)]).toEqual(["2.0", "0.3", "-1.0"]);
    expect([percent(0.126), percent(1)]).toEqual(["13\u00a0%", "100\u00a0%"]);
    expect([milliseconds(480, 120), milliseconds(120, 100), ticksOf(500, 120)]).toEqual([500, 150, 480]);
    for (const ms of [-30, 0, 7, 42]) expect(Math.abs(milliseconds(ticksOf(ms, 96), 96) - ms)).toBeLessThanOrEqual(1);
  });
});

test("every rhythm a part can play leaves notes, at every place of the chords, inside the section", async () => {
  await bench(firstOf(demos));
  await make({
    do: "addPart",
    name: "Guitar",
    role: "chords",
    instrument: "guitar",
    link: { kind: "voicing", loop: true },
  });
  const id = sure(songNow().parts.find((p) => p.name === "Guitar")).id;
  for (const pattern of Comp.PATTERNS.slice(0, 6)) {
    await make({ do: "setPlaying", part: id, comp: { rhythm: pattern.id } });
    const layout = section().chords.every((c) => c.voicings?.[id]?.pitches.every((p) => Pitch.midi(p) >= 40));
    expect([pattern.id, layout]).toEqual([pattern.id, true]);
  }
  expect(linesId("bass", "s1", id)).toBe(`bass:s1:${id}`);
});

test("a line of music stands bar by bar where it is long, and says the same", () => {
  const meter = must(Meter.parse("4/4"));
  const line = (bars: number) => Array.from({ length: bars }, () => "C4 q D E F").join(" | ");
  expect(inBars("x".repeat(498) + " | " + "x".repeat(499))).toContain(" | ");
  expect(inBars("x".repeat(498) + " | " + "x".repeat(500))).not.toContain(" | ");
  const long = line(120);
  expect(inBars(long).split("\n")).toHaveLength(120);
  expect(must(Tune.parse(inBars(long), { meter }))).toEqual(must(Tune.parse(long, { meter })));
});
