import { firstOf } from "../core/src/base/list";
import { Bass, type BassReport, type Conflict, Edit, Fact, Groove, type Measure, must, Song } from "../core/src/index";
import { measuresOf } from "../core/src/write/bass/measures";

/**
 * Progressions of the grid, invented: diatonic, applied and borrowed chords, slash chords, a vamp, chords that change
 * on the beat.
 */
export const LINES: readonly [key: string, line: string][] = [
  ["Eb major", "| Ebmaj9 | Cm7 F7sus4 F7 | Bbm7 Eb9 | Abmaj7 |"],
  ["C major", "| Dm7 | G7 | C | C |"],
  ["A minor", "| Am | F | C | G/B |"],
  ["C minor", "| Cm9 | % | % | % |"],
  ["D minor", "| Em7b5 A7(b9) | Dm9 | Bb13 | A7 |"],
  ["F# minor", "| F#m | D E | C#m7 F#m | Bm7 C#7 |"],
  ["Bb major", "| Bb | Gdim7 | Cm7 | F7 Gb7 |"],
];

/** Kicks of the grid as names of feels, and two that are painted: none at all, and loud ones off the beat. */
const KICKS = ["four-floor", "boom-bap", "bossa", "half-time", "breakbeat", "none", "pushed"] as const;
const METERS = ["4/4", "3/4", "6/8", "12/8", "5/4", "7/8"] as const;

export interface Case {
  style: string;
  meter: string;
  kick: string;
  line: string;
}

/** All combinations, in a fixed order. */
export const GRID: readonly (Case & { key: string })[] = Bass.STYLES.flatMap((s) =>
  LINES.flatMap(([key, line]) =>
    KICKS.flatMap((kick) => METERS.map((meter) => ({ style: s.id, meter, kick, key, line }))),
  ),
);

const songs = new Map<string, Song>();
export function gridSong({ key, line, meter, kick }: Omit<Case, "style"> & { key: string }): Song {
  const id = [key, line, meter, kick].join("|");
  const known = songs.get(id);
  if (known) return known;
  const base = must(Song.create({ title: "Grid", key, meter, bars: 4 }));
  const edit = (song: Song, e: Edit) => must(Edit.apply(song, e)).song;
  let song = edit(base, { do: "setLine", section: "s1", line });
  const { meter: read } = must(Bass.request(Fact.of(song), { section: "s1", part: "bass" })).ctx;
  const pattern = Groove.PATTERNS.find((p) => p.id === kick);
  if (pattern) song = edit(song, { do: "setDrums", section: "s1", lanes: Groove.lanes(pattern, read, 4) });
  if (kick === "pushed")
    for (let bar = 0; bar < 4; bar++)
      for (const beat of read.beats.slice(0, 3))
        song = edit(song, {
          do: "setHit",
          section: "s1",
          drum: "kick",
          start: bar * read.bar + beat.start + (beat.start ? beat.duration - 120 : 0),
          velocity: 108,
        });
  songs.set(id, song);
  return song;
}

export interface Outcome {
  lines: number;
  unmet: Measure[];
  /** Unmet targets that no conflict explains. */
  unexplained: Measure[];
  conflicts: Conflict[];
  report: BassReport;
}

/** Writes one combination and compares its first line with its targets. */
export function judge(c: Case & { key: string }, seed = 4): Outcome {
  const song = gridSong(c);
  const request = { section: "s1", part: "bass", style: c.style, seed };
  const lines = must(Bass.write(song, request));
  const { ctx, style } = must(Bass.request(Fact.of(song), request));
  const { report, conflicts } = firstOf(lines);
  const unmet = measuresOf(report, { style, settings: ctx.settings, meter: ctx.meter }).filter((m) => m.met === false);
  const named = new Set(conflicts.flatMap((x) => x.measures));
  return { lines: lines.length, unmet, unexplained: unmet.filter((m) => !named.has(m.id)), conflicts, report };
}
