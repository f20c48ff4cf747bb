import type { CompKind } from "../kind";

/** Its notes are laid out by the voicing path under a melody and stored, so there is nothing to derive here. */
export const block: CompKind = {
  id: "block",
  title: "Block chords under a tune",
  explanation:
    "Every note of a tune becomes the top of a chord of its own: the tones of the chord close below it, moving " +
    "as the tune moves. A tune note foreign to the chord is laid over its nearest tones, or a passing " +
    "diminished seventh carries it.",
  source: "any jazz arranging handbook",
  voices: true,
  fresh: { name: "Block chords", instrument: "electricPiano" },
  settings: ["strum", "human"],
  notes: () => [],
};
