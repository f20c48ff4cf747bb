import { type Midi, type RealizedPart, Song } from "../../core/src/index";
import { soundNote } from "../app/audio/sound";
import { copyNotes, cutNotes, duplicateNotes, pasteNotes, pasteRefitted } from "../app/commands/clipboard";
import {
  addNote,
  changeNotes,
  notesNow,
  removeNotes,
  sayFixed,
  spellHere,
  type NotePlace,
} from "../app/commands/notes";
import { usePreferences } from "../app/store/preferences";
import type { SectionData } from "../app/store/sectionData";
import { chooseNoNotes, useSelection } from "../app/store/selection";
import { runShortcut, sidewaysOf, upwardOf, withAny, type Press, type Shortcut } from "../kit/shortcuts";
import type { Axis } from "./axis";
import { snapPitch, stepPitch } from "./geometry";
import type { LaneScale } from "./laneScale";
import { clampStart } from "./useNoteGestures";

interface Lane {
  data: Pick<SectionData, "key" | "length" | "meter"> & {
    section: Pick<SectionData["section"], "id">;
    real: Pick<SectionData["real"], "chords">;
  };
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

/** A lane with what is chosen in it. */
interface Chosen extends Lane {
  place: NotePlace;
  notes: Placed[];
  /** Chosen here; none where notes of another part are chosen. */
  ids: readonly string[];
  index: number;
  /** The chosen note, or the first. */
  note: Placed | undefined;
}

const SIDEWAYS = ["arrowleft", "arrowright"];
const UPWARD = ["arrowup", "arrowdown"];

/** What needs a note that can be changed: the chosen ones, or the one at hand. */
const changing =
  (run: (lane: Chosen & { note: Placed }, chosen: Placed[], press: Press) => void) =>
  (lane: Chosen, press: Press): boolean => {
    const { note, notes, editable } = lane;
    if (note && !editable && lane.part.linked) sayFixed(lane.part.id);
    if (!editable || !note) return false;
    const ids = lane.ids.length ? lane.ids : [note.id];
    const chosen = notes.filter((n) => ids.includes(n.id));
    run({ ...lane, note, ids }, chosen, press);
    return true;
  };

/** What the keys that everything knows do with the chosen notes. */
const withClipboard =
  (command: (place: NotePlace, ids: readonly string[]) => boolean) =>
  ({ editable, place, ids, select }: Chosen): boolean => {
    if (!editable) return false;
    const [first] = command(place, ids) ? useSelection.getState().notes.ids : [];
    if (first) select(first, useSelection.getState().notes.ids);
    return true;
  };

/** The keys of a note in a lane. */
export const NOTE_KEYS: readonly Shortcut<Chosen>[] = [
  {
    keys: "← →",
    what: "previous, next note",
    mouse: "click",
    on: SIDEWAYS,
    run({ notes, index, select }, press) {
      const next = notes[index + sidewaysOf(press)];
      if (next) select(next.id);
    },
  },
  {
    keys: "↑ ↓",
    what: "one step of the chosen snap; Shift a semitone, Alt an octave",
    mouse: "drag",
    on: withAny(UPWARD, "shift+", "alt+", "alt+shift+"),
    run: changing(moveUp),
  },
  {
    keys: "Ctrl ← →",
    what: "earlier, later",
    mouse: "drag",
    on: SIDEWAYS.map((k) => `mod+${k}`),
    run: changing(shift),
  },
  {
    keys: "Ctrl Shift ← →",
    what: "shorter, longer",
    mouse: "drag the end",
    on: SIDEWAYS.map((k) => `mod+shift+${k}`),
    run: changing(({ place }, chosen, press) => {
      const { grid } = usePreferences.getState();
      const longer = (n: Placed) => Math.max(grid / 2, n.duration + sidewaysOf(press) * grid);
      changeNotes(
        place,
        chosen.map((n) => ({ id: n.id, duration: longer(n) })),
      );
    }),
  },
  {
    keys: "Shift ← →",
    what: "choose several",
    mouse: "Shift-drag a box",
    on: SIDEWAYS.map((k) => `shift+${k}`),
    run({ notes, ids, index, select }, press) {
      const to = index + sidewaysOf(press);
      const next = notes[to];
      if (next) select(next.id, reach(notes, ids, to));
    },
  },
  {
    keys: "Ctrl A",
    what: "choose all",
    on: ["mod+a"],
    run({ notes, note, select }) {
      if (note) select(note.id, [note.id, ...notes.filter((n) => n !== note).map((n) => n.id)]);
    },
  },
  { keys: "Ctrl C", what: "copy", on: ["mod+c"], run: ({ place, ids }) => copyNotes(place, ids) },
  { keys: "Ctrl X", what: "cut", on: ["mod+x"], run: withClipboard(cutNotes) },
  {
    keys: "Ctrl V",
    what: "set down: where playing begins, or behind the chosen notes",
    on: ["mod+v"],
    run: withClipboard(pasteNotes),
  },
  {
    keys: "Ctrl Shift V",
    what: "set down refitted to the chords there",
    on: ["mod+shift+v"],
    run: withClipboard(pasteRefitted),
  },
  { keys: "Ctrl D", what: "a copy right behind", mouse: "Alt-drag", on: ["mod+d"], run: withClipboard(duplicateNotes) },
  {
    keys: "W",
    what: "type words under the notes",
    on: ["w"],
    run: ({ editable, note, typeWords }) => (editable && note ? typeWords(note.id) : false),
  },
  { keys: "N", what: "new note behind it", mouse: "click into the empty lane", on: ["n", "shift+n"], run: newNote },
  {
    keys: "Enter",
    what: "type its pitch",
    mouse: "above the lanes",
    on: withAny(["enter"], "shift+"),
    run: changing(() => document.querySelector<HTMLInputElement>("#note-pitch")?.focus()),
  },
  {
    keys: "Delete",
    what: "delete it",
    on: withAny(["delete", "backspace"], "shift+"),
    run: changing(({ place, notes, note, ids, select }) => {
      const at = notes.indexOf(note);
      const stays = (n: Placed) => !ids.includes(n.id);
      const next = notes.slice(at).find(stays) ?? notes.slice(0, at).findLast(stays);
      if (removeNotes(place, [...ids]) && next) select(next.id);
    }),
  },
  { keys: "Esc", what: "choose none", on: ["escape"], run: () => chooseNoNotes() },
];

/** Keys of a lane: arrows move through the notes and change them. True when the key meant something here. */
export function noteKey(press: Press, lane: Lane): boolean {
  const { part, data } = lane;
  const place: NotePlace = { section: data.section.id, part: part.id };
  const now = lane.editable ? notesNow(place) : [];
  const notes: Placed[] = now.length ? now : part.notes;
  const { notes: chosen } = useSelection.getState();
  const ids = chosen.part === part.id ? chosen.ids : [];
  const index = Math.max(
    0,
    notes.findIndex((n) => n.id === ids[0]),
  );
  return runShortcut(NOTE_KEYS, press, { ...lane, place, notes, ids, index, note: notes[index] });
}

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
function newNote({ data, scale, select, editable, place, note }: Chosen): boolean {
  if (!editable) return false;
  const { snap, grid } = usePreferences.getState();
  const start = note ? Math.min(note.start + note.duration, data.length - grid) : 0;
  const middle = (scale.low + scale.high) / 2;
  const midi = note?.midi ?? snapPitch(middle, snap, Song.chordAt(data.real.chords, 0), data.key);
  const id = addNote(place, { start, duration: grid, pitch: spellHere(data.section, start, midi) });
  if (id) select(id);
  return true;
}

/** Moves notes up or down: by a step of the snap, a semitone or an octave. */
function moveUp({ data, place, note }: Chosen & { note: Placed }, chosen: Placed[], press: Press): void {
  const upward = upwardOf(press);
  const { snap } = usePreferences.getState();
  const moved = (n: Placed): Midi => {
    if (press.altKey) return n.midi + 12 * upward;
    if (press.shiftKey) return n.midi + upward;
    const chord = Song.chordAt(data.real.chords, Math.max(0, n.start));
    return stepPitch(n.midi, upward, snap, { chord, key: data.key });
  };
  changeNotes(
    place,
    chosen.map((n) => ({ id: n.id, pitch: spellHere(data.section, n.start, moved(n)) })),
  );
  void soundNote(place.part, moved(note));
}

/** Moves notes earlier or later; all go as far as the one that can go least: they stay as far apart. */
function shift(lane: Chosen, chosen: Placed[], press: Press): void {
  const { grid } = usePreferences.getState();
  const sideways = sidewaysOf(press);
  const ways = chosen.map((n) => clampStart(n.start + sideways * grid, grid, lane) - n.start);
  const by = sideways > 0 ? Math.min(...ways) : Math.max(...ways);
  changeNotes(
    lane.place,
    chosen.map((n) => ({ id: n.id, start: n.start + by })),
  );
}
