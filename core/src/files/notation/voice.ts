import { nth } from "../../base/list";
import { pitchMidi, type PitchName } from "../../theory/pitch/pitch";
import type { Meter, Ticks } from "../../theory/time/meter";
import type { Chord } from "../../theory/chord/chord";
import type { RealizedNote } from "../../song/realize";
import { gridsOf, write } from "./durations";
import { wordsOf, type SungSyllable } from "./marks";
import type { StaffReading } from "./reading";
import type { WrittenAttack } from "./rhythm";
import { spellLine } from "./spelling";
import type { EngravedChord } from "./staff";

/** What the notes of a voice are called and carry. */
interface Carried {
  names: ReadonlyMap<RealizedNote, PitchName>;
  words: ReadonlyMap<RealizedNote, (SungSyllable | null)[]>;
  read: StaffReading["read"];
}

/** Names and words of a voice's notes. */
function carriedBy(
  attacks: readonly WrittenAttack[],
  reading: StaffReading,
  chordAt: (tick: Ticks) => Chord | null,
): Carried {
  const flat = attacks.flatMap((a) =>
    [...a.notes].sort((x, y) => x.midi - y.midi).map((note) => ({ note, alone: a.notes.length === 1 })),
  );
  const names = spellLine(
    flat.map(({ note }) => ({ start: note.start, midi: note.midi - reading.lifted, pitch: reading.read(note) })),
    {
      key: reading.key,
      chordAt: (tick) => {
        const chord = chordAt(Math.max(0, tick));
        return chord && reading.chord(chord);
      },
      moves: (i) => nth(flat, i).alone && (flat[i + 1]?.alone ?? false),
    },
  );
  return {
    names: new Map(flat.map(({ note }, i) => [note, nth(names, i)])),
    words: wordsOf(attacks.flatMap((a) => a.notes)),
    read: reading.read,
  };
}

/** A voice as it is written, ready to be cut into bars. */
export interface VoiceInBars {
  /** Attacks that sound in a bar, by its number; the pickup is −1. */
  bars: ReadonlyMap<number, readonly WrittenAttack[]>;
  carried: Carried;
}

export function voiceOf(
  attacks: readonly WrittenAttack[],
  meter: Meter,
  reading: StaffReading,
  chordAt: (tick: Ticks) => Chord | null,
): VoiceInBars {
  const bars = new Map<number, WrittenAttack[]>();
  for (const attack of attacks)
    for (let bar = Math.floor(attack.start / meter.bar); bar * meter.bar < attack.end; bar++) {
      const known = bars.get(bar);
      if (known) known.push(attack);
      else bars.set(bar, [attack]);
    }
  return { bars, carried: carriedBy(attacks, reading, chordAt) };
}

/**
 * One bar of a voice: its attacks in values tied over beats and bars, and the rests between. `length` is where the
 * music ends.
 */
export function barOf({ bars, carried }: VoiceInBars, bar: number, meter: Meter, length: Ticks): EngravedChord[] {
  const from = bar * meter.bar;
  const to = Math.min(length, from + meter.bar);
  const here = (bars.get(bar) ?? []).filter((a) => a.start < to);
  const grids = gridsOf(
    meter,
    here.filter((a) => a.start >= from).map((a) => a.start - from),
  );
  const out: EngravedChord[] = [];
  const rest = (start: Ticks, end: Ticks) => {
    for (const piece of write(start, end, meter, { grids, rest: true }))
      out.push({ ...piece, start: from + piece.start, notes: [], articulation: null });
  };
  let at = 0;
  for (const a of here) {
    const start = Math.max(0, a.start - from);
    const end = Math.min(meter.bar, a.end - from);
    if (start > at) rest(at, start);
    const notes = [...new Map(a.notes.map((n) => [n.midi, n])).values()].sort((x, y) => x.midi - y.midi);
    const pieces = write(Math.max(at, start), end, meter, { grids });
    pieces.forEach((piece, k) => {
      const last = k === pieces.length - 1;
      const tied = !last || (a.end > to && to < length);
      const opens = k === 0 && a.start >= from;
      out.push({
        ...piece,
        start: from + piece.start,
        notes: notes.map((n) => ({
          id: n.id,
          midi: n.midi,
          pitch: carried.names.get(n) ?? carried.read(n),
          tied,
          ...(n.glideTo !== undefined && !tied
            ? { slide: carried.read({ pitch: n.glideTo, midi: pitchMidi(n.glideTo) }) }
            : {}),
        })),
        articulation: opens ? a.articulation : null,
        ...(opens ? carriedAtAttack(a, carried) : {}),
      });
    });
    at = Math.max(at, end);
  }
  // A bar without notes is one rest, whatever its meter.
  if (!here.length)
    return [{ start: from, ticks: meter.bar, value: "w", dots: 0, triplet: false, notes: [], articulation: null }];
  if (at < meter.bar) rest(at, meter.bar);
  return out;
}

function carriedAtAttack(a: WrittenAttack, { words }: Carried): Pick<EngravedChord, "words" | "swell"> {
  const own = a.notes.map((n) => words.get(n)).find((w) => w);
  return { ...(own ? { words: own } : {}), ...(a.notes.some((n) => n.swell) ? { swell: true } : {}) };
}
