import { nth, sure } from "../../base/list";
import { capital } from "../../theory/words/english";
import { intervalWords } from "../../theory/pitch/interval";
import { mod, noteOf, type PitchName } from "../../theory/pitch/pitch";
import { toneRole } from "../../theory/chord/chord";
import { spellOver } from "../../song/spell";
import { because } from "../../song/reasons";
import type { Reason } from "../../song/schema";
import { ROLE_WORDS } from "../../hear/slice/roles";
import type { CounterContext } from "./context";
import type { Candidate, PitchSlot } from "./pitches";
import type { CounterStyle } from "./style";

/** A slot with the pitch that was chosen for it. */
export interface Chosen {
  slot: PitchSlot;
  pick: Candidate;
}

/** Chord tones as the chord spells them, other tones as the key does. */
export const spell = (ctx: CounterContext, slot: PitchSlot, midi: number): PitchName =>
  spellOver(ctx.key, slot.chord?.chord, midi);

/** Why a note of a written line is there. */
export function reasonFor(ctx: CounterContext, style: CounterStyle, line: readonly Chosen[], i: number): Reason {
  const { slot, pick } = nth(line, i);
  const { midi } = pick;
  const before = i > 0 && !slot.fresh ? nth(line, i - 1) : null;
  const after = line[i + 1] && !nth(line, i + 1).slot.fresh ? nth(line, i + 1) : null;
  const move = before ? midi - before.pick.midi : 0;
  if (pick.standing === "suspension") return because("suspension");
  if (pick.standing === "passing") {
    const on = after ? after.pick.midi - midi : 0;
    return because(on * move > 0 ? "passing" : "neighbor");
  }
  const chord = slot.chord?.chord;
  const role = chord
    ? capital(ROLE_WORDS[toneRole(chord, mod(midi, 12)).role] ?? toneRole(chord, mod(midi, 12)).role)
    : "Note";
  const own = { role, chord: slot.chord?.symbol ?? ctx.key.tonic };
  if (pick.standing === "color") return because("color", own);
  const byStep = Math.abs(move) === 1 || Math.abs(move) === 2;
  const stepFrom = before && byStep ? noteOf(spell(ctx, before.slot, before.pick.midi)) : null;
  const why = style.reason?.({ ctx, slot, midi, move, stepFrom, own });
  if (why) return why;
  if (before && move === 0 && before.slot.chord !== slot.chord) return because("keeps", own);
  // It moves while the tune moves, and the other way.
  const [was, is] = [ctx.tuneAt(slot.start - 1), ctx.tuneAt(slot.start)];
  if (move && was && is && Math.sign(is.midi - was.midi) === -Math.sign(move))
    return because("opposes", { ...own, part: ctx.against });
  return stepFrom ? because("steps", { ...own, from: stepFrom }) : because("lasts", own);
}

/** Why the lower note of a double-stop is there. */
export function reasonUnder(ctx: CounterContext, { slot, pick }: Chosen): Reason {
  const chord = slot.chord?.chord;
  const role = chord ? toneRole(chord, mod(sure(pick.under), 12)).role : "";
  return because("stop", {
    role: capital(ROLE_WORDS[role] ?? role),
    chord: slot.chord?.symbol ?? ctx.key.tonic,
    interval: `a ${intervalWords(pick.midi - sure(pick.under))}`,
    pitch: noteOf(spell(ctx, slot, pick.midi)),
  });
}
