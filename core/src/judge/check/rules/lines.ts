import { firstOf, lastOf, nth } from "../../../base/list";
import { mod, type Midi } from "../../../theory/pitch/pitch";
import { positionText, type Ticks } from "../../../theory/time/meter";
import { chordPitchClasses, rootPc } from "../../../theory/chord/chord";
import { pairReport, type BetweenKind } from "../../../hear/line/between";
import { chordAtTick, lastBegun, type RealizedChord, type RealizedNote } from "../../../song/realize";
import { partVoices, type Voice } from "../../../hear/voice/voices";
import { capital } from "../../../theory/words/english";
import type { Part } from "../../../song/schema";
import { spellAt } from "../../../song/spell";
import { rangeOfPart } from "../../../hear/singer/range";
import type { CheckContext, Fix, Line, RawFinding } from "../rule";

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

/** The fix that gives a note another pitch; a note of a chord moves in its layout. None where it has no layout. */
export function moveNote({ song, section }: CheckContext, part: Part, note: RealizedNote, midi: Midi): Fix[] {
  const pitch = spellAt(song, section, Math.max(0, note.start), midi);
  const [name] = part.name.split(",");
  if (note.chordId === undefined)
    return [
      {
        label: `${name} to ${pitch}`,
        edit: { do: "changeNotes", section: section.id, part: part.id, notes: [{ id: note.id, pitch }] },
      },
    ];
  const pitches = section.chords.find((c) => c.id === note.chordId)?.voicings?.[part.id]?.pitches;
  if (!pitches?.includes(note.pitch) || pitches.includes(pitch)) return [];
  return [
    {
      label: `${note.pitch} of ${name} to ${pitch}`,
      edit: {
        do: "pinVoicing",
        section: section.id,
        part: part.id,
        chord: note.chordId,
        pitches: [...pitches.filter((p) => p !== note.pitch), pitch],
      },
    },
  ];
}

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

/** So many of the nearest tones are weighed against each other. */
const WEIGHED = 6;

/** Up to two fixes: of the tones that pass a test those that do the least harm elsewhere, the nearest first. */
export function mends(ctx: CheckContext, part: Part, note: RealizedNote, clear: (midi: Midi) => boolean): Fix[] {
  if (note.pinned) return [];
  const tones = tonesFor(ctx, part, note).filter(clear).slice(0, WEIGHED);
  return leastHarm(ctx, part, note, tones)
    .slice(0, 2)
    .flatMap((midi) => moveNote(ctx, part, note, midi));
}

/** What another line does to a tone that is tried, and what the chord misses without the one that stands there. */
const HARM: Partial<Record<BetweenKind, number>> = { crossing: 3, parallel: 3, clash: 2, overlap: 1 };
const LOST_THIRD = 3;

/** Tones for a note of a line by what they would bring between it and the others; equal ones stay in their order. */
function leastHarm(ctx: CheckContext, part: Part, note: RealizedNote, tones: readonly Midi[]): Midi[] {
  const lines = separateLines(ctx);
  const line = lines.find((l) => l.part.id === part.id && l.notes[lastBegun(l.notes, note.start)] === note);
  if (!line || tones.length < 2) return [...tones];
  const at = lastBegun(line.notes, note.start);
  const own = line.notes.slice(Math.max(0, at - 1), at + 2);
  const [from, to] = [firstOf(own).start, endOf(lastOf(own))];
  const others = lines
    .filter((l) => l !== line)
    .map((l) => ({
      above: ctx.pair(line, l).above,
      around: l.notes.slice(Math.max(0, lastBegun(l.notes, from)), lastBegun(l.notes, to - 1) + 1),
    }));
  const ground = { meter: ctx.meter, chords: ctx.sliced.real.chords };
  const onlyThird = isOnlyThird(
    ctx,
    note,
    others.map((o) => o.around),
  );
  const harm = (midi: Midi): number => {
    const tried = own.map((n) => (n === note ? { ...n, midi } : n));
    const between = others.flatMap(({ above, around }) => pairReport(tried, around, { ...ground, above }).places);
    const lost = onlyThird && mod(midi - note.midi, 12) !== 0 ? LOST_THIRD : 0;
    return lost + between.reduce((sum, p) => sum + (HARM[p.kind] ?? 0), 0);
  };
  return tones
    .map((midi) => ({ midi, harm: harm(midi) }))
    .sort((a, b) => a.harm - b.harm)
    .map((t) => t.midi);
}

/** Whether nobody else has the third of the chord that a note has. */
function isOnlyThird(ctx: CheckContext, note: RealizedNote, others: readonly (readonly RealizedNote[])[]): boolean {
  const chord = chordOfLine(ctx, note.start)?.chord;
  const third = chord?.tones.find((t) => t.degree === 3);
  const pc = mod(note.midi, 12);
  if (!chord || !third || mod(pc - third.semitones, 12) !== rootPc(chord)) return false;
  return !others.some((line) =>
    line.some((n) => n.start <= note.start && note.start < endOf(n) && mod(n.midi, 12) === pc),
  );
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
            `${opening(line.name)}: ${called} ${from.pitch} goes to ${to.pitch} at ` +
            `${positionText(ctx.meter, to.start)} instead of falling by step.`,
          amount: `${signed(move)} semitones instead of −${below}`,
          fixes: to.pinned ? [] : moveNote(ctx, line.part, to, from.midi - below),
          lighter: line.lighter,
        },
      ];
    }),
  );

const signed = (n: number): string => (n < 0 ? `−${-n}` : `+${n}`);
