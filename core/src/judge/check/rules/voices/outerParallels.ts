import { sure } from "../../../../base/list";
import { counted } from "../../../../theory/words/english";
import { mod } from "../../../../theory/pitch/pitch";
import { positionText } from "../../../../theory/time/meter";
import { chordPitchClasses } from "../../../../theory/chord/chord";
import { spellAt } from "../../../../song/spell";
import { parallelPerfect } from "../../../../theory/motion/motion";
import { instrumentOf, midiRange } from "../../../../theory/instrument/instruments";
import type { SliceNote } from "../../../../hear/slice/slices";
import type { Fix, RawFinding, Rule } from "../../rule";

export const outerParallels: Rule = {
  id: "parallels",
  title: "Parallel fifths and octaves between outer voices",
  family: "voices",
  explanation:
    "When the bass and the top voice move the same way from one fifth or octave into another, the two voices " +
    "fuse and one of them is lost to the ear. In band, jazz and loop styles this is often wanted, so it is " +
    "only mentioned there; parts that double each other in octaves, or move in parallels throughout (planing, " +
    "power chords), are not told.",
  source: "Huron 2001; any harmony textbook",
  severity: { chorale: "fault", band: "note", jazz: "off", loop: "off" },
  find({ song, section, sliced, meter }) {
    const found: RawFinding[] = [];
    const moves = new Map<string, number>();
    let before: { bass: SliceNote; top: SliceNote } | null = null;
    const roleOf = new Map(sliced.real.parts.map((p) => [p.id, p.role]));
    for (const slice of sliced.slices) {
      const bass = slice.notes.find((n) => roleOf.get(n.part) === "bass");
      const top = slice.notes.at(-1);
      if (!bass || !top || top === bass) {
        before = null;
        continue;
      }
      if (before && bass.attack && top.attack && before.bass.part === bass.part && before.top.part === top.part) {
        if (before.bass.note.midi !== bass.note.midi)
          moves.set(`${bass.part}+${top.part}`, (moves.get(`${bass.part}+${top.part}`) ?? 0) + 1);
        const kind = parallelPerfect(before.bass.note.midi, bass.note.midi, before.top.note.midi, top.note.midi);
        if (kind) {
          const fixes: Fix[] = [];
          const part = sure(song.parts.find((p) => p.id === bass.part));
          const [low, high] = midiRange(part.range ?? instrumentOf(part.instrument, song).comfortable);
          const pcs = slice.chord?.chord ? chordPitchClasses(slice.chord.chord) : [];
          for (let d = 1; d <= 12 && fixes.length < 2; d++)
            for (const midi of [bass.note.midi - d, bass.note.midi + d]) {
              if (
                fixes.length === 2 ||
                midi < low ||
                midi > high ||
                midi >= top.note.midi ||
                !pcs.includes(mod(midi, 12)) ||
                parallelPerfect(before.bass.note.midi, midi, before.top.note.midi, top.note.midi)
              )
                continue;
              const pitch = spellAt(song, section, bass.note.start, midi);
              fixes.push({
                label: `Bass to ${pitch}`,
                edit: { do: "changeNotes", section: section.id, part: bass.part, notes: [{ id: bass.note.id, pitch }] },
              });
            }
          // Without a chord to choose from, an octave the other way still breaks the parallel.
          const octave = bass.note.midi + (bass.note.midi > before.bass.note.midi ? -12 : 12);
          if (!fixes.length)
            fixes.push({
              label: `Bass to ${spellAt(song, section, bass.note.start, octave)}`,
              edit: {
                do: "changeNotes",
                section: section.id,
                part: bass.part,
                notes: [{ id: bass.note.id, pitch: spellAt(song, section, bass.note.start, octave) }],
              },
            });
          found.push({
            tick: slice.start,
            duration: slice.duration,
            parts: [bass.part, top.part],
            notes: [before.bass.note.id, before.top.note.id, bass.note.id, top.note.id],
            fixes,
            amount: counted(Math.abs(bass.note.midi - before.bass.note.midi), "semitone"),
            message:
              `Parallel ${kind}s into ${positionText(meter, slice.start)}: bass ` +
              `${before.bass.note.pitch}–${bass.note.pitch}, ` +
              `${sure(sliced.real.parts.find((p) => p.id === top.part)).name} ` +
              `${before.top.note.pitch}–${top.note.pitch}.`,
          });
        }
      }
      before = { bass, top };
    }
    return song.profile === "chorale" ? found : found.filter((f) => !planes(f.parts, found, moves));
  },
};

/**
 * Share of the moves of two parts from which parallels are how they go together: octave doubling, power chords,
 * planing; and how many say so.
 */
const PLANING = 0.6;
const FEWEST = 4;

const planes = (
  parts: readonly string[],
  found: readonly RawFinding[],
  moves: ReadonlyMap<string, number>,
): boolean => {
  const own = parts.join("+");
  const all = moves.get(own) ?? 0;
  return all >= FEWEST && found.filter((f) => f.parts.join("+") === own).length >= all * PLANING;
};
