import {
  chordOf,
  chordPitchClasses,
  instrumentOf,
  layWords,
  LIGHT_ENGLISH,
  midiRange,
  rhythmOfWords,
  sectionMeter,
  spellAt,
  stressesIn,
  syllablesOf,
  writtenSyllable,
  type Edit,
  type NewNote,
  type Part,
  type Section,
  type Song,
  type Syllable,
  type WordBook,
} from "../../core/src/index";

/** Languages whose words can be divided, by their hyphenation patterns; a stress is known for English alone, for others it is a rule of thumb. */
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
    ...(sounds ? { spoken: (word: string) => (Object.hasOwn(sounds, word) ? stressesIn(sounds[word]!) : undefined) } : {}),
    stressed: STRESSED[language],
    light: sounds ? LIGHT_ENGLISH : NO_LIGHT,
  };
}

/** Lines of text as syllables; empty lines are left out. */
export const linesOf = (text: string, book: WordBook): Syllable[][] =>
  text
    .split("\n")
    .map((line) => syllablesOf(line, book))
    .filter((line) => line.length);

/** The edit that lays syllables under the notes of a part, and what found no note. */
export function layEdit(
  section: Section,
  part: string,
  syllables: readonly string[],
  from: number,
  verse: number,
): { edit: Edit; left: string[] } {
  const { notes, left } = layWords(section.notes[part] ?? [], syllables, { from, verse });
  return { edit: { do: "changeNotes", section: section.id, part, notes }, left };
}

/**
 * Notes for words that have none yet: the rhythm that is proposed for them, on the tone of each chord that lies nearest to the middle of the voice.
 */
export function proposedNotes(
  song: Song,
  section: Section,
  part: Part,
  lines: readonly (readonly Syllable[])[],
  verse: number,
): { notes: NewNote[]; left: number } {
  const meter = sectionMeter(song, section);
  const { placed, left } = rhythmOfWords(lines, meter, section.bars);
  const [low, high] = midiRange(part.range ?? instrumentOf(part.instrument, song).comfortable);
  let near = Math.round((low + high) / 2);
  const notes = placed.map((p): NewNote => {
    const chord = chordOf(section.chords.findLast((c) => c.start <= p.start && p.start < c.start + c.duration)?.symbol ?? "");
    const pcs = chord ? chordPitchClasses(chord) : null;
    const midi = pcs
      ? ([0, -1, 1, -2, 2, -3, 3, -4, 4].map((d) => near + d).find((m) => pcs.includes(((m % 12) + 12) % 12) && m >= low && m <= high) ??
        near)
      : near;
    near = midi;
    return {
      start: p.start,
      duration: p.duration,
      pitch: spellAt(song, section, p.start, midi),
      velocity: p.stress ? 92 : 80,
      lyrics: [...Array.from({ length: verse }, () => ""), writtenSyllable(p)],
    };
  });
  return { notes, left };
}
