import { BASS_STYLES, mod } from "../src/index";
import { bassContext, figures } from "../src/bass/context";
import { choosePitches, pitchSlots, type PitchSlot } from "../src/bass/pitches";
import { must } from "../src/index";
import { songWith } from "./helpers";

const style = BASS_STYLES.find((s) => s.id === "root-fifth-octave")!;

/** The interval cost as the style defines it, written out again. */
function step(from: PitchSlot["candidates"][number], to: PitchSlot["candidates"][number]): number {
  const d = Math.abs(to.midi - from.midi);
  if (!from.inChord && (d < 1 || d > 2 || !to.inChord)) return Infinity;
  if (d === 0) return style.taste.repeat;
  if (d <= 2) return 0;
  if (d === 12) return 0.5;
  if (d > 12) return 2 + d * 0.2;
  return d * 0.09 + (d === 6 || d >= 10 ? 0.8 : 0);
}

/** Cheapest looping line whose figures keep to the limit, by trying all of them. */
function brute(slots: PitchSlot[], spans: { from: number; to: number }[], limit: number): number {
  let best = Infinity;
  const walk = (picks: PitchSlot["candidates"], cost: number): void => {
    if (cost >= best) return;
    if (picks.length === slots.length) {
      const total = cost + step(picks.at(-1)!, picks[0]!);
      const fits = spans.every(
        (f) =>
          new Set(picks.filter((_, i) => slots[i]!.start >= f.from && slots[i]!.start < f.to).map((c) => mod(c.midi, 12))).size <= limit,
      );
      if (fits) best = Math.min(best, total);
      return;
    }
    for (const c of slots[picks.length]!.candidates) walk([...picks, c], cost + c.cost + (picks.length ? step(picks.at(-1)!, c) : 0));
  };
  walk([], 0);
  return best;
}

test.each([4, 2, 1])("the search for at most %i pitch classes a figure equals brute force on short lines", (limit) => {
  const song = songWith({ key: "C major", line: "| Am7 | F |", kicks: [[0, 100]] });
  const narrow = { ...song, parts: song.parts.map((p) => (p.id === "bass" ? { ...p, range: ["E1", "A2"] as [string, string] } : p)) };
  const ctx = must(bassContext(narrow, "s1", "bass"));
  const slots = pitchSlots(ctx, style, [
    { start: 0, duration: 480, use: "anchor" },
    { start: 960, duration: 480, use: "octave" },
    { start: 1680, duration: 240, use: "approach" },
    { start: 1920, duration: 480, use: "anchor" },
    { start: 2880, duration: 480, use: "hook" },
  ]);
  const limited = { ...style, targets: { ...style.targets, pitchClasses: limit } };
  const found = choosePitches(ctx, limited, slots)!;
  const best = brute(slots, figures(ctx), limit);
  if (best < Infinity) {
    expect(found.over).toEqual([]);
    expect(found.path.cost).toBeCloseTo(best, 9);
  } else expect(found.over[0]!.count).toBeGreaterThan(limit);
});
