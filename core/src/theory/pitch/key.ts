import { firstOf, nth, sure } from "../../base/list";
import { fail, ok, type Result } from "../../base/result";
import {
  mod,
  noteName,
  parseNote,
  pitchClass,
  pitchName,
  plainName,
  transposeNote,
  type Midi,
  type NoteName,
  type PitchClass,
  type PitchName,
} from "./pitch";

/** Semitones of the seven scale steps above the tonic. */
export const MODES = {
  major: [0, 2, 4, 5, 7, 9, 11],
  minor: [0, 2, 3, 5, 7, 8, 10],
  dorian: [0, 2, 3, 5, 7, 9, 10],
  phrygian: [0, 1, 3, 5, 7, 8, 10],
  lydian: [0, 2, 4, 6, 7, 9, 11],
  mixolydian: [0, 2, 4, 5, 7, 9, 10],
  locrian: [0, 1, 3, 5, 6, 8, 10],
} as const satisfies Record<string, readonly number[]>;

export type Mode = keyof typeof MODES;

export interface Key {
  tonic: NoteName;
  mode: Mode;
  /** The seven spelled notes from the tonic up. */
  scale: NoteName[];
  /** Their pitch classes. */
  pcs: PitchClass[];
  /** Number of sharps (positive) or flats (negative) in the signature. */
  signature: number;
  /** Whether notes outside the scale are written with flats by default. */
  flats: boolean;
}

const cache = new Map<string, Result<Key>>();

/** Reads "Eb major", "F# dorian", "c minor", "Am". */
export function parseKey(text: string): Result<Key> {
  const known = cache.get(text);
  if (known) return known;
  const result = readKey(text);
  if (cache.size < 500) cache.set(text, result);
  return result;
}

function readKey(text: string): Result<Key> {
  const hint = 'Write a tonic and a mode: "Eb major", "F# dorian", "Am".';
  const match = /^\s*([A-Ga-g](?:b|#|♭|♯)?)\s*([A-Za-z]*)\s*$/.exec(text);
  const note = match && parseNote(nth(match, 1));
  if (!match || !note) return fail("key.unknown", `"${text}" is not a key`, { hint });
  const word = nth(match, 2);
  const lower = word.toLowerCase();
  const modeOf = () => {
    if (word === "" || lower === "maj" || lower === "ionian") return "major";
    if (lower === "m" || lower === "min" || lower === "aeolian") return "minor";
    return lower;
  };
  const mode = modeOf() as Mode;
  if (!(mode in MODES))
    return fail("key.mode", `"${text}": no mode is called ${word}`, {
      hint: `Modes: ${Object.keys(MODES).join(", ")}.`,
    });
  const tonic = noteName(note);
  const scale = MODES[mode].map((semitones, i) => transposeNote(tonic, i, semitones));
  const signature = scale.reduce((sum, name) => sum + sure(parseNote(name)).alter, 0);
  if (Math.abs(signature) > 7)
    return fail("key.signature", `"${text}" would need ${Math.abs(signature)} accidentals`, {
      hint: `Write it as ${plainName(pitchClass(tonic), signature > 0)} ${mode}.`,
    });
  const minorish = MODES[mode][2] === 3;
  return ok({
    tonic,
    mode,
    scale,
    pcs: scale.map(pitchClass),
    signature,
    flats: signature < 0 || (signature === 0 && minorish),
  });
}

export const keyName = (key: Key): string => `${key.tonic} ${key.mode}`;

/** Name of a pitch class in a key: the scale's own name, otherwise a flat or sharp as the key suggests. */
export function nameInKey(pc: PitchClass, key: Key): NoteName {
  const index = key.pcs.indexOf(mod(pc, 12));
  if (index >= 0) return nth(key.scale, index);
  // The raised fourth and (in minor) the raised sixth and seventh are written as raised notes, whatever the signature.
  const above = mod(pc - firstOf(key.pcs), 12);
  let raised: 3 | -1 | 5 | 6;
  if (above === 6) raised = 3;
  else if (MODES[key.mode][2] === 3 && above === 11) raised = 6;
  else if (MODES[key.mode][2] === 3 && above === 9) raised = 5;
  else raised = -1;
  return raised < 0 ? plainName(pc, key.flats || above === 10 || above === 3) : transposeNote(key.tonic, raised, above);
}

/**
 * Letters above the tonic by which roots outside the scale are named: lowered degrees, and raised ones that lead up.
 */
const LOWERED = [0, 1, 1, 2, 2, 3, 4, 4, 5, 5, 6, 6];
const RAISED = [0, 0, 1, 1, 2, 3, 3, 4, 4, 5, 5, 6];
/**
 * Names that are only read where the signature is near them: accidentals a key must have at least, flats below nought.
 */
export const FAR: Record<string, number> = { Cb: -3, Fb: -5, "E#": 5, "B#": 6 };

/**
 * Name of a chord's root in a key. Outside the scale it is what it is there: a lowered degree (♭II, ♭III, ♭VI, ♭VII),
 * or, with `leads`, a raised one, as diminished chords are that lead up by a semitone. Plain where the exact name would
 * be hard to read (common practice).
 */
export function rootInKey(pc: PitchClass, key: Key, leads = false): NoteName {
  const index = key.pcs.indexOf(mod(pc, 12));
  if (index >= 0) return nth(key.scale, index);
  const above = mod(pc - firstOf(key.pcs), 12);
  const name = transposeNote(key.tonic, nth(leads ? RAISED : LOWERED, above), above);
  const far = FAR[name];
  const readable =
    Math.abs(sure(parseNote(name)).alter) < 2 &&
    (far === undefined || (far < 0 ? key.signature <= far : key.signature >= far));
  return readable ? name : plainName(pc, !leads);
}

export const spellInKey = (midi: Midi, key: Key): PitchName => pitchName(midi, nameInKey(mod(midi, 12), key));

/** The next scale note above (+1) or below (−1) a MIDI number. */
export function scaleStep(midi: Midi, direction: 1 | -1, key: Key): Midi {
  let next = midi + direction;
  while (!key.pcs.includes(mod(next, 12))) next += direction;
  return next;
}

/** The key a number of semitones higher, respelled when its signature would pass seven accidentals. */
export function transposeKey(key: Key, semitones: number): Key {
  const pc = mod(firstOf(key.pcs) + semitones, 12);
  const readings = [plainName(pc, true), plainName(pc, false)].map((name) => parseKey(`${name} ${key.mode}`));
  const good = readings.flatMap((r) => (r.ok ? [r.value] : []));
  return firstOf(good.sort((a, b) => Math.abs(a.signature) - Math.abs(b.signature)));
}
