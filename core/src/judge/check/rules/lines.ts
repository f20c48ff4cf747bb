import { firstOf, nth } from "../../../base/list";
import { type Ticks } from "../../../theory/time/meter";
import { chordPitchClasses } from "../../../theory/chord/chord";
import { chordAtTick, lastBegun, type RealizedChord, type RealizedNote } from "../../../song/realize";
import { partVoices, type Voice } from "../../../hear/voice/voices";
import { capital } from "../../../theory/words/english";
import type { Part } from "../../../song/schema";
import type { CheckContext, Line } from "../rule";

/** Whether a part has voices of its own: what only plays another part's notes again is orchestration. */
const hasVoices = ({ role, echoes, link }: Part): boolean =>
  role !== "drums" && echoes === undefined && !link?.from && link?.kind !== "block";

/** So many lines by themselves make the harmony; chords beside them accompany. */
const CHOIR = 3;

/**
 * The voices of a section that have notes, in the order of the song and from the top of each part: all of them, or
 * those of the roles that are named. What doubles another voice throughout is that voice.
 */
export function linesOf(ctx: CheckContext, roles?: readonly Part["role"][]): Line[] {
  const known = voicesIn.get(ctx) ?? allVoices(ctx);
  voicesIn.set(ctx, known);
  return roles ? known.filter((l) => roles.includes(l.part.role)) : known;
}

const voicesIn = new WeakMap<CheckContext, Line[]>();

function allVoices(ctx: CheckContext): Line[] {
  const all = ctx.song.parts.filter(hasVoices).flatMap((part) => partVoices(part, ctx.threads(part.id)));
  const lines = all.filter((v) => isLine(v)).length;
  const inside = lines >= CHOIR ? 2 : 1;
  return all.map((v): Line => ({ ...v, lighter: isLine(v) ? 0 : inside }));
}

/** Whether a voice is a line: it is its part, and that is not there for the chords. */
export const isLine = ({ main, part }: Voice): boolean => main && part.role !== "chords";

/** The name of a voice at the beginning of a sentence. */
export const opening = (name: string): string => (name.startsWith("the ") ? capital(name) : name);

/** What has outer voices: the lines where they make the harmony by themselves, else everything that sounds. */
export function harmonyLines(ctx: CheckContext): Line[] {
  const all = linesOf(ctx);
  const lines = all.filter(isLine);
  return lines.length >= CHOIR ? lines : all;
}

/** Lines alone, one of those that double each other. */
export function separateLines(ctx: CheckContext): Line[] {
  const known = separateIn.get(ctx) ?? separate(ctx);
  separateIn.set(ctx, known);
  return known;
}

const separateIn = new WeakMap<CheckContext, Line[]>();

function separate(ctx: CheckContext): Line[] {
  const voices: Line[] = [];
  for (const line of linesOf(ctx)) if (isLine(line) && !voices.some((v) => ctx.areOne(v, line))) voices.push(line);
  return voices;
}

export const endOf = (n: { start: Ticks; duration: Ticks }): Ticks => n.start + n.duration;
export const chordOfLine = ({ sliced }: CheckContext, tick: Ticks): RealizedChord | null =>
  chordAtTick(sliced.real.chords, Math.max(0, tick));
export const pcsOf = (chord: RealizedChord | null): readonly number[] =>
  chord?.chord ? chordPitchClasses(chord.chord) : [];
export function noteAt({ notes }: Line, tick: Ticks): RealizedNote | undefined {
  const note = notes[lastBegun(notes, tick)];
  return note && tick < endOf(note) ? note : undefined;
}
/** Notes of a voice that sound in a stretch of time. */
export const notesWithin = ({ notes }: Line, from: Ticks, to: Ticks): RealizedNote[] =>
  notes.slice(Math.max(0, lastBegun(notes, from)), lastBegun(notes, to - 1) + 1).filter((n) => endOf(n) > from);
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
