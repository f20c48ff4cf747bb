import { nth, sure } from "../../base/list";
import { fail, ok, type Result } from "../../base/result";
import { parseKey, rootInKey, type Key } from "../pitch/key";
import {
  mod,
  noteName,
  type NoteName,
  noteOf,
  parseNote,
  parsePitch,
  type PitchClass,
  spelledPc,
} from "../pitch/pitch";
import { chordSymbol, chordToneName, rootPc, toneName } from "./chord";
import { parseChord } from "./parse";
import { addedName, TEMPLATES, type Template } from "./qualities";

export interface Identify {
  /** Pitches ("Eb4") or note names ("Eb"). The lowest pitch is taken as the bass unless `bass` says otherwise. */
  pitches: readonly string[];
  bass?: string;
  key?: string;
  /** The names mean no more than sounds (keys, frets, MIDI): the chord is spelled by what it is in the key. */
  soundsOnly?: boolean;
  /** Symbols of the chords before and after: several colors over one root are one harmony. */
  before?: string;
  after?: string;
  /** Re-entrant tunings and note names without octave have no lowest note that means anything. */
  noBass?: boolean;
}

/** One way to read a set of notes. */
export interface Reading {
  /** Canonical symbol. A third that is missing and tones that are added stand in it; a missing fifth does not. */
  symbol: string;
  /** Roles of the chord's tones that are not among the notes. */
  omitted: string[];
  /** Roles of the notes that the plain chord does not contain. */
  added: string[];
  /** The root is understood, not played. */
  rootless: boolean;
  /** Share of certainty, 0 to 1, among all readings. */
  score: number;
  /** Chords of the same quality and notes on other roots (diminished sevenths, augmented triads …). */
  equals: string[];
}

/** Costs are common practice: how far a reading is from what a musician would say first. */
const ROOTLESS = 2;
/** A suspension is heard from its own bass note. */
const HANGING = 1;
/** A triad of two notes without its fifth; a tone missing over a foreign bass; a bass that is no tone of the chord. */
const BARE = 1;
const BROKEN = 1.5;
const STRANGE_BASS = 2;
/** What costs more is no name for the notes (common practice, like all of these). */
const MOST_COST = 9;
const ADDED = 1.6;
const ADDED_ALTERED = 3.2;
/** A second name on the same root says little new. */
const SAME_ROOT = 0.8;
const FOREIGN_BASS = 1.6;
const BASS_COST: Record<number, number> = { 1: 0, 3: 0.9, 5: 0.7, 7: 1.2, 6: 1.2 };
/** Certainty falls by e for this much cost. */
const TEMPERATURE = 0.7;
const KEPT = 14;
/** A neighbor stands on the same root, which lies in the bass here; without a third both are colors of one harmony. */
const SHARED_ROOT = 0.3;
const SHARED_COLOR = 1.6;
/** A note is spelled as another degree than the name says; worst between a lowered fifth and a raised eleventh. */
const MISSPELLED = 0.3;
const FIFTH_OR_ELEVENTH = 0.9;

interface Found {
  root: PitchClass;
  template: Template;
  omitted: string[];
  added: string[];
  rootless: boolean;
  /** The bass is foreign to the upper chord. */
  foreign: boolean;
  inverted: boolean;
  cost: number;
}

/** Ranks readings of a set of notes, most likely first; empty for notes that cannot be read (see `chordReadings`). */
export function identifyChords(request: Identify): Reading[] {
  const result = chordReadings(request);
  return result.ok ? result.value : [];
}

/**
 * Errors: `identify.note` names the text that is not a note; `identify.few` for fewer than two different notes; `key.*`
 * for the key.
 */
export function chordReadings({ pitches, bass, key, noBass, soundsOnly, before, after }: Identify): Result<Reading[]> {
  const names = new Map<PitchClass, NoteName>();
  let lowest: { midi: number; pc: PitchClass } | null = null;
  for (const text of bass === undefined ? pitches : [bass, ...pitches]) {
    const read = readNote(text);
    if (!read)
      return fail("identify.note", `"${text}" is not a note`, {
        hint: "Write notes like Eb4, or Eb without an octave.",
      });
    if (!names.has(read.pc)) names.set(read.pc, read.name);
    if (read.midi !== null && (!lowest || read.midi < lowest.midi)) lowest = { midi: read.midi, pc: read.pc };
  }
  if (names.size < 2)
    return fail("identify.few", "A chord needs at least two different notes", { hint: "Play or name another note." });
  let parsedKey: Key | null = null;
  if (key) {
    const read = parseKey(key);
    if (!read.ok) return read;
    parsedKey = read.value;
  }
  let bassNote: number | null;
  if (bass === undefined) {
    if (noBass || !lowest) bassNote = null;
    else bassNote = lowest.pc;
  } else bassNote = sure(readNote(bass)).pc;
  const beside = [before, after].flatMap((symbol): Beside[] => {
    const chord = symbol === undefined ? null : parseChord(symbol);
    return chord?.ok ? [{ root: rootPc(chord.value), open: !chord.value.tones.some((t) => t.degree === 3) }] : [];
  });
  return ok(
    rank([...names.keys()], soundsOnly ? new Map() : names, {
      bass: bassNote,
      explicit: bass !== undefined,
      key: parsedKey,
      beside,
    }),
  );
}

function readNote(text: string): { pc: PitchClass; name: NoteName; midi: number | null } | null {
  const plain = parseNote(text);
  if (plain) return { pc: spelledPc(plain), name: noteName(plain), midi: null };
  const midi = parsePitch(text);
  if (!midi.ok) return null;
  return { pc: mod(midi.value, 12), name: noteOf(text), midi: midi.value };
}

const rotate = (mask: number, by: number): number => ((mask >> by) | (mask << (12 - by))) & 0xfff;

/** What was found, the likeliest first: what stands around counts; a second name on one root is less likely. */
function ordered(found: readonly Found[], around: (f: Found) => number): Found[] {
  const plain = new Set(found.flatMap((f) => (f.added.length || f.rootless || f.foreign ? [] : [f.root])));
  const keyed = found
    .filter((f) => !f.added.length || !plain.has(f.root))
    .map((f) => ({
      ...f,
      cost: f.cost + around(f),
    }))
    .sort((a, b) => a.cost - b.cost);
  symmetric(keyed);
  const named = new Set<string>();
  for (const f of keyed) {
    const id = `${f.root}:${f.rootless}`;
    if (named.has(id)) f.cost += SAME_ROOT;
    named.add(id);
  }
  return keyed.sort((a, b) => a.cost - b.cost);
}

/**
 * The bass, so far above the root, may stand apart from the chord of `size` notes above it, unless that is built on it.
 * A sixth or seventh in the bass is an inversion, not a foreign bass.
 */
const mayStandApart = (bass: number, size: number): boolean => bass !== 0 && size > 3 && bass < 9;

function rank(
  pcs: readonly PitchClass[],
  names: Map<PitchClass, NoteName>,
  {
    bass,
    explicit,
    key,
    beside,
  }: { bass: PitchClass | null; explicit: boolean; key: Key | null; beside: readonly Beside[] },
): Reading[] {
  const notes = pcs.reduce((m, pc) => m | (1 << pc), 0);
  const found: Found[] = [];
  const asked = { size: pcs.length, explicit };
  const put = (one: Found | null) => one && found.push(one);
  for (let root = 0; root < 12; root++) {
    const above = rotate(notes, root);
    const bassAbove = bass === null ? null : mod(bass - root, 12);
    const whole: Above = { ...asked, above, bass: bassAbove, foreign: false };
    for (const template of TEMPLATES) put(weigh(root, template, whole));
    if (bassAbove === null || !mayStandApart(bassAbove, pcs.length)) continue;
    const upper: Above = { ...asked, above: above & ~(1 << bassAbove), bass: bassAbove, foreign: true };
    for (const template of TEMPLATES) if (!(template.mask & (1 << bassAbove))) put(weigh(root, template, upper));
  }
  const keyed = ordered(found, (f) => keyCost(f, key) + spellingCost(f, names) + besideCost(f, beside));
  const seen = new Set<string>();
  const kept: (Found & { symbol: string })[] = [];
  for (const f of keyed) {
    const symbol = spellReading(f, names, bass, { explicit, key });
    const id = symbol && `${symbol}:${f.rootless}`;
    if (!symbol || seen.has(sure(id))) continue;
    seen.add(sure(id));
    kept.push({ ...f, symbol });
    if (kept.length === KEPT) break;
  }
  const weights = kept.map((f) => Math.exp(-f.cost / TEMPERATURE));
  const total = weights.reduce((a, b) => a + b, 0);
  return kept.map((f, i) => ({
    symbol: f.symbol,
    omitted: f.omitted,
    added: f.added,
    rootless: f.rootless,
    score: nth(weights, i) / total,
    equals: isSymmetric(f)
      ? kept.filter((o) => o !== f && o.template === f.template && isSymmetric(o)).map((o) => o.symbol)
      : [],
  }));
}

/** Notes above a root as they are weighed against a template: which of the twelve, the bass, how they were asked. */
interface Above {
  above: number;
  bass: number | null;
  /** The bass stands apart from the chord. */
  foreign: boolean;
  /** How many different notes there are in all. */
  size: number;
  explicit: boolean;
}

/** What leaving out tones of a template costs, and which they are; null where one cannot be left out. */
function leftOut(
  t: Template,
  { above, foreign, size }: Above,
  rootless: boolean,
): { cost: number; omitted: string[] } | null {
  const omitted: string[] = rootless ? ["R"] : [];
  let cost = 0;
  for (let rest = t.mask & ~above & ~1; rest; rest &= rest - 1) {
    const allowed = t.optional.get(rest & -rest);
    if (!allowed || (rootless && !["5", "9", "11"].includes(allowed.label))) return null;
    // Two notes alone hardly make a triad without its fifth, and a chord over a foreign bass is heard when it is whole.
    const bare = allowed.label === "5" && (size < 3 || (t.suspended && size < 4));
    cost += allowed.cost + (bare ? BARE : 0) + (foreign ? BROKEN : 0);
    omitted.push(allowed.label);
  }
  return { cost, omitted };
}

/** What notes outside a template cost, and what they are called; null where one has no name there. */
function putIn(t: Template, { above }: Above, rootless: boolean): { cost: number; added: string[] } | null {
  const added: string[] = [];
  let cost = 0;
  for (let rest = above & ~t.mask; rest; rest &= rest - 1) {
    const name = addedName(t, 31 - Math.clz32(rest & -rest));
    if (!name || rootless) return null;
    added.push(name);
    cost += name.length > 1 && !/^1/.test(name) ? ADDED_ALTERED : ADDED;
  }
  return { cost, added };
}

/** What an inversion costs; null where a chord of four notes and more would stand on a tension. */
function onBass(t: Template, { bass, foreign, size }: Above, rootless: boolean): number | null {
  if (bass === null || bass === 0 || foreign || rootless) return 0;
  const degree = t.tones.find((x) => x.semitones % 12 === bass)?.degree;
  if (degree === undefined) return STRANGE_BASS;
  return degree > 7 && size > 3 ? null : (BASS_COST[degree] ?? STRANGE_BASS);
}

/** A root is only understood where third and seventh are there to point to it. */
const mayLackRoot = (t: Template, { foreign, size }: Above): boolean =>
  !foreign && size >= 3 && t.seventh && !t.suspended;

/** What a suspension that hangs, a root that is not there, and a foreign bass cost. */
function kindCost(t: Template, { bass, foreign, size, explicit }: Above, rootless: boolean): number {
  const hanging = t.suspended && size > 3 && bass !== 0 ? HANGING : 0;
  const lacking = rootless ? ROOTLESS + (explicit ? 1 : 0) : 0;
  return hanging + lacking + (foreign ? FOREIGN_BASS : 0);
}

/** The notes as a template over a root; null where they are not it. */
function weigh(root: PitchClass, t: Template, notes: Above): Found | null {
  const { above, bass, foreign } = notes;
  const rootless = !(above & 1);
  if (t.mask & ~above & ~1 & ~t.spare) return null;
  if (rootless && !mayLackRoot(t, notes)) return null;
  const lacks = leftOut(t, notes, rootless);
  const more = lacks && putIn(t, notes, rootless);
  const standing = more && onBass(t, notes, rootless);
  if (!lacks || !more || standing === null) return null;
  const cost = t.cost + kindCost(t, notes, rootless) + lacks.cost + more.cost + standing;
  if (cost > MOST_COST) return null;
  const inverted = bass !== null && bass !== 0;
  return { root, template: t, omitted: lacks.omitted, added: more.added, rootless, foreign, inverted, cost };
}

/** In a key, chords made of its notes come to mind first. */
function keyCost(f: Found, key: Key | null): number {
  if (!key) return 0;
  const outside = f.template.tones.filter((t) => !key.pcs.includes(mod(f.root + t.semitones, 12))).length;
  return Math.min(0.4, outside * 0.12) + (key.pcs.includes(f.root) ? 0 : 0.15);
}

/** A chord beside the notes: its root, and whether it has no third. */
interface Beside {
  root: PitchClass;
  open: boolean;
}

function besideCost(f: Found, beside: readonly Beside[]): number {
  const same = f.inverted ? [] : beside.filter((b) => b.root === f.root);
  if (!same.length) return 0;
  return f.omitted.includes("3") && same.some((b) => b.open) ? -SHARED_COLOR : -SHARED_ROOT;
}

/** Who spells a note says what it is: F sharp over C is no lowered fifth. */
function spellingCost(f: Found, names: Map<PitchClass, NoteName>): number {
  const root = names.get(f.root);
  if (root === undefined) return 0;
  let cost = 0;
  for (const t of f.template.tones) {
    const name = names.get(mod(f.root + t.semitones, 12));
    if (name === undefined || name === toneName({ root }, t)) continue;
    cost += t.semitones % 12 === 6 ? FIFTH_OR_ELEVENTH : MISSPELLED;
  }
  return cost;
}

const isSymmetric = (f: Found): boolean =>
  !f.rootless &&
  !f.foreign &&
  !f.added.length &&
  !f.omitted.length &&
  [3, 4, 6].some((by) => rotate(f.template.mask, by) === f.template.mask);

/**
 * Chords that repeat themselves within the octave have one sound and several roots: the others follow the first at
 * once.
 */
function symmetric(found: Found[]): void {
  const leaders = new Map<Template, number>();
  for (const f of found) {
    if (!isSymmetric(f)) continue;
    const first = leaders.get(f.template);
    if (first === undefined) leaders.set(f.template, f.cost);
    else f.cost = Math.min(f.cost, first + 0.01);
  }
}

const MINOR_ROOTS = ["C", "C#", "D", "Eb", "E", "F", "F#", "G", "G#", "A", "Bb", "B"];
const MAJOR_ROOTS = ["C", "Db", "D", "Eb", "E", "F", "F#", "G", "Ab", "A", "Bb", "B"];

/** Whether the symbol must say that the third is left out; an eleventh chord does without its major third anyway. */
const lacksThird = ({ omitted, template }: Found): boolean =>
  omitted.includes("b3") || (omitted.includes("3") && !template.tones.some((t) => t.degree === 11));

/** Diminished chords outside a key lead up to the root above them. */
const leadsUp = ({ tones }: Template): boolean =>
  tones.some((t) => t.degree === 5 && t.alter === -1) && tones.some((t) => t.degree === 3 && t.alter === -1);

function spellReading(
  f: Found,
  names: Map<PitchClass, NoteName>,
  bass: PitchClass | null,
  { explicit, key }: { explicit: boolean; key: Key | null },
): string | null {
  const usual = f.template.tones.some((t) => t.degree === 3 && t.alter === -1) ? MINOR_ROOTS : MAJOR_ROOTS;
  const root = names.get(f.root) ?? (key ? rootInKey(f.root, key, leadsUp(f.template)) : nth(usual, f.root));
  const extras = f.added.map((a) => `add${a}`);
  if (lacksThird(f)) extras.push("no3");
  const chord = parseChord(root + f.template.quality + (extras.length ? `(${extras.join(",")})` : ""));
  if (!chord.ok) return null;
  const slash = bass !== null && bass !== f.root && !isSymmetric(f) && (!f.rootless || explicit);
  if (!slash) return chordSymbol(chord.value);
  return chordSymbol({
    ...chord.value,
    bass: names.get(bass) ?? chordToneName(chord.value, bass) ?? (key ? rootInKey(bass, key) : nth(usual, bass)),
  });
}

/** Whether the first reading is far enough ahead of the next different one to be taken as the name. */
export const isSure = (readings: readonly Reading[]): boolean => {
  const [first] = readings;
  const next = readings.find((r) => r !== first && !sure(first).equals.includes(r.symbol));
  return first !== undefined && (!next || first.score > 1.4 * next.score);
};
