import type { Section, Song, WithInstruments } from "../../core/src/index";
import type { SectionData } from "../app/store/sectionData";
import { useKept } from "./laneData";

/** What the ruler and the chord symbols above the lanes show. */
export interface RowData extends Pick<SectionData, "meter" | "length" | "sounding"> {
  section: Pick<Section, "id" | "name" | "bars" | "chords">;
  song: Pick<Song, "parts"> & WithInstruments;
}

/** The same object as long as nothing of it changes. */
export function useRow({ song, section, meter, length, sounding }: SectionData): RowData {
  const { id, name, bars, chords } = section;
  const { parts, instruments } = song;
  return useKept({
    section: useKept({ id, name, bars, chords }),
    song: useKept({ parts, ...(instruments ? { instruments } : {}) }),
    meter,
    length,
    sounding,
  });
}
