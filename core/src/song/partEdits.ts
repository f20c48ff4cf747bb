import type { Draft } from "immer";
import { fail, type Result } from "../result";
import { INSTRUMENTS } from "../instrument/instruments";
import { checked, done, field, type Applied, type Edit } from "./edit";
import { linkedNotes } from "./linked";
import { LIMITS, type Part, type Song } from "./schema";

export type PartEdit = Extract<Edit, { do: "addPart" | "setPart" | "removePart" | "setLink" | "setInstrument" | "removeInstrument" }>;

/** Parts of the band, how they hang on the chords, and instruments of the song's own. */
export function partEdit(song: Song, edit: PartEdit, freshId: (song: Draft<Song>, prefix: string) => string): Result<Applied> {
  switch (edit.do) {
    case "addPart": {
      if (song.parts.length >= LIMITS.parts) return fail("edit.part", `A song has at most ${LIMITS.parts} parts`);
      const { do: _, settings = {}, ...rest } = edit;
      const valid = checked("part", field.parts.element.omit({ id: true }), { ...rest, settings });
      if (!valid.ok) return valid;
      return done(song, (s) => {
        // The first bass stays the first: it is the bass of the harmony.
        const after = valid.value.role === "bass" ? s.parts.findLastIndex((p) => p.role === "bass") : -1;
        s.parts.splice(after + 1, 0, { id: freshId(s, "p"), ...valid.value });
      });
    }
    case "setPart": {
      const valid = checked("part", field.parts.element.shape.range, edit.range ?? undefined);
      if (!valid.ok) return valid;
      return onPart(song, edit.part, (p) => {
        if (edit.name !== undefined) p.name = edit.name;
        if (edit.instrument !== undefined) p.instrument = edit.instrument;
        if (edit.muted !== undefined) p.muted = edit.muted;
        for (const [name, value] of Object.entries(edit.settings ?? {}))
          if (value === null) delete p.settings[name];
          else p.settings[name] = value;
        if (edit.loop !== undefined && p.link) p.link.loop = edit.loop;
        if (edit.range) p.range = edit.range;
        else if (edit.range === null) delete p.range;
      });
    }
    case "setLink":
      return onPart(song, edit.part, (p, s) => {
        if (edit.link) {
          p.link = edit.link;
          // What was written by hand gives way; undo brings it back.
          for (const section of s.sections) delete section.notes[edit.part];
        } else detach(song, p, s);
      });
    case "removePart":
      return onPart(song, edit.part, (_, s) => {
        // Parts that play its voicings keep their notes.
        for (const p of s.parts)
          if (p.link?.from === edit.part || (p.link?.kind === "block" && p.link.top === edit.part)) detach(song, p, s);
          else if (p.link?.top === edit.part) delete p.link.top;
        s.parts = s.parts.filter((p) => p.id !== edit.part);
        s.takes = s.takes.filter((t) => t.partId !== edit.part);
        for (const section of s.sections) {
          delete section.notes[edit.part];
          for (const chord of section.chords) delete chord.voicings?.[edit.part];
        }
      });
    case "setInstrument": {
      const valid = checked("instrument", field.instruments.unwrap().element, edit.instrument);
      if (!valid.ok) return valid;
      return done(song, (s) => {
        s.instruments = [...(s.instruments ?? []).filter((i) => i.id !== edit.instrument.id), valid.value];
      });
    }
    case "removeInstrument": {
      const user = INSTRUMENTS.some((i) => i.id === edit.instrument) ? undefined : song.parts.find((p) => p.instrument === edit.instrument);
      if (user) return fail("edit.instrument", `${user.name} plays this instrument`, { hint: "Give the part another instrument first." });
      return done(song, (s) => {
        s.instruments = (s.instruments ?? []).filter((i) => i.id !== edit.instrument);
        if (!s.instruments.length) delete s.instruments;
      });
    }
  }
}

/** What a linked part plays becomes notes of its own. */
function detach(song: Song, part: Draft<Part>, draft: Draft<Song>): void {
  const source = song.parts.find((p) => p.id === part.id);
  if (!source?.link) return;
  for (const section of draft.sections) {
    const original = song.sections.find((s) => s.id === section.id)!;
    section.notes[part.id] = linkedNotes(song, original, source).map(({ note: { swell: _, ...note } }) => ({
      ...note,
      id: `n${draft.nextId++}`,
    }));
  }
  delete part.link;
}

function onPart(song: Song, id: string, recipe: (part: Draft<Part>, song: Draft<Song>) => void): Result<Applied> {
  if (!song.parts.some((p) => p.id === id)) return fail("edit.part", `No part has the id "${id}"`);
  return done(song, (s) =>
    recipe(
      s.parts.find((p) => p.id === id)!,
      s,
    ),
  );
}
