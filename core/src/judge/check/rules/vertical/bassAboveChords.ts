import { sure } from "../../../../base/list";
import { counted } from "../../../../theory/words/english";
import { beatsText, positionText } from "../../../../theory/time/meter";
import { mod, pitchMidi } from "../../../../theory/pitch/pitch";
import { bassPc } from "../../../../theory/chord/chord";
import { spellAt } from "../../../../song/spell";
import { instrumentOf, midiRange } from "../../../../theory/instrument/instruments";
import type { Fix, RawFinding, Rule } from "../../rule";

/** The highest note there is (MIDI 1.0). */
const HIGHEST = 127;

export const bassAboveChords: Rule = {
  id: "bass-above-chords",
  title: "Bass above the chord part",
  family: "vertical",
  explanation:
    "When the bass rises above the lowest note of the chord part, the chord part becomes the bass of the " +
    "harmony and another inversion is heard than was written. Where the chord part has the written bass " +
    "lowest, nothing is changed by it.",
  source: "Huron 2001 (part crossing); common practice",
  severity: { chorale: "fault", band: "warning", jazz: "warning", loop: "warning" },
  find({ song, section, sliced, meter }) {
    const found = new Map<string, RawFinding>();
    for (const slice of sliced.slices) {
      const bass = slice.notes.find((n) => sure(sliced.real.parts.find((p) => p.id === n.part)).role === "bass");
      const lowest = slice.notes.find((n) => sure(sliced.real.parts.find((p) => p.id === n.part)).role === "chords");
      if (!bass || !lowest || bass.note.midi <= lowest.note.midi) continue;
      // What lies lowest is the written bass: the inversion is as it is written.
      if (slice.chord?.chord && mod(lowest.note.midi, 12) === bassPc(slice.chord.chord)) continue;
      const id = `${bass.note.id}+${lowest.note.id}`;
      const known = found.get(id);
      if (known) {
        known.duration = (known.duration ?? 0) + slice.duration;
        continue;
      }
      const fixes: Fix[] = [];
      const part = sure(song.parts.find((p) => p.id === bass.part));
      const [low] = midiRange(part.range ?? instrumentOf(part.instrument, song).range);
      if (bass.note.midi - 12 >= low) {
        const pitch = spellAt(song, section, bass.note.start, bass.note.midi - 12);
        fixes.push({
          label: `Bass to ${pitch}`,
          edit: { do: "changeNotes", section: section.id, part: bass.part, notes: [{ id: bass.note.id, pitch }] },
        });
      }
      const event = section.chords.find((c) => c.id === lowest.note.chordId);
      const pitches = event?.voicings?.[lowest.part]?.pitches;
      if (event && pitches) {
        const midis = pitches.map(
          (p) => pitchMidi(p) + 12 * Math.max(0, Math.ceil((bass.note.midi - pitchMidi(p)) / 12)),
        );
        const raised = midis.map((midi) => spellAt(song, section, event.start, midi));
        if (Math.max(...midis) <= HIGHEST)
          fixes.push({
            label: `${sure(sliced.real.parts.find((p) => p.id === lowest.part)).name} above ${bass.note.pitch}`,
            edit: {
              do: "pinVoicing",
              section: section.id,
              part: lowest.part,
              chord: event.id,
              pitches: [...new Set(raised)],
            },
          });
      }
      found.set(id, {
        tick: slice.start,
        duration: slice.duration,
        parts: [bass.part, lowest.part],
        notes: [bass.note.id, lowest.note.id],
        fixes,
        amount: counted(bass.note.midi - lowest.note.midi, "semitone"),
        message:
          `The bass's ${bass.note.pitch} lies above the chord part's ${lowest.note.pitch} at ` +
          `${positionText(meter, slice.start)}.`,
      });
    }
    return [...found.values()].map((f) => ({ ...f, amount: `${f.amount}, ${beatsText(meter, sure(f.duration))}` }));
  },
};
