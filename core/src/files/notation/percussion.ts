import { sure } from "../../base/list";
import { pitchMidi, type PitchName } from "../../theory/pitch/pitch";
import { QUARTER, type Meter } from "../../theory/time/meter";
import { DRUM_KINDS, type Drum } from "../../theory/instrument/drums";
import type { RealizedHit, RealizedNote } from "../../song/realize";

/**
 * How the head of a drum's note is drawn: a plain one for skins, a cross for metal and wood, a circled cross for an
 * open hat; a slash for what is comped.
 */
export type Head = "x" | "circle-x" | "diamond" | "triangle" | "slash";

/** Where a drum stands on five lines read as in a treble clef, and who plays it: hands with stems up, feet down. */
export interface DrumSign {
  place: PitchName;
  head: Head | null;
  feet: boolean;
}

const sign = (place: PitchName, head: Head | null = null, feet = false): DrumSign => ({ place, head, feet });

/**
 * Places on the staff: drum set after Weinberg, *Guide to Standardized Drumset Notation* (1998, from memory); other
 * percussion on places of its own, which the legend names (common practice).
 */
export const DRUM_SIGNS: Record<Drum, DrumSign> = {
  kick: sign("F4", null, true),
  pedalHat: sign("D4", "x", true),
  snare: sign("C5"),
  rim: sign("C5", "x"),
  tom: sign("D5"),
  closedHat: sign("G5", "x"),
  openHat: sign("G5", "circle-x"),
  ride: sign("F5", "x"),
  clap: sign("E5", "x"),
  conga: sign("A4"),
  clave: sign("B4", "x"),
  tambourine: sign("A5", "x"),
  shaker: sign("B5", "x"),
  triangle: sign("A5", "triangle"),
  free1: sign("G4"),
  free2: sign("E4"),
  free3: sign("G4", "x"),
  free4: sign("E4", "x"),
};

/**
 * The drums of a part that are played, from the lowest place up, with their names: the legend of a percussion staff.
 */
export const legendOf = (hits: readonly Pick<RealizedHit, "drum">[]): { drum: Drum; title: string; sign: DrumSign }[] =>
  [...new Set(hits.map((h) => h.drum))]
    .map((drum) => ({ drum, title: DRUM_KINDS[drum].title, sign: DRUM_SIGNS[drum] }))
    .sort((a, b) => pitchMidi(a.sign.place) - pitchMidi(b.sign.place));

/** A hit as a note where its drum stands on the staff. */
export interface DrumNote extends RealizedNote {
  drum: Drum;
}

/**
 * Hits as notes that can be written, hands and feet apart: each lasts to the next hit of its voice, but no longer than
 * its beat, for a drum does not sound on.
 */
export function notesOfHits(hits: readonly RealizedHit[], meter: Meter): [hands: DrumNote[], feet: DrumNote[]] {
  const voice = (feet: boolean) => {
    const own = hits.filter((h) => DRUM_SIGNS[h.drum].feet === feet).sort((a, b) => a.start - b.start);
    const starts = [...new Set(own.map((h) => h.start))];
    return own.map((h): DrumNote => {
      const { place } = DRUM_SIGNS[h.drum];
      const { start } = h;
      const inBar = ((start % meter.bar) + meter.bar) % meter.bar;
      const beat = sure(meter.beats.findLast((b) => b.start <= inBar));
      const next = starts[starts.indexOf(h.start) + 1] ?? Infinity;
      const duration = Math.min(next - h.start, beat.start + beat.duration - inBar, QUARTER * 1.5);
      return {
        id: `${h.drum}:${h.start}`,
        drum: h.drum,
        part: "",
        section: "",
        pass: h.pass,
        start,
        duration,
        midi: pitchMidi(place),
        pitch: place,
        velocity: h.velocity,
        played: h.played,
        playedEnd: h.played + duration,
      };
    });
  };
  return [voice(false), voice(true)];
}
