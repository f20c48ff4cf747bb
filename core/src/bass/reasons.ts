import { nameInKey } from "../pitch/key";
import { mod, pitchName, transposeNote, type Midi } from "../pitch/pitch";
import { bassPc, chordToneName, toneRole } from "../chord/chord";
import type { RealNote } from "../song/realize";
import type { Reason } from "../song/schema";
import type { RoleSpan } from "../slice/roles";
import { chordAt, type BassContext } from "./context";
import type { PitchSlot } from "./pitches";

/** A slot with the pitch that was chosen for it. */
export interface Chosen {
  slot: PitchSlot;
  midi: Midi;
}

/** Chord tones as the chord spells them, approach notes with the letter beside their target, other tones as the key does. */
export function spell(ctx: BassContext, { slot, midi }: Chosen, next?: Chosen): string {
  const pc = mod(midi, 12);
  const own = slot.chord?.chord && chordToneName(slot.chord.chord, pc);
  if (own) return pitchName(midi, own);
  const distance = next ? midi - next.midi : 0;
  if (next && distance === 0) return spell(ctx, { slot: next.slot, midi });
  const beside =
    next && Math.abs(distance) <= 2 ? transposeNote(spell(ctx, next).replace(/-?\d+$/, ""), Math.sign(distance), distance) : null;
  if (beside && beside.length <= 2) return pitchName(midi, beside);
  return pitchName(midi, nameInKey(pc, ctx.key));
}

const letter = (pitch: string): string => pitch.replace(/-?\d+$/, "");

/** Why each note of a written line is there. */
export function reasonFor(ctx: BassContext, line: readonly Chosen[], i: number, pedal: boolean): Reason {
  const { slot, midi } = line[i]!;
  const chord = slot.chord!.chord!;
  const next = line[(i + 1) % line.length]!;
  const pc = mod(midi, 12);
  const pitch = letter(spell(ctx, line[i]!, next));
  const { role, inChord } = toneRole(chord, pc);
  const symbol = slot.chord!.symbol;
  if (pedal) return { id: "pedal", params: { pitch, chord: symbol } };
  if (!inChord) {
    const target = letter(spell(ctx, next));
    if (next.midi === midi) return { id: "anticipation", params: { chord: next.slot.chord?.symbol ?? symbol } };
    const interval = Math.abs(next.midi - midi) === 1 ? "semitone" : "whole tone";
    const previous = line[i - 1];
    if (slot.use === "scale" && chordAt(ctx, next.slot.start) === slot.chord && previous)
      return previous.midi === next.midi ? { id: "neighbor" } : { id: "scaleStep", params: { from: letter(spell(ctx, previous)), target } };
    return { id: next.midi > midi ? "approachBelow" : "approachAbove", params: { target, interval } };
  }
  const kick = ctx.kicks.find((k) => k.start === slot.start);
  if (pc === bassPc(chord)) {
    const first = line.findIndex((s) => s.slot.chord === slot.chord && mod(s.midi, 12) === pc);
    if (first < i && midi - line[first]!.midi === 12 && slot.use !== "anchor") return { id: "octave" };
    const kind = chord.bass ? "bass" : "root";
    const params = { pitch, chord: symbol };
    if (slot.use === "weave" && slot.with) return { id: "weave", params: { ...params, with: slot.with } };
    if (kick) return { id: kick.main ? `${kind}OnKick` : `${kind}WithKick`, params };
    if (slot.use === "turn") return { id: "turn", params: { role: "Root", chord: symbol } };
    if (slot.start === slot.chord!.start) return { id: `${kind}OnBeat`, params };
    if (slot.inGap && slot.use !== "anchor") return { id: "gap", params: { role: "Root", chord: symbol } };
    return { id: `${kind}Hook`, params };
  }
  if (slot.use === "turn") return { id: "turn", params: { role, chord: symbol } };
  if (slot.use === "anchor" && !kick) return { id: "inversion", params: { role, chord: symbol } };
  if (slot.use === "approach" && role !== "5") return { id: "fill", params: { role, chord: symbol } };
  if (slot.use === "weave" && slot.with) return { id: "weaveTone", params: { role, chord: symbol, with: slot.with } };
  if (role === "5") {
    if (next.slot.chord?.chord && next.slot.chord !== slot.chord && mod(pc - bassPc(next.slot.chord.chord), 12) === 7)
      return { id: "approachFifth", params: { target: next.slot.chord.chord.root } };
    if (slot.inGap) return { id: "gap", params: { role, chord: symbol } };
    return { id: "fifth", params: { chord: symbol } };
  }
  if (slot.inGap) return { id: "gap", params: { role, chord: symbol } };
  if (role === "3" || role === "b3") return { id: "third", params: { chord: symbol } };
  if (role === "7" || role === "b7") return { id: "seventh", params: { chord: symbol } };
  return { id: "chordTone", params: { role, chord: symbol } };
}

/** The reason of a note: the stored one, the user's pin, or what its place justifies; null when nothing does. */
export function reasonOf(note: RealNote, spans: readonly RoleSpan[], onKick: boolean): Reason | null {
  if (note.reason) return note.reason;
  if (note.pinned) return { id: "pinned" };
  const first = spans[0];
  if (!first?.chord) return null;
  const pitch = note.pitch.replace(/-?\d+$/, "");
  if (first.kind === "chord")
    return first.role === "R"
      ? { id: onKick ? "rootWithKick" : "chordTone", params: { pitch, role: "Root", chord: first.chord.symbol } }
      : { id: "chordTone", params: { role: first.role, chord: first.chord.symbol } };
  if (first.kind === "anticipation") return { id: "anticipation", params: { chord: spans[1]?.chord?.symbol ?? "the next chord" } };
  if (first.kind === "outside" || first.kind === "tension" || first.kind === "free") return null;
  return { id: first.kind };
}

/** How well a reason justifies a note, 0–1: what must sound first, what only decorates last (common practice). */
const WORTH: Record<string, number> = {
  rootOnKick: 1,
  bassOnKick: 1,
  rootOnBeat: 0.95,
  bassOnBeat: 0.95,
  pedal: 0.9,
  inversion: 0.9,
  weave: 0.8,
  rootWithKick: 0.75,
  bassWithKick: 0.75,
  weaveTone: 0.7,
  anticipation: 0.65,
  approachFifth: 0.6,
  approachBelow: 0.55,
  approachAbove: 0.55,
  gap: 0.5,
  fill: 0.5,
  turn: 0.5,
  fifth: 0.45,
  octave: 0.4,
  scaleStep: 0.4,
  passing: 0.4,
  rootHook: 0.35,
  bassHook: 0.35,
  third: 0.35,
  seventh: 0.3,
  chordTone: 0.3,
  neighbor: 0.25,
  suspension: 0.5,
};

/** Notes of the user's own count as wanted. */
const OWN = 2;

export const worthOf = (reason: Reason | null, pinned = false): number =>
  pinned || reason?.id === "pinned" || reason?.id === "user" ? OWN : reason ? (WORTH[reason.id] ?? 0.3) : 0;
