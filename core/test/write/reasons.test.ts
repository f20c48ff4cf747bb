import { firstOf, nth, sure } from "../../src/base/list";
import { must } from "../../src/base/result";
import { chordOf } from "../../src/theory/chord/progression";
import type { Chord } from "../../src/theory/chord/chord";
import { chordPitchClasses } from "../../src/theory/chord/chord";
import { mod, pitchClass, pitchMidi } from "../../src/theory/pitch/pitch";
import { parseMeter, positionText } from "../../src/theory/time/meter";
import { bassLines } from "../../src/write/bass/write";
import { counterLines } from "../../src/write/counter/write";
import { COUNTER_STYLES } from "../../src/write/counter/styles";
import { vocalLines } from "../../src/write/vocal/write";
import { VOCAL_SCHOOLS } from "../../src/write/vocal/schools";
import { BASS_STYLES } from "../../src/write/bass/styles";
import type { NewNote, Reason, Song } from "../../src/song/schema";
import { GRID, gridSong } from "../../../bench/bassGrid";
import { COUNTER_GRID, counterSong } from "../../../bench/counterGrid";
import { VOCAL_GRID, vocalSong } from "./vocalGrid";

/**
 * Every reason of every line is worked out once more from the finished notes, the chords as they are written and the
 * drums as they are painted, by code that shares nothing with the writers. A reason that is not listed is a failure.
 */
interface Seen extends NewNote {
  midi: number;
  end: number;
}

/** A finished line in its song, and one of its notes. */
interface Place {
  song: Song;
  line: readonly Seen[];
  i: number;
  /** The part it is written against, where it is. */
  tune: readonly Seen[];
  /** The line of the part before it was written anew. */
  old: readonly Seen[];
}

const seen = (notes: readonly NewNote[]): Seen[] =>
  notes
    .map((n) => ({ ...n, midi: pitchMidi(n.pitch), end: n.start + n.duration }))
    .sort((a, b) => a.start - b.start || a.midi - b.midi);

type Claim = (place: Place, params: Record<string, string>) => boolean;

const section = (p: Place) => firstOf(p.song.sections);
const meter = (p: Place) => must(parseMeter(p.song.meter));
const note = (p: Place): Seen => nth(p.line, p.i);
/** Of notes that begin together the highest. */
const top = (p: Place): Seen[] => p.line.filter((n, i) => p.line[i + 1]?.start !== n.start);
const before = (p: Place): Seen | undefined => top(p).findLast((n) => n.start < note(p).start);
const after = (p: Place): Seen | undefined => top(p).find((n) => n.start > note(p).start);
/** The neighbors with no rest between. */
const from = (p: Place): Seen | undefined => [before(p)].find((n) => n?.end === note(p).start);
const to = (p: Place): Seen | undefined => [after(p)].find((n) => n?.start === note(p).end);
const chordAt = (p: Place, tick: number) =>
  section(p).chords.find((c) => c.start <= Math.max(0, tick) && Math.max(0, tick) < c.start + c.duration);
const chordOn = (p: Place, tick: number): Chord | null => chordOf(chordAt(p, tick)?.symbol ?? "") ?? null;
const holds = (chord: Chord | null, midi: number): boolean =>
  chord !== null && chordPitchClasses(chord).includes(mod(midi, 12));
const isStep = (a?: Seen, b?: Seen): boolean =>
  a !== undefined && b !== undefined && [1, 2].includes(Math.abs(a.midi - b.midi));
const way = (a: Seen, b: Seen): number => Math.sign(b.midi - a.midi);
const named = (text: string | undefined): number => pitchClass(String(text).replace(/-?\d+$/, ""));
const degreeIs = (p: Place, degrees: readonly number[]): boolean => {
  const chord = chordOn(p, note(p).start);
  if (!chord) return false;
  const above = mod(note(p).midi - pitchClass(chord.root), 12);
  return chord.tones.some((t) => degrees.includes(t.degree) && mod(t.semitones, 12) === above);
};
const hitsOf = (p: Place, drum: string) => section(p).groove.lanes.find((l) => l.drum === drum)?.hits ?? [];
const onKick = (p: Place): boolean => hitsOf(p, "kick").some((h) => h.start === note(p).start);
const tuneOn = (p: Place, tick: number): Seen | undefined => p.tune.findLast((t) => t.start <= tick && tick < t.end);
/** The symbol is that of the chord under the note, and the note is one of its tones. */
const tone: Claim = (p, { chord }) =>
  chordAt(p, note(p).start)?.symbol === chord && holds(chordOn(p, note(p).start), note(p).midi);
const outside: Claim = (p) => !holds(chordOn(p, note(p).start), note(p).midi);
const all =
  (...claims: Claim[]): Claim =>
  (p, params) =>
    claims.every((claim) => claim(p, params));
const bassTone: Claim = (p, { pitch }) => named(pitch) === mod(note(p).midi, 12);
const isBass: Claim = (p) => {
  const chord = chordOn(p, note(p).start);
  return chord !== null && pitchClass(chord.bass ?? chord.root) === mod(note(p).midi, 12);
};
const atChange: Claim = (p) => chordAt(p, note(p).start)?.start === Math.max(0, note(p).start);
/** The next note of a bass line that leads back to its beginning. */
const onward = (p: Place): Seen => p.line[p.i + 1] ?? nth(p.line, 0);
const intoNext: Claim = (p) => chordAt(p, note(p).start)?.id !== chordAt(p, onward(p).start)?.id;
const SIZES = ["unison", "minor second", "major second", "minor third", "major third", "fourth", "tritone"];
const besideTune: Claim = (p, { interval, pitch }) => {
  const lead = tuneOn(p, note(p).start);
  if (!lead || named(pitch) !== mod(lead.midi, 12)) return false;
  const apart = note(p).midi - lead.midi;
  if (apart === 0) return /unison/.test(sure(interval));
  const size = SIZES[Math.abs(apart)];
  return (
    sure(interval).includes(apart > 0 ? "above" : "below") && (size === undefined || sure(interval).includes(size))
  );
};

const CLAIMS: Record<string, Claim> = {
  chordTone: tone,
  rootOnKick: all(bassTone, isBass, onKick),
  rootWithKick: all(bassTone, isBass, onKick),
  bassOnKick: all(bassTone, isBass, onKick),
  bassWithKick: all(bassTone, isBass, onKick),
  rootOnBeat: all(bassTone, isBass, atChange),
  bassOnBeat: all(bassTone, isBass, atChange),
  rootHook: all(bassTone, isBass, (p) => hitsOf(p, "kick").length > 0 && !onKick(p)),
  bassHook: all(bassTone, isBass, (p) => hitsOf(p, "kick").length > 0 && !onKick(p)),
  octave: all(isBass, (p) => p.line.some((n) => n.start < note(p).start && note(p).midi - n.midi === 12)),
  fifth: all(tone, (p) => degreeIs(p, [5])),
  third: all(tone, (p) => degreeIs(p, [3])),
  seventh: all(tone, (p) => degreeIs(p, [7])),
  approachBelow: all(
    outside,
    (p, { target }) =>
      isStep(note(p), onward(p)) && onward(p).midi > note(p).midi && named(target) === mod(onward(p).midi, 12),
  ),
  approachAbove: all(
    outside,
    (p, { target }) =>
      isStep(note(p), onward(p)) && onward(p).midi < note(p).midi && named(target) === mod(onward(p).midi, 12),
  ),
  approachFifth: all(
    intoNext,
    (p, { target }) => mod(note(p).midi - onward(p).midi, 12) === 7 && named(target) === mod(onward(p).midi, 12),
  ),
  anticipation: (p) => onward(p).midi === note(p).midi && intoNext(p, {}),
  scaleStep: (p, { target }) =>
    isStep(before(p), note(p)) && isStep(note(p), onward(p)) && named(target) === mod(onward(p).midi, 12),
  inversion: all(tone, (p) => !isBass(p, {}) && (isStep(note(p), onward(p)) || isStep(before(p), note(p)))),
  weave: all(bassTone, isBass),
  weaveTone: tone,
  gap: tone,
  pedal: (p, { pitch }) =>
    named(pitch) === mod(note(p).midi, 12) && p.line.every((n) => n.pinned ?? mod(n.midi - note(p).midi, 12) === 0),
  fill: all(tone, intoNext, (p) => isStep(note(p), onward(p))),
  ending: all(tone, (p) => {
    // Its bar is not what the bars before it are.
    const { bar } = meter(p);
    const at = Math.floor(note(p).start / bar);
    const figure = (b: number) =>
      p.line.filter((n) => Math.floor(n.start / bar) === b).map((n) => [n.start - b * bar, n.midi].join());
    return at > 0 && figure(at).join(";") !== figure(at - 1).join(";");
  }),
  answers: all(tone, (p) => !tuneOn(p, note(p).start)),
  lasts: all(tone, (p) => note(p).duration >= 2 * firstOf(meter(p).beats).duration),
  keeps: all(
    tone,
    (p) => from(p)?.midi === note(p).midi && chordAt(p, sure(from(p)).start)?.id !== chordAt(p, note(p).start)?.id,
  ),
  opposes: all(tone, (p) => {
    const [was, is] = [tuneOn(p, note(p).start - 1), tuneOn(p, note(p).start)];
    return was !== undefined && is !== undefined && way(sure(from(p)), note(p)) * way(was, is) < 0;
  }),
  steps: all(tone, (p, params) => isStep(from(p), note(p)) && named(params.from) === mod(sure(from(p)).midi, 12)),
  guide: all(tone, (p) => degreeIs(p, [3, 7])),
  guideStep: all(
    tone,
    (p, params) =>
      degreeIs(p, [3, 7]) && isStep(from(p), note(p)) && named(params.from) === mod(sure(from(p)).midi, 12),
  ),
  color: all(
    outside,
    (p, { chord }) =>
      chordAt(p, note(p).start)?.symbol === chord &&
      (mod(sure(tuneOn(p, note(p).start) ?? note(p)).midi - note(p).midi, 12) === 0 ||
        ![1, 13].includes(Math.abs(sure(tuneOn(p, note(p).start) ?? note(p)).midi - note(p).midi))),
  ),
  over: outside,
  figure: all(tone, (p) => from(p) === undefined),
  falls: all(tone, (p) => sure(from(p)).midi > note(p).midi),
  cell: all(tone, (p) => cellPitch(p) !== undefined && cellPitch(p) !== note(p).midi),
  cellKept: all(tone, (p) => cellPitch(p) === note(p).midi),
  cellHeld: all(outside, (p) => cellPitch(p) === note(p).midi),
  cellScale: (p) => cellPitch(p) !== undefined && cellPitch(p) !== note(p).midi,
  withDrum: all(tone, (p) => section(p).groove.lanes.some((l) => l.hits.some((h) => h.start === note(p).start))),
  stop: all(tone, (p, { pitch }) =>
    p.line.some((n) => n.start === note(p).start && n.midi > note(p).midi && named(pitch) === mod(n.midi, 12)),
  ),
  again: all(tone, (p, { where }) => comesFrom(p, where) !== undefined && !same(p, sure(comesFrom(p, where)))),
  comesBack: all(tone, (p, { where }) => comesFrom(p, where) !== undefined && same(p, sure(comesFrom(p, where)))),
  fills: all(tone, (p, { where }) => {
    const at = note(p).start - half(p);
    return p.line.some((n) => positionText(meter(p), n.start) === where && n.start < at && at < n.end);
  }),
  species: (p, { pitch, side }) => {
    const lead = sure(tuneOn(p, note(p).start));
    return named(pitch) === mod(lead.midi, 12) && (side === "under") === note(p).midi < lead.midi;
  },
  passing: all(
    outside,
    (p) =>
      isStep(before(p), note(p)) &&
      isStep(note(p), after(p)) &&
      way(sure(before(p)), note(p)) === way(note(p), sure(after(p))),
  ),
  neighbor: all(outside, (p) => isStep(before(p), note(p)) && onward(p).midi === sure(before(p)).midi),
  suspension: all(
    outside,
    (p) => from(p)?.midi === note(p).midi && isStep(note(p), to(p)) && sure(to(p)).midi < note(p).midi,
  ),
  retardation: all(
    outside,
    (p) => from(p)?.midi === note(p).midi && isStep(note(p), to(p)) && sure(to(p)).midi > note(p).midi,
  ),
  appoggiatura: all(outside, (p) => isStep(note(p), to(p)) && holds(chordOn(p, sure(to(p)).start), sure(to(p)).midi)),
  beside: all(tone, besideTune),
  along: besideTune,
  copied: besideTune,
  inner: all(tone, besideTune),
  behind: all(tone, (p) => from(p)?.midi !== note(p).midi),
  keptBehind: all(tone, (p) => from(p)?.midi === note(p).midi),
  drone: (p) => p.line.every((n) => n.pinned ?? n.midi === note(p).midi),
};

const half = (p: Place): number => Math.floor(section(p).bars / 2) * meter(p).bar;
const comesFrom = (p: Place, where: string | undefined): Seen | undefined =>
  p.line.find((n) => n.start === note(p).start - half(p) && positionText(meter(p), n.start) === where);
const same = (p: Place, n: Seen): boolean => n.midi === note(p).midi && n.duration === note(p).duration;

/** The pitch the cell has at the place of a note: as it was drawn, or as the first bar of the line has it. */
function cellPitch(p: Place): number | undefined {
  const { bar } = meter(p);
  const model = p.old.length ? p.old : p.line;
  const own = Math.floor(firstOf(model).start / bar) * bar;
  return model.find((n) => n.start - own === mod(note(p).start - own, bar))?.midi;
}

/** What of a line is not so; ids of the reasons met are added to a set. */
function untrue(at: Omit<Place, "line" | "i">, notes: readonly NewNote[], met: Set<string>): unknown[] {
  const line = seen(notes);
  return line.flatMap((n, i) => {
    if (n.pinned) return [];
    const reason: Reason = sure(n.reason);
    met.add(reason.id);
    const claim = CLAIMS[reason.id];
    if (claim?.({ ...at, line, i }, (reason.params ?? {}) as Record<string, string>)) return [];
    return [[reason, n.start, n.pitch]];
  });
}

const partOf = (song: Song, part: string): Seen[] => seen(firstOf(song.sections).notes[part] ?? []);
/** Every so many of a list, more of them where the whole is asked for. */
const every = <T>(list: readonly T[], n: number): T[] => list.filter((_, i) => i % n === 3 % n);

test("every reason of a bass line is so, in every style", () => {
  const met = new Set<string>();
  for (const style of BASS_STYLES)
    for (const c of every(
      GRID.filter((g) => g.style === style.id),
      113,
    )) {
      const song = gridSong(c);
      for (const line of must(bassLines(song, { section: "s1", part: "bass", style: style.id, seed: 4 })))
        expect([c, line.title, untrue({ song, tune: [], old: [] }, line.notes, met)]).toEqual([c, line.title, []]);
    }
  for (const id of ["approachBelow", "scaleStep", "fill", "rootOnKick", "octave", "ending"])
    expect([...met]).toContain(id);
});

test("every reason of a counter melody is so, in every style", () => {
  const met = new Set<string>();
  for (const style of COUNTER_STYLES)
    for (const c of every(
      COUNTER_GRID.filter((g) => g.style === style.id),
      14,
    )) {
      let song = counterSong(c);
      const request = { section: "s1", part: "answer", style: style.id, seed: 4 };
      if (style.id === "variation") {
        const held = must(counterLines(song, { ...request, style: "sustained" }));
        const notes = firstOf(held).notes.map((n, i) => ({ ...n, id: `a${i}` }));
        song = { ...song, sections: song.sections.map((s) => ({ ...s, notes: { ...s.notes, answer: notes } })) };
      }
      const written = counterLines(song, request);
      if (!written.ok) continue;
      const at = { song, tune: partOf(song, "melody"), old: style.id === "ostinato" ? partOf(song, "answer") : [] };
      for (const line of written.value)
        expect([c, line.title, untrue(at, line.notes, met)]).toEqual([c, line.title, []]);
    }
  for (const id of ["guide", "figure", "falls", "again", "cell", "cellKept", "suspension", "opposes", "keeps"])
    expect([...met]).toContain(id);
});

test("every reason of a sung voice is so, in every school", () => {
  const met = new Set<string>();
  for (const school of VOCAL_SCHOOLS)
    for (const c of every(
      VOCAL_GRID.filter((g) => g.school === school.id),
      17,
    )) {
      const song = vocalSong(c);
      const request = { section: "s1", part: "beside", lead: "melody", school: c.school, voices: c.voices };
      const at = { song, tune: partOf(song, "melody"), old: [] };
      for (const line of must(vocalLines(song, request)))
        for (const { notes } of line.parts)
          expect([c, line.title, untrue(at, notes, met)]).toEqual([c, line.title, []]);
    }
  for (const id of ["beside", "along", "copied", "behind", "keptBehind", "drone", "inner"])
    expect([...met]).toContain(id);
});
