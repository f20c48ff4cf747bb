import { moveNote } from "../../ways/move";
import { sure } from "../../../../base/list";
import { counted } from "../../../../theory/words/english";
import { beatsText, positionText } from "../../../../theory/time/meter";
import { mod, pitchMidi } from "../../../../theory/pitch/pitch";
import { bassPc } from "../../../../theory/chord/chord";
import { spellAt } from "../../../../song/spell";
import { instrumentOf, midiRange } from "../../../../theory/instrument/instruments";
import { partOf } from "../../../../song/document";
import type { SliceNote } from "../../../../hear/slice/slices";
import type { CheckContext, Fix, RawFinding, Rule } from "../../rule";

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
  find(ctx) {
    const { sliced, meter } = ctx;
    const found = new Map<string, RawFinding>();
    const roles = new Map(sliced.real.parts.map((p) => [p.id, p.role]));
    for (const slice of sliced.slices) {
      const bass = slice.notes.find((n) => roles.get(n.part) === "bass");
      const lowest = slice.notes.find((n) => roles.get(n.part) === "chords");
      if (!bass || !lowest || bass.note.midi <= lowest.note.midi) continue;
      // What lies lowest is the written bass: the inversion is as it is written.
      if (slice.chord?.chord && mod(lowest.note.midi, 12) === bassPc(slice.chord.chord)) continue;
      const id = `${bass.note.id}+${lowest.note.id}`;
      const known = found.get(id);
      if (known) {
        known.duration = (known.duration ?? 0) + slice.duration;
        continue;
      }
      found.set(id, {
        tick: slice.start,
        duration: slice.duration,
        parts: [bass.part, lowest.part],
        notes: [bass.note.id, lowest.note.id],
        fixes: [...bassDown(ctx, bass), ...chordUp(ctx, bass, lowest)],
        amount: counted(bass.note.midi - lowest.note.midi, "semitone"),
        message:
          `The bass's ${bass.note.pitch} lies above the chord part's ${lowest.note.pitch} at ` +
          `${positionText(meter, slice.start)}.`,
      });
    }
    const chances = sliced.real.chords.filter((x) => x.chord).length;
    return [...found.values()].map((f) => ({
      ...f,
      chances,
      amount: `${f.amount}, ${beatsText(meter, sure(f.duration))}`,
    }));
  },
};

function bassDown(ctx: CheckContext, { note, part: id }: SliceNote): Fix[] {
  const part = sure(partOf(ctx.song, id));
  const [low] = midiRange(part.range ?? instrumentOf(part.instrument, ctx.song).range);
  return note.midi - 12 < low ? [] : moveNote(ctx, note, note.midi - 12);
}

/** Every note of the chord that lies under the bass, as many octaves up as it takes. */
function chordUp({ song, section }: CheckContext, bass: SliceNote, { note, part }: SliceNote): Fix[] {
  const event = section.chords.find((c) => c.id === note.chordId);
  const layout = event?.voicings?.[part];
  if (!event || !layout) return [];
  const midis = layout.pitches.map(
    (p) => pitchMidi(p) + 12 * Math.max(0, Math.ceil((bass.note.midi - pitchMidi(p)) / 12)),
  );
  if (Math.max(...midis) > HIGHEST) return [];
  const raised = midis.map((midi) => spellAt(song, section, event.start, midi));
  return [
    {
      label: `${sure(partOf(song, part)).name} above ${bass.note.pitch}`,
      edit: { do: "pinVoicing", section: section.id, part, chord: event.id, pitches: [...new Set(raised)] },
    },
  ];
}
