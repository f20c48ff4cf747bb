import { firstOf, sure } from "../../../../base/list";
import { beatsText, positionText } from "../../../../theory/time/meter";
import { spellAt } from "../../../../song/spell";
import { instrumentOf } from "../../../../theory/instrument/instruments";
import { rangeOfPart } from "../../../../hear/singer/range";
import type { Rule } from "../../rule";

/** Longest single note above the comfortable range that goes without a word, in beats (common practice). */
const ALLOWED_BEATS = 2;

export const highVoice: Rule = {
  id: "high-voice",
  title: "Voice held above its comfortable range",
  family: "range",
  explanation:
    "Singing high or loud for long tires and can injure the voice. Warm up, take breaks, consider another key; " +
    "with pain or hoarseness, see a voice professional. The singer's own limits count more than any table.",
  source: "common practice; comfortable ranges of the instrument list",
  severity: { chorale: "note", band: "note", jazz: "note", loop: "note" },
  find({ song, section, sliced, meter }) {
    return song.parts
      .filter((p) => instrumentOf(p.instrument, song).sound === "voice")
      .flatMap((part) => {
        const { comfortable, extremes } = rangeOfPart(song, part);
        const high = comfortable[1];
        const longest = ALLOWED_BEATS * firstOf(meter.beats).duration;
        return (
          sure(sliced.real.parts.find((p) => p.id === part.id))
            // What lies beyond the voice is another matter.
            .notes.filter((n) => n.midi > high && n.midi <= extremes[1] && n.duration > longest)
            .map((note) => ({
              tick: note.start,
              duration: note.duration,
              parts: [part.id],
              notes: [note.id],
              amount: beatsText(meter, note.duration),
              message:
                `${part.name} holds ${note.pitch} for ${beatsText(meter, note.duration)} at ` +
                `${positionText(meter, note.start)}, above the comfortable range. Long high notes tire the ` +
                "voice: plan a warm-up and breaks, or another key.",
              fixes: [
                {
                  label: "An octave down",
                  edit: {
                    do: "changeNotes" as const,
                    section: section.id,
                    part: part.id,
                    notes: [{ id: note.id, pitch: spellAt(song, section, note.start, note.midi - 12) }],
                  },
                },
                {
                  label: `Hold it for ${ALLOWED_BEATS} beats`,
                  edit: {
                    do: "changeNotes" as const,
                    section: section.id,
                    part: part.id,
                    notes: [{ id: note.id, duration: longest }],
                  },
                },
              ],
            }))
        );
      });
  },
};
