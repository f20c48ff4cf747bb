import { spellInKey } from "../pitch/key";
import { parsePitch, type PitchName } from "../pitch/pitch";
import type { Ticks } from "../time/meter";
import { chordToneName } from "../chord/chord";
import { parseChord } from "../chord/parse";
import { NO_CHORD } from "../chord/progression";
import { sectionKey } from "./document";
import type { Section, Song } from "./schema";

/** A pitch spelled as the chord it stands in wants it, otherwise as the key does. */
export function spellAt(song: Song, section: Section, tick: Ticks, midi: number): PitchName {
  const event = section.chords.findLast((c) => c.start <= Math.max(0, tick) && c.start + c.duration > Math.max(0, tick));
  const parsed = event && event.symbol !== NO_CHORD ? parseChord(event.symbol) : null;
  const name = parsed?.ok ? chordToneName(parsed.value, ((midi % 12) + 12) % 12) : null;
  const inKey = spellInKey(midi, sectionKey(song, section));
  if (!name) return inKey;
  const octave = Number(/-?\d+$/.exec(inKey)![0]);
  for (const o of [octave, octave - 1, octave + 1]) {
    const pitch = parsePitch(name + o);
    if (pitch.ok && pitch.value === midi) return name + o;
  }
  return inKey;
}
