import { firstOf, lastOf, nth, sure } from "../../../base/list";
import type { Midi } from "../../../theory/pitch/pitch";
import { toneRole } from "../../../theory/chord/chord";
import { mod } from "../../../theory/pitch/pitch";
import { because } from "../../../song/reasons";
import { meanPitch } from "../../../hear/line/tune";
import { isRub } from "../../../hear/line/between";
import type { VocalContext } from "../context";
import type { Stack, VocalSchool, VocalSlot, VocalWay } from "../school";
import { chordSlots } from "../slots";
import { chordPcs, choose, pitchesIn, rangeCost, roleOver, rubsInVoices } from "../tones";

/** What leaving a tone of the chord out costs, and what each is worth for a voice alone. */
const WORTH: Record<string, number> = { "3": 1, b3: 1, "7": 0.8, b7: 0.8, "4": 0.9, "2": 0.8, "6": 0.5, "9": 0.4 };

const worth = (slot: VocalSlot, midi: Midi): number =>
  WORTH[toneRole(sure(sure(slot.chord).chord), mod(midi, 12)).role] ?? 0.2;

/** Voices of chord tones around a pitch, close together, with what each setting costs. */
function settings(ctx: VocalContext, slot: VocalSlot, home: Midi): Stack[] {
  const pcs = chordPcs(slot.chord);
  const sung = ctx.leadWithin(slot.start, slot.start + slot.duration);
  const count = ctx.voices.length;
  const tones = pitchesIn(pcs, home - 10, home + 8).reverse();
  const alone = pcs.reduce((sum, pc) => sum + worth(slot, pc), 0);
  return choose(tones, count)
    .filter((s) => firstOf(s) - lastOf(s) <= 12)
    .map((pitches): Stack => {
      let cost = 0;
      pitches.forEach((midi, v) => {
        cost += rangeCost(nth(ctx.voices, v), midi) + Math.abs(midi - home) * 0.03;
        if (sung.some((n) => n.midi < midi)) cost += 1;
        for (const n of sung)
          if (n.midi === midi) cost += 0.4;
          else if (
            isRub(n.midi, midi) &&
            !pcs.includes(mod(n.midi, 12)) &&
            n.duration >= firstOf(ctx.meter.beats).duration
          )
            cost += 1.2;
        if (rubsInVoices(ctx, midi, slot.start)) cost += 1.5;
        if (v > 0 && nth(pitches, v - 1) - midi < 3) cost += 0.8;
      });
      const classes = new Set(pitches.map((p) => mod(p, 12)));
      cost += (count - classes.size) * 0.6 + (alone - [...classes].reduce((sum, pc) => sum + worth(slot, pc), 0)) * 0.6;
      return { pitches, cost };
    });
}

function held(ctx: VocalContext, drop: number, title: string): VocalWay {
  const mean = ctx.tune.length ? meanPitch(ctx.tune) : 64;
  const voice = nth(ctx.voices, Math.floor(ctx.voices.length / 2));
  // Below the tune, where the voices themselves are at ease.
  const home = Math.round(
    Math.min(mean - drop, Math.max((voice.comfortable[0] + voice.comfortable[1]) / 2, mean - drop - 7)),
  );
  return {
    title,
    slots: chordSlots(ctx),
    several: true,
    stacks: (slot) => settings(ctx, slot, home),
    reason: ({ slot, midi, kept }) =>
      because(kept ? "keptBehind" : "behind", {
        ...sure(roleOver(slot.chord, midi)),
        part: ctx.lead?.name ?? "the tune",
      }),
  };
}

export const behind: VocalSchool = {
  id: "behind",
  title: "Behind the singer",
  explanation:
    "One to three voices hold tones of each chord on a vowel, moving as little as they can and breathing at " +
    "the bar line; swelling, each of their notes rises out of silence. Assumes that the words belong to the " +
    "singer alone.",
  source: "common practice",
  voices: [1, 3],
  needs: ["chords"],
  targets: { chordTime: 0.95 },
  uses: ["voices", "manner", "syllable"],
  behind: true,
  ways: (ctx) => [held(ctx, 5, "Under the tune"), held(ctx, 10, "Deeper")],
};
