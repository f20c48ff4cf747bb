import { because } from "../song/reasons";
import { fail, ok, type Result } from "../result";
import { parseKey, spellInKey, type Key } from "../pitch/key";
import { mod, plainName, type Midi } from "../pitch/pitch";
import { parseMeter, type Meter, type Ticks } from "../time/meter";
import { identifyChords, isSure } from "../chord/identify";
import { NO_CHORD } from "../chord/progression";
import { partByRole, sectionKey, sectionMeter, sectionOf } from "../song/document";
import type { Edit } from "../song/edits";
import { DRUM_KINDS, DRUMS } from "../instrument/drums";
import type { ChordEvent, Drum, Hit, Lane, Note, Song } from "../song/schema";
import { mergeLanes } from "../groove/patterns";
import type { MidiContents, MidiNote, MidiTrack } from "./midiRead";

export interface MidiChoices {
  /** Ids of the tracks that the chords are named from. */
  chords: string[];
  melody?: string;
  bass?: string;
  /** The part the bass goes to; the first bass where it is absent. */
  bassPart?: string;
  drums?: string;
  /** Lanes for drum notes, where they are not the usual ones; null leaves a note out. */
  drumMap?: Record<number, Drum | null>;
  /** Hits join what the section has instead of replacing it. */
  addDrums?: boolean;
  /** First bar (0-based) and the one after the last, in the file's first meter. */
  bars: [number, number];
  unit: "beat" | "half bar" | "bar";
  /** Take tempo, meter and key of the file for the song. */
  tempo: boolean;
  meter: boolean;
  key?: boolean;
  file: string;
}

export interface MidiImport {
  edit: Edit;
  chords: Omit<ChordEvent, "id">[];
  /** Chords that are doubtful: their readings are kept with them. */
  unsure: number;
  /** What was left out or changed, in sentences. */
  reported: string[];
}

/** A pitch class counts for a chord when it sounds for at least this share of the stretch, or of the longest one's time. */
const HEARD = 0.12;
const HEARD_OF_LONGEST = 0.3;

/**
 * Names the chords of notes, one a stretch: pitch classes that sound long enough, over the lowest note at its beginning. Stretches with fewer than
 * two notes hold the chord before. Neighbors of one name become one chord; doubtful ones keep their readings.
 */
export function nameChords(
  notes: readonly MidiNote[],
  length: Ticks,
  meter: Meter,
  unit: MidiChoices["unit"],
  key: Key,
  file: string,
): Omit<ChordEvent, "id">[] {
  const cuts: Ticks[] = [];
  for (let bar = 0; bar * meter.bar < length; bar++) {
    const middle = meter.beats[Math.ceil(meter.beats.length / 2)];
    const inside = unit === "beat" ? meter.beats.map((b) => b.start) : unit === "half bar" && middle ? [0, middle.start] : [0];
    cuts.push(...inside.map((b) => bar * meter.bar + b));
  }
  const events: Omit<ChordEvent, "id">[] = [];
  cuts.forEach((start, i) => {
    const end = Math.min(length, cuts[i + 1] ?? length);
    const found = nameStretch(notes, start, end, key);
    const last = events.at(-1);
    if (!found) {
      if (last) last.duration = end - last.start;
      else events.push({ start, duration: end - start, symbol: NO_CHORD });
    } else if (last?.symbol === found.symbol) last.duration = end - last.start;
    else events.push({ start, duration: end - start, ...found, why: because("imported", { file }) });
  });
  return events;
}

function nameStretch(notes: readonly MidiNote[], start: Ticks, end: Ticks, key: Key): Pick<ChordEvent, "symbol" | "readings"> | null {
  const time = new Map<number, number>();
  let lowest: { midi: Midi; atStart: boolean } | null = null;
  for (const n of notes) {
    const overlap = Math.min(end, n.start + n.duration) - Math.max(start, n.start);
    if (overlap <= 0) continue;
    const pc = mod(n.midi, 12);
    time.set(pc, (time.get(pc) ?? 0) + overlap);
    // A note played a moment early or late still stands on the beginning.
    const atStart = n.start <= start + 60 && overlap > 60;
    if (!lowest || (atStart && !lowest.atStart) || (atStart === lowest.atStart && n.midi < lowest.midi)) lowest = { midi: n.midi, atStart };
  }
  const longest = Math.max(0, ...time.values());
  const pcs = [...time].filter(([, t]) => t >= (end - start) * HEARD && t >= longest * HEARD_OF_LONGEST).map(([pc]) => pc);
  if (pcs.length < 2 || !lowest) return null;
  const name = (pc: number) => spellInKey(60 + pc, key).replace(/-?\d+$/, "");
  const readings = identifyChords({ pitches: pcs.map(name), bass: name(mod(lowest.midi, 12)), key: `${key.tonic} ${key.mode}` });
  if (!readings.length) return null;
  return {
    symbol: readings[0]!.symbol,
    ...(isSure(readings) && !readings[0]!.added.length && pcs.length < 6 && readings[0]!.score > 0.5
      ? {}
      : { readings: readings.slice(0, 4).map((r) => r.symbol) }),
  };
}

/** The nearest sixteenth or eighth triplet, and how far from it the note was played. */
function notated(tick: Ticks): { start: Ticks; offset: Ticks } {
  const grid = [Math.round(tick / 120) * 120, Math.round(tick / 160) * 160];
  const start = Math.abs(grid[1]! - tick) < Math.abs(grid[0]! - tick) ? grid[1]! : grid[0]!;
  return { start, offset: tick - start };
}

/** Lanes for notes of General MIDI that have no lane of their own (GM System Level 1, GM2 for the shaker; from memory). */
const GM_NEAREST: Record<number, Drum> = {
  35: "kick",
  40: "snare",
  41: "tom",
  43: "tom",
  47: "tom",
  48: "tom",
  50: "tom",
  53: "ride",
  59: "ride",
  62: "conga",
  64: "conga",
  69: "shaker",
  80: "triangle",
  82: "shaker",
};

/** The lane a drum note goes to: as the song's own lanes are mapped, else as General MIDI has it; null for a note without one. */
export function laneForNote(song: Song, sectionId: string, midi: number): Drum | null {
  const own = sectionOf(song, sectionId)?.groove.lanes.find((l) => (l.note ?? DRUM_KINDS[l.drum].note) === midi);
  return own?.drum ?? DRUMS.find((d) => DRUM_KINDS[d].note === midi && !d.startsWith("free")) ?? GM_NEAREST[midi] ?? null;
}

/** The notes of a track between two bars, with how often each is struck and the lane it would go to. */
export function drumNotes(
  song: Song,
  sectionId: string,
  track: MidiTrack,
  from: Ticks,
  to: Ticks,
): { note: Midi; count: number; lane: Drum | null }[] {
  const counts = new Map<Midi, number>();
  for (const n of track.notes) if (n.start >= from && n.start < to) counts.set(n.midi, (counts.get(n.midi) ?? 0) + 1);
  return [...counts].sort(([a], [b]) => a - b).map(([note, count]) => ({ note, count, lane: laneForNote(song, sectionId, note) }));
}

/** Plans the import of chosen tracks and bars into a section as one edit. Errors: `midi.bars`, `midi.tracks`, `midi.meter`. */
export function importMidi(song: Song, sectionId: string, contents: MidiContents, choices: MidiChoices): Result<MidiImport> {
  const section = sectionOf(song, sectionId);
  if (!section) return fail("midi.section", `No section has the id "${sectionId}"`);
  const tracks = (ids: readonly string[]) => contents.tracks.filter((t) => ids.includes(t.id));
  const one = (id: string | undefined) => (id ? contents.tracks.find((t) => t.id === id) : undefined);
  if (!choices.chords.length && !choices.melody && !choices.bass && !choices.drums)
    return fail("midi.tracks", "No track is chosen", { hint: "Choose what each track is: chords, melody, bass or drums." });
  const reported: string[] = [];
  const fileMeter = contents.meters[0]!.text;
  const meterText = choices.meter ? fileMeter : (section.meter ?? song.meter);
  const meter = choices.meter ? parseMeter(fileMeter) : ok(sectionMeter(song, section));
  if (!meter.ok)
    return fail("midi.meter", `The file's meter ${fileMeter} is not one this application knows`, { hint: "Leave the song's own meter." });
  if (!choices.meter && fileMeter !== meterText.split(" ")[0])
    reported.push(`The file is in ${fileMeter}; its bars were counted in ${meterText}.`);
  const [first, end] = choices.bars;
  const from = first * meter.value.bar;
  const to = end * meter.value.bar;
  if (!(first >= 0 && end > first) || from >= contents.length)
    return fail("midi.bars", `Bars ${first + 1} to ${end} are not in the file, which has ${Math.ceil(contents.length / meter.value.bar)}`);
  const length = to - from;
  const changes = <T extends { tick: Ticks }>(list: readonly T[], text: (x: T) => string, what: string) => {
    const inside = list.filter((x) => x.tick > from && x.tick < to);
    if (inside.length)
      reported.push(
        `${what} in these bars (${inside.map(text).join(", ")}) ${inside.length === 1 ? "was" : "were"} not kept: a section has one.`,
      );
  };
  const barOf = (tick: Ticks) => `bar ${Math.floor(tick / meter.value.bar) + 1}`;
  changes(contents.tempos, (t) => `${t.bpm} from ${barOf(t.tick)}`, "Tempo changes");
  changes(contents.meters, (m) => `${m.text} from ${barOf(m.tick)}`, "Meter changes");
  const fileKey = [...contents.keys].reverse().find((k) => k.tick <= from) ?? contents.keys[0];
  const taken = choices.key && fileKey && !section.key ? parseKey(fileKey.key) : null;
  const key = taken?.ok ? taken.value : sectionKey(song, section);
  if (fileKey && fileKey.key !== `${key.tonic} ${key.mode}` && parseKey(fileKey.key).ok)
    reported.push(`The file says ${fileKey.key}; the section is in ${key.tonic} ${key.mode}.`);
  const cut = (notes: readonly MidiNote[]): MidiNote[] =>
    notes.flatMap((n) => {
      const start = Math.max(n.start, from);
      const stop = Math.min(n.start + n.duration, to);
      return stop > start && n.start < to ? [{ ...n, start: start - from, duration: stop - start }] : [];
    });

  const edits: Edit[] = [];
  if (choices.meter && fileMeter !== song.meter) edits.push({ do: "setMeter", meter: fileMeter });
  if (taken?.ok && fileKey!.key !== song.key) edits.push({ do: "setKey", key: fileKey!.key });
  const tempo = [...contents.tempos].reverse().find((t) => t.tick <= from)!.bpm;
  if (choices.tempo) edits.push({ do: "setTempo", tempo: Math.min(400, Math.max(20, tempo)) });
  else if (Math.abs(tempo - song.tempo) > 0.5) reported.push(`The file plays at ${tempo}; the song stays at ${song.tempo}.`);
  edits.push({ do: "setSection", section: sectionId, bars: Math.max(section.bars, end - first) });

  let chords: Omit<ChordEvent, "id">[] = [];
  if (choices.chords.length) {
    const bass = one(choices.bass);
    const sounding = [...tracks(choices.chords), ...(bass && !choices.chords.includes(bass.id) ? [bass] : [])].flatMap((t) => cut(t.notes));
    chords = nameChords(sounding, length, meter.value, choices.unit, key, choices.file);
    edits.push({ do: "setChords", section: sectionId, from: 0, to: length, chords });
  }
  for (const role of ["melody", "bass"] as const) {
    const track = one(choices[role]);
    if (!track) continue;
    const part = (role === "bass" && song.parts.find((p) => p.id === choices.bassPart)) || partByRole(song, role);
    if (!part) {
      reported.push(`The song has no ${role} part; ${track.name} was left out.`);
      continue;
    }
    const notes = cut(track.notes).map((n): Omit<Note, "id"> => {
      const { start, offset } = notated(n.start);
      const pitch = spellInKey(n.midi, key);
      return {
        start: Math.min(start, length - 1),
        duration: n.duration,
        pitch,
        velocity: Math.min(127, Math.max(1, n.velocity)),
        ...(Math.abs(offset) > 6 ? { offset } : {}),
      };
    });
    edits.push({ do: "setNotes", section: sectionId, part: part.id, notes });
  }
  const drums = one(choices.drums);
  if (drums) {
    const unmapped = new Map<number, number>();
    const lanes = new Map<Drum, Map<Ticks, Hit>>();
    for (const n of cut(drums.notes.filter((x) => x.start >= from))) {
      const chosen = choices.drumMap?.[n.midi];
      const drum = chosen === undefined ? laneForNote(song, sectionId, n.midi) : chosen;
      if (!drum) {
        if (chosen === undefined) unmapped.set(n.midi, (unmapped.get(n.midi) ?? 0) + 1);
        continue;
      }
      const { start, offset } = notated(n.start);
      if (start >= length) continue;
      const hits = lanes.get(drum) ?? new Map<Ticks, Hit>();
      const velocity = Math.min(127, Math.max(1, n.velocity, hits.get(start)?.velocity ?? 0));
      lanes.set(drum, hits.set(start, { start, velocity, ...(Math.abs(offset) > 6 ? { offset } : {}) }));
    }
    const fresh = [...lanes].map(([drum, hits]): Lane => ({ drum, hits: [...hits.values()].sort((x, y) => x.start - y.start) }));
    // What the section had in these bars gives way, unless both are wanted; how its lanes are played stays.
    const kept = section.groove.lanes.map((l) => (choices.addDrums ? l : { ...l, hits: l.hits.filter((h) => h.start >= length) }));
    edits.push({ do: "setDrums", section: sectionId, lanes: mergeLanes(kept, fresh) });
    for (const [midi, count] of unmapped)
      reported.push(
        `${count} hit${count === 1 ? "" : "s"} of drum note ${midi} (${plainName(midi, true)}) have no lane here and were left out.`,
      );
  }
  const unsure = chords.filter((c) => c.readings).length;
  return ok({ edit: { do: "all", label: "import", edits }, chords, unsure, reported });
}
