import { intervalWords } from "../pitch/interval";
import { nameInKey } from "../pitch/key";
import { mod, noteOf, pitchName, type PitchName } from "../pitch/pitch";
import { positionText } from "../time/meter";
import { chordToneName, toneRole } from "../chord/chord";
import { DRUM_KINDS } from "../instrument/drums";
import { because } from "../song/reasons";
import type { Reason } from "../song/schema";
import { ROLE_WORDS } from "../slice/roles";
import type { CounterContext } from "./context";
import type { Candidate, PitchSlot } from "./pitches";

/** A slot with the pitch that was chosen for it. */
export interface Chosen {
  slot: PitchSlot;
  pick: Candidate;
}

/** Chord tones as the chord spells them, other tones as the key does. */
export function spell(ctx: CounterContext, slot: PitchSlot, midi: number): PitchName {
  const pc = mod(midi, 12);
  const own = slot.chord?.chord && chordToneName(slot.chord.chord, pc);
  return pitchName(midi, own ?? nameInKey(pc, ctx.key));
}

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** Why a note of a written line is there. */
export function reasonFor(ctx: CounterContext, line: readonly Chosen[], i: number): Reason {
  const { slot, pick } = line[i]!;
  const { midi } = pick;
  const before = i > 0 && !slot.fresh ? line[i - 1]! : null;
  const after = line[i + 1] && !line[i + 1]!.slot.fresh ? line[i + 1]! : null;
  const move = before ? midi - before.pick.midi : 0;
  if (slot.use === "species" && slot.tune !== null) {
    const tune = ctx.tuneAt(slot.start)!;
    const side = midi < tune.midi ? "under" : "over";
    return because("species", {
      interval: capital(intervalWords(Math.abs(midi - tune.midi))),
      side,
      pitch: noteOf(tune.pitch),
      part: ctx.against,
    });
  }
  if (pick.standing === "suspension") return because("suspension");
  if (pick.standing === "passing") {
    const on = after ? after.pick.midi - midi : 0;
    return because(on * move > 0 ? "passing" : "neighbor");
  }
  const chord = slot.chord?.chord;
  const role = chord ? capital(ROLE_WORDS[toneRole(chord, mod(midi, 12)).role] ?? toneRole(chord, mod(midi, 12)).role) : "Note";
  const own = { role, chord: slot.chord?.symbol ?? ctx.key.tonic };
  if (slot.use === "cell") return slot.cell === "refit" ? because("cell", own) : because(slot.cell === "scale" ? "cellScale" : "cellHeld");
  if (pick.standing === "color") return because("color", own);
  if (slot.use === "answer") return because("answers", { ...own, part: ctx.against });
  if (slot.use === "hit") return because("withDrum", { ...own, drum: DRUM_KINDS[ctx.drum].title });
  if (slot.use === "variation" && slot.of !== undefined) {
    const where = positionText(ctx.meter, slot.of);
    return because(slot.passes ? "fills" : "again", { ...own, where });
  }
  const from = before && noteOf(spell(ctx, before.slot, before.pick.midi));
  const byStep = Math.abs(move) === 1 || Math.abs(move) === 2;
  if (slot.use === "guide") return byStep && from ? because("guideStep", { ...own, from }) : because("guide", own);
  if (slot.use === "figure") return slot.fresh || move >= 0 ? because("figure", own) : because("falls", own);
  if (before && move === 0 && before.slot.chord !== slot.chord) return because("keeps", own);
  // It moves while the tune moves, and the other way.
  const [was, is] = [ctx.tuneAt(slot.start - 1), ctx.tuneAt(slot.start)];
  if (move && was && is && Math.sign(is.midi - was.midi) === -Math.sign(move)) return because("opposes", { ...own, part: ctx.against });
  return byStep && from ? because("steps", { ...own, from }) : because("lasts", own);
}

/** Why the lower note of a double-stop is there. */
export function reasonUnder(ctx: CounterContext, { slot, pick }: Chosen): Reason {
  const chord = slot.chord?.chord;
  const role = chord ? toneRole(chord, mod(pick.under!, 12)).role : "";
  return because("stop", {
    role: capital(ROLE_WORDS[role] ?? role),
    chord: slot.chord?.symbol ?? ctx.key.tonic,
    interval: `a ${intervalWords(pick.midi - pick.under!)}`,
    pitch: noteOf(spell(ctx, slot, pick.midi)),
  });
}
