import { type Edit, type Midi, type Note, Pitch, type Section, Song, sure, type Ticks } from "../../../core/src/index";
import { soundNote } from "../audio/sound";
import { chooseNotes } from "../store/selection";
import { edit, sectionNow, songNow, useSong } from "../store/song";

/** A part in a section. */
export interface NotePlace {
  section: string;
  part: string;
}

export type NoteChange = Extract<Edit, { do: "changeNotes" }>["notes"][number];

/** Loudness of a note that is drawn. */
const DRAWN_VELOCITY = 90;

/** Notes of a part as they are stored now: the drawn ones may be a frame behind, and keys come fast. */
export const notesNow = ({ section, part }: NotePlace): (Note & { midi: Midi })[] =>
  (sectionNow(section)?.notes[part] ?? []).map((n) => ({ ...n, midi: Pitch.midi(n.pitch) }));

/** The name of a pitch at a place, by its chord and key. */
export const spellHere = ({ id }: Pick<Section, "id">, tick: Ticks, midi: Midi): string =>
  Song.spell(songNow(), sure(sectionNow(id)), tick, Math.min(127, Math.max(0, midi)));

export const changeNotesEdit = ({ section, part }: NotePlace, notes: NoteChange[]): Edit => ({
  do: "changeNotes",
  section,
  part,
  notes,
});

export const changeNotes = (place: NotePlace, notes: NoteChange[], options?: { quiet?: boolean }): boolean =>
  edit(changeNotesEdit(place, notes), options);

/** Writes a note, chooses it and lets it sound; its id, or null where it cannot stand. */
export function addNote(place: NotePlace, note: { start: Ticks; duration: Ticks; pitch: string }): string | null {
  const made = useSong.getState().make({ do: "addNote", ...place, note: { ...note, velocity: DRAWN_VELOCITY } });
  const id = made?.[0];
  if (!id) return null;
  void soundNote(place.part, Pitch.midi(note.pitch));
  chooseNotes(place.part, [id]);
  return id;
}

export const removeNotes = (place: NotePlace, ids: string[]): boolean =>
  edit({ do: "removeNotes", ...place, notes: ids });
