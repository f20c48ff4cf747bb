import { fail, ok, type Result } from "../../base/result";
import type { Reader } from "../../facts/memory";
import { chordsAt, notesAt } from "../../hear/sounding";
import { rolesAt } from "../../hear/slice/facts";
import { noteRoles, type RoleContext, type RoleSpan } from "../../hear/slice/roles";
import { soundingIn } from "../../hear/slice/soundingIn";
import { isWritten, partOf, sectionKey, sectionMeter, sectionOf, sectionTempo } from "../../song/document";
import { sectionPlace } from "../../song/place";
import { chordAtTick, frameOf, realizedNotes, type RealizedChord, type RealizedNote } from "../../song/realize";
import type { Note, Part, Section, Song } from "../../song/schema";
import { instrumentOf, midiRange } from "../../theory/instrument/instruments";
import { nameInKey, type Key } from "../../theory/pitch/key";
import { mod, parsePitch, pitchName, type Midi } from "../../theory/pitch/pitch";
import type { Meter, Ticks } from "../../theory/time/meter";
import type { LineNote } from "./kind";

/** What every line is written against, all in ticks of one section. */
export interface Ground {
  /** Where facts of the song are read. */
  read: Reader;
  song: Song;
  section: Section;
  meter: Meter;
  key: Key;
  bars: number;
  length: Ticks;
  tempo: number;
  chords: RealizedChord[];
}

/** Ground of a line that one part plays. */
export interface PartGround extends Ground {
  part: Part;
  /** The line as it stands, or a candidate for it, with the roles of its notes. */
  notes: readonly RealizedNote[];
  roles: ReadonlyMap<RealizedNote, RoleSpan[]>;
  pinned: Note[];
  range: [Midi, Midi];
}

/** The ground of a section. Errors: `bass.section`, `counter.section`, `vocal.section`. */
export function groundOf(kind: string, read: Reader, sectionId: string): Result<Ground> {
  const { song } = read;
  const section = sectionOf(song, sectionId);
  if (!section) return fail(`${kind}.section`, `No section has the id "${sectionId}"`);
  const meter = sectionMeter(song, section);
  return ok({
    read,
    song,
    section,
    meter,
    key: sectionKey(song, section),
    bars: section.bars,
    length: section.bars * meter.bar,
    tempo: sectionTempo(song, section),
    chords: read.get(chordsAt, sectionPlace(sectionId)),
  });
}

/** Where a part is written: in its own range, else where its instrument is at ease. */
export const usualRange = (song: Song, part: Part): [Midi, Midi] =>
  midiRange(part.range ?? instrumentOf(part.instrument, song).comfortable);

/** The range that is set, by the names of its ends; where none is, that in which the instrument is at ease. */
function rangeOf({ song }: Ground, part: Part, { low, high }: { low: string; high: string }): [Midi, Midi] {
  const [least, most] = usualRange(song, part);
  const end = (text: string, usual: Midi) => {
    const pitch = text ? parsePitch(text) : null;
    return pitch?.ok ? pitch.value : usual;
  };
  return [end(low, least), end(high, most)];
}

/** The ground of one part in a section. Errors: as `groundOf`, and `bass.part`, `counter.part`. */
export function partGround(
  kind: string,
  read: Reader,
  { section, part: id }: { section: string; part: string },
  range: { low: string; high: string },
): Result<PartGround> {
  const ground = groundOf(kind, read, section);
  if (!ground.ok) return ground;
  const part = partOf(read.song, id);
  if (!part || !isWritten(part)) return fail(`${kind}.part`, `"${id}" is not a part that notes can be written into`);
  const place = sectionPlace(section);
  return ok({
    ...ground.value,
    part,
    notes: read.get(notesAt, place, id, "held"),
    roles: read.get(rolesAt, place, id, "held"),
    pinned: (ground.value.section.notes[id] ?? []).filter((n) => n.pinned),
    range: rangeOf(ground.value, part, range),
  });
}

/** The ground with another line in the place of the part's own: a candidate as it would sound. Null for no section. */
export function inPlace<C extends PartGround & Pick<RoleContext, "onward">>(
  ctx: C,
  line: readonly LineNote[],
): C | null {
  const frame = frameOf(ctx.song, sectionPlace(ctx.section.id));
  if (!frame) return null;
  const written = line.map((n, i): Note => ({ ...n, id: n.id ?? `new${i}` }));
  const section = { ...frame.section, notes: { ...frame.section.notes, [ctx.part.id]: written } };
  const notes = realizedNotes(ctx.song, { ...frame, section }, ctx.part, true);
  const ground = {
    chords: ctx.chords,
    sections: [{ start: 0, key: ctx.key, meter: ctx.meter }],
    loops: true,
    duration: ctx.length,
    ...(ctx.onward ? { onward: ctx.onward } : {}),
  };
  return { ...ctx, notes, roles: noteRoles(ground, { role: ctx.part.role, linked: false, notes }) };
}

/** Parts whose line another one can be written against: melodies and voices first. */
export const tunesFor = (song: Song, part: string): Part[] =>
  (["melody", "vocal", "counter"] as const).flatMap((role) =>
    song.parts.filter((p) => p.role === role && p.id !== part && isWritten(p)),
  );

/** Pitches of the parts that lay out the chords, sounding at a tick, but for some parts: those of the line itself. */
export function harmonyOf({ read, song, section, meter }: Ground, without: readonly (Part | null | undefined)[]) {
  const sounding = soundingIn(
    song.parts
      .filter((p) => !without.includes(p) && (p.link !== undefined || p.role === "chords"))
      .flatMap((p) => read.get(notesAt, sectionPlace(section.id), p.id, "held")),
    meter.bar,
  );
  return (tick: Ticks): readonly Midi[] => sounding.at(tick).map((n) => n.midi);
}

/** The chord at a tick; a pickup stands under the first one. */
export const chordAt = ({ chords }: Pick<Ground, "chords">, tick: Ticks): RealizedChord | null =>
  chordAtTick(chords, tick);

/** What is said where a section has no chord. */
export const noChords = (kind: string, { section, chords }: Ground, hint: string): Result<never> | null =>
  chords.some((c) => c.chord)
    ? null
    : fail(`${kind}.chords`, `${section.name} has no chords yet`, { hint: `Type a chord line first; ${hint}` });

/** What is said where a range is too narrow to write in. */
export function tooNarrow(
  kind: string,
  { range, key }: PartGround,
  { least, width, hint }: { least: number; width: string; hint: string },
): Result<never> | null {
  if (range[1] - range[0] >= least) return null;
  const [low, high] = range.map((m) => pitchName(m, nameInKey(mod(m, 12), key)));
  return fail(`${kind}.range`, `${low} to ${high} is less than ${width}`, { hint });
}
