/** A number of things in words: "1 semitone", "2 semitones"; `many` where it is not made with an s. */
export const counted = (n: number, one: string, many = `${one}s`): string => `${n} ${n === 1 ? one : many}`;

/** A thing with its article: "a third", "an octave". */
export const withArticle = (thing: string): string => (/^\d/.test(thing) ? thing : `${/^[aeiou]/i.test(thing) ? "an" : "a"} ${thing}`);
