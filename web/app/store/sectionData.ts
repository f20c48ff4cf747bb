import { useMemo, useRef } from "react";
import {
  Fact,
  type Key,
  type KickHit,
  lastOf,
  type Meter,
  Place,
  Plain,
  type Reader,
  type RealizedNote,
  type RealizedPart,
  type RealizedSong,
  type RoleSpan,
  type Section,
  Song,
  sure,
  type Ticks,
} from "../../../core/src/index";

/** What the score shows of one section. */
export interface SectionData {
  song: Song;
  section: Section;
  real: RealizedSong;
  roles: Map<string, Map<RealizedNote, RoleSpan[]>>;
  kicks: KickHit[];
  meter: Meter;
  key: Key;
  length: Ticks;
  /** Ticks shown before bar 1, for pickup notes. */
  pickup: Ticks;
  /** Notes with which the next pass begins before its first bar, by part; times are those of this section. */
  upbeats: Map<string, RealizedNote[]>;
  /** Sounding names of the chords whose bass part changes them, by chord id. */
  sounding: Map<string, string>;
}

/** Facts of the song in view, remembered from edit to edit. */
const memory = Fact.memory();

/** What follows from a song, remembered as well. */
export const factsNow = (song: Song): Reader => memory.at(song);

const NONE: readonly RealizedNote[] = [];

/** The notes that the pass after one plays before its first bar: they sound in the last bars of this one. */
function upbeatsInto(
  song: Song,
  section: Section,
  bar: Ticks,
  { pass: passId, before }: { pass: string | null; before: SectionData["upbeats"] | undefined },
): SectionData["upbeats"] {
  const at = song.form.findIndex((p) => p.id === passId);
  const [pass, next] = [song.form[at], song.form[at + 1]];
  if (!pass || !next || pass.sectionId !== section.id) return new Map();
  const end = Math.min(pass.bars?.[1] ?? section.bars, section.bars) * bar;
  const read = memory.at(song);
  return new Map(
    song.parts.map((p) => {
      const early = read.get(Fact.notes, Place.pass(song, next.id), p.id, "played").filter((n) => n.start < 0);
      const moved = early.map((n) => ({ ...n, start: n.start + end }));
      return [p.id, Plain.sharing(before?.get(p.id) ?? NONE, moved)];
    }),
  );
}

/** Milliseconds of a task in which a section is worked out. */
const TASK = 12;

/**
 * Works out what the score needs of a section, a little in each task, so that it is there when it is asked for.
 * @param gone whether it is no longer wanted
 */
export async function workOut(song: Song, section: string, gone: () => boolean): Promise<void> {
  const place = Place.section(section);
  let since = performance.now();
  for (const { id } of song.parts)
    for (const fact of [Fact.notes, Fact.roles]) {
      factsNow(song).get(fact as typeof Fact.notes, place, id, "played");
      if (performance.now() - since < TASK) continue;
      await new Promise((resolve) => setTimeout(resolve));
      if (gone()) return;
      since = performance.now();
    }
}

/** What the score shows; all that says the same as before the last edit is the same object. */
export function useSectionData(song: Song, sectionId: string, passId: string | null): SectionData | null {
  const last = useRef<SectionData | null>(null);
  const data = useMemo((): SectionData | null => {
    const before = last.current;
    const section = Song.section(song, sectionId);
    if (!section) return null;
    const read = memory.at(song);
    const place = Place.section(sectionId);
    const real = read.get(Fact.realized, place, "played");
    const meter = Plain.sharing(before?.meter, Song.meterOf(song, section));
    const earliest = Math.min(
      -(section.pickup ?? 0),
      ...real.parts.flatMap((p) => p.notes.slice(0, 8).map((n) => n.start)),
    );
    const beat = lastOf(meter.beats).duration;
    return {
      song,
      section,
      real,
      meter,
      key: Plain.sharing(before?.key, Song.keyOf(song, section)),
      sounding: read.get(Fact.sounding, place),
      kicks: read.get(Fact.kicks, place),
      length: section.bars * meter.bar,
      upbeats: upbeatsInto(song, section, meter.bar, { pass: passId, before: before?.upbeats }),
      roles: new Map(real.parts.map((p) => [p.id, read.get(Fact.roles, place, p.id, "played")])),
      pickup: Math.max(beat, Math.ceil(-earliest / beat) * beat),
    };
  }, [song, sectionId, passId]);
  last.current = data;
  return data;
}

export const partOfReal = (data: SectionData, id: string): RealizedPart =>
  sure(data.real.parts.find((p) => p.id === id));
