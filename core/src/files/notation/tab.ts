import { firstOf } from "../../base/list";
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

/** Where the notes of a fretted part lie on its neck; what is tied over stays where it was struck. */
export function tablature(staff: EngravedStaff, neck: Neck): Tablature {
  const bars: EngravedChord[][] = [staff.pickup, ...staff.measures];
  let tied = false;
  const struck: number[][] = [];
  const moments = bars.map((bar) =>
    bar.map((c): { at: number; held: boolean } | null => {
      if (!c.notes.length) {
        tied = false;
        return null;
      }
      const held = tied;
      if (!held) struck.push(c.notes.map((n) => n.midi));
      tied = c.notes.some((n) => n.tied);
      return { at: struck.length - 1, held };
    }),
  );
  const places = tabOf(neck, struck);
  const of = (bar: (typeof moments)[number]) =>
    bar.map((m): TabMoment | null => {
      const found = m && places[m.at];
      return m && found ? { places: found, held: m.held } : null;
    });
  return { strings: neck.strings.length, pickup: of(firstOf(moments)), measures: moments.slice(1).map(of) };
}
