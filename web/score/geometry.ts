import { Chord, firstOf, Key, type Midi, nth, Pitch, type RealizedChord, type Ticks } from "../../core/src/index";
import type { Snap } from "../app/store/preferences";

/** Lowest and highest pitch a lane shows: its notes with some room, at least `least` semitones. */
export function laneRange(midis: readonly Midi[], fallback: readonly [Midi, Midi], least = 17): [Midi, Midi] {
  let low = midis.length ? Math.min(...midis) - 3 : fallback[0];
  let high = midis.length ? Math.max(...midis) + 3 : fallback[1];
  while (high - low < least) {
    high++;
    if (high - low < least) low--;
  }
  return [low, high];
}

/**
 * Sideways shift for note heads that would overlap: heads a second apart (or closer than their diameter) at one start
 * are set aside in turn.
 */
export function setAside(heads: readonly { start: Ticks; y: number }[], diameter: number): number[] {
  const shift = heads.map(() => 0);
  const order = heads
    .map((_, i) => i)
    .sort((a, b) => nth(heads, a).start - nth(heads, b).start || nth(heads, b).y - nth(heads, a).y);
  for (let k = 0; k < order.length; k++) {
    const taken = new Set<number>();
    for (let j = k - 1; j >= 0 && nth(heads, nth(order, j)).start === nth(heads, nth(order, k)).start; j--)
      if (Math.abs(nth(heads, nth(order, j)).y - nth(heads, nth(order, k)).y) < diameter)
        taken.add(nth(shift, nth(order, j)));
    let aside = nth(shift, nth(order, k));
    while (taken.has(aside)) aside++;
    shift[nth(order, k)] = aside;
  }
  return shift;
}

/** Nearest pitch the snap mode allows; where there is no chord, the scale counts. */
export function snapPitch(midi: number, snap: Snap, chord: RealizedChord | null, key: Key): Midi {
  let allowed: number[] | null;
  if (snap === "semitone") allowed = null;
  else if (snap === "chord" && chord?.chord) allowed = Chord.pitchClasses(chord.chord);
  else allowed = key.pcs;
  const center = Math.round(midi);
  if (!allowed) return center;
  for (let d = 0; d < 12; d++)
    for (const m of midi >= center ? [center + d, center - d] : [center - d, center + d])
      if (allowed.includes(Pitch.mod(m, 12))) return m;
  return center;
}

/** One step up or down in the snap mode. */
export function stepPitch(
  midi: Midi,
  direction: 1 | -1,
  snap: Snap,
  { chord, key }: { chord: RealizedChord | null; key: Key },
): Midi {
  if (snap === "semitone") return midi + direction;
  if (snap === "scale" || !chord?.chord) return Key.step(midi, direction, key);
  const pcs = Chord.pitchClasses(chord.chord);
  let next = midi + direction;
  while (!pcs.includes(Pitch.mod(next, 12))) next += direction;
  return next;
}

export const snapTick = (tick: number, grid: Ticks): Ticks => Math.round(tick / grid) * grid;
export const floorTick = (tick: number, grid: Ticks): Ticks => Math.floor(tick / grid) * grid;

/**
 * Words under notes on two lines: a word that would touch the one before it goes to the other line. `x` in pixels;
 * widths are estimated.
 */
export function lyricLines(words: readonly { x: number; text: string }[], charWidth = 7.4, space = 5): (0 | 1)[] {
  const ends = [-Infinity, -Infinity];
  return words.map(({ x, text }) => {
    let line: 1 | 0;
    if (x >= firstOf(ends)) line = 0;
    else if (x >= nth(ends, 1)) line = 1;
    else if (firstOf(ends) <= nth(ends, 1)) line = 0;
    else line = 1;
    ends[line] = x + text.length * charWidth + space;
    return line;
  });
}

/** Sizes of a chord symbol in pixels, and how far it may be condensed. */
const [LARGEST, SMALLEST, NARROWEST] = [22, 12, 0.6];

/** Width of a symbol in ems: root, raised quality, bass after the slash. */
function emsOf(symbol: string): number {
  const slash = /\/[A-G](bb|b|##|x|#)?$/.exec(symbol)?.[0].length ?? 0;
  return 0.75 + 0.4 * (symbol.length - 1 - slash) + 0.55 * slash;
}

/** Whether a symbol can be read in the width of its chord at all; where not, it is shown when one comes to it. */
export const symbolFits = (symbol: string, width: number): boolean =>
  (width - 6) / (emsOf(symbol) * SMALLEST) >= NARROWEST;

/**
 * Style in which a symbol fits the width of its chord: smaller, then narrower; it is never cut to the name of another
 * chord.
 */
export function symbolSize(symbol: string, width: number): { fontSize: number; transform?: string } {
  const ems = emsOf(symbol);
  const fontSize = Math.max(SMALLEST, Math.min(LARGEST, (width - 10) / ems));
  const share = (width - 6) / (ems * fontSize);
  return share >= 1 ? { fontSize } : { fontSize, transform: `scaleX(${Math.max(NARROWEST, share).toFixed(2)})` };
}
