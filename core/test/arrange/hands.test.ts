import fc from "fast-check";
import guitar from "@tombatossals/chords-db/lib/guitar.json";
import ukulele from "@tombatossals/chords-db/lib/ukulele.json";
import { firstOf, nth, sure } from "../../src/base/list";
import { must } from "../../src/base/result";
import { changeVoices, foreignVoices, restingStrokes, type VoiceRequest } from "../../src/arrange/voicing/hands/voices";
import { unheld } from "../../src/arrange/voicing/refit";
import { voicePaths } from "../../src/arrange/voicing/path";
import { askVoicing, pathOf, voiceSection } from "../../src/arrange/voicing/section";
import { tablatureAt } from "../../src/files/notation/tab";
import { engrave } from "../../src/files/notation/engrave";
import { follow } from "../../src/judge/follow/follow";
import { applyEdit } from "../../src/song/edits";
import type { Edit } from "../../src/song/edits/list";
import { parseSong, partOf } from "../../src/song/document";
import { passView } from "../../src/song/passView";
import { COMP_KINDS } from "../../src/song/comp/kinds";
import { linkedNotes } from "../../src/song/linked";
import { realize } from "../../src/song/realize";
import type { Song } from "../../src/song/schema/song";
import type { HeldShape } from "../../src/song/schema/material";
import { fretReadings, parseFrets } from "../../src/theory/chord/frets";
import { pitchMidi } from "../../src/theory/pitch/pitch";
import { edit, songWith } from "../helpers";

const BAR = 1920;
const made = (song: Song, ...changes: Edit[]): Song => changes.reduce((s, c) => edit(s, c, ...follow(s, c)), song);
const section = (song: Song) => firstOf(song.sections);
const layout = (song: Song, chord = 0, part = "keys") => nth(section(song).chords, chord).voicings?.[part];
const withInstrument = (instrument: string, song = songWith({})) =>
  made(song, { do: "setPart", part: "keys", instrument, name: "Player" });

/** A shape that hands have found, as the frets workspace enters it: behind what stands there, a bar long. */
function entered(song: Song, frets: readonly (number | null)[], capo = 0, strings?: string[]): Song {
  const read = must(fretReadings({ frets, capo, ...(strings ? { tuning: strings } : {}) }));
  const at = section(song).chords.length * BAR;
  const pitches = [...read.pitches].sort((a, b) => pitchMidi(a) - pitchMidi(b));
  return made(song, {
    do: "setChords",
    section: "s1",
    from: at,
    to: at + BAR,
    chords: [
      {
        start: at,
        duration: BAR,
        symbol: firstOf(read.sounding).symbol,
        voicings: { keys: { pitches, pinned: true, shape: { frets: [...frets], capo } } },
      },
    ],
  });
}

/** What comes back of a part's shapes: fret for fret as the path shows them. */
const shapesShown = (song: Song) =>
  must(voiceSection(song, "s1", "keys")).chords.map((c) => c.shape?.frets.map((f) => f ?? "x").join(" "));

describe("chords as they were played", () => {
  const FOUR = ["8x99xx", "x5x56x", "xx778x", "x3203x"];

  test("four shapes entered one after another come back as four chords, fret for fret and note for note", () => {
    const song = FOUR.reduce((s, text) => entered(s, must(parseFrets(text))), withInstrument("guitar"));
    expect(section(song).chords).toHaveLength(4);
    expect(shapesShown(song)).toEqual(FOUR.map((t) => [...t].join(" ")));
    // C and the tones over it, on strings E 8, D 9 and G 9: C3 B3 E4.
    expect(layout(song)?.pitches).toEqual(["C3", "B3", "E4"]);
    // What is laid out anew leaves them, and so does a file.
    const again = made(song, { do: "setPlaying", part: "keys", voicing: { style: "comping" } });
    expect(shapesShown(must(parseSong(JSON.parse(JSON.stringify(again)))))).toEqual(shapesShown(song));
    // The notes that sound are those of the strings.
    const first = sure(realize(again).parts.find((p) => p.id === "keys")).notes.filter((n) => n.start === 0);
    expect(first.map((n) => n.midi)).toEqual([48, 59, 64]);
  });

  test("the tablature has a shape on the strings it was found on", () => {
    // E3 G3 C4 G4 can lie in the first three frets too.
    const song = entered(withInstrument("guitar"), must(parseFrets("x7558x")));
    const part = sure(partOf(song, "keys"));
    const staff = firstOf(must(engrave(song, "s1", "keys")).staves);
    const tab = sure(tablatureAt(song, { kind: "section", id: "s1" }, part, staff));
    const [first] = nth(tab.measures, 0);
    expect(first?.places).toEqual([
      { string: 1, fret: 7 },
      { string: 2, fret: 5 },
      { string: 3, fret: 5 },
      { string: 4, fret: 8 },
    ]);
  });

  interface Data {
    chords: Record<string, { positions: { frets: number[]; baseFret: number; capo?: boolean }[] }[]>;
  }
  test.each([
    ["guitar", guitar as unknown as Data, ["E2", "A2", "D3", "G3", "B3", "E4"]],
    ["ukulele", ukulele as unknown as Data, ["G4", "C4", "E4", "A4"]],
  ])("every %s shape of the open data is entered and given back identically (chords-db, MIT)", (id, data, strings) => {
    const shapes = Object.values(data.chords)
      .flat()
      .flatMap((c) => c.positions)
      .map(({ frets, baseFret }) => frets.map((f) => (f < 0 ? null : f && f + baseFret - 1)));
    const bare = withInstrument(id);
    let kept = 0;
    // Sixteen to a song: what is laid out beside them is not the matter here.
    for (let from = 0; from < shapes.length; from += 16) {
      const some = shapes.slice(from, from + 16).filter((frets) => fretReadings({ frets, tuning: strings }).ok);
      const chords = some.map((frets, i) => {
        const read = must(fretReadings({ frets, tuning: strings }));
        return {
          start: i * BAR,
          duration: BAR,
          symbol: read.sounding[0]?.symbol ?? "C",
          voicings: { keys: { pitches: read.pitches, pinned: true, shape: { frets, capo: 0 } } },
        };
      });
      const song = edit(bare, { do: "setChords", section: "s1", from: 0, to: some.length * BAR, chords });
      const { chords: asked, options } = pathOf(must(askVoicing(song, "s1", "keys")));
      const shown = firstOf(must(voicePaths(asked, options))).chords.map((c) =>
        c.shape?.frets.map((f) => f ?? "x").join(" "),
      );
      some.forEach((frets, i) => {
        expect(shown[i]).toBe(frets.map((f) => f ?? "x").join(" "));
        kept++;
      });
    }
    expect(kept).toBeGreaterThan(1000);
  });

  test("a capo is put on: what can be held with the same sound is held, the rest is named", () => {
    // D major at the nut; and F A C F with the open low strings' own notes, which a capo covers.
    const song = entered(entered(withInstrument("guitar"), must(parseFrets("xx0232"))), must(parseFrets("320003")));
    expect(unheld(song, sure(partOf(song, "keys")))).toEqual([]);
    const capo = made(song, { do: "setPlaying", part: "keys", voicing: { capo: 2 } });
    expect(layout(capo)?.pitches).toEqual(layout(song)?.pitches);
    // D3 A3 D4 F#4: the D shape of the nut is a C shape of the second fret; its D3 lies on the A string now.
    expect(layout(capo)?.shape).toMatchObject({ capo: 2 });
    // G2 lies under the capo's A2 … F#2 is its lowest string: G2 is the first fret there.
    expect(unheld(capo, sure(partOf(capo, "keys"))).map((u) => u.bar)).toEqual([2]);
    const off = made(capo, { do: "setPlaying", part: "keys", voicing: { capo: null } });
    expect(unheld(off, sure(partOf(off, "keys")))).toEqual([]);
    expect(section(off).chords.map((c) => c.voicings?.keys?.pitches)).toEqual(
      section(song).chords.map((c) => c.voicings?.keys?.pitches),
    );
  });

  test("a pass in another key takes closed shapes along by frets, and open ones by their sound alone", () => {
    const song = edit(
      entered(entered(withInstrument("guitar"), must(parseFrets("x35553"))), must(parseFrets("x32010"))),
      {
        do: "addPass",
        section: "s1",
      },
    );
    const pass = sure(song.form[1]).id;
    const up = edit(song, { do: "setPass", pass, transpose: 2 });
    const view = passView(up, pass);
    expect(layout(view)?.shape?.frets).toEqual([null, 5, 7, 7, 7, 5]);
    expect(layout(view, 1)?.shape).toBeUndefined();
    expect(layout(view, 1)?.pitches).toEqual(["D3", "F#3", "A3", "D4", "F#4"]);
    const played = realize(up).parts.find((p) => p.id === "keys");
    expect(
      sure(played)
        .notes.filter((n) => n.pass === pass && n.start === 4 * BAR)
        .map((n) => n.midi),
    ).toEqual(sure(layout(view)).pitches.map(pitchMidi));
  });

  test("power chords lie as hands play them: root, fifth and octave side by side on low strings (common practice)", () => {
    const song = made(withInstrument("guitar", songWith({ line: "| E5 | G5 | A5 | C5 | F5 | B5 |" })), {
      do: "setPlaying",
      part: "keys",
      voicing: { style: "power" },
    });
    for (const [i, text] of ["0 2 2 x x x", "3 5 5 x x x"].entries()) expect(shapesShown(song)[i]).toBe(text);
    for (const shape of shapesShown(song)) {
      const frets = sure(shape).split(" ");
      const first = frets.findIndex((f) => f !== "x");
      expect(first).toBeLessThan(2);
      const [root, fifth, octave] = frets.slice(first, first + 3).map(Number);
      expect([sure(fifth) - sure(root), sure(octave) - sure(root)]).toEqual([2, 2]);
      expect(frets.filter((f) => f !== "x")).toHaveLength(3);
    }
  });
});

const voices = (song: Song, request: Omit<VoiceRequest, "section">): Song =>
  made(song, must(changeVoices(song, { section: "s1", ...request })));
const notes = (song: Song, part = "keys") => linkedNotes(song, section(song), sure(partOf(song, part)));
/** Pitches of each stroke, low to high. */
function strokes(song: Song, part = "keys"): Record<number, string> {
  const out: Record<number, string> = {};
  for (const { note } of [...notes(song, part)].sort((a, b) => pitchMidi(a.note.pitch) - pitchMidi(b.note.pitch)))
    out[note.start] = `${out[note.start] ?? ""} ${note.pitch}`.trim();
  return out;
}
const id = (song: Song, start: number, pitch: string, part = "keys") =>
  sure(notes(song, part).find((n) => n.note.start === start && n.note.pitch === pitch)).note.id;
const pinned = (song: Song, pitches: string[], chord = 0): Song =>
  edit(song, { do: "pinVoicing", section: "s1", part: "keys", chord: nth(section(song).chords, chord).id, pitches });
const onBeats = (line = "| C | F |") =>
  made(songWith({ line }), { do: "setPlaying", part: "keys", comp: { rhythm: "beats" } });

describe("voices of a chord are notes", () => {
  test("a voice goes every time its chord is struck; the part stays linked, the layout is pinned", () => {
    const song = pinned(onBeats(), ["E3", "G3", "C4"]);
    const after = voices(song, { part: "keys", of: "chord", change: [{ id: id(song, 480, "G3"), pitch: "A3" }] });
    expect(layout(after)).toEqual({ pitches: ["E3", "A3", "C4"], pinned: true });
    for (const at of [0, 480, 960, 1440]) expect(strokes(after)[at]).toBe("E3 A3 C4");
    expect(partOf(after, "keys")?.link).toEqual(partOf(song, "keys")?.link);
    expect(nth(section(after).chords, 0).symbol).toBe("C");
  });

  test("a voice goes in one stroke alone; where the rhythm no longer strikes it rests and is named", () => {
    const song = pinned(onBeats(), ["E3", "G3", "C4"]);
    const after = voices(song, { part: "keys", of: "stroke", change: [{ id: id(song, 480, "G3"), pitch: "A3" }] });
    expect(strokes(after)).toMatchObject({ 0: "E3 G3 C4", 480: "E3 A3 C4", 960: "E3 G3 C4" });
    const resting = (s: Song) => restingStrokes(s, section(s), sure(partOf(s, "keys"))).map((r) => r.tick);
    expect(resting(after)).toEqual([]);
    const held = made(after, { do: "setPlaying", part: "keys", comp: { rhythm: "held" } });
    expect(resting(held)).toEqual([480]);
    expect(strokes(held)[0]).toBe("E3 G3 C4");
    const back = made(held, { do: "setPlaying", part: "keys", comp: { rhythm: "beats" } });
    expect(strokes(back)[480]).toBe("E3 A3 C4");
    // An emptied stroke is silent, and is no resting one.
    const silent = voices(song, {
      part: "keys",
      of: "stroke",
      remove: ["E3", "G3", "C4"].map((p) => id(song, 480, p)),
    });
    expect(strokes(silent)[480]).toBeUndefined();
    expect(resting(silent)).toEqual([]);
  });

  test("voices are doubled, added, taken out, shortened, and played once more", () => {
    const song = pinned(onBeats(), ["E3", "G3", "C4"]);
    const doubled = voices(song, { part: "keys", of: "chord", add: [{ start: 0, pitch: "E4" }] });
    expect(layout(doubled)?.pitches).toEqual(["E3", "G3", "C4", "E4"]);
    const fewer = voices(doubled, { part: "keys", of: "chord", remove: [id(doubled, 0, "G3")] });
    expect(layout(fewer)?.pitches).toEqual(["E3", "C4", "E4"]);
    const short = voices(song, { part: "keys", of: "chord", change: [{ id: id(song, 0, "C4"), duration: 120 }] });
    expect(notes(short).filter((n) => n.note.pitch === "C4" && n.note.duration === 120)).toHaveLength(4);
    expect(notes(short).filter((n) => n.note.pitch === "E3" && n.note.duration === 120)).toHaveLength(0);
    const more = voices(song, { part: "keys", of: "stroke", add: [{ start: 720, pitch: "C4", duration: 240 }] });
    expect(strokes(more)).toMatchObject({ 480: "E3 G3 C4", 720: "C4" });
    expect(notes(more).find((n) => n.note.start === 720)).toMatchObject({ stroke: 480, note: { duration: 240 } });
    // That later note is a voice as any other.
    const moved = voices(more, { part: "keys", of: "stroke", change: [{ id: id(more, 720, "C4"), pitch: "D4" }] });
    expect(strokes(moved)).toMatchObject({ 480: "E3 G3 C4", 720: "D4" });
  });

  test("other tones stay when the symbol changes: the tones of it are told apart, the nearest are offered", () => {
    const song = pinned(onBeats("| C | F |"), ["E3", "G3", "C4"]);
    const after = made(song, { do: "setChord", section: "s1", chord: nth(section(song).chords, 0).id, symbol: "Am" });
    expect(layout(after)).toEqual({ pitches: ["E3", "G3", "C4"], pinned: true });
    expect(foreignVoices("Am", ["E3", "G3", "C4"])).toEqual([{ pitch: "G3", role: "b7", nearest: ["A3"] }]);
    expect(foreignVoices("C", ["E3", "G3", "C4"])).toEqual([]);
    // What nobody pinned is laid out anew.
    const free = made(onBeats("| C | F |"), { do: "setChord", section: "s1", chord: "c1", symbol: "Am" });
    expect(layout(free)?.pinned).toBeUndefined();
  });

  test.each([
    ["piano", { pitch: "E4", at: "C4" }, "voice.twice", ["E3", "G3", "C4", "E4"]],
    ["piano", { pitch: "C7", at: "C4" }, null, ["C3", "E3", "G3", "C4"]],
    ["flute", { pitch: "B2", at: "E4" }, "voice.range", ["E4"]],
    ["guitar", { pitch: "D2", at: "C3" }, "voice.string", ["C3", "E3", "G3"]],
  ] as const)("%s: what cannot be done says why", (instrument, { pitch, at }, code, pitches) => {
    const song = pinned(withInstrument(instrument, onBeats()), [...pitches]);
    const made = changeVoices(song, {
      section: "s1",
      part: "keys",
      of: "chord",
      change: [{ id: id(song, 0, at), pitch }],
    });
    expect(made.ok ? null : made.error.code).toBe(code);
  });

  test("a hand is too small by a semitone, and not by one less", () => {
    const song = made(pinned(onBeats(), ["C3", "E3", "G3", "C4"]), {
      do: "setPlaying",
      part: "keys",
      voicing: { hands: 1 },
    });
    const to = (pitch: string) =>
      changeVoices(song, { section: "s1", part: "keys", of: "chord", change: [{ id: id(song, 0, "C4"), pitch }] });
    // The piano's hand spans a ninth (14 semitones): D4 is reached, E flat 4 is not.
    expect(to("D4").ok).toBe(true);
    expect(to("Eb4")).toMatchObject({ ok: false, error: { code: "voice.hand" } });
  });

  test("a voice of a shape stays on its string where it can lie there", () => {
    const shape: HeldShape = { frets: [null, 3, 2, 0, 1, 0], capo: 0 };
    const song = entered(withInstrument("guitar"), shape.frets);
    const after = voices(song, { part: "keys", of: "chord", change: [{ id: id(song, 0, "C4"), pitch: "D4" }] });
    expect(layout(after)?.shape?.frets).toEqual([null, 3, 2, 0, 3, 0]);
    // A string is taken: D4 beside G3 E4 C3 E3 and another D4 has none.
    const both = changeVoices(after, { section: "s1", part: "keys", of: "chord", add: [{ start: 0, pitch: "F4" }] });
    expect(both).toMatchObject({ ok: false, error: { code: expect.stringMatching(/voice\.(string|hand)/) as string } });
  });

  test("in every kind of linked part, on every instrument, voices are moved and taken back by one undo", () => {
    let moved = 0;
    for (const kind of COMP_KINDS.filter((k) => k.id !== "block"))
      for (const instrument of ["piano", "guitar", "strings", "organ"]) {
        const base = withInstrument(instrument, songWith({ line: "| Dm7 | G7 | Cmaj7 |", melody: ["0 E5 1"] }));
        const song = kind.voices
          ? base
          : made(base, {
              do: "addPart",
              name: "Other",
              role: "chords",
              instrument: "piano",
              link: { kind: kind.id, from: "keys" },
            });
        const part = kind.voices ? "keys" : otherPart(song);
        const [first] = notes(song, part);
        if (!first) continue;
        for (const of of ["chord", "stroke"] as const) {
          const up = changeVoices(song, {
            section: "s1",
            part,
            of,
            change: [{ id: first.note.id, pitch: higher(first.note.pitch) }],
          });
          if (!up.ok) continue;
          const after = edit(song, up.value);
          const to = higher(first.note.pitch);
          // Fills run through what the chord has: where it has another tone they run otherwise.
          if (of === "chord" && kind.id === "fills") expect(layout(after)).not.toEqual(layout(song));
          else expect(notes(after, part).map((n) => n.note.pitch)).toContain(to);
          moved++;
        }
      }
    expect(moved).toBeGreaterThan(50);
  });

  test("a thousand random gestures leave documents that parse, and undo to the first", () => {
    const start = pinned(onBeats("| Dm7 G7 | Cmaj7 |"), ["D3", "F3", "A3", "C4"]);
    let done = 0;
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            of: fc.constantFrom("chord" as const, "stroke" as const),
            what: fc.constantFrom("move", "remove", "add", "length", "rhythm", "symbol", "bar"),
            at: fc.nat(),
            by: fc.integer({ min: -4, max: 4 }),
          }),
          { minLength: 20, maxLength: 20 },
        ),
        (gestures) => {
          let song = start;
          const past: Song[] = [];
          for (const { of, what, at, by } of gestures) {
            const all = notes(song);
            const note = all.length ? nth(all, at % all.length).note : undefined;
            const asked = gesture(song, note, { of, what, at, by });
            if (!asked.ok) continue;
            const applied = applyEdit(song, asked.value);
            if (!applied.ok) continue;
            past.push(song);
            song = applied.value.song;
            expect(parseSong(JSON.parse(JSON.stringify(song))).ok).toBe(true);
            done++;
          }
          expect(past[0] ?? song).toEqual(start);
        },
      ),
      { numRuns: 50, seed: 34 },
    );
    expect(done).toBeGreaterThan(500);
  });
});

const otherPart = (song: Song): string => sure(song.parts.find((p) => p.name === "Other")).id;
const higher = (pitch: string): string => pitch.replace(/\d+$/, (d) => String(Number(d) + 1));

function gesture(
  song: Song,
  note: { id: string; start: number; pitch: string } | undefined,
  { of, what, at, by }: { of: "chord" | "stroke"; what: string; at: number; by: number },
): { ok: true; value: Edit } | { ok: false } {
  const base = { section: "s1", part: "keys", of };
  if (what === "rhythm")
    return { ok: true, value: { do: "setPlaying", part: "keys", comp: { rhythm: by > 0 ? "beats" : "offbeats" } } };
  const chord = nth(section(song).chords, at % section(song).chords.length);
  if (what === "symbol") return { ok: true, value: { do: "setChord", section: "s1", chord: chord.id, symbol: "Fm7" } };
  if (what === "bar")
    return { ok: true, value: { do: "setBorder", section: "s1", chord: chord.id, start: chord.start + by * 120 } };
  if (!note) return { ok: false };
  const pitch = `${"CDEFGAB"[at % 7] ?? "C"}${3 + (at % 2)}`;
  if (what === "move") return changeVoices(song, { ...base, change: [{ id: note.id, pitch }] });
  if (what === "length") return changeVoices(song, { ...base, change: [{ id: note.id, duration: 60 + at * 7 }] });
  if (what === "remove") return changeVoices(song, { ...base, remove: [note.id] });
  return changeVoices(song, { ...base, add: [{ start: note.start, pitch }] });
}

test("a voice is changed in one pass alone, in its key; the section and its other passes stay as they are", () => {
  const song = edit(pinned(onBeats(), ["E3", "G3", "C4"]), { do: "addPass", section: "s1" });
  const pass = sure(song.form[1]).id;
  const up = edit(song, { do: "setPass", pass, transpose: 2 });
  const view = passView(up, pass);
  for (const of of ["chord", "stroke"] as const) {
    const asked = changeVoices(view, {
      section: "s1",
      part: "keys",
      of,
      change: [{ id: id(view, 480, "A3"), pitch: "B3" }],
    });
    const after = edit(up, { do: "inPass", pass, here: true, edit: must(asked) });
    expect(section(after)).toEqual(section(up));
    const struck = strokes(passView(after, pass));
    expect([struck[0], struck[480]]).toEqual([of === "chord" ? "F#3 B3 D4" : "F#3 A3 D4", "F#3 B3 D4"]);
    const sounds = sure(realize(after).parts.find((p) => p.id === "keys")).notes.filter((n) => n.pass === pass);
    expect(sounds.filter((n) => n.start === 2 * BAR + 480).map((n) => n.midi)).toEqual([54, 59, 62]);
  }
});

test("in six eight, and in the last of 256 bars, strokes are found where the meter has them", () => {
  for (const [meter, bars, beat] of [
    ["6/8", 2, 720],
    ["4/4", 256, 480],
  ] as const) {
    const line = `| ${Array.from({ length: bars }, (_, i) => (i % 2 ? "F" : "C")).join(" | ")} |`;
    const song = edit(songWith({ meter, line }), { do: "setPlaying", part: "keys", comp: { rhythm: "beats" } });
    const last = nth(section(song).chords, bars - 1);
    const laid = pinned(song, ["F3", "A3", "C4"], bars - 1);
    const at = last.start + beat;
    const after = voices(laid, { part: "keys", of: "stroke", change: [{ id: id(laid, at, "A3"), pitch: "Bb3" }] });
    expect([strokes(after)[last.start], strokes(after)[at]]).toEqual(["F3 A3 C4", "F3 Bb3 C4"]);
  }
});

test("a stroke stays where it sounds when its chord begins later, and goes along when the chord moves", () => {
  const song = pinned(onBeats("| C | F |"), ["E3", "G3", "C4"]);
  const changed = voices(song, { part: "keys", of: "stroke", change: [{ id: id(song, 960, "G3"), pitch: "A3" }] });
  const later = edit(changed, { do: "setBorder", section: "s1", chord: "c1", start: 480 });
  expect(strokes(later)[960]).toBe("E3 A3 C4");
  const cut = edit(changed, {
    do: "setChords",
    section: "s1",
    from: 0,
    to: 480,
    chords: [{ start: 0, duration: 480, symbol: "G7" }],
  });
  expect(strokes(cut)[960]).toBe("E3 A3 C4");
});
