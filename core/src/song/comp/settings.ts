import { z } from "zod";
import { DRUMS } from "../../theory/instrument/drums";

/** How a part plays the chords in time, apart from the kind of playing. */
export const CompSettings = z.strictObject({
  /** A pattern by name, or steps of one's own: X hard, x struck, - held on, . silent. */
  rhythm: z.string().max(400).optional(),
  /** The drum whose hits it takes instead. */
  follow: z.enum(DRUMS).optional(),
  anticipate: z.boolean().optional(),
  /** Length of an attack in percent of its room. */
  gate: z.number().min(1).max(100).optional(),
  /** Octaves by which the layouts are moved. */
  lift: z.int().min(-4).max(4).optional(),
  /** How many of the top notes it plays. */
  notes: z.int().min(1).max(16).optional(),
  /** From note to note, in ticks. */
  step: z.int().min(30).max(1920).optional(),
  way: z.enum(["up", "down", "up-down", "outside-in"]).optional(),
  octaves: z.int().min(1).max(6).optional(),
  /** The shortest gap of a tune it fills, in beats. */
  gap: z.number().min(0.25).max(64).optional(),
  /** Ticks from note to note of a strummed chord, from which end, and how much louder note by note. */
  strum: z.number().min(0).max(240).optional(),
  strumWay: z.enum(["up", "down", "alternate"]).optional(),
  slope: z.number().min(-64).max(64).optional(),
  /** Loose hands: how much, in ticks, and which ones. */
  human: z.number().min(0).max(240).optional(),
  seed: z.int().min(0).max(1e9).optional(),
});

export type CompSettings = z.infer<typeof CompSettings>;
