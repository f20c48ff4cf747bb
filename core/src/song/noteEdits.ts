import { fail, type Result } from "../result";
import { pitchMidi } from "../pitch/pitch";
import { sectionMeter } from "./document";
import { checked, done, field, type Applied, type Edit } from "./edit";
import { LIMITS, type Note, type Section, type Song } from "./schema";

export type NoteEdit = Extract<Edit, { do: "addNote" | "changeNotes" | "removeNotes" | "setNotes" }>;

/** Adds, changes, removes or replaces the notes of one part in a section; all of them are checked before any is taken. */
export function noteEdit(song: Song, section: Section, edit: NoteEdit): Result<Applied> {
  if (!song.parts.some((p) => p.id === edit.part)) return fail("edit.part", `No part has the id "${edit.part}"`);
  const schema = field.sections.element.shape.notes.valueType;
  const before = section.notes[edit.part] ?? [];
  let nextId = song.nextId;
  const fresh = () => `n${nextId++}`;
  let after: Note[];
  if (edit.do === "addNote") after = [...before, { ...edit.note, id: fresh() }];
  else if (edit.do === "removeNotes") after = before.filter((n) => !edit.notes.includes(n.id));
  else if (edit.do === "setNotes") {
    const used = new Set(Object.entries(section.notes).flatMap(([part, list]) => (part === edit.part ? [] : list.map((n) => n.id))));
    after = edit.notes.map((n) => {
      const id = n.id && !used.has(n.id) ? n.id : fresh();
      used.add(id);
      return { ...n, id };
    });
  } else {
    const changes = new Map(edit.notes.map((n) => [n.id, n]));
    after = before.map((n) => {
      const change = changes.get(n.id);
      if (!change) return n;
      // A generated reason and glide no longer hold once the note stands elsewhere.
      const { reason: _, glideTo: __, ...moved } = n;
      const elsewhere =
        (change.pitch !== undefined && change.pitch !== n.pitch) || (change.start !== undefined && change.start !== n.start);
      return { ...(elsewhere ? moved : n), ...change };
    });
  }
  // Notes that were there before were checked before.
  const known = new Set(before);
  const valid = checked(
    "note",
    schema,
    after.filter((n) => !known.has(n)),
  );
  if (!valid.ok) return fail("edit.note", valid.error.message.replace(/^The note .* cannot be used/s, "The note cannot be used"));
  const others = song.sections
    .flatMap((s) => Object.entries(s.notes).map(([part, list]) => (s.id === section.id && part === edit.part ? 0 : list.length)))
    .reduce((a, b) => a + b, 0);
  if (others + after.length > LIMITS.notes)
    return fail("edit.notes", `The song would have ${others + after.length} notes; ${LIMITS.notes} are allowed`, {
      hint: "Put a part of it into another song.",
    });
  const latest = section.bars * sectionMeter(song, section).bar;
  const outside = after.find((n) => n.start >= latest && !before.some((b) => b.id === n.id && b.start === n.start));
  if (outside)
    return fail("edit.note", `A note starts at tick ${outside.start}; the section ends at tick ${latest}`, {
      hint: "Make the section longer first.",
    });
  return done(song, (s) => {
    s.sections.find((x) => x.id === section.id)!.notes[edit.part] = [...after.filter((n) => known.has(n)), ...valid.value].sort(
      (a, b) => a.start - b.start || pitchMidi(a.pitch) - pitchMidi(b.pitch),
    );
    s.nextId = nextId;
  });
}
