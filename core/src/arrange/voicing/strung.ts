import { sure } from "../../base/list";
import { pitchMidi, type Midi } from "../../theory/pitch/pitch";
import { fretPlace, holdShape, type Neck, type Shape } from "../../theory/instrument/fretboard";
import { neckOf } from "../../theory/instrument/neck";
import { instrumentOf } from "../../theory/instrument/instruments";
import { voicesOf } from "../../song/linked";
import { playingOf } from "../../song/playing";
import type { HeldShape, Part, Section, Song } from "../../song/schema";

/** What sounds under a shape, string by string; null where there are not as many strings, or a fret is off the neck. */
export function soundsOf({ frets, capo }: HeldShape, { strings, frets: highest }: Neck): (Midi | null)[] | null {
  if (frets.length !== strings.length || frets.some((f) => f !== null && f + capo > highest)) return null;
  return frets.map((f, s) => (f === null ? null : sure(strings[s]) + capo + f));
}

/** A shape as it is stored, where it sounds these pitches on a neck (whose own capo does not count). */
export function heldAs(neck: Neck, pitches: readonly Midi[], stored: HeldShape): Shape | null {
  const sounds = soundsOf(stored, neck)?.filter((m) => m !== null);
  const sorted = (list: readonly Midi[]) => [...list].sort((a, b) => a - b);
  if (!sounds || sorted(sounds).join() !== sorted(pitches).join()) return null;
  const held = holdShape({ ...neck, capo: stored.capo }, stored.frets);
  return { frets: stored.frets, pitches: sorted(pitches), ...(held ?? beyondHands(neck, stored)) };
}

/** What is asked of a hand by a shape that none can hold: it stays what somebody wrote. */
function beyondHands({ scale }: Neck, { frets, capo }: HeldShape): Omit<Shape, "frets" | "pitches"> {
  const fretted = frets.filter((f): f is number => f !== null && f > 0);
  const [low, high] = [Math.min(...fretted), Math.max(...fretted)];
  return {
    position: low,
    span: high - low,
    reach: fretPlace(scale, high + capo) - fretPlace(scale, low + capo),
    fingers: fretted.length,
    barre: null,
    muted: 0,
    strain: 20,
  };
}

/** The neck of a part in a section, with its tuning and capo; none where it has no frets. */
export function neckIn(song: Song, section: Section, part: Part): Neck | undefined {
  const { capo = 0, tuning } = playingOf(part, "voicing", { section });
  return neckOf(instrumentOf(part.instrument, song), capo, tuning);
}

/** A note that comes from a chord. */
interface Derived {
  id: string;
  midi: Midi;
  start: number;
  chordId?: string;
}

/**
 * On which string each note of a part lies, where its chord is held in a shape that is stored and the note is one of
 * the shape's, by the ids of notes.
 */
export function strungBy(song: Song, section: Section, part: Part, notes: readonly Derived[]): Map<string, number> {
  const out = new Map<string, number>();
  const neck = neckIn(song, section, part);
  if (!neck || !part.link) return out;
  const sounds = new Map(
    section.chords.flatMap((c) => {
      const layout = c.voicings?.[voicesOf(part)];
      if (!layout?.shape || !heldAs(neck, layout.pitches.map(pitchMidi), layout.shape)) return [];
      return [[c.id, sure(soundsOf(layout.shape, neck))] as const];
    }),
  );
  const taken = new Set<string>();
  for (const n of notes) {
    const strings = sounds.get(n.chordId ?? "");
    const string = strings?.findIndex((m, s) => m === n.midi && !taken.has(`${n.start} ${s}`)) ?? -1;
    if (string < 0) continue;
    taken.add(`${n.start} ${string}`);
    out.set(n.id, string);
  }
  return out;
}
