/** A number of things in words: "1 semitone", "2 semitones"; `many` where it is not made with an s. */
export const counted = (n: number, one: string, many = `${one}s`): string => `${n} ${n === 1 ? one : many}`;
