import { sure } from "../../../base/list";
import { mod, noteOf } from "../../../theory/pitch/pitch";
import { chordPitchClasses, rootPc, toneRole } from "../../../theory/chord/chord";
import type { Technique } from "../technique";
import { mainNote, read, replacement, colorAt, shared, sizeOf } from "../tools";

/** What a note can be in a chord of each kind: as color, a ninth or a seventh sounds richer than a root. */
const KINDS: readonly [quality: string, below: readonly number[]][] = [
  ["maj7", [4, 7, 11]],
  ["7", [4, 7, 10]],
  ["m7", [3, 7, 10]],
];

export const heldTune: Technique = {
  id: "held-tune",
  title: "Another light under the tune",
  explanation:
    "The note the tune rests on becomes another member of a chord from outside the key: third, fifth or " +
    "seventh of something the ear did not expect.",
  source: "common practice",
  adventure: 0.8,
  aim: "more",
  words: { holds: "{note} of the tune becomes the {role} of {new}" },
  propose(spot) {
    const { chord, key } = spot.here;
    const note = mainNote(spot);
    if (!note) return [];
    const name = noteOf(note.pitch);
    const pc = mod(note.midi, 12);
    const next = spot.next?.chord;
    return KINDS.flatMap(([quality, below]) =>
      below.flatMap((semitones) => {
        const symbol = colorAt(name, -sure(LETTERS[semitones]), -semitones, {
          quality: sizeOf(chord) === 4 || quality === "7" ? quality : quality.replace(/maj7|7/, ""),
          key,
        });
        const made = read(symbol);
        if (!chordPitchClasses(made).includes(pc) || chordPitchClasses(made).every((x) => key.pcs.includes(x)))
          return [];
        // It is tied in by notes it keeps, or by where it leads.
        const leads = next !== undefined && [5, 11].includes(mod(rootPc(next) - rootPc(made), 12));
        if (
          rootPc(made) === rootPc(chord) ||
          (next && rootPc(made) === rootPc(next)) ||
          (quality === "7" ? !leads : shared(made, chord) < 1)
        )
          return [];
        const { role } = toneRole(made, pc);
        return replacement(spot, symbol, "holds", { params: { note: name, role: MEMBER[role] ?? role, new: symbol } });
      }),
    );
  },
};

/** Letters from a root up to its third, fifth and seventh. */
const LETTERS: Record<number, number> = { 3: 2, 4: 2, 7: 4, 10: 6, 11: 6 };
const MEMBER: Record<string, string> = { "3": "third", b3: "third", "5": "fifth", b7: "seventh", "7": "major seventh" };
