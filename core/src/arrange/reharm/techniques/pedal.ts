import { firstOf, nth } from "../../../base/list";
import { mod, pitchClass, type NoteName } from "../../../theory/pitch/pitch";
import { chordPitchClasses } from "../../../theory/chord/chord";
import type { Technique } from "../technique";
import { slashed, upper } from "../tools";

export const pedal: Technique = {
  id: "pedal",
  title: "Pedal",
  explanation: "The bass holds the tonic or the dominant while the chords above it go on.",
  source: "any harmony textbook",
  adventure: 0.3,
  aim: "more",
  words: { hold: "{bass} is held in the bass under {count} chords" },
  propose(spot) {
    const [from, to] = spot.selection;
    if (spot.index !== from) return [];
    // At least two chords make a pedal; a single chosen one takes its neighbor along.
    const end = Math.min(spot.slots.length - 1, Math.max(to, from + 1));
    const run = spot.slots.slice(from, end + 1);
    if (run.length < 2) return [];
    // A pedal may be foreign to the chords above it, but a note a semitone above it makes mud.
    const clear = (bass: NoteName) =>
      run.every((s) => {
        const pcs = chordPitchClasses(upper(s.chord));
        return pcs.includes(pitchClass(bass)) || !pcs.includes(mod(pitchClass(bass) + 1, 12));
      });
    return [firstOf(spot.home.scale), nth(spot.home.scale, 4)].filter(clear).map((bass) => ({
      span: run.length,
      chords: run.map((s) => ({ symbol: slashed(upper(s.chord), bass), duration: s.event.duration })),
      reason: "hold",
      params: { bass, count: String(run.length) },
    }));
  },
};
