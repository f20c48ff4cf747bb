import { nth } from "../../../base/list";
import { raised, type CompChord, type CompKind, type CompNote } from "../kind";

/** The order in which the notes of a chord follow each other. */
function order(pitches: CompChord["pitches"], way: string): CompChord["pitches"] {
  const down = [...pitches].reverse();
  if (way === "down") return down;
  if (way === "up-down") return [...pitches, ...down.slice(1, -1)];
  if (way === "outside-in") return pitches.map((_, i) => (i % 2 ? nth(down, (i - 1) / 2) : nth(pitches, i / 2)));
  return [...pitches];
}

export const arpeggio: CompKind = {
  id: "arpeggio",
  title: "Arpeggio",
  explanation: "The notes of each voicing one after the other, up, down or both, beginning anew with every chord.",
  source: "common practice",
  voices: false,
  fresh: { name: "Arpeggio", instrument: "nylonGuitar" },
  settings: ["step", "way", "octaves", "lift", "human"],
  notes({ chords, playing }) {
    const step = Math.max(40, playing.step ?? 240);
    const octaves = Math.max(1, playing.octaves ?? 1);
    const lift = playing.lift ?? 0;
    return chords.flatMap((chord) => {
      const pitches = Array.from({ length: octaves }, (_, o) => chord.pitches.map((p) => raised(p, o + lift)))
        .flat()
        .sort((a, b) => a.midi - b.midi);
      const tones = order(pitches, playing.way ?? "up");
      const out: CompNote[] = [];
      for (let at = 0, i = 0; at < chord.duration && tones.length; at += step, i++)
        out.push({
          chord: chord.id,
          start: chord.start + at,
          duration: Math.min(step, chord.duration - at),
          ...nth(tones, i % tones.length),
          velocity: i % tones.length === 0 ? 78 : 66,
        });
      return out;
    });
  },
};
