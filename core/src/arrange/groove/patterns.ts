import { nth, sure } from "../../base/list";
import { random } from "../../base/random";
import { byBeat } from "../../song/comp/patterns";
import { mod } from "../../theory/pitch/pitch";
import type { Meter, Ticks } from "../../theory/time/meter";
import type { Drum } from "../../theory/instrument/drums";
import type { Hit, Lane } from "../../song/schema";

/** A step of a pattern: sixteenths, or thirds of a quarter. */
type Grid = 120 | 160;

interface Row {
  drum: Drum;
  grid: Grid;
  /** X struck hard, x struck, o soft, . silent; one bar, or several that take turns. */
  steps: string;
}

export interface DrumPattern {
  id: string;
  title: string;
  /** What it is good for. */
  explanation: string;
  /** The usual share of swing, where the feel has one. */
  swing?: number;
  rows(meter: Meter): Row[];
}

const VELOCITY: Record<string, number> = { X: 112, x: 88, o: 56 };

const row = (drum: Drum, steps: string, grid: Grid = 120): Row => ({ drum, grid, steps });
const beats = (drum: Drum, beat: Parameters<typeof byBeat>[0], meter: Meter): Row => row(drum, byBeat(beat)(meter));
/** Cut or repeated to the length of a bar. */
const fit = (text: string, meter: Meter): string =>
  text.repeat(Math.ceil(meter.bar / 120 / text.length)).slice(0, meter.bar / 120);
const eighths = (n: number, on = "x", off = "o") => `${on}.${off}.${off}.${off}.`.slice(0, n);
/** Backbeats: every second beat; a bar of one or three beats has its last ones. */
const backbeat = (i: number, meter: Meter): boolean =>
  meter.beats.length % 2 ? i > 0 && i === meter.beats.length - 1 : i % 2 === 1;

/** Generic patterns by name of feel (common practice). Each fits itself to the meter. */
export const DRUM_PATTERNS: readonly DrumPattern[] = [
  {
    id: "four-floor",
    title: "Four on the floor",
    explanation: "A kick on every beat, claps on the backbeat, open hats between: dances by itself.",
    rows: (m) => [
      beats("kick", () => "X", m),
      beats("clap", (i) => (backbeat(i, m) ? "X" : ""), m),
      beats("closedHat", () => "o", m),
      beats("openHat", (_, n) => ".".repeat(Math.floor(n / 2)) + "x", m),
    ],
  },
  {
    id: "half-time",
    title: "Half-time",
    explanation: "One backbeat in the middle of the bar: the same tempo feels half as fast and twice as wide.",
    rows: (m) => [
      beats(
        "kick",
        (i, _, last) => {
          if (i === 0) return "X";
          if (last) return "..x";
          return "";
        },
        m,
      ),
      beats("snare", (i) => (i === Math.floor(m.beats.length / 2) ? "X" : ""), m),
      beats("closedHat", (_, n) => eighths(n), m),
    ],
  },
  {
    id: "boom-bap",
    title: "Boom-bap",
    explanation: "A heavy kick, a late second one, a dry snare on the backbeat, swung sixteenths.",
    swing: 0.58,
    rows: (m) => [
      row("kick", fit("X.....x...x.....", m) + fit("X......x..x.....", m)),
      beats("snare", (i) => (backbeat(i, m) ? "X" : ""), m),
      beats("closedHat", (_, n) => eighths(n), m),
    ],
  },
  {
    id: "two-step",
    title: "Two-step hats",
    explanation: "Kicks that leave out the third beat, hats that skip: light on its feet.",
    swing: 0.56,
    rows: (m) => [
      row("kick", fit("X.........x.....", m)),
      beats("snare", (i) => (backbeat(i, m) ? "X" : ""), m),
      beats("closedHat", (i, n) => (i % 2 ? "..xo" : ".ox.").slice(0, n), m),
    ],
  },
  {
    id: "bossa",
    title: "Bossa-type",
    explanation: "A kick that walks with the bass, a rim figure over two bars, a shaker that never stops.",
    rows: (m) => [
      beats("kick", (i) => (i % 2 === 0 ? "X" : "..x"), m),
      row("rim", fit("x..x..x...x..x..", m) + fit("..x..x..x..x..x.", m)),
      beats("shaker", (_, n) => eighths(n), m),
    ],
  },
  {
    id: "waltz",
    title: "Waltz",
    explanation: "One low, the others light.",
    rows: (m) => [
      beats("kick", (i) => (i === 0 ? "X" : ""), m),
      beats("snare", (i) => (i === 0 ? "" : "o"), m),
      beats("ride", (i) => (i === 0 ? "x" : "o"), m),
    ],
  },
  {
    id: "shuffle",
    title: "Shuffle",
    explanation: "Hats on the first and last third of every beat, kick and snare in turn.",
    rows: (m) => [
      beats("kick", (i) => (i % 2 === 0 ? "X" : ""), m),
      beats("snare", (i) => (backbeat(i, m) ? "X" : ""), m),
      row(
        "closedHat",
        m.beats
          .map((b) =>
            (b.duration === 720 ? "x.o.x.o.x" : "x.o").slice(0, b.duration / 160).padEnd(b.duration / 160, "."),
          )
          .join(""),
        160,
      ),
    ],
  },
  {
    id: "six-eight",
    title: "Six-eight ballad",
    explanation: "Flowing eighths, the kick on the first, the snare on the second half.",
    rows: (m) => [
      beats(
        "kick",
        (i, n, last) => {
          if (i === 0) return "X";
          if (last && n >= 6) return "....x.";
          return "";
        },
        m,
      ),
      beats("snare", (i) => (backbeat(i, m) ? "X" : ""), m),
      beats("closedHat", (_, n) => "x.o.o.o.".slice(0, n), m),
    ],
  },
  {
    id: "breakbeat",
    title: "Breakbeat-like",
    explanation: "Kicks in pairs, a snare with soft answers around it: restless.",
    rows: (m) => [
      row("kick", fit("X.x.......xx....", m) + fit("X.x.......x..x..", m)),
      row("snare", fit("....X..o.o..X..o", m)),
      beats("closedHat", (_, n) => eighths(n), m),
    ],
  },
];

/** A pattern over some bars as lanes. */
export function patternLanes(pattern: DrumPattern, meter: Meter, bars: number): Lane[] {
  return pattern.rows(meter).map(({ drum, grid, steps }) => {
    const hits: Hit[] = [];
    for (let i = 0; i * grid < bars * meter.bar; i++) {
      const velocity = VELOCITY[sure(steps[i % steps.length])];
      if (velocity) hits.push({ start: i * grid, velocity });
    }
    return { drum, hits };
  });
}

/** A rhythm of steps as hits over a length, for instance a Euclidean one: accents on beats a little louder. */
export const stepHits = (steps: readonly boolean[], step: Ticks, length: Ticks, velocity: number): Hit[] => {
  const hits: Hit[] = [];
  for (let i = 0; i * step < length; i++)
    if (steps[i % steps.length])
      hits.push({ start: i * step, velocity: i % steps.length === 0 ? Math.min(127, velocity + 12) : velocity });
  return hits;
};

const byStart = (a: Hit, b: Hit) => a.start - b.start;

/** Two sets of lanes as one: every hit of both; where they meet, the louder one. */
export function mergeLanes(a: readonly Lane[], b: readonly Lane[]): Lane[] {
  const drums = [...new Set([...a, ...b].map((l) => l.drum))];
  return drums.map((drum) => {
    const [one, two] = [a, b].map((lanes) => lanes.find((l) => l.drum === drum));
    const hits = new Map<Ticks, Hit>();
    for (const hit of [...(one?.hits ?? []), ...(two?.hits ?? [])]) {
      const known = hits.get(hit.start);
      if (!known || known.velocity < hit.velocity) hits.set(hit.start, hit);
    }
    return { ...(two ?? {}), ...(one ?? {}), drum, hits: [...hits.values()].sort(byStart) };
  });
}

/** A roll: evenly spaced hits from one loudness to another, from `start` up to `end`. */
export function roll(start: Ticks, end: Ticks, step: Ticks, { from, to }: { from: number; to: number }): Hit[] {
  const count = Math.max(1, Math.floor((end - start) / step));
  return Array.from({ length: count }, (_, i) => ({
    start: start + i * step,
    velocity: Math.round(from + ((to - from) * i) / Math.max(1, count - 1)),
  }));
}

/**
 * A fill over the last beats of a bar: snare first, then toms, rising; what the same drums had there gives way, hats
 * fall silent.
 */
export function withFill(
  lanes: readonly Lane[],
  meter: Meter,
  bar: number,
  { length, seed }: { length: number; seed: number },
): Lane[] {
  const next = random(seed);
  const first = nth(meter.beats, Math.max(0, meter.beats.length - length)).start + bar * meter.bar;
  const end = (bar + 1) * meter.bar;
  const filled = new Map<Drum, Hit[]>([
    ["snare", []],
    ["tom", []],
  ]);
  for (let at = first, i = 0; at < end; at += 120, i++) {
    const late = (at - first) / (end - first);
    // Fuller towards the end; the drum goes from snare to tom.
    if (i % 2 === 1 && next() > 0.35 + late * 0.5) continue;
    sure(filled.get(late > 0.45 && next() < 0.75 ? "tom" : "snare")).push({
      start: at,
      velocity: Math.round(72 + 44 * late),
    });
  }
  const silent: readonly Drum[] = ["closedHat", "openHat", "pedalHat", "ride", "shaker", "clap", "rim"];
  const kept = lanes.map((l) =>
    silent.includes(l.drum) || filled.has(l.drum)
      ? { ...l, hits: l.hits.filter((h) => h.start < first || h.start >= end) }
      : l,
  );
  return mergeLanes(
    kept,
    [...filled].filter(([, hits]) => hits.length).map(([drum, hits]) => ({ drum, hits })),
  );
}

/**
 * The repetition differs a little: in every second pass of `bars` bars hats alternate in loudness, one soft hit of the
 * kick or snare is added or a soft one left out. The first pass, main accents and hits that are tuned or off the grid
 * stay.
 */
export function withVariation(
  lanes: readonly Lane[],
  meter: Meter,
  bars: number,
  { length, seed }: { length: Ticks; seed: number },
): Lane[] {
  const pass = bars * meter.bar;
  const next = random(seed);
  return lanes.map((lane) => {
    const hat = /Hat|ride|shaker/.test(lane.drum);
    let hits = [...lane.hits];
    for (let from = pass; from < length; from += 2 * pass) {
      const here = hits.filter((h) => h.start >= from && h.start < from + pass);
      if (hat)
        hits = hits.map((h) => {
          if (!here.includes(h)) return h;
          const louder = mod(Math.round(h.start / 240), 2) === 1;
          return { ...h, velocity: Math.max(20, Math.min(127, h.velocity + (louder ? 10 : -8))) };
        });
      else if (lane.drum === "kick" || lane.drum === "snare") {
        const soft = here.filter((h) => h.velocity < 96 && !h.pitch && !h.offset);
        if (soft.length > 1 && next() < 0.5) {
          const gone = nth(soft, Math.floor(next() * soft.length));
          hits = hits.filter((h) => h !== gone);
        } else {
          const free = Array.from({ length: pass / 120 }, (_, i) => from + i * 120).filter(
            (at) => at % 480 !== 0 && at < length && !hits.some((h) => Math.abs(h.start - at) < 120),
          );
          const at = free[Math.floor(next() * free.length)];
          if (at !== undefined && here.length) hits.push({ start: at, velocity: 58 });
        }
      }
    }
    return { ...lane, hits: hits.sort(byStart) };
  });
}
