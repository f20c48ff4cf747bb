import { Drums, type Edit, type Part, Song, Text } from "../../../core/src/index";
import { useSelection } from "../store/selection";
import { sectionNow } from "../store/song";
import { ALONE, WITH_ALL, type Hearing } from "./hearing";

const KICK = Drums.player("kick");

/** Bass parts whose notes are written, not derived. */
export const bassParts = (song: Song): Part[] => song.parts.filter((p) => p.role === "bass" && Song.isWritten(p));

/** The bass part that is worked on. */
export const bassPartOf = (song: Song, id: string): Part | undefined =>
  bassParts(song).find((p) => p.id === id) ?? Song.partByRole(song, "bass");

/** The bass part that is worked on, as it is drawn. */
export function useBassPart(song: Song): Part | undefined {
  const id = useSelection((s) => s.bassPart);
  return bassPartOf(song, id);
}

/** Keeps what a part plays in a section, by how many notes it has and when, so that one can come back to it. */
export function keepNotes(section: string, part: string, name?: string): Edit {
  const notes = sectionNow(section)?.notes[part]?.length ?? 0;
  const time = new Date().toLocaleTimeString([], { hour: "2-digit", minute: "2-digit", second: "2-digit" });
  return { do: "keepTake", section, part, name: name ?? `${Text.counted(notes, "note")}, ${time}` };
}

/** Whom the bass is heard with. */
export const BASS_HEARINGS: readonly Hearing[] = [
  ALONE,
  { id: "kick", title: "with the kick", beside: () => [KICK] },
  WITH_ALL,
];
