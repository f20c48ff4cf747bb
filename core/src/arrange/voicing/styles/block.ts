import { mod, type Midi } from "../../../theory/pitch/pitch";
import { rootPc } from "../../../theory/chord/chord";
import { chosenTones, lossOf, pcOf, voiced } from "../stack";
import type { VoicingLimits, VoicingStyle } from "../style";

/** Notes below the top, each the next place down of one of the pitch classes. */
function below(top: Midi, pcs: readonly number[]): Midi[] {
  return pcs.map((pc) => top - (mod(top - pc, 12) || 12)).sort((a, b) => a - b);
}

/** With five voices the tune is doubled an octave lower. */
const doubled = (stack: Midi[], top: Midi, voices: number): Midi[] =>
  voices >= 5 && !stack.includes(top - 12) ? [top - 12, ...stack] : stack;

export const block: VoicingStyle = {
  id: "block",
  title: "Block chords",
  explanation:
    "Four tones close together under the note of a tune, every note of it with a chord of its own; with five " +
    "voices the tune is doubled at the octave. A note foreign to the chord stands in for the tone below it, or " +
    "is carried by a diminished seventh.",
  source: "any jazz arranging handbook",
  alone: true,
  candidates(chord, limits) {
    const tones = chosenTones(chord, 4, limits.bassCovered);
    const own = tones.map((t) => pcOf(chord, t));
    const loss = lossOf(chord, tones, limits.bassCovered);
    const under = (top: Midi): ReturnType<VoicingStyle["candidates"]> => {
      const { voices } = limits;
      const wide: VoicingLimits = {
        ...limits,
        bassCovered: true,
        low: Math.min(limits.low, top - 14),
        high: Math.max(limits.high, top),
      };
      // Under its root a major seventh would rub a semitone below the tune: the sixth stands for it.
      const seventh = chord.tones.find((t) => t.role === "7");
      const pcs =
        seventh && mod(top, 12) === rootPc(chord)
          ? own.map((x) => (x === pcOf(chord, seventh) ? mod(rootPc(chord) + 9, 12) : x))
          : own;
      const make = (stack: Midi[], missing: number) =>
        voiced(chord, [doubled([...stack, top], top, voices)], wide, { missing, doubling: pcs.length < 4 ? 0.3 : 0 });
      const pc = mod(top, 12);
      if (pcs.includes(pc)) {
        const rest = below(
          top,
          pcs.filter((x) => x !== pc),
        );
        // A triad fills its fourth voice with the tune an octave lower.
        return make(pcs.length < 4 ? [top - 12, ...rest] : rest, loss);
      }
      const all = below(top, pcs);
      return [...make(all.slice(0, -1).slice(-3), loss + 0.5), ...make([top - 9, top - 6, top - 3], 1.5)];
    };
    if (limits.top !== undefined) return under(limits.top);
    const out = [];
    for (let top = limits.low + 9; top <= limits.high; top++) if (own.includes(mod(top, 12))) out.push(...under(top));
    return out;
  },
};
