import { firstOf } from "../base/list";
import { soundingIn } from "../hear/slice/soundingIn";
import { because } from "../song/reasons";
import { spellInKey, type Key } from "../theory/pitch/key";
import { mod, noteOf } from "../theory/pitch/pitch";
import { THIRTY_SECOND, type Meter, type Ticks } from "../theory/time/meter";
import { identifyChords, isSure } from "../theory/chord/identify";
import { NO_CHORD } from "../theory/chord/progression";
import type { ChordEvent } from "../song/schema";
import type { MidiNote } from "./midiRead";

/** How long a chord each is. */
export type NamingUnit = "beat" | "half bar" | "bar";

/**
 * A pitch class counts for a chord when it sounds for at least this share of the stretch, or of the longest one's time.
 */
const HEARD = 0.12;
const HEARD_OF_LONGEST = 0.3;

/**
 * Names the chords of notes, one a stretch: pitch classes that sound long enough, over the lowest note at its
 * beginning. Stretches with fewer than two notes hold the chord before. Neighbors of one name become one chord;
 * doubtful ones keep their readings.
 */
export function nameChords(
  notes: readonly MidiNote[],
  length: Ticks,
  { meter, unit, key, file }: { meter: Meter; unit: NamingUnit; key: Key; file: string },
): Omit<ChordEvent, "id">[] {
  const cuts: Ticks[] = [];
  for (let bar = 0; bar * meter.bar < length; bar++) {
    const middle = meter.beats[Math.ceil(meter.beats.length / 2)];
    let inside: number[];
    if (unit === "beat") inside = meter.beats.map((b) => b.start);
    else if (unit === "half bar" && middle) inside = [0, middle.start];
    else inside = [0];
    cuts.push(...inside.map((b) => bar * meter.bar + b));
  }
  // A stretch reads what sounds in it, however long the file.
  const sounding = soundingIn(notes, meter.bar);
  const events: Omit<ChordEvent, "id">[] = [];
  cuts.forEach((start, i) => {
    const end = Math.min(length, cuts[i + 1] ?? length);
    const last = events.at(-1);
    const found = nameStretch(sounding.within(start, end), start, end, { key, before: last?.symbol });
    if (!found) {
      if (last) last.duration = end - last.start;
      else events.push({ start, duration: end - start, symbol: NO_CHORD });
    } else if (last?.symbol === found.symbol) last.duration = end - last.start;
    else events.push({ start, duration: end - start, ...found, why: because("imported", { file }) });
  });
  return events;
}

/** How long each pitch class sounds in a stretch. Who doubles it adds nothing: a root in six parts is one root. */
function timesOf(notes: readonly MidiNote[], start: Ticks, end: Ticks): Map<number, Ticks> {
  const time = new Map<number, Ticks>();
  const until = new Map<number, Ticks>();
  for (const n of [...notes].sort((a, b) => a.start - b.start)) {
    const pc = mod(n.midi, 12);
    const from = Math.max(start, n.start, until.get(pc) ?? start);
    const to = Math.min(end, n.start + n.duration);
    if (to <= from) continue;
    time.set(pc, (time.get(pc) ?? 0) + to - from);
    until.set(pc, to);
  }
  return time;
}

function nameStretch(
  notes: readonly MidiNote[],
  start: Ticks,
  end: Ticks,
  { key, before }: { key: Key; before: string | undefined },
): Pick<ChordEvent, "symbol" | "readings" | "certainty"> | null {
  const sounding = notes.flatMap((n) => {
    const overlap = Math.min(end, n.start + n.duration) - Math.max(start, n.start);
    return overlap > 0 ? [{ midi: n.midi, start: n.start, overlap }] : [];
  });
  const time = timesOf(notes, start, end);
  const longest = Math.max(0, ...time.values());
  const pcs = [...time]
    .filter(([, t]) => t >= (end - start) * HEARD && t >= longest * HEARD_OF_LONGEST)
    .map(([pc]) => pc);
  if (pcs.length < 2) return null;
  // The bass is the lowest note of the beginning. A note played a moment early or late still stands there.
  const first = sounding.filter((n) => n.start <= start + THIRTY_SECOND && n.overlap > THIRTY_SECOND);
  const lowest = Math.min(...(first.length ? first : sounding).map((n) => n.midi));
  const name = (pc: number) => noteOf(spellInKey(60 + pc, key));
  const readings = identifyChords({
    pitches: pcs.map(name),
    bass: name(mod(lowest, 12)),
    key: `${key.tonic} ${key.mode}`,
    soundsOnly: true,
    ...(before ? { before } : {}),
  });
  if (!readings.length) return null;
  return {
    symbol: firstOf(readings).symbol,
    certainty: Math.round(firstOf(readings).score * 100) / 100,
    ...(isSure(readings) && !firstOf(readings).added.length && pcs.length < 6 && firstOf(readings).score > 0.5
      ? {}
      : { readings: readings.slice(0, 4).map((r) => r.symbol) }),
  };
}
