import { firstOf, nth } from "../../base/list";
import { fail, ok, type Result } from "../../base/result";

/** Integer ticks, 480 to a quarter note. */
export type Ticks = number;
/** Quarter notes a minute. */
export type Bpm = number;
export type Seconds = number;

export const QUARTER: Ticks = 480;
export const EIGHTH: Ticks = QUARTER / 2;
export const SIXTEENTH: Ticks = QUARTER / 4;
export const THIRTY_SECOND: Ticks = QUARTER / 8;
export const EIGHTH_TRIPLET: Ticks = QUARTER / 3;
export const SIXTEENTH_TRIPLET: Ticks = QUARTER / 6;

export interface Beat {
  start: Ticks;
  duration: Ticks;
}

export interface Meter {
  text: string;
  count: number;
  unit: 2 | 4 | 8 | 16;
  /** Length of a bar. */
  bar: Ticks;
  /** The beats as they are felt: quarters in 4/4, dotted quarters in 6/8, 2+2+3 eighths in 7/8. */
  beats: Beat[];
}

const DEFAULT_GROUPS: Record<string, number[]> = {
  "5/8": [3, 2],
  "7/8": [2, 2, 3],
  "8/8": [3, 3, 2],
  "10/8": [3, 3, 2, 2],
  "11/8": [3, 3, 3, 2],
};

/** Reads "4/4", "6/8", "7/8" (felt 2+2+3) or a grouping of one's own, "7/8 3+2+2". */
export function parseMeter(text: string): Result<Meter> {
  const hint = 'Write a meter like "4/4", "6/8" or "7/8 2+2+3".';
  const match = /^\s*(\d{1,2})\/(\d{1,2})(?:\s+(\d(?:\+\d)*))?\s*$/.exec(text);
  if (!match) return fail("meter.unknown", `"${text}" is not a meter`, { hint });
  const count = Number(match[1]);
  const unit = Number(match[2]);
  if (![2, 4, 8, 16].includes(unit) || count < 1 || count > 16)
    return fail(
      "meter.unknown",
      `"${text}" is not a meter this application knows: 1 to 16 beats of a half, quarter, eighth or sixteenth`,
      {
        hint,
      },
    );
  const tick = (QUARTER * 4) / unit;
  let groups: number[];
  if (match[3]) groups = match[3].split("+").map(Number);
  else if (unit < 8 || count === 1) groups = Array<number>(count).fill(1);
  else {
    const pulses = () => {
      if (count % 3 === 0) return Array<number>(count / 3).fill(3);
      if (count % 2 === 0) return Array<number>(count / 2).fill(2);
      return [...Array<number>((count - 3) / 2).fill(2), 3];
    };
    groups = DEFAULT_GROUPS[`${count}/8`] ?? pulses();
  }
  if (groups.some((g) => g < 1) || groups.reduce((a, b) => a + b, 0) !== count)
    return fail("meter.grouping", `"${text}": the groups do not add up to ${count}`, { hint });
  let start = 0;
  const beats = groups.map((g) => {
    const beat = { start, duration: g * tick };
    start += beat.duration;
    return beat;
  });
  return ok({ text: text.trim().replace(/\s+/g, " "), count, unit: unit as Meter["unit"], bar: count * tick, beats });
}

/** The beat a position of the bar lies in. */
export function beatAt(meter: Meter, inBar: Ticks): number {
  for (let i = meter.beats.length - 1; i > 0; i--) if (inBar >= nth(meter.beats, i).start) return i;
  return 0;
}

/**
 * Metrical level of a position: 0 downbeat, −1 middle of an even bar, −2 other beats, then one lower for each halving
 * (Longuet-Higgins and Lee 1984 use the same tree for simple meters).
 */
export function metricalLevel(meter: Meter, tick: Ticks): number {
  const inBar = ((tick % meter.bar) + meter.bar) % meter.bar;
  if (inBar === 0) return 0;
  const beat = nth(meter.beats, beatAt(meter, inBar));
  const into = inBar - beat.start;
  if (into === 0) return meter.beats.length % 2 === 0 && inBar * 2 === meter.bar ? -1 : -2;
  let part = beat.duration % 720 === 0 ? beat.duration / 3 : beat.duration / 2;
  for (let level = -3; level > -7; level--, part /= 2) if (into % part === 0) return level;
  return -7;
}

/** Level of beat i of n: 0 the first, one lower for each division that is needed to reach it, halves before thirds. */
function beatLevel(i: number, n: number): number {
  if (i === 0) return 0;
  let parts: number;
  if (n % 2 === 0) parts = 2;
  else if (n % 3 === 0) parts = 3;
  else parts = n;
  const group = n / parts;
  return i % group === 0 ? -1 : beatLevel(i % group, group) - 1;
}

/**
 * Level of a position in the tree of its meter (Longuet-Higgins and Lee 1984): 0 the downbeat, one lower for each
 * division: in 4/4 the middle −1, other beats −2, eighths −3; in 3/4 beats −1, eighths −2; in 6/8 the second dotted
 * quarter −1, eighths −2.
 */
export function treeLevel(meter: Meter, tick: Ticks): number {
  const inBar = ((tick % meter.bar) + meter.bar) % meter.bar;
  const index = beatAt(meter, inBar);
  const { start, duration } = nth(meter.beats, index);
  const n = meter.beats.length;
  if (inBar === start) return beatLevel(index, n);
  const lowest = Math.min(...meter.beats.map((_, i) => beatLevel(i, n)));
  let part = duration % 720 === 0 ? duration / 3 : duration / 2;
  for (let k = 1; k < 5; k++, part /= 2) if ((inBar - start) % part === 0) return lowest - k;
  return lowest - 5;
}

/** 1-based bar and beat of a position in a section of one meter, for example "bar 2, beat 3½". */
export function positionText(meter: Meter, tick: Ticks): string {
  const bar = Math.floor(tick / meter.bar);
  const where = beatText(meter, tick);
  return bar < 0 ? `pickup, ${where}` : `bar ${bar + 1}, ${where}`;
}

/** A place within its bar: "beat 2½". */
export function beatText(meter: Meter, tick: Ticks): string {
  const bar = Math.floor(tick / meter.bar);
  const inBar = tick - bar * meter.bar;
  const index = beatAt(meter, inBar);
  const beat = nth(meter.beats, index);
  const share = (inBar - beat.start) / beat.duration;
  const marks: [number, string][] = [
    [0, ""],
    [1 / 4, "¼"],
    [1 / 3, "⅓"],
    [1 / 2, "½"],
    [2 / 3, "⅔"],
    [3 / 4, "¾"],
  ];
  const mark = marks.find(([value]) => Math.abs(value - share) < 0.01);
  return `beat ${index + 1}${mark ? mark[1] : ` + ${Math.round(share * 100)} %`}`;
}

/** A length in beats of the meter, in words: "½ beat", "1 beat", "2 beats". */
export function beatsText(meter: Meter, duration: Ticks): string {
  const beats = duration / firstOf(meter.beats).duration;
  const whole = Math.floor(beats + 1e-9);
  const rest = beats - whole;
  let mark: "" | "½" | "¼" | "¾" | "⅓" | "⅔" | null;
  if (rest < 0.01) mark = "";
  else if (Math.abs(rest - 0.5) < 0.01) mark = "½";
  else if (Math.abs(rest - 0.25) < 0.01) mark = "¼";
  else if (Math.abs(rest - 0.75) < 0.01) mark = "¾";
  else if (Math.abs(rest - 1 / 3) < 0.01) mark = "⅓";
  else if (Math.abs(rest - 2 / 3) < 0.01) mark = "⅔";
  else mark = null;
  const text = mark === null ? beats.toFixed(2) : `${whole || (mark ? "" : "0")}${mark}`;
  return `${text} ${beats > 1 + 1e-9 ? "beats" : "beat"}`;
}
