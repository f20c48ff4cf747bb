import { z } from "zod";
import { parseKey } from "../pitch/key";
import { parsePitch } from "../pitch/pitch";
import { parseMeter } from "../time/meter";
import { parseChord } from "../chord/parse";
import { NO_CHORD } from "../chord/progression";
import { COMP_KINDS } from "../comp/kinds";
import { DRUMS } from "./drums";
import { CLEFS, midiRange, ROLES, SOUNDS } from "../instrument/instruments";

/** Limits of a song document. */
export const LIMITS = { tempo: [20, 400], parts: 64, sections: 64, bars: 512, notes: 20_000, title: 200, tick: 512 * 7680 } as const;

/** Version of the document this application writes. */
export const SONG_VERSION = 1;

/** A string field checked by one of the core's own readers; its message becomes the schema's. */
const readBy = (read: (text: string) => { ok: true } | { ok: false; error: { message: string; hint?: string } }) =>
  z
    .string()
    .max(100)
    .superRefine((text, ctx) => {
      const result = read(text);
      if (!result.ok) ctx.addIssue({ code: "custom", message: [result.error.message, result.error.hint].filter(Boolean).join(". ") });
    });

const Id = z.string().min(1).max(40);
const Tick = z
  .int("ticks are whole numbers")
  .min(-7680, "starts more than a bar before its section")
  .max(LIMITS.tick, "lies past the longest possible section");
const Duration = z.int("ticks are whole numbers").min(1, "lasts no time").max(LIMITS.tick);
const Offset = z.int().min(-480).max(480);
const Velocity = z.int().min(1, "velocities go from 1 to 127").max(127, "velocities go from 1 to 127");
const Pitch = readBy(parsePitch);
const KeyText = readBy(parseKey);
const MeterText = readBy(parseMeter);
const Tempo = z
  .number()
  .min(LIMITS.tempo[0], `the tempo must be at least ${LIMITS.tempo[0]}`)
  .max(LIMITS.tempo[1], `the tempo must be at most ${LIMITS.tempo[1]}`);
const Symbol = readBy((text) => (text === NO_CHORD ? { ok: true } : parseChord(text)));
const Title = z.string().trim().min(1, "needs a name").max(LIMITS.title);

const Drum = z.enum(DRUMS);

/** Why a generated thing is as it is: an id and its parameters; words come from `describeReason`. */
const Reason = z.object({ id: z.string().max(40), params: z.record(z.string(), z.union([z.string(), z.number()])).optional() });

const Note = z.object({
  id: Id,
  start: Tick,
  duration: Duration,
  pitch: Pitch,
  velocity: Velocity,
  voice: z.int().min(1).max(8).optional(),
  offset: Offset.optional(),
  pinned: z.boolean().optional(),
  reason: Reason.optional(),
  lyrics: z.array(z.string().max(200)).max(16).optional(),
  glideTo: Pitch.optional(),
});

/** A chord as one part voices it: pinned as a whole, or only its top or its lowest note. */
const Voicing = z.object({
  pitches: z.array(Pitch).min(1).max(16),
  pinned: z.boolean().optional(),
  top: Pitch.optional(),
  bottom: Pitch.optional(),
});

const ChordEvent = z.object({
  id: Id,
  start: Tick,
  duration: Duration,
  symbol: Symbol,
  readings: z.array(Symbol).max(16).optional(),
  pinned: z.boolean().optional(),
  voicings: z.record(Id, Voicing).optional(),
  why: Reason.optional(),
});

const Hit = z.object({
  start: Tick.min(0),
  velocity: Velocity,
  offset: Offset.optional(),
  duration: Duration.optional(),
  /** Of a tuned drum, and where it slides to. */
  pitch: Pitch.optional(),
  glideTo: Pitch.optional(),
});

/** One drum: its hits, how it is named and mapped where the usual does not serve, and how it is played: swing of its own, late or early. */
const Lane = z.object({
  drum: Drum,
  hits: z.array(Hit).max(10_000),
  name: Title.optional(),
  note: z.int().min(0).max(127).optional(),
  swing: z.number().min(0.5).max(0.75).optional(),
  offset: Offset.optional(),
  tuned: z.boolean().optional(),
});

const Groove = z.object({
  lanes: z.array(Lane).max(DRUMS.length),
  /** Main accents set by hand, as ticks; absent where the rule decides. */
  accents: z.array(Tick).max(10_000).optional(),
});

const Section = z.object({
  id: Id,
  name: Title,
  bars: z.int().min(1, "a section has at least one bar").max(LIMITS.bars, `a section has at most ${LIMITS.bars} bars`),
  pickup: Duration.optional(),
  key: KeyText.optional(),
  tempo: Tempo.optional(),
  meter: MeterText.optional(),
  copyOf: Id.optional(),
  chords: z.array(ChordEvent).max(5000),
  groove: Groove,
  notes: z.record(Id, z.array(Note).max(LIMITS.notes)),
});

/**
 * A part that is derived from the chords: how it plays them, whose voicings it plays (its own where `from` is absent), and the part whose
 * notes its top follows.
 */
const Link = z.object({ kind: z.enum(COMP_KINDS.map((k) => k.id)), loop: z.boolean().optional(), from: Id.optional(), top: Id.optional() });

const Span = z.tuple([Pitch, Pitch]).refine(([low, high]) => {
  const [a, b] = midiRange([low, high]);
  return a < b;
}, "the lower end of a range comes first");

/** An instrument of this song alone; one with the id of a known instrument changes it for this song. */
const OwnInstrument = z.object({
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
  roles: z.array(z.enum(ROLES)).min(1),
  source: z.string().max(200),
});

const Part = z.object({
  id: Id,
  name: Title,
  role: z.enum(ROLES),
  instrument: z.string().max(40),
  range: z.tuple([Pitch, Pitch]).optional(),
  link: Link.optional(),
  settings: z.record(z.string().max(40), z.union([z.string().max(400), z.number(), z.boolean()])),
  muted: z.boolean().optional(),
  offset: Offset.optional(),
});

const Occurrence = z.object({
  id: Id,
  sectionId: Id,
  bars: z.tuple([z.int().min(0), z.int().min(1)]).optional(),
  muted: z.array(Id).optional(),
  transpose: z.int().min(-24).max(24).optional(),
});

const Singer = z.object({
  id: Id,
  name: Title,
  voice: z.string().max(40),
  comfortable: z.tuple([Pitch, Pitch]).optional(),
  extremes: z.tuple([Pitch, Pitch]).optional(),
});
const Waiver = z.object({ finding: z.string().max(400), reason: z.string().max(1000) });
const Take = z.object({
  id: Id,
  name: Title,
  sectionId: Id,
  partId: Id,
  notes: z.array(Note).max(LIMITS.notes),
  made: z.string().max(40).optional(),
});

export const PROFILES = ["chorale", "band", "jazz", "loop"] as const;

export const SongSchema = z
  .object({
    version: z.literal(SONG_VERSION),
    id: Id,
    title: Title,
    key: KeyText,
    tempo: Tempo,
    meter: MeterText,
    swing: z.object({
      ratio: z.number().min(0.5, "swing goes from 50 to 75 %").max(0.75, "swing goes from 50 to 75 %"),
      unit: z.union([z.literal(8), z.literal(16)]),
    }),
    spelling: z.enum(["sharps", "flats"]).optional(),
    profile: z.enum(PROFILES),
    instruments: z.array(OwnInstrument).max(64).optional(),
    parts: z.array(Part).max(LIMITS.parts, `a song has at most ${LIMITS.parts} parts`),
    sections: z
      .array(Section)
      .min(1, "a song has at least one section")
      .max(LIMITS.sections, `a song has at most ${LIMITS.sections} sections`),
    form: z.array(Occurrence).max(512),
    singers: z.array(Singer).max(64),
    waivers: z.array(Waiver).max(5000),
    takes: z.array(Take).max(1000),
    nextId: z.int().min(1),
  })
  .superRefine((song, ctx) => {
    const sections = new Set(song.sections.map((s) => s.id));
    const parts = new Set(song.parts.map((p) => p.id));
    if (sections.size < song.sections.length) ctx.addIssue({ code: "custom", path: ["sections"], message: "two sections share an id" });
    if (parts.size < song.parts.length) ctx.addIssue({ code: "custom", path: ["parts"], message: "two parts share an id" });
    song.form.forEach((o, i) => {
      if (!sections.has(o.sectionId))
        ctx.addIssue({ code: "custom", path: ["form", i, "sectionId"], message: `no section has the id "${o.sectionId}"` });
    });
    let notes = 0;
    song.sections.forEach((section, i) => {
      const ids = new Set<string>();
      for (const [part, list] of Object.entries(section.notes)) {
        if (!parts.has(part))
          ctx.addIssue({ code: "custom", path: ["sections", i, "notes", part], message: `no part has the id "${part}"` });
        notes += list.length;
        for (const note of list) {
          if (ids.has(note.id))
            ctx.addIssue({ code: "custom", path: ["sections", i, "notes", part], message: `two notes share the id "${note.id}"` });
          ids.add(note.id);
        }
      }
    });
    if (notes > LIMITS.notes)
      ctx.addIssue({ code: "custom", path: ["sections"], message: `the song has ${notes} notes; ${LIMITS.notes} are allowed` });
  });

export type Song = z.infer<typeof SongSchema>;
export type Part = z.infer<typeof Part>;
export type Link = z.infer<typeof Link>;
export type OwnInstrument = z.infer<typeof OwnInstrument>;
export type Section = z.infer<typeof Section>;
export type Occurrence = z.infer<typeof Occurrence>;
export type ChordEvent = z.infer<typeof ChordEvent>;
export type Note = z.infer<typeof Note>;
export type Groove = z.infer<typeof Groove>;
export type Hit = z.infer<typeof Hit>;
export type Lane = z.infer<typeof Lane>;
export type { Drum } from "./drums";
export type Reason = z.infer<typeof Reason>;
export type Profile = (typeof PROFILES)[number];
export type Waiver = z.infer<typeof Waiver>;
