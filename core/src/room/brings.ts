import { mod } from "../pitch/pitch";
import { sectionMeter, sectionOf } from "../song/document";
import { sectionPlace } from "../song/place";
import { notesAt, hitsAt } from "../facts/facts";
import type { Fact } from "../facts/memory";
import { soundingIn } from "../writer/notes";
import type { RealizedNote } from "../song/realize";

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

/** Less of its own than this in attacks, octaves and tones, and a part can be left out (common practice: a layer earns its place by what only it brings). */
const LITTLE = 0.1;

/** Share of its time by which a double may be on its own. */
const SAME = 0.02;

const octaveOf = (midi: number): number => Math.floor(midi / 12);

/** Share of the time of notes at which a test fails for everything that sounds beside them. */
function alone(
  own: readonly RealizedNote[],
  around: ReturnType<typeof soundingIn<RealizedNote>>,
  same: (a: RealizedNote, b: RealizedNote) => boolean,
): number {
  let [all, free] = [0, 0];
  for (const n of own) {
    all += n.duration;
    const end = n.start + n.duration;
    const covered = around
      .within(n.start, end)
      .filter((m) => same(n, m))
      .map((m) => [Math.max(n.start, m.start), Math.min(end, m.start + m.duration)] as const)
      .sort((a, b) => a[0] - b[0]);
    let [sum, last] = [0, n.start];
    for (const [from, to] of covered) {
      sum += Math.max(0, to - Math.max(from, last));
      last = Math.max(last, to);
    }
    free += n.duration - sum;
  }
  return all ? free / all : 0;
}

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
      const around = soundingIn(others, bar);
      const starts = new Set(notes.map((n) => n.start));
      const taken = new Set([...others.map((n) => n.start), ...struck]);
      const ownAttacks = [...starts].filter((t) => !taken.has(t)).length / starts.size;
      const ownOctaves = alone(notes, around, (a, b) => octaveOf(a.midi) === octaveOf(b.midi));
      const ownTones = alone(notes, around, (a, b) => mod(a.midi - b.midi, 12) === 0);
      // Of two that double each other the first stays.
      const doubles = (a: readonly RealizedNote[], b: readonly RealizedNote[]) =>
        alone(a, soundingIn(b, bar), (x, y) => x.midi === y.midi) < SAME;
      const double = parts.slice(0, i).find((p) => doubles(notes, p.notes));
      const first = parts.slice(i + 1).some((p) => doubles(notes, p.notes) && doubles(p.notes, notes));
      const little = !first && ownAttacks < LITTLE && ownOctaves < LITTLE && ownTones < LITTLE;
      return {
        part: part.id,
        name: part.name,
        attacks: starts.size,
        ownAttacks,
        ownOctaves,
        ownTones,
        spare: double
          ? `it doubles ${double.part.name} note for note`
          : little
            ? "its attacks, octaves and tones are all there without it"
            : null,
      };
    });
  },
};
