/**
 * Benchmarks, printed as ratios to a reference measured in the same run. `npm run bench`; `npm run bench -- browser`
 * adds traces and what the built application costs its page, beside the figures in `bench/kept` (`keep` writes them),
 * `grid` all bass styles, `edits` ten thousand random edits, `storm` a thousand saves under faults.
 */
import { firstOf, lastOf, nth, sure } from "../core/src/base/list";
import { Check, Chord, type Lattice, must } from "../core/src/index";
import { motionBetween } from "../core/src/theory/motion/motion";
import { sliceSong } from "../core/src/hear/slice/slices";
import { voicingSpace } from "../core/src/arrange/voicing/space";
import { cheapestPruned } from "../core/src/search/pruned";
import { longSong, loopOf } from "./songs";

const now = (): number => performance.now();

/** Median time of several runs in milliseconds. */
function time(run: () => unknown, times = 5): number {
  run();
  const all = Array.from({ length: times }, () => {
    const t = now();
    run();
    return now() - t;
  });
  return nth(
    all.sort((a, b) => a - b),
    Math.floor(times / 2),
  );
}

/** What a player without a plan does: from each chord to the cheapest next one. */
function greedy(lattice: Lattice): { picks: number[]; cost: number } {
  let best = { picks: [0], cost: Infinity };
  for (let i = 0; i < firstOf(lattice.sizes); i++)
    if (lattice.node(0, i) < best.cost) best = { picks: [i], cost: lattice.node(0, i) };
  for (let c = 1; c < lattice.sizes.length; c++) {
    let at = 0;
    let cost = Infinity;
    for (let j = 0; j < nth(lattice.sizes, c); j++) {
      const step = lattice.step(c - 1, nth(best.picks, c - 1), j) + lattice.node(c, j);
      if (step < cost) [at, cost] = [j, step];
    }
    best = { picks: [...best.picks, at], cost: best.cost + cost };
  }
  return {
    ...best,
    cost:
      best.cost +
      (lattice.closed ? lattice.step(lattice.sizes.length - 1, lastOf(best.picks), firstOf(best.picks)) : 0),
  };
}

function brute(lattice: Lattice): number {
  let best = Infinity;
  const walk = (picks: number[], cost: number) => {
    if (cost >= best) return;
    const c = picks.length;
    if (c === lattice.sizes.length) {
      best = Math.min(best, cost + (lattice.closed ? lattice.step(c - 1, nth(picks, c - 1), firstOf(picks)) : 0));
      return;
    }
    for (let i = 0; i < nth(lattice.sizes, c); i++)
      walk([...picks, i], cost + lattice.node(c, i) + (c ? lattice.step(c - 1, nth(picks, c - 1), i) : 0));
  };
  walk([], 0);
  return best;
}

const chords = (n: number) => loopOf(n).map((s) => must(Chord.parse(s)));
// Five voices over four octaves: hundreds of candidates a chord.
const space = must(voicingSpace(chords(64), { loop: true, voices: 5, bassCovered: true, range: ["F#2", "C6"] }));
const { lattice, columns } = space;
const sizes = columns.map((c) => c.candidates.length);
const motion = (picks: number[]): number =>
  picks.reduce(
    (sum, pick, c) =>
      sum +
      motionBetween(
        nth(nth(columns, c).candidates, pick).pitches,
        nth(nth(columns, (c + 1) % columns.length).candidates, nth(picks, (c + 1) % columns.length)).pitches,
      ),
    0,
  );
const walk = greedy(lattice);
const best = sure(cheapestPruned(lattice).path);
const walkTime = time(() => greedy(lattice));
const searchTime = time(() => cheapestPruned(lattice), 3);
console.log(
  `64 chords, ${Math.min(...sizes)}–${Math.max(...sizes)} candidates each (median ` +
    `${[...sizes].sort((a, b) => a - b)[32]}), closed and exact`,
);
console.log(
  `  the path from nothing: ${(searchTime / walkTime).toFixed(1)} × a greedy walk (${searchTime.toFixed(0)} ms here)`,
);
console.log(
  `  total motion ${motion(best.picks)} against ${motion(walk.picks)} semitones: ` +
    `${(motion(best.picks) / motion(walk.picks)).toFixed(2)} of greedy; cost ` +
    `${(best.cost / walk.cost).toFixed(2)} of greedy`,
);

let equal = 0;
const short = [
  ["C", "F", "G7"],
  ["Dm7", "G7", "Cmaj7"],
  ["Am", "E7/G#", "C/G", "D7"],
  ["Cm9", "F13"],
];
for (const closed of [false, true])
  for (const symbols of short) {
    const small = must(
      voicingSpace(
        symbols.map((s) => must(Chord.parse(s))),
        { loop: closed, voices: 3 },
      ),
    );
    if (Math.abs(brute(small.lattice) - sure(cheapestPruned(small.lattice).path).cost) < 1e-9) equal++;
  }
console.log(`  equal to brute force on ${equal} of ${short.length * 2} short progressions`);

const song = longSong();
const sliceTime = time(() => sliceSong(song, { section: "s1" }));
const checkTime = time(() => Check.song(song));
const checker = Check.checker();
checker.section(song, "s1");
const notes = sliceSong(song, { section: "s1" }).real.parts.reduce((n, p) => n + p.notes.length, 0);
console.log(
  `64 bars, four parts, ${notes} notes: a full check takes ${(checkTime / sliceTime).toFixed(2)} × one slices ` +
    `pass (${sliceTime.toFixed(0)} ms here); an unchanged song ` +
    `${(time(() => checker.section(song, "s1")) / sliceTime).toFixed(3)} ×`,
);

const browser = process.argv.includes("browser");
await (await import("./voicing")).voicing(time, greedy, browser);
await (await import("./harmony")).harmony(browser);
(await import("./growth")).growth(time);
await (await import("./bass")).bass(time, { grid: process.argv.includes("grid"), browser });
(await import("./form")).form(time);
(await import("./check")).check(time, { faults: process.argv.includes("faults") });
(await import("./vocal")).vocal(time, { grid: process.argv.includes("grid") });
await (await import("./counter")).counter(time, { grid: process.argv.includes("grid"), browser });
if (browser) {
  await (await import("./drag")).drag();
  await (await import("./browser")).browser({ keep: process.argv.includes("keep") });
}
if (process.argv.includes("storm")) await (await import("./storm")).storm();
if (process.argv.includes("edits")) (await import("./edits")).edits();
