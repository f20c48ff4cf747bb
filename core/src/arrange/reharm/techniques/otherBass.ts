import { mod, pitchClass } from "../../../theory/pitch/pitch";
import { rootPc } from "../../../theory/chord/chord";
import type { Technique } from "../technique";
import { has, replacement, slashed, sizeOf, upper } from "../tools";

export const otherBass: Technique = {
  id: "other-bass",
  title: "Other bass under the same chord",
  explanation:
    "The upper chord stays and the bass moves: a minor triad over the major third below it becomes a major " +
    "seventh chord, a major chord over the tone above its root a suspended dominant.",
  source: "common practice",
  adventure: 0.35,
  aim: "more",
  words: {
    below: "The chord stays over {bass}, a third below: together they sound as {sounds}",
    above: "The chord stays over {bass}, a tone above its root: together they sound as a suspended {bass}",
  },
  propose(spot) {
    const { chord, key } = spot.here;
    const plain = upper(chord);
    const at = (semitones: number) => key.scale.find((n) => pitchClass(n) === mod(rootPc(chord) + semitones, 12));
    const minor = has(chord, "b3") && !has(chord, "b5");
    const major = has(chord, "3") && !has(chord, "b7");
    let third: string | undefined;
    if (sizeOf(chord) === 3 && minor) third = at(8);
    else if (sizeOf(chord) === 3 && major) third = at(9);
    else third = undefined;
    // A suspended dominant has to be one: of the chord that comes, or of the key.
    const above = at(2);
    const dominant =
      above !== undefined &&
      [key.pcs[0], spot.next && rootPc(spot.next.chord)].includes(mod(pitchClass(above) + 5, 12));
    const tone = major && dominant ? above : undefined;
    return [
      ...(third
        ? replacement(spot, slashed(plain, third), "below", {
            params: { bass: third, sounds: third + (minor ? "maj7" : "m7") },
          })
        : []),
      ...(tone ? replacement(spot, slashed(plain, tone), "above", { params: { bass: tone } }) : []),
    ];
  },
};
