import { z } from "zod";
import { COMP_KINDS } from "../comp/kinds";
import { ROLES } from "../../theory/instrument/instruments";
import { ChordEvent, Groove, Note as NoteNow } from "../schema/material";
import { PROFILES } from "../schema/playing";
import { Duration, Id, KeyText, LIMITS, MeterText, Offset, Pitch, Swing, Tempo, Title } from "../schema/scalars";
import { OwnInstrument, Singer as SingerNow } from "../schema/song";

/**
 * A song document of version 1, as it was written until version 0.1.0 of the application. Kept for ever; only
 * `fromVersion1` reads it.
 */

const Ends = z.tuple([Pitch, Pitch]);
const Note = NoteNow.omit({ slide: true }).extend({ glideTo: Pitch.optional() });
const Notes = z.record(Id, z.array(Note).max(LIMITS.notes));

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
  notes: Notes,
});

const Part = z.object({
  id: Id,
  name: Title,
  role: z.enum(ROLES),
  instrument: z.string().max(40),
  range: Ends.optional(),
  link: z
    .object({
      kind: z.enum(COMP_KINDS.map((k) => k.id)),
      loop: z.boolean().optional(),
      from: Id.optional(),
      top: Id.optional(),
    })
    .optional(),
  settings: z.record(z.string().max(80), z.union([z.string().max(400), z.number(), z.boolean()])),
  muted: z.boolean().optional(),
  offset: Offset.optional(),
});

export const Song1 = z
  .object({
    version: z.literal(1),
    id: Id,
    title: Title,
    key: KeyText,
    tempo: Tempo,
    meter: MeterText,
    swing: Swing,
    spelling: z.enum(["sharps", "flats"]).optional(),
    profile: z.enum(PROFILES),
    instruments: z
      .array(OwnInstrument.extend({ range: Ends, comfortable: Ends }))
      .max(64)
      .optional(),
    parts: z.array(Part).max(LIMITS.parts, `a song has at most ${LIMITS.parts} parts`),
    sections: z
      .array(Section)
      .min(1, "a song has at least one section")
      .max(LIMITS.sections, `a song has at most ${LIMITS.sections} sections`),
    form: z
      .array(
        z.object({
          id: Id,
          sectionId: Id,
          bars: z.tuple([z.int().min(0), z.int().min(1)]).optional(),
          muted: z.array(Id).optional(),
          transpose: z.int().min(-24).max(24).optional(),
        }),
      )
      .max(512),
    singers: z
      .array(SingerNow.omit({ partId: true }).extend({ comfortable: Ends.optional(), extremes: Ends.optional() }))
      .max(64),
    waivers: z.array(z.object({ finding: z.string().max(400), reason: z.string().max(1000) })).max(5000),
    takes: z
      .array(
        z.object({
          id: Id,
          name: Title,
          sectionId: Id,
          partId: Id,
          notes: z.array(Note).max(LIMITS.notes),
          made: z.string().max(40).optional(),
        }),
      )
      .max(1000),
    nextId: z.int().min(1),
  })
  .superRefine((song, ctx) => {
    const sections = new Set(song.sections.map((s) => s.id));
    const parts = new Set(song.parts.map((p) => p.id));
    if (sections.size < song.sections.length)
      ctx.addIssue({ code: "custom", path: ["sections"], message: "two sections share an id" });
    if (parts.size < song.parts.length)
      ctx.addIssue({ code: "custom", path: ["parts"], message: "two parts share an id" });
    song.form.forEach((pass, i) => {
      if (!sections.has(pass.sectionId))
        ctx.addIssue({
          code: "custom",
          path: ["form", i, "sectionId"],
          message: `no section has the id "${pass.sectionId}"`,
        });
    });
  });

export type Song1 = z.infer<typeof Song1>;
export type Section1 = Song1["sections"][number];
export type Part1 = Song1["parts"][number];
export type Note1 = z.infer<typeof Note>;
