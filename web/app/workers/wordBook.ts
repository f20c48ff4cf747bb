import { sure, type Syllable, type WordBook, Words } from "../../../core/src/index";

/**
 * Languages whose words can be divided, by their hyphenation patterns; a stress is known for English alone, for others
 * it is a rule of thumb.
 */
export const LANGUAGES = [
  ["en-us", "English"],
  ["de", "German"],
  ["fr", "French"],
  ["es", "Spanish"],
  ["it", "Italian"],
  ["pt", "Portuguese"],
  ["nl", "Dutch"],
  ["la", "Latin"],
] as const;
export type Language = (typeof LANGUAGES)[number][0];

const STRESSED: Record<Language, WordBook["stressed"]> = {
  "en-us": "first",
  de: "first",
  nl: "first",
  fr: "last",
  es: "last but one",
  it: "last but one",
  pt: "last but one",
  la: "last but one",
};

interface Hyphenation {
  hyphenateSync(text: string, options: { hyphenChar: string; minWordLength: number }): string;
}

// Each language is a chunk of its own, loaded when it is first needed.
const PATTERNS: Record<Language, () => Promise<{ default: Hyphenation }>> = {
  "en-us": () => import("hyphen/en-us"),
  de: () => import("hyphen/de"),
  fr: () => import("hyphen/fr"),
  es: () => import("hyphen/es"),
  it: () => import("hyphen/it"),
  pt: () => import("hyphen/pt"),
  nl: () => import("hyphen/nl"),
  la: () => import("hyphen/la"),
};

const SOFT = "\u00ad";
const NO_LIGHT: ReadonlySet<string> = new Set();

/** What is known of the words of a language. */
export async function wordBook(language: Language): Promise<WordBook> {
  const { default: patterns } = await PATTERNS[language]();
  const sounds = language === "en-us" ? (await import("cmu-pronouncing-dictionary")).dictionary : null;
  return {
    hyphenate: (word) => patterns.hyphenateSync(word, { hyphenChar: SOFT, minWordLength: 3 }).split(SOFT),
    ...(sounds
      ? { spoken: (word: string) => (Object.hasOwn(sounds, word) ? Words.sounds(sure(sounds[word])) : undefined) }
      : {}),
    stressed: STRESSED[language],
    light: sounds ? Words.LIGHT_ENGLISH : NO_LIGHT,
  };
}

/** Lines of text as syllables; empty lines are left out. */
export const linesOf = (text: string, book: WordBook): Syllable[][] =>
  text
    .split("\n")
    .map((line) => Words.syllables(line, book))
    .filter((line) => line.length);
