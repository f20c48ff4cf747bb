import { raised, type CompKind } from "../kind";
import { inRhythm } from "../patterns";

/** The layer lies above this note (C5): clear of most voices (common practice). */
const ABOVE = 72;

export const high: CompKind = {
  id: "high",
  title: "Thin high layer",
  explanation: "Only the top one or two notes of each voicing, lifted above the voices: light without weight.",
  source: "common practice",
  voices: false,
  fresh: { name: "High strings", instrument: "strings" },
  settings: ["notes", "rhythm", "strum", "human"],
  notes(ctx) {
    const count = ctx.playing.notes ?? 2;
    // One lift for the whole section, so that the layer keeps the line of the voicings it comes from.
    const lowest = Math.min(...ctx.chords.flatMap((c) => c.pitches.slice(-count).map((p) => p.midi)), 127);
    const lift = Math.max(0, Math.ceil((ABOVE - lowest) / 12));
    return inRhythm(ctx, (c) => c.pitches.slice(-count).map((p) => raised(p, lift))).map((n) => ({
      ...n,
      velocity: Math.round(n.velocity * 0.8),
    }));
  },
};
