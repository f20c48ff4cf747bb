import type { Problem } from "../base/result";
import { parseKey } from "../theory/pitch/key";
import { parseMeter } from "../theory/time/meter";
import { readLine } from "../theory/chord/progression";
import type { ChordEvent } from "./schema";

/**
 * Reads a chord line into chord events from tick 0. `key` is checked here and used where events are analyzed; a bad key
 * or meter is a problem like any other. Columns are 1-based.
 */
export function parseProgression(
  line: string,
  { key, meter }: { key: string; meter: string },
): { events: ChordEvent[]; problems: Problem[] } {
  const problems: Problem[] = [];
  const keyResult = parseKey(key);
  if (!keyResult.ok) problems.push(keyResult.error);
  const meterResult = parseMeter(meter);
  if (!meterResult.ok) return { events: [], problems: [...problems, meterResult.error] };
  const read = readLine(line, meterResult.value);
  return { events: read.chords.map((c, i) => ({ id: `c${i + 1}`, ...c })), problems: [...problems, ...read.problems] };
}
