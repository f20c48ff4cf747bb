import { firstOf, nth } from "../../base/list";
import { mod, pitchMidi, pitchName, typeset, type Midi, type NoteName, type PitchName } from "../../theory/pitch/pitch";
import { chordToneName, rootPc, type Chord } from "../../theory/chord/chord";
import { chordOf } from "../../theory/chord/progression";
import { because } from "../../song/reasons";
import type { Reason } from "../../song/schema";

/** One way to hear a chord one is not sure of. */
export interface Heard {
  /** What is heard: "with F below". */
  label: string;
  /** Low to high. */
  pitches: PitchName[];
  /** Readings that stand where this one is the right one, the most likely first. */
  keeps: string[];
  /** What is kept with the chord then. */
  why: Reason;
}

/** The smallest listening test that divides the readings of a chord. */
export interface ListeningTest {
  question: string;
  ways: Heard[];
}

/** The lowest note under a chord lies in the octave from here; the tones that decide lie in the one above middle C. */
const LOW: Midi = 36;
const HIGH: Midi = 60;
/** More ways than these are no comparison any more. */
const MOST_WAYS = 3;

interface Read {
  symbol: string;
  chord: Chord;
}

const pcsOf = ({ root, tones }: Chord): number[] => tones.map((t) => mod(rootPc({ root } as Chord) + t.semitones, 12));
const inOctave = (from: Midi, pc: number, name: NoteName): PitchName => pitchName(from + mod(pc - from, 12), name);
const listed = (words: readonly string[]): string =>
  words.length < 2 ? words.join("") : `${words.slice(0, -1).join(", then ")}, then ${words.at(-1) ?? ""}`;

/** Readings by something that tells them apart, in their order. */
function grouped(reads: readonly Read[], by: (read: Read) => string): Read[][] {
  const groups = new Map<string, Read[]>();
  for (const r of reads) groups.set(by(r), [...(groups.get(by(r)) ?? []), r]);
  return [...groups.values()];
}

/** Notes that all readings agree on: those that were played, or the tones they share. */
function common(reads: readonly Read[], played: readonly PitchName[] | undefined): PitchName[] {
  if (played?.length) return [...played];
  const [first, ...others] = reads.map((r) => r.chord);
  if (!first) return [];
  return pcsOf(first)
    .filter((pc) => others.every((o) => pcsOf(o).includes(pc)))
    .map((pc) => inOctave(HIGH, pc, chordToneName(first, pc) ?? "C"))
    .sort((a, b) => pitchMidi(a) - pitchMidi(b));
}

/**
 * The test by ear that divides the readings of a chord with the fewest notes: roots are told apart by what lies below,
 * chords on one root by one tone that only some of them have. `played`: its notes, where hands have made them. Null
 * where there are not two readings that can be told apart. (Common practice: home is heard from the bass.)
 */
export function listeningTest(readings: readonly string[], played?: readonly PitchName[]): ListeningTest | null {
  const reads = [...new Set(readings)].flatMap((symbol): Read[] => {
    const chord = chordOf(symbol);
    return chord ? [{ symbol, chord }] : [];
  });
  if (reads.length < 2) return null;
  const notes = common(reads, played);
  const roots = grouped(reads, (r) => String(rootPc(r.chord)));
  return roots.length > 1 ? byRoot(roots, notes) : byTone(reads, notes);
}

/** The same notes over each root: which of them is home. */
function byRoot(groups: readonly Read[][], notes: readonly PitchName[]): ListeningTest {
  const shown = groups.slice(0, MOST_WAYS);
  const names = shown.map((g) => firstOf(g).chord.root);
  return {
    question: `These notes with ${listed(names.map(typeset))} below: which is home?`,
    ways: shown.map((group, i): Heard => {
      const root = nth(names, i);
      const low = inOctave(LOW, rootPc(firstOf(group).chord), root);
      return {
        label: `with ${typeset(root)} below`,
        pitches: [low, ...notes.filter((p) => pitchMidi(p) > pitchMidi(low))],
        keeps: group.map((r) => r.symbol),
        why: because("heardHome", { pitch: root }),
      };
    }),
  };
}

/** How evenly a tone divides the readings: the smaller of both halves. */
function dividing(reads: readonly Read[], pc: number): number {
  const having = reads.filter((r) => pcsOf(r.chord).includes(pc)).length;
  return Math.min(having, reads.length - having);
}

/** A tone that only some have: does it belong to it. */
function byTone(reads: readonly Read[], notes: readonly PitchName[]): ListeningTest | null {
  const pcs = [...new Set(reads.flatMap((r) => pcsOf(r.chord)))];
  const best = pcs.reduce((a, pc) => (dividing(reads, pc) > dividing(reads, a) ? pc : a), firstOf(pcs));
  if (!dividing(reads, best)) return null;
  const [having, others] = [true, false].map((has) => reads.filter((r) => pcsOf(r.chord).includes(best) === has));
  const name = chordToneName(firstOf(having ?? []).chord, best) ?? "C";
  const plain = notes.filter((p) => mod(pitchMidi(p), 12) !== best);
  const tone = inOctave(HIGH, best, name);
  const said = (text: string, group: readonly Read[], pitches: PitchName[], why: Reason): Heard => ({
    label: text,
    pitches: pitches.sort((a, b) => pitchMidi(a) - pitchMidi(b)),
    keeps: group.map((r) => r.symbol),
    why,
  });
  return {
    question: `With ${typeset(name)} and without it: which is meant?`,
    ways: [
      said(`with ${typeset(name)}`, having ?? [], [...plain, tone], because("heardWith", { pitch: name })),
      said(`without ${typeset(name)}`, others ?? [], [...plain], because("heardWithout", { pitch: name })),
    ],
  };
}
