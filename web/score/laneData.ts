import { useRef } from "react";
import {
  type KickHit,
  type Part,
  Plain,
  type RealizedNote,
  type RealizedPart,
  type RealizedSong,
  type RoleSpan,
  type Section,
  Song,
  sure,
  type WithInstruments,
} from "../../core/src/index";
import { partOfReal, type SectionData } from "../app/store/sectionData";

/** What of a section is shown in every lane. */
interface Ground extends Pick<SectionData, "meter" | "key" | "length" | "pickup"> {
  section: Pick<Section, "id" | "name" | "bars">;
  kicks: readonly KickHit[];
}

/** What lies behind the notes of every lane. */
export interface BackData extends Pick<Ground, "section" | "meter" | "key"> {
  /** The chords, with what the roles of notes are read against. */
  real: Pick<RealizedSong, "chords" | "loops" | "duration" | "sections">;
}

/** What a pitched lane shows of its part. */
export interface LaneData extends Ground, BackData, WithInstruments {
  back: BackData;
  source: Part;
  part: RealizedPart;
  roles: ReadonlyMap<RealizedNote, RoleSpan[]>;
  /** The chords as they are written, with their layouts. */
  events: Section["chords"];
  /** The notes with which the next pass begins before its first bar; times are those of this section. */
  upbeat: readonly RealizedNote[];
  profile: Song["profile"];
}

/** What the drum lane shows. */
export interface DrumData extends Ground {
  source: Part;
  groove: Section["groove"];
  hits: RealizedSong["hits"];
}

/** What lanes show, by part: an object stays the same until something changes that its lane shows. */
export interface Lanes {
  back: BackData;
  pitched: Map<string, LaneData>;
  drums: Map<string, DrumData>;
}

const NONE: readonly RealizedNote[] = [];

/** An object as it was before where nothing of it changed. */
const keeping = <T extends object>(before: T | undefined, now: T): T => (before ? Plain.kept(before, now) : now);

/** The lanes of a section, with all that did not change since they were worked out last. */
function lanesOf(data: SectionData, before: Lanes | null): Lanes {
  const { song, section, meter, key, length, pickup, kicks } = data;
  const { chords, loops, duration, sections, hits } = data.real;
  const { id, name, bars, groove } = section;
  const lanes: Lanes = {
    back: keeping(before?.back, {
      section: keeping(before?.back.section, { id, name, bars }),
      real: keeping(before?.back.real, { chords, loops, duration, sections }),
      meter,
      key,
    }),
    pitched: new Map(),
    drums: new Map(),
  };
  const { back } = lanes;
  const ground: Ground = { section: back.section, meter, key, length, pickup, kicks };
  for (const source of song.parts) {
    if (source.role === "drums") {
      const lane = { ...ground, source, groove, hits };
      lanes.drums.set(source.id, keeping(before?.drums.get(source.id), lane));
      continue;
    }
    const lane: LaneData = {
      ...ground,
      ...back,
      back,
      source,
      part: partOfReal(data, source.id),
      roles: sure(data.roles.get(source.id)),
      events: section.chords,
      upbeat: data.upbeats.get(source.id) ?? NONE,
      profile: song.profile,
      ...(song.instruments ? { instruments: song.instruments } : {}),
    };
    lanes.pitched.set(source.id, keeping(before?.pitched.get(source.id), lane));
  }
  return lanes;
}

/** What the lanes of the section in view show. */
export function useLanes(data: SectionData): Lanes {
  const last = useRef<{ data: SectionData; lanes: Lanes } | null>(null);
  if (last.current?.data !== data) last.current = { data, lanes: lanesOf(data, last.current?.lanes ?? null) };
  return last.current.lanes;
}

/** A value that stays the same object as long as its fields are the same. */
export function useKept<T extends object>(now: T): T {
  const last = useRef(now);
  last.current = Plain.kept(last.current, now);
  return last.current;
}
