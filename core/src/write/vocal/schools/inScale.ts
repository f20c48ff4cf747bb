import { firstOf, sure } from "../../../base/list";
import { withArticle } from "../../../theory/words/english";
import { intervalWords } from "../../../theory/pitch/interval";
import { type Midi } from "../../../theory/pitch/pitch";
import { because } from "../../../song/reasons";
import type { VocalContext } from "../context";
import type { VocalSchool, VocalSlot, VocalWay } from "../school";
import type { VocalSettings } from "../settings";
import { tuneSlots } from "../slots";
import { inChord, rangeCost, roleOver, scaleOf, asStack, stepped, toneCost } from "../tones";

/** What each distance in scale steps costs where a third or a sixth is wanted; what is not named is not sung. */
const STEPS: Record<VocalSettings["interval"], Record<number, number>> = {
  third: { 2: 0, 3: 0.6, 4: 1.2, 5: 1.3, 1: 2.6 },
  sixth: { 5: 0, 4: 0.7, 2: 1.3, 3: 1.1, 7: 1.8, 6: 2.6 },
};
const WANTED = { third: 2, sixth: 5 } as const;

type Side = VocalSettings["side"];
const sign = (side: Side): 1 | -1 => (side === "above" ? 1 : -1);
const other = (side: Side): Side => (side === "above" ? "below" : "above");

/**
 * Octaves by which a line that goes along with the tune is moved so that its voice can sing it: no more than it must
 * be.
 */
export function octaveFor(
  ctx: VocalContext,
  side: Side,
  plain: (slot: VocalSlot) => Midi | null,
  slots: readonly VocalSlot[],
): Midi {
  const voice = firstOf(ctx.voices);
  const cost = (octaves: Midi) =>
    slots.reduce((sum, s) => {
      const at = plain(s);
      return at === null ? sum : sum + rangeCost(voice, at + octaves) * s.duration;
    }, 0) +
    Math.abs(octaves) * 12;
  return [0, 12, 24].map((o) => o * sign(side)).reduce((best, o) => (cost(o) < cost(best) ? o : best), 0);
}

/** In words: "a third below", "a sixth above". */
export const distanceWords = (from: Midi, to: Midi): string =>
  from === to
    ? "in unison with"
    : `${withArticle(intervalWords(Math.abs(to - from)))} ${to > from ? "above" : "below"}`;

/** Why a note stands that goes along with the tune. */
export function besideReason(ctx: VocalContext, { lead, chord }: VocalSlot, midi: Midi) {
  const own = roleOver(chord, midi);
  const tune = { interval: distanceWords(sure(lead).midi, midi), pitch: sure(lead).pitch, part: sure(ctx.lead).name };
  return own && inChord(chord, midi) ? because("beside", { ...own, ...tune }) : because("along", tune);
}

/** A line in thirds or sixths, bent to the chords or straight through the scale. */
function along(ctx: VocalContext, side: Side, interval: VocalSettings["interval"], bent: boolean): VocalWay {
  const slots = tuneSlots(ctx);
  const way = sign(side);
  const plain = (slot: VocalSlot) => stepped(scaleOf(ctx, slot.chord), sure(slot.lead).midi, way * WANTED[interval]);
  const octave = octaveFor(ctx, side, plain, slots);
  return {
    title:
      `${interval === "third" ? "Thirds" : "Sixths"} ${side}${octave ? " and an octave" : ""}, ` +
      `${bent ? "bent to the chords" : "straight through the scale"}`,
    slots,
    free: !bent,
    stacks(slot) {
      if (!bent) return [asStack(plain(slot) + octave, 0)];
      const scale = scaleOf(ctx, slot.chord);
      return Object.entries(STEPS[interval]).map(([steps, cost]) => {
        const midi = stepped(scale, sure(slot.lead).midi, way * Number(steps)) + octave;
        return asStack(midi, cost + toneCost(ctx, slot, midi, firstOf(ctx.voices)));
      });
    },
    // Going along: a voice that moves while the tune stands, or stands while it moves, is heard as another thing.
    step: (from, to, a, b) =>
      from.pitches[0] === to.pitches[0] && a.lead !== b.lead && sure(a.lead).midi !== sure(b.lead).midi ? 0.35 : 0,
    reason: ({ slot, midi }) => besideReason(ctx, slot, midi),
  };
}

export const inScale: VocalSchool = {
  id: "inScale",
  title: "Thirds and sixths",
  explanation:
    "A line a third or a sixth from the tune that moves as it moves, kept in the scale; where that would leave " +
    "or rub against the chord it bends to a fourth, a fifth or the next tone that fits. Assumes that the tune " +
    "leads and that the two are heard as one.",
  source: "common practice",
  voices: [1, 1],
  needs: ["tune"],
  targets: { chordTime: 0.6, parallel: true },
  uses: ["side", "interval"],
  ways: (ctx) => {
    const { side, interval } = ctx.settings;
    const turned = interval === "third" ? ("sixth" as const) : ("third" as const);
    return [
      along(ctx, side, interval, true),
      along(ctx, side, interval, false),
      along(ctx, other(side), turned, true),
      along(ctx, side, turned, true),
      along(ctx, other(side), interval, true),
    ];
  },
};
