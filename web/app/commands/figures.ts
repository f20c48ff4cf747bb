import {
  Chord,
  Figure,
  type FigureShape,
  type Ground,
  Meter,
  type Note,
  Pitch,
  type Refitted,
  type Section,
  Song,
  sure,
  Text,
  type Ticks,
} from "../../../core/src/index";
import { chooseNotes } from "../store/selection";
import { sectionNow, songNow, useSong } from "../store/song";
import type { NotePlace } from "./notes";
import { tellUndoable } from "./undoable";

/** The chords and the key that stand from a tick of a section on: ticks count from there. */
export function groundOf(song: Song, section: Section, from: Ticks): Ground {
  const events = section.chords.map((c) => ({ ...c, chord: Chord.of(c.symbol) }));
  return {
    key: Song.keyOf(song, section),
    chordAt: (tick) => {
      const at = Math.max(0, tick + from);
      return events.find((c) => c.start <= at && at < c.start + c.duration)?.chord ?? null;
    },
  };
}

/** What refitting has changed, note by note, with the place of each. */
export const listOf = (told: readonly Refitted[], song: Song, section: string, from: Ticks): string[] => {
  const meter = Song.meterOf(song, sure(Song.section(song, section)));
  return told.map(
    ({ start, from: was, to, why }) =>
      `${Text.capital(Meter.position(meter, Math.max(0, start + from)))}: ${Pitch.typeset(was)} to ` +
      `${Pitch.typeset(to)}${why ? `, ${why}` : ""}.`,
  );
};

/** Exchanges chosen notes of a line for others; those are chosen then. */
function exchange(place: NotePlace, ids: readonly string[], notes: readonly Omit<Note, "id">[], what: string): boolean {
  const stored = sectionNow(place.section)?.notes[place.part] ?? [];
  const kept = stored.filter((n) => !ids.includes(n.id));
  const before = new Set(stored.map((n) => n.id));
  const room = sure(sectionNow(place.section)).bars * Song.meterOf(songNow(), sure(sectionNow(place.section))).bar;
  const inside = notes.filter((n) => n.start < room);
  if (!useSong.getState().edit({ do: "setNotes", ...place, notes: [...kept, ...inside] })) return false;
  const now = sectionNow(place.section)?.notes[place.part] ?? [];
  chooseNotes(
    place.part,
    now.filter((n) => !before.has(n.id)).map((n) => n.id),
  );
  const lost = notes.length - inside.length;
  tellUndoable(`${what}${lost ? `; ${Text.counted(lost, "note")} would stand past the end` : ""}.`);
  return true;
}

const chosenIn = ({ section, part }: NotePlace, ids: readonly string[]): Note[] =>
  (sectionNow(section)?.notes[part] ?? []).filter((n) => ids.includes(n.id));

/** Gives chosen notes other values or loudness. */
export function shapeNotes(place: NotePlace, ids: readonly string[], shape: FigureShape): boolean {
  const notes = chosenIn(place, ids);
  const title = sure(Figure.SHAPES.find((s) => s.id === shape)).title;
  return notes.length > 0 && exchange(place, ids, Figure.shape(notes, shape).map(plain), Text.capital(title));
}

/** Strikes held notes again in a rhythm. */
export function strikeNotes(place: NotePlace, ids: readonly string[], rhythm: string, title: string): boolean {
  const notes = chosenIn(place, ids);
  const meter = Song.meterOf(songNow(), sure(sectionNow(place.section)));
  return notes.length > 0 && exchange(place, ids, Figure.strike(notes, rhythm, meter).map(plain), `Struck: ${title}`);
}

const plain = ({ id: _, reason: _reason, ...note }: Note): Omit<Note, "id"> => note;
