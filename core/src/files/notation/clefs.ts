import { firstOf, nth, sure } from "../../base/list";
import type { PitchName } from "../../theory/pitch/pitch";
import { ledgersOf, mapChords, staffStep, type BarReading, type EngravedStaff, type StaffClef } from "./staff";

/** Ledger lines a player reads without trouble (common practice). */
const MOST_LEDGERS = 4;
/** Ways to read a bar, the staff's own clef first. */
const WAYS: Record<StaffClef, readonly BarReading[]> = {
  treble: [
    { clef: "treble", shift: 0 },
    { clef: "treble", shift: 1 },
    { clef: "bass", shift: 0 },
    { clef: "bass", shift: -1 },
  ],
  bass: [
    { clef: "bass", shift: 0 },
    { clef: "bass", shift: -1 },
    { clef: "treble", shift: 0 },
    { clef: "treble", shift: 1 },
  ],
  alto: [
    { clef: "alto", shift: 0 },
    { clef: "treble", shift: 0 },
    { clef: "treble", shift: 1 },
    { clef: "bass", shift: 0 },
  ],
  tenor: [
    { clef: "tenor", shift: 0 },
    { clef: "bass", shift: 0 },
    { clef: "treble", shift: 0 },
    { clef: "treble", shift: 1 },
  ],
  percussion: [{ clef: "percussion", shift: 0 }],
};
/**
 * What speaks against a way: a note past four ledger lines, each ledger line there, a bar away from the own clef, a
 * change.
 */
const COSTS = { past: 40, ledger: 0.15, away: 1.5, change: 4 };

/**
 * Bar by bar the clef and the line of octaves with which no note has more than four ledger lines, changed as seldom as
 * that allows.
 */
export function readingsOf(staff: Omit<EngravedStaff, "readings">): BarReading[] {
  const ways = WAYS[staff.clef];
  const bars = staff.measures.length;
  const steps = Array.from({ length: bars }, (_, k) =>
    [...nth(staff.measures, k), ...nth(staff.second, k), ...(k === 0 ? staff.pickup : [])].flatMap((c) =>
      c.notes.map((n) => staffStep(n.pitch)),
    ),
  );
  if (!steps.some((bar) => bar.some((s) => ledgersOf(s, staff.clef) > MOST_LEDGERS)))
    return steps.map(() => firstOf(ways));
  const fit = (bar: readonly number[], way: BarReading, w: number) =>
    bar.reduce((sum, step) => {
      const ledgers = ledgersOf(step - way.shift * 7, way.clef);
      return sum + ledgers * COSTS.ledger + (ledgers > MOST_LEDGERS ? COSTS.past : 0);
    }, 0) + (w > 0 && bar.length ? COSTS.away : 0);
  let costs = ways.map((way, w) => fit(steps[0] ?? [], way, w));
  const back: number[][] = [];
  for (const bar of steps.slice(1)) {
    const from = ways.map((_, w) =>
      costs.reduce(
        (k, c, i) => (c + (i === w ? 0 : COSTS.change) < nth(costs, k) + (k === w ? 0 : COSTS.change) ? i : k),
        0,
      ),
    );
    costs = ways.map((way, w) => nth(costs, nth(from, w)) + (from[w] === w ? 0 : COSTS.change) + fit(bar, way, w));
    back.push(from);
  }
  let at = costs.reduce((k, c, i) => (c < nth(costs, k) ? i : k), 0);
  const out: BarReading[] = [];
  for (let k = bars - 1; k >= 0; k--) {
    out[k] = nth(ways, at);
    at = back[k - 1]?.[at] ?? at;
  }
  return out;
}

const moved = (pitch: PitchName, octaves: number): PitchName => {
  const [, name, octave] = sure(/^(.*?)(-?\d+)$/.exec(pitch));
  return `${name}${Number(octave) - octaves}`;
};

/** A staff with its clefs and lines of octaves, its notes where they are read. */
export function withReadings(staff: Omit<EngravedStaff, "readings">): EngravedStaff {
  const readings = readingsOf(staff);
  return mapChords({ ...staff, readings, clef: readings[0]?.clef ?? staff.clef }, (c, bar) => {
    const { shift } = readings[Math.max(0, bar)] ?? { shift: 0 };
    return shift ? { ...c, notes: c.notes.map((n) => ({ ...n, pitch: moved(n.pitch, shift) })) } : c;
  });
}
