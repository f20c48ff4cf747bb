import { nth, sure } from "../../base/list";
import type { Ticks } from "../../theory/time/meter";
import type { RealizedNote } from "../../song/realize";
import { HELD } from "../../hear/lyrics/words";

export type Dynamic = "ppp" | "pp" | "p" | "mp" | "mf" | "f" | "ff" | "fff";

/** Loudness signs by the velocity they stand for (usual values of notation programs; common practice). */
const LEVELS: readonly [Dynamic, number][] = [
  ["ppp", 16],
  ["pp", 33],
  ["p", 49],
  ["mp", 64],
  ["mf", 80],
  ["f", 96],
  ["ff", 112],
  ["fff", 127],
];
/** So far from what was said a bar is another step; nearer it is an accent or a hand that breathes. */
const STEP = 13;
/** Further from the middle than this, the loudness is said even where it never changes. */
const PLAIN = 24;
const MIDDLE = 80;

const nearest = (velocity: number) =>
  LEVELS.reduce((best, level) => (Math.abs(level[1] - velocity) < Math.abs(best[1] - velocity) ? level : best));

/**
 * Where the loudness of a part steps, from the velocities struck in each bar: what is said in each, null where nothing
 * is. In the bars of `anew`, where something begins that is read by itself, it is said again. Loudness that never
 * steps, and is none to speak of, goes without saying.
 */
export function dynamicSigns(bars: readonly (readonly number[])[], anew: ReadonlySet<number>): (Dynamic | null)[] {
  let now: (typeof LEVELS)[number] | null = null;
  let again = false;
  let steps = 0;
  let far = false;
  const out = bars.map((velocities, k): Dynamic | null => {
    again ||= anew.has(k);
    if (!velocities.length) return null;
    const middle = nth(
      [...velocities].sort((a, b) => a - b),
      velocities.length >> 1,
    );
    const level = nearest(middle);
    far ||= Math.abs(middle - MIDDLE) > PLAIN;
    const step = !now || (Math.abs(middle - now[1]) >= STEP && level !== now);
    if (!step && !again) return null;
    if (step) {
      now = level;
      steps++;
    }
    again = false;
    return sure(now)[0];
  });
  return steps > 1 || far ? out : out.map(() => null);
}

/** A syllable under a note. */
export interface SungSyllable {
  text: string;
  /** Its word goes on under the next one; it goes on with a word. */
  goesOn: boolean;
  joins: boolean;
  /** It is held to the note or tie that begins there. */
  until: Ticks | null;
}

/** Syllables by the note they begin under, verse by verse; notes that hold a syllable lengthen it. */
export function wordsOf(notes: readonly RealizedNote[]): Map<RealizedNote, (SungSyllable | null)[]> {
  const out = new Map<RealizedNote, (SungSyllable | null)[]>();
  const last: (SungSyllable | undefined)[] = [];
  for (const note of [...notes].sort((a, b) => a.start - b.start)) {
    const lyrics = note.lyrics ?? (note.lyric === undefined ? [] : [note.lyric]);
    const own = lyrics.map((text, verse): SungSyllable | null => {
      if (text === HELD && last[verse]) last[verse].until = note.start;
      if (!text || text === HELD) return null;
      const goesOn = text.endsWith("-");
      const syllable = { text: text.replace(/-$/, ""), goesOn, joins: last[verse]?.goesOn ?? false, until: null };
      last[verse] = syllable;
      return syllable;
    });
    if (own.some((s) => s)) out.set(note, own);
  }
  return out;
}
