import { firstOf, sure } from "../../../../base/list";
import { because } from "../../../../song/reasons";
import { mod, noteOf, type Midi } from "../../../../theory/pitch/pitch";
import { positionText } from "../../../../theory/time/meter";
import { bassPc } from "../../../../theory/chord/chord";
import { spellAt } from "../../../../song/spell";
import { kicks } from "../../../../hear/slice/accents";
import { instrumentOf, midiRange } from "../../../../theory/instrument/instruments";
import type { Edit } from "../../../../song/edits";
import type { Rule } from "../../rule";

export const uncoveredAccent: Rule = {
  id: "uncovered-accent",
  title: "Main kick accent without bass",
  family: "groove",
  explanation:
    "The bass sounds on the kick's main accents: kicks on a beat or clearly louder than the rest, or those you " +
    "have marked. It need not sound on every kick.",
  source: "common practice",
  severity: { chorale: "off", band: "warning", jazz: "note", loop: "warning" },
  find({ song, section, sliced, meter }) {
    const layers = sliced.real.parts.filter((p) => p.role === "bass" && p.notes.length);
    const [bass] = layers;
    // A tuned kick is the bass itself.
    if (!bass || section.groove.lanes.some((l) => l.drum === "kick" && l.tuned)) return [];
    const attacks = new Set(layers.flatMap((p) => p.notes.map((n) => n.start)));
    const main = kicks(section.groove, meter).filter((k) => k.main);
    const part = sure(song.parts.find((p) => p.id === bass.id));
    const [low, high] = midiRange(part.range ?? instrumentOf(part.instrument, song).comfortable);
    return main.flatMap((kick) => {
      const chord = sliced.real.chords.find(
        (c) => c.chord && c.start <= kick.start && kick.start < c.start + c.duration,
      );
      if (!chord?.chord || attacks.has(kick.start)) return [];
      const before = bass.notes.findLast((n) => n.start < kick.start);
      const held = before && before.start + before.duration > kick.start ? before : undefined;
      const near = before?.midi ?? low + 5;
      const pitches: Midi[] = [];
      for (let m = low; m <= high; m++) if (mod(m, 12) === bassPc(chord.chord)) pitches.push(m);
      const midi = pitches.sort((a, b) => Math.abs(a - near) - Math.abs(b - near))[0];
      const next = bass.notes.find((n) => n.start > kick.start);
      const duration = Math.max(
        60,
        Math.min(
          (next?.start ?? section.bars * meter.bar) - kick.start,
          chord.start + chord.duration - kick.start,
          firstOf(meter.beats).duration,
        ),
      );
      const edits: Edit[] = [];
      if (held)
        edits.push({
          do: "changeNotes",
          section: section.id,
          part: bass.id,
          notes: [{ id: held.id, duration: kick.start - held.start }],
        });
      const fixes = [];
      if (midi !== undefined) {
        const pitch = spellAt(song, section, kick.start, midi);
        edits.push({
          do: "addNote",
          section: section.id,
          part: bass.id,
          note: {
            start: kick.start,
            duration,
            pitch,
            velocity: 92,
            reason: because("rootOnKick", { pitch: noteOf(pitch) }),
          },
        });
        fixes.push({ label: `Play ${pitch} there`, edit: { do: "all" as const, label: "cover the accent", edits } });
      }
      fixes.push({
        label: "It is not a main accent",
        edit: {
          do: "setAccents" as const,
          section: section.id,
          accents: main.map((k) => k.start).filter((s) => s !== kick.start),
        },
      });
      return [
        {
          tick: kick.start,
          duration: 120,
          parts: [bass.id],
          chances: main.length,
          notes: [`kick@${kick.start}`],
          fixes,
          amount: `velocity ${kick.velocity}`,
          message: held
            ? `The bass holds through the main kick at ${positionText(meter, kick.start)} without a new note.`
            : `The main kick at ${positionText(meter, kick.start)} has no bass note.`,
        },
      ];
    });
  },
};
