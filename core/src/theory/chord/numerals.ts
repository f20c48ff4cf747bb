import { firstOf, nth, sure } from "../../base/list";
import { fail, ok, type Problem, type Result } from "../../base/result";
import { MODES, parseKey, type Key } from "../pitch/key";
import { mod, parseNote, pitchClass, transposeNote, type NoteName, type PitchClass } from "../pitch/pitch";
import type { Meter } from "../time/meter";
import { chordPitchClasses, chordSymbol, rootPc, toneName, type Chord } from "./chord";
import { parseChord } from "./parse";
import { readLine, type ParsedLine } from "./progression";

const ROMAN = ["I", "II", "III", "IV", "V", "VI", "VII"];

const DIATONIC: Record<string, string> = {
  "0,4,7": "",
  "0,3,7": "m",
  "0,3,6": "dim",
  "0,4,8": "aug",
  "0,4,7,11": "maj7",
  "0,4,7,10": "7",
  "0,3,7,10": "m7",
  "0,3,6,10": "m7b5",
  "0,3,6,9": "dim7",
  "0,3,7,11": "mMaj7",
  "0,4,8,11": "maj7(#5)",
};

/**
 * The chord on a scale step (0–6) by stacking every other scale note: 3 notes for a triad, 4 for a seventh, 5 for a
 * ninth chord.
 */
export function diatonicChord(key: Key, step: number, size: 3 | 4 | 5 = 3): string {
  const root = nth(key.scale, mod(step, 7));
  const above = Array.from({ length: size }, (_, i) =>
    mod(nth(key.pcs, mod(step + 2 * i, 7)) - nth(key.pcs, mod(step, 7)), 12),
  );
  const base = sure(DIATONIC[above.slice(0, Math.min(size, 4)).join()]);
  if (size < 5) return root + base;
  if (above[4] === 1) return `${root}${base}(b9)`;
  return root + base.replace("7", "9");
}

/** Whether the mode's third is minor. */
export const isMinorish = (key: Key): boolean => MODES[key.mode][2] === 3;

/**
 * Semitones of a degree as Roman numerals count it without an accidental: the mode's own, but what phrygian and locrian
 * lower below natural minor has its flat written (bII). Numbers name the mode's own.
 */
const ownDegree = (key: Key, index: number): number =>
  isMinorish(key) ? Math.max(nth(MODES[key.mode], index), nth(MODES.minor, index)) : nth(MODES[key.mode], index);

/** Semitones of a degree; vii° in minor stands on the raised seventh. */
function degreeSemitones(
  key: Key,
  accidental: string,
  index: number,
  { diminished, arabic = false }: { diminished: boolean; arabic?: boolean | undefined },
): number {
  const own = arabic ? nth(MODES[key.mode], index) : ownDegree(key, index);
  const major = nth(MODES.major, index);
  if (!accidental) return isMinorish(key) && index === 6 && diminished ? 11 : own;
  // A flat is counted from the major scale, so that bVI is the same chord in C major and C minor, and a sharp from the
  // mode's own degree; where the mode's degree is raised already (the fourth of lydian), the other way around.
  const raised = own > major;
  return accidental[0] === "b"
    ? (raised ? own : major) - accidental.length
    : (raised ? major : own) + accidental.length;
}

interface Split {
  accidental: string;
  index: number;
  /** Arabic degree: its quality comes from the key. */
  arabic: boolean;
  minor: boolean;
  suffix: string;
}

function split(text: string): Split | null {
  const match = /^([b#]{0,2})(VII|VI|V|IV|III|II|I|vii|vi|v|iv|iii|ii|i|[1-7])(.*)$/.exec(text);
  if (!match) return null;
  const numeral = nth(match, 2);
  const arabic = /\d/.test(numeral);
  const index = arabic ? Number(numeral) - 1 : ROMAN.indexOf(numeral.toUpperCase());
  return {
    accidental: nth(match, 1),
    index,
    arabic,
    minor: !arabic && numeral === numeral.toLowerCase(),
    suffix: nth(match, 3),
  };
}

const SIXTHS: Record<string, string> = { N: "bII", N6: "bII6", It6: "bVI7(no5)", Ger6: "bVI7", Fr6: "bVI7(b5)" };
const INVERSIONS: [figure: string, degree: number, seventh: boolean][] = [
  ["65", 3, true],
  ["43", 5, true],
  ["42", 7, true],
  ["64", 5, false],
  ["6", 3, false],
];

/**
 * The figures of an inversion at the end of a numeral: with the degree in the bass, and whether it is a seventh chord.
 */
const inversionOf = (suffix: string) =>
  INVERSIONS.find(([figure]) => new RegExp(`^(?:maj|°|ø|\\+)?${figure}$`).test(suffix)) ??
  (/^(°|ø|maj)?2$/.test(suffix) ? (["2", 7, true] as const) : undefined);

/** A numeral without its inversion, as a chord quality. */
function qualityOf({ accidental, index, arabic, minor, suffix }: Split, key: Key): Result<string> {
  // A plain degree takes the key's own triad, seventh or ninth.
  if (arabic && /^(7|9)?$/.test(suffix) && !accidental) {
    const sizes: Record<string, 3 | 4 | 5> = { "": 3, "7": 4, "9": 5 };
    const chord = parseChord(diatonicChord(key, index, sizes[suffix]));
    return chord.ok ? ok(chord.value.quality) : chord;
  }
  if (suffix.startsWith("ø")) return ok(suffix.includes("9") ? "m9b5" : "m7b5");
  if (/^(°|dim)/.test(suffix)) return ok("dim" + suffix.replace(/^(°|dim)/, ""));
  if (suffix.startsWith("+")) return ok(suffix === "+" ? "aug" : `aug${suffix.slice(1)}`);
  // A power chord has no third to be minor.
  if (/^5($|\()/.test(suffix)) return ok(suffix);
  const whole = minor ? "m" + suffix.replace(/^maj/, "Maj") : suffix;
  return ok(whole.replace("(add6)", "6"));
}

const HINT = "Write numerals like ii7, V65, bVII, V7/V, or degrees like 6 4 1 5.";

/** Signs as they are typed on a keyboard. */
const plainSigns = (source: string): string =>
  (SIXTHS[source] ?? source)
    .replace(/♭/g, "b")
    .replace(/♯/g, "#")
    .replace(/[oº](?=$|7|\/)/, "°");

/** A numeral and what stands after its last slash, which is not that of a six-nine chord. */
function atSlash(text: string): { head: string; after: string | null; slash: number } {
  const slash = text.lastIndexOf("/");
  if (slash <= 0 || /6\/9$/.test(text)) return { head: text, after: null, slash };
  return { head: text.slice(0, slash), after: text.slice(slash + 1), slash };
}

/** The root of a numeral's degree. */
function rootOf({ accidental, index, arabic, minor }: Split, key: Key, diminished: boolean): NoteName {
  const semitones = degreeSemitones(key, accidental, index, { diminished: minor && diminished, arabic });
  return transposeNote(key.tonic, index, semitones);
}

/** The key that a degree stands for: "/V" reads what stands before it in the key of V. */
function localKey({ accidental, index, minor }: Split, key: Key): Result<Key> {
  const root = transposeNote(key.tonic, index, degreeSemitones(key, accidental, index, { diminished: false }));
  return parseKey(`${root} ${minor ? "minor" : "major"}`);
}

/**
 * Reads a Roman numeral or a degree in a key: "ii7", "V65", "bVII", "V7/V", "viiø7", "IV/5" (over the fifth degree),
 * "Ger6", and the plain numbers of a degree pattern, "6" or "27" (the key's own seventh on 2). Errors: numeral.unknown,
 * numeral.quality with the 1-based column.
 */
export function parseNumeral(source: string, key: Key): Result<Chord> {
  const { head, after, slash } = atSlash(plainSigns(source));
  const over = after === null ? null : split(after);
  if (after !== null && (!over || over.suffix))
    return fail("numeral.unknown", `"${source}": "${after}" is not a degree`, { position: slash + 2, hint: HINT });
  if (over && !over.arabic) {
    const local = localKey(over, key);
    return local.ok ? parseNumeral(head, local.value) : local;
  }
  const parts = split(head);
  if (!parts) return fail("numeral.unknown", `"${source}" is not a numeral`, { position: 1, hint: HINT });
  const read = readSplit(parts, key);
  if (!read.ok)
    return fail("numeral.quality", `"${source}": "${parts.suffix}" is not a chord ending`, {
      position: source.length - parts.suffix.length + 1,
      hint: read.error.hint ?? HINT,
    });
  const { chord, root, inverted } = read.value;
  const bass = over ? rootOf(over, key, false) : inverted;
  return ok({ ...chord, ...(bass && bass !== root ? { bass } : {}) });
}

/** The chord of a numeral, its root, and the tone that its figures put into the bass. */
function readSplit(parts: Split, key: Key): Result<{ chord: Chord; root: NoteName; inverted: NoteName | undefined }> {
  const root = rootOf(parts, key, /^(°|ø|dim)/.test(parts.suffix));
  const figures = parts.arabic ? undefined : inversionOf(parts.suffix);
  const suffix = figures ? parts.suffix.slice(0, -figures[0].length) + (figures[2] ? "7" : "") : parts.suffix;
  const quality = qualityOf({ ...parts, suffix }, key);
  if (!quality.ok) return quality;
  const chord = parseChord(root + quality.value);
  if (!chord.ok) return chord;
  const inversion = figures?.[1] ?? 0;
  const tone = inversion ? chord.value.tones.find((t) => t.degree === inversion) : undefined;
  return ok({ chord: chord.value, root, inverted: tone && transposeNote(root, tone.degree - 1, tone.semitones) });
}

/**
 * Reads a line of numerals or degrees into chords, with the same bars, dots and repeats as a chord line; without any
 * bar line every numeral is a bar. Positions of problems are 1-based columns of the text.
 */
export function readNumerals(line: string, key: Key, meter: Meter): ParsedLine {
  const barred =
    line.includes("|") || !/\s/.test(line.trim())
      ? line
      : `| ${line.trim().replace(/\s*[-–—,]\s*(?=\S)|\s+/g, " | ")} |`;
  const problems: Problem[] = [];
  const text = barred.replace(/[^\s|]+/g, (token) => {
    if (token === "." || token === "%" || /^n\.?c\.?$/i.test(token)) return token;
    const chord = parseNumeral(token, key);
    if (chord.ok) return chordSymbol(chord.value);
    const at = line.indexOf(token);
    problems.push({ ...chord.error, position: Math.max(0, at) + (chord.error.position ?? 1) });
    return "?";
  });
  const read = readLine(text, meter);
  return problems.length ? { ...read, problems } : read;
}

/** A scale degree in a key, with its accidental: "5", "b7", "#4". */
export function degreeName(note: NoteName, key: Key): string {
  const { index, accidental } = degreeOf(note, key);
  return accidental + (index + 1);
}

function degreeOf(note: NoteName, key: Key): { index: number; accidental: string } {
  const index = mod(sure(parseNote(note)).step - sure(parseNote(key.tonic)).step, 7);
  const above = mod(pitchClass(note) - firstOf(key.pcs), 12);
  // In major-like modes accidentals count from the major scale (bVII in mixolydian); in minor ones from natural minor
  // (bII in phrygian), but dorian's own sixth is plain.
  const own = isMinorish(key) ? ownDegree(key, index) : nth(MODES.major, index);
  const shift = mod(above - own + 6, 12) - 6;
  // The major scale's degree is foreign where the mode has another one.
  if (shift === 0 && own !== MODES[key.mode][index] && !isMinorish(key))
    return { index, accidental: own > nth(MODES[key.mode], index) ? "#" : "b" };
  return { index, accidental: shift < 0 ? "b".repeat(-shift) : "#".repeat(shift) };
}

/** What stands behind a numeral for a quality, and whether the chord is diminished. */
function suffixOf(quality: string): { suffix: string; diminished: boolean } {
  if (/^dim/.test(quality)) return { suffix: "°" + quality.slice(3), diminished: true };
  if (/^m(7|9|11|13)b5/.test(quality)) return { suffix: "ø" + quality.slice(1).replace("b5", ""), diminished: true };
  if (/^aug/.test(quality)) return { suffix: "+", diminished: false };
  if (/^mMaj/.test(quality)) return { suffix: "maj" + quality.slice(4), diminished: false };
  const plain = /^m(?!aj)/.test(quality) ? quality.slice(1) : quality;
  return { suffix: /^6(?!\/9)/.test(plain) ? "(add6)" + plain.slice(1) : plain, diminished: false };
}

/** Whether a numeral is small: by the chord's third, or where it has none by the key's, but for the dominant. */
function isSmall(chord: Chord, key: Key, { index, accidental }: { index: number; accidental: string }): boolean {
  const third = chord.tones.find((t) => t.degree === 3);
  if (third) return third.alter < 0;
  const above = mod(nth(key.pcs, mod(index + 2, 7)) - nth(key.pcs, index), 12);
  return accidental === "" && index !== 4 && above === 3;
}

/** The sign before a numeral; a diminished chord on the seventh degree of minor is plainly vii° on the leading tone. */
function signOf({ index, accidental }: { index: number; accidental: string }, key: Key, diminished: boolean): string {
  if (!diminished || !isMinorish(key) || index !== 6) return accidental;
  // On the natural seventh it needs a sign of its own.
  return { "#": "", "": "b" }[accidental] ?? accidental;
}

/**
 * Roman numeral of a chord in a key: case by the third, ° and ø, figures for inversions of triads and sevenths, "/5"
 * for any other bass degree.
 */
export function romanOf(chord: Chord, key: Key): string {
  const degree = degreeOf(respell(chord.root, key, /^dim|^m7b5/.test(chord.quality)), key);
  const { suffix, diminished } = suffixOf(chord.quality);
  const large = nth(ROMAN, degree.index);
  const sign = signOf(degree, key, diminished);
  // The leading-tone chord of minor is small whatever it leaves out.
  const small = isSmall(chord, key, degree) || (sign === "" && degree.accidental === "#");
  const numeral = sign + (small ? large.toLowerCase() : large);
  const { bass } = chord;
  // The root under another name is no other bass.
  if (!bass || pitchClass(bass) === rootPc(chord)) return numeral + suffix;
  const has = (d: number) => chord.tones.some((t) => t.degree === d);
  const inBass = chord.tones.find((t) => mod(rootPc(chord) + t.semitones, 12) === pitchClass(bass));
  const figures = figured(chord, suffix, inBass?.degree, has(3) && has(5));
  return numeral + (figures ?? `${suffix}/${degreeName(respell(bass, key), key)}`);
}

function figured(chord: Chord, suffix: string, degree: number | undefined, whole: boolean): string | null {
  if (degree === undefined || !whole) return null;
  if (chord.tones.length === 3 && (degree === 3 || degree === 5)) return suffix + (degree === 3 ? "6" : "64");
  if (chord.tones.length === 4 && /7$/.test(suffix)) {
    const figure = { 3: "65", 5: "43", 7: "42" }[degree as 3 | 5 | 7];
    return figure === undefined ? null : suffix.slice(0, -1) + figure;
  }
  return null;
}

/** A root far from the key's spelling (A# in a flat key) is counted by its usual name there. */
function respell(note: NoteName, key: Key, leads = false): NoteName {
  const pc = pitchClass(note);
  const own = key.scale.find((n) => pitchClass(n) === pc);
  if (own) return own;
  const { alter } = sure(parseNote(note));
  const opposite = (key.signature < 0 && alter > 0) || (key.signature > 0 && alter < 0);
  const above = mod(pc - firstOf(key.pcs), 12);
  // The root of a diminished chord leads up: F# in F major is the raised first degree.
  if (!opposite || (leads && alter > 0)) return note;
  // Keep sharps where they lead upward (#4 and the raised sixth and seventh of minor), flats elsewhere.
  const index = { 1: 1, 3: 2, 6: alter > 0 ? 3 : 4, 8: 5, 10: 6 }[above as 1 | 3 | 6 | 8 | 10];
  return index === undefined ? note : transposeNote(key.tonic, index, above);
}

/**
 * Whether all tones of a chord (and its bass) lie in a key; the raised seventh of minor counts as its own when asked
 * for.
 */
export function isDiatonic(chord: Chord, key: Key, harmonic = false): boolean {
  const raised = mod(firstOf(key.pcs) + 11, 12);
  const lowered = mod(firstOf(key.pcs) + 10, 12);
  const pcs = chordPitchClasses(chord);
  if (pcs.every((pc) => key.pcs.includes(pc))) return true;
  if (
    !harmonic ||
    key.mode !== "minor" ||
    pcs.includes(lowered) ||
    !pcs.every((pc) => pc === raised || key.pcs.includes(pc))
  )
    return false;
  // A tone that sounds like the raised seventh and is written as the lowered eighth belongs elsewhere: A flat over F
  // minor is no G sharp.
  const seventh = transposeNote(key.tonic, 6, 11);
  return [...chord.tones.map((t) => toneName(chord, t)), ...(chord.bass ? [chord.bass] : [])].every(
    (name) => pitchClass(name) !== raised || name === seventh || rootPc(chord) === raised,
  );
}

export const memberOf = (chord: Chord, degree: number): { name: NoteName; pc: PitchClass } | null => {
  const found = chord.tones.find((t) => t.degree === degree);
  if (!found) return null;
  const name = toneName(chord, found);
  return { name, pc: pitchClass(name) };
};
