import { sure } from "../../base/list";
import { must } from "../../base/result";
import { keyName, nameInKey, parseKey, transposeKey, type Key } from "../../theory/pitch/key";
import { mod, pitchName, type Midi, type PitchName, type Semitones } from "../../theory/pitch/pitch";
import { positionText, type Seconds } from "../../theory/time/meter";
import { sectionMeter, sectionOf } from "../../song/document";
import type { Singer, Song } from "../../song/schema";
import { factsOf } from "../../facts/memory";
import { singerRange, type VoiceRange } from "./range";
import { chorusOf, sungBy, timeByPitch, type SungNote } from "./sung";

export const ZONES = ["below", "low", "easy", "high", "above"] as const;
/** Where a pitch lies in a voice: beyond its ends, at them, or at ease. */
export type Zone = (typeof ZONES)[number];

export function zoneOf({ comfortable, extremes }: VoiceRange, midi: Midi): Zone {
  if (midi < extremes[0]) return "below";
  if (midi > extremes[1]) return "above";
  if (midi < comfortable[0]) return "low";
  if (midi > comfortable[1]) return "high";
  return "easy";
}

/**
 * What a second in each zone is worth to comfort: at ease all of it, at the ends half, beyond them it counts against it
 * twice (common practice).
 */
const WORTH: Record<Zone, number> = { easy: 1, low: 0.5, high: 0.5, below: -2, above: -2 };

/** How a key suits one singer. */
export interface SingerFit {
  singer: string;
  name: string;
  /** Share of the time at ease; half of what lies at the ends, less twice what lies beyond them. */
  comfort: number;
  /**
   * How many of the chorus's peaks lie in the upper third of the comfortable range: 1 all; the farther off, the less
   * one counts.
   */
  power: number | null;
  seconds: Record<Zone, Seconds>;
  lowest: PitchName;
  highest: PitchName;
  /** Where the lowest and the highest note are sung. */
  lowestAt: string;
  highestAt: string;
}

/** One of the twelve keys. */
export interface SungKey {
  key: string;
  semitones: Semitones;
  /** As good as for the singer it suits least. */
  comfort: number;
  power: number | null;
  reasons: string[];
  perSinger: SingerFit[];
}

interface Sung {
  singer: Singer;
  range: VoiceRange;
  notes: readonly SungNote[];
  time: ReadonlyMap<Midi, Seconds>;
  /** Peaks of the chorus. */
  peaks: readonly Midi[];
}

/**
 * How much a peak is worth to power: in the upper third of the comfortable range all, below it less with each semitone,
 * above it less toward the end of the voice.
 */
export function powerOf({ comfortable: [low, high], extremes: [, most] }: VoiceRange, peak: Midi): number {
  const third = (high - low) / 3;
  if (peak > high) return Math.max(0, 1 - (peak - high) / Math.max(1, most - high + 1));
  return Math.max(0, 1 - Math.max(0, high - third - peak) / Math.max(1, third));
}

function fitOf(song: Song, key: Key, { singer, range, notes, time, peaks }: Sung, semitones: Semitones): SingerFit {
  const seconds = Object.fromEntries(ZONES.map((z) => [z, 0])) as Record<Zone, Seconds>;
  for (const [midi, s] of time) seconds[zoneOf(range, midi + semitones)] += s;
  const all = ZONES.reduce((sum, z) => sum + seconds[z], 0);
  const comfort = ZONES.reduce((sum, z) => sum + WORTH[z] * seconds[z], 0) / all;
  const [low, high] = [1, -1].map((way) => notes.reduce((best, n) => ((best.midi - n.midi) * way > 0 ? n : best))) as [
    SungNote,
    SungNote,
  ];
  const named = (n: SungNote) => pitchName(n.midi + semitones, nameInKey(mod(n.midi + semitones, 12), key));
  const where = (n: SungNote) => {
    const section = sure(sectionOf(song, n.section));
    return `${section.name}, ${positionText(sectionMeter(song, section), n.start)}`;
  };
  return {
    singer: singer.id,
    name: singer.name,
    comfort,
    power: peaks.length ? peaks.reduce((sum, p) => sum + powerOf(range, p + semitones), 0) / peaks.length : null,
    seconds,
    lowest: named(low),
    highest: named(high),
    lowestAt: where(low),
    highestAt: where(high),
  };
}

/** What is to be said of a key: who sings where, and who leaves the voice. */
function reasonsOf(fits: readonly SingerFit[]): string[] {
  return fits.map((f) => {
    const all = ZONES.reduce((sum, z) => sum + f.seconds[z], 0);
    const share = (z: Zone) => Math.round((f.seconds[z] / all) * 100);
    const out = [
      f.seconds.above > 0 && `goes beyond the top, to ${f.highest} (${f.highestAt})`,
      f.seconds.below > 0 && `goes below the bottom, to ${f.lowest} (${f.lowestAt})`,
      share("high") >= 1 && `${share("high")} % high`,
      share("low") >= 1 && `${share("low")} % low`,
    ].filter(Boolean);
    return `${f.name}: ${share("easy")} % at ease${out.length ? `, ${out.join(", ")}` : ""}`;
  });
}

const lowestOf = (values: readonly (number | null)[]): number | null => {
  const known = values.filter((v) => v !== null);
  return known.length ? Math.min(...known) : null;
};

/** What a key is worth to all singers: as much as to the one it suits least. */
const together = (fits: readonly SingerFit[]): Pick<SungKey, "comfort" | "power"> => ({
  comfort: Math.min(...fits.map((f) => f.comfort)),
  power: lowestOf(fits.map((f) => f.power)),
});

/**
 * A song tried in all twelve keys for its singers, best by comfort first; of the ways up and down to a key the more
 * comfortable one, the nearer of two alike. `power` ranks the same keys by where the chorus's peaks fall. Empty where
 * nobody sings. Singers are named by id; all of them where none is.
 */
export function fitKey(song: Song, { singers }: { singers?: readonly string[] } = {}): SungKey[] {
  const read = factsOf(song);
  const sung = song.singers
    .filter((s) => !singers?.length || singers.includes(s.id))
    .map((singer): Sung => {
      const notes = sungBy(read, singer);
      const chorus = chorusOf(song, notes);
      return {
        singer,
        range: singerRange(song, singer),
        notes,
        time: timeByPitch(notes),
        peaks: notes.filter((n) => n.peak && chorus.includes(n.section)).map((n) => n.midi),
      };
    })
    .filter((s) => s.notes.length);
  if (!sung.length) return [];
  const home = must(parseKey(song.key));
  const fits = Array.from({ length: 12 }, (_, up): SungKey => {
    const key = up === 0 ? home : transposeKey(home, up);
    const ways = (up === 0 ? [0, 12, -12] : [up, up - 12]).sort((a, b) => Math.abs(a) - Math.abs(b));
    const tried = ways.map((semitones) => {
      const perSinger = sung.map((s) => fitOf(song, key, s, semitones));
      return { key: keyName(key), semitones, ...together(perSinger), reasons: reasonsOf(perSinger), perSinger };
    });
    return tried.reduce((best, t) => (t.comfort > best.comfort + 1e-9 ? t : best));
  });
  return fits.sort((a, b) => b.comfort - a.comfort || Math.abs(a.semitones) - Math.abs(b.semitones));
}

/** The same keys by power: where the peaks of the chorus fall; of two alike the more comfortable one. */
export const byPower = (fits: readonly SungKey[]): SungKey[] =>
  [...fits].sort(
    (a, b) =>
      (b.power ?? -1) - (a.power ?? -1) || b.comfort - a.comfort || Math.abs(a.semitones) - Math.abs(b.semitones),
  );
