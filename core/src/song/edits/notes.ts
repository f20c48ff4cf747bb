import { sure } from "../../base/list";
import { z } from "zod";
import { pitchMidi } from "../../theory/pitch/pitch";
import { positionText } from "../../theory/time/meter";
import { sectionMeter, sectionOf } from "../document";
import { LIMITS, Note, NoteId, PartId, SectionId, type Song } from "../schema";
import { defineEdit, draftOf, refuse } from "./define";

const At = { section: SectionId, part: PartId };
const NewNote = Note.omit({ id: true });

const editableNotes = (song: Song, section: string, part: string): readonly Note[] =>
  sure(sectionOf(song, section)).notes[part] ?? [];

type Fields = z.infer<typeof NewNote>;

/**
 * A note with its fields always in the same order: thousands of notes of one shape are read far faster than notes of
 * many.
 */
function noteWith(id: string, { start, duration, pitch, velocity, ...more }: Fields): Note {
  const note: Note = { id, start, duration, pitch, velocity };
  for (const name of ["voice", "offset", "pinned", "reason", "lyrics", "slide", "swell"] as const)
    if (more[name] !== undefined) Object.assign(note, { [name]: more[name] });
  return note;
}

const inOrder = (notes: readonly Note[]): Note[] =>
  [...notes].sort((a, b) => a.start - b.start || pitchMidi(a.pitch) - pitchMidi(b.pitch));

/** A note that would begin past the end of its section and did not before. */
function pastEnd(
  song: Song,
  section: string,
  before: readonly Note[],
  after: readonly Note[],
): ReturnType<typeof refuse> | undefined {
  const here = sure(sectionOf(song, section));
  const meter = sectionMeter(song, here);
  const outside = after.find(
    (n) => n.start >= here.bars * meter.bar && !before.some((b) => b.id === n.id && b.start === n.start),
  );
  return outside
    ? refuse(
        "note",
        `A note would begin at ${positionText(meter, outside.start)}; ${here.name} ends with bar ${here.bars}`,
        "Make the section longer first.",
      )
    : undefined;
}

export const addNote = defineEdit({
  name: "addNote",
  title: "add a note",
  schema: { ...At, note: NewNote },
  apply(draft, { section, part, note }, { song, fresh }) {
    const before = editableNotes(song, section, part);
    const added = noteWith(fresh("n"), note);
    const problem = pastEnd(song, section, before, [added]);
    if (problem) return problem;
    draftOf(draft, section).notes[part] = inOrder([...before, added]);
  },
});

/** Fields of a note that can be changed; null removes one that need not be there. */
const { start, duration, pitch, velocity, ...more } = Note.omit({ id: true }).shape;
const Change = z.strictObject({
  id: NoteId,
  start: start.optional(),
  duration: duration.optional(),
  pitch: pitch.optional(),
  velocity: velocity.optional(),
  voice: more.voice.nullable(),
  offset: more.offset.nullable(),
  pinned: more.pinned.nullable(),
  reason: more.reason.nullable(),
  lyrics: more.lyrics.nullable(),
  slide: more.slide.nullable(),
  swell: more.swell.nullable(),
});

function changed(note: Note, { id: _, ...change }: z.infer<typeof Change>): Note {
  const elsewhere =
    (change.pitch !== undefined && pitchMidi(change.pitch) !== pitchMidi(note.pitch)) ||
    (change.start !== undefined && change.start !== note.start);
  // A generated reason and a slide no longer hold once the note stands elsewhere.
  const fields: Record<string, unknown> = { ...note, ...(elsewhere ? { reason: undefined, slide: undefined } : {}) };
  for (const [name, value] of Object.entries(change)) if (value !== undefined) fields[name] = value ?? undefined;
  return noteWith(note.id, fields as Fields);
}

export const changeNotes = defineEdit({
  name: "changeNotes",
  title: "change notes",
  schema: { ...At, notes: z.array(Change).max(LIMITS.notes) },
  apply(draft, { section, part, notes }, { song }) {
    const before = editableNotes(song, section, part);
    const changes = new Map(notes.map((n) => [n.id, n]));
    const unknown = notes.find((n) => !before.some((b) => b.id === n.id));
    if (unknown) return refuse("note", `No note of this part has the id "${unknown.id}"`);
    const after = before.map((n) => {
      const change = changes.get(n.id);
      return change ? changed(n, change) : n;
    });
    const problem = pastEnd(song, section, before, after);
    if (problem) return problem;
    draftOf(draft, section).notes[part] = inOrder(after);
  },
});

export const removeNotes = defineEdit({
  name: "removeNotes",
  title: "remove notes",
  schema: { ...At, notes: z.array(NoteId).max(LIMITS.notes) },
  apply(draft, { section, part, notes }, { song }) {
    const before = editableNotes(song, section, part);
    const gone = new Set(notes);
    const known = new Set(before.map((n) => n.id));
    const unknown = notes.find((id) => !known.has(id));
    if (unknown !== undefined) return refuse("note", `No note of this part has the id "${unknown}"`);
    draftOf(draft, section).notes[part] = before.filter((n) => !gone.has(n.id));
  },
});

/** All notes of a part in a section at once. A note keeps its id where no other part has it. */
export const setNotes = defineEdit({
  name: "setNotes",
  title: "write the notes of a part",
  schema: {
    ...At,
    notes: z
      .array(NewNote.extend({ id: Note.shape.id.optional() }))
      .max(LIMITS.notes, `a song has at most ${LIMITS.notes} notes`),
  },
  apply(draft, { section, part, notes }, { song, fresh }) {
    const here = sure(sectionOf(song, section));
    const others = Object.entries(here.notes).flatMap(([other, list]) => (other === part ? [] : list));
    const used = new Set([...others, ...Object.values(here.beyond?.notes ?? {}).flat()].map((n) => n.id));
    const after = notes.map((n): Note => {
      const id = n.id !== undefined && !used.has(n.id) ? n.id : fresh("n", used);
      used.add(id);
      return noteWith(id, n);
    });
    const problem = pastEnd(song, section, editableNotes(song, section, part), after);
    if (problem) return problem;
    draftOf(draft, section).notes[part] = inOrder(after);
  },
});
