import { firstOf, lastOf, nth, sure } from "../../../base/list";
import { listed } from "../../../theory/words/english";
import { mod, transposeNote, typeset } from "../../../theory/pitch/pitch";
import { bassPc, chordPitchClasses, rootPc, type Chord } from "../../../theory/chord/chord";
import { isMinorish, memberOf } from "../../../theory/chord/numerals";
import { above, earlier, isDominant, isMajor, isMinor, neighbor, onward, rootMove, type Progression } from "../context";
import { preparesApplied } from "./prepares";
import { lineCliche } from "./lines";
import type { Recognizer } from "./types";

const sym = typeset;

/** Whether a progression is a blues, and of twelve bars: told once for all its chords. */
const known = new WeakMap<Progression, { blues: boolean; twelve: boolean }>();

function formOf(p: Progression): { blues: boolean; twelve: boolean } {
  let form = known.get(p);
  if (!form) {
    const blues = isBlues(p);
    known.set(p, (form = { blues, twelve: blues && isTwelveBars(p) }));
  }
  return form;
}

/** Sevenths on I and IV as a matter of course: no plain I, and a seventh on IV as well. */
function isBlues(p: Progression): boolean {
  if (isMinorish(p.home)) return false;
  const on = (semitones: number) => p.chords.filter((h) => above(h.chord, p.home) === semitones).map((h) => h.chord);
  const [one, four] = [on(0), on(5)];
  const seventh = (list: typeof one) => list.some((c) => isDominant(c) && memberOf(c, 3));
  // A fourth degree that falls a fifth further is a link of a chain of dominants.
  const chained = p.chords.some((h, i) => above(h.chord, p.home) === 5 && isDominant(h.chord) && isChained(p, i));
  return seventh(one) && seventh(four) && !chained && one.every((c) => isDominant(c) || !isMajor(c));
}

function isChained(p: Progression, i: number): boolean {
  const next = onward(p, i)?.chord;
  return next !== undefined && rootMove(nth(p.chords, i).chord, next) === 5;
}

/**
 * The twelve bars: I, IV in the fifth, I again in the seventh, V in the ninth, I in the eleventh; by where the chords
 * begin, whatever fills them.
 */
function isTwelveBars(p: Progression): boolean {
  const first = firstOf(p.chords).event.start;
  const last = lastOf(p.chords).event;
  const bar = (last.start + last.duration - first) / 12;
  const at = (n: number) => p.chords.findLast((h) => h.event.start <= first + (n - 1) * bar + 1e-6);
  return [
    [1, 0],
    [5, 5],
    [7, 0],
    [9, 7],
    [11, 0],
  ].every(([n, degree]) => above(sure(at(sure(n))).chord, p.home) === degree);
}

export const blues: Recognizer = {
  id: "blues",
  title: "Blues",
  explanation: "In the blues the minor seventh on I and IV is a color of its own, not a dominant that wants to go on.",
  source: "common practice",
  find(p, i) {
    const { chord, key } = nth(p.chords, i);
    const where = above(chord, key);
    if (key !== p.home || !isDominant(chord) || !memberOf(chord, 3) || (where !== 0 && where !== 5) || !formOf(p).blues)
      return null;
    const seventh = sure(memberOf(chord, 7));
    const form = formOf(p).twelve ? " The twelve bars of the blues." : "";
    return {
      function: where === 0 ? "tonic" : "subdominant",
      explanation:
        `${where === 0 ? "Home" : "The fourth degree"} of the blues: ${sym(seventh.name)} is a color that stays, ` +
        `not a pull.${form}`,
    };
  },
};

export const cadentialSixFour: Recognizer = {
  id: "cadential",
  title: "Cadential six-four",
  explanation:
    "The tonic over its fifth before the dominant: sixth and fourth over the bass hang and fall into the " +
    "dominant's fifth and third.",
  source: "any harmony textbook",
  find(p, i) {
    const { chord, key } = nth(p.chords, i);
    const next = onward(p, i)?.chord;
    const fifth = mod(firstOf(key.pcs) + 7, 12);
    if (rootPc(chord) !== key.pcs[0] || chord.bass === undefined || bassPc(chord) !== fifth || chord.tones.length > 3)
      return null;
    if (!next || rootPc(next) !== fifth || bassPc(next) !== fifth || !isDominant(next, true)) return null;
    const third = memberOf(chord, 3);
    const to = memberOf(next, 3);
    if (!third || !to) return null;
    return {
      function: "dominant",
      explanation:
        `Cadential six-four: ${sym(key.tonic)} and ${sym(third.name)} hang over ${sym(chord.bass)} and fall to ` +
        `${sym(to.name)} and ${sym(transposeNote(next.root, 4, 7))} in ${sym(next.root + next.quality)}.`,
    };
  },
};

export const picardy: Recognizer = {
  id: "picardy",
  title: "Picardy third",
  explanation: "A minor key that ends on its major tonic.",
  source: "any harmony textbook",
  find(p, i) {
    const { chord, key } = nth(p.chords, i);
    const onTonic = (c: Chord) => rootPc(c) === key.pcs[0];
    const ends = onTonic(chord) && isMajor(chord) && !isDominant(chord);
    if (!isMinorish(key) || !ends) return null;
    const [turned, before, next] = [neighbor(p, i, -1), earlier(p, i), onward(p, i)].map((h) => h?.chord);
    // Straight after the minor tonic the mode changes; nothing ends.
    const turns = turned !== undefined && onTonic(turned) && isMinor(turned);
    if (!before || turns) return null;
    const last = p.chords.slice(i).every((h) => onTonic(h.chord) && !isMinor(h.chord));
    // On the way to iv it is a dominant; before a minor tonic it has not ended anything.
    const closes = next !== undefined && rootMove(chord, next) !== 5 && [5, 7, 10].includes(above(before, key));
    if (!last && !closes) return null;
    const [raised, minor] = [sure(memberOf(chord, 3)).name, nth(key.scale, 2)].map(sym);
    return {
      function: "tonic",
      explanation: `Picardy third: ${raised} instead of ${minor} lets the minor key end in major.`,
    };
  },
};

export const raisedSixth: Recognizer = {
  id: "raised-sixth",
  title: "Raised sixth of minor",
  explanation:
    "A chord of a minor key with its sixth degree raised, as dorian and melodic minor have it: IV, IV7, ii, i6.",
  source: "any harmony textbook (variable degrees of minor)",
  find(p, i) {
    const { chord, key } = nth(p.chords, i);
    if (key.mode !== "minor") return null;
    const [sixth, seventh] = [mod(firstOf(key.pcs) + 9, 12), mod(firstOf(key.pcs) + 11, 12)];
    const pcs = chordPitchClasses(chord);
    if (!pcs.includes(sixth) || !pcs.every((pc) => pc === sixth || pc === seventh || key.pcs.includes(pc))) return null;
    const next = onward(p, i)?.chord;
    if (preparesApplied(p, i) || (isDominant(chord) && next && rootMove(chord, next) === 5) || lineCliche.find(p, i))
      return null;
    const raised = sym(transposeNote(key.tonic, 5, 9));
    const both = pcs.includes(seventh);
    let from: "melodic minor" | "dorian or melodic minor: a color that can stay" | "dorian";
    if (both) from = "melodic minor";
    else if (above(chord, key) === 0) from = "dorian or melodic minor: a color that can stay";
    else from = "dorian";
    return {
      function: above(chord, key) === 0 ? "tonic" : "subdominant",
      explanation: `${raised} is the raised sixth of ${sym(key.tonic)} minor, as in ${from}.`,
    };
  },
};

export const alteredDominant: Recognizer = {
  id: "altered-dominant",
  title: "Altered dominant",
  explanation:
    "The dominant with its fifth or its tensions altered: each altered note lies a semitone from a note of the " +
    "tonic and steps into it.",
  source: "any jazz harmony textbook",
  find(p, i) {
    const { chord, key } = nth(p.chords, i);
    if (above(chord, key) !== 7 || !isDominant(chord) || !memberOf(chord, 3)) return null;
    const altered = chord.tones
      .filter((t) => t.alter !== 0 && (t.degree === 5 || t.degree > 7))
      .map((t) => sym(t.role));
    if (!altered.length) return null;
    return {
      function: "dominant",
      explanation:
        `The dominant with ${listed(altered)}: what is altered sharpens its pull and steps into the chord on ` +
        `${sym(key.tonic)} by semitones.`,
    };
  },
};
