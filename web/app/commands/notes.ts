import {
  Comp,
  type Edit,
  type Midi,
  type Part,
  Pitch,
  type Section,
  Song,
  sure,
  type Ticks,
  Voicing,
  type VoiceRequest,
} from "../../../core/src/index";
import { soundNote } from "../audio/sound";
import { usePreferences } from "../store/preferences";
import { chooseNotes } from "../store/selection";
import { edit, say, sectionNow, songNow, useSong } from "../store/song";

/** A part in a section. */
export interface NotePlace {
  section: string;
  part: string;
}

export type NoteChange = Extract<Edit, { do: "changeNotes" }>["notes"][number];

/** Loudness of a note that is drawn. */
const DRAWN_VELOCITY = 90;

/** A note as it is written or, of a part that plays the chords, as it is struck. */
export interface NoteNow {
  id: string;
  start: Ticks;
  duration: Ticks;
  pitch: string;
  midi: Midi;
  velocity: number;
}

/** Whether the notes of a part are voices of its chords. */
export const isVoices = (part: Part | undefined): boolean => part?.link !== undefined;
const partNow = (id: string): Part | undefined => Song.part(songNow(), id);

/** Notes of a part as they are stored now: the drawn ones may be a frame behind, and keys come fast. */
export function notesNow({ section: id, part: name }: NotePlace): NoteNow[] {
  const section = sectionNow(id);
  const part = partNow(name);
  const list =
    section && part && isVoices(part)
      ? Comp.notes(songNow(), section, part).map((n) => n.note)
      : (section?.notes[name] ?? []);
  return list.map((n) => ({ ...n, midi: Pitch.midi(n.pitch) }));
}

/** The name of a pitch at a place, by its chord and key. */
export const spellHere = ({ id }: Pick<Section, "id">, tick: Ticks, midi: Midi): string =>
  Song.spell(songNow(), sure(sectionNow(id)), tick, Math.min(127, Math.max(0, midi)));

/** Changes voices of the chords that a part plays, as it is set: every time they are struck, or in one stroke. */
const voices = (place: NotePlace, request: Omit<VoiceRequest, "section" | "part" | "of">) =>
  Voicing.change(songNow(), { ...place, of: usePreferences.getState().voicesOf, ...request });

/** Makes what was asked of voices, or says why it cannot be done. */
function editVoices(place: NotePlace, request: Omit<VoiceRequest, "section" | "part" | "of">): boolean {
  const made = voices(place, request);
  if (!made.ok) say(made.error);
  return made.ok && edit(made.value);
}

/** The edit that changes notes; null where voices of a chord cannot be changed so. */
export function changeNotesEdit(place: NotePlace, notes: NoteChange[]): Edit | null {
  if (!isVoices(partNow(place.part))) return { do: "changeNotes", ...place, notes };
  const made = voices(place, { change: notes });
  return made.ok ? made.value : null;
}

export function changeNotes(place: NotePlace, notes: NoteChange[], options?: { quiet?: boolean }): boolean {
  if (!isVoices(partNow(place.part))) return edit({ do: "changeNotes", ...place, notes }, options);
  const before = new Map(notesNow(place).map((n) => [n.id, n]));
  if (!editVoices(place, { change: notes })) return false;
  // Voices are counted from the lowest: what was chosen stays chosen where it went.
  const now = notesNow(place);
  const went = notes.flatMap(({ id, start, pitch }) => {
    const was = before.get(id);
    const at = (list: typeof now) =>
      list.find((n) => n.start === (start ?? was?.start) && n.pitch === (pitch ?? was?.pitch));
    return at(now)?.id ?? now.find((n) => n.start === was?.start && n.pitch === (pitch ?? was.pitch))?.id ?? [];
  });
  if (went.length) chooseNotes(place.part, went);
  return true;
}

/** A note that is to be written. */
interface Written {
  start: Ticks;
  duration: Ticks;
  pitch: string;
}

/** Writes a note, chooses it and lets it sound; its id, or null where it cannot stand. */
export function addNote(place: NotePlace, note: Written): string | null {
  const id = isVoices(partNow(place.part)) ? addVoices(place, [note])[0] : addWritten(place, note);
  if (id === undefined) return null;
  void soundNote(place.part, Pitch.midi(note.pitch));
  chooseNotes(place.part, [id]);
  return id;
}

const addWritten = (place: NotePlace, note: Written): string | undefined =>
  useSong.getState().make({ do: "addNote", ...place, note: { ...note, velocity: DRAWN_VELOCITY } })?.[0];

/** Adds voices to chords; the ids under which they are struck, none where it cannot be done. */
export function addVoices(place: NotePlace, notes: readonly Written[]): string[] {
  const of = usePreferences.getState().voicesOf;
  const add = notes.map(({ duration, ...n }) => (of === "stroke" ? { ...n, duration } : n));
  if (!editVoices(place, { add })) return [];
  const now = notesNow(place);
  return notes.flatMap(({ start, pitch }) => now.filter((n) => n.pitch === pitch && n.start <= start).at(-1)?.id ?? []);
}

/** Strikes voices once more in the second half of their length: always a matter of their stroke. */
export function strikeAgain(place: NotePlace, ids: readonly string[]): boolean {
  const half = (n: NoteNow) => Math.max(1, Math.round(n.duration / 2));
  const notes = notesNow(place).filter((n) => ids.includes(n.id));
  const made = Voicing.change(songNow(), {
    ...place,
    of: "stroke",
    change: notes.map((n) => ({ id: n.id, duration: half(n) })),
    add: notes.map((n) => ({ start: n.start + half(n), duration: half(n), pitch: n.pitch })),
  });
  if (!made.ok) say(made.error);
  return made.ok && edit(made.value);
}

export const removeNotes = (place: NotePlace, ids: string[]): boolean =>
  isVoices(partNow(place.part))
    ? editVoices(place, { remove: ids })
    : edit({ do: "removeNotes", ...place, notes: ids });

/** Says why a note of a part is not changed where it stands. */
export const sayFixed = (part: string): void =>
  say({
    code: "notes.fixed",
    message: `${partNow(part)?.name ?? "This part"} repeats another part`,
    hint: "Change that part, or detach this one in Lines, Echo.",
  });
