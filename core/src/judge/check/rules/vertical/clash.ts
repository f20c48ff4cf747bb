import { firstOf, sure } from "../../../../base/list";
import { mod } from "../../../../theory/pitch/pitch";
import { beatsText, metricalLevel, positionText, type Meter } from "../../../../theory/time/meter";
import { lastBegun } from "../../../../song/realize";
import { isRub } from "../../../../hear/line/between";
import { textbookKind } from "../../../../hear/slice/roles";
import type { SliceNote } from "../../../../hear/slice/slices";
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
  for (const slice of sliced.slices) {
    const pcs = pcsOf(slice.chord);
    for (const [i, low] of slice.notes.entries())
      for (const high of slice.notes.slice(i + 1)) {
        if (low.part === high.part || !isRub(low.note.midi, high.note.midi)) continue;
        // Both belong to the chord: its own color.
        if (pcs.includes(mod(low.note.midi, 12)) && pcs.includes(mod(high.note.midi, 12))) continue;
        const id = `${low.note.id}+${high.note.id}`;
        const known = found.get(id);
        if (known) known.duration += slice.duration;
        else found.set(id, { low, high, from: slice.start, duration: slice.duration });
      }
  }
  return [...found.values()];
}

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
    const partOf = (id: string) => sure(song.parts.find((p) => p.id === id));
    const elsewhere = inOtherKey(ctx);
    // A foreign note that is held is told as one, with all it rubs against; so is one that makes another chord.
    const told = new Set(
      [...outsideIn(ctx).map((f) => f.notes), ...contradictedIn(ctx).map((c) => c.notes.map((n) => n.id))].flat(),
    );
    return rubsOf(ctx).flatMap(({ low, high, from, duration }): RawFinding[] => {
      if ([low, high].some((n) => elsewhere.has(n.part) || told.has(n.note.id))) return [];
      if (goesBy(meter, { low, high, from, duration })) return [];
      const [a, b] = [partOf(low.part), partOf(high.part)];
      // Between two voices it is told of them.
      if (isSung(song, a) && isSung(song, b)) return [];
      const pcs = pcsOf(ctx.sliced.slices[lastBegun(ctx.sliced.slices, from)]?.chord ?? null);
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
