import { positionText } from "../../time/meter";
import { spellAt } from "../../song/spell";
import { instrumentOf, midiRange } from "../../instrument/instruments";
import type { Rule } from "../rule";

export const outOfRange: Rule = {
  id: "out-of-range",
  title: "Outside the range",
  explanation: "The note lies outside what the instrument or voice can sound, or outside the range set for the part.",
  source: "ranges of the instrument list (handbooks, values from memory; choral ranges after Kostka & Payne)",
  scope: "slice",
  reads: ["bass", "chords", "melody", "counter", "vocal"],
  severity: { chorale: "fault", band: "fault", jazz: "fault", loop: "fault" },
  find({ song, section, sliced, meter }) {
    return song.parts
      .filter((p) => p.role !== "drums")
      .flatMap((part) => {
        const instrument = instrumentOf(part.instrument, song);
        const [low, high] = midiRange(part.range ?? instrument.range);
        return sliced.real.parts
          .find((p) => p.id === part.id)!
          .notes.filter((n) => n.midi < low || n.midi > high)
          .map((note) => {
            const inside =
              note.midi < low ? note.midi + 12 * Math.ceil((low - note.midi) / 12) : note.midi - 12 * Math.ceil((note.midi - high) / 12);
            const pitch = spellAt(song, section, note.start, inside);
            const event = note.chordId ? section.chords.find((c) => c.id === note.chordId) : undefined;
            const pitches = event?.voicings?.[part.id]?.pitches ?? [];
            const edit = event
              ? {
                  do: "pinVoicing" as const,
                  section: section.id,
                  part: part.id,
                  chord: event.id,
                  pitches: [...pitches.filter((p) => p !== note.pitch), pitch],
                }
              : { do: "changeNotes" as const, section: section.id, part: part.id, notes: [{ id: note.id, pitch }] };
            const by = note.midi < low ? low - note.midi : note.midi - high;
            return {
              tick: note.start,
              duration: note.duration,
              parts: [part.id],
              notes: [note.id],
              fixes: [{ label: `Move to ${pitch}`, edit }],
              measure: `${by} ${by === 1 ? "semitone" : "semitones"} ${note.midi < low ? "too low" : "too high"}`,
              message: `${part.name}: ${note.pitch} at ${positionText(meter, note.start)} is outside the range ${(part.range ?? instrument.range).join("–")} of the ${instrument.title.toLowerCase()}.`,
            };
          });
      });
  },
};
