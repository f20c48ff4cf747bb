import { firstOf, lastOf, type Section, Song, Text } from "../../../core/src/index";
import { showSection } from "../store/selection";
import { edit, sectionNow, storedSong, useSong } from "../store/song";
import { tellUndoable } from "./undoable";

/** Bars of a section from nothing. */
const NEW_BARS = 4;

/** What is kept past the end of a section, in one line; null where nothing is. */
export function beyondText(section: Section): string | null {
  const { chords, notes, hits } = Song.beyond(section);
  const list = [
    ...(chords ? [Text.counted(chords, "chord")] : []),
    ...(notes ? [Text.counted(notes, "note")] : []),
    ...(hits ? [Text.counted(hits, "drum hit")] : []),
  ];
  if (!list.length) return null;
  const words = list.length > 1 ? `${list.slice(0, -1).join(", ")} and ${lastOf(list)}` : firstOf(list);
  return (
    `${words} past bar ${section.bars} ${chords + notes + hits === 1 ? "is" : "are"} kept and not heard; a ` +
    `longer ${section.name} brings them back.`
  );
}

/** Sets the length of a section; what then lies past its end is told. */
export function setBars(id: string, bars: number): boolean {
  const shorter = bars < (sectionNow(id)?.bars ?? 0);
  if (!edit({ do: "setSection", section: id, bars })) return false;
  const now = sectionNow(id);
  const text = shorter && now ? beyondText(now) : null;
  if (text) tellUndoable(text);
  return true;
}

/** Adds a section, from nothing or as a copy, behind a pass or at the end, and shows it. */
export function addSection(copy?: Section, after: string | null = null): void {
  const at = storedSong().form.findIndex((p) => p.id === after) + 1;
  const name = copy ? `${copy.name} again` : `Section ${storedSong().sections.length + 1}`;
  const made = useSong
    .getState()
    .make({ do: "addSection", name, bars: NEW_BARS, ...(copy ? { copyOf: copy.id } : {}), ...(at > 0 ? { at } : {}) });
  if (made?.[0]) showSection(made[0]);
}

/** Deletes a section; where that was done it can be taken back. */
export function removeSection(section: Section): void {
  if (!edit({ do: "removeSection", section: section.id })) return;
  tellUndoable(`${section.name} was deleted.`, () => showSection(section.id));
}
