import { sure } from "../../../../base/list";
import { onceFor, whileSame } from "../../../../base/once";
import { mod } from "../../../../theory/pitch/pitch";
import type { Ticks } from "../../../../theory/time/meter";
import type { Chord } from "../../../../theory/chord/chord";
import type { RealizedChord } from "../../../../song/realize";
import type { Slice } from "../../../../hear/slice/slices";
import type { Song } from "../../../../song/schema";
import type { CheckContext } from "../../rule";

/** What sounds under a chord that is written. */
export interface Harmony {
  written: RealizedChord & { chord: Chord };
  /** All moments under the chord, and those in which its harmony sounds. */
  slices: readonly Slice[];
  harmonic: readonly Slice[];
  /** Length of the harmonic moments: short stabs say as much as a held chord. */
  time: Ticks;
  /** How long a pitch class sounds in them. */
  timeOf(pc: number): Ticks;
}

const sum = (slices: readonly Slice[]): Ticks => slices.reduce((all, s) => all + s.duration, 0);
const pcsOf = (slice: Slice): Set<number> => new Set(slice.notes.map((n) => mod(n.note.midi, 12)));

/**
 * The harmony under every chord of a section, measured over the time in which it sounds: where a chord part plays, else
 * where two different notes and more sound together. A chord under which nothing has changed has the harmony it had.
 */
export function harmoniesOf({ song, sliced }: CheckContext): readonly Harmony[] {
  const chordParts = layingOut(song);
  return onceFor([sliced], `harmonies ${chordParts.join()}`, () => {
    const players = new Set(chordParts);
    return [...slicesUnder(sliced.slices)].map(([chord, slices]) =>
      whileSame(chord, `harmony ${chordParts.join()}`, slices, () => harmonyOf(chord, slices, players)),
    );
  });
}

/** Parts that lay chords out, by id. */
export const layingOut = ({ parts }: Pick<Song, "parts">): string[] =>
  parts.filter((p) => p.role === "chords").map((p) => p.id);

function slicesUnder(all: readonly Slice[]): Map<RealizedChord, Slice[]> {
  const under = new Map<RealizedChord, Slice[]>();
  for (const s of all) {
    if (!s.chord?.chord) continue;
    const list = under.get(s.chord);
    if (list) list.push(s);
    else under.set(s.chord, [s]);
  }
  return under;
}

function harmonyOf(chord: RealizedChord, slices: readonly Slice[], players: ReadonlySet<string>): Harmony {
  const played = slices.filter((s) => s.notes.some((n) => players.has(n.part)));
  const harmonic = played.length ? played : slices.filter((s) => pcsOf(s).size > 1);
  const times = new Map<number, Ticks>();
  for (const s of harmonic) for (const pc of pcsOf(s)) times.set(pc, (times.get(pc) ?? 0) + s.duration);
  return {
    written: { ...chord, chord: sure(chord.chord) },
    slices,
    harmonic,
    time: sum(harmonic),
    timeOf: (pc) => times.get(mod(pc, 12)) ?? 0,
  };
}
