import type { NoteName } from "../pitch/pitch";
import { tone, type Chord, type ChordTone } from "./chord";
import { build, quality, SEVENTHS, stackedOf, type Draft } from "./draft";

type Plain = Pick<ChordTone, "degree" | "alter">;

/** A set of tones, asked for degrees. */
const degreesOf = (tones: readonly Plain[]) => ({
  has: (degree: number, alter = 0) => tones.some((t) => t.degree === degree && t.alter === alter),
  of: (degree: number) => tones.filter((t) => t.degree === degree),
});

const thirdOf = ({ has }: ReturnType<typeof degreesOf>): Draft["third"] => {
  if (has(3, -1)) return "minor";
  return has(3) ? "major" : "none";
};

const fifthOf = ({ has }: ReturnType<typeof degreesOf>): Draft["fifth"] => {
  if (has(5)) return 0;
  if (has(5, -1)) return -1;
  return has(5, 1) ? 1 : 0;
};

/** How far the tones are stacked on a seventh without a gap that the symbol would hide. */
function extensionOf({ has, of }: ReturnType<typeof degreesOf>, { third, sus }: Draft): Draft["extension"] {
  const ninth = has(9) || (of(9).length > 0 && (has(11) || has(13)));
  if (!ninth) return 0;
  if (has(13) && (has(11) || third !== "minor")) return 13;
  return has(11) && !sus.length ? 11 : 9;
}

/** Tones from the ninth on that are not stacked: altered where there is a seventh, added otherwise. */
function placeTensions(draft: Draft, tones: readonly Plain[]): void {
  const stacked = stackedOf(draft);
  for (const { degree, alter } of tones) {
    if (degree < 9 || (alter === 0 && stacked[degree as 9 | 11 | 13])) continue;
    (alter !== 0 && draft.seventh !== "none" ? draft.altered : draft.added).push(tone(degree, alter));
  }
}

/** What the symbol must say is left out: a third under more than a fifth, and the fifth. */
function nameMissing(draft: Draft, tones: readonly Plain[]): void {
  if (draft.third === "none" && (draft.sus.length || tones.some((t) => t.degree > 5))) {
    draft.third = "major";
    if (!draft.sus.length) draft.omitted.push(3);
  }
  if (!tones.some((t) => t.degree === 5)) draft.omitted.push(5);
}

/**
 * The chord with these tones over a root, named canonically. Ninths, elevenths and thirteenths are stacked on a seventh
 * where they can be and added otherwise. Needs a root and one more tone.
 */
export function chordOfTones(root: NoteName, tones: readonly Plain[], bass?: NoteName): Chord {
  const degrees = degreesOf(tones);
  const { has, of } = degrees;
  // A sixth over a diminished triad is its diminished seventh.
  const asSeventh = has(6) && has(3, -1) && has(5, -1) && !of(7).length;
  const seventh = asSeventh ? { degree: 7, alter: -1 } : of(7)[0];
  const draft: Draft = {
    third: thirdOf(degrees),
    fifth: fifthOf(degrees),
    seventh: seventh ? (SEVENTHS[seventh.alter] ?? "diminished") : "none",
    extension: 0,
    sus: ([2, 4] as const).filter((d) => has(d)),
    sixth: has(6) && !asSeventh,
    added: [],
    altered: [],
    omitted: [],
  };
  if (seventh && draft.seventh !== "diminished") draft.extension = extensionOf(degrees, draft);
  placeTensions(draft, tones);
  nameMissing(draft, tones);
  return { root, quality: quality(draft), tones: build(draft), ...(bass && bass !== root ? { bass } : {}) };
}
