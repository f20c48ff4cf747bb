import { firstOf, nth } from "../../../base/list";
import { mod, type Midi } from "../../../theory/pitch/pitch";
import { positionText, type Ticks } from "../../../theory/time/meter";
import { chordPitchClasses } from "../../../theory/chord/chord";
import { chordAtTick, lastBegun, type RealizedChord, type RealizedNote } from "../../../song/realize";
import { isWritten } from "../../../song/document";
import type { Part } from "../../../song/schema";
import { spellAt } from "../../../song/spell";
import { rangeOfPart } from "../../../hear/singer/range";
import type { CheckContext, Fix, RawFinding } from "../rule";

/** A part that plays or sings one note at a time, as it is written. */
export interface Line {
  part: Part;
  notes: readonly RealizedNote[];
}

/** Roles of the parts that are lines. */
const ROLES: readonly Part["role"][] = ["bass", "melody", "vocal", "counter"];

/** The lines of a section that have notes, in the order of the song. */
export const linesOf = ({ song, sliced }: CheckContext, roles = ROLES): Line[] =>
  song.parts
    .filter((p) => roles.includes(p.role) && isWritten(p))
    .map((part): Line => ({ part, notes: sliced.real.parts.find((r) => r.id === part.id)?.notes ?? [] }))
    .filter((l) => l.notes.length > 0);

export const endOf = (n: { start: Ticks; duration: Ticks }): Ticks => n.start + n.duration;
export const chordOfLine = ({ sliced }: CheckContext, tick: Ticks): RealizedChord | null =>
  chordAtTick(sliced.real.chords, Math.max(0, tick));
export const pcsOf = (chord: RealizedChord | null): readonly number[] =>
  chord?.chord ? chordPitchClasses(chord.chord) : [];
export function noteAt({ notes }: Line, tick: Ticks): RealizedNote | undefined {
  const note = notes[lastBegun(notes, tick)];
  return note && tick < endOf(note) ? note : undefined;
}
/** Whether one note goes straight on to the next: no rest of a beat between. */
export const goesOn = ({ meter }: CheckContext, a: RealizedNote, b: RealizedNote): boolean =>
  b.start - endOf(a) < firstOf(meter.beats).duration;

/** A move of two lines at once: what each sounded before and after. */
export interface Move {
  tick: Ticks;
  low: { line: Line; from: RealizedNote; to: RealizedNote };
  high: { line: Line; from: RealizedNote; to: RealizedNote };
}

/** Moves at which two lines both strike anew. The lower line is the one that lies lower before. */
export function movesBetween(a: Line, b: Line): Move[] {
  const starts = new Map(b.notes.map((n, i) => [n.start, i]));
  const out: Move[] = [];
  for (const [i, to] of a.notes.entries()) {
    const at = starts.get(to.start) ?? -1;
    const [other, from, before] = [b.notes[at], a.notes[i - 1], b.notes[at - 1]];
    if (!other || !from || !before || endOf(from) < to.start || endOf(before) < to.start) continue;
    const [x, y] = [
      { line: a, from, to },
      { line: b, from: before, to: other },
    ];
    out.push({ tick: to.start, ...(from.midi <= before.midi ? { low: x, high: y } : { low: y, high: x }) });
  }
  return out;
}

/** The fix that gives a note another pitch. */
export const moveNote = ({ song, section }: CheckContext, part: Part, note: RealizedNote, midi: Midi): Fix => {
  const pitch = spellAt(song, section, Math.max(0, note.start), midi);
  return {
    label: `${part.name.split(",")[0]} to ${pitch}`,
    edit: { do: "changeNotes", section: section.id, part: part.id, notes: [{ id: note.id, pitch }] },
  };
};

/** How far a tone that mends may lie from the one that stands there. */
const NEAR = 7;

/** Tones of the chord inside the part's range that could stand in place of a note, the nearest first. */
export function tonesFor(ctx: CheckContext, part: Part, note: RealizedNote): Midi[] {
  const pcs = pcsOf(chordOfLine(ctx, note.start));
  const allowed = pcs.length ? pcs : ctx.key.pcs;
  const [low, high] = rangeOfPart(ctx.song, part).extremes;
  return Array.from({ length: 2 * NEAR + 1 }, (_, k) => note.midi - NEAR + k)
    .filter((m) => m !== note.midi && m >= low && m <= high && allowed.includes(mod(m, 12)))
    .sort((a, b) => Math.abs(a - note.midi) - Math.abs(b - note.midi));
}

/** Up to two fixes: the nearest tones that pass a test. */
export const mends = (ctx: CheckContext, part: Part, note: RealizedNote, clear: (midi: Midi) => boolean): Fix[] =>
  note.pinned
    ? []
    : tonesFor(ctx, part, note)
        .filter(clear)
        .slice(0, 2)
        .map((midi) => moveNote(ctx, part, note, midi));

/** The last note of a line under each chord that goes straight on into the next one. */
export function changesOf(ctx: CheckContext, { notes }: Line): { from: RealizedNote; to: RealizedNote }[] {
  return notes.slice(1).flatMap((to, i) => {
    const from = nth(notes, i);
    const [a, b] = [chordOfLine(ctx, from.start), chordOfLine(ctx, to.start)];
    return a && b && a !== b && endOf(from) >= to.start && chordOfLine(ctx, endOf(from) - 1) === a
      ? [{ from, to }]
      : [];
  });
}

/**
 * Tones that want to fall by step and do not, where the next chord neither holds them nor lacks the tone below: "the
 * seventh F4".
 */
export const notFallen = (
  ctx: CheckContext,
  toneOf: (chord: RealizedChord | null) => number | null,
  called: string,
): RawFinding[] =>
  linesOf(ctx).flatMap((line) =>
    changesOf(ctx, line).flatMap(({ from, to }): RawFinding[] => {
      const pc = mod(from.midi, 12);
      const after = pcsOf(chordOfLine(ctx, to.start));
      if (pc !== toneOf(chordOfLine(ctx, from.start)) || after.includes(pc)) return [];
      const below = [1, 2].find((d) => after.includes(mod(pc - d, 12)));
      const move = to.midi - from.midi;
      if (below === undefined || move === -1 || move === -2) return [];
      return [
        {
          tick: to.start,
          duration: to.duration,
          parts: [line.part.id],
          notes: [from.id, to.id],
          message:
            `${line.part.name}: ${called} ${from.pitch} goes to ${to.pitch} at ` +
            `${positionText(ctx.meter, to.start)} instead of falling by step.`,
          amount: `${signed(move)} semitones instead of −${below}`,
          fixes: to.pinned ? [] : [moveNote(ctx, line.part, to, from.midi - below)],
        },
      ];
    }),
  );

const signed = (n: number): string => (n < 0 ? `−${-n}` : `+${n}`);
