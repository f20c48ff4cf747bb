import { firstOf, nth, sure } from "../../base/list";
import { ok, type Result } from "../../base/result";
import type { PitchName, Semitones } from "../../theory/pitch/pitch";
import { trade } from "./cost";
import { heldSpace } from "./held";
import { describe } from "./path";
import { pathsOf } from "./ways";
import { heldIn, pathOf, type AskedVoicing, type Layouts } from "./section";

/** What laying a section out anew would gain against the layouts it has. */
export interface Anew {
  pitches: Record<string, PitchName[]>;
  /** Semitones moved in all: anew, and as it stands. */
  motion: [anew: Semitones, now: Semitones];
  /** How much less it costs. */
  gain: number;
  /** Chords whose layout would be another one. */
  changed: number;
  /** What is better, and what is worse. */
  trades: string[];
}

/** Gains below this are not worth an offer. */
const LEAST_GAIN = 0.5;

/**
 * The cheapest way through a section beside the one it has; null where it has that one, or one that costs as little.
 */
export function layOutAnew(asked: AskedVoicing, now: Layouts): Result<Anew | null> {
  const { chords, options } = pathOf(asked);
  if (!asked.ids.length) return ok(null);
  const free = heldSpace(chords, options, heldIn(asked, {}));
  if (!free.ok) return free;
  const held = heldSpace(chords, options, heldIn(asked, now), free.value.free);
  if (!held.ok) return held;
  const [fresh, stands] = [free, held].map(({ value: { space } }) => describe(space, firstOf(pathsOf(space, 1)).path));
  const pitches = Object.fromEntries(asked.ids.map((id, i) => [id, nth(sure(fresh).chords, i).pitches]));
  const changed = asked.ids.filter((id) => now[id]?.join() !== sure(pitches[id]).join()).length;
  const gain = sure(stands).cost - sure(fresh).cost;
  if (!changed || gain < LEAST_GAIN) return ok(null);
  return ok({
    pitches,
    motion: [sure(fresh).motion, sure(stands).motion],
    gain,
    changed,
    trades: trade(sure(stands).terms, sure(fresh).terms)
      .slice(0, 3)
      .map((t) => t.words),
  });
}
