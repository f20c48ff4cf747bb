import { because } from "./reasons";
import { spellAt } from "./spell";
import type { Midi } from "../theory/pitch/pitch";
import type { Ticks } from "../theory/time/meter";
import type { Drum, Hit, Lane, Note, Section, Song } from "./schema";

/** A note as it was played in: ticks of the section, not rounded. */
export interface PlayedNote {
  midi: Midi;
  start: number;
  end: number;
  velocity: number;
}

export interface Quantize {
  /** Grid the beginnings go to, in ticks. */
  grid: Ticks;
  /** 1 puts every note on the grid; less keeps that much of what was played early or late, as an offset. */
  strength: number;
  /** Notes end on the grid as well. */
  ends: boolean;
  /** One note at a time: a new one ends the last. */
  single: boolean;
}

/** Strokes that were played in, on the grid, by the lane each key stands for; keys without a lane are left out. */
export function quantizeHits(
  played: readonly PlayedNote[],
  laneOf: (midi: Midi) => Drum | null,
  { grid, strength }: Pick<Quantize, "grid" | "strength">,
  { from, to }: { from: Ticks; to: Ticks },
): Lane[] {
  const lanes = new Map<Drum, Map<Ticks, Hit>>();
  for (const note of played) {
    const drum = laneOf(note.midi);
    const start = Math.round(note.start / grid) * grid + 0;
    if (!drum || start < Math.max(0, from) || start >= to) continue;
    const offset = Math.round((note.start - start) * (1 - strength));
    const hits = lanes.get(drum) ?? new Map<Ticks, Hit>();
    const velocity = Math.min(127, Math.max(1, Math.round(Math.max(note.velocity, hits.get(start)?.velocity ?? 0))));
    lanes.set(
      drum,
      hits.set(start, {
        start,
        velocity,
        ...(Math.abs(offset) > 3 ? { offset: Math.max(-480, Math.min(480, offset)) } : {}),
      }),
    );
  }
  return [...lanes].map(([drum, hits]) => ({ drum, hits: [...hits.values()].sort((a, b) => a.start - b.start) }));
}

/**
 * Notes that were played in, on the grid: the notated place is always on it, what is left of the playing is the offset.
 * Two notes of one pitch that fall on the same place are one, as loud as the louder. Notes before `from` by less than
 * half a step belong to its beginning.
 */
export function quantize(
  song: Song,
  section: Section,
  {
    played,
    how: { grid, strength, ends, single },
    from,
    to,
  }: { played: readonly PlayedNote[]; how: Quantize; from: Ticks; to: Ticks },
): Omit<Note, "id">[] {
  const placed = new Map<string, PlayedNote & { at: Ticks }>();
  for (const note of played) {
    // Adding nothing keeps a start just before the beginning from being minus nothing.
    const at = Math.round(note.start / grid) * grid + 0;
    if (at < from || at >= to) continue;
    const id = `${at}:${note.midi}`;
    const known = placed.get(id);
    if (!known) placed.set(id, { ...note, at });
    else
      placed.set(id, {
        ...known,
        end: Math.max(known.end, note.end),
        velocity: Math.max(known.velocity, note.velocity),
      });
  }
  const sorted = [...placed.values()].sort((a, b) => a.at - b.at || a.midi - b.midi);
  // Of notes struck together by one hand that plays a line, the loudest stays.
  const line = single
    ? sorted.filter(
        (n) =>
          !sorted.some(
            (m) =>
              m !== n && m.at === n.at && (m.velocity > n.velocity || (m.velocity === n.velocity && m.midi < n.midi)),
          ),
      )
    : sorted;
  return line.map((note, i) => {
    const after = line.slice(i + 1).find((n) => n.at > note.at && (single || n.midi === note.midi));
    const raw = note.end - note.start;
    const length = ends ? Math.max(grid, Math.round(raw / grid) * grid) : Math.max(30, Math.round(raw));
    const offset = Math.round((note.start - note.at) * (1 - strength));
    return {
      start: note.at,
      duration: Math.max(1, Math.min(length, (after?.at ?? to) - note.at)),
      pitch: spellAt(song, section, Math.max(0, note.at), note.midi),
      velocity: Math.min(127, Math.max(1, Math.round(note.velocity))),
      reason: because("played"),
      ...(Math.abs(offset) > 3 ? { offset: Math.max(-480, Math.min(480, offset)) } : {}),
    };
  });
}

/**
 * Notes set on a grid later: the notated place goes to the grid, of what was played early or late only the rest of the
 * strength is kept.
 */
export function tightened(
  notes: readonly Note[],
  { grid, strength }: Pick<Quantize, "grid" | "strength">,
): { id: string; start: Ticks; offset: Ticks | null }[] {
  return notes.map((note) => {
    const played = note.start + (note.offset ?? 0);
    const start = Math.round(played / grid) * grid + 0;
    const offset = Math.round((played - start) * (1 - strength));
    return { id: note.id, start, offset: Math.abs(offset) > 3 ? Math.max(-480, Math.min(480, offset)) : null };
  });
}
