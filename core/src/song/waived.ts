import { produce } from "immer";
import { nth } from "../base/list";
import { parsePitch, pitchMidi, type PitchName, type Semitones } from "../theory/pitch/pitch";
import type { Ticks } from "../theory/time/meter";
import { aboutText, readAbout } from "./matter";
import type { Note, Section, Song, Waiver } from "./schema";

/** A note a waiver is about, before an edit and after it: of a line or of a chord's layout. */
interface Moved {
  was: Pick<Note, "start" | "pitch">;
  is: Pick<Note, "start" | "pitch">;
}

/** A section before an edit and after it. */
type Both = readonly [before: Section, after: Section];

const interval = (a: PitchName, b: PitchName): Semitones => pitchMidi(b) - pitchMidi(a);
const soundsAt = (n: { start: Ticks; duration: Ticks }, at: Ticks): boolean =>
  n.start <= at && at <= n.start + n.duration;

/** A note of a line that sounds at a tick, found again after an edit by its id. */
function noteAgain([before, after]: Both, part: string, at: Ticks, pitch: PitchName): Moved | null {
  const was = before.notes[part]?.find((n) => n.pitch === pitch && soundsAt(n, at));
  const is = was && after.notes[part]?.find((n) => n.id === was.id);
  return was && is ? { was, is } : null;
}

/** A note of a chord's layout, found again by its place in it. */
function laidAgain([before, after]: Both, part: string, at: Ticks, pitch: PitchName): Moved | null {
  const was = before.chords.find((c) => soundsAt(c, at) && c.voicings?.[part]?.pitches.includes(pitch));
  const is = was && after.chords.find((c) => c.id === was.id);
  const laid = is?.voicings?.[part]?.pitches[was?.voicings?.[part]?.pitches.indexOf(pitch) ?? -1];
  return was && is && laid ? { was: { start: was.start, pitch }, is: { start: is.start, pitch: laid } } : null;
}

const again = (both: Both, parts: readonly string[], at: Ticks, pitch: PitchName): Moved | null =>
  parts.map((p) => noteAgain(both, p, at, pitch) ?? laidAgain(both, p, at, pitch)).find((m) => m !== null) ?? null;

/** Whether the notes beside one were moved by the same interval: then it is not one note that became another. */
const besideIt = ([before, after]: Both, parts: readonly string[], { was }: Moved, higher: Semitones): boolean =>
  parts.some((part) => {
    const notes = before.notes[part] ?? [];
    const at = notes.findIndex((n) => n.start === was.start && n.pitch === was.pitch);
    const beside = at < 0 ? [] : [notes[at - 1], notes[at + 1]].flatMap((n) => n ?? []);
    const moved = (n: Note) => after.notes[part]?.some((x) => x.id === n.id && interval(n.pitch, x.pitch) === higher);
    return beside.length > 0 && beside.every(moved);
  });

/** What a waiver is about where all of its notes were moved alike, or spelled anew; null elsewhere. */
function movedAbout(waiver: Waiver, both: Both): string | null {
  const { place, pitches } = readAbout(waiver.about);
  const at = Number(place);
  if (!pitches.length || !Number.isInteger(at)) return null;
  const moved = pitches.flatMap((p) => (parsePitch(p).ok && again(both, waiver.parts, at, p)) || []);
  const [first] = moved;
  if (!first || moved.length < pitches.length) return null;
  const later = first.is.start - first.was.start;
  const higher = interval(first.was.pitch, first.is.pitch);
  const alike = moved.every(
    ({ was, is }) => is.start - was.start === later && interval(was.pitch, is.pitch) === higher,
  );
  const alone = moved.length === 1 && higher !== 0 && !besideIt(both, waiver.parts, first, higher);
  if (!alike || alone) return null;
  return aboutText(
    at + later,
    moved.map((m) => m.is.pitch),
  );
}

/**
 * Waivers go along with what they are about: where an edit moves all notes of one alike, to another place, another key
 * or another spelling, it is rewritten in the same step. What changes one note against another is another matter, and
 * is told again.
 */
export function followWaivers(before: Song, after: Song): Song {
  if (!before.waivers.length || before.sections === after.sections) return after;
  const changed = after.waivers.flatMap((waiver, i): { i: number; about: string }[] => {
    const was = before.waivers.find((w) => w.id === waiver.id);
    const [a, b] = [before, after].map((s) => s.sections.find((x) => x.id === waiver.sectionId));
    // An edit that moves the whole song has rewritten them itself.
    if (was?.about !== waiver.about || !a || !b || a === b) return [];
    const about = movedAbout(waiver, [a, b]);
    return about === null || about === waiver.about ? [] : [{ i, about }];
  });
  if (!changed.length) return after;
  return produce(after, (draft) => {
    for (const { i, about } of changed) nth(draft.waivers, i).about = about;
  });
}
