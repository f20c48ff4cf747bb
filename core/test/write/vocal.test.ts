import { firstOf, nth, sure } from "../../src/base/list";
import fc from "fast-check";
import { applyEdit } from "../../src/song/edits";
import { describeReason } from "../../src/song/reasons";
import { factsOf } from "../../src/facts/memory";
import { must } from "../../src/base/result";
import { bassSettings } from "../../src/write/bass/write";
import { counterSettings } from "../../src/write/counter/write";
import { mended, rejudge, vocalLines, vocalRequest, vocalSettings } from "../../src/write/vocal/write";
import { notesAt } from "../../src/hear/sounding";
import { parseMeter } from "../../src/theory/time/meter";
import { parseSong } from "../../src/song/document";
import { parseTune } from "../../src/hear/line/text";
import { pitchMidi } from "../../src/theory/pitch/pitch";
import { sectionPlace } from "../../src/song/place";
import { takeVoices } from "../../src/write/vocal/take";
import { VOCAL_SCHOOLS } from "../../src/write/vocal/schools";
import { vocalRows } from "../../src/write/vocal/measures";
import type { Edit } from "../../src/song/edits/list";
import type { Song } from "../../src/song/schema/song";
import type { VocalSettings } from "../../src/write/vocal/settings";
import { judgeVocal, VOCAL_GRID } from "./vocalGrid";
import { demoSongs } from "../demos";
import { edit, songWith } from "../helpers";

const METER = must(parseMeter("4/4"));

/** A tune as text over a chord line, with a voice beside it. */
function withVoice(line: string, tune: string, key = "C major"): Song {
  const song = edit(songWith({ key, line }), {
    do: "setNotes",
    section: "s1",
    part: "melody",
    notes: must(parseTune(tune, { meter: METER })),
  });
  return asBeside(edit(song, { do: "addPart", name: "Beside", role: "vocal", instrument: "choir" }));
}
const asBeside = (song: Song): Song => ({
  ...song,
  parts: song.parts.map((p) => (p.name === "Beside" ? { ...p, id: "beside" } : p)),
});
const ask = (school: string, settings: Partial<VocalSettings> = {}) => ({
  section: "s1",
  part: "beside",
  lead: "melody",
  school,
  settings,
});
const sung = (song: Song, school: string, settings: Partial<VocalSettings> = {}) =>
  must(vocalLines(song, ask(school, settings))).map((l) => l.notes.map((n) => n.pitch).join(" "));

describe("schools", () => {
  test(
    "D–E–F four semitones up is F#–G#–A, what leaves the key is marked with tones that fit; the third kept in C " +
      "is F–G–A",
    () => {
      const song = withVoice("", "D4 q E F r");
      expect(sung(song, "fixed", { semitones: 4 })[0]).toBe("F#4 G#4 A4");
      expect(sung(song, "inScale", { side: "above" })[0]).toBe("F4 G4 A4");
      const [copy] = must(vocalLines(song, ask("fixed", { semitones: 4 })));
      expect(sure(copy).spots.map((s) => [s.kind, s.note])).toEqual([
        ["key", 0],
        ["key", 1],
      ]);
      for (const spot of sure(copy).spots)
        for (const fix of spot.fixes) expect(["C", "D", "E", "F", "G", "A", "B"]).toContain(fix.slice(0, -1));
      const chords = withVoice("| Dm |", "D4 q E F r");
      expect(sung(chords, "inScale", { side: "above" })[0]).toBe("F4 G4 A4");
      // Over C the fourth note of the copy leaves the chord as well.
      expect(firstOf(must(vocalLines(withVoice("| C |", "C4 w"), ask("fixed", { semitones: 4 })))).spots).toEqual([]);
    },
  );

  test("thirds bend to the chord: the root of C gets G below it, not A; over F it is A", () => {
    expect(sung(withVoice("| C | F |", "C5 w | C5 w"), "inScale")[0]).toBe("G4 A4");
    expect(sung(withVoice("| D7 |", "A4 w"), "inScale")[0]).toBe("F#4");
    const straight = sure(
      must(vocalLines(withVoice("| C | F |", "C5 w | C5 w"), ask("inScale"))).find((l) => /straight/.test(l.title)),
    );
    expect(straight.notes.map((n) => n.pitch)).toEqual(["A4", "A4"]);
  });

  test("the nearest chord tone, by looking at every tone; a semitone away never", () => {
    fc.assert(
      fc.property(
        fc.constantFrom("C", "Am7", "F#dim7", "Bbmaj9", "G7sus4"),
        fc.array(fc.integer({ min: 57, max: 79 }), { minLength: 1, maxLength: 8 }),
        fc.constantFrom("below" as const, "above" as const),
        (symbol, midis, side) => {
          const names = ["C", "Db", "D", "Eb", "E", "F", "Gb", "G", "Ab", "A", "Bb", "B"];
          const tune = midis.map((m) => `${names[m % 12]}${Math.floor(m / 12) - 1} e`).join(" ");
          const song = withVoice(`| ${symbol} |`, tune);
          const line = firstOf(must(vocalLines(song, ask("chordTone", { side })))).notes.map((n) => pitchMidi(n.pitch));
          const pcs: Record<string, number[]> = {
            C: [0, 4, 7],
            Am7: [9, 0, 4, 7],
            "F#dim7": [6, 9, 0, 3],
            Bbmaj9: [10, 2, 5, 9, 0],
            G7sus4: [7, 0, 2, 5],
          };
          const way = side === "below" ? -1 : 1;
          line.forEach((got, i) => {
            let want = nth(midis, i) + 2 * way;
            while (!sure(pcs[symbol]).includes(((want % 12) + 12) % 12)) want += way;
            expect([symbol, midis[i], (got - want) % 12]).toEqual([symbol, midis[i], 0]);
          });
        },
      ),
      { numRuns: 14, seed: 5 },
    );
  });

  test("an octave is an octave, a drone one tone, voices behind the singer hold tones of each chord on their syllable", () => {
    const song = withVoice("| C | F | G7 | C |", "E4 q F G A | A q F G h | B4 q A G F | E h C h");
    const tune = sure(firstOf(song.sections).notes.melody).map((n) => pitchMidi(n.pitch));
    expect(firstOf(must(vocalLines(song, ask("octave")))).notes.map((n) => pitchMidi(n.pitch))).toEqual(
      tune.map((m) => m - 12),
    );
    for (const [tone, pc] of [
      ["tonic", 0],
      ["fifth", 7],
    ] as const) {
      const [line] = must(vocalLines(song, ask("drone", { tone })));
      expect(new Set(sure(line).notes.map((n) => pitchMidi(n.pitch) % 12))).toEqual(new Set([pc]));
    }
    const [line] = must(vocalLines(song, { ...ask("behind", { syllable: "ah", manner: "swelling" }), voices: 3 }));
    expect(sure(line).parts).toHaveLength(2);
    for (const { notes } of sure(line).parts) {
      expect(notes.every((n) => n.swell && ["ah", "_"].includes(firstOf(sure(n.lyrics))))).toBe(true);
      for (const n of notes) {
        const chord = nth(
          [
            [0, 4, 7],
            [5, 9, 0],
            [7, 11, 2, 5],
            [0, 4, 7],
          ],
          Math.floor(n.start / 1920),
        );
        expect(chord).toContain(pitchMidi(n.pitch) % 12);
      }
    }
  });

  test("close parts lie within an octave of the tune, open ones spread wider; the words of the tune go with them", () => {
    const song = edit(withVoice("| C | Am7 | Dm7 | G7 |", "E4 q G E C | C4 h E | D4 q F A h | B4 h G"), {
      do: "changeNotes",
      section: "s1",
      part: "melody",
      notes: [],
    });
    const worded = {
      ...song,
      sections: song.sections.map((s) => ({
        ...s,
        notes: { ...s.notes, melody: sure(s.notes.melody).map((n, i) => ({ ...n, lyrics: [`w${i}`] })) },
      })),
    };
    const tune = sure(firstOf(worded.sections).notes.melody);
    const widest = (school: string) => {
      const [line] = must(vocalLines(worded, { ...ask(school), voices: 4 }));
      expect(sure(line).parts).toHaveLength(3);
      return sure(line).parts.map(({ notes }) => {
        expect(notes.filter((n) => sure(n.lyrics)[0] !== "_").map((n) => n.lyrics)).toEqual(tune.map((n) => n.lyrics));
        return notes.map(
          (n) =>
            pitchMidi(sure(tune.find((t) => t.start <= n.start && n.start < t.start + t.duration)).pitch) -
            pitchMidi(n.pitch),
        );
      });
    };
    expect(Math.max(...widest("close").flat())).toBeLessThanOrEqual(14);
    expect(Math.max(...nth(widest("open"), 2))).toBeGreaterThan(12);
  });

  test("every school says what it does and assumes, has words for its titles, and refuses what it cannot do without", () => {
    const bare = withVoice("", "C4 w");
    const silent = withVoice("| C |", "r w");
    for (const school of VOCAL_SCHOOLS) {
      expect(school.explanation).toMatch(/Assumes /);
      expect(school.source.length).toBeGreaterThan(5);
      const codeOf = (song: Song) => {
        const lines = vocalLines(song, ask(school.id));
        return lines.ok ? null : lines.error.code;
      };
      expect(codeOf(bare)).toBe(school.needs.includes("chords") ? "vocal.chords" : null);
      expect(codeOf(silent)).toBe(school.needs.includes("tune") ? "vocal.tune" : null);
    }
    const code = (request: object) => {
      const r = vocalLines(bare, { ...ask("fixed"), ...request });
      return r.ok ? null : r.error.code;
    };
    expect([
      code({ school: "x" }),
      code({ section: "x" }),
      code({ part: "drums" }),
      code({ lead: "beside" }),
      code({ lead: "keys" }),
    ]).toEqual(["vocal.school", "vocal.section", "vocal.part", "vocal.lead", "vocal.lead"]);
  });
});

describe("over a grid of tunes, keys, meters, chords and schools", () => {
  const sample = VOCAL_GRID.filter((_, i) => i % 23 === 6);

  test("aims are met or the conflict is named; every rough spot is where it says, and every fix mends it", () => {
    expect(VOCAL_GRID.length).toBeGreaterThan(500);
    for (const c of sample) {
      const { song, lines, unexplained } = judgeVocal(c);
      expect([c, unexplained.map((m) => m.id)]).toEqual([c, []]);
      const request = { section: "s1", part: "beside", lead: "melody", school: c.school, voices: c.voices };
      for (const spot of firstOf(lines).spots.slice(0, 2)) {
        expect(spot.message).not.toMatch(/undefined|null|NaN/);
        for (const pitch of spot.fixes.slice(0, 1)) {
          const after = must(rejudge(song, request, mended(firstOf(lines), spot, pitch)));
          expect([
            c,
            spot.message,
            after.spots.some((s) => s.kind === spot.kind && s.voice === spot.voice && s.note === spot.note),
          ]).toEqual([c, spot.message, false]);
          expect(nth(nth(after.parts, spot.voice).notes, spot.note).reason).toBeUndefined();
        }
      }
    }
  });

  test(
    "voices are inside the section and in order, range misses are counted right, and no voice crosses its " +
      "neighbor unsaid",
    () => {
      for (const c of sample) {
        const { song, lines } = judgeVocal(c);
        const { ctx, style: school } = must(
          vocalRequest(factsOf(song), {
            section: "s1",
            part: "beside",
            lead: "melody",
            school: c.school,
            voices: c.voices,
          }),
        );
        const { parts, report } = firstOf(lines);
        let outside = 0;
        parts.forEach(({ notes }, v) => {
          const [low, high] = nth(ctx.voices, v).extremes;
          notes.forEach((n, i) => {
            const next = notes[i + 1];
            expect([c, n.duration > 0, next ? n.start + n.duration <= next.start : n.start < ctx.length]).toEqual([
              c,
              true,
              true,
            ]);
            if (pitchMidi(n.pitch) < low || pitchMidi(n.pitch) > high) outside++;
            const below = parts[v + 1]?.notes.find((m) => m.start === n.start);
            if (below && school.id !== "behind")
              expect([c, pitchMidi(below.pitch) <= pitchMidi(n.pitch)]).toEqual([c, true]);
          });
        });
        expect([c, report.outOfRange]).toEqual([c, outside]);
      }
    },
  );
});

const SONGS = demoSongs().map((song) =>
  asBeside(edit(song, { do: "addPart", name: "Beside", role: "vocal", instrument: "alto" })),
);
const anySettings: fc.Arbitrary<Partial<VocalSettings>> = fc.record(
  {
    voices: fc.integer({ min: 2, max: 4 }),
    side: fc.constantFrom("below", "above"),
    interval: fc.constantFrom("third", "sixth"),
    semitones: fc.integer({ min: -24, max: 24 }),
    manner: fc.constantFrom("held", "swelling"),
    tone: fc.constantFrom("tonic", "fifth", "common"),
    lead: fc.constantFrom("top", "second"),
  },
  { requiredKeys: [] },
);

test(
  "whatever is asked: the song stays as it is, the answer is plain data and always the same, every note has " +
    "words, and what is taken is a song",
  () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...SONGS),
        fc.constantFrom(...VOCAL_SCHOOLS),
        fc.nat(50),
        anySettings,
        (song, school, pick, settings) => {
          const section = nth(song.sections, pick % song.sections.length);
          const request = { section: section.id, part: "beside", school: school.id, settings };
          const before = JSON.stringify(song);
          const written = vocalLines(song, request);
          expect(JSON.stringify(song)).toBe(before);
          if (!written.ok) {
            expect(written.error.hint).toBeTruthy();
            return;
          }
          expect(vocalLines(song, request)).toEqual(written);
          expect(JSON.parse(JSON.stringify(written.value))).toEqual(written.value);
          expect(new Set(written.value.map((l) => JSON.stringify(l.parts.map((p) => p.notes)))).size).toBe(
            written.value.length,
          );
          for (const line of written.value) {
            for (const reason of line.reasons)
              expect(describeReason(reason)).not.toMatch(/[{}]|undefined|null|No reason/);
            for (const conflict of line.conflicts) expect(conflict.message).not.toMatch(/undefined|null|NaN/);
            const taken = must(applyEdit(song, takeVoices(song, section.id, line))).song;
            expect(must(parseSong(JSON.parse(JSON.stringify(taken))))).toEqual(taken);
            const added = taken.parts.filter((p) => !song.parts.some((q) => q.id === p.id));
            expect(added).toHaveLength(line.parts.filter((p) => p.part === null && p.notes.length).length);
            const notes = factsOf(taken).get(notesAt, sectionPlace(section.id), "beside", "played");
            const own = sure(line.parts.find((p) => p.part === "beside"));
            expect(notes.map((n) => [n.start, n.midi])).toEqual(own.notes.map((n) => [n.start, pitchMidi(n.pitch)]));
          }
        },
      ),
      { seed: 31, numRuns: 11 },
    );
  },
);

test("pinned notes stay, and the rest of the voice is written around them", () => {
  const song = withVoice("| C | F |", "E4 q F G A | A4 q F E D");
  const pin = edit(song, {
    do: "addNote",
    section: "s1",
    part: "beside",
    note: { start: 480, duration: 960, pitch: "C4", velocity: 80, pinned: true },
  });
  for (const school of ["inScale", "chordTone", "fixed", "close", "behind"])
    for (const line of must(vocalLines(pin, ask(school)))) {
      const kept = line.notes.filter((n) => n.pinned);
      expect(kept.map((n) => [n.start, n.duration, n.pitch])).toEqual([[480, 960, "C4"]]);
      expect(line.notes.filter((n) => !n.pinned && n.start < 1440 && n.start + n.duration > 480)).toEqual([]);
    }
});

test("rows of a report are those the school judges by, and a copied tune is told, not aimed at", () => {
  const song = withVoice("| C |", "C4 q E G E");
  const school = (id: string) => sure(VOCAL_SCHOOLS.find((s) => s.id === id));
  const rows = (id: string) => vocalRows(firstOf(must(vocalLines(song, ask(id)))).report, school(id).targets, METER);
  expect(
    rows("fixed")
      .filter((r) => r.target !== null)
      .map((r) => r.id),
  ).toEqual(["outOfRange"]);
  expect(
    rows("chorale")
      .filter((r) => r.target !== null)
      .map((r) => r.id),
  ).toEqual(expect.arrayContaining(["parallels", "spacing", "tendencies"]));
  const stored = edit(song, { do: "setPlaying", part: "beside", section: "s1", vocal: { school: "octave" } } as Edit);
  expect(firstOf(must(vocalLines(stored, { section: "s1", part: "beside" }))).school).toBe("octave");
});

test("where nothing is set two sing, the second a third below; a bass meets the main kicks at middling density", () => {
  const [part] = songWith({ line: "| C |" }).parts;
  expect(vocalSettings(sure(part), undefined)).toMatchObject({
    voices: 2,
    side: "below",
    interval: "third",
    semitones: 4,
    manner: "held",
  });
  expect(bassSettings(sure(part), undefined)).toMatchObject({ density: 0.5, lock: "main", pitches: 4, variation: 0.3 });
  expect(counterSettings(sure(part), undefined)).toMatchObject({ density: 0.5, side: "either", cell: "refit" });
});
