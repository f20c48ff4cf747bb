import { DRUM_KINDS } from "../theory/instrument/drums";
import type { Drum } from "../song/schema";
import type { MidiContents, MidiTrack } from "./midiRead";

/**
 * Words of track names that mean a drum, the longer before the shorter they hold: many files have each drum on a track
 * and a channel of its own (common practice of sequencers).
 */
const WORDS: readonly [RegExp, Drum][] = [
  [/open ?-?_?(hi)?-?_? ?hat|\boh\b/i, "openHat"],
  [/hi-?_? ?hat|\bhats?\b|_hat|\bhh\b/i, "closedHat"],
  [/kick|bass ?-?_?drum|\bbd\b/i, "kick"],
  [/snare|\bsd\b/i, "snare"],
  [/rim ?-?_?(shot|click)?|side ?-?_?stick/i, "rim"],
  [/clap/i, "clap"],
  [/\btoms?\b|_tom/i, "tom"],
  [/conga|bongo/i, "conga"],
  [/clave/i, "clave"],
  [/tambourine/i, "tambourine"],
  [/triangle/i, "triangle"],
  [/shaker|maraca|cabasa/i, "shaker"],
  [/ride|crash|cymbal/i, "ride"],
];
/** A drum plays one pitch, or another now and then. */
const PITCHES = 2;

/** The drum that a track off the channel of drums plays, by its name and its pitches; null where it plays a line. */
export function drumOfTrack(track: MidiTrack): Drum | null {
  if (new Set(track.notes.map((n) => n.midi)).size > PITCHES) return null;
  return WORDS.find(([word]) => word.test(track.name))?.[1] ?? null;
}

/** The drums of a file as one track: those of the channel of drums, and tracks that play one drum. */
export function drumsOf(contents: MidiContents): MidiTrack | null {
  const notes = contents.tracks.flatMap((track) => {
    if (track.drums) return track.notes;
    const drum = drumOfTrack(track);
    return drum ? track.notes.map((n) => ({ ...n, midi: DRUM_KINDS[drum].note })) : [];
  });
  if (!notes.length) return null;
  notes.sort((a, b) => a.start - b.start || a.midi - b.midi);
  const pitches = notes.map((n) => n.midi).sort((a, b) => a - b);
  return {
    ...{ id: "drums", name: "Drums", channel: 10, drums: true, notes, voices: 1 },
    ...{ lowest: pitches[0] ?? 0, highest: pitches.at(-1) ?? 0 },
  };
}
