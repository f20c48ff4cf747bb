import { raised, type CompKind } from "../kind";
import { STEP } from "../patterns";

export const reversed: CompKind = {
  id: "reversed",
  title: "Reversed in time",
  explanation:
    "Each chord turned around in time: its notes come in one after the other from the top, swell out of " +
    "silence, and end together on the lowest, where the chord ends.",
  source: "common practice",
  voices: false,
  fresh: { name: "Swells", instrument: "strings" },
  settings: ["lift"],
  notes({ chords, playing }) {
    const lift = playing.lift ?? 0;
    return chords.flatMap((chord) => {
      const n = chord.pitches.length;
      // On sixteenths, so that it can be read.
      const even = chord.duration / (n + 1);
      const gap = even >= STEP ? Math.floor(even / STEP) * STEP : Math.floor(even);
      return [...chord.pitches].reverse().map((p, i) => ({
        chord: chord.id,
        start: chord.start + i * gap,
        duration: chord.duration - i * gap,
        ...raised(p, lift),
        velocity: Math.round(48 + (44 * (i + 1)) / n),
        swell: true,
      }));
    });
  },
};
