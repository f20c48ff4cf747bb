import { firstOf, lastOf, nth, sure } from "../../base/list";
import { keyName, nameInKey, parseKey, type Key } from "../../theory/pitch/key";
import { mod, pitchClass, typeset, type NoteName } from "../../theory/pitch/pitch";
import type { Meter } from "../../theory/time/meter";
import { chordPitchClasses, chordToneName, rootPc, toneName, toneRole, type Chord } from "../../theory/chord/chord";
import { degreeName, romanOf } from "../../theory/chord/numerals";
import { parseChord } from "../../theory/chord/parse";
import { sectionKey, sectionMeter, sectionOf } from "../../song/document";
import type { ChordEvent, Song } from "../../song/schema";
import { findCadences, loopJoin, type Cadence, type LoopJoin } from "./cadence";
import {
  above,
  belongs,
  isDominant,
  isMinor,
  isSuspended,
  neighbor,
  indexOnward,
  onward,
  rootMove,
  type HarmonicFunction,
  type Progression,
  type Heard,
} from "./context";
import { findKeysOfChords, type KeyFit } from "./keys";
import { aroundSection, readProgression, within } from "./progression";
import { RECOGNIZERS } from "./recognize";
import { appliedDominant } from "./recognize/dominants";
import { AT_HOME, CATEGORIES, type Category } from "./recognize/types";
import { LEADS, targetOf } from "./target";

export interface AnalyzedTone {
  pitch: NoteName;
  inKey: boolean;
  role: string;
}

/** A note outside the key: what it is and where it wants to go. */
export interface OutsideTone {
  note: NoteName;
  role: string;
  what: string;
  /** The note itself where nothing pulls it. */
  wants: NoteName;
  /** The chord after it has the note it wants. */
  arrives: boolean;
}

export interface ChordAnalysis {
  id: string;
  symbol: string;
  /** The key it is heard in: the section's own, or another in a stretch that visits it. */
  key: string;
  elsewhere: boolean;
  roman: string;
  /** Its numeral in the section's own key, where a stretch in another key begins with a chord of both. */
  pivot: string | null;
  function: HarmonicFunction | "none";
  category: Category | "none";
  /** What else it is. */
  also: Category[];
  explanation: string;
  tones: AnalyzedTone[];
  outside: OutsideTone[];
}

export interface HarmonyReport {
  chords: ChordAnalysis[];
  /** Stretches in another key, by the ids of their first and last chord. */
  regions: { key: string; from: string; to: string; text: string }[];
  cadences: Cadence[];
  join: LoopJoin | null;
  keys: KeyFit[];
  /** Numerals and key of each chord in the section's own key. */
  home: string;
}

/**
 * Analyzes a progression in a key, chord by chord: numeral, function, category, one or two sentences, and every tone.
 * Events with N.C. have the category "none". Empty when the key cannot be read.
 */
export function analyzeProgression(
  events: readonly ChordEvent[],
  key: string,
  { loop = false }: { loop?: boolean } = {},
): ChordAnalysis[] {
  const home = parseKey(key);
  return home.ok ? analyzeEvents(events, home.value, loop, { meter: null }).chords : [];
}

/**
 * The harmony of a section: every chord, stretches in other keys, cadences, the loop's join, and which keys the chords
 * fit.
 */
export function analyzeSection(song: Song, sectionId: string): HarmonyReport {
  const section = sectionOf(song, sectionId);
  if (!section) return { chords: [], regions: [], cadences: [], join: null, keys: [], home: song.key };
  return analyzeEvents(section.chords, sectionKey(song, section), true, {
    meter: sectionMeter(song, section),
    around: aroundSection(song, sectionId),
  });
}

export function analyzeEvents(
  events: readonly ChordEvent[],
  home: Key,
  loop: boolean,
  { meter, around = null }: { meter: Meter | null; around?: ReturnType<typeof aroundSection> | undefined },
): HarmonyReport {
  const own = readProgression(events, home, loop);
  const p = within(own, around);
  const at = new Map(p.chords.map((h, i) => [h.event.id, i]));
  const joinOf = () => {
    if (p !== own) return loopJoin(own, { to: lastOf(p.chords), into: sure(around).into });
    if (loop) return loopJoin(own);
    return null;
  };
  return {
    home: keyName(home),
    chords: events.map((event) => {
      const i = at.get(event.id);
      return i === undefined ? silent(event, home) : analyzeOne(p, i);
    }),
    regions: p.regions.map((r) => {
      const stretch = p.chords.slice(r.from, r.to);
      return {
        key: keyName(r.key),
        from: firstOf(stretch).event.id,
        to: lastOf(stretch).event.id,
        text: `${stretch.map((h) => romanOf(h.chord, r.key)).join(" – ")} in ${typeset(r.key.tonic)} ${r.key.mode}`,
      };
    }),
    cadences: findCadences(own, meter),
    join: joinOf(),
    keys: findKeysOfChords(own.chords.map((h) => ({ chord: h.chord, duration: h.event.duration }))),
  };
}

const silent = (event: ChordEvent, home: Key): ChordAnalysis => ({
  id: event.id,
  symbol: event.symbol,
  key: keyName(home),
  elsewhere: false,
  roman: "",
  pivot: null,
  function: "none",
  category: "none",
  also: [],
  explanation: "No chord sounds here.",
  tones: [],
  outside: [],
});

function analyzeOne(p: Progression, i: number): ChordAnalysis {
  const { event, chord, key } = nth(p.chords, i);
  const found = RECOGNIZERS.flatMap((r) => {
    const result = r.find(p, i);
    return result ? [{ id: r.id, ...result }] : [];
  });
  const first = firstOf(found);
  // What explains a chord as at home leaves no room for a pull elsewhere.
  const settled = first.id !== "diatonic" && (AT_HOME.has(first.id) || first.id === "picardy");
  const also = found
    .slice(1)
    .filter(({ id }) => id !== "chromatic" && id !== "diatonic" && (!settled || id === "line-cliche" || id === "pedal"))
    .filter(({ id }) => id !== "borrowed" || first.id === "line-cliche");
  const roman = numeral(p, i, first.id);
  const names = toneNames(chord);
  const elsewhere = key !== p.home;
  const pivot = elsewhere && p.chords[i - 1]?.key !== key && belongs(chord, p.home) ? romanOf(chord, p.home) : null;
  const named = `${typeset(key.tonic)} ${key.mode}`;
  let place: string;
  if (!elsewhere) place = "";
  else if (pivot)
    place =
      ` A chord of both keys: ${typeset(pivot)} in ${typeset(p.home.tonic)} ${p.home.mode}, ${typeset(roman)} in ` +
      `${named}.`;
  else place = ` (heard in ${named})`;
  return {
    id: event.id,
    symbol: event.symbol,
    key: keyName(key),
    elsewhere,
    roman,
    pivot,
    function: first.function ?? plainFunction(chord, key),
    category: first.id,
    also: also.map((a) => a.id),
    explanation:
      first.explanation + (also.length && first.id === "diatonic" ? ` ${firstOf(also).explanation}` : "") + place,
    tones: names.map(({ note, pc }) => ({
      pitch: note,
      inKey: p.home.pcs.includes(pc),
      role: toneRole(chord, pc).role,
    })),
    outside: names
      .filter(({ pc }) => !p.home.pcs.includes(pc))
      .map(({ note, pc }) => outsideTone(p, i, note, { pc, category: first.id })),
  };
}

const APPLIED: Partial<Record<Category, number>> = {
  "applied-dominant": LEADS.dominant,
  "applied-diminished": LEADS.diminished,
  "applied-two": LEADS.two,
};

/**
 * Applied chords are counted from the degree they lead to, all others from the key; a suspension as what it resolves
 * to.
 */
function numeral(p: Progression, i: number, category: Category): string {
  const { chord, key } = nth(p.chords, i);
  const plain = romanOf(chord, key);
  let by = APPLIED[category];
  if (category === "suspension" && appliedDominant.find(p, i + 1 < p.chords.length ? i + 1 : 0)) by = LEADS.dominant;
  if (by === undefined) return plain;
  const at = indexOnward(p, i);
  const comes = category === "applied-two" && at >= 0 ? onward(p, at) : p.chords[at];
  const target = targetOf(p, i, by, comes?.chord);
  if (!target) return plain;
  const local = parseKey(`${target.root} ${target.minor ? "minor" : "major"}`);
  return local.ok ? `${romanOf(overSeventh(chord), local.value)}/${target.degree}` : plain;
}

/** A triad over its own minor seventh is that seventh chord in its last inversion: V42/IV. */
function overSeventh(chord: Chord): Chord {
  if (!chord.bass || chord.tones.length !== 3 || mod(pitchClass(chord.bass) - rootPc(chord), 12) !== 10) return chord;
  const seventh = parseChord(`${chord.root}${chord.quality}7/${chord.bass}`);
  return seventh.ok ? seventh.value : chord;
}

function toneNames(chord: Chord): { note: NoteName; pc: number }[] {
  const names = chord.tones.map((t) => toneName(chord, t));
  if (chord.bass && !names.some((n) => pitchClass(n) === pitchClass(sure(chord.bass)))) names.push(chord.bass);
  return names.map((note) => ({ note, pc: pitchClass(note) }));
}

function plainFunction(chord: Chord, key: Key): HarmonicFunction {
  return nth(
    [
      "tonic",
      "chromatic",
      "subdominant",
      "tonic",
      "tonic",
      "subdominant",
      "chromatic",
      "dominant",
      isMinor(chord) ? "tonic" : "subdominant",
      "tonic",
      "dominant",
      "dominant",
    ] as const,
    above(chord, key),
  );
}

/** A tone as it is asked about: of a chord of the progression, and outside the key at home. */
interface Asked {
  heard: Heard;
  next: Chord | undefined;
  note: NoteName;
  pc: number;
  role: string;
}

const roleName = ({ role, heard: { chord } }: Asked): string => `${ROLE_NAME[role] ?? role} of ${typeset(chord.root)}`;

/** In a stretch that visits another key its notes are at home; only leading tones and sevenths pull. */
function toneOfVisit(asked: Asked): OutsideTone {
  const { heard, next, note, pc, role } = asked;
  const { chord, key } = heard;
  const pulls = () => {
    if (role === "3" && isDominant(chord, true)) return 1;
    return role === "b7" && isDominant(chord) ? -1 : 0;
  };
  const pull = pulls();
  const step = key.pcs.indexOf(pc);
  const goal = pull ? nth(key.scale, mod(step + pull, 7)) : note;
  return {
    note,
    role,
    what: `degree ${step + 1} of ${typeset(key.tonic)} ${key.mode}, ${roleName(asked)}`,
    wants: goal,
    arrives: pull !== 0 && next !== undefined && chordPitchClasses(next).includes(pitchClass(goal)),
  };
}

const FALLING: ReadonlySet<string> = new Set(["b7", "bb7", "b9", "b5", "b13"]);

/** Whether a tone leads up: as a leading tone, as the raised fourth of an augmented sixth, or as a raised degree. */
function leadsUp({ heard: { chord }, next, role }: Asked, category: Category, raised: boolean): boolean {
  const leads =
    (role === "3" && (isDominant(chord, true) || isSuspended(chord))) ||
    (role === "R" && next !== undefined && rootMove(chord, next) === 1);
  // The seventh of an augmented sixth is a raised fourth in other letters.
  const sixth = category === "augmented-sixth" && role === "b7";
  return leads || sixth || (raised && !FALLING.has(role));
}

/** What a tone is against the key: "raised 4", in the name of the degree it stands for. */
function alteration(degree: string, home: Key): string {
  const plain = typeset(nth(home.scale, Number(degree.replace(/[#b]/g, "")) - 1));
  if (degree.startsWith("#")) return `raised ${plain}`;
  return degree.startsWith("b") ? `lowered ${plain}` : "another key's note";
}

/**
 * Raised notes lead up, lowered notes and sevenths fall (any harmony textbook); the chord after it tells whether they
 * arrive.
 */
function outsideTone(
  p: Progression,
  i: number,
  note: NoteName,
  { pc, category }: { pc: number; category: Category },
): OutsideTone {
  const heard = nth(p.chords, i);
  const next = neighbor(p, i, 1)?.chord;
  const asked: Asked = { heard, next, note, pc, role: toneRole(heard.chord, pc).role };
  if (heard.key !== p.home && heard.key.pcs.includes(pc)) return toneOfVisit(asked);
  const degree = degreeName(note, p.home);
  const target = mod(pc + (leadsUp(asked, category, degree.startsWith("#")) ? 1 : -1), 12);
  // As the chord that comes on it is written, else as the key has it, else as that chord has it.
  const comes = next && (rootPc(next) === target || !p.home.pcs.includes(target)) ? chordToneName(next, target) : null;
  return {
    note,
    role: asked.role,
    what: `${alteration(degree, p.home)}, ${roleName(asked)}`,
    wants: comes ?? nameInKey(target, p.home),
    arrives: next !== undefined && chordPitchClasses(next).includes(target),
  };
}

const ROLE_NAME: Record<string, string> = {
  R: "root",
  "3": "third",
  b3: "third",
  "5": "fifth",
  b5: "lowered fifth",
  "#5": "raised fifth",
  b7: "seventh",
  "7": "seventh",
  bb7: "diminished seventh",
  "9": "ninth",
  b9: "flat ninth",
  "#9": "sharp ninth",
  "6": "sixth",
};

export const categoryTitle = (category: Category | "none"): string =>
  category === "none" ? "no chord" : CATEGORIES[category];
