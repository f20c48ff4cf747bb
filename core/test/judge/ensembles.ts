import { firstOf, nth, sure } from "../../src/base/list";
import type { Song } from "../../src/song/schema/song";
import { edit } from "../helpers";

/** Who plays or sings what four voices have, from the top. */
export const ENSEMBLES = {
  strings: ["violin", "violin", "viola", "cello"],
  winds: ["flute", "clarinet", "altoSax", "tenorSax"],
  brass: ["trumpet", "trumpet", "trombone", "trombone"],
} as const;
export type Ensemble = keyof typeof ENSEMBLES;

/** The same four lines played: the top one is the tune, the lowest the bass, whatever roles they had as voices. */
export function playedBy(song: Song, parts: readonly string[], ensemble: Ensemble): Song {
  const roles = ["melody", "counter", "counter", "bass"] as const;
  return {
    ...song,
    parts: song.parts.map((part) => {
      const i = parts.indexOf(part.id);
      if (i < 0) return part;
      const instrument = nth(ENSEMBLES[ensemble], i);
      return { ...part, instrument, role: nth(roles, i), name: `${instrument} ${i + 1}` };
    }),
  };
}

/** The same four voices under the hands of one player: a layout for every chord, as it begins. */
export function onKeys(song: Song, parts: readonly string[]): Song {
  const section = firstOf(song.sections);
  const at = (part: string, tick: number) =>
    sure((section.notes[part] ?? []).find((n) => n.start <= tick && tick < n.start + n.duration)).pitch;
  const laid = section.chords.reduce(
    (s, chord) =>
      edit(s, {
        do: "pinVoicing",
        section: section.id,
        part: "keys",
        chord: chord.id,
        pitches: [...new Set(parts.map((p) => at(p, chord.start)))],
      }),
    song,
  );
  return parts.reduce((s, part) => edit(s, { do: "setNotes", section: section.id, part, notes: [] }), laid);
}
