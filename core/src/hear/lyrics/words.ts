import { nth } from "../../base/list";
import type { Note } from "../../song/schema";
import type { Syllable } from "./syllables";

/** How a syllable stands in a note: with a hyphen where its word goes on, "_" where the one before is held. */
export const HELD = "_";
export const writtenSyllable = ({ text, goesOn }: Pick<Syllable, "text" | "goesOn">): string =>
  goesOn ? `${text}-` : text;

/**
 * What is typed under notes: words apart by spaces, syllables by hyphens, an underline for a note that holds the one
 * before.
 */
export function typedSyllables(text: string): string[] {
  return text
    .split(/\s+/)
    .filter((w) => w)
    .flatMap((word) => {
      // An underline behind a word holds it once more for each.
      const held = /_+$/.exec(word)?.[0].length ?? 0;
      const parts = word
        .slice(0, word.length - held)
        .split(/-+/)
        .filter((x) => x);
      return [
        ...parts.map((p, i) => (i < parts.length - 1 || word.endsWith("-") ? `${p}-` : p)),
        ...Array.from({ length: held }, () => HELD),
      ];
    });
}

export interface LaidWords {
  notes: { id: string; lyrics: string[] | null }[];
  /** Syllables for which no note is left. */
  left: string[];
}

/** Lyrics of a note with one verse changed; null where nothing is left. */
function withVerse(lyrics: readonly string[] | undefined, verse: number, text: string): string[] | null {
  const all = Array.from({ length: Math.max(lyrics?.length ?? 0, verse + 1) }, (_, i) =>
    i === verse ? text : (lyrics?.[i] ?? ""),
  );
  while (all.length && !all.at(-1)) all.pop();
  return all.length ? all : null;
}

/** The line of notes that words go under: of notes struck together the highest. */
export const sungNotes = (notes: readonly Note[]): Note[] => notes.filter((n, i) => notes[i + 1]?.start !== n.start);

/**
 * Lays syllables under the notes of a part from one note on, one verse of them; notes behind them keep what they have.
 */
export function layWords(
  notes: readonly Note[],
  syllables: readonly string[],
  { from = 0, verse = 0 }: { from?: number; verse?: number } = {},
): LaidWords {
  const line = sungNotes(notes).slice(from);
  const laid = line
    .slice(0, syllables.length)
    .map((n, i) => ({ id: n.id, lyrics: withVerse(n.lyrics, verse, nth(syllables, i)) }));
  return { notes: laid, left: syllables.slice(line.length) };
}

/** One note's syllable in a verse; an empty text takes it away. */
export const layOne = (note: Note, text: string, verse = 0): LaidWords["notes"][number] => ({
  id: note.id,
  lyrics: withVerse(note.lyrics, verse, text),
});

/** A verse as text, as it could be typed. */
export function wordsText(notes: readonly Note[], verse = 0): string {
  return sungNotes(notes)
    .map((n) => n.lyrics?.[verse] ?? "")
    .filter((x) => x)
    .reduce((text, s) => {
      if (s === HELD) return `${text}_`;
      if (!text || text.endsWith("-")) return text + s;
      return `${text} ${s}`;
    }, "");
}

/** Number of verses that the notes of a part have. */
export const versesOf = (notes: readonly Note[]): number => Math.max(0, ...notes.map((n) => n.lyrics?.length ?? 0));
