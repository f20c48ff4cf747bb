import { nth } from "../../base/list";
import { fail, ok, type Result } from "../../base/result";
import { mod, parseNote, parsePitch, pitchMidi, type Midi, type PitchName } from "../../theory/pitch/pitch";
import { beatsText, type Meter, type Ticks } from "../../theory/time/meter";
import type { NewNote } from "../../song/schema";

/** Lengths by their first letters: whole, half, quarter, eighth, sixteenth, thirty-second. */
const LENGTHS = { w: 1920, h: 960, q: 480, e: 240, s: 120, t: 60 } as const;
const HINT =
  "Write a note and its length: E4 q, then F4 e. w h q e s t are whole to thirty-second, a dot lengthens, 3 " +
  "makes a triplet, r rests, _ holds on, | is a bar line.";

interface Token {
  text: string;
  at: number;
}

const tokensOf = (text: string): Token[] => [...text.matchAll(/\||[^\s|]+/g)].map((m) => ({ text: m[0], at: m.index }));

/** A length: "q", "h.", "e3" for the eighth of a triplet. Null where it is none. */
function lengthOf(text: string): Ticks | null {
  const match = /^([whqest])(\.{0,2})(3?)$/.exec(text);
  if (!match) return null;
  const base = LENGTHS[match[1] as keyof typeof LENGTHS];
  let dotted: number;
  if (match[2] === "") dotted = base;
  else if (match[2] === ".") dotted = base * 1.5;
  else dotted = base * 1.75;
  const ticks = match[3] ? (dotted * 2) / 3 : dotted;
  return Number.isInteger(ticks) ? ticks : null;
}

/** The pitch of a note that is typed without its octave: the one nearest to the note before. */
function nearest(name: string, near: Midi): PitchName | null {
  const options = Array.from({ length: 11 }, (_, o) => `${name}${o - 1}`).filter((p) => parsePitch(p).ok);
  return options.sort((a, b) => Math.abs(pitchMidi(a) - near) - Math.abs(pitchMidi(b) - near))[0] ?? null;
}

const plainSigns = (text: string): string => text.replace(/♯/g, "#").replace(/♭/g, "b");

/** How far a tune has been read. */
interface Reading {
  meter: Meter;
  from: Ticks;
  notes: NewNote[];
  at: Ticks;
  /** The pitch of the note before: one without an octave lies near it. */
  last: Midi;
  length: Ticks;
  /** A bar line has been read. */
  barred: boolean;
}

const wrong = (code: string, token: Token, message: string) =>
  fail(code, message, { position: token.at + 1, hint: HINT });

/**
 * A bar line: what stands before the first one and is shorter than a bar is a pickup; one at the very beginning says
 * nothing.
 */
function readBarLine(reading: Reading, token: Token): Result<null> {
  const { meter, from, notes, barred } = reading;
  const off = mod(reading.at - from, meter.bar);
  reading.barred = true;
  if (!off) return ok(null);
  if (barred)
    return wrong(
      "tune.bar",
      token,
      `The bar before this bar line has ${beatsText(meter, off)}; a bar of ${meter.text} has ` +
        `${beatsText(meter, meter.bar)}`,
    );
  for (const n of notes) n.start -= off;
  reading.at -= off;
  return ok(null);
}

/** The note before, held for one more length. */
function holdOn({ notes, at, length }: Reading, token: Token): Result<null> {
  const held = notes.at(-1);
  if (held?.start === undefined || held.start + held.duration !== at)
    return wrong("tune.hold", token, "There is no note here that could be held on");
  held.duration += length;
  return ok(null);
}

/** The pitch that is typed; without its octave the nearest to the note before. */
function pitchTyped(word: string, last: Midi): PitchName | null {
  const name = word.charAt(0).toUpperCase() + word.slice(1);
  if (/\d$/.test(name)) return name;
  return parseNote(name) ? nearest(name, last) : null;
}

function readNote(reading: Reading, token: Token): Result<null> {
  const pitch = pitchTyped(plainSigns(token.text), reading.last);
  const parsed = pitch === null ? null : parsePitch(pitch);
  if (!parsed?.ok || pitch === null) return wrong("tune.token", token, `"${token.text}" is not a note of the keyboard`);
  reading.last = parsed.value;
  reading.notes.push({ start: reading.at, duration: reading.length, pitch, velocity: 90 });
  return ok(null);
}

/** What a word of a typed tune is; null where it is none of these. A lone "e" at the beginning is a note. */
function kindOf(word: string, first: boolean): "note" | "rest" | "held" | null {
  if (word === "_") return "held";
  if (/^(r|rest)$/i.test(word)) return "rest";
  const isLength = lengthOf(word) !== null && !first && word === word.toLowerCase();
  return /^[A-Ga-g][#b]{0,2}(-?\d+)?$/.test(word) && !isLength ? "note" : null;
}

/**
 * Reads a tune that is typed: "E4 q F e G e | A h r q". A length holds for what follows; a note without an octave is
 * the nearest to the one before; "_" holds the note before for one more length; bar lines are checked, and what stands
 * before the first one and is short is a pickup. Errors: `tune.token`, `tune.bar`, `tune.hold`, with their column.
 */
export function parseTune(
  text: string,
  { meter, near = 67, from = 0 }: { meter: Meter; near?: Midi; from?: Ticks },
): Result<NewNote[]> {
  const tokens = tokensOf(text);
  const reading: Reading = { meter, from, notes: [], at: from, last: near, length: LENGTHS.q, barred: false };
  for (let i = 0; i < tokens.length; i++) {
    const token = nth(tokens, i);
    if (token.text === "|") {
      const read = readBarLine(reading, token);
      if (!read.ok) return read;
      continue;
    }
    const kind = kindOf(plainSigns(token.text), i === 0);
    if (!kind) return wrong("tune.token", token, `"${token.text}" is neither a note nor a length`);
    const length = lengthOf(tokens[i + 1]?.text ?? "");
    if (length) {
      reading.length = length;
      i++;
    }
    const READ = { held: holdOn, note: readNote, rest: () => ok(null) };
    const read = READ[kind](reading, token);
    if (!read.ok) return read;
    reading.at += reading.length;
  }
  return ok(reading.notes);
}

/** Lengths that can be written, longest first, with what each costs: triplets are the last resort. */
const WRITABLE: readonly { ticks: Ticks; text: string; cost: number }[] = Object.entries(LENGTHS)
  .flatMap(([letter, base]) => [
    { ticks: base, text: letter, cost: 1 },
    { ticks: base * 1.5, text: `${letter}.`, cost: 1.01 },
    { ticks: (base * 2) / 3, text: `${letter}3`, cost: 1.5 },
  ])
  .filter(({ ticks }) => Number.isInteger(ticks) && ticks >= 40)
  .sort((a, b) => b.ticks - a.ticks);

/** All places where a written length can end. */
const FINEST: Ticks = 20;
const best = new Map<Ticks, string[] | null>([[0, []]]);
const weight = new Map<Ticks, number>([[0, 0]]);

/** The fewest lengths that last so many ticks, longest first; null where none do. */
function fewestFor(ticks: Ticks): string[] | null {
  if (ticks % FINEST) return null;
  for (let t = FINEST; t <= ticks; t += FINEST) {
    if (best.has(t)) continue;
    let [found, cost]: [string[] | null, number] = [null, Infinity];
    for (const w of WRITABLE) {
      const rest = best.get(t - w.ticks);
      const sum = (weight.get(t - w.ticks) ?? Infinity) + w.cost;
      if (rest && sum < cost - 1e-9) [found, cost] = [[w.text, ...rest], sum];
    }
    best.set(t, found);
    weight.set(t, cost);
  }
  return best.get(ticks) ?? null;
}

/** A stretch as lengths, cut at bar lines; null where it cannot be written. */
function lengthsFor(from: Ticks, to: Ticks, bar: Ticks): { text: string; bar: boolean }[] | null {
  const out: { text: string; bar: boolean }[] = [];
  for (let at = from; at < to;) {
    const edge = Math.min(to, (Math.floor(at / bar) + 1) * bar);
    const texts = fewestFor(edge - at);
    if (!texts) return null;
    texts.forEach((text, i) => out.push({ text, bar: i === texts.length - 1 && edge < to }));
    at = edge;
  }
  return out;
}

/**
 * A tune as it could be typed; null where two notes sound at once, or one has a place or length that cannot be written.
 */
export function tuneText(
  notes: readonly { start: Ticks; duration: Ticks; pitch: PitchName }[],
  meter: Meter,
): string | null {
  const words: string[] = [];
  let [at, length] = [Math.min(0, notes[0]?.start ?? 0), ""];
  const put = (what: string, from: Ticks, to: Ticks): boolean => {
    const parts = lengthsFor(from, to, meter.bar);
    if (!parts) return false;
    parts.forEach((part, i) => {
      const again = () => {
        if (i === 0) return what;
        if (what === "r") return "r";
        return "_";
      };
      words.push(again());
      if (part.text !== length) words.push((length = part.text));
      if (part.bar) words.push("|");
    });
    return true;
  };
  for (const [i, note] of notes.entries()) {
    if (note.start < at) return null;
    if (note.start > at && !put("r", at, note.start)) return null;
    if ((note.start > 0 || words.length) && note.start % meter.bar === 0 && words.at(-1) !== "|") words.push("|");
    const end = note.start + note.duration;
    if (end > (notes[i + 1]?.start ?? Infinity)) return null;
    if (!put(note.pitch, note.start, end)) return null;
    at = end;
  }
  return words.join(" ");
}
