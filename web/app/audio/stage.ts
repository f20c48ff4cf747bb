import {
  type FormPass,
  type Meter,
  type Part,
  type RealizedNote,
  type RealizedSong,
  Song,
  type Ticks,
  type Timed,
  type WithInstruments,
} from "../../../core/src/index";

/** A part with what it plays in some stretch, in the order of the notes. */
export interface Playing extends Pick<Part, "id" | "role" | "instrument"> {
  muted: boolean;
  notes: readonly RealizedNote[];
}

/** What is played: a section or the whole form, of which nothing is worked out before it is asked for. */
export interface Stage extends WithInstruments {
  duration: Ticks;
  sections: readonly (Timed["sections"][number] & { bars: number; meter: Meter })[];
  parts: readonly Pick<Playing, "id" | "role" | "instrument" | "muted">[];
  /** What is written to begin from one position up to another. */
  between(from: Ticks, to: Ticks): { parts: Playing[]; hits: RealizedSong["hits"] };
}

/** Index of the first of some things in order that begins at a position or behind it; ticks are whole numbers. */
const firstFrom = (list: readonly { start: Ticks }[], tick: Ticks): number => Song.lastBegun(list, tick - 1) + 1;
const within = <T extends { start: Ticks }>(list: readonly T[], from: Ticks, to: Ticks): T[] =>
  list.slice(firstFrom(list, from), firstFrom(list, to));

/** What was realized, as it is. */
export const stageOf = (real: RealizedSong): Stage => ({
  ...real,
  between: (from, to) => ({
    parts: real.parts.map((p) => ({ ...p, notes: within(p.notes, from, to) })),
    hits: within(real.hits, from, to),
  }),
});

/** A pass moved to where it stands in the song. */
const moved = <T extends { start: Ticks; played: number }>(by: Ticks, x: T): T => ({
  ...x,
  start: x.start + by,
  played: x.played + by,
});
const movedNote = (by: Ticks, n: RealizedNote): RealizedNote => ({ ...moved(by, n), playedEnd: n.playedEnd + by });

/**
 * The whole form; a pass is realized when the music comes near it.
 * @param realOf a pass by itself, from tick 0
 */
export function stageOfForm(song: Song, form: readonly FormPass[], realOf: (pass: string) => RealizedSong): Stage {
  const last = form.at(-1);
  return {
    ...(song.instruments ? { instruments: song.instruments } : {}),
    duration: last ? last.start + last.duration : 0,
    sections: form,
    parts: song.parts.map(({ id, role, instrument, muted }) => ({ id, role, instrument, muted: muted ?? false })),
    between(from, to) {
      // Upbeats reach back into the pass before: not further than a bar of theirs, and one more to be safe.
      const near = form.filter((p) => p.start - 2 * p.meter.bar < to && p.start + p.duration > from);
      const reals = near.map(({ id, start }) => ({ real: realOf(id), start }));
      return {
        parts: song.parts.map(({ id, role, instrument, muted }, i) => ({
          id,
          role,
          instrument,
          muted: muted ?? false,
          notes: reals
            .flatMap(({ real, start }) =>
              within(real.parts[i]?.notes ?? [], from - start, to - start).map((n) => movedNote(start, n)),
            )
            .sort((a, b) => a.start - b.start || a.midi - b.midi),
        })),
        hits: reals.flatMap(({ real, start }) =>
          within(real.hits, from - start, to - start).map((h) => moved(start, h)),
        ),
      };
    },
  };
}
