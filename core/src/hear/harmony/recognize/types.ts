import type { HarmonicFunction, Progression } from "../context";

export const CATEGORIES = {
  diatonic: "in the key",
  suspension: "suspension that resolves",
  "applied-dominant": "applied dominant",
  "applied-diminished": "applied diminished",
  "applied-two": "ii–V of another degree",
  "tritone-substitute": "tritone substitute",
  backdoor: "backdoor dominant",
  borrowed: "borrowed chord",
  "raised-sixth": "raised sixth of minor",
  "altered-dominant": "altered dominant",
  blues: "blues",
  cadential: "cadential six-four",
  picardy: "Picardy third",
  neapolitan: "Neapolitan",
  "chromatic-mediant": "chromatic mediant",
  "common-tone-diminished": "common-tone diminished",
  "passing-diminished": "passing diminished",
  "rootless-dominant": "dominant without its root",
  "dominant-two": "dominant on II",
  "line-cliche": "line cliché",
  pedal: "pedal",
  "sliding-two-five": "sliding ii–V",
  planing: "planing",
  "third-cycle": "cycle of thirds",
  "augmented-sixth": "augmented sixth family",
  chromatic: "outside the key",
} as const;

export type Category = keyof typeof CATEGORIES;

/** Categories of chords that are at home in the key, whatever notes outside its scale they bring. */
export const AT_HOME: ReadonlySet<Category | "none"> = new Set<Category>([
  "diatonic",
  "suspension",
  "raised-sixth",
  "altered-dominant",
  "blues",
  "cadential",
]);

export interface Recognized {
  function?: HarmonicFunction;
  /** One or two plain sentences with the actual note names. */
  explanation: string;
}

/** Recognizes one thing a chord can be. The first that matches names the chord; others are mentioned beside it. */
export interface Recognizer {
  id: Category;
  title: string;
  /** What it is, in one paragraph. */
  explanation: string;
  source: string;
  find(p: Progression, index: number): Recognized | null;
}
