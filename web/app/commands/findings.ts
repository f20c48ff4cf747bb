import { nth } from "../../../core/src/index";
import type { Finding, FindingPlace, Song } from "../../../core/src/index";
import { audition } from "../audio/sound";
import { useResults } from "../store/results";
import { chooseNotes, useSelection } from "../store/selection";
import { useSong } from "../store/song";

/** Brings a place of a finding into view: its notes are chosen, its card comes forward. */
export function showFound(place: FindingPlace): void {
  const notes = place.notes.filter((n) => !n.includes("@"));
  if (place.parts[0]) chooseNotes(place.parts[0], notes);
  useSelection.setState({ found: place.id });
}

const openPlaces = (findings: readonly Finding[]): FindingPlace[] =>
  findings.filter((f) => f.waived === undefined).flatMap((f) => f.places);

/** On to the next place of what was found, in the order of the list, or back; after the last comes the first. */
export function walkFound(step: 1 | -1): void {
  const places = openPlaces(useResults.getState().findings);
  if (!places.length) return;
  const at = places.findIndex((p) => p.id === useSelection.getState().found);
  let next: number;
  if (at < 0) {
    if (step > 0) next = 0;
    else next = places.length - 1;
  } else next = (at + step + places.length) % places.length;
  showFound(nth(places, next));
}

/** The song with nobody but the parts of a place, and the drums where it is about one of their hits. */
export function onlyThose(song: Song, place: FindingPlace): Song {
  const drums = place.notes.some((n) => n.includes("@"));
  return {
    ...song,
    parts: song.parts.map((p) => ({ ...p, muted: !place.parts.includes(p.id) && !(drums && p.role === "drums") })),
  };
}

/** Plays the bars of a place: everybody, or the parts that are concerned alone. Nothing is changed by it. */
export function hearFound(
  place: FindingPlace,
  alone: boolean,
  id: string,
  { from, to }: { from: number; to: number },
): void {
  const { song } = useSong.getState();
  if (song)
    void audition(alone ? onlyThose(song, place) : song, alone ? "the parts alone" : "in context", id, { from, to });
}
