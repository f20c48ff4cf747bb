import { nameInKey, type Key } from "../theory/pitch/key";
import { mod, pitchName, type PitchName } from "../theory/pitch/pitch";
import type { Ticks } from "../theory/time/meter";
import { chordToneName, type Chord } from "../theory/chord/chord";
import { chordOf } from "../theory/chord/progression";
import { sectionKey } from "./document";
import { lastBegun } from "./realized";
import type { Section, Song } from "./schema";

/** A pitch spelled as a chord wants it where it is one of its tones, otherwise as the key does. */
export function spellOver(key: Key, chord: Chord | null | undefined, midi: number): PitchName {
  const pc = mod(midi, 12);
  return pitchName(midi, (chord && chordToneName(chord, pc)) ?? nameInKey(pc, key));
}

/** A pitch spelled as the chord it stands in wants it, otherwise as the key does. */
export function spellAt(song: Song, section: Section, tick: Ticks, midi: number): PitchName {
  const at = Math.max(0, tick);
  const event = section.chords[lastBegun(section.chords, at)];
  const chord = event && event.start + event.duration > at ? chordOf(event.symbol) : null;
  return spellOver(sectionKey(song, section), chord, midi);
}
