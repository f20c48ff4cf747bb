import { firstOf, nth, sure } from "../core/src/base/list";
import {
  Chord,
  type Conflict,
  Counter,
  type CounterReport,
  Edit,
  Fact,
  Groove,
  type Measure,
  must,
  type NewNote,
  Pitch,
  Song,
} from "../core/src/index";
import { counterMeasures } from "../core/src/write/counter/measures";
import { counterRequest } from "../core/src/write/counter/write";
import { LINES } from "./bassGrid";

/** How the tunes of the grid go, in beats of the meter (minus is a rest), each over and over: invented. */
const RHYTHMS = {
  /** Phrases with room to answer in. */
  phrases: [1, 0.5, 0.5, 1, 1, -2, 0.5, 0.5, 1, -2],
  busy: [0.5, 0.5, 0.5, 0.5, 1, 0.5, 0.5],
  long: [3, 1, 4],
  sparse: [1, 1, -6],
  offBeat: [-0.5, 1, 1, 0.5, 1.5, -1.5],
} as const;

const METERS = ["4/4", "3/4", "6/8", "7/8"] as const;

export interface CounterCase {
  style: string;
  tune: keyof typeof RHYTHMS;
  meter: string;
  key: string;
  line: string;
}

/** All combinations, in a fixed order. */
export const COUNTER_GRID: readonly CounterCase[] = Counter.STYLES.flatMap((s) =>
  LINES.flatMap(([key, line]) =>
    (Object.keys(RHYTHMS) as (keyof typeof RHYTHMS)[]).flatMap((tune) =>
      METERS.map((meter) => ({ style: s.id, tune, meter, key, line })),
    ),
  ),
);

const MOVES = [0, 2, 1, -1, -2, 1, 3, -1, -3, 0, 2, -2];

/** A tune over the chords of a section: tones of the chord on beats, steps of the key between. */
function tuneOver(song: Song, rhythm: readonly number[]): NewNote[] {
  const section = firstOf(song.sections);
  const { ctx } = must(counterRequest(Fact.of(song), { section: "s1", part: "answer" }));
  const beat = firstOf(ctx.meter.beats).duration;
  const scale = Array.from({ length: 40 }, (_, i) => 50 + i).filter((m) => ctx.key.pcs.includes(m % 12));
  const notes: NewNote[] = [];
  let degree = scale.findIndex((m) => m >= 66);
  for (let at = 0, i = 0; at < ctx.length; i++) {
    const value = nth(rhythm, i % rhythm.length);
    const duration = Math.max(60, Math.round((Math.abs(value) * beat) / 60) * 60);
    if (value > 0) {
      degree = Math.min(scale.length - 4, Math.max(3, degree + nth(MOVES, i % MOVES.length)));
      let midi = nth(scale, degree);
      const chord = Chord.of(section.chords.findLast((c) => c.start <= at)?.symbol ?? "");
      const pcs = chord ? Chord.pitchClasses(chord) : [];
      if (at % beat === 0 && pcs.length)
        midi = [0, 1, -1, 2, -2, 3].map((d) => midi + d).find((m) => pcs.includes(m % 12)) ?? midi;
      notes.push({
        start: at,
        duration: Math.min(duration, ctx.length - at),
        pitch: Song.spell(song, section, at, midi),
        velocity: 92,
      });
    }
    at += duration;
  }
  return notes;
}

const songs = new Map<string, Song>();
export function counterSong({ key, line, meter, tune }: Omit<CounterCase, "style">): Song {
  const id = [key, line, meter, tune].join("|");
  const known = songs.get(id);
  if (known) return known;
  const edit = (s: Song, e: Edit) => must(Edit.apply(s, e)).song;
  let song = must(Song.create({ title: "Grid", key, meter, bars: 4 }));
  song = edit(song, { do: "setLine", section: "s1", line });
  song = edit(song, { do: "addPart", name: "Fiddle", role: "counter", instrument: "violin" });
  song = { ...song, parts: song.parts.map((p) => (p.name === "Fiddle" ? { ...p, id: "answer" } : p)) };
  const { ctx } = must(counterRequest(Fact.of(song), { section: "s1", part: "answer" }));
  song = edit(song, { do: "setDrums", section: "s1", lanes: Groove.lanes(nth(Groove.PATTERNS, 1), ctx.meter, 4) });
  song = edit(song, { do: "setNotes", section: "s1", part: "melody", notes: tuneOver(song, RHYTHMS[tune]) });
  songs.set(id, song);
  return song;
}

export interface CounterOutcome {
  song: Song;
  lines: number;
  notes: (NewNote & { midi: number })[];
  unmet: Measure[];
  /** Unmet aims that no conflict explains. */
  unexplained: Measure[];
  conflicts: Conflict[];
  report: CounterReport;
}

/** A sustained line is taken: what a variation comes back to. */
function withFirstHalf(song: Song): Song {
  const [line] = must(Counter.write(song, { section: "s1", part: "answer", style: "sustained", seed: 2 }));
  return must(Edit.apply(song, { do: "setNotes", section: "s1", part: "answer", notes: sure(line).notes })).song;
}

/**
 * Writes one combination and compares its first line with its aims; null where the style says that it has no place to
 * sound.
 */
export function judgeCounter(c: CounterCase, seed = 4): CounterOutcome | { nothing: string } {
  const bare = counterSong(c);
  const song = c.style === "variation" ? withFirstHalf(bare) : bare;
  const request = { section: "s1", part: "answer", style: c.style, seed };
  const written = Counter.write(song, request);
  if (!written.ok) return { nothing: written.error.code };
  const { ctx, style } = must(counterRequest(Fact.of(song), request));
  const { report, conflicts, notes } = firstOf(written.value);
  const unmet = counterMeasures(report, { style, settings: ctx.settings }, ctx.meter).filter((m) => m.met === false);
  const named = new Set(conflicts.flatMap((x) => x.measures));
  return {
    song,
    lines: written.value.length,
    notes: notes.map((n) => ({ ...n, midi: Pitch.midi(n.pitch) })),
    unmet,
    unexplained: unmet.filter((m) => !named.has(m.id)),
    conflicts,
    report,
  };
}
