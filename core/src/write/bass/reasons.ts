import { nth, sure } from "../../base/list";
import { nameInKey } from "../../theory/pitch/key";
import { mod, noteOf, pitchName, transposeNote, type Midi } from "../../theory/pitch/pitch";
import { bassPc, chordToneName, toneRole } from "../../theory/chord/chord";
import type { RealizedNote } from "../../song/realize";
import { because } from "../../song/reasons";
import type { Reason } from "../../song/schema";
import type { RoleSpan } from "../../hear/slice/roles";
import type { BassContext } from "./context";
import type { PitchSlot } from "./pitches";

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
export function spell(ctx: BassContext, { slot, midi }: Chosen, next?: Chosen): string {
  const pc = mod(midi, 12);
  const own = slot.chord?.chord && chordToneName(slot.chord.chord, pc);
  if (own) return pitchName(midi, own);
  const distance = next ? midi - next.midi : 0;
  if (next && distance === 0) return spell(ctx, { slot: next.slot, midi });
  const beside =
    next && Math.abs(distance) <= 2 ? transposeNote(noteOf(spell(ctx, next)), Math.sign(distance), distance) : null;
  // Names of white keys by another letter are for chords and keys that have them.
  if (beside && beside.length <= 2 && (!WHITE.has(beside) || nameInKey(pc, ctx.key) === beside))
    return pitchName(midi, beside);
  return pitchName(midi, nameInKey(pc, ctx.key));
}

/** Why each note of a written line is there. */
export function reasonForNote(ctx: BassContext, line: readonly Chosen[], i: number, pedal: boolean): Reason {
  const { slot, midi } = nth(line, i);
  const chord = sure(sure(slot.chord).chord);
  const next = nth(line, (i + 1) % line.length);
  const pc = mod(midi, 12);
  const pitch = noteOf(spell(ctx, nth(line, i), next));
  const { role, inChord } = toneRole(chord, pc);
  const symbol = sure(slot.chord).symbol;
  if (pedal) return because("pedal", { pitch, chord: symbol });
  const previous = line[i - 1];
  const isStep = (a: Midi, b: Midi) => Math.abs(a - b) >= 1 && Math.abs(a - b) <= 2;
  const changes = next.slot.chord?.chord != null && next.slot.chord !== slot.chord;
  if (!inChord) {
    const target = noteOf(spell(ctx, next));
    if (next.midi === midi && changes) return because("anticipation", { chord: sure(next.slot.chord).symbol });
    const comes = previous !== undefined && isStep(previous.midi, midi);
    if (comes && previous.midi === next.midi && !changes) return because("neighbor");
    if (comes && isStep(midi, next.midi) && !changes)
      return because("scaleStep", { from: noteOf(spell(ctx, previous)), target });
    if (isStep(midi, next.midi)) {
      const interval = Math.abs(next.midi - midi) === 1 ? "semitone" : "whole tone";
      return because(next.midi > midi ? "approachBelow" : "approachAbove", { target, interval });
    }
    return because("chordTone", { role, chord: symbol });
  }
  const kick = ctx.kicks.find((k) => k.start === slot.start);
  if (pc === bassPc(chord)) {
    const first = line.findIndex((s) => s.slot.chord === slot.chord && mod(s.midi, 12) === pc);
    if (first < i && midi - nth(line, first).midi === 12 && slot.use !== "anchor") return because("octave");
    const kind = chord.bass ? "bass" : "root";
    const params = { pitch, chord: symbol };
    if (slot.use === "weave" && slot.with) return because("weave", { ...params, with: slot.with });
    if (kick) return because(kick.main ? (`${kind}OnKick` as const) : (`${kind}WithKick` as const), params);
    if (slot.use === "ending") return because("ending", { role: "Root", chord: symbol });
    if (slot.start === sure(slot.chord).start) return because(`${kind}OnBeat` as const, params);
    if (slot.inGap && slot.use !== "anchor") return because("gap", { role: "Root", chord: symbol });
    // Without a kick nothing stands away from it.
    return ctx.kicks.length
      ? because(`${kind}Hook` as const, params)
      : because("chordTone", { role: kind === "bass" ? "Written bass" : "Root", chord: symbol });
  }
  if (slot.use === "ending") return because("ending", { role, chord: symbol });
  const stepwise = (previous !== undefined && isStep(previous.midi, midi)) || isStep(midi, next.midi);
  if (slot.use === "anchor" && !kick && stepwise) return because("inversion", { role, chord: symbol });
  if (slot.use === "approach" && role !== "5" && changes && isStep(midi, next.midi))
    return because("fill", { role, chord: symbol });
  if (slot.use === "weave" && slot.with) return because("weaveTone", { role, chord: symbol, with: slot.with });
  if (role === "5") {
    if (
      changes &&
      mod(pc - mod(next.midi, 12), 12) === 7 &&
      mod(next.midi, 12) === bassPc(sure(sure(next.slot.chord).chord))
    )
      return because("approachFifth", { target: noteOf(spell(ctx, next)) });
    if (slot.inGap) return because("gap", { role, chord: symbol });
    return because("fifth", { chord: symbol });
  }
  if (slot.inGap) return because("gap", { role, chord: symbol });
  if (role === "3" || role === "b3") return because("third", { chord: symbol });
  if (role === "7" || role === "b7") return because("seventh", { chord: symbol });
  return because("chordTone", { role, chord: symbol });
}

/** The reason of a note: the stored one, the user's pin, or what its place justifies; null when nothing does. */
export function reasonOf(note: RealizedNote, spans: readonly RoleSpan[], onKick: boolean): Reason | null {
  if (note.reason) return note.reason;
  if (note.pinned) return because("pinned");
  const first = spans[0];
  if (!first?.chord) return null;
  const pitch = noteOf(note.pitch);
  if (first.kind === "chord")
    return first.role === "R"
      ? because(onKick ? "rootWithKick" : "chordTone", { pitch, role: "Root", chord: first.chord.symbol })
      : because("chordTone", { role: first.role, chord: first.chord.symbol });
  if (first.kind === "anticipation")
    return because("anticipation", { chord: spans[1]?.chord?.symbol ?? "the next chord" });
  if (first.kind === "outside" || first.kind === "tension" || first.kind === "free") return null;
  return first.kind === "pedal" ? because("pedal", { pitch, chord: first.chord.symbol }) : because(first.kind);
}
