import { firstOf, sure } from "../base/list";
import { fail, ok, type Result } from "../base/result";
import { parseKey, spellInKey, type Key } from "../theory/pitch/key";
import { plainName, type Midi } from "../theory/pitch/pitch";
import { EIGHTH_TRIPLET, parseMeter, SIXTEENTH, type Meter, type Ticks } from "../theory/time/meter";
import { partByRole, sectionKey, sectionMeter, sectionOf } from "../song/document";
import type { Edit } from "../song/edits";
import { DRUM_KINDS, DRUMS } from "../theory/instrument/drums";
import { counted } from "../theory/words/english";
import {
  LIMITS,
  type ChordEvent,
  type Drum,
  type Hit,
  type Lane,
  type NewNote,
  type Section,
  type Song,
} from "../song/schema";
import { mergeLanes } from "../arrange/groove/patterns";
import { nameChords, type NamingUnit } from "./midiChords";
import type { MidiContents, MidiNote, MidiTrack } from "./midiRead";

export interface MidiChoices {
  /** Ids of the tracks that the chords are named from. */
  chords: string[];
  melody?: string;
  bass?: string;
  /** The part the bass goes to; the first bass where it is absent. */
  bassPart?: string;
  /** The part the tune goes to; the first tune where it is absent. */
  melodyPart?: string;
  drums?: string;
  /** Lanes for drum notes, where they are not the usual ones; null leaves a note out. */
  drumMap?: Record<number, Drum | null>;
  /** Hits join what the section has instead of replacing it. */
  addDrums?: boolean;
  /** First bar (0-based) and the one after the last, in the file's first meter. */
  bars: [number, number];
  unit: NamingUnit;
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

/** The nearest sixteenth or eighth triplet, and how far from it the note was played. */
export function notated(tick: Ticks): { start: Ticks; offset: Ticks } {
  const [straight, triplet] = [SIXTEENTH, EIGHTH_TRIPLET].map((grid) => Math.round(tick / grid) * grid) as [
    Ticks,
    Ticks,
  ];
  const start = Math.abs(triplet - tick) < Math.abs(straight - tick) ? triplet : straight;
  return { start, offset: tick - start };
}

/**
 * Lanes for notes of General MIDI that have no lane of their own (GM System Level 1, GM2 for the shaker; from memory).
 */
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

/**
 * The lane a drum note goes to: as the song's own lanes are mapped, else as General MIDI has it; null for a note
 * without one.
 */
export function laneForNote(song: Song, sectionId: string, midi: number): Drum | null {
  const own = sectionOf(song, sectionId)?.groove.lanes.find((l) => (l.note ?? DRUM_KINDS[l.drum].note) === midi);
  return (
    own?.drum ?? DRUMS.find((d) => DRUM_KINDS[d].note === midi && !d.startsWith("free")) ?? GM_NEAREST[midi] ?? null
  );
}

/** The notes of a track between two bars, with how often each is struck and the lane it would go to. */
export function drumNotes(
  song: Song,
  sectionId: string,
  track: MidiTrack,
  { from, to }: { from: Ticks; to: Ticks },
): { note: Midi; count: number; lane: Drum | null }[] {
  const counts = new Map<Midi, number>();
  for (const n of track.notes) if (n.start >= from && n.start < to) counts.set(n.midi, (counts.get(n.midi) ?? 0) + 1);
  return [...counts]
    .sort(([a], [b]) => a - b)
    .map(([note, count]) => ({ note, count, lane: laneForNote(song, sectionId, note) }));
}

/** What an import is planned against: the stretch of the file, and the meter and key it is read in. */
interface Plan {
  song: Song;
  section: Section;
  contents: MidiContents;
  choices: MidiChoices;
  meter: Meter;
  key: Key;
  /** The file's key, where it is taken. */
  taken: string | null;
  from: Ticks;
  to: Ticks;
  length: Ticks;
  /** Sentences about what was left out or changed. */
  reported: string[];
}

/** A note played further from its place than this keeps its offset. */
const OFF = 6;
/** Tempos that differ less are the same. */
const SAME_TEMPO = 0.5;

/**
 * Plans the import of chosen tracks and bars into a section as one edit. Errors: `midi.bars`, `midi.tracks`,
 * `midi.meter`.
 */
export function importMidi(
  song: Song,
  sectionId: string,
  contents: MidiContents,
  choices: MidiChoices,
): Result<MidiImport> {
  const planned = planOf(song, sectionId, contents, choices);
  if (!planned.ok) return planned;
  const plan = planned.value;
  const settings = settingEdits(plan);
  const chords = choices.chords.length ? chordsIn(plan) : [];
  const edits: Edit[] = [
    ...settings,
    ...(choices.chords.length
      ? [{ do: "setChords" as const, section: sectionId, from: 0, to: plan.length, chords }]
      : []),
    ...lineEdits(plan),
    ...drumEdits(plan),
  ];
  const unsure = chords.filter((c) => c.readings).length;
  return ok({ edit: { do: "all", label: "import", edits }, chords, unsure, reported: plan.reported });
}

/** What is imported, where it stands in the file, and in which meter and key. */
function planOf(song: Song, sectionId: string, contents: MidiContents, choices: MidiChoices): Result<Plan> {
  const section = sectionOf(song, sectionId);
  if (!section) return fail("midi.section", `No section has the id "${sectionId}"`);
  if (!choices.chords.length && !choices.melody && !choices.bass && !choices.drums)
    return fail("midi.tracks", "No track is chosen", {
      hint: "Choose what each track is: chords, melody, bass or drums.",
    });
  const read = meterOf(song, section, contents, choices);
  if (!read.ok) return read;
  const { meter, reported } = read.value;
  const [first, end] = choices.bars;
  const [from, to] = [first * meter.bar, end * meter.bar];
  if (!(first >= 0 && end > first) || from >= contents.length)
    return fail(
      "midi.bars",
      `Bars ${first + 1} to ${end} are not in the file, which has ${Math.ceil(contents.length / meter.bar)}`,
    );
  const fileKey = (contents.keys.findLast((k) => k.tick <= from) ?? contents.keys[0])?.key;

  const keyed = keyTaken(song, section, choices.key ? fileKey : undefined);
  const plan: Plan = { song, section, contents, choices, meter, from, to, reported, ...keyed, length: to - from };
  reportChanges(plan, fileKey);
  return ok(plan);
}

/** The key in which is written: the file's where it is wanted and the section has none of its own. */
function keyTaken(song: Song, section: Section, wanted: string | undefined): Pick<Plan, "key" | "taken"> {
  const parsed = wanted && !section.key ? parseKey(wanted) : null;
  return parsed?.ok ? { key: parsed.value, taken: sure(wanted) } : { key: sectionKey(song, section), taken: null };
}

/** The meter in which bars are counted, and what is to be said of it. */
function meterOf(
  song: Song,
  section: Section,
  contents: MidiContents,
  choices: MidiChoices,
): Result<{ meter: Meter; reported: string[] }> {
  const fileMeter = firstOf(contents.meters).text;
  if (choices.meter) {
    const read = parseMeter(fileMeter);
    return read.ok
      ? ok({ meter: read.value, reported: [] })
      : fail("midi.meter", `The file's meter ${fileMeter} is not one this application knows`, {
          hint: "Leave the song's own meter.",
        });
  }
  const own = section.meter ?? song.meter;
  const other = fileMeter !== own.split(" ")[0];
  const reported = other ? [`The file is in ${fileMeter}; its bars were counted in ${own}.`] : [];
  return ok({ meter: sectionMeter(song, section), reported });
}

/** Says which changes of tempo, meter and key inside the bars are not kept. */
function reportChanges({ contents, meter, key, from, to, reported }: Plan, fileKey: string | undefined): void {
  const barOf = (tick: Ticks) => `bar ${Math.floor(tick / meter.bar) + 1}`;
  const changes = <T extends { tick: Ticks }>(list: readonly T[], text: (x: T) => string, what: string) => {
    const inside = list.filter((x) => x.tick > from && x.tick < to);
    if (inside.length)
      reported.push(
        `${what} in these bars (${inside.map(text).join(", ")}) ${inside.length === 1 ? "was" : "were"} not ` +
          "kept: a section has one.",
      );
  };
  changes(contents.tempos, (t) => `${t.bpm} from ${barOf(t.tick)}`, "Tempo changes");
  changes(contents.meters, (m) => `${m.text} from ${barOf(m.tick)}`, "Meter changes");
  if (fileKey && fileKey !== `${key.tonic} ${key.mode}` && parseKey(fileKey).ok)
    reported.push(`The file says ${fileKey}; the section is in ${key.tonic} ${key.mode}.`);
}

/** Meter, key and tempo of the song, and bars of the section. */
function settingEdits({ song, section, contents, choices, taken, from, reported }: Plan): Edit[] {
  const [first, end] = choices.bars;
  const fileMeter = firstOf(contents.meters).text;
  const tempo = sure(contents.tempos.findLast((t) => t.tick <= from)).bpm;
  const [slowest, fastest] = LIMITS.tempo;
  if (!choices.tempo && Math.abs(tempo - song.tempo) > SAME_TEMPO)
    reported.push(`The file plays at ${tempo}; the song stays at ${song.tempo}.`);
  return [
    ...(choices.meter && fileMeter !== song.meter ? [{ do: "setMeter" as const, meter: fileMeter }] : []),
    ...(taken && taken !== song.key ? [{ do: "setKey" as const, key: taken }] : []),
    ...(choices.tempo ? [{ do: "setTempo" as const, tempo: Math.min(fastest, Math.max(slowest, tempo)) }] : []),
    { do: "setSection", section: section.id, bars: Math.max(section.bars, end - first) },
  ];
}

const trackOf = ({ contents }: Plan, id: string | undefined): MidiTrack | undefined =>
  contents.tracks.find((t) => t.id === id);

/** Notes within the bars, counted from their beginning. */
const cut = ({ from, to }: Plan, notes: readonly MidiNote[]): MidiNote[] =>
  notes.flatMap((n) => {
    const start = Math.max(n.start, from);
    const stop = Math.min(n.start + n.duration, to);
    return stop > start && n.start < to ? [{ ...n, start: start - from, duration: stop - start }] : [];
  });

/** Chords named from their tracks over the bass. */
function chordsIn(plan: Plan): Omit<ChordEvent, "id">[] {
  const { contents, choices, length, meter, key } = plan;
  const ids = new Set([...choices.chords, ...(choices.bass ? [choices.bass] : [])]);
  const sounding = contents.tracks.filter((t) => ids.has(t.id)).flatMap((t) => cut(plan, t.notes));
  return nameChords(sounding, length, { meter, unit: choices.unit, key, file: choices.file });
}

/** Tune and bass. */
function lineEdits(plan: Plan): Edit[] {
  const { song, section, choices, length, key, reported } = plan;
  return (["melody", "bass"] as const).flatMap((role): Edit[] => {
    const track = trackOf(plan, choices[role]);
    if (!track) return [];
    const part =
      song.parts.find((p) => p.id === (role === "bass" ? choices.bassPart : choices.melodyPart)) ??
      partByRole(song, role);
    if (!part) {
      reported.push(`The song has no ${role} part; ${track.name} was left out.`);
      return [];
    }
    const notes = cut(plan, track.notes).map((n): NewNote => {
      const { start, offset } = notated(n.start);
      return {
        start: Math.min(start, length - 1),
        duration: n.duration,
        pitch: spellInKey(n.midi, key),
        velocity: Math.min(127, Math.max(1, n.velocity)),
        ...(Math.abs(offset) > OFF ? { offset } : {}),
      };
    });
    return [{ do: "setNotes", section: section.id, part: part.id, notes }];
  });
}

/** Notes as hits of the lanes they are given to; of what has no lane it is told. */
function hitsOf({ song, section, choices, length, reported }: Plan, notes: readonly MidiNote[]): Lane[] {
  const unmapped = new Map<Midi, number>();
  const lanes = new Map<Drum, Map<Ticks, Hit>>();
  for (const n of notes) {
    const chosen = choices.drumMap?.[n.midi];
    const drum = chosen === undefined ? laneForNote(song, section.id, n.midi) : chosen;
    const { start, offset } = notated(n.start);
    if (!drum && chosen === undefined) unmapped.set(n.midi, (unmapped.get(n.midi) ?? 0) + 1);
    if (!drum || start >= length) continue;
    const hits = lanes.get(drum) ?? new Map<Ticks, Hit>();
    const velocity = Math.min(127, Math.max(1, n.velocity, hits.get(start)?.velocity ?? 0));
    lanes.set(drum, hits.set(start, { start, velocity, ...(Math.abs(offset) > OFF ? { offset } : {}) }));
  }
  for (const [midi, count] of unmapped)
    reported.push(
      `${counted(count, "hit")} of drum note ${midi} (${plainName(midi, true)}) ` +
        `${count === 1 ? "has no lane here and was" : "have no lane here and were"} left out.`,
    );
  return [...lanes].map(([drum, hits]) => ({ drum, hits: [...hits.values()].sort((x, y) => x.start - y.start) }));
}

/**
 * Drum hits by lane; what the section had in these bars gives way, unless both are wanted, and how its lanes are played
 * stays.
 */
function drumEdits(plan: Plan): Edit[] {
  const { section, choices, from, length } = plan;
  const track = trackOf(plan, choices.drums);
  if (!track) return [];
  const notes = cut(
    plan,
    track.notes.filter((x) => x.start >= from),
  );
  const fresh = hitsOf(plan, notes);
  const kept = section.groove.lanes.map((l) =>
    choices.addDrums ? l : { ...l, hits: l.hits.filter((h) => h.start >= length) },
  );
  return [{ do: "setDrums", section: section.id, lanes: mergeLanes(kept, fresh) }];
}
