import { firstOf, sure } from "../../../../base/list";
import { onceFor } from "../../../../base/once";
import { mod } from "../../../../theory/pitch/pitch";
import { beatsText, metricalLevel, positionText, type Meter } from "../../../../theory/time/meter";
import { isRub } from "../../../../hear/line/between";
import { textbookKind } from "../../../../hear/slice/roles";
import { sliceAt, type Slice, type SliceNote } from "../../../../hear/slice/slices";
import { isSung } from "../../../../hear/singer/range";
import type { CheckContext, RawFinding, Rule } from "../../rule";
import { inOtherKey } from "../handover/oldKey";
import { pcsOf } from "../lines";
import { waysOut } from "../../ways/ways";
import { outsideIn } from "./longOutside";
import { contradictedIn } from "./otherChord";

/** Non-chord tones that are meant to rub, and resolve. */
const MEANT = new Set(["suspension", "retardation", "appoggiatura", "anticipation", "pedal"]);

/** Non-chord tones that pass by where they are light. */
const LIGHT = new Set(["passing", "neighbor", "cambiata", "escape"]);

interface Rub {
  low: SliceNote;
  high: SliceNote;
  from: number;
  duration: number;
}

/** Pairs of notes of different parts that rub, with how long. */
function rubsOf({ sliced }: CheckContext): Rub[] {
  const found = new Map<string, Rub>();
  for (const bar of sliced.bars)
    for (const rub of rubsIn(bar)) {
      const id = `${rub.low.note.id}+${rub.high.note.id}`;
      const known = found.get(id);
      if (known) known.duration += rub.duration;
      else found.set(id, { ...rub });
    }
  return [...found.values()];
}

/** The same moment by moment in a bar. */
const rubsIn = (bar: readonly Slice[]): readonly Rub[] =>
  onceFor([bar], "rubs", () =>
    bar.flatMap(({ chord, notes, start: from, duration }) => {
      const pcs = pcsOf(chord);
      return notes.flatMap((low, i) =>
        notes
          .slice(i + 1)
          .filter((high) => low.part !== high.part && isRub(low.note.midi, high.note.midi))
          // Both belong to the chord: its own color.
          .filter((high) => !(pcs.includes(mod(low.note.midi, 12)) && pcs.includes(mod(high.note.midi, 12))))
          .map((high): Rub => ({ low, high, from, duration })),
      );
    }),
  );

/** Too short and light to be heard as a mistake, or a dissonance that is meant. */
function goesBy(meter: Meter, { low, high, from, duration }: Rub): boolean {
  const beat = firstOf(meter.beats).duration;
  const level = metricalLevel(meter, from);
  if (duration < beat && !(level >= -2 && duration >= beat / 2)) return true;
  const kinds = [low, high].map(({ span }) => ({ span, kind: textbookKind(span) ?? "" }));
  if (kinds.some(({ kind }) => MEANT.has(kind))) return true;
  // A light passing tone goes by.
  const short = duration <= beat / 2 && level <= -2;
  return duration <= beat && kinds.some(({ span, kind }) => LIGHT.has(kind) && (!span.accented || short));
}

export const clash: Rule = {
  id: "clash",
  title: "Two parts rub",
  family: "vertical",
  explanation:
    "A semitone or a minor ninth between two parts, on a beat or for one, where the chord does not hold both " +
    "tones: the ear takes one of them for a mistake. Suspensions, appoggiaturas, anticipations and pedals are " +
    "excepted by name, and light passing tones go by.",
  source: "any arranging handbook",
  severity: { chorale: "fault", band: "warning", jazz: "note", loop: "warning" },
  heard: 1.2,
  find(ctx) {
    const { song, meter } = ctx;
    const players = new Map(song.parts.map((p) => [p.id, { name: p.name, sung: isSung(song, p) }]));
    const elsewhere = inOtherKey(ctx);
    // A foreign note that is held is told as one, with all it rubs against; so is one that makes another chord.
    const told = new Set(
      [
        outsideIn(ctx).flatMap((same) => same.map((f) => f.note.id)),
        contradictedIn(ctx).flatMap((c) => c.notes.map((n) => n.id)),
      ].flat(),
    );
    return rubsOf(ctx).flatMap(({ low, high, from, duration }): RawFinding[] => {
      if ([low, high].some((n) => elsewhere.has(n.part) || told.has(n.note.id))) return [];
      if (goesBy(meter, { low, high, from, duration })) return [];
      const [a, b] = [sure(players.get(low.part)), sure(players.get(high.part))];
      // Between two voices it is told of them.
      if (a.sung && b.sung) return [];
      const pcs = pcsOf(sliceAt(ctx.sliced.slices, from)?.chord ?? null);
      // The note that is no tone of the chord gives way; a layout of chords stays.
      const [stays, moves] =
        pcs.includes(mod(low.note.midi, 12)) || high.note.chordId === undefined ? [low, high] : [high, low];
      const mover = moves.note.chordId === undefined ? moves : stays;
      const other = mover === moves ? stays : moves;
      return [
        {
          tick: from,
          duration,
          parts: [low.part, high.part],
          notes: [low.note.id, high.note.id],
          message:
            `${b.name}’s ${high.note.pitch} rubs against ${a.name}’s ${low.note.pitch} at ` +
            `${positionText(meter, from)}.`,
          amount:
            `${high.note.midi - low.note.midi === 1 ? "a semitone" : "a minor ninth"}, ` +
            `${beatsText(meter, duration)}`,
          fixes: waysOut(ctx, {
            notes: [mover.note],
            later: [other.note],
            clear: (p) => !isRub(p(mover.note), p(other.note)) && p(mover.note) !== p(other.note),
          }),
        },
      ];
    });
  },
};
