import { pitchMidi } from "../../theory/pitch/pitch";
import { shapeOf, type Neck } from "../../theory/instrument/fretboard";
import { instrumentOf } from "../../theory/instrument/instruments";
import { sectionMeter } from "../../song/document";
import type { ChordEvent, Part, Section, Song } from "../../song/schema";
import type { Edit } from "../../song/edits";
import { heldAs, neckIn } from "./strung";

const sameNeck = (a: Neck | undefined, b: Neck | undefined): boolean => JSON.stringify(a) === JSON.stringify(b);

/** Layouts of a part that hands have made, with the pitches from the lowest. */
const pinnedOf = (section: Section, part: Part) =>
  section.chords.flatMap((chord) => {
    const layout = chord.voicings?.[part.id];
    const midis = layout?.pitches.map(pitchMidi).sort((a, b) => a - b);
    return layout?.pinned && midis ? [{ chord, layout, midis }] : [];
  });

/**
 * What becomes of shapes when a part gets another capo, tuning or instrument: the sound stays. Where the same notes can
 * be held there, the shape is found anew; where they cannot, the notes stay pinned without a shape, and `unheld` names
 * them.
 */
export function refitShapes(before: Song, now: Song, section: Section, part: Part): Edit[] {
  const was = before.parts.find((p) => p.id === part.id);
  const old = was && before.sections.find((s) => s.id === section.id);
  const neck = neckIn(now, section, part);
  if (!was || !old || sameNeck(neckIn(before, old, was), neck)) return [];
  return pinnedOf(section, part).flatMap(({ chord, layout, midis }): Edit[] => {
    if (!layout.shape || (neck && layout.shape.capo === neck.capo && heldAs(neck, midis, layout.shape))) return [];
    const found = neck && shapeOf(neck, midis);
    const shape = found ? { shape: { frets: found.frets, capo: neck.capo } } : {};
    return [
      { do: "pinVoicing", section: section.id, part: part.id, chord: chord.id, pitches: layout.pitches, ...shape },
    ];
  });
}

/** A pinned layout that cannot be held as the part is strung now. */
export interface Unheld {
  section: string;
  chord: ChordEvent;
  /** Counted from 1. */
  bar: number;
}

/** Pinned layouts of a fretted part that no hand holds on its neck, with the capo it has now. */
export const unheld = (song: Song, part: Part): Unheld[] =>
  instrumentOf(part.instrument, song).held.by !== "frets"
    ? []
    : song.sections.flatMap((section) => {
        const neck = neckIn(song, section, part);
        const { bar } = sectionMeter(song, section);
        return pinnedOf(section, part).flatMap(({ chord, layout, midis }): Unheld[] => {
          const held = neck && ((layout.shape && heldAs(neck, midis, layout.shape)) ?? shapeOf(neck, midis));
          return held ? [] : [{ section: section.id, chord, bar: Math.floor(chord.start / bar) + 1 }];
        });
      });
