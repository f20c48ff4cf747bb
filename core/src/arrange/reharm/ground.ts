import { nth } from "../../base/list";
import { fail, ok, type Result } from "../../base/result";
import { sectionKey, sectionMeter, sectionOf } from "../../song/document";
import type { Section, Song } from "../../song/schema";
import type { Heard } from "../../hear/harmony/context";
import { aroundSection, readProgression, within } from "../../hear/harmony/progression";
import { tuneAndBass, type Lines } from "./fit";
import type { ChordSlot, Spot } from "./technique";

/** The chords of a section as techniques and searches find them. */
export interface Ground {
  section: Section;
  slots: ChordSlot[];
  lines: Lines;
  /** What the form has before and after the section; without it the last chord leads back to the first. */
  before?: Heard;
  after?: Heard;
  into?: string;
  song: Song;
}

/** What every technique looks at: the chords of a section with the keys they are heard in, the lines around them. */
export function materialOf(song: Song, sectionId: string): Result<Ground> {
  const section = sectionOf(song, sectionId);
  if (!section) return fail("reharm.section", `No section has the id "${sectionId}"`);
  const home = sectionKey(song, section);
  const meter = sectionMeter(song, section);
  const own = readProgression(section.chords, home, true);
  const slots = own.chords;
  const around = aroundSection(song, sectionId);
  const p = within(own, around);
  const after = p === own ? undefined : p.chords.at(-1);
  return ok({
    section,
    slots,
    lines: tuneAndBass(song, sectionId, meter),
    song,
    ...(after && around ? { after, into: around.into } : {}),
    ...(p.before ? { before: p.before } : {}),
  });
}

/**
 * The chord at an index, or what the form has before the first or after the last one: another section, or around the
 * loop.
 */
export function beside({ slots, before, after }: Ground, i: number): Heard | undefined {
  const n = slots.length;
  if (after) {
    if (i < 0) return before;
    if (i >= n) return after;
    return slots[i];
  }
  return n > 1 ? nth(slots, (i + n) % n) : undefined;
}

export function spotAt(ground: Ground, index: number, selection: readonly [number, number]): Spot {
  const { slots, lines, section, song } = ground;
  const n = slots.length;
  const around = (i: number) => beside(ground, i);
  const prev = around(index - 1);
  const next = around(index + 1);
  return {
    slots,
    index,
    here: nth(slots, index),
    ...(prev ? { prev } : {}),
    ...(next ? { next } : {}),
    selection,
    home: sectionKey(song, section),
    meter: lines.meter,
    lines,
    last: index === n - 1,
  };
}
