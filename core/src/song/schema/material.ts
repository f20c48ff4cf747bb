import { z } from "zod";
import { DRUMS } from "../../theory/instrument/drums";
import {
  ChordText,
  Duration,
  Id,
  LIMITS,
  Offset,
  PartId,
  Pitch,
  SectionTick,
  Reason,
  Tick,
  Title,
  Velocity,
} from "./scalars";

/** How a note goes on to another pitch at its end. */
const Slide = z.object({ kind: z.literal("glide"), to: Pitch, length: Duration.optional() });

export const Note = z.object({
  id: Id,
  start: Tick,
  duration: Duration,
  pitch: Pitch,
  velocity: Velocity,
  voice: z.int().min(1).max(8).optional(),
  offset: Offset.optional(),
  pinned: z.boolean().optional(),
  reason: Reason.optional(),
  /** One syllable a verse. */
  lyrics: z.array(z.string().max(200)).max(16).optional(),
  slide: Slide.optional(),
  /** Rises out of silence to its end. */
  swell: z.boolean().optional(),
});

/**
 * A layout as it is held on a neck: frets from the first drawn string, null where a string is silent, counted from the
 * capo.
 */
export const HeldShape = z.object({
  frets: z.array(z.int().min(0).max(36).nullable()).min(3).max(12),
  capo: z.int().min(0).max(24),
  fingers: z.array(z.int().min(0).max(4).nullable()).max(12).optional(),
});

/**
 * One time a chord is struck, played otherwise than it is laid out: ticks from where the chord begins, and each note
 * with how much later it comes, how long and how loud it is where that is not as the stroke has it. No notes: it rests.
 */
export const Stroke = z.object({
  at: z.int("ticks are whole numbers").min(-LIMITS.tick).max(LIMITS.tick),
  notes: z
    .array(
      z.object({
        pitch: Pitch,
        from: z.int().min(1).max(LIMITS.tick).optional(),
        duration: Duration.optional(),
        velocity: Velocity.optional(),
      }),
    )
    .max(32, "a stroke has at most 32 notes"),
});

/** A chord as one part voices it: pinned as a whole, or only its top or its lowest note. */
export const Voicing = z.object({
  pitches: z.array(Pitch).min(1, "a layout has at least one note").max(16, "a layout has at most 16 notes"),
  pinned: z.boolean().optional(),
  top: Pitch.optional(),
  bottom: Pitch.optional(),
  shape: HeldShape.optional(),
  strokes: z.array(Stroke).max(1000, "a chord has at most 1000 strokes of its own").optional(),
});

export const ChordEvent = z.object({
  id: Id,
  start: Tick,
  duration: Duration,
  symbol: ChordText,
  /** As it was typed, where that differs from the canonical symbol. */
  written: z.string().max(100).optional(),
  readings: z.array(ChordText).max(16).optional(),
  /** How sure the name is where it was read off notes, 0 to 1; absent where somebody wrote it. */
  certainty: z.number().min(0).max(1).optional(),
  pinned: z.boolean().optional(),
  voicings: z.record(PartId, Voicing).optional(),
  why: Reason.optional(),
});

export const Hit = z.object({
  start: SectionTick,
  velocity: Velocity,
  offset: Offset.optional(),
  duration: Duration.optional(),
  /** Of a tuned drum, and where it slides to. */
  pitch: Pitch.optional(),
  glideTo: Pitch.optional(),
});

export const DrumName = z.enum(DRUMS);

/**
 * One drum: its hits, how it is named and mapped where the usual does not serve, and how it is played: swing of its
 * own, late or early.
 */
export const Lane = z.object({
  drum: DrumName,
  hits: z.array(Hit).max(10_000),
  name: Title.optional(),
  note: z.int().min(0).max(127).optional(),
  swing: z.number().min(0.5, "swing goes from 50 to 75 %").max(0.75, "swing goes from 50 to 75 %").optional(),
  offset: Offset.optional(),
  tuned: z.boolean().optional(),
});

/** Main accents set by hand, as ticks; absent where the rule decides. */
export const Accents = z.array(Tick).max(10_000);

export const Groove = z.object({ lanes: z.array(Lane).max(DRUMS.length), accents: Accents.optional() });

export const NoteList = z.array(Note).max(LIMITS.notes, `a song has at most ${LIMITS.notes} notes`);
/** Notes by the part that plays them. */
export const NotesByPart = z.record(PartId, NoteList);

export type Stroke = z.infer<typeof Stroke>;
export type Voicing = z.infer<typeof Voicing>;
export type ChordEvent = z.infer<typeof ChordEvent>;
export type Note = z.infer<typeof Note>;
/** A note that is not yet in a song. */
export type NewNote = Omit<Note, "id">;
export type Slide = z.infer<typeof Slide>;
export type Groove = z.infer<typeof Groove>;
export type Hit = z.infer<typeof Hit>;
export type Lane = z.infer<typeof Lane>;
export type HeldShape = z.infer<typeof HeldShape>;
