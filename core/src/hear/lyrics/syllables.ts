import { firstOf, nth, sure } from "../../base/list";

/** How weighty a syllable is spoken: 2 the main stress of a word, 1 a lesser one, 0 none. */
export type Stress = 0 | 1 | 2;

/** One syllable of a line of words. */
export interface Syllable {
  text: string;
  stress: Stress;
  /** The word goes on with the next syllable. */
  goesOn: boolean;
}

/**
 * A syllable as it is spoken: its stress, and whether its vowel is short, so that a consonant closes it (ev-er, but
 * o-ver).
 */
export interface SpokenSyllable {
  stress: Stress;
  short: boolean;
}

/**
 * What is known of the words of a language: where they may be hyphenated, and, where there is a dictionary, how they
 * are spoken.
 */
export interface WordBook {
  /** The parts of a word between its hyphens. */
  hyphenate(word: string): string[];
  /** Its syllables as it is spoken; absent where the word is not known. */
  spoken?(word: string): SpokenSyllable[] | undefined;
  /** Which syllable of an unknown word is stressed: the first, the last, or the last but one. */
  stressed: "first" | "last" | "last but one";
  /** Words of one syllable that are seldom stressed. */
  light: ReadonlySet<string>;
}

/** Groups of letters that are one vowel; a y after a consonant is one, a u after a q is none. */
const VOWELS = /(?:(?<!^)y|[aeiouáàâäãåæéèêëíìîïóòôöõøœúùûü])+/gi;
/** Consonants that begin a syllable together. */
const ONSET = /(?:[bcdfgkpt][rl]|[bcdfgkpt]?h|s[cklmnpqtw]|[cpstw]h|qu|gn|kn|wr)$/i;
/** Pairs of vowels that are often two syllables, and any pair at all. */
const HIATUS = [/[iy][aou]|u[aeo]|eo/i, /[aeiouyáéíóúäëïöü]{2}/i];

/**
 * Vowels that are spoken: a silent e at the end is none, but the e of -le after a consonant is, and so is one that is
 * alone.
 */
function nuclei(word: string, all = false): { from: number; to: number }[] {
  const found = [...word.replace(/qu/gi, "q_").matchAll(VOWELS)].map((m) => ({
    from: m.index,
    to: m.index + m[0].length,
  }));
  const last = found.at(-1);
  const silent =
    !all &&
    found.length > 1 &&
    last &&
    last.to - last.from === 1 &&
    (/[^aeiouy]e$/i.test(word)
      ? last.to === word.length && !/[^aeiouylr]le$/i.test(word)
      : /[^aeiouytd]ed$|[^aeiouysxzh]es$/i.test(word) && last.to === word.length - 1);
  return silent ? found.slice(0, -1) : found;
}

/**
 * Where a word without help is divided: before the last consonant between two vowels, or before a pair that begins a
 * syllable.
 */
const dividedByLetters = (word: string, all = false): string[] => dividedAt(word, nuclei(word, all));

/** A word divided between vowels. After a short one a single consonant closes the syllable. */
function dividedAt(
  word: string,
  vowels: readonly { from: number; to: number }[],
  spoken?: readonly SpokenSyllable[],
): string[] {
  const cuts = vowels.slice(1).map((next, i) => {
    const between = word.slice(nth(vowels, i).to, next.from);
    const onset = ONSET.exec(between)?.[0].length ?? Math.min(1, between.length);
    // An r belongs to the vowel it colors: ev-er-y.
    const closes =
      spoken?.[i]?.short && (nth(spoken, i).stress > 0 || /^r$/i.test(between)) && onset === between.length;
    return closes ? next.from : next.from - onset;
  });
  return cutAt(word, cuts);
}

/**
 * A word divided into as many syllables as are spoken, by its vowels; null where letters and sounds do not come out
 * even.
 */
function dividedAsSpoken(word: string, spoken: readonly SpokenSyllable[]): string[] | null {
  const vowels = nuclei(word);
  // An e in the middle is often not spoken: eve-ning, ev'-ry.
  while (vowels.length > spoken.length) {
    const mute = vowels.findLastIndex(
      (v, i) => i > 0 && i < vowels.length - 1 && /^e$/i.test(word.slice(v.from, v.to)),
    );
    if (mute < 0) return null;
    vowels.splice(mute, 1);
  }
  return vowels.length === spoken.length ? dividedAt(word, vowels, spoken) : null;
}

function cutAt(word: string, cuts: readonly number[]): string[] {
  const at = [0, ...cuts.filter((c) => c > 0 && c < word.length), word.length];
  return at.slice(1).flatMap((to, i) => (to > nth(at, i) ? [word.slice(at[i], to)] : []));
}

/**
 * Divides one piece once more: between its vowels, within a pair that can be two, before an m or n that is one by
 * itself. Null where it cannot be.
 */
function dividedAgain(piece: string): string[] | null {
  for (const all of [false, true]) {
    const byLetters = dividedByLetters(piece, all);
    if (byLetters.length > 1) return [firstOf(byLetters), byLetters.slice(1).join("")];
    // A last syllable of m or n after another consonant, as in prism: spoken without a letter for it.
    const alone = /(?:th|[^aeiouy])[mn]$/i.exec(piece);
    const pair = HIATUS.map((h) => h.exec(piece)).find((m) => m);
    if (pair) return cutAt(piece, [pair.index + 1]);
    if (alone && alone.index > 0 && nuclei(piece).length) return cutAt(piece, [alone.index]);
  }
  return null;
}

/**
 * Brings pieces of a word to a number: the longest that can be is divided, the one with no vowel of its own joins its
 * neighbor.
 */
function broughtTo(pieces: readonly string[], count: number): string[] {
  let out = [...pieces];
  while (out.length < count) {
    const order = out
      .map((p, i) => ({ i, p }))
      .sort((a, b) => nuclei(b.p).length - nuclei(a.p).length || b.p.length - a.p.length);
    const found = order.map(({ i, p }) => ({ i, parts: dividedAgain(p) })).find((x) => x.parts !== null);
    if (!found) break;
    out = [...out.slice(0, found.i), ...sure(found.parts), ...out.slice(found.i + 1)];
  }
  while (out.length > count && out.length > 1) {
    const weakest = out.reduce(
      (best, p, i) => (nuclei(p).length < nuclei(nth(out, best)).length ? i : best),
      out.length - 1,
    );
    const to = weakest === 0 ? 1 : weakest - 1;
    const [a, b] = [Math.min(weakest, to), Math.max(weakest, to)];
    out = [...out.slice(0, a), nth(out, a) + nth(out, b), ...out.slice(b + 1)];
  }
  return out;
}

const letters = (word: string): string => word.toLowerCase().replace(/[^\p{L}']/gu, "");

/** The syllables of one word as it is written, marks and all. Hyphens that are typed in it decide. */
export function syllablesOfWord(word: string, book: WordBook): Syllable[] {
  const typed = word.split(/-+/).filter((x) => x);
  const core = letters(word);
  const spoken = book.spoken?.(core);
  const pieces = typed.length > 1 ? typed : dividedWord(word, book, spoken);
  const stresses = spoken?.length === pieces.length ? spoken.map((s) => s.stress) : byRule(pieces.length, book);
  const light = pieces.length === 1 && book.light.has(core);
  return pieces.map((text, i) => ({ text, stress: light ? 0 : nth(stresses, i), goesOn: i < pieces.length - 1 }));
}

function dividedWord(word: string, book: WordBook, spoken: readonly SpokenSyllable[] | undefined): string[] {
  // Marks before and after stay with the first and the last syllable.
  const inside = /[\p{L}][\p{L}'’]*/u.exec(word);
  if (!inside) return [word];
  const bare = inside[0];
  const byBook = book.hyphenate(bare);
  const byLetters = dividedByLetters(bare).length;
  const bySound = spoken && byBook.length < spoken.length ? dividedAsSpoken(bare, spoken) : null;
  const pieces = bySound ?? broughtTo(byBook, spoken?.length ?? Math.max(byBook.length, byLetters));
  pieces[0] = word.slice(0, inside.index) + firstOf(pieces);
  pieces[pieces.length - 1] += word.slice(inside.index + bare.length);
  return pieces;
}

const byRule = (count: number, { stressed }: WordBook): Stress[] => {
  let at: number;
  if (stressed === "first") at = 0;
  else if (stressed === "last") at = count - 1;
  else at = Math.max(0, count - 2);
  return Array.from({ length: count }, (_, i) => (i === at ? 2 : 0));
};

/**
 * The syllables of a line of words: words apart by spaces, syllables that are typed apart by hyphens. A line that is
 * empty has none.
 */
export const syllablesOf = (line: string, book: WordBook): Syllable[] =>
  line
    .split(/\s+/)
    .filter((w) => /[\p{L}\p{N}]/u.test(w))
    .flatMap((w) => syllablesOfWord(w, book));

/**
 * The syllables of a word in phonemes, with stress numbers after the vowels ("AO1 R CH ER0 D": the CMU Pronouncing
 * Dictionary).
 */
export const soundsOf = (sounds: string): SpokenSyllable[] =>
  [...sounds.matchAll(/([A-Z]+)(\d)/g)].map(([, vowel, d]) => {
    const stressOf = () => {
      if (d === "1") return 2;
      if (d === "2") return 1;
      return 0;
    };
    return {
      stress: stressOf(),
      short: ["AE", "AH", "EH", "IH", "UH", "AA", "ER"].includes(sure(vowel)),
    };
  });

/** English words of one syllable that seldom carry a stress (common practice). */
export const LIGHT_ENGLISH: ReadonlySet<string> = new Set(
  (
    "a an the of to in on at by for from with as and or but nor so if than that is am are was were be been do " +
    "does did has have had can could will would shall should may might must i me my we us our you your he him " +
    "his she her it its they them their this there who what when where how not no"
  ).split(" "),
);
