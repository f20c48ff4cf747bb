import { firstOf, sure } from "../base/list";
import { noteOf, pitchMidi, pitchName, type Midi, type PitchName } from "../theory/pitch/pitch";
import { keyName, transposeKey } from "../theory/pitch/key";
import type { Ticks } from "../theory/time/meter";
import { chordSymbol, transposeChord } from "../theory/chord/chord";
import { chordOf } from "../theory/chord/progression";
import { passOf, sectionKey, sectionMeter, sectionOf } from "./document";
import { passPlace } from "./place";
import { frameOf, movedBetween, realizedChords, realizedNotes } from "./realize";
import type { Pass, Song } from "./schema";

/**
 * How a section goes on: the passes of it that do so, and what comes, named and pitched as if the section stood in its
 * own key.
 */
export interface WayOn {
  /** Passes of the section that go on so. */
  passes: string[];
  /** The pass that follows the first of them. */
  next: string;
  /** What follows, as the form calls it. */
  into: string;
  /** It is the section once more, from its beginning. */
  again: boolean;
  /** The chord that follows, and how long it lasts; null where there is none, or silence. */
  symbol: string | null;
  lasts: Ticks;
  key: string;
}

/**
 * A note that follows, in the key of the section that ends; it begins so many ticks after the border (an upbeat before
 * it).
 */
export interface FirstNote {
  midi: Midi;
  pitch: PitchName;
  after: Ticks;
}

/** How far what follows a pass lies from where the section that ends would have it. */
const away = (pass: Pass): number => -(pass.transpose ?? 0);

function wayOf(song: Song, pass: Pass, next: Pass): Omit<WayOn, "passes"> | null {
  const frame = frameOf(song, passPlace(song, next.id));
  const ending = sectionOf(song, pass.sectionId);
  if (!frame || !ending || frame.to <= frame.from) return null;
  const [first] = realizedChords({ ...frame, to: Math.min(frame.to, frame.from + frame.meter.bar) });
  const by = away(pass);
  const key = by ? transposeKey(frame.key, by) : frame.key;
  const moved = movedBetween(frame.key, key, by);
  const chord = first?.start === 0 ? first.chord : null;
  return {
    next: next.id,
    into: next.name ?? frame.section.name,
    again: frame.from === 0 && isAgain(pass, next),
    symbol: chord && chordSymbol(by ? transposeChord(chord, moved) : chord),
    lasts: first?.chord ? (chordLength(song, next, first.id) ?? first.duration) : 0,
    key: keyName(key),
  };
}

/** The next pass is the same section in the same key, and has no first bar of its own. */
const isAgain = (pass: Pass, next: Pass): boolean =>
  next.sectionId === pass.sectionId && away(next) === away(pass) && !next.own?.some((o) => o.bars[0] === 0);

const chordLength = (song: Song, pass: Pass, id: string): Ticks | undefined =>
  frameOf(song, passPlace(song, pass.id))?.section.chords.find((c) => c.id === id)?.duration;

/** Whether a pass plays the section to its end, as the section has it. */
function reachesEnd(song: Song, pass: Pass): boolean {
  const section = sure(sectionOf(song, pass.sectionId));
  return (pass.bars?.[1] ?? section.bars) >= section.bars;
}

/**
 * The ways in which a section goes on in the form, the one most of its passes take first (the earlier of two). A pass
 * that stops before the end of the section is left out, and so is one that nothing follows: it closes the song. A
 * section that is never followed by anything leads back to its own beginning, and has none.
 */
export function waysOn(song: Song, sectionId: string): WayOn[] {
  const ways = new Map<string, WayOn>();
  song.form.forEach((pass, i) => {
    const next = song.form[i + 1];
    if (pass.sectionId !== sectionId || !next || !reachesEnd(song, pass)) return;
    const way = wayOf(song, pass, next);
    if (!way) return;
    const id = way.again ? "again" : `${way.symbol} ${way.key}`;
    const known = ways.get(id);
    if (known) known.passes.push(pass.id);
    else ways.set(id, { ...way, passes: [pass.id] });
  });
  return [...ways.values()].sort((a, b) => b.passes.length - a.passes.length);
}

/** The way a section goes on most often; null where it leads back to its own beginning, or nothing follows it. */
export function wayOn(song: Song, sectionId: string): WayOn | null {
  const [main] = waysOn(song, sectionId);
  return !main || main.again ? null : main;
}

/** The first note of a part in what follows; null where it is silent in the first bar. */
export function firstNote(song: Song, way: WayOn, partId: string): FirstNote | null {
  const pass = passOf(song, firstOf(way.passes));
  const next = passOf(song, way.next);
  const part = song.parts.find((p) => p.id === partId);
  const frame = next && frameOf(song, passPlace(song, next.id));
  if (!pass || !part || !frame) return null;
  const notes = realizedNotes(song, frame, part, true);
  const start = notes[0]?.start;
  if (start === undefined || start >= frame.meter.bar) return null;
  // Of notes that begin together the lowest leads the bass.
  const note = notes.filter((n) => n.start === start).reduce((low, n) => (n.midi < low.midi ? n : low));
  const by = away(pass);
  const key = transposeKey(frame.key, by);
  const moved = movedBetween(frame.key, key, by);
  const midi = note.midi + by;
  return {
    midi,
    pitch: by ? pitchName(midi, moved(noteOf(note.pitch))) : note.pitch,
    after: note.start,
  };
}

/**
 * The layout of a part in the first chord of what follows, lowest first, in the key of the section that ends; empty
 * where it has none.
 */
export function firstLayout(song: Song, way: WayOn, partId: string): PitchName[] {
  const pass = passOf(song, firstOf(way.passes));
  const next = passOf(song, way.next);
  const frame = next && frameOf(song, passPlace(song, next.id));
  if (!pass || !frame) return [];
  const [first] = realizedChords(frame);
  const pitches = frame.section.chords.find((c) => c.id === first?.id)?.voicings?.[partId]?.pitches ?? [];
  const by = frame.semitones + away(pass);
  const key = transposeKey(sectionKey(song, frame.section), by);
  const moved = movedBetween(sectionKey(song, frame.section), key, by);
  return pitches
    .map((p) => (by ? pitchName(pitchMidi(p) + by, moved(noteOf(p))) : p))
    .sort((a, b) => pitchMidi(a) - pitchMidi(b));
}

/**
 * The last chord of the pass before a section, in the section's own key; null where nothing comes before it, or it
 * comes before itself.
 */
export function chordBefore(song: Song, sectionId: string): string | null {
  const at = song.form.findIndex((p, i) => i > 0 && p.sectionId === sectionId);
  const [before, pass] = [song.form[at - 1], song.form[at]];
  if (!before || !pass || before.sectionId === sectionId) return null;
  const frame = frameOf(song, passPlace(song, before.id));
  const last = frame && realizedChords(frame).at(-1);
  if (!frame || !last?.chord) return null;
  const by = away(pass);
  const key = by ? transposeKey(frame.key, by) : frame.key;
  return chordSymbol(by ? transposeChord(last.chord, movedBetween(frame.key, key, by)) : last.chord);
}

/** What follows as a chord event that begins where a section ends; null where no chord follows. */
export function eventAfter(
  song: Song,
  sectionId: string,
): { id: string; start: Ticks; duration: Ticks; symbol: string; into: string } | null {
  const section = sectionOf(song, sectionId);
  const way = section ? wayOn(song, sectionId) : null;
  if (!section || !way?.symbol || !chordOf(way.symbol)) return null;
  return {
    id: `next ${way.next}`.slice(0, 40),
    start: section.bars * sectionMeter(song, section).bar,
    duration: Math.max(1, way.lasts),
    symbol: way.symbol,
    into: way.into,
  };
}
