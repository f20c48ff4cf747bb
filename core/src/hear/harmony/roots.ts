import type { Key } from "../../theory/pitch/key";
import { rootPc, type Chord } from "../../theory/chord/chord";

type Usual = "usual" | "sometimes" | "seldom" | "unlisted";

/** Usual root progressions by scale step 1–7 (Piston, *Harmony*, value from memory). */
export const PISTON: Record<number, Partial<Record<Exclude<Usual, "unlisted">, number[]>>> = {
  1: { usual: [4, 5], sometimes: [6], seldom: [2, 3] },
  2: { usual: [5], sometimes: [4, 6], seldom: [1, 3] },
  3: { usual: [6], sometimes: [4], seldom: [1, 2, 5] },
  4: { usual: [5], sometimes: [1, 2], seldom: [3, 6] },
  5: { usual: [1], sometimes: [4, 6], seldom: [2, 3] },
  6: { usual: [2, 5], sometimes: [3, 4], seldom: [1] },
  7: { usual: [3], sometimes: [1] },
};

/** How usual it is that one scale step follows another. */
export function rootProgression(from: number, to: number): Usual {
  if (from === to) return "usual";
  const row = PISTON[from];
  if (row?.usual?.includes(to)) return "usual";
  if (row?.sometimes?.includes(to)) return "sometimes";
  if (row?.seldom?.includes(to)) return "seldom";
  return "unlisted";
}

/** Scale step 1–7 of a chord's root, null for a root outside the key. */
export function stepOf(chord: Chord, key: Key): number | null {
  const index = key.pcs.indexOf(rootPc(chord));
  return index < 0 ? null : index + 1;
}
