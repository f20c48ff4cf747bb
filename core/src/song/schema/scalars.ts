import { z } from "zod";
import type { Problem } from "../../base/result";
import { parseKey } from "../../theory/pitch/key";
import { parsePitch } from "../../theory/pitch/pitch";
import { parseMeter } from "../../theory/time/meter";
import { parseChord } from "../../theory/chord/parse";
import { NO_CHORD } from "../../theory/chord/progression";

/** Limits of a song document. */
export const LIMITS = {
  tempo: [20, 400],
  parts: 64,
  sections: 64,
  bars: 512,
  passes: 512,
  notes: 20_000,
  title: 200,
  tick: 512 * 7680,
  takes: 1000,
  /** Notes that all takes hold together, twice what a song may have: one full of takes can still be saved. */
  taken: 40_000,
  waivers: 5000,
  log: 5000,
} as const;

/**
 * What an id names. A field that holds the id of something else says so in its schema, so that every reference can be
 * checked and generated.
 */
export type Thing =
  "section" | "part" | "pass" | "chord" | "note" | "take" | "waiver" | "entry" | "instrument" | "singer";
/** What kind of text a field holds, where its own reader decides whether it is good. */
export type TextKind = "pitch" | "key" | "meter" | "symbol" | "line";

declare module "zod" {
  interface GlobalMeta {
    ref?: Thing;
    text?: TextKind;
  }
}

/** A string field checked by one of the core's own readers; its message becomes the schema's. */
const readBy = (text: TextKind, read: (text: string) => { ok: true } | { ok: false; error: Problem }) =>
  z
    .string()
    .max(100)
    .superRefine((value, ctx) => {
      const result = read(value);
      if (!result.ok)
        ctx.addIssue({
          code: "custom",
          message: [result.error.message, result.error.hint].filter(Boolean).join(". "),
          params: { problem: result.error },
        });
    })
    .meta({ text });

export const Id = z
  .string()
  .min(1, "an id has at least one character")
  .max(40, "an id has at most 40 characters")
  .refine((id) => id !== "__proto__", "this id cannot be used");
const refTo = (ref: Thing) => Id.meta({ ref });
export const SectionId = refTo("section");
export const PartId = refTo("part");
export const PassId = refTo("pass");
export const ChordId = refTo("chord");
export const NoteId = refTo("note");
export const TakeId = refTo("take");
export const EntryId = refTo("entry");
export const WaiverId = refTo("waiver");
export const SingerId = refTo("singer");
export const InstrumentId = refTo("instrument");

export const Tick = z
  .int("ticks are whole numbers")
  .min(-7680, "starts more than a bar before its section")
  .max(LIMITS.tick, "lies past the longest possible section");
/** A place inside a section: not in its pickup. */
export const SectionTick = z
  .int("ticks are whole numbers")
  .min(0, "lies before its section")
  .max(LIMITS.tick, "lies past the longest possible section");
export const Duration = z
  .int("ticks are whole numbers")
  .min(1, "lasts no time")
  .max(LIMITS.tick, "is longer than the longest possible section");
/** How much later (or earlier) than notated a note is played, in ticks. */
export const Offset = z
  .int("ticks are whole numbers")
  .min(-480, "at most a beat early")
  .max(480, "at most a beat late");
export const Velocity = z
  .int("velocities are whole numbers")
  .min(1, "velocities go from 1 to 127")
  .max(127, "velocities go from 1 to 127");
export const Pitch = readBy("pitch", parsePitch);
export const KeyText = readBy("key", parseKey);
export const MeterText = readBy("meter", parseMeter);
export const Tempo = z
  .number()
  .min(LIMITS.tempo[0], `the tempo must be at least ${LIMITS.tempo[0]}`)
  .max(LIMITS.tempo[1], `the tempo must be at most ${LIMITS.tempo[1]}`);
export const Swing = z.object({
  ratio: z.number().min(0.5, "swing goes from 50 to 75 %").max(0.75, "swing goes from 50 to 75 %"),
  unit: z.union([z.literal(8), z.literal(16)]),
});
/** A chord symbol, or N.C. */
export const ChordText = readBy("symbol", (text) => (text === NO_CHORD ? { ok: true } : parseChord(text)));
export const Title = z
  .string()
  .trim()
  .min(1, "needs a name")
  .max(LIMITS.title, `a name has at most ${LIMITS.title} characters`);
export const Bars = z
  .int("bars are whole numbers")
  .min(1, "a section has at least one bar")
  .max(LIMITS.bars, `a section has at most ${LIMITS.bars} bars`);
/** From a bar (0-based) up to, not including, another. */
export const BarSpan = z
  .tuple([z.int().min(0).max(LIMITS.bars), z.int().min(1).max(LIMITS.bars)])
  .refine(([from, to]) => from < to, "a stretch of bars ends after it begins");
export const Span = z.tuple([Pitch, Pitch]).refine((span) => {
  const [low, high] = span.map(parsePitch);
  // Ends that cannot be read are reported by themselves.
  return !low?.ok || !high?.ok || low.value < high.value;
}, "the lower end of a range comes first");

/** Why a generated thing is as it is: an id and its parameters; words and weight are those of `REASONS`. */
export const Reason = z.object({
  id: z.string().max(40),
  params: z.record(z.string().max(40), z.union([z.string().max(400), z.number()])).optional(),
});
export type Reason = z.infer<typeof Reason>;
