import type { Meter } from "../../theory/time/meter";
import type { RealizedNote } from "../../song/realize";

/** How a comping part is laid out: its notes, its rhythm on slashes, or a slash a beat to be played freely. */
export const LAYOUTS = ["notes", "rhythm", "slashes"] as const;
export type Layout = (typeof LAYOUTS)[number];

/** The middle line of a treble staff. */
const LINE = { midi: 71, pitch: "B4" };

/**
 * Notes of a part as slashes on the middle line: one an attack, or one a beat of the bars in which it plays. Starts
 * count from the first bar.
 */
export function slashNotes(
  notes: readonly RealizedNote[],
  layout: Exclude<Layout, "notes">,
  meter: Meter,
): RealizedNote[] {
  const attacks = new Map<number, RealizedNote>();
  for (const n of notes) {
    const known = attacks.get(n.start);
    if (!known || known.duration < n.duration) attacks.set(n.start, n);
  }
  if (layout === "rhythm")
    return [...attacks.values()].sort((a, b) => a.start - b.start).map((n) => ({ ...n, ...LINE }));
  const played = new Map<number, RealizedNote>();
  for (const n of attacks.values())
    for (let bar = Math.max(0, Math.floor(n.start / meter.bar)); bar * meter.bar < n.start + n.duration; bar++)
      if (!played.has(bar)) played.set(bar, n);
  return [...played]
    .sort((a, b) => a[0] - b[0])
    .flatMap(([bar, n]) =>
      meter.beats.map((beat) => ({
        ...n,
        ...LINE,
        start: bar * meter.bar + beat.start,
        duration: beat.duration,
        swell: false,
      })),
    );
}
