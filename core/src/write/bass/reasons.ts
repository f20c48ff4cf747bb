import { isStep } from "../../theory/pitch/interval";
import { nth, sure } from "../../base/list";
import { nameInKey } from "../../theory/pitch/key";
import { mod, noteOf, pitchName, transposeNote, type Midi, type NoteName } from "../../theory/pitch/pitch";
import { bassPc, chordToneName, toneRole, type Chord } from "../../theory/chord/chord";
import type { RealizedNote } from "../../song/realize";
import { because } from "../../song/reasons";
import type { Reason } from "../../song/schema";
import type { KickHit } from "../../hear/slice/accents";
import type { RoleKind, RoleSpan } from "../../hear/slice/roles";
import type { BassContext } from "./context";
import type { PitchSlot } from "./pitches";

/** Kinds of notes of which nothing says why they are there. */
const isUnexplained = (kind: RoleKind): kind is "outside" | "tension" | "free" =>
  kind === "outside" || kind === "tension" || kind === "free";

const WHITE = new Set(["Cb", "Fb", "B#", "E#"]);

/** A slot with the pitch that was chosen for it. */
export interface Chosen {
  slot: PitchSlot;
  midi: Midi;
}

/**
 * Chord tones as the chord spells them, approach notes with the letter beside their target, other tones as the key
 * does.
 */
export function spellBass(ctx: BassContext, { slot, midi }: Chosen, next?: Chosen): string {
  const pc = mod(midi, 12);
  const own = slot.chord?.chord && chordToneName(slot.chord.chord, pc);
  if (own) return pitchName(midi, own);
  const distance = next ? midi - next.midi : 0;
  if (next && distance === 0) return spellBass(ctx, { slot: next.slot, midi });
  const beside =
    next && Math.abs(distance) <= 2 ? transposeNote(noteOf(spellBass(ctx, next)), Math.sign(distance), distance) : null;
  // Names of white keys by another letter are for chords and keys that have them.
  if (beside && beside.length <= 2 && (!WHITE.has(beside) || nameInKey(pc, ctx.key) === beside))
    return pitchName(midi, beside);
  return pitchName(midi, nameInKey(pc, ctx.key));
}

/** A note of a chosen line with what lies around it: all that its reason may speak of. */
interface Placed {
  slot: PitchSlot;
  midi: Midi;
  chord: Chord;
  symbol: string;
  pitch: NoteName;
  role: string;
  previous: Chosen | undefined;
  /** How the note before is written. */
  from: NoteName;
  next: Chosen;
  /** How the next note is written. */
  target: NoteName;
  /** The next note stands under another chord. */
  changes: boolean;
  kick: KickHit | undefined;
  /** Whether there is any kick to stand away from. */
  kicked: boolean;
  /** Whether it lies an octave above the same tone of the same chord. */
  lifted(): boolean;
}

/** A reason, where it is one of this note. */
type Why = (n: Placed) => Reason | null;

const stepsIn = (n: Placed): boolean => n.previous !== undefined && isStep(n.midi - n.previous.midi);
const stepsOn = (n: Placed): boolean => isStep(n.next.midi - n.midi);
const tone = ({ role, symbol }: Placed) => ({ role, chord: symbol });

/** Of a tone outside its chord: how it is reached and left. */
const OUTSIDE: readonly Why[] = [
  (n) =>
    n.next.midi === n.midi && n.changes ? because("anticipation", { chord: n.next.slot.chord?.symbol ?? "" }) : null,
  (n) => (stepsIn(n) && n.previous?.midi === n.next.midi && !n.changes ? because("neighbor") : null),
  (n) => (stepsIn(n) && stepsOn(n) && !n.changes ? because("scaleStep", { from: n.from, target: n.target }) : null),
  (n) => {
    if (!stepsOn(n)) return null;
    const interval = Math.abs(n.next.midi - n.midi) === 1 ? "semitone" : "whole tone";
    return because(n.next.midi > n.midi ? "approachBelow" : "approachAbove", { target: n.target, interval });
  },
];

/** Of the root, or of the bass as it is written. */
const ON_BASS: readonly Why[] = [
  (n) => (n.slot.use !== "anchor" && n.lifted() ? because("octave") : null),
  (n) =>
    n.slot.use === "weave" && n.slot.with
      ? because("weave", { pitch: n.pitch, chord: n.symbol, with: n.slot.with })
      : null,
  (n) => (n.kick ? because(n.kick.main ? `${bassKind(n)}OnKick` : `${bassKind(n)}WithKick`, bassWords(n)) : null),
  (n) => (n.slot.use === "ending" ? because("ending", { role: "Root", chord: n.symbol }) : null),
  (n) => (n.slot.start === n.slot.chord?.start ? because(`${bassKind(n)}OnBeat`, bassWords(n)) : null),
  (n) => (n.slot.inGap && n.slot.use !== "anchor" ? because("gap", { role: "Root", chord: n.symbol }) : null),
  // Without a kick nothing stands away from it.
  (n) => (n.kicked ? because(`${bassKind(n)}Hook`, bassWords(n)) : null),
  (n) => because("chordTone", { role: n.chord.bass ? "Written bass" : "Root", chord: n.symbol }),
];
const bassKind = ({ chord }: Placed) => (chord.bass ? ("bass" as const) : ("root" as const));
const bassWords = ({ pitch, symbol }: Placed) => ({ pitch, chord: symbol });

/** Of another tone of the chord. */
const ON_TONE: readonly Why[] = [
  (n) => (n.slot.use === "ending" ? because("ending", tone(n)) : null),
  (n) => (n.slot.use === "anchor" && !n.kick && (stepsIn(n) || stepsOn(n)) ? because("inversion", tone(n)) : null),
  (n) => (n.slot.use === "approach" && n.role !== "5" && n.changes && stepsOn(n) ? because("fill", tone(n)) : null),
  (n) => (n.slot.use === "weave" && n.slot.with ? because("weaveTone", { ...tone(n), with: n.slot.with }) : null),
  (n) => (n.role === "5" && fallsToBass(n) ? because("approachFifth", { target: n.target }) : null),
  (n) => (n.slot.inGap ? because("gap", tone(n)) : null),
  (n) => (n.role === "5" ? because("fifth", { chord: n.symbol }) : null),
  (n) => (n.role === "3" || n.role === "b3" ? because("third", { chord: n.symbol }) : null),
  (n) => (n.role === "7" || n.role === "b7" ? because("seventh", { chord: n.symbol }) : null),
];

/** Whether it is the fifth above the bass that comes with another chord. */
function fallsToBass({ midi, next, changes }: Placed): boolean {
  const there = next.slot.chord?.chord;
  return changes && there != null && mod(midi - next.midi, 12) === 7 && mod(next.midi, 12) === bassPc(there);
}

const firstOfAll = (list: readonly Why[], n: Placed): Reason => {
  for (const why of list) {
    const reason = why(n);
    if (reason) return reason;
  }
  return because("chordTone", tone(n));
};

/** The first note of the same tone under the same chord: the note itself where it is the first. */
function firstOfChord(line: readonly Chosen[], i: number): Chosen {
  const own = nth(line, i);
  let first = own;
  for (let k = i - 1; k >= 0 && nth(line, k).slot.chord === own.slot.chord; k--)
    if (mod(nth(line, k).midi - own.midi, 12) === 0) first = nth(line, k);
  return first;
}

/** Why each note of a written line is there. */
export function reasonForNote(ctx: BassContext, line: readonly Chosen[], i: number, pedal: boolean): Reason {
  const { slot, midi } = nth(line, i);
  const chord = sure(sure(slot.chord).chord);
  const next = nth(line, (i + 1) % line.length);
  const pc = mod(midi, 12);
  const pitch = noteOf(spellBass(ctx, nth(line, i), next));
  const { role, inChord } = toneRole(chord, pc);
  const symbol = sure(slot.chord).symbol;
  if (pedal) return because("pedal", { pitch, chord: symbol });
  const previous = line[i - 1];
  const placed: Placed = {
    slot,
    midi,
    chord,
    symbol,
    pitch,
    role,
    previous,
    from: previous ? noteOf(spellBass(ctx, previous)) : "",
    next,
    target: noteOf(spellBass(ctx, next)),
    changes: next.slot.chord?.chord != null && next.slot.chord !== slot.chord,
    kick: ctx.kicks.find((k) => k.start === slot.start),
    kicked: ctx.kicks.length > 0,
    lifted: () => midi - firstOfChord(line, i).midi === 12,
  };
  if (!inChord) return firstOfAll(OUTSIDE, placed);
  return firstOfAll(pc === bassPc(chord) ? ON_BASS : ON_TONE, placed);
}

/** The reason of a note: the stored one, the user's pin, or what its place justifies; null when nothing does. */
export function reasonOf(note: RealizedNote, spans: readonly RoleSpan[], onKick: boolean): Reason | null {
  if (note.reason) return note.reason;
  if (note.pinned) return because("pinned");
  const [first, second] = spans;
  if (!first?.chord) return null;
  const pitch = noteOf(note.pitch);
  const { symbol } = first.chord;
  switch (first.kind) {
    case "chord":
      if (onKick && first.role === "R") return because("rootWithKick", { pitch });
      return because("chordTone", { role: first.role === "R" ? "Root" : first.role, chord: symbol });
    case "anticipation":
      return because("anticipation", { chord: second?.chord?.symbol ?? "the next chord" });
    case "pedal":
      return because("pedal", { pitch, chord: symbol });
    default:
      return isUnexplained(first.kind) ? null : because(first.kind);
  }
}
