import { type Midi, type RealizedPart, Song } from "../../core/src/index";
import type { KeyboardEvent } from "react";
import { soundNote } from "../app/audio/sound";
import { copyNotes, cutNotes, duplicateNotes, pasteNotes } from "../app/commands/clipboard";
import { addNote, changeNotes, notesNow, removeNotes, spellHere, type NotePlace } from "../app/commands/notes";
import { usePreferences } from "../app/store/preferences";
import type { SectionData } from "../app/store/sectionData";
import { chooseNoNotes, useSelection } from "../app/store/selection";
import type { Axis } from "./axis";
import { snapPitch, stepPitch } from "./geometry";
import type { LaneScale } from "./laneScale";
import { clampStart } from "./useNoteGestures";

interface Lane {
  data: SectionData;
  part: RealizedPart;
  axis: Axis;
  scale: LaneScale;
  editable: boolean;
  /** Chooses a note and moves the focus to it; with `ids`, all of these. */
  select(id: string, ids?: string[]): void;
  /** Types words from this note on. */
  typeWords(id: string): void;
}

type Placed = { id: string; start: number; duration: number; midi: Midi };

/** Keys of a lane: arrows move through the notes and change them. True when the key meant something here. */
export function noteKey(e: KeyboardEvent, lane: Lane): boolean {
  const { part, data, editable, select } = lane;
  const place: NotePlace = { section: data.section.id, part: part.id };
  const notes: Placed[] = part.linked ? part.notes : notesNow(place);
  const { notes: chosen } = useSelection.getState();
  const ids = chosen.part === part.id ? chosen.ids : [];
  const index = Math.max(
    0,
    notes.findIndex((n) => n.id === ids[0]),
  );
  const note = notes[index];
  const mod = e.ctrlKey || e.metaKey;
  const sideways = { ArrowLeft: -1, ArrowRight: 1 }[e.key] ?? 0;
  if (sideways && !mod) {
    const next = notes[index + sideways];
    if (next) select(next.id, e.shiftKey ? reach(notes, ids, index + sideways) : undefined);
    return true;
  }
  if (mod && e.key.toLowerCase() === "a") {
    if (note) select(note.id, [note.id, ...notes.filter((n) => n !== note).map((n) => n.id)]);
    return true;
  }
  if (mod && e.key.toLowerCase() === "c") return copyNotes(place, ids);
  if (e.key === "Escape") {
    chooseNoNotes();
    return true;
  }
  if (!editable) return false;
  const command = mod && !e.shiftKey ? COMMANDS[e.key.toLowerCase()] : undefined;
  if (command) {
    if (!command(place, ids)) return true;
    const [first] = useSelection.getState().notes.ids;
    if (first) select(first, useSelection.getState().notes.ids);
    return true;
  }
  if (e.key.toLowerCase() === "n" && !mod) return newNote(lane, place, note);
  if (e.key.toLowerCase() === "w" && !mod && note) {
    lane.typeWords(note.id);
    return true;
  }
  return note ? changeKey(e, lane, { place, notes, note, ids: ids.length ? ids : [note.id] }) : false;
}

/** What is done with the chosen notes by the keys that everything knows for it. */
const COMMANDS: Record<string, (place: NotePlace, ids: readonly string[]) => boolean> = {
  x: cutNotes,
  v: pasteNotes,
  d: duplicateNotes,
};

/** All notes from where choosing began to another one, that one first. */
function reach(notes: readonly Placed[], ids: readonly string[], to: number): string[] {
  const anchor = Math.max(
    0,
    notes.findIndex((n) => n.id === (ids.at(-1) ?? "")),
  );
  const row = notes.slice(Math.min(anchor, to), Math.max(anchor, to) + 1).map((n) => n.id);
  return to < anchor ? row : row.reverse();
}

/** A new note behind the chosen one, at its pitch. */
function newNote({ data, scale, select }: Lane, place: NotePlace, note: Placed | undefined): boolean {
  const { snap, grid } = usePreferences.getState();
  const start = note ? Math.min(note.start + note.duration, data.length - grid) : 0;
  const midi = note?.midi ?? snapPitch((scale.low + scale.high) / 2, snap, Song.chordAt(data.real.chords, 0), data.key);
  const id = addNote(place, { start, duration: grid, pitch: spellHere(data.section, start, midi) });
  if (id) select(id);
  return true;
}

/** Keys that change the chosen notes. */
function changeKey(
  e: KeyboardEvent,
  lane: Lane,
  { place, notes, note, ids }: { place: NotePlace; notes: Placed[]; note: Placed; ids: string[] },
): boolean {
  const { data, select } = lane;
  const { snap, grid } = usePreferences.getState();
  const chosen = notes.filter((n) => ids.includes(n.id));
  // Without Ctrl they go from note to note.
  const sideways = { ArrowLeft: -1, ArrowRight: 1 }[e.key] ?? 0;
  const upward = ({ ArrowUp: 1, ArrowDown: -1 } as const)[e.key];
  if (upward) {
    const moved = (n: Placed): Midi => {
      if (e.altKey) return n.midi + 12 * upward;
      if (e.shiftKey) return n.midi + upward;
      return stepPitch(n.midi, upward, snap, {
        chord: Song.chordAt(data.real.chords, Math.max(0, n.start)),
        key: data.key,
      });
    };
    changeNotes(
      place,
      chosen.map((n) => ({ id: n.id, pitch: spellHere(data.section, n.start, moved(n)) })),
    );
    void soundNote(place.part, moved(note));
  } else if (sideways && !e.shiftKey) {
    // All go as far as the one that can go least: they stay as far apart.
    const ways = chosen.map((n) => clampStart(n.start + sideways * grid, grid, lane) - n.start);
    const by = sideways > 0 ? Math.min(...ways) : Math.max(...ways);
    changeNotes(
      place,
      chosen.map((n) => ({ id: n.id, start: n.start + by })),
    );
  } else if (sideways)
    changeNotes(
      place,
      chosen.map((n) => ({ id: n.id, duration: Math.max(grid / 2, n.duration + sideways * grid) })),
    );
  else if (e.key === "Delete" || e.key === "Backspace") {
    const at = notes.indexOf(note);
    const next =
      notes.slice(at).find((n) => !ids.includes(n.id)) ?? notes.slice(0, at).findLast((n) => !ids.includes(n.id));
    if (removeNotes(place, ids) && next) select(next.id);
  } else if (e.key === "Enter") document.querySelector<HTMLInputElement>("#note-pitch")?.focus();
  else return false;
  return true;
}
