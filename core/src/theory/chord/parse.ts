import { sure } from "../../base/list";
import { fail, ok, type Result } from "../../base/result";
import { noteName, parseNote } from "../pitch/pitch";
import { tone, type Chord } from "./chord";
import { build, quality, type Draft } from "./draft";

/** Rest of the text still to be read; `column` is its 1-based place in the whole symbol. */
interface Cursor {
  text: string;
  column: number;
}

const take = (cursor: Cursor, pattern: RegExp): RegExpExecArray | null => {
  const match = pattern.exec(cursor.text);
  if (match) {
    cursor.text = cursor.text.slice(match[0].length);
    cursor.column += match[0].length;
  }
  return match;
};

/**
 * One spelling for every accidental and sign, each replaced by the same number of characters so that columns stay true.
 */
const normalize = (text: string): string =>
  text
    .replace(/♭/g, "b")
    .replace(/♯/g, "#")
    .replace(/[△∆^]/g, "Δ")
    .replace(/[−–]/g, "-")
    .replace(/º/g, "°")
    .replace(/Ø/g, "ø")
    .replace(/[⁰¹²³⁴⁵⁶⁷⁸⁹]/g, (digit) => String("⁰¹²³⁴⁵⁶⁷⁸⁹".indexOf(digit)));

const SEVENTH_OF = { "7": 0, "9": 9, "11": 11, "13": 13 } as const;

/** Major sevenths: maj7, M9, Δ13, ma7, j7; a bare Δ is a major seventh, a bare maj a triad. */
function readMajor(cursor: Cursor, draft: Draft): boolean {
  const match = take(cursor, /^(?:maj|Maj|MAJ|ma|Ma|MA|M|Δ|j(?=[79]|1[13]))(13|11|9|7)?/);
  if (!match) return false;
  if (match[1] || match[0] === "Δ") {
    draft.seventh = "major";
    draft.extension = SEVENTH_OF[(match[1] ?? "7") as keyof typeof SEVENTH_OF];
  }
  return true;
}

/** Minor in its spellings; a minus before a 5 lowers the fifth instead. */
const MINOR = /^(?:min|Min|MIN|mi|Mi|MI|m(?!aj|a(?![a-z]))|-(?!5))/;

/** The seventh or more over a minor third, a major seventh after a slash or in brackets too. */
function readOverMinor(cursor: Cursor, draft: Draft): void {
  take(cursor, /^\/(?=M|maj|Δ)/);
  if (take(cursor, /^\((?=(?:maj|Maj|MAJ|ma|Ma|M|Δ)(?:7|9|11|13)\))/)) {
    readMajor(cursor, draft);
    take(cursor, /^\)/);
  } else if (!readMajor(cursor, draft)) readNumber(cursor, draft);
}

function readFamily(cursor: Cursor, draft: Draft): void {
  let match;
  if (take(cursor, /^(?:ø7?|hdim7?|h7)/)) {
    Object.assign(draft, { third: "minor", fifth: -1, seventh: "minor" });
    match = take(cursor, /^(13|11|9)/);
    if (match) draft.extension = Number(match[1]) as 9 | 11 | 13;
  } else if ((match = take(cursor, /^(?:dim|Dim|DIM|°|o(?![a-z]))(7|9|11)?/))) {
    Object.assign(draft, { third: "minor", fifth: -1, seventh: match[1] ? "diminished" : "none" });
    // A ninth or eleventh lies over the diminished seventh, there is no other to stack it on.
    if (match[1] && match[1] !== "7") draft.added.push(tone(9), ...(match[1] === "11" ? [tone(11)] : []));
    if (!match[1]) readMajor(cursor, draft);
  } else if (take(cursor, /^\+5(?![0-9])/)) {
    draft.fifth = 1;
  } else if (take(cursor, /^(?:aug|Aug|AUG|\+(?![0-9]*(?:5|9|11|13)\b(?!$)))/)) {
    draft.fifth = 1;
    readNumber(cursor, draft);
  } else if (take(cursor, MINOR)) {
    draft.third = "minor";
    readOverMinor(cursor, draft);
  } else if (!readMajor(cursor, draft)) {
    readNumber(cursor, draft);
  } else if (draft.seventh === "none") {
    readNumber(cursor, draft);
  }
}

/** The figure after the family: 2, 4, 5, 6, 6/9, 7, 9, 11, 13; 7M is a major seventh. */
function readNumber(cursor: Cursor, draft: Draft): void {
  if (take(cursor, /^(?:6\/9|69|6\(9\))/)) {
    draft.sixth = true;
    draft.added.push(tone(9));
  } else if (take(cursor, /^6/)) {
    draft.sixth = true;
  } else if (draft.third === "major" && take(cursor, /^5/)) {
    draft.third = "none";
  } else if (take(cursor, /^2(?![0-9])/)) {
    draft.added.push(tone(9));
  } else if (draft.third === "major" && take(cursor, /^4(?![0-9])/)) {
    draft.sus = [4];
  } else {
    const match = take(cursor, /^(13|11|9|7)(M(?![a-zA-Z0-9]))?/);
    if (match) {
      draft.seventh = match[2] ? "major" : "minor";
      draft.extension = SEVENTH_OF[match[1] as keyof typeof SEVENTH_OF];
    }
  }
}

const ALTERATIONS = /^(b|#|\+|-)(5|9|11|13|4|6)/;

/** A way of going on behind the figure: what it looks like, and what it says. False where it says nothing here. */
type Modifier = [pattern: RegExp, say: (draft: Draft, match: RegExpExecArray) => boolean | void];

const SIGN: Record<string, -1 | 1> = { b: -1, "-": -1, "#": 1, "+": 1 };

/** Everything after the figure, the longest reading first; parentheses, commas and blanks only separate. */
const MODIFIERS: readonly Modifier[] = [
  [/^\(\s*(9|11|13)(?=\s*[),])/, (draft, match) => readTension(draft, Number(match[1]))],
  [/^[(),\s]+/, () => undefined],
  [
    /^sus(7|9|13)(?![0-9])/,
    (draft, match) =>
      void Object.assign(draft, {
        sus: [4],
        seventh: "minor",
        extension: SEVENTH_OF[match[1] as keyof typeof SEVENTH_OF],
      }),
  ],
  [/^sus(?:2\/?4|4\/?2|2sus4)/, (draft) => void (draft.sus = [2, 4])],
  [/^sus(2|4)?/, (draft, match) => void (draft.sus = [match[1] === "2" ? 2 : 4])],
  [
    /^alt(?:ered)?/,
    (draft) => {
      if (draft.seventh === "none") draft.seventh = "minor";
      draft.omitted.push(5);
      draft.altered.push(tone(9, -1), tone(9, 1), tone(11, 1), tone(13, -1));
    },
  ],
  [
    /^add(b|#)?(2|4|6|9|11|13)/,
    (draft, [, sign = "", degree = ""]) =>
      void draft.added.push(tone({ "2": 9, "4": 11, "6": 6 }[degree] ?? Number(degree), SIGN[sign] ?? 0)),
  ],
  [
    /^(?:no|omit)\s?(root|1|3|5|7|9|11)/,
    (draft, match) => void draft.omitted.push(match[1] === "root" ? 1 : Number(match[1])),
  ],
  [ALTERATIONS, (draft, [, sign = "", degree = ""]) => alter(draft, SIGN[sign] ?? 1, degree)],
  [/^(?:maj7|M7|Δ7?)/, (draft) => void (draft.seventh = "major")],
  [/^(?:aug|\+)(?![0-9])/, (draft) => (draft.fifth === 0 ? void (draft.fifth = 1) : false)],
  [
    /^(9|11|13)(?=$|[/),])/,
    (draft, match) => (draft.seventh === "none" ? false : readTension(draft, Number(match[1]))),
  ],
];

/** A fifth that nothing has altered yet is the chord's own; other degrees, and a second fifth, are alterations. */
function alter(draft: Draft, sign: -1 | 1, written: string): void {
  const degree = { "4": 11, "6": 13 }[written] ?? Number(written);
  const free = draft.fifth === 0 && draft.altered.every((t) => t.degree !== 5);
  if (degree === 5 && free) draft.fifth = sign;
  else draft.altered.push(tone(degree, sign));
}

/** Reads one modifier; false where what stands there is none. */
const readModifier = (cursor: Cursor, draft: Draft): boolean =>
  MODIFIERS.some(([pattern, say]) => {
    const match = pattern.exec(cursor.text);
    if (!match || say(draft, match) === false) return false;
    take(cursor, pattern);
    return true;
  });

/** A tension in parentheses: what completes a ninth or thirteenth chord makes one, anything else is added. */
function readTension(draft: Draft, degree: number): void {
  if (degree === 13 && draft.extension === 9 && draft.third === "major") draft.extension = 13;
  else if (degree === 9 && draft.seventh !== "none" && draft.seventh !== "diminished" && !draft.extension)
    draft.extension = 9;
  else draft.added.push(tone(degree));
}

const cache = new Map<string, Result<Chord>>();

/**
 * Reads a chord symbol in any usual spelling. Errors: chord.root, chord.quality, chord.bass, each with the 1-based
 * column in the symbol at which reading stopped.
 */
export function parseChord(text: string): Result<Chord> {
  const known = cache.get(text);
  if (known) return known;
  const result = readChord(text);
  if (cache.size < 4000) cache.set(text, result);
  return result;
}

const noBass = (source: string, text: string, position: number): Result<never> =>
  fail("chord.bass", `"${source}": no note is called ${text || "(nothing)"}`, {
    position,
    hint: "After the slash write a note, such as C/E.",
  });

function noRoot(source: string, text: string): Result<never> {
  const lower = /^[a-g](?:b|#)?/.test(text);
  return fail("chord.root", `"${source}": a chord begins with a root from A to G`, {
    position: 1,
    hint: lower
      ? `Write the root as a capital letter: ${sure(source[0]).toUpperCase()}${source.slice(1)}.`
      : "Write for example Ebmaj7.",
  });
}

function readChord(source: string): Result<Chord> {
  const text = normalize(source);
  if (!text.trim())
    return fail("chord.empty", "there is no chord here", { position: 1, hint: "Type a chord such as Cm7." });
  const root = /^[A-G](?:bb|b|##|x|#)?/.exec(text);
  if (!root) return noRoot(source, text);
  const rest = text.slice(root[0].length);
  const slash = bassSlash(rest);
  const bassText = slash === null ? "" : rest.slice(slash + 1);
  const bass = /^[A-G]/.test(bassText) ? parseNote(bassText) : null;
  if (slash !== null && !bass) return noBass(source, bassText, root[0].length + slash + 2);
  const draft: Draft = {
    third: "major",
    fifth: 0,
    seventh: "none",
    extension: 0,
    sus: [],
    sixth: false,
    added: [],
    altered: [],
    omitted: [],
  };
  const cursor: Cursor = { text: rest.slice(0, slash ?? rest.length), column: root[0].length + 1 };
  readFamily(cursor, draft);
  while (cursor.text && readModifier(cursor, draft));
  if (cursor.text)
    return fail("chord.quality", `"${source}": "${cursor.text}" is not a chord quality`, {
      position: cursor.column,
      hint: hintFor(cursor.text),
    });
  const rootName = noteName(sure(parseNote(root[0])));
  const tones = build(draft);
  if (tones.length < 2)
    return fail("chord.quality", `"${source}" leaves fewer than two tones`, {
      position: root[0].length + 1,
      hint: "Leave out fewer tones.",
    });
  const bassName = bass && noteName(bass);
  const own = bassName && bassName !== rootName ? { bass: bassName } : {};
  return ok({ root: rootName, quality: quality(draft), tones, ...own });
}

/** Where a bass is written after a slash: the last one, unless it belongs to 6/9 or to a major seventh. */
function bassSlash(rest: string): number | null {
  const slash = rest.lastIndexOf("/");
  if (slash < 0 || /6\/9\)?$/.test(rest.slice(0, slash + 2)) || /^\/(?:M|maj|Δ)/.test(rest.slice(slash))) return null;
  return slash;
}

function hintFor(text: string): string {
  if (/^(ma?j?$|mj)/i.test(text)) return "Major sevenths are written maj7, M7 or Δ7.";
  if (/^s/i.test(text)) return "Suspensions are written sus2, sus4 or sus.";
  if (/^[#b+-]?\d+/.test(text)) return "Figures are 5 6 6/9 7 9 11 13, alterations b5 #5 b9 #9 #11 b13.";
  if (/^[A-G]/.test(text)) return "Two chords need a space between them.";
  return "Usual endings: m, 7, maj7, m7, m7b5, dim, aug, sus4, 6, 9, add9, (no3), /E.";
}
