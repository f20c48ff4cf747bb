import { mod } from "../../theory/pitch/pitch";
import { sectionMeter, sectionOf } from "../../song/document";
import { sectionPlace } from "../../song/place";
import { notesAt, hitsAt } from "../../hear/sounding";
import type { Fact } from "../../facts/memory";
import { shareOf } from "./share";
import type { RealizedNote } from "../../song/realize";

/** What one part brings that no other part does. */
export interface Brings {
  part: string;
  name: string;
  /** Attacks of the part, notes struck at once counted as one. */
  attacks: number;
  /** Share of them at which no other part strikes. */
  ownAttacks: number;
  /** Share of its time in an octave in which no other part sounds then. */
  ownOctaves: number;
  /** Share of its time on a pitch class that no other part sounds then. */
  ownTones: number;
  /** Worth leaving out, and why; null where it brings something. */
  spare: string | null;
}

/**
 * Less of its own than this in attacks, octaves and tones, and a part can be left out (common practice: a layer earns
 * its place by what only it brings).
 */
const LITTLE = 0.1;

/** Share of its time by which a double may be on its own. */
const SAME = 0.02;

const octaveOf = (midi: number): number => Math.floor(midi / 12);

/** What each pitched part of a section brings; parts that are silent there are left out. */
export const bringsAt: Fact<[section: string], Brings[]> = {
  id: "brings",
  of(read, sectionId) {
    const { song } = read;
    const section = sectionOf(song, sectionId);
    if (!section) return [];
    const place = sectionPlace(sectionId);
    const { bar } = sectionMeter(song, section);
    const parts = song.parts
      .filter((p) => p.role !== "drums")
      .map((part) => ({ part, notes: read.get(notesAt, place, part.id, "played") }))
      .filter((p) => p.notes.length > 0);
    const struck = new Set(read.get(hitsAt, place).map((h) => h.start));
    return parts.map(({ part, notes }, i): Brings => {
      const others = parts.filter((p) => p.part !== part).flatMap((p) => p.notes);
      const starts = new Set(notes.map((n) => n.start));
      const taken = new Set([...others.map((n) => n.start), ...struck]);
      const ownAttacks = [...starts].filter((t) => !taken.has(t)).length / starts.size;
      const ownOctaves = 1 - shareOf(notes, others, bar, (a, b) => octaveOf(a.midi) === octaveOf(b.midi));
      const ownTones = 1 - shareOf(notes, others, bar, (a, b) => mod(a.midi - b.midi, 12) === 0);
      // Of two that double each other the first stays.
      const doubles = (a: readonly RealizedNote[], b: readonly RealizedNote[]) =>
        shareOf(a, b, bar, (x, y) => x.midi === y.midi) > 1 - SAME;
      const double = parts.slice(0, i).find((p) => doubles(notes, p.notes));
      const first = parts.slice(i + 1).some((p) => doubles(notes, p.notes) && doubles(p.notes, notes));
      const little = !first && ownAttacks < LITTLE && ownOctaves < LITTLE && ownTones < LITTLE;
      const spare = () => {
        if (double) return `it doubles ${double.part.name} note for note`;
        if (little) return "its attacks, octaves and tones are all there without it";
        return null;
      };
      return {
        part: part.id,
        name: part.name,
        attacks: starts.size,
        ownAttacks,
        ownOctaves,
        ownTones,
        spare: spare(),
      };
    });
  },
};
