/** Lines that are one voice in two sounds. */
import { firstOf } from "../../base/list";
import { onceFor } from "../../base/once";
import { mod } from "../../theory/pitch/pitch";
import type { Ticks } from "../../theory/time/meter";
import type { RealizedNote } from "../../song/realize";
import { soundingIn } from "../slice/soundingIn";
import type { PairGround } from "./between";

type Line = readonly RealizedNote[];

const end = (n: { start: Ticks; duration: Ticks }): Ticks => n.start + n.duration;

/** Share of its time that a line must have in unison with another one to be the same voice sung twice. */
const SAME = 0.85;

export interface Shared {
  both: Ticks;
  unison: Ticks;
  octave: Ticks;
}

/** Ticks in which two lines sound, in which they sound one pitch, and in which they do in any octave. */
export const shared = (a: Line, b: Line, bar: Ticks): Shared =>
  onceFor([a, b], `shared ${bar}`, () => {
    const other = soundingIn(b, bar);
    let [both, unison, octave] = [0, 0, 0];
    for (const n of a)
      for (const m of other.within(n.start, end(n))) {
        const time = Math.min(end(n), end(m)) - Math.max(n.start, m.start);
        both += time;
        if (n.midi === m.midi) unison += time;
        if (mod(n.midi - m.midi, 12) === 0) octave += time;
      }
    return { both, unison, octave };
  });

const lengthOf = (line: Line): Ticks => onceFor([line], "length", () => line.reduce((sum, n) => sum + n.duration, 0));

/** Whether two lines are takes of one: the same notes at the same time, sung twice. Such lines count as one voice. */
export function sameVoice(a: Line, b: Line, { meter }: Pick<PairGround, "meter">): boolean {
  const longest = Math.max(lengthOf(a), lengthOf(b));
  return longest > 0 && shared(a, b, meter.bar).unison >= SAME * longest;
}

/** So many notes at least say that a line goes along with another one; fewer may meet by chance. */
const ALONG = 4;

/**
 * Whether one line doubles another: takes of one line, or the same pitches in any octave nearly all the time that it
 * plays, as instruments go along with voices.
 */
export function doubles(a: Line, b: Line, ground: Pick<PairGround, "meter">): boolean {
  if (sameVoice(a, b, ground)) return true;
  if (Math.min(a.length, b.length) < ALONG) return false;
  return shared(a, b, ground.meter.bar).octave >= SAME * Math.min(lengthOf(a), lengthOf(b));
}

/** Lines by voice: takes of one line stand together, the first of them in front. */
export function byVoice<L extends { notes: Line }>(lines: readonly L[], ground: Pick<PairGround, "meter">): L[][] {
  const groups: L[][] = [];
  for (const line of lines) {
    const known = line.notes.length ? groups.find((g) => sameVoice(firstOf(g).notes, line.notes, ground)) : undefined;
    if (known) known.push(line);
    else groups.push([line]);
  }
  return groups;
}
