import { create } from "zustand";
import {
  Chord,
  Clip,
  type Edit,
  Figure,
  type Ground,
  type Key,
  type Note,
  Pitch,
  Song,
  sure,
  Text,
  type Ticks,
} from "../../../core/src/index";
import { usePlayback } from "../store/playback";
import { chooseNotes } from "../store/selection";
import { sectionNow, songNow, useSong } from "../store/song";
import { groundOf, listOf } from "./figures";
import { addVoices, isVoices, notesNow, removeNotes, type NotePlace } from "./notes";
import { tell } from "../store/notice";
import { tellUndoable } from "./undoable";

/** What was copied last, with the chords it stood on; it can be set down in any part and section. */
export const useClipboard = create<{ clip: Clip | null; ground: Ground | null }>(() => ({ clip: null, ground: null }));

/** Puts notes where they can be set down from. */
function hold(place: NotePlace, notes: readonly Note[]): void {
  const section = sure(sectionNow(place.section));
  const ground = groundOf(songNow(), section, Clip.start(notes, meterOf(place)));
  useClipboard.setState({ clip: Clip.of(notes, meterOf(place)), ground });
}

const meterOf = ({ section }: NotePlace) => Song.meterOf(songNow(), sure(sectionNow(section)));
const storedIn = ({ section, part }: NotePlace): readonly Note[] => sectionNow(section)?.notes[part] ?? [];
const chosenIn = (place: NotePlace, ids: readonly string[]): Note[] =>
  storedIn(place).filter((n) => ids.includes(n.id));

/** Copies notes. */
export function copyNotes(place: NotePlace, ids: readonly string[]): boolean {
  const notes = chosenIn(place, ids);
  if (!notes.length) return false;
  hold(place, notes);
  tell({ text: `${Text.counted(notes.length, "note")} copied. Ctrl V sets them down.` });
  return true;
}

/** Takes notes away and keeps them to be set down. */
export function cutNotes(place: NotePlace, ids: readonly string[]): boolean {
  const notes = chosenIn(place, ids);
  if (!notes.length || !removeNotes(place, [...ids])) return false;
  hold(place, notes);
  tellUndoable(`${Text.counted(notes.length, "note")} cut. Ctrl V sets them down.`);
  return true;
}

/** Sets a clip down at a place and chooses its notes; what stood there gives way. */
function setDown(place: NotePlace, clip: Clip, at: Ticks, told: readonly string[] = []): boolean {
  const section = sectionNow(place.section);
  if (!section) return false;
  const length = section.bars * meterOf(place).bar;
  if (at >= length) {
    tell({ text: `There is no room behind it: ${section.name} ends with bar ${section.bars}.` });
    return false;
  }
  const { kept, added, gone } = Clip.paste(storedIn(place), clip, at, length);
  const change: Edit = { do: "setNotes", ...place, notes: [...kept, ...added] };
  const before = new Set(storedIn(place).map((n) => n.id));
  if (!useSong.getState().edit(change)) return false;
  chooseNotes(
    place.part,
    storedIn(place)
      .filter((n) => !before.has(n.id))
      .map((n) => n.id),
  );
  const lost = clip.notes.length - added.length;
  const parts = [
    Text.counted(added.length, "note"),
    gone ? `${gone} gave way` : "",
    lost ? `${lost} would stand past the end` : "",
  ];
  tellUndoable([`${parts.filter(Boolean).join(", ")}.`, ...told.slice(0, TOLD)].join(" "));
  return true;
}

/** Notes that were refitted otherwise than by their degree and are told one by one. */
const TOLD = 3;

/** Steps of the scale from one root to another, three down to three up. */
function stepsBetween(from: Chord | null, to: Chord | null, key: Key): number {
  if (!from || !to) return 0;
  const step = (chord: Chord) => key.pcs.findIndex((pc) => pc === Chord.pitchClasses(chord)[0]);
  const [a, b] = [step(from), step(to)];
  return a < 0 || b < 0 ? 0 : Pitch.mod(b - a + 3, 7) - 3;
}

/** Where the next copy of notes stands: behind their stretch, at the same place of the beat or bar. */
const behind = (place: NotePlace, notes: readonly Note[]): Ticks => {
  const meter = meterOf(place);
  return Clip.start(notes, meter) + Clip.of(notes, meter).length;
};

/** A copy of notes right behind them. */
export function duplicateNotes(place: NotePlace, ids: readonly string[]): boolean {
  const notes = chosenIn(place, ids);
  return notes.length > 0 && setDown(place, Clip.of(notes, meterOf(place)), behind(place, notes));
}

/** Sets down what was copied: where playing was set to begin, else behind the chosen notes, else at the beginning. */
export function pasteNotes(place: NotePlace, ids: readonly string[]): boolean {
  const { clip } = useClipboard.getState();
  return clip !== null && setDown(place, clip, placeFor(place, ids));
}

/** Where what was copied is set down. */
const placeFor = (place: NotePlace, ids: readonly string[]): Ticks => {
  const notes = chosenIn(place, ids);
  return usePlayback.getState().from ?? (notes.length ? behind(place, notes) : 0);
};

/** Sets down what was copied as it is over the chords there: the same degrees, led into their goals anew. */
export function pasteRefitted(place: NotePlace, ids: readonly string[]): boolean {
  const { clip, ground } = useClipboard.getState();
  const section = sectionNow(place.section);
  if (!clip || !ground || !section) return false;
  const at = placeFor(place, ids);
  const { notes, told } = Figure.refit(clip.notes, ground, groundOf(songNow(), section, at));
  return setDown(place, { ...clip, notes }, at, listOf(told, songNow(), place.section, at));
}

/** Sets down what was copied moved along the scale: as far as the first chord there lies from the one it stood on. */
export function pasteAlongScale(place: NotePlace, ids: readonly string[]): boolean {
  const { clip, ground } = useClipboard.getState();
  const section = sectionNow(place.section);
  if (!clip || !ground || !section) return false;
  const at = placeFor(place, ids);
  const to = groundOf(songNow(), section, at);
  const steps = stepsBetween(ground.chordAt(0), to.chordAt(0), to.key);
  return setDown(place, { ...clip, notes: Figure.alongScale(clip.notes, steps, to.key) }, at);
}

/** Copies of notes moved by time and pitch, beside the notes themselves. */
export function addCopies(
  place: NotePlace,
  notes: readonly { id: string; start?: Ticks | undefined; pitch?: string | undefined }[],
): boolean {
  if (isVoices(Song.part(songNow(), place.part))) {
    const now = notesNow(place);
    const doubled = notes.flatMap(({ id, start, pitch }) => {
      const note = now.find((n) => n.id === id);
      return note ? [{ start: start ?? note.start, pitch: pitch ?? note.pitch, duration: note.duration }] : [];
    });
    const added = addVoices(place, doubled);
    if (added.length) chooseNotes(place.part, added);
    return added.length > 0;
  }
  const stored = storedIn(place);
  const copies = notes.flatMap(({ id, start, pitch }) => {
    const note = stored.find((n) => n.id === id);
    if (!note) return [];
    const { id: _, reason: _reason, pinned: _pinned, ...rest } = note;
    return [{ ...rest, start: start ?? note.start, pitch: pitch ?? note.pitch }];
  });
  const before = new Set(stored.map((n) => n.id));
  if (!copies.length || !useSong.getState().edit({ do: "setNotes", ...place, notes: [...stored, ...copies] }))
    return false;
  chooseNotes(
    place.part,
    storedIn(place)
      .filter((n) => !before.has(n.id))
      .map((n) => n.id),
  );
  return true;
}
