import type { Part, PlayerId, Song } from "../../../core/src/index";
import { usePlayback } from "../store/playback";

/** Whom one hears a part with. */
export interface Hearing {
  id: string;
  title: string;
  /** Who sounds beside the part; null is everybody. */
  beside(song: Song, part: Part["id"]): readonly PlayerId[] | null;
}

export const ALONE: Hearing = { id: "alone", title: "alone", beside: () => [] };
export const WITH_ALL: Hearing = { id: "all", title: "with all", beside: () => null };

const players = (song: Song, part: Part["id"], hearing: Hearing): PlayerId[] => {
  const beside = hearing.beside(song, part);
  return beside ? [...new Set([part, ...beside])].sort() : [];
};

/** Hears a part in one of these ways; nothing of the song changes. */
export const hear = (song: Song, part: Part["id"], hearing: Hearing): void =>
  usePlayback.setState({ solo: players(song, part, hearing) });

/** How a part is heard now; undefined where the choice of solo parts is another one. */
export const heardAs = (
  song: Song,
  part: Part["id"],
  solo: readonly PlayerId[],
  hearings: readonly Hearing[],
): Hearing | undefined => {
  const now = [...solo].sort().join();
  return hearings.find((h) => players(song, part, h).join() === now);
};
