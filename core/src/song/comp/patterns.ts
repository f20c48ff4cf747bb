import { sure } from "../../base/list";
import { fail, ok, type Result } from "../../base/result";
import type { Meter, Ticks } from "../../theory/time/meter";
import { type CompChord, type CompContext, type CompNote } from "./kind";

/** A step of a rhythm pattern: a sixteenth. */
export const STEP: Ticks = 120;

/** Attack of a rhythm, with how long it is held. */
export interface Attack {
  start: Ticks;
  duration: Ticks;
  velocity: number;
  /** Cut short: a single step without a hold. */
  short: boolean;
}

export interface CompPattern {
  id: string;
  title: string;
  /** One step a sixteenth: X struck hard, x struck, - held on, . silent; one bar or several. */
  steps(meter: Meter): string;
}

/** Writes a bar beat by beat: what each beat holds, by its number and its length in steps. */
export const byBeat =
  (beat: (index: number, steps: number, last: boolean) => string) =>
  (meter: Meter): string =>
    meter.beats
      .map((b, i) => {
        const steps = b.duration / STEP;
        return beat(i, steps, i === meter.beats.length - 1)
          .slice(0, steps)
          .padEnd(steps, ".");
      })
      .join("");

const hold = (steps: number, mark = "x") => mark + "-".repeat(Math.max(0, steps - 1));
const late = (steps: number, text: string) => ".".repeat(Math.ceil(steps / 2)) + text;
const barOf = (text: string) => (meter: Meter) => text.padEnd(meter.bar / STEP, ".").slice(0, meter.bar / STEP);

/** Rhythms by name of feel, common practice; every one of them fits itself to the meter. */
export const PATTERNS: readonly CompPattern[] = [
  { id: "held", title: "Held chords", steps: (meter) => hold(meter.bar / STEP) },
  { id: "beats", title: "On every beat", steps: byBeat((_, n) => hold(n)) },
  { id: "backbeat", title: "Backbeat chops", steps: byBeat((i) => (i % 2 ? "X" : "")) },
  { id: "offbeats", title: "Stabs between the beats", steps: byBeat((_, n) => late(n, "x")) },
  { id: "long-short", title: "Long and short", steps: barOf("X----.x-") },
  {
    id: "pushes",
    title: "Pushed ahead",
    steps: byBeat((i, n, last) => {
      if (i === 0) return hold(n);
      if (last) return late(n, hold(n / 2, "X"));
      return "";
    }),
  },
  { id: "driving", title: "Driving eighths", steps: byBeat((_, n) => "X.x.x.x.".slice(0, n)) },
  {
    id: "gaps",
    title: "Two stabs and a gap",
    steps: byBeat((i, n) => {
      if (i === 0) return "x.".padEnd(n - 1, ".") + "x";
      if (i === 1) return late(n, "X");
      return "";
    }),
  },
  { id: "low-high", title: "After the downbeat", steps: byBeat((i, n) => (i === 0 ? "" : hold(Math.max(1, n / 2)))) },
  {
    id: "sixteenths",
    title: "Scratched sixteenths",
    steps: byBeat((i, n) => (i % 2 ? "X.xx" : "x.xx").padEnd(n, "xx").slice(0, n)),
  },
];

/** Reads a pattern of one's own. Errors: `pattern.mark`, `pattern.long`. */
export function parsePattern(text: string): Result<string> {
  const steps = text.replace(/[\s|]/g, "");
  const wrong = [...steps].findIndex((c) => !"Xx-.".includes(c));
  if (wrong >= 0)
    return fail("pattern.mark", `"${steps[wrong]}" is not a step of a rhythm`, {
      position: wrong,
      hint: "X is struck hard, x struck, - held on, . silent.",
    });
  if (!steps.length || steps.length > 256)
    return fail("pattern.long", "A rhythm has 1 to 256 steps", { hint: "One step is a sixteenth." });
  return ok(steps);
}

/** The steps a part plays: a pattern by name or its own one, filled up to whole bars. */
export function stepsOf(rhythm: string, meter: Meter): string {
  const bar = meter.bar / STEP;
  const named = PATTERNS.find((p) => p.id === rhythm);
  const own = named ? null : parsePattern(rhythm);
  let steps: string;
  if (named) steps = named.steps(meter);
  else if (own?.ok) steps = own.value;
  else steps = hold(bar);
  return steps.padEnd(Math.ceil(steps.length / bar) * bar, ".");
}

/** Attacks of a repeated pattern over a length. */
export function attacksOf(steps: string, length: Ticks): Attack[] {
  const out: Attack[] = [];
  for (let i = 0; i * STEP < length; i++) {
    const mark = sure(steps[i % steps.length]);
    const last = out.at(-1);
    if (mark === "-" && last && last.start + last.duration === i * STEP) {
      last.duration += STEP;
      last.short = false;
    } else if (mark === "x" || mark === "X")
      out.push({ start: i * STEP, duration: STEP, velocity: mark === "X" ? 92 : 70, short: true });
  }
  return out;
}

/** The rhythm a part plays: its pattern, or the hits of the drum it follows. */
export function compRhythm({ playing, meter, length, hits, chords }: CompContext): Attack[] {
  const follow = playing.follow ?? "";
  const rhythm = playing.rhythm ?? "held";
  if (!follow && rhythm === "held")
    return chords.map((c) => ({ start: c.start, duration: c.duration, velocity: 72, short: false }));
  if (!follow) return attacksOf(stepsOf(rhythm, meter), length);
  const found = hits(follow).filter((h) => h.start < length);
  return found.map((h, i) => ({
    start: h.start,
    duration: Math.min(240, (found[i + 1]?.start ?? length) - h.start),
    velocity: Math.round(h.velocity * 0.8),
    short: true,
  }));
}

const chordAt = (chords: readonly CompChord[], tick: Ticks) =>
  chords.findLast((c) => c.start <= tick && tick < c.start + c.duration);

/**
 * Plays some notes of every chord in the part's rhythm. A chord that changes under a held attack is struck anew there;
 * with `anticipate` an attack in the last eighth before a change already plays what comes.
 */
export function inRhythm(ctx: CompContext, choose: (chord: CompChord) => CompChord["pitches"]): CompNote[] {
  const gate = (ctx.playing.gate ?? 100) / 100;
  const out: CompNote[] = [];
  for (const attack of compRhythm(ctx)) {
    const end = Math.min(ctx.length, attack.start + attack.duration);
    for (let at = attack.start; at < end;) {
      const { chord, stop } = struckAt(ctx, at, end, at === attack.start);
      if (chord) {
        const duration = Math.max(30, Math.round((stop - at) * (attack.short ? Math.min(gate, 0.7) : gate)));
        for (const p of choose(chord))
          out.push({ chord: chord.id, start: at, duration, ...p, velocity: attack.velocity });
      }
      at = stop;
    }
  }
  return out;
}

/** The chord that is struck at a tick and how long it holds, to the end of its attack or the next change. */
function struckAt(
  { chords, playing, length, loop }: CompContext,
  at: Ticks,
  end: Ticks,
  attacked: boolean,
): { chord: CompChord | undefined; stop: Ticks } {
  const here = chordAt(chords, at);
  const after = chords.find((c) => c.start > at);
  const change = here ? here.start + here.duration : Math.min(end, after?.start ?? end);
  const next = after ?? (loop ? chords[0] : undefined);
  const near = playing.anticipate === true && attacked && change - at <= 240;
  if (near && next && (next.start === change || change === length)) return { chord: next, stop: end };
  return { chord: here, stop: Math.min(end, change) };
}
