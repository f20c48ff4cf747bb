import { add, firstOf, nth } from "../../../base/list";
import { mod } from "../../../theory/pitch/pitch";
import { chordPitchClasses } from "../../../theory/chord/chord";
import { beatsOf } from "../rhythm";
import type { BassStyle } from "../style";

export const pedal: BassStyle = {
  id: "pedal",
  title: "Pedal",
  explanation:
    "One note stays while the chords move above it: the tonic for rest, the dominant for waiting, or the tone " +
    "most chords share. Other players may hear other chords; the report says which.",
  source: "common practice",
  targets: { pitchClasses: 1, longestOutside: null, chordTime: 0, silence: [0, 0.4] },
  costs: { root: 0, fifth: 0, majorThird: 0, minorThird: 0, seventh: 0, other: 0, octave: 0.3, repeat: 0 },
  usual: { pitches: 1, octaves: "none", density: 0.45, variation: 0.1 },
  places: (ctx) => beatsOf(ctx).map((b) => ({ at: b.at, use: "hook", priority: b.beat === 0 ? 0.6 : 0.35 })),
  hold: () => Infinity,
  sustains: true,
  /** Tonic and dominant of the key, and the tone that sounds longest in the chords. */
  pedals(ctx) {
    const time = new Array<number>(12).fill(0);
    for (const c of ctx.chords) if (c.chord) for (const pc of chordPitchClasses(c.chord)) add(time, pc, c.duration);
    const tonic = firstOf(ctx.key.pcs);
    const shared = time.indexOf(Math.max(...time));
    return [...new Set([tonic, mod(tonic + 7, 12), shared])].sort((a, b) => nth(time, b) - nth(time, a));
  },
};
