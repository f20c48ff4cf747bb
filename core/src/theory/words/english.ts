/** A number of things in words: "1 semitone", "2 semitones"; `many` where it is not made with an s. */
export const counted = (n: number, one: string, many = `${one}s`): string => `${n} ${n === 1 ? one : many}`;

/** A thing with its article: "a third", "an octave". */
export const withArticle = (thing: string): string =>
  /^\d/.test(thing) ? thing : `${/^[aeiou]/i.test(thing) ? "an" : "a"} ${thing}`;

export const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** A name that is not taken yet: as it is, or with a number. */
export function freeName(taken: Iterable<string>, name: string): string {
  const names = new Set(taken);
  for (let n = 1; ; n++) {
    const free = n === 1 ? name : `${name} ${n}`;
    if (!names.has(free)) return free;
  }
}

/** A share as a whole number of percent. */
export const percent = (share: number): string => `${Math.round(share * 100)} %`;

/** Names in a row: "a", "a and b", "a, b and c". */
export const listed = (names: readonly string[]): string =>
  names.length < 2 ? (names[0] ?? "") : `${names.slice(0, -1).join(", ")} and ${names.at(-1)}`;

/** A title inside a sentence: "Trumpet in Bb" becomes "trumpet in Bb"; what is written in capitals stays. */
export const inSentence = (title: string): string =>
  /^[A-Z][A-Z0-9]/.test(title) ? title : title.charAt(0).toLowerCase() + title.slice(1);
