import { typeset } from "../pitch/pitch";
import type { Reason } from "./schema";

/** Every reason a generated note or choice can carry, in words. `{name}` stands for a parameter. */
export const REASON_WORDS: Record<string, string> = {
  rootOnKick: "Root {pitch} on the kick's main accent",
  rootOnBeat: "Root {pitch} where the chord begins",
  rootWithKick: "Root {pitch} with the kick",
  bassOnKick: "{pitch}, the written bass of {chord}, on the kick's main accent",
  bassOnBeat: "{pitch}, the written bass of {chord}, where the chord begins",
  bassWithKick: "{pitch}, the written bass of {chord}, with the kick",
  rootHook: "Root {pitch} of {chord}, away from the kick",
  bassHook: "{pitch}, the written bass of {chord}, away from the kick",
  octave: "Octave of the root, for lift",
  fifth: "Fifth of {chord}: neutral, falls back to the root",
  third: "Third of {chord}: its colour",
  seventh: "Seventh of {chord}: its colour",
  chordTone: "{role} of {chord}",
  approachBelow: "Approaches {target} from a {interval} below",
  approachAbove: "Approaches {target} from a {interval} above",
  approachFifth: "Fifth above {target}: falls to the root",
  anticipation: "Anticipates {chord}",
  scaleStep: "Steps on from {from} to {target}",
  inversion: "{role} of {chord} in the bass: the bass moves by step",
  weave: "{pitch} of {chord} with {with}",
  weaveTone: "{role} of {chord} with {with}",
  gap: "{role} of {chord}: moves in the gap of the tune",
  pedal: "Pedal: holds {pitch} under {chord}",
  fill: "{role} of {chord}, leads into the next chord",
  turn: "{role} of {chord}: the repetition ends differently",
  harmonizes: "{roman} in {key}: holds {tones} of the tune; {how}",
  harmonizesBass: "{roman} in {key}: stands on {tones} of the bass line; {how}",
  block: "Under {pitch} of the tune, {chord}",
  passing: "Passing tone between two others",
  neighbor: "Neighbor tone: leaves and comes back",
  suspension: "Suspension: held over and resolved by step",
  implied: "Implied by the bass line",
  played: "Played in",
  imported: "Named from the notes of {file}",
  user: "Your own: meant as it is",
  pinned: "Pinned by hand",
};

/** The words of a reason; an unknown id is shown as it is, so that nothing is hidden. */
export function describeReason(reason: Reason | undefined): string {
  if (!reason) return "No reason given";
  const words = REASON_WORDS[reason.id] ?? reason.id;
  return words.replace(/\{(\w+)\}/g, (_, name: string) => {
    const value = reason.params?.[name];
    return typeof value === "string" && /^[A-G]|^[b#]?\d/.test(value) ? typeset(value) : String(value ?? "");
  });
}
