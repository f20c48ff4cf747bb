import { firstOf } from "../../base/list";
import { neckIn, strungBy } from "../../arrange/voicing/strung";
import type { Place } from "../../song/place";
import { frameOf, realizedNotes } from "../../song/realize";
import type { Part, Song } from "../../song/schema";
import type { Neck } from "../../theory/instrument/fretboard";
import { tabOf, type TabPlace } from "../../arrange/voicing/tab";
import type { EngravedChord, EngravedStaff } from "./staff";

/** What a chord is on the strings, in the order of its notes; held where a tie leads into it. */
export interface TabMoment {
  places: TabPlace[];
  held: boolean;
}

/**
 * Strings and frets under the notes of a part: for each chord of a bar, null where nothing sounds or nothing can be
 * played.
 */
export interface Tablature {
  strings: number;
  pickup: (TabMoment | null)[];
  measures: (TabMoment | null)[][];
}

/**
 * Where the notes of a fretted part lie on its neck; what is tied over stays where it was struck. `strung`: the strings
 * of notes whose chords are held in shapes that somebody wrote, by id.
 */
export function tablature(
  staff: EngravedStaff,
  neck: Neck,
  strung: ReadonlyMap<string, number> = new Map(),
): Tablature {
  const bars: EngravedChord[][] = [staff.pickup, ...staff.measures];
  let tied = false;
  const struck: number[][] = [];
  const known: (number[] | null)[] = [];
  const moments = bars.map((bar) =>
    bar.map((c): { at: number; held: boolean } | null => {
      if (!c.notes.length) {
        tied = false;
        return null;
      }
      const held = tied;
      if (!held) {
        struck.push(c.notes.map((n) => n.midi));
        const strings = c.notes.flatMap((n) => strung.get(n.id) ?? []);
        known.push(strings.length === c.notes.length ? strings : null);
      }
      tied = c.notes.some((n) => n.tied);
      return { at: struck.length - 1, held };
    }),
  );
  const places = tabOf(neck, struck, known);
  const of = (bar: (typeof moments)[number]) =>
    bar.map((m): TabMoment | null => {
      const found = m && places[m.at];
      return m && found ? { places: found, held: m.held } : null;
    });
  return { strings: neck.strings.length, pickup: of(firstOf(moments)), measures: moments.slice(1).map(of) };
}

/** The tablature of a part in a section or pass; null where it has no neck. */
export function tablatureAt(song: Song, place: Place, part: Part, staff: EngravedStaff): Tablature | null {
  const frame = frameOf(song, place);
  const neck = frame && part.role !== "drums" ? neckIn(song, frame.section, part) : undefined;
  if (!frame || !neck) return null;
  return tablature(staff, neck, strungBy(song, frame.section, part, realizedNotes(song, frame, part, false)));
}
