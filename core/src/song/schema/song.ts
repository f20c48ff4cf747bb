import { z } from "zod";
import { COMP_KINDS } from "../comp/kinds";
import { CLEFS, ROLES, SOUNDS } from "../../theory/instrument/instruments";
import { ChordEvent, Groove, NotesByPart, Voicing } from "./material";
import { Playing, PlayingByPart, PROFILES } from "./playing";
import {
  Bars,
  BarSpan,
  Duration,
  Id,
  InstrumentId,
  KeyText,
  LIMITS,
  MeterText,
  Offset,
  PartId,
  Pitch,
  SectionTick,
  Tick,
  SectionId,
  Span,
  Swing,
  TakeId,
  Tempo,
  Title,
} from "./scalars";

/** Version of the document this application writes. */
export const SONG_VERSION = 2;

export const Transposition = z
  .int("semitones are whole numbers")
  .min(-24, "at most two octaves down")
  .max(24, "at most two octaves up");

/** What a section had past its end before it was made shorter: out of everything, until it is longer again. */
const Beyond = z.object({
  chords: z.array(ChordEvent).max(5000).optional(),
  groove: Groove.optional(),
  notes: NotesByPart.optional(),
});

export const Section = z.object({
  id: Id,
  name: Title,
  bars: Bars,
  pickup: Duration.optional(),
  key: KeyText.optional(),
  tempo: Tempo.optional(),
  meter: MeterText.optional(),
  swing: Swing.optional(),
  copyOf: SectionId.optional(),
  chords: z.array(ChordEvent).max(5000, "a section has at most 5000 chords"),
  groove: Groove,
  notes: NotesByPart,
  playing: PlayingByPart.optional(),
  beyond: Beyond.optional(),
});

/** Bars that a pass has for itself; what is absent in them is the section's. */
const OwnBars = z.object({
  bars: BarSpan,
  chords: z.array(ChordEvent).max(5000).optional(),
  groove: Groove.optional(),
  notes: NotesByPart.optional(),
});

/** One time a section is played: the section, with what is different here. Layouts are pitches alone in older files. */
export const Pass = z.object({
  id: Id,
  sectionId: SectionId,
  name: Title.optional(),
  bars: BarSpan.optional(),
  transpose: Transposition.optional(),
  muted: z.array(PartId).max(LIMITS.parts).optional(),
  playing: PlayingByPart.optional(),
  /** Layouts of parts that are voiced in their own way here, by part and chord, in the key of the section. */
  voicings: z.record(PartId, z.record(Id, z.union([Voicing.shape.pitches, Voicing]))).optional(),
  own: z.array(OwnBars).max(LIMITS.bars).optional(),
});

/**
 * A part that is derived from the chords: how it plays them, whose voicings it plays (its own where `from` is absent),
 * and the part whose notes its top follows.
 */
export const Link = z.object({
  kind: z.enum(COMP_KINDS.map((k) => k.id)),
  loop: z.boolean().optional(),
  from: PartId.optional(),
  top: PartId.optional(),
});

/** An instrument of this song alone; one with the id of a known instrument changes it for this song. */
export const OwnInstrument = z.object({
  id: Id,
  title: Title,
  range: Span,
  comfortable: Span,
  clef: z.enum(CLEFS),
  transposition: z.int().min(-36).max(36),
  polyphony: z.int().min(1).max(16),
  held: z.discriminatedUnion("by", [
    z.object({ by: z.literal("hands"), span: z.int().min(7).max(24) }),
    z.object({
      by: z.literal("frets"),
      strings: z.array(Pitch).min(3).max(12),
      frets: z.int().min(5).max(36),
      scale: z.number().min(200).max(1200),
    }),
    z.object({ by: z.literal("notes") }),
  ]),
  program: z.int().min(0).max(127),
  sound: z.enum(SOUNDS),
  roles: z.array(z.enum(ROLES)).min(1).max(ROLES.length),
  source: z.string().max(200),
});

/** Values of an older version that no setting of this one has a name for: kept, read by nothing. */
const Unread = z.record(z.string().max(80), z.union([z.string().max(400), z.number(), z.boolean()]));

export const Part = z.object({
  id: Id,
  name: Title,
  role: z.enum(ROLES),
  instrument: InstrumentId,
  range: Span.optional(),
  link: Link.optional(),
  /** The part it repeats, as an echo does; it has no notes of its own then. */
  echoes: PartId.optional(),
  playing: Playing,
  muted: z.boolean().optional(),
  /** Loudness against the others, in decibels. */
  level: z.number().min(-60).max(12).optional(),
  /** From −1, left, to 1, right. */
  pan: z.number().min(-1).max(1).optional(),
  offset: Offset.optional(),
  unread: Unread.optional(),
});

export const Singer = z.object({
  id: Id,
  name: Title,
  voice: z.string().max(40),
  partId: PartId.optional(),
  comfortable: Span.optional(),
  extremes: Span.optional(),
  /** Seconds one breath lasts at ease. */
  breath: z.number().min(2, "goes from 2 to 30 seconds").max(30, "goes from 2 to 30 seconds").optional(),
});

/**
 * What a waiver lets stand: findings of a rule, in a section or anywhere, of these parts or any, about this or
 * anything. `about` names place and pitches, not ids, so that it outlives edits that leave the matter as it was.
 */
export const Matter = z.object({
  rule: z.string().min(1).max(60),
  sectionId: SectionId.optional(),
  parts: z.array(PartId).max(LIMITS.parts),
  about: z.string().max(400),
  /** How long it lasts; a waiver that says it holds for what lasts no longer. */
  duration: Tick.optional(),
});
export const Waiver = Matter.extend({ id: Id, reason: z.string().max(1000, "a reason has at most 1000 characters") });

/** A state that is kept, to come back to. */
export const Take = z.object({
  id: Id,
  name: Title,
  why: z.string().max(1000).optional(),
  made: z.string().max(40).optional(),
  sectionId: SectionId,
  /** The pass that was looked at; only told. */
  passId: Id.optional(),
  /** The bars it is about; all where absent. */
  bars: BarSpan.optional(),
  notes: NotesByPart.optional(),
  chords: z.array(ChordEvent).max(5000).optional(),
  groove: Groove.optional(),
});

/** A line of the song's log. */
export const Entry = z.object({
  id: Id,
  at: z.string().max(40),
  what: z.string().trim().min(1).max(400),
  where: z
    .object({
      sectionId: SectionId.optional(),
      /** The pass; only told. */
      passId: Id.optional(),
      tick: SectionTick.optional(),
      /** How many bars from there. */
      bars: z.int().min(1).max(LIMITS.bars).optional(),
      parts: z.array(PartId).max(LIMITS.parts).optional(),
    })
    .optional(),
  why: z.string().max(1000).optional(),
  takeId: TakeId.optional(),
  /** The application has written it, beside a deed. */
  byItself: z.boolean().optional(),
});

/** The fields of a song; `SongSchema` adds what holds between them. */
export const SongFields = z.object({
  version: z.literal(SONG_VERSION),
  id: Id,
  title: Title,
  key: KeyText,
  tempo: Tempo,
  meter: MeterText,
  swing: Swing,
  spelling: z.enum(["sharps", "flats"]).optional(),
  profile: z.enum(PROFILES),
  /** How grave a rule's findings are in this song, where it is not as the school has it. */
  severities: z.record(z.string().min(1).max(60), z.enum(["fault", "warning", "note", "off"])).optional(),
  instruments: z.array(OwnInstrument).max(64, "a song has at most 64 instruments of its own").optional(),
  parts: z.array(Part).max(LIMITS.parts, `a song has at most ${LIMITS.parts} parts`),
  sections: z
    .array(Section)
    .min(1, "a song has at least one section")
    .max(LIMITS.sections, `a song has at most ${LIMITS.sections} sections`),
  form: z.array(Pass).max(LIMITS.passes, `a song has at most ${LIMITS.passes} passes`),
  singers: z.array(Singer).max(64, "a song has at most 64 singers"),
  waivers: z.array(Waiver).max(LIMITS.waivers, `a song has at most ${LIMITS.waivers} waivers`),
  takes: z.array(Take).max(LIMITS.takes, `a song has at most ${LIMITS.takes} takes`),
  log: z.array(Entry).max(LIMITS.log, `a log has at most ${LIMITS.log} entries`),
  nextId: z.int().min(1),
});

export type Song = z.infer<typeof SongFields>;
export type Section = z.infer<typeof Section>;
export type Pass = z.infer<typeof Pass>;
export type Part = z.infer<typeof Part>;
export type Link = z.infer<typeof Link>;
export type OwnInstrument = z.infer<typeof OwnInstrument>;
export type Singer = z.infer<typeof Singer>;
export type Matter = z.infer<typeof Matter>;
export type Waiver = z.infer<typeof Waiver>;
export type Take = z.infer<typeof Take>;
export type Entry = z.infer<typeof Entry>;
