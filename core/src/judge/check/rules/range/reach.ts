import { firstOf, lastOf, sure } from "../../../../base/list";
import { byId, onceFor } from "../../../../base/once";
import { positionText } from "../../../../theory/time/meter";
import { spellAt } from "../../../../song/spell";
import { isWritten } from "../../../../song/document";
import { playingOf } from "../../../../song/playing";
import type { Part } from "../../../../song/schema";
import type { RealizedNote } from "../../../../song/realize";
import { neckOf } from "../../../../theory/instrument/neck";
import { instrumentOf, midiRange } from "../../../../theory/instrument/instruments";
import type { CheckContext, Fix, RawFinding, Rule } from "../../rule";
import { holdsOf } from "../../ways/hand";

export const reach: Rule = {
  id: "reach",
  title: "A stretch that cannot be held",
  family: "range",
  explanation:
    "Notes struck at once need more than two hands of five fingers, a span that no hand has, or a shape that " +
    "cannot be held on the neck. Where hands are small an octave is already wide: wide stretches that hurt " +
    "should be broken up or left out.",
  source: "common practice; shapes are searched on the neck",
  severity: { chorale: "fault", band: "fault", jazz: "fault", loop: "note" },
  find(ctx) {
    return ctx.song.parts.flatMap((part): RawFinding[] => {
      const holds = holdsOf(ctx, part);
      const lowest = lowestOf(ctx, part);
      const notes = ctx.sliced.real.parts.find((p) => p.id === part.id)?.notes ?? [];
      if (!holds || !notes.length) return [];
      const seen = new Set<string>();
      return struckTogether(notes).flatMap(({ tick, chord, midis }): RawFinding[] => {
        const shape = shapeAt(ctx, part, firstOf(chord));
        // What lies under the lowest string is a matter of the range, or of the capo.
        if (firstOf(midis) < lowest || holds(midis, shape)) return [];
        // A layout is one matter, however often it is struck.
        const layout = `${firstOf(chord).chordId ?? ""}:${midis.join()}`;
        if (firstOf(chord).chordId && seen.has(layout)) return [];
        seen.add(layout);
        return [
          {
            tick,
            duration: Math.min(...chord.map((n) => n.duration)),
            parts: [part.id],
            notes: chord.map((n) => n.id),
            message:
              `${part.name}: ${chord.map((n) => n.pitch).join(" ")} at ${positionText(ctx.meter, tick)} cannot ` +
              "be held by one player.",
            amount: `${lastOf(midis) - firstOf(midis)} semitones, ${midis.length} notes`,
            fixes: nearer(ctx, part, chord, (m) => holds(m)),
          },
        ];
      });
    });
  },
};

/** Notes that are struck at one time, where there are two pitches and more, with the pitches from the lowest. */
const struckTogether = (
  notes: readonly RealizedNote[],
): readonly { tick: number; chord: readonly RealizedNote[]; midis: readonly number[] }[] =>
  onceFor([notes], "struck together", () => {
    const struck = new Map<number, RealizedNote[]>();
    for (const n of notes) {
      const chord = struck.get(n.start);
      if (chord) chord.push(n);
      else struck.set(n.start, [n]);
    }
    return [...struck].flatMap(([tick, chord]) => {
      const midis = [...new Set(chord.map((n) => n.midi))].sort((a, b) => a - b);
      return midis.length > 1 ? [{ tick, chord, midis }] : [];
    });
  });

/** The shape that is stored for the chord of a note. */
const shapeAt = ({ section }: CheckContext, part: Part, note: RealizedNote) =>
  byId(section.chords).get(note.chordId ?? "")?.voicings?.[part.id]?.shape?.frets;

/** The lowest open string, a capo counted in; no limit for what has no strings. */
function lowestOf({ song, section }: CheckContext, part: Part): number {
  const { capo, tuning } = playingOf(part, "voicing", { section });
  const neck = neckOf(instrumentOf(part.instrument, song), capo ?? 0, tuning);
  return neck ? Math.min(...neck.strings) + neck.capo : 0;
}

/** What brings a chord under the hands: an outer note by an octave, or one note left out. */
function nearer(
  { song, section }: CheckContext,
  part: Part,
  chord: readonly RealizedNote[],
  holds: (midis: readonly number[]) => boolean,
): Fix[] {
  const [low, high] = midiRange(part.range ?? instrumentOf(part.instrument, song).range);
  const layout = byId(section.chords).get(firstOf(chord).chordId ?? "");
  const pitches = layout?.voicings?.[part.id]?.pitches;
  if (!isWritten(part) && (!pitches || part.link?.from)) return [];
  const sorted = [...chord].sort((a, b) => a.midi - b.midi);
  const without = (n: RealizedNote) => sorted.filter((x) => x !== n).map((x) => x.midi);
  const moves = [
    [firstOf(sorted), 12],
    [lastOf(sorted), -12],
  ] as const;
  const moved = moves.flatMap(([note, by]): Fix[] => {
    const midi = note.midi + by;
    const rest = without(note);
    if (midi < low || midi > high || rest.includes(midi) || !holds([...rest, midi].sort((a, b) => a - b))) return [];
    const pitch = spellAt(song, section, Math.max(0, note.start), midi);
    const label = `${note.pitch} to ${pitch}`;
    return pitches
      ? [
          {
            label,
            edit: {
              do: "pinVoicing",
              section: section.id,
              part: part.id,
              chord: sure(layout).id,
              pitches: [...pitches.filter((p) => p !== note.pitch), pitch],
            },
          },
        ]
      : [{ label, edit: { do: "changeNotes", section: section.id, part: part.id, notes: [{ id: note.id, pitch }] } }];
  });
  const dropped = sorted.slice(1, -1).find((n) => holds(without(n)));
  if (!dropped) return moved;
  return [
    ...moved,
    {
      label: `Leave ${dropped.pitch} out`,
      edit: pitches
        ? {
            do: "pinVoicing",
            section: section.id,
            part: part.id,
            chord: sure(layout).id,
            pitches: pitches.filter((p) => p !== dropped.pitch),
          }
        : { do: "removeNotes", section: section.id, part: part.id, notes: [dropped.id] },
    },
  ];
}
