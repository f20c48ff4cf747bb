import { sure } from "../../base/list";
import { chordOf } from "../../theory/chord/progression";
import { chordPitchClasses } from "../../theory/chord/chord";
import { mod } from "../../theory/pitch/pitch";
import type { CheckContext, Fix, RawFinding } from "./rule";
import { harmoniesOf } from "./rules/vertical/harmony";
import { renamed, soundingSymbol } from "./rules/vertical/otherChord";

/** A name read off the notes that is less sure than this may be wrong rather than the notes (common practice). */
const SURE = 0.75;

/**
 * A fault against a chord whose name was read off the notes of a file or a recording: where the name is not sure, it is
 * told as such, a degree lighter, with the name that fits.
 */
export function ifNamed(ctx: CheckContext, raw: RawFinding): RawFinding {
  const event = ctx.section.chords.find((c) => c.start <= raw.tick && raw.tick < c.start + c.duration);
  if (event?.certainty === undefined || event.certainty >= SURE) return raw;
  return {
    ...raw,
    message: `${raw.message} The name ${event.symbol} was read off the notes and may be wrong.`,
    lighter: (raw.lighter ?? 0) + 1,
    fixes: [...otherNames(ctx, event.id, raw), ...raw.fixes],
  };
}

/** The name of all that sounds, and the other readings that hold the notes it is about. */
function otherNames(ctx: CheckContext, id: string, { notes }: RawFinding): Fix[] {
  const harmony = harmoniesOf(ctx).find((h) => h.written.id === id);
  const event = sure(ctx.section.chords.find((c) => c.id === id));
  if (!harmony) return [];
  const about = harmony.slices.flatMap((s) => s.notes).filter((n) => notes.includes(n.note.id));
  const holds = (symbol: string) => {
    const chord = chordOf(symbol);
    return chord !== null && about.every((n) => chordPitchClasses(chord).includes(mod(n.note.midi, 12)));
  };
  const sounding = soundingSymbol(ctx, harmony.written, harmony.slices);
  const [symbol] = [sounding ?? "", ...(event.readings ?? [])].filter((s) => s && s !== event.symbol && holds(s));
  return symbol ? [{ label: `Write ${symbol}`, edit: renamed(ctx, harmony.written, symbol) }] : [];
}
