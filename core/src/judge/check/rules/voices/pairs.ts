import { firstOf, lastOf, sure } from "../../../../base/list";
import { mod, type Midi } from "../../../../theory/pitch/pitch";
import { positionText } from "../../../../theory/time/meter";
import { chordPitchClasses } from "../../../../theory/chord/chord";
import { chordAtTick, type RealizedNote } from "../../../../song/realize";
import type { Part } from "../../../../song/schema";
import { isWritten } from "../../../../song/document";
import { spellAt } from "../../../../song/spell";
import { byVoice, pairReport, type Between, type BetweenKind } from "../../../../hear/line/between";
import { isSung, rangeOfPart } from "../../../../hear/singer/range";
import type { CheckContext, Fix, RawFinding } from "../../rule";

interface Line {
  part: Part;
  notes: readonly RealizedNote[];
}

/** Sung lines of a section, takes of one line once. */
function sungLines({ song, sliced, meter }: CheckContext): Line[] {
  const lines = song.parts
    .filter((p) => isSung(song, p) && isWritten(p))
    .map((part): Line => ({ part, notes: sliced.real.parts.find((r) => r.id === part.id)?.notes ?? [] }))
    .filter((l) => l.notes.length);
  return byVoice(lines, { meter }).map(([first]) => sure(first));
}

/** Semitones by which the middles of two voices differ where one is the upper by nature. */
const NATURE = 2;
/** How far a tone that mends may lie from the one that stands there. */
const NEAR = 7;

interface PairRule {
  kind: BetweenKind;
  /** Which places count; all where it is absent. */
  counts?(place: Between, ctx: CheckContext): boolean;
  /** "cross", "sing one note" … after the names of the two. */
  says: string;
  /** Words of one place. */
  at?(place: Between): string;
  amount(place: Between, ctx: CheckContext): string;
}

/** Every place at which two sung lines do something to each other; the fix moves the lower line. */
export function betweenVoices(ctx: CheckContext, rule: PairRule): RawFinding[] {
  const lines = sungLines(ctx);
  const center = (l: Line) => rangeOfPart(ctx.song, l.part).comfortable.reduce((x, y) => x + y, 0) / 2;
  return lines.flatMap((a, i) =>
    lines.slice(i + 1).flatMap((b): RawFinding[] => {
      // Which voice is the upper one is a matter of who sings; of two alike it is the one that mostly lies above.
      const apart = center(a) - center(b);
      const above = Math.abs(apart) < NATURE ? undefined : apart > 0;
      const report = pairReport(a.notes, b.notes, { meter: ctx.meter, chords: ctx.sliced.real.chords, above });
      const places = report.places.filter((p) => p.kind === rule.kind && (rule.counts?.(p, ctx) ?? true));
      if (!places.length) return [];
      const [top, low] = report.above ? [a, b] : [b, a];
      return places.map((place): RawFinding => ({
        tick: place.tick,
        duration: place.duration,
        parts: [low.part.id, top.part.id],
        notes: [...new Set([place.first, place.second, ...(place.before ?? [])].map((n) => n.id))],
        message:
          `${top.part.name} and ${low.part.name} ${rule.says} at ` +
          `${positionText(ctx.meter, place.tick)}${rule.at ? `: ${rule.at(place)}` : ""}.`,
        amount: rule.amount(place, ctx),
        fixes: fixesOf(ctx, low, clearOf(ctx, top, low, { place, above: report.above })),
      }));
    }),
  );
}

/**
 * Another tone for the lower line where the two meet: the nearest one of the chord that leaves nothing between them
 * there.
 */
function clearOf(
  ctx: CheckContext,
  top: Line,
  low: Line,
  { place, above }: { place: Between; above: boolean },
): { note: RealizedNote; midi: Midi } | null {
  const note = above ? place.second : place.first;
  if (note.pinned) return null;
  const chord = chordAtTick(ctx.sliced.real.chords, Math.max(0, place.tick))?.chord;
  const pcs = chord ? chordPitchClasses(chord) : ctx.key.pcs;
  const [least, most] = rangeOfPart(ctx.song, low.part).extremes;
  const from = low.notes.indexOf(note);
  const own = low.notes.slice(Math.max(0, from - 1), from + 2);
  const end = lastOf(own).start + lastOf(own).duration;
  const other = top.notes.filter((n) => n.start < end && n.start + n.duration > firstOf(own).start);
  const tones = Array.from({ length: 2 * NEAR + 1 }, (_, k) => note.midi - NEAR + k)
    .filter((m) => m !== note.midi && m >= least && m <= most && pcs.includes(mod(m, 12)))
    .sort((x, y) => Math.abs(x - note.midi) - Math.abs(y - note.midi));
  const clear = tones.find((midi) => {
    const tried = own.map((n) => (n === note ? { ...n, midi } : n));
    return !pairReport(other, tried, { meter: ctx.meter, chords: ctx.sliced.real.chords }).places.some(
      (p) => p.second.id === note.id || (p.kind === "parallel" && p.first.start <= end),
    );
  });
  return clear === undefined ? null : { note, midi: clear };
}

function fixesOf(
  { song, section }: CheckContext,
  { part }: Line,
  move: { note: RealizedNote; midi: Midi } | null,
): Fix[] {
  if (!move) return [];
  const pitch = spellAt(song, section, Math.max(0, move.note.start), move.midi);
  return [
    {
      label: `${part.name.split(",")[0]} to ${pitch}`,
      edit: { do: "changeNotes", section: section.id, part: part.id, notes: [{ id: move.note.id, pitch }] },
    },
  ];
}
