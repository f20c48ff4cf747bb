import { useMemo } from "react";
import { useFieldsOfSong } from "../../app/store/song";

/** Ids and names of the sections, in their order. */
export function useNames(): readonly (readonly [id: string, name: string])[] {
  // One list of both: it is compared item by item.
  const flat = useFieldsOfSong((song) => song.sections.flatMap((s) => [s.id, s.name]));
  return useMemo(() => flat.flatMap((id, i) => (i % 2 ? [] : [[id, flat[i + 1] ?? ""] as const])), [flat]);
}
