import { typeset } from "../theory/pitch/pitch";
import type { Reason } from "./schema";

/** One reason a generated note or choice can carry. */
interface ReasonDefinition {
  /** In words; `{name}` stands for a parameter. */
  words: string;
  /**
   * How well it justifies a note, 0–1: what must sound first, what only decorates last (common practice). 2: what the
   * user wants.
   */
  weight: number;
}

/** Every reason there is; a new one is one line here, and a typo in its id or its parameters does not compile. */
export const REASONS = {
  rootOnKick: { words: "Root {pitch} on the kick's main accent", weight: 1 },
  rootOnBeat: { words: "Root {pitch} where the chord begins", weight: 0.95 },
  rootWithKick: { words: "Root {pitch} with the kick", weight: 0.75 },
  bassOnKick: { words: "{pitch}, the written bass of {chord}, on the kick's main accent", weight: 1 },
  bassOnBeat: { words: "{pitch}, the written bass of {chord}, where the chord begins", weight: 0.95 },
  bassWithKick: { words: "{pitch}, the written bass of {chord}, with the kick", weight: 0.75 },
  rootHook: { words: "Root {pitch} of {chord}, away from the kick", weight: 0.35 },
  bassHook: { words: "{pitch}, the written bass of {chord}, away from the kick", weight: 0.35 },
  octave: { words: "Octave of the root, for lift", weight: 0.4 },
  fifth: { words: "Fifth of {chord}: neutral, falls back to the root", weight: 0.45 },
  third: { words: "Third of {chord}: its color", weight: 0.35 },
  seventh: { words: "Seventh of {chord}: its color", weight: 0.3 },
  chordTone: { words: "{role} of {chord}", weight: 0.3 },
  approachBelow: { words: "Approaches {target} from a {interval} below", weight: 0.55 },
  approachAbove: { words: "Approaches {target} from a {interval} above", weight: 0.55 },
  approachFifth: { words: "Fifth of the {target} that comes: leads to it", weight: 0.6 },
  anticipation: { words: "Anticipates {chord}", weight: 0.65 },
  scaleStep: { words: "Steps on from {from} to {target}", weight: 0.4 },
  inversion: { words: "{role} of {chord} in the bass: the bass moves by step", weight: 0.9 },
  weave: { words: "{pitch} of {chord} with {with}", weight: 0.8 },
  weaveTone: { words: "{role} of {chord} with {with}", weight: 0.7 },
  gap: { words: "{role} of {chord}: moves in the gap of the tune", weight: 0.5 },
  pedal: { words: "Pedal: holds {pitch} under {chord}", weight: 0.9 },
  fill: { words: "{role} of {chord}, leads into the next chord", weight: 0.5 },
  ending: { words: "{role} of {chord}: the repetition ends differently", weight: 0.5 },
  harmonizes: { words: "{roman} in {key}: holds {tones} of the tune; {how}", weight: 0.3 },
  harmonizesBass: { words: "{roman} in {key}: stands on {tones} of the bass line; {how}", weight: 0.3 },
  block: { words: "Under {pitch} of the tune, {chord}", weight: 0.3 },
  answers: { words: "{role} of {chord}: answers {part} where it rests", weight: 0.5 },
  lasts: { words: "{role} of {chord}, held", weight: 0.5 },
  keeps: { words: "{role} of {chord}: the note before, kept through the change of chord", weight: 0.5 },
  opposes: { words: "{role} of {chord}: moves against {part}", weight: 0.5 },
  steps: { words: "{role} of {chord}, a step from {from}", weight: 0.45 },
  guide: { words: "{role} of {chord}: a guide tone", weight: 0.5 },
  guideStep: { words: "{role} of {chord}: a guide tone, a step from {from}", weight: 0.6 },
  over: { words: "{role} over {chord}: outside it", weight: 0.2 },
  noChord: { words: "No chord stands here", weight: 0.3 },
  color: { words: "{role} over {chord}: a color that rubs against nothing", weight: 0.35 },
  figure: { words: "{role} of {chord}: the figure begins again", weight: 0.45 },
  falls: { words: "{role} of {chord}: the figure falls", weight: 0.4 },
  cell: { words: "{role} of {chord}: the cell, refitted to the chord", weight: 0.5 },
  cellScale: { words: "The cell, moved along the scale", weight: 0.4 },
  cellKept: { words: "{role} of {chord}: the cell as it is", weight: 0.45 },
  cellHeld: { words: "The cell, as it is, over {chord}", weight: 0.4 },
  withDrum: { words: "{role} of {chord} with the {drum}", weight: 0.6 },
  stop: { words: "{role} of {chord}, {interval} under {pitch}", weight: 0.4 },
  again: { words: "{role} of {chord}: comes back to {where}, varied", weight: 0.45 },
  comesBack: { words: "{role} of {chord}: comes back to {where}", weight: 0.45 },
  fills: { words: "{role} of {chord}: fills the longer note of {where}", weight: 0.35 },
  species: { words: "{interval} {side} {pitch} of {part}", weight: 0.5 },
  beside: { words: "{role} of {chord}, {interval} {pitch} of {part}", weight: 0.5 },
  along: { words: "Goes along, {interval} {pitch} of {part}", weight: 0.4 },
  copied: { words: "A copy, {interval} {pitch} of {part}", weight: 0.4 },
  behind: { words: "{role} of {chord}, held behind {part}", weight: 0.5 },
  keptBehind: { words: "{role} of {chord}, kept from before, behind {part}", weight: 0.5 },
  drone: { words: "The drone: {place}, in {key}", weight: 0.5 },
  inner: { words: "{role} of {chord} in the {voice}, {interval} {pitch}", weight: 0.5 },
  inside: { words: "{pitch} instead of {from}: inside the voice, and the line keeps its shape", weight: 0.5 },
  passing: { words: "Passing tone between two others", weight: 0.4 },
  neighbor: { words: "Neighbor tone: leaves and comes back", weight: 0.25 },
  suspension: { words: "Suspension: held over and resolved by step", weight: 0.5 },
  retardation: { words: "Retardation: held over and resolved up by step", weight: 0.3 },
  appoggiatura: { words: "Appoggiatura: struck outside the chord and resolved by step", weight: 0.3 },
  escape: { words: "Escape tone: reached by step and left by leap", weight: 0.3 },
  cambiata: { words: "Cambiata: reached by step, skips a third on and steps back", weight: 0.3 },
  approach: { words: "Approaches the next chord by step", weight: 0.3 },
  implied: { words: "Implied by the bass line", weight: 0.3 },
  played: { words: "Played in", weight: 0.3 },
  imported: { words: "Named from the notes of {file}", weight: 0.3 },
  heardHome: { words: "Heard at home with {pitch} below", weight: 0.3 },
  heardWith: { words: "Heard with {pitch} in it", weight: 0.3 },
  heardWithout: { words: "Heard without {pitch}", weight: 0.3 },
  user: { words: "Your own: meant as it is", weight: 2 },
  pinned: { words: "Pinned by hand", weight: 2 },
} as const satisfies Record<string, ReasonDefinition>;

export type ReasonId = keyof typeof REASONS;

/** The parameters that the words of a reason name. */
type ParamsIn<Words extends string> = Words extends `${string}{${infer Name}}${infer Rest}`
  ? Name | ParamsIn<Rest>
  : never;
export type ReasonParams<I extends ReasonId> = ParamsIn<(typeof REASONS)[I]["words"]>;

/** A reason with its parameters: `because("fifth", { chord: "Cm7" })`. */
export function because<I extends ReasonId>(
  id: I,
  ...[params]: [ReasonParams<I>] extends [never] ? [] : [params: Record<ReasonParams<I>, string | number>]
): Reason {
  return params === undefined ? { id } : { id, params };
}

const known = (id: string): ReasonDefinition | undefined =>
  Object.hasOwn(REASONS, id) ? REASONS[id as ReasonId] : undefined;

/** The words of a reason; an unknown id is shown as it is, so that nothing is hidden. */
export function describeReason(reason: Reason | undefined): string {
  if (!reason) return "No reason given";
  const words = known(reason.id)?.words ?? reason.id;
  return words.replace(/\{(\w+)\}/g, (_, name: string) => {
    const value = reason.params?.[name];
    return typeof value === "string" && /^[A-G]|^[b#]?\d/.test(value) ? typeset(value) : String(value ?? "");
  });
}

/** How well a reason justifies a note; 0 where there is none, as much as a plain chord tone where it is not known. */
export const weightOfReason = (reason: Reason | null, pinned = false): number => {
  if (pinned) return REASONS.pinned.weight;
  if (reason) return known(reason.id)?.weight ?? REASONS.chordTone.weight;
  return 0;
};
