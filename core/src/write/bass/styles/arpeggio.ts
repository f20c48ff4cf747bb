import { nth } from "../../../base/list";
import { beatLength } from "../context";
import { approachPlaces, beatsOf } from "../rhythm";
import type { BassStyle } from "../style";

/** Up the chord and back, a tone each half-beat; the third of a beat where that is divided in three. */
const WAY = [["bass"], ["3", "5"], ["5", "3"], ["8"], ["5", "3"], ["3", "5"]];

export const arpeggio: BassStyle = {
  id: "arpeggio",
  title: "Arpeggio",
  explanation:
    "Chord tones one after the other, up and back, so that the bass spells the harmony by itself. For thin " +
    "textures; crowds a busy piano.",
  source: "common practice",
  targets: { pitchClasses: 6, longestOutside: 0.5, chordTime: 0.9 },
  costs: {
    root: 0.4,
    fifth: 0.2,
    majorThird: 0.5,
    minorThird: 0.4,
    seventh: 0.9,
    other: 1.6,
    octave: 0.3,
    repeat: 1.2,
    leap: 0.03,
  },
  usual: { density: 0.55, overMajor: "either", overMinor: "either", octaves: "many" },
  places: (ctx) => [
    ...beatsOf(ctx).flatMap((b) => {
      const parts = b.duration % 720 === 0 ? 3 : 2;
      const first = Math.round((b.since / b.duration) * parts);
      return Array.from({ length: parts }, (_, k) => ({
        at: b.at + (k * b.duration) / parts,
        use: "hook" as const,
        priority: k ? 0.72 : 0.9,
        prefers: nth(WAY, (first + k) % WAY.length),
      }));
    }),
    ...approachPlaces(ctx, 0.3),
  ],
  hold: (ctx, start) => beatLength(ctx, start),
};
