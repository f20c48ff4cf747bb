/** What a tone outside its chord is called, by how it is reached and left. */
import { chordPitchClasses } from "../../theory/chord/chord";
import type { Key } from "../../theory/pitch/key";
import { mod } from "../../theory/pitch/pitch";
import type { Ticks } from "../../theory/time/meter";
import type { RealizedChord, RealizedNote } from "../../song/realize";
import type { RoleKind } from "./roleKinds";

const isStep = (a: number, b: number): boolean => Math.abs(a - b) >= 1 && Math.abs(a - b) <= 2;

/** A skip of a third. */
const isThird = (a: number, b: number): boolean => Math.abs(a - b) >= 3 && Math.abs(a - b) <= 4;

/** A note that follows, with its chord. */
export interface After {
  midi: number;
  start: Ticks;
  chord: RealizedChord | null;
}

/** A tone outside its chord, with how it is reached and left. */
export interface Around {
  note: RealizedNote;
  chord: RealizedChord | null;
  bass: boolean;
  key: Key;
  /** The note before and the one after, where no long rest lies between; what comes after that. */
  previous: RealizedNote | undefined;
  follows: After | undefined;
  then: RealizedNote | undefined;
  /** It was a tone of the chord before, held or struck again. */
  held: boolean;
  /** It becomes a tone of the chord that comes while it sounds. */
  settles: boolean;
  /** It is one again when it is struck the next time. */
  returns: boolean;
}

export const belongs = (midi: number, chord: RealizedChord | null): boolean =>
  chord?.chord != null && chordPitchClasses(chord.chord).includes(mod(midi, 12));
const comes = ({ note, previous }: Around): boolean => previous !== undefined && isStep(previous.midi, note.midi);
const leaves = ({ note, follows }: Around): boolean => follows !== undefined && isStep(note.midi, follows.midi);
const resolves = ({ follows }: Around): boolean => follows !== undefined && belongs(follows.midi, follows.chord);
const changes = ({ follows, chord }: Around): boolean => follows !== undefined && follows.chord !== chord;

/** It goes on in the direction from which it came. */
const goesOn = ({ note, previous, follows }: Around): boolean =>
  previous !== undefined &&
  follows !== undefined &&
  previous.midi !== follows.midi &&
  (note.midi - previous.midi) * (follows.midi - note.midi) > 0;

/** A step, a skip of a third on in the same direction, and a step back: the figure of strict counterpoint. */
const skipsOn = (a: Around): boolean =>
  a.follows !== undefined &&
  a.then !== undefined &&
  comes(a) &&
  goesOn(a) &&
  isThird(a.note.midi, a.follows.midi) &&
  isStep(a.follows.midi, a.then.midi) &&
  Math.sign(a.then.midi - a.follows.midi) === -Math.sign(a.follows.midi - a.note.midi);

const falls = ({ note, follows }: Around): boolean => follows !== undefined && follows.midi < note.midi;

/** What a tone outside its chord can be, the first that holds (any harmony textbook). */
const NAMES: readonly [RoleKind, (a: Around) => boolean][] = [
  ["suspension", (a) => a.held && leaves(a) && falls(a)],
  ["retardation", (a) => a.held && leaves(a)],
  ["pedal", (a) => (a.held && a.returns) || a.note.reason?.id === "pedal"],
  ["anticipation", (a) => a.settles || (a.follows?.midi === a.note.midi && changes(a) && resolves(a))],
  ["approach", (a) => a.bass && leaves(a) && changes(a) && resolves(a)],
  ["passing", (a) => comes(a) && leaves(a) && goesOn(a)],
  ["neighbor", (a) => comes(a) && leaves(a)],
  ["approach", (a) => a.bass && leaves(a) && resolves(a)],
  ["appoggiatura", (a) => leaves(a) && resolves(a)],
  ["cambiata", skipsOn],
  ["escape", (a) => comes(a) && a.follows !== undefined && a.key.pcs.includes(mod(a.note.midi, 12))],
];

/** The name that its surroundings justify for a tone outside its chord; "outside" where none does. */
export const nameIn = (around: Around): RoleKind => NAMES.find(([, holds]) => holds(around))?.[0] ?? "outside";
