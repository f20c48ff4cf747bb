import { onceFor } from "../../../base/once";
import type { CheckContext, Line } from "../rule";
import { harmonyLines } from "../rules/lines";

const height = ({ notes }: Line): number =>
  onceFor([notes], "height", () => notes.reduce((sum, n) => sum + n.midi, 0) / Math.max(1, notes.length));

const ends = new WeakMap<CheckContext, [Line | undefined, Line | undefined]>();

/** The outer ones of the voices that make the harmony: that which lies highest on the whole, and the lowest. */
export function harmonyEnds(ctx: CheckContext): [top: Line | undefined, bottom: Line | undefined] {
  const known = ends.get(ctx);
  if (known) return known;
  const sorted = [...harmonyLines(ctx)].sort((a, b) => height(b) - height(a));
  const found: [Line | undefined, Line | undefined] = [sorted[0], sorted.at(-1)];
  ends.set(ctx, found);
  return found;
}
