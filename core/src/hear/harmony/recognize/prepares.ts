import { nth } from "../../../base/list";
import { belongs, isDominant, isHalfDiminished, onward, rootMove, type Progression } from "../context";
import { tonicOf } from "../distance";

/** A half-diminished chord before an applied dominant a fifth below is its ii. */
export function preparesApplied(p: Progression, i: number): boolean {
  const next = onward(p, i);
  return (
    next !== undefined &&
    isHalfDiminished(nth(p.chords, i).chord) &&
    rootMove(nth(p.chords, i).chord, next.chord) === 5 &&
    isDominant(next.chord) &&
    !belongs(next.chord, next.key) &&
    rootMove(next.chord, tonicOf(next.key)) !== 5
  );
}
