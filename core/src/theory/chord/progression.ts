import { add, firstOf, nth } from "../../base/list";
import type { Problem } from "../../base/result";
import type { Meter, Ticks } from "../time/meter";
import { chordSymbol, type Chord } from "./chord";
import { parseChord } from "./parse";

/** One chord of a line, on the time axis of its section. */
export interface LineChord {
  start: Ticks;
  duration: Ticks;
  /** Canonical symbol, or "N.C." for no chord. */
  symbol: string;
}

export interface ParsedLine {
  chords: LineChord[];
  /** Stretches whose text could not be read: what stood there before may stay. */
  unread: { start: Ticks; duration: Ticks }[];
  bars: number;
  /** Positions are 1-based columns of the line. */
  problems: Problem[];
}

export const NO_CHORD = "N.C.";

/** The chord of a symbol; null for N.C., and for what cannot be read. */
export function chordOf(symbol: string): Chord | null {
  const chord = symbol === NO_CHORD ? null : parseChord(symbol);
  return chord?.ok ? chord.value : null;
}
export const LINE_LIMIT = 4000;

interface Token {
  text: string;
  column: number;
}

interface Bar {
  tokens: Token[];
  column: number;
}

function splitBars(line: string): Bar[] {
  const bars: Bar[] = [];
  let bar: Bar = { tokens: [], column: 1 };
  for (const match of line.matchAll(/\||[^\s|]+/g)) {
    const column = match.index + 1;
    if (match[0] !== "|") bar.tokens.push({ text: match[0], column });
    else {
      if (bar.tokens.length) bars.push(bar);
      bar = { tokens: [], column: column + 1 };
    }
  }
  if (bar.tokens.length) bars.push(bar);
  return bars;
}

/**
 * Lengths of the slots of a bar. With n chords and no dots, beats are shared out evenly and what is left over goes to
 * the first chords, one beat each (three chords in 4/4: 2+1+1; two in 3/4: 2+1; two in 7/8, felt 2+2+3: 4+3 eighths).
 * More chords than beats share the eighths, then the sixteenths, by the same rule. Null when even the sixteenths do not
 * suffice.
 */
export function shareBar(meter: Meter, count: number): Ticks[] | null {
  for (const unit of [null, 240, 120]) {
    const units =
      unit === null ? meter.beats.map((b) => b.duration) : Array<number>(Math.floor(meter.bar / unit)).fill(unit);
    if (count > units.length) continue;
    const each = Math.floor(units.length / count);
    const extra = units.length % count;
    let at = 0;
    return Array.from({ length: count }, (_, i) => {
      const take = each + (i < extra ? 1 : 0);
      const sum = units.slice(at, at + take).reduce((a, b) => a + b, 0);
      at += take;
      return sum;
    });
  }
  return null;
}

/** With dots, every chord and every dot takes one beat; the last chord lasts to the end of the bar. */
function dotBar(meter: Meter, tokens: Token[]): Ticks[] | null {
  if (tokens.length > meter.beats.length) return null;
  const lengths = tokens.map((_, i) => nth(meter.beats, i).duration);
  add(lengths, lengths.length - 1, meter.bar - lengths.reduce((a, b) => a + b, 0));
  return lengths;
}

/**
 * Reads a chord line: bars between "|", "%" alone repeats the bar before, "." holds the chord one more beat, "N.C." is
 * no chord. What can be read is returned even when other places have problems.
 */
export function readLine(line: string, meter: Meter): ParsedLine {
  const result: ParsedLine = { chords: [], unread: [], bars: 0, problems: [] };
  if (line.length > LINE_LIMIT) {
    result.problems.push({
      code: "line.long",
      message: `The line has ${line.length} characters; ${LINE_LIMIT} are allowed.`,
      position: LINE_LIMIT + 1,
      hint: "Put the rest into another section.",
    });
    return result;
  }
  const bars = splitBars(line);
  if (!bars.length) {
    result.problems.push({
      code: "line.empty",
      message: "The line has no chord.",
      position: 1,
      hint: "Write bars between bar lines: | C | Am F |.",
    });
    return result;
  }
  bars.forEach((bar, index) => readBar(bar, index, meter, result));
  result.bars = bars.length;
  return result;
}

function readBar(bar: Bar, index: number, meter: Meter, result: ParsedLine): void {
  const barStart = index * meter.bar;
  const first = firstOf(bar.tokens);
  if (first.text === "%" && bar.tokens.length === 1) {
    repeatBar(first, barStart, meter, result);
    return;
  }
  const dotted = bar.tokens.some((t) => t.text === ".");
  const lengths = dotted ? dotBar(meter, bar.tokens) : shareBar(meter, bar.tokens.length);
  if (!lengths) {
    const room = dotted ? meter.beats.length : Math.floor(meter.bar / 120);
    const over = nth(bar.tokens, room);
    result.problems.push({
      code: "line.crowded",
      message:
        `Bar ${index + 1} has ${bar.tokens.length} ${dotted ? "beats" : "chords"}; a bar of ${meter.text} has ` +
        `room for ${room} (column ${over.column}).`,
      position: over.column,
      hint: "Put a bar line between them.",
    });
    result.unread.push({ start: barStart, duration: meter.bar });
    return;
  }
  let start = barStart;
  bar.tokens.forEach((token, i) => {
    const duration = nth(lengths, i);
    readToken(token, start, duration, result);
    start += duration;
  });
}

function repeatBar(token: Token, barStart: Ticks, meter: Meter, result: ParsedLine): void {
  const before = result.chords.filter((c) => c.start + c.duration > barStart - meter.bar && c.start < barStart);
  if (!before.length) {
    result.problems.push({
      code: "line.repeat",
      message: `"%" has no bar before it to repeat (column ${token.column}).`,
      position: token.column,
      hint: "Begin with a chord.",
    });
    result.unread.push({ start: barStart, duration: meter.bar });
    return;
  }
  for (const chord of before) {
    const start = Math.max(chord.start, barStart - meter.bar);
    const end = Math.min(chord.start + chord.duration, barStart);
    result.chords.push({ start: start + meter.bar, duration: end - start, symbol: chord.symbol });
  }
}

function readToken(token: Token, start: Ticks, duration: Ticks, result: ParsedLine): void {
  const last = result.chords.at(-1);
  const unread = result.unread.at(-1);
  if (token.text === ".") {
    if (unread && unread.start + unread.duration === start) unread.duration += duration;
    else if (last && last.start + last.duration === start) last.duration += duration;
    else {
      result.problems.push({
        code: "line.dot",
        message: `"." has no chord before it to hold (column ${token.column}).`,
        position: token.column,
        hint: "Begin with a chord.",
      });
      result.unread.push({ start, duration });
    }
    return;
  }
  if (/^n\.?c\.?$/i.test(token.text)) {
    result.chords.push({ start, duration, symbol: NO_CHORD });
    return;
  }
  const chord = parseChord(token.text);
  if (chord.ok) {
    result.chords.push({ start, duration, symbol: chordSymbol(chord.value) });
    return;
  }
  const position = token.column + (chord.error.position ?? 1) - 1;
  const hint = token.text === "%" ? "% stands alone in its bar; write . to hold a chord." : chord.error.hint;
  result.problems.push({
    ...chord.error,
    message: `${chord.error.message} (column ${position}).`,
    position,
    ...(hint ? { hint } : {}),
  });
  result.unread.push({ start, duration });
}

/** The line that reads back as these chords: the shortest spelling of every bar, repeats written as %. */
export function writeLine(chords: readonly LineChord[], meter: Meter, bars: number): string {
  const texts: string[] = [];
  for (let bar = 0; bar < bars; bar++) texts.push(barText(chords, meter, bar));
  const shown = texts.map((text, i) => (i > 0 && text === texts[i - 1] && !text.startsWith(".") ? "%" : text));
  return `| ${shown.join(" | ")} |`;
}

function barText(chords: readonly LineChord[], meter: Meter, bar: number): string {
  const from = bar * meter.bar;
  const inside = chords.filter((c) => c.start + c.duration > from && c.start < from + meter.bar);
  if (!inside.length) return NO_CHORD;
  const starts = inside.map((c) => Math.max(c.start, from));
  const cuts = [...starts, from + meter.bar];
  const lengths = starts.map((s, i) => nth(cuts, i + 1) - s);
  const held = firstOf(inside).start < from;
  const plain = shareBar(meter, inside.length);
  if (!held && plain?.every((length, i) => length === lengths[i])) return inside.map((c) => c.symbol).join(" ");
  const words: string[] = [];
  for (const beat of meter.beats) {
    const at = from + beat.start;
    const index = starts.indexOf(at);
    words.push(index < 0 || (index === 0 && held) ? "." : nth(inside, index).symbol);
  }
  // Dots at the end say nothing, but one dot must stay: it tells that every word is a beat.
  while (words.at(-1) === "." && words.indexOf(".") < words.length - 1) words.pop();
  return words.every((word) => word === ".") ? "." : words.join(" ");
}
