import { z } from "zod";
import { CompPlaying } from "../comp/kinds";
import { DRUMS } from "../../theory/instrument/drums";
import { Duration, PartId, Pitch } from "./scalars";

/** Schools that profiles, voicings and checks distinguish. */
export const PROFILES = ["chorale", "band", "jazz", "loop"] as const;
export type Profile = (typeof PROFILES)[number];

/** Terms a voicing path is judged by; what they mean stands in `voicing/cost`. */
export const VOICING_TERMS = [
  "motion",
  "leap",
  "common",
  "topLine",
  "parallels",
  "register",
  "spacing",
  "lowIntervals",
  "roughness",
  "missing",
  "doubling",
  "hand",
] as const;

const StyleId = z.string().min(1).max(40);
const share = () => z.number().min(0, "goes from 0 to 1").max(1, "goes from 0 to 1");

/** How a part lays the chords out. */
export const VoicingPlaying = z.strictObject({
  style: StyleId.optional(),
  /** The school it is written for; band where it is absent. Judging by another school changes nothing here. */
  school: z.enum(PROFILES).optional(),
  /** Whether another part plays the bass under it; absent: yes where the song has a bass part. */
  over: z.enum(["bass", "nothing"]).optional(),
  voices: z.int().min(1).max(16).optional(),
  /** Semitones by which the usual register is moved. */
  register: z.int().min(-48).max(48).optional(),
  weights: z.partialRecord(z.enum(VOICING_TERMS), z.number().min(0).max(100)).optional(),
  topShape: z.enum(["smooth", "still", "rising", "falling"]).optional(),
  hands: z.union([z.literal(1), z.literal(2)]).optional(),
  /** Widest span of one hand, in semitones. */
  span: z.int().min(1).max(36).optional(),
  capo: z.int().min(0).max(24).optional(),
  /** Open strings where they are not the instrument's, first drawn string first. */
  tuning: z.array(Pitch).min(3).max(12).optional(),
});

/** How a bass line is written, in plain terms. */
export const BassPlaying = z.strictObject({
  style: StyleId.optional(),
  /** 0 only what must sound, 1 every place the style knows. */
  density: share().optional(),
  /** Length of a note: cut short, as the style has it, or up to the next note. */
  length: z.enum(["short", "usual", "long"]).optional(),
  /** What happens before a snare or clap: the note ends there, or rings on. */
  gate: z.enum(["cut", "ring"]).optional(),
  /** Silence on purpose in the last beat of every figure. */
  rests: z.boolean().optional(),
  /** Most different pitches (octaves not counted) in a figure of one or two bars. */
  pitches: z.int().min(1, "goes from 1 to 7").max(7, "goes from 1 to 7").optional(),
  octaves: z.enum(["none", "some", "many"]).optional(),
  slides: z.enum(["none", "some", "many"]).optional(),
  /** Which kicks the line must meet. */
  lock: z.enum(["chords", "main", "every"]).optional(),
  /**
   * Color that is liked beside the root, by quality of the chord (common practice: the fifth over major, the third over
   * minor).
   */
  overMajor: z.enum(["fifth", "third", "either"]).optional(),
  overMinor: z.enum(["fifth", "third", "either"]).optional(),
  /** Move in the gaps of a tune, hold under its motion, keep out of its octave. */
  melody: z.boolean().optional(),
  /** A rhythm figure that the other sections do not have. */
  ownFigure: z.boolean().optional(),
  /** How much every fourth bar departs from the figure. */
  variation: share().optional(),
  /** The last bar ends differently. */
  ending: z.boolean().optional(),
  /** Lowest and highest note; the part's range where it is empty. */
  low: Pitch.or(z.literal("")).optional(),
  high: Pitch.or(z.literal("")).optional(),
});

/** How a counter melody is written. */
export const CounterPlaying = z.strictObject({
  style: StyleId.optional(),
  /** 0 the fewest notes the style can do with, 1 the most. */
  density: share().optional(),
  /** Where it lies against the tune. */
  side: z.enum(["below", "above", "either"]).optional(),
  /** Lowest and highest note; the part's range where it is empty. */
  low: Pitch.or(z.literal("")).optional(),
  high: Pitch.or(z.literal("")).optional(),
  /**
   * Whose hits it takes, and which pitches it gives them: as few as it can, up and down the chord, or a line by step.
   */
  drum: z.enum(DRUMS).optional(),
  hits: z.enum(["few", "chord", "line"]).optional(),
  /**
   * A drawn cell: held as it is while the chords change, refitted to each of them, or moved along the scale with their
   * roots.
   */
  cell: z.enum(["hold", "refit", "scale"]).optional(),
  /** What lies under each note of a line in double-stops. */
  under: z.enum(["thirds", "sixths"]).optional(),
});

/** How voices are written beside a tune. */
export const VocalPlaying = z.strictObject({
  school: StyleId.optional(),
  /** How many sing in all, the tune among them. */
  voices: z.int().min(2, "goes from 2 to 4").max(4, "goes from 2 to 4").optional(),
  side: z.enum(["below", "above"]).optional(),
  /** The interval that is liked: of a line that goes along with the tune. */
  interval: z.enum(["third", "sixth"]).optional(),
  /** Of a copy at a fixed interval, up or down. */
  semitones: z.int().min(-24, "at most two octaves").max(24, "at most two octaves").optional(),
  /** Voices behind the singer: held, or rising out of silence again and again. */
  manner: z.enum(["held", "swelling"]).optional(),
  syllable: z.enum(["oo", "ah", "mm"]).optional(),
  /** What a drone holds: the tonic, the fifth, or the tone that most chords have. */
  tone: z.enum(["tonic", "fifth", "common"]).optional(),
  /** Where the tune lies among voices that move with it. */
  lead: z.enum(["top", "second"]).optional(),
});

/** How a part repeats another one. */
export const EchoPlaying = z.strictObject({
  /** Ticks from a note to its first repeat, and from each to the next. */
  delay: Duration.max(7680, "at most four whole notes").optional(),
  repeats: z.int().min(1, "goes from 1 to 12").max(12, "goes from 1 to 12").optional(),
  /** What is left of the amplitude each time. */
  decay: z.number().min(0.05, "goes from 5 to 100 %").max(1, "goes from 5 to 100 %").optional(),
  /** Semitones by which the repeats lie higher. */
  shift: z.int().min(-24, "at most two octaves").max(24, "at most two octaves").optional(),
});

/** How loud a part plays. */
export const DynamicsPlaying = z.strictObject({
  /** Steps of the scale pp p mp mf f ff by which it is louder or softer than it is written. */
  steps: z.int().min(-4, "at most four steps softer").max(4, "at most four steps louder").optional(),
});

export const DrumsPlaying = z.strictObject({
  /** A rhythm to stay clear of: x struck, . silent. */
  reference: z.string().max(400).optional(),
});

/**
 * All ways of playing; a new one is one schema and one line here. What is absent is inherited: pass, section, part,
 * usual value.
 */
export const WAYS = {
  comp: CompPlaying,
  voicing: VoicingPlaying,
  bass: BassPlaying,
  counter: CounterPlaying,
  vocal: VocalPlaying,
  drums: DrumsPlaying,
  echo: EchoPlaying,
  dynamics: DynamicsPlaying,
} as const;

export const Playing = z.strictObject({
  comp: CompPlaying.optional(),
  voicing: VoicingPlaying.optional(),
  bass: BassPlaying.optional(),
  counter: CounterPlaying.optional(),
  vocal: VocalPlaying.optional(),
  drums: DrumsPlaying.optional(),
  echo: EchoPlaying.optional(),
  dynamics: DynamicsPlaying.optional(),
});
/** Own values of a section or a pass, by part. */
export const PlayingByPart = z.record(PartId, Playing);

export type Playing = z.infer<typeof Playing>;
export type Way = keyof typeof WAYS;
export type PlayingOf<W extends Way> = NonNullable<Playing[W]>;
