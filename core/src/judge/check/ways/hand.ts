import { playingOf } from "../../../song/playing";
import type { Part } from "../../../song/schema";
import { neckOf } from "../../../theory/instrument/neck";
import { holdShape, shapeOf, SHAPE_LIMITS, type Neck } from "../../../theory/instrument/fretboard";
import { twoHands } from "../../../theory/instrument/hands";
import { instrumentOf } from "../../../theory/instrument/instruments";
import type { CheckContext } from "../rule";

/** Whether one player can take these notes, low to high, at once. */
export type Holds = (midis: readonly number[], shape?: readonly (number | null)[]) => boolean;

/** What a player of a part can hold; null for what is not held by hands or on a neck. */
export function holdsOf({ song, section }: CheckContext, part: Part): Holds | null {
  const instrument = instrumentOf(part.instrument, song);
  const { hands, span, capo, tuning } = playingOf(part, "voicing", { section });
  const { held } = instrument;
  if (held.by === "hands") return (midis) => twoHands(midis, Math.max(span ?? 0, held.span), hands ?? 2) !== null;
  const neck: Neck | undefined = neckOf(instrument, capo ?? 0, tuning);
  if (!neck) return null;
  const limits = { ...SHAPE_LIMITS, highest: neck.frets, muted: neck.strings.length };
  // Low strings that only one note at a time is asked of leave the hand free.
  return (midis, shape) =>
    shape
      ? holdShape(neck, shape) !== null
      : midis.length > neck.strings.length || shapeOf(neck, midis, limits) !== null;
}
