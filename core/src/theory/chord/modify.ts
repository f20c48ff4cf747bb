import { nth, sure } from "../../base/list";
import { mod, noteName, parseNote, pitchClass, type NoteName } from "../pitch/pitch";
import { nameInKey, rootInKey, type Key } from "../pitch/key";
import { chordPitchClasses, chordToneName, rootPc, toneName, toneRole, type Chord, type ChordTone } from "./chord";
import { identifyChords, type Reading } from "./identify";
import { parseChord } from "./parse";
import { chordOfTones } from "./ofTones";

/** What can be switched on and off in a chord where it stands. */
export const COLORS = ["seventh", "ninth", "thirteenth", "sixth", "sus4", "sus2", "third"] as const;
export type Color = (typeof COLORS)[number];

type Plain = Pick<ChordTone, "degree" | "alter">;

export const hasColor = (chord: Chord, color: Color): boolean => {
  const has = (degree: number) => chord.tones.some((t) => t.degree === degree);
  return {
    seventh: has(7),
    ninth: has(9),
    thirteenth: has(13),
    sixth: has(6),
    sus4: has(4),
    sus2: has(2),
    third: has(3),
  }[color];
};

type Without = (...degrees: number[]) => Plain[];
type InKey = (semitones: number) => boolean;

/** The third that the key has. */
const thirdIn = (inKey: InKey): Plain => ({ degree: 3, alter: inKey(3) && !inKey(4) ? -1 : 0 });

/** Which degrees a color is, and which give way when it comes; a suspension that goes gives the third back. */
const COLOR_TONES: Record<Color, { is: number[]; replaces: number[] }> = {
  seventh: { is: [7], replaces: [6] },
  ninth: { is: [9], replaces: [] },
  thirteenth: { is: [13], replaces: [6] },
  sixth: { is: [6], replaces: [7, 13] },
  sus4: { is: [4], replaces: [3, 2, 11] },
  sus2: { is: [2], replaces: [3, 4, 9] },
  third: { is: [3], replaces: [2, 4] },
};

function withoutColor(color: Color, without: Without, inKey: InKey): Plain[] {
  if (color === "sus4" || color === "sus2") return [...without(4, 2), thirdIn(inKey)];
  return without(...COLOR_TONES[color].is);
}

function withColor(color: Color, { chord, without, inKey }: { chord: Chord; without: Without; inKey: InKey }): Plain[] {
  const { tones } = chord;
  const dominant = tones.some((t) => t.role === "3") && tones.some((t) => t.role === "b7");
  /** Over a dominant as the key has it: lowered where it has only the lowered one. */
  const tension = (degree: number, semitones: number): Plain => ({
    degree,
    alter: dominant && !inKey(semitones) && inKey(semitones - 1) ? -1 : 0,
  });
  const seventh: Plain = { degree: 7, alter: sevenths(chord, inKey) };
  const rest = without(...COLOR_TONES[color].replaces);
  const own: Record<Color, () => Plain[]> = {
    seventh: () => [seventh],
    ninth: () => [tension(9, 2)],
    // A thirteenth chord is built on its seventh and ninth.
    thirteenth: () => [
      ...(tones.some((t) => t.degree === 7) ? [] : [seventh]),
      ...(tones.some((t) => t.degree === 9 || t.degree === 2) ? [] : [{ degree: 9, alter: 0 }]),
      tension(13, 9),
    ],
    sixth: () => [{ degree: 6, alter: 0 }],
    sus4: () => [{ degree: 4, alter: 0 }],
    sus2: () => [{ degree: 2, alter: 0 }],
    third: () => [thirdIn(inKey)],
  };
  return [...rest, ...own[color]()];
}

/** The chord with a color switched on (as the key has it, where it has one) or off. */
export function toggleColor(chord: Chord, color: Color, key: Key): Chord {
  const { tones } = chord;
  const without = (...degrees: number[]): Plain[] => tones.filter((t) => !degrees.includes(t.degree));
  const inKey = (semitones: number) => key.pcs.includes(mod(rootPc(chord) + semitones, 12));
  const plain = hasColor(chord, color)
    ? withoutColor(color, without, inKey)
    : withColor(color, { chord, without, inKey });
  return chordOfTones(chord.root, plain, chord.bass);
}

function sevenths(chord: Chord, inKey: (semitones: number) => boolean): number {
  if (chord.tones.some((t) => t.role === "b5") && chord.tones.some((t) => t.role === "b3")) return inKey(10) ? 0 : -1;
  return inKey(11) && !inKey(10) ? 1 : 0;
}

/** The chord over another bass note; the root takes the slash away. */
export function withBass(chord: Chord, bass: NoteName | null): Chord {
  const { bass: _, ...upper } = chord;
  return bass === null || pitchClass(bass) === rootPc(chord) ? upper : { ...upper, bass };
}

export interface Bent {
  symbol: string;
  /** The tone before and after: note names and roles. */
  from: { note: NoteName; role: string };
  to: { note: NoteName; role: string };
  /** Other names for the same notes. */
  readings: Reading[];
}

/**
 * Bends one tone of a chord by a semitone and names the result: on the same root where the notes allow it, otherwise by
 * their best reading over the chord's bass. Null when fewer than two different notes would be left.
 */
export function bendTone(chord: Chord, index: number, direction: 1 | -1, key: Key): Bent | null {
  const bent = chord.tones[index];
  if (!bent) return null;
  const root = rootPc(chord);
  const fromNote = toneName(chord, bent);
  const target = mod(root + bent.semitones + direction, 12);
  // A bent note keeps its letter where one accidental suffices, otherwise it takes the key's name.
  const letter = sure(parseNote(fromNote));
  const alter = letter.alter + direction;
  const toNote = Math.abs(alter) <= 1 ? noteName({ step: letter.step, alter }) : nameInKey(target, key);
  const others = chord.tones.filter((_, i) => i !== index).map((t) => toneName(chord, t));
  const pitches = [...others, toNote];
  const bass = chord.bass ?? (index === 0 ? toNote : chord.root);
  const readings = identifyChords({ pitches, bass, key: `${key.tonic} ${key.mode}` });
  const best =
    index === 0
      ? readings[0]
      : (readings.find((r) => sameRoot(r.symbol, chord.root) && !r.rootless && r.score > 0.1) ?? readings[0]);
  if (!best) return null;
  const parsed = parseChord(best.symbol);
  if (!parsed.ok) return null;
  return {
    symbol: best.symbol,
    from: { note: fromNote, role: bent.role },
    to: { note: toNote, role: toneRole(parsed.value, target).role },
    readings: readings.filter((r) => r.symbol !== best.symbol).slice(0, 4),
  };
}

const sameRoot = (symbol: string, root: NoteName): boolean => /^[A-G](?:bb|b|##|#)?/.exec(symbol)?.[0] === root;

/**
 * A chord moved along the scale: its root and bass by steps, its quality as the scale has it there (triads, sevenths,
 * ninths; suspensions stay).
 */
export function moveInScale(chord: Chord, steps: number, key: Key): Chord {
  const at = (note: NoteName): NoteName => {
    const pc = pitchClass(note);
    const exact = key.pcs.indexOf(pc);
    // A note between two scale notes stays as far above the lower one.
    const index =
      exact >= 0
        ? exact
        : key.pcs.findIndex((_, i) => key.pcs.includes(mod(pc - 1, 12)) && key.pcs[i] === mod(pc - 1, 12));
    if (index < 0) return note;
    const moved = nth(key.scale, mod(index + steps, 7));
    return exact >= 0 ? moved : nameInKey(mod(pitchClass(moved) + 1, 12), key);
  };
  const root = at(chord.root);
  const outside = chordPitchClasses(chord).some((pc) => !key.pcs.includes(pc));
  const rootName = noteName(sure(parseNote(root)));
  const tones = outside
    ? chord.tones
    : chord.tones.map((t): Plain => {
        if (t.degree === 2 || t.degree === 4) return { degree: t.degree, alter: 0 };
        const natural = sure({ 1: 0, 2: 2, 3: 4, 4: 5, 5: 7, 6: 9, 7: 10, 9: 2, 11: 5, 13: 9 }[t.degree]);
        const step = key.pcs.indexOf(pitchClass(rootName));
        const pc = nth(key.pcs, mod(step + t.degree - 1, 7));
        return { degree: t.degree, alter: mod(pc - pitchClass(rootName) - natural + 6, 12) - 6 };
      });
  return chordOfTones(rootName, tones, chord.bass && at(chord.bass));
}

/** A chord moved by semitones, its root spelled by what it is in the key, its bass as the chord has it. */
export function moveBySemitones(chord: Chord, semitones: number, key: Key): Chord {
  const pcOf = (note: NoteName) => mod(pitchClass(note) + semitones, 12);
  const { bass, ...upper } = chord;
  const leads =
    upper.tones.some((t) => t.degree === 5 && t.semitones === 6) &&
    upper.tones.some((t) => t.degree === 3 && t.semitones === 3);
  const moved: Chord = { ...upper, root: rootInKey(pcOf(chord.root), key, leads) };
  return bass ? { ...moved, bass: chordToneName(moved, pcOf(bass)) ?? rootInKey(pcOf(bass), key) } : moved;
}
