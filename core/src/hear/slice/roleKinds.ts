/**
 * How a note stands to the chord of the moment; non-chord tones are defined by how they are approached and left (any
 * harmony textbook).
 */
export type RoleKind =
  | "chord"
  | "tension"
  | "passing"
  | "neighbor"
  | "suspension"
  | "retardation"
  | "appoggiatura"
  | "escape"
  | "cambiata"
  | "anticipation"
  | "approach"
  | "pedal"
  | "outside"
  | "free";

/** Signs of the non-chord tones, as they are written in a note. */
export const SIGNS: Partial<Record<RoleKind, string>> = {
  passing: "p",
  neighbor: "n",
  suspension: "s",
  retardation: "r",
  appoggiatura: "app",
  escape: "e",
  cambiata: "c",
  anticipation: "an",
  approach: "ap",
  pedal: "ped",
  outside: "×",
};

export const KIND_WORDS: Record<RoleKind, string> = {
  chord: "chord tone",
  tension: "tension",
  passing: "passing tone",
  neighbor: "neighbor tone",
  suspension: "suspension",
  retardation: "retardation",
  appoggiatura: "appoggiatura",
  escape: "escape tone",
  cambiata: "cambiata",
  anticipation: "anticipation",
  approach: "approach note",
  pedal: "pedal",
  outside: "outside the chord",
  free: "no chord here",
};

/** Interval names in the order of semitones above the root, spoken in messages. */
export const ROLE_WORDS: Record<string, string> = {
  R: "root",
  b9: "flat ninth",
  "9": "ninth",
  "#9": "sharp ninth",
  b3: "minor third",
  "3": "major third",
  "2": "second",
  "4": "fourth",
  "11": "eleventh",
  "#11": "sharp eleventh",
  b5: "flat fifth",
  "5": "fifth",
  "#5": "sharp fifth",
  b13: "flat thirteenth",
  "6": "sixth",
  "13": "thirteenth",
  bb7: "diminished seventh",
  b7: "minor seventh",
  "7": "major seventh",
};
