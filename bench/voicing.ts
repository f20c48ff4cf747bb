/**
 * Voicing paths, shapes on the neck, and the page while a weight is dragged; ratios to a greedy walk over the same
 * candidates.
 */
import { nth, sure } from "../core/src/base/list";
import { Voicing, VoicingDictionary } from "tonal";
import { Chord, Frets, Instrument, type Lattice, must, Pitch } from "../core/src/index";
import { cheapestPath } from "../core/src/search/lattice";
import { motionBetween } from "../core/src/theory/motion/motion";
import { voicePaths } from "../core/src/arrange/voicing/path";
import { pathsOf } from "../core/src/arrange/voicing/ways";
import { voicingSpace } from "../core/src/arrange/voicing/space";
import { cheapestPrepared, prepare } from "../core/src/search/lattice";
import { cheapestPruned } from "../core/src/search/pruned";
import { longSong, loopOf } from "./songs";
import { trace } from "./trace";

const ROOTS = ["C", "Db", "D", "Eb", "E", "F", "F#", "G", "Ab", "A", "Bb", "B"];
const COLORS = ["", "m7", "maj9", "13", "7(b9)", "6/9", "m7b5", "9sus4"];

type Time = (run: () => unknown, times?: number) => number;
interface Walk {
  picks: number[];
  cost: number;
}

export async function voicing(time: Time, greedy: (lattice: Lattice) => Walk, browser: boolean): Promise<void> {
  const chords = (n: number) => loopOf(n).map((s) => must(Chord.parse(s)));
  const space = must(
    voicingSpace(chords(64), { loop: true, style: "every", voices: 5, bassCovered: true, range: ["F#2", "C6"] }),
  );
  const { columns, lattice } = space;
  const sizes = columns.map((c) => c.candidates.length).sort((a, b) => a - b);
  const motion = (picks: readonly number[]) =>
    picks.reduce((sum, x, c) => {
      const next = (c + 1) % columns.length;
      return (
        sum +
        motionBetween(
          nth(nth(columns, c).candidates, x).pitches,
          nth(nth(columns, next).candidates, nth(picks, next)).pitches,
        )
      );
    }, 0);
  const walk = greedy(lattice);
  const walkTime = time(() => greedy(lattice));
  const times = (run: () => unknown, n = 3) => (time(run, n) / walkTime).toFixed(1);
  const { path, memory } = cheapestPruned(lattice);
  const best = sure(path);
  console.log(
    `64 chords, every keyboard style at once: ${sizes[0]}–${sizes.at(-1)} candidates a chord (median ` +
      `${sizes[32]}), closed`,
  );
  console.log(
    `  exact path from nothing: ${times(() => cheapestPruned(lattice))} × a greedy walk; with every step ` +
      `priced: ${times(() => cheapestPrepared(prepare(lattice)), 1)} ×`,
  );
  const options = {
    loop: true,
    style: "every",
    voices: 5,
    bassCovered: true,
    range: ["F#2", "C6"] as [string, string],
  };
  const layout = nth(nth(columns, 30).candidates, Math.floor(nth(columns, 30).candidates.length / 2));
  const pinned = must(
    voicingSpace(chords(64), {
      ...options,
      pins: { 30: layout.pitches.map((m) => Pitch.name(m, Pitch.plain(m, true))) },
    }),
  ).lattice;
  const other = chords(64);
  other[30] = must(Chord.parse("F#m7b5"));
  const changed = must(voicingSpace(other, options)).lattice;
  console.log(
    `  after one pin ${times(() => cheapestPruned(pinned, memory))} ×, after one other chord ` +
      `${times(() => cheapestPruned(changed, memory))} ×, after a weight has changed ` +
      `${times(() => voicePaths(chords(64), { ...options, weights: { motion: 1 + Math.random() } }))} × with ` +
      "what each layout costs",
  );
  const heap = () => (global.gc?.(), process.memoryUsage());
  const before = heap();
  voicePaths(chords(64), options);
  const after = heap();
  console.log(
    "  memory it takes: " +
      `${Math.round((after.heapUsed + after.arrayBuffers - before.heapUsed - before.arrayBuffers) / 1e6)} MB ` +
      `above what was kept (the process ${Math.round(after.rss / 1e6)} MB)`,
  );
  const five = pathsOf(space, 6);
  console.log(
    `  with the five best others: ${times(() => pathsOf(space, 6), 1)} ×; costs ` +
      `${five.map((f) => f.path.cost.toFixed(1) + (f.exact ? "" : "*")).join(", ")} (* not proven the cheapest ` +
      "that differs)",
  );
  console.log(
    `  motion ${motion(best.picks)} against ${motion(walk.picks)} semitones: ` +
      `${(motion(best.picks) / motion(walk.picks)).toFixed(2)} of greedy; cost ` +
      `${(best.cost / walk.cost).toFixed(2)} of greedy`,
  );

  console.log(
    "  growth (closed): chords × candidates: the path from nothing as a multiple of the greedy walk over 64 " +
      "chords above",
  );
  for (const n of [16, 64, 128])
    for (const voices of [3, 4, 5]) {
      const small = must(voicingSpace(chords(n), { loop: true, voices, range: ["C3", "C6"] }));
      const mean = small.columns.reduce((sum, c) => sum + c.candidates.length, 0) / n;
      console.log(
        `    ${String(n).padStart(3)} × ${String(Math.round(mean)).padStart(4)}: ` +
          `${times(() => cheapestPruned(small.lattice), 3).padStart(7)}`,
      );
    }

  // The dictionary's own candidates, its own way through them against ours.
  const range = ["E3", "D5"];
  const symbols = Array.from({ length: 64 }, (_, i) =>
    nth(["CM7", "Am7", "Dm7", "G7", "Em7", "A7", "FM7", "Bm7b5"], (i * 5 + Math.floor(i / 8)) % 8),
  );
  const theirs = Voicing.sequence(symbols, range, VoicingDictionary.all).map((v) => v.map(Pitch.midi));
  const sets = symbols.map((s) => Voicing.search(s, range, VoicingDictionary.all).map((v) => v.map(Pitch.midi)));
  const ours = sure(
    cheapestPath({
      sizes: sets.map((s) => s.length),
      node: () => 0,
      step: (c, i, j) => motionBetween(nth(nth(sets, c), i), nth(nth(sets, c + 1), j)),
    }),
  );
  const total = (row: readonly number[][]) =>
    row.slice(1).reduce((sum, v, i) => sum + motionBetween(nth(row, i), v), 0);
  const mine = total(ours.picks.map((x, c) => nth(nth(sets, c), x)));
  console.log(
    "  tonal's Voicing.sequence over its own candidates " +
      `(${Math.min(...sets.map((s) => s.length))}–${Math.max(...sets.map((s) => s.length))} a chord, 64 chords): ` +
      `${total(theirs)} semitones, the exact path over the same ${mine}: ${(mine / total(theirs)).toFixed(2)}`,
  );

  const neck = sure(Frets.neck(Instrument.of("guitar")));
  const searched = Array.from({ length: 200 }, (_, i) => {
    const chord = must(Chord.parse(nth(ROOTS, i % 12) + nth(COLORS, Math.floor(i / 12) % 8)));
    return chord.tones.map((t) => (t.semitones + Pitch.midi(`${chord.root}4`)) % 12);
  });
  let shapes = 0;
  const fretTime = time(() => {
    shapes = 0;
    for (const pcs of searched) shapes += Frets.find(neck, pcs, pcs.length > 4 ? pcs.slice(1, 4) : pcs).length;
  }, 1);
  console.log(
    `200 chords searched on a guitar's neck: ${shapes} shapes, ${(fretTime / walkTime).toFixed(1)} × the ` +
      `greedy walk (${(fretTime / 200).toFixed(1)} ms a chord here)`,
  );
  if (!browser) return;
  await trace("a weight of the voicing path dragged, 64 bars", longSong(), "voicings", {
    prepare: async (page) => {
      await page.locator("[data-chord]").first().waitFor();
      await page.locator(".weights input").first().waitFor();
      await page.waitForTimeout(4000);
    },
    act: async (page) => {
      for (let i = 0; i <= 12; i++) {
        await page.evaluate(
          (v) => {
            const slider = document.querySelector<HTMLInputElement>(".weights input")!;
            Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value")!.set!.call(slider, String(v));
            slider.dispatchEvent(new Event("input", { bubbles: true }));
          },
          (i % 12) * 0.25,
        );
        await page.waitForTimeout(150);
      }
      await page.waitForTimeout(2500);
    },
  });
}
