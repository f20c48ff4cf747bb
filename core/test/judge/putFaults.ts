import { firstOf, nth, sure } from "../../src/base/list";
import { applyEdit } from "../../src/song/edits";
import { checkSong } from "../../src/judge/check/check";
import { chordOf } from "../../src/theory/chord/progression";
import { chordPitchClasses } from "../../src/theory/chord/chord";
import { must } from "../../src/base/result";
import { newSong } from "../../src/song/document";
import { parseMeter } from "../../src/theory/time/meter";
import { parseTune } from "../../src/hear/line/text";
import { pitchMidi } from "../../src/theory/pitch/pitch";
import { spellAt } from "../../src/song/spell";
import { takeVoices } from "../../src/write/vocal/take";
import { transposeSong } from "../../src/song/transposeSong";
import { vocalLines } from "../../src/write/vocal/write";
import type { Edit } from "../../src/song/edits/list";
import type { Finding } from "../../src/judge/check/rule";
import type { Note } from "../../src/song/schema/material";
import type { Profile } from "../../src/song/schema/playing";
import type { Song } from "../../src/song/schema/song";
import { random } from "../../src/base/random";

/** Textbook forms with a soprano: clean four-part music to put faults into. */
export const FORMS: readonly (readonly [key: string, line: string, tune: string])[] = [
  ["C major", "| C F | G C |", "E4 h F | D4 h E"],
  ["C major", "| C Am | Dm G | C |", "G4 h E | F4 h D | E4 w"],
  ["C major", "| C G7 | C |", "E4 h F | E4 w"],
  ["C major", "| C F | C/G G7 | C |", "C5 h A | G4 h F | E4 w"],
  ["G major", "| G C | D7 G |", "B4 h C5 | A4 h B4"],
  ["A minor", "| Am Dm | E7 Am |", "C5 h D | B4 h A"],
  ["A minor", "| Am Bm7b5 | E7 Am |", "C5 h D | B4 h C5"],
  ["F major", "| F Bb | Gm C7 | F |", "A4 h Bb | Bb4 h G | A4 w"],
  ["D major", "| D A/C# | Bm G | A7 D |", "A4 h A | B4 h B | G4 h F#"],
  ["Eb major", "| Eb Ab | Bb7 Eb | Cm Fm7 | Bb7 Eb |", "G4 h Ab | F4 h G | Eb4 h Ab | Ab4 h G"],
];

const METER = must(parseMeter("4/4"));
const make = (s: Song, e: Edit): Song => must(applyEdit(s, e)).song;

/** A form in four sung parts, so many semitones away: soprano, alto, tenor, bass. */
export function cleanSong(form: number, semitones: number): { song: Song; parts: string[] } {
  const [key, line, tune] = nth(FORMS, form);
  let song = must(newSong({ title: "Form", key, bars: line.split("|").length - 2, profile: "chorale", tempo: 126 }));
  song = make(song, { do: "setLine", section: "s1", line });
  song = make(song, { do: "setNotes", section: "s1", part: "melody", notes: must(parseTune(tune, { meter: METER })) });
  song = make(song, { do: "setPart", part: "melody", instrument: "soprano", name: "Soprano" });
  if (semitones) song = make(song, must(transposeSong(song, { semitones })).edit);
  song = make(song, { do: "addPart", name: "Alto voice", role: "vocal", instrument: "alto" });
  const alto = sure(song.parts.find((p) => p.name === "Alto voice")).id;
  const request = { section: "s1", part: alto, lead: "melody", school: "chorale" };
  song = make(song, takeVoices(song, "s1", firstOf(must(vocalLines(song, request)))));
  const by = (name: string) => sure(song.parts.find((p) => p.name === name)).id;
  return { song, parts: ["melody", alto, by("Tenor"), by("Bass voice")] };
}

/** A fault that was put into music: what was changed, and the rule that must say so. */
export interface Faulty {
  rule: string;
  song: Song;
  notes: string[];
}

interface Place {
  song: Song;
  parts: string[];
  pick: (n: number) => number;
}

const notesOf = (song: Song, part: string): Note[] => firstOf(song.sections).notes[part] ?? [];
const set = (song: Song, part: string, id: string, midi: number): Song => {
  const start = sure(notesOf(song, part).find((n) => n.id === id)).start;
  return make(song, {
    do: "changeNotes",
    section: "s1",
    part,
    notes: [{ id, pitch: spellAt(song, firstOf(song.sections), start, midi) }],
  });
};
const pcsAt = (song: Song, tick: number): number[] => {
  const chord = chordOf(sure(firstOf(song.sections).chords.findLast((c) => c.start <= tick)).symbol);
  return chord ? chordPitchClasses(chord) : [];
};

/** Ways of putting a fault in, by the rule that must find it; null where the place offers none. */
export const INJECTORS: Record<string, (p: Place) => Faulty | null> = {
  "out-of-range"({ song, parts, pick }) {
    const part = nth(parts, pick(4));
    const list = notesOf(song, part);
    const note = nth(list, pick(list.length));
    const way = pick(2) ? 24 : -24;
    return { rule: "out-of-range", song: set(song, part, note.id, pitchMidi(note.pitch) + way), notes: [note.id] };
  },
  "voice-crossing"({ song, parts, pick }) {
    const k = pick(3);
    const [a, b] = [notesOf(song, nth(parts, k)), notesOf(song, nth(parts, k + 1))];
    const x = nth(a, pick(a.length));
    const y = b.find((n) => n.start === x.start);
    if (!y || pitchMidi(x.pitch) === pitchMidi(y.pitch)) return null;
    const swapped = set(
      set(song, nth(parts, k), x.id, pitchMidi(y.pitch)),
      nth(parts, k + 1),
      y.id,
      pitchMidi(x.pitch),
    );
    return { rule: "voice-crossing", song: swapped, notes: [x.id, y.id] };
  },
  "voice-clash"({ song, parts, pick }) {
    const k = pick(3);
    const [a, b] = [notesOf(song, nth(parts, k)), notesOf(song, nth(parts, k + 1))];
    const x = nth(a, pick(a.length));
    const y = b.find((n) => n.start === x.start);
    const midi = pitchMidi(x.pitch) - 1;
    const pcs = pcsAt(song, x.start);
    if (!y || (pcs.includes(midi % 12) && pcs.includes((midi + 1) % 12))) return null;
    return { rule: "voice-clash", song: set(song, nth(parts, k + 1), y.id, midi), notes: [y.id] };
  },
  "voice-parallels"({ song, parts, pick }) {
    const k = 1 + pick(2);
    const [upper, lower] = [notesOf(song, nth(parts, k)), notesOf(song, nth(parts, 3))];
    const i = 1 + pick(lower.length - 1);
    const [was, is] = [nth(lower, i - 1), nth(lower, i)];
    const [x, y] = [upper.find((n) => n.start === was.start), upper.find((n) => n.start === is.start)];
    if (!x || !y || pitchMidi(was.pitch) === pitchMidi(is.pitch)) return null;
    // Far enough from the bass for its voice.
    const gap = k === 2 ? 7 : 19;
    const song1 = set(song, nth(parts, k), x.id, pitchMidi(was.pitch) + gap);
    return {
      rule: "voice-parallels",
      song: set(song1, nth(parts, k), y.id, pitchMidi(is.pitch) + gap),
      notes: [x.id, y.id],
    };
  },
  "voice-spacing"({ song, parts, pick }) {
    const list = notesOf(song, firstOf(parts));
    const note = nth(list, pick(list.length));
    const alto = notesOf(song, nth(parts, 1)).find((n) => n.start === note.start);
    if (!alto) return null;
    return {
      rule: "voice-spacing",
      song: set(song, firstOf(parts), note.id, pitchMidi(alto.pitch) + 13 + pick(4)),
      notes: [note.id],
    };
  },
  "wide-leap"({ song, parts, pick }) {
    const part = nth(parts, pick(3));
    const list = notesOf(song, part);
    const i = 1 + pick(list.length - 1);
    const before = pitchMidi(nth(list, i - 1).pitch);
    const size = nth([6, 10, 11, 13, 14], pick(5)) * (pick(2) ? 1 : -1);
    return { rule: "wide-leap", song: set(song, part, nth(list, i).id, before + size), notes: [nth(list, i).id] };
  },
  "long-outside"({ song, parts, pick }) {
    const part = nth(parts, pick(4));
    const list = notesOf(song, part);
    const note = nth(list, pick(list.length));
    const pcs = pcsAt(song, note.start);
    // Neither a tone of the chord nor a color over it.
    const before = list[list.indexOf(note) - 1];
    const foreign = [1, -1, 2, -2]
      .map((d) => pitchMidi(note.pitch) + d)
      .find((m) => !pcs.includes(m % 12) && pcs.includes((m + 11) % 12) && !(before && pitchMidi(before.pitch) === m));
    return foreign === undefined
      ? null
      : { rule: "long-outside", song: set(song, part, note.id, foreign), notes: [note.id] };
  },
  polyphony({ song, parts, pick }) {
    const part = nth(parts, pick(4));
    const list = notesOf(song, part);
    const i = pick(list.length - 1);
    const longer = nth(list, i).duration + 120 * (1 + pick(4));
    return {
      rule: "polyphony",
      song: make(song, { do: "changeNotes", section: "s1", part, notes: [{ id: nth(list, i).id, duration: longer }] }),
      notes: [nth(list, i).id, nth(list, i + 1).id],
    };
  },
  seventh({ song, parts, pick }) {
    const chords = firstOf(song.sections).chords;
    const i = pick(chords.length - 1);
    const chord = sure(chordOf(nth(chords, i).symbol));
    const tone = chord.tones.find((t) => t.degree === 7);
    const next = pcsAt(song, nth(chords, i + 1).start);
    if (!tone) return null;
    const pc = (firstOf(chordPitchClasses(chord)) + tone.semitones) % 12;
    if (next.includes(pc) || ![1, 2].some((d) => next.includes((pc - d + 12) % 12))) return null;
    for (const part of parts.slice(1)) {
      const list = notesOf(song, part);
      const from = list.findLast((n) => n.start < nth(chords, i + 1).start);
      const to = list.find((n) => n.start === nth(chords, i + 1).start);
      if (!from || !to || pitchMidi(from.pitch) % 12 !== pc) continue;
      const up = [1, 2, 3, 4, 5].map((d) => pitchMidi(from.pitch) + d).find((m) => next.includes(m % 12));
      if (up !== undefined) return { rule: "seventh", song: set(song, part, to.id, up), notes: [from.id, to.id] };
    }
    return null;
  },
  "leading-tone"({ song, parts, pick }) {
    const chords = firstOf(song.sections).chords;
    const i = pick(chords.length - 1);
    const chord = sure(chordOf(nth(chords, i).symbol));
    const third = chord.tones.find((t) => t.role === "3");
    if (!third || !chord.tones.some((t) => t.role === "b7")) return null;
    const pc = (firstOf(chordPitchClasses(chord)) + third.semitones) % 12;
    const next = pcsAt(song, nth(chords, i + 1).start);
    if (!next.includes((pc + 1) % 12) || next.includes(pc)) return null;
    for (const part of parts) {
      const list = notesOf(song, part);
      const [from, to] = [
        list.findLast((n) => n.start < nth(chords, i + 1).start),
        list.find((n) => n.start === nth(chords, i + 1).start),
      ];
      if (!from || !to || pitchMidi(from.pitch) % 12 !== pc) continue;
      const up = [3, 4, 5, 6, 8].map((d) => pitchMidi(from.pitch) + d).find((m) => next.includes(m % 12));
      if (up !== undefined) return { rule: "leading-tone", song: set(song, part, to.id, up), notes: [from.id, to.id] };
    }
    return null;
  },
};

/** Shifts of a form in which its soprano lies inside a soprano's voice. */
export const shiftsOf = (form: number): number[] =>
  Array.from({ length: 12 }, (_, k) => k - 5).filter((by) => {
    const midis = must(parseTune(nth(FORMS, form)[2], { meter: METER })).map((n) => pitchMidi(n.pitch) + by);
    return Math.min(...midis) >= 60 && Math.max(...midis) <= 79;
  });

/** Whether a finding is at least a warning. */
export const counts = (f: Finding): boolean => f.severity !== "note" && f.waived === undefined;

export interface Tally {
  put: number;
  found: number;
  /** Places reported at warning or above that touch what was changed, and those that do not. */
  right: number;
  wrong: number;
}

/** Puts faults into clean music and looks for them; by rule. */
export function tallyFaults(
  count: number,
  seed: number,
  profile: Profile = "chorale",
  told?: (text: string) => void,
): Map<string, Tally> {
  const next = random(seed);
  const pick = (n: number) => Math.floor(next() * n);
  const clean = new Map<string, { song: Song; parts: string[] }>();
  const rules = Object.keys(INJECTORS);
  const out = new Map<string, Tally>(rules.map((r) => [r, { put: 0, found: 0, right: 0, wrong: 0 }]));
  for (let done = 0, tries = 0; done < count && tries < count * 20; tries++) {
    const form = pick(FORMS.length);
    const shifts = shiftsOf(form);
    const by = nth(shifts, pick(shifts.length));
    const id = `${form}:${by}`;
    const base = clean.get(id) ?? cleanSong(form, by);
    clean.set(id, base);
    const rule = nth(rules, tries % rules.length);
    const faulty = sure(INJECTORS[rule])({ ...base, pick });
    if (!faulty) continue;
    done++;
    const tally = sure(out.get(rule));
    tally.put++;
    const places = checkSong(faulty.song, { profile })
      .filter(counts)
      .flatMap((f) => f.places.map((p) => ({ ...p, rule: f.rule })));
    const touches = (p: { notes: string[] }) => p.notes.some((n) => faulty.notes.includes(n));
    if (places.some((p) => p.rule === rule && touches(p))) tally.found++;
    else told?.(`missed ${rule}: ${nth(FORMS, form)[1]} ${by} ${JSON.stringify(faulty.notes)}`);
    for (const p of places) {
      if (touches(p)) tally.right++;
      else {
        tally.wrong++;
        told?.(`wrong ${p.rule}: ${p.message} (${nth(FORMS, form)[1]} ${by})`);
      }
    }
  }
  return out;
}
