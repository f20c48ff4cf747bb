import { ok, type Result } from "../../base/result";
import { pitchMidi, type PitchName } from "../../theory/pitch/pitch";
import type { Chord } from "../../theory/chord/chord";
import { aloneIn } from "./kept";
import { spaceOver, voicingSpace, type VoicingSpace } from "./space";
import { type Column } from "./candidate";
import type { PathOptions } from "./setting";

/** Layouts by the index of their chord. */
export type LayoutsByIndex = Readonly<Record<number, readonly PitchName[]>>;

/**
 * Two spaces over the same chords: `free`, in which every chord has all its layouts, and `space`, in which some chords
 * have the one they keep. `known` is the free one, where it was worked out before. Errors: those of `voicingSpace`.
 */
export function heldSpace(
  chords: readonly Chord[],
  options: PathOptions,
  held: LayoutsByIndex,
  known?: VoicingSpace,
): Result<{ free: VoicingSpace; space: VoicingSpace }> {
  const { pins: _, ...rest } = options;
  const free = known ? ok(known) : voicingSpace(chords, rest);
  const pins: Record<number, PitchName[]> = {};
  const find = (column: Column | undefined, pitches: readonly PitchName[]) => {
    const text = pitches
      .map(pitchMidi)
      .sort((a, b) => a - b)
      .join();
    return column?.candidates.find((v) => v.pitches.join() === text);
  };
  for (const [i, pitches] of Object.entries(held))
    if (!free.ok || options.shapes?.[Number(i)] || !find(free.value.columns[Number(i)], pitches))
      pins[Number(i)] = [...pitches];
  // A layout that the options would not have found is put in place of those they find.
  const base = Object.keys(pins).length ? voicingSpace(chords, { ...rest, pins }) : free;
  if (!base.ok) return base;
  const { columns, judge, neck } = base.value;
  if (!Object.keys(held).length) return ok({ free: base.value, space: base.value });
  const narrow = columns.map((column, i): Column => {
    const kept = held[i] && find(column, held[i]);
    return kept ? { ...column, candidates: aloneIn(base.value.kept, kept) } : column;
  });
  const space = spaceOver(narrow, judge, {
    loop: options.loop ?? false,
    neck,
    kept: base.value.kept,
    searched: base.value.kept.held,
  });
  return ok({ free: free.ok ? free.value : base.value, space });
}
