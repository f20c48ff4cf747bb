import { firstOf, lastOf, nth } from "../../base/list";
import { onceFor } from "../../base/once";
import { fail, ok, type Result } from "../../base/result";
import { positionText, SIXTEENTH, type Meter, type Seconds, type Ticks } from "../../theory/time/meter";
import { ticksToSeconds } from "../../theory/time/swing";
import { partOf, sectionMeter, sectionOf, sectionTempo } from "../../song/document";
import type { Edit } from "../../song/edits";
import type { Note, Song } from "../../song/schema";
import { singerOf, USUAL_BREATH } from "./range";

/** A place to breathe inside a phrase. */
export interface BreathPlace {
  /** Where the note before ends. */
  tick: Ticks;
  note: string;
  /** In words: "after “row”, bar 4, beat 3". */
  words: string;
  /** Ends the note earlier; null where a rest is there already. */
  edit: Edit | null;
}

export interface SungPhrase {
  start: Ticks;
  end: Ticks;
  seconds: Seconds;
  /** Longer than one breath. */
  long: boolean;
  /** Where to breathe so that every stretch is one breath; empty where it needs none, or has no place. */
  breaths: BreathPlace[];
}

/** A shorter stretch is no phrase one would breathe after. */
const SHORT: Seconds = 1.5;
/** How long one takes to breathe. */
const INTAKE: Ticks = 2 * SIXTEENTH;

const NONE: readonly Note[] = [];

const end = (n: Note): Ticks => n.start + n.duration;

/**
 * How good a place after a note is to breathe: a rest, the end of a word or clause, a long note, before a strong beat
 * (common practice).
 */
function worth(meter: Meter, note: Note, next: Note): number {
  const [word, following] = [note.lyrics?.[0] ?? "", next.lyrics?.[0] ?? ""];
  const inside = /-$/.test(word) || following === "_" || /^-/.test(following);
  const beat = firstOf(meter.beats).duration;
  const leads = meter.bar - (((next.start % meter.bar) + meter.bar) % meter.bar);
  const wordEnds = () => {
    if (word && inside) return -6;
    if (word) return 1.5;
    return 0;
  };
  const barLine = () => {
    if (next.start % meter.bar === 0) return 1;
    if (leads <= beat) return 0.7;
    return 0;
  };
  return (
    (next.start - end(note) >= SIXTEENTH ? 3 : 0) +
    wordEnds() +
    (/[,.;:!?–]["”’)]*$/.test(word) ? 3 : 0) +
    Math.min(2, note.duration / beat - 0.5) +
    // At the bar line, or before an upbeat to it.
    barLine() +
    (note.duration <= INTAKE ? -2 : 0)
  );
}

/**
 * Breaks of a phrase so that no stretch is longer than a breath: the best places, as few as will do. Null where there
 * is none.
 */
function breaks(meter: Meter, tempo: number, notes: readonly Note[], breath: Seconds): number[] | null {
  const starts = notes.map((n) => ticksToSeconds(n.start, tempo));
  const ends = notes.map((n) => ticksToSeconds(end(n), tempo));
  // What a breath before each note is worth: asked for again and again.
  const before = notes.map((note, i) => (i === 0 ? 0 : worth(meter, nth(notes, i - 1), note) - 4));
  const best: { value: number; from: number }[] = [];
  ends.forEach((stop, to) => {
    let found = { value: -Infinity, from: -1 };
    for (let from = to; from >= 0; from--) {
      const length = stop - nth(starts, from);
      if (length > breath) break;
      const until = from === 0 ? 0 : nth(best, from - 1).value;
      const value = until + nth(before, from) - (length < SHORT ? 3 : 0);
      if (value > found.value) found = { value, from };
    }
    best.push(found);
  });
  if (lastOf(best).value === -Infinity) return null;
  const out: number[] = [];
  for (let at = notes.length - 1; nth(best, at).from > 0; at = nth(best, at).from - 1)
    out.unshift(nth(best, at).from - 1);
  return out;
}

/**
 * Phrases of a part that is sung or blown in a section, and where to breathe in those that are longer than one breath:
 * that of its singer, or the one that is given.
 * Errors: `breath.part`.
 */
export function breathsOf(
  song: Song,
  { section: sectionId, part: partId, breath: own }: { section: string; part: string; breath?: Seconds },
): Result<SungPhrase[]> {
  const section = sectionOf(song, sectionId);
  if (!section || !partOf(song, partId))
    return fail("breath.part", `No part "${partId}" or no section "${sectionId}" is in the song`);
  const meter = sectionMeter(song, section);
  const tempo = sectionTempo(song, section);
  const breath = own ?? singerOf(song, partId)?.breath ?? USUAL_BREATH;
  const notes = section.notes[partId] ?? NONE;
  const { text } = meter;
  return ok(
    onceFor([notes], ["phrases", sectionId, partId, text, tempo, breath].join("|"), () =>
      phrasesOf(notes, { meter, tempo, breath, sectionId, partId }),
    ),
  );
}

interface Sung {
  meter: Meter;
  tempo: number;
  breath: Seconds;
  sectionId: string;
  partId: string;
}

function phrasesOf(notes: readonly Note[], { meter, tempo, breath, sectionId, partId }: Sung): SungPhrase[] {
  const phrases: Note[][] = [];
  for (const note of notes) {
    const last = phrases.at(-1)?.at(-1);
    if (last && note.start - end(last) < firstOf(meter.beats).duration) lastOf(phrases).push(note);
    else phrases.push([note]);
  }
  return phrases.map((list): SungPhrase => {
    const [start, stop] = [firstOf(list).start, Math.max(...list.map(end))];
    const seconds = ticksToSeconds(stop - start, tempo);
    const long = seconds > breath;
    const at = long ? (breaks(meter, tempo, list, breath) ?? []) : [];
    return {
      start,
      end: stop,
      seconds,
      long,
      breaths: at.map((i): BreathPlace => {
        const [note, next] = [nth(list, i), nth(list, i + 1)];
        const word = note.lyrics?.[0]?.replace(/[-_]$/, "");
        const rest = next.start - end(note);
        const duration = Math.max(Math.ceil(note.duration / 2), note.duration - Math.max(0, INTAKE - rest));
        return {
          tick: end(note),
          note: note.id,
          words: `${word ? `after “${word}”, ` : "after the note at "}${positionText(meter, note.start)}`,
          edit:
            rest >= SIXTEENTH || duration === note.duration
              ? null
              : { do: "changeNotes", section: sectionId, part: partId, notes: [{ id: note.id, duration }] },
        };
      }),
    };
  });
}
