import { firstOf, lastOf, nth, sure } from "../../src/base/list";
import { BASS_STYLES } from "../../src/write/bass/styles";
import { bassRequest } from "../../src/write/bass/write";
import { factsOf } from "../../src/facts/memory";
import { mod } from "../../src/theory/pitch/pitch";
import { must } from "../../src/base/result";
import { figures } from "../../src/write/bass/context";
import { choosePitches, bassStep } from "../../src/write/bass/choose";
import { pitchSlots, type PitchSlot } from "../../src/write/bass/pitches";
import type { Slot } from "../../src/write/bass/style";
import { songWith } from "../helpers";

/** Cheapest looping line whose figures keep to the limit, by trying all of them. */
function brute(
  slots: PitchSlot[],
  step: (a: PitchSlot["candidates"][number], b: PitchSlot["candidates"][number], to: Slot) => number,
  spans: { from: number; to: number }[],
  limit: number,
): number {
  let best = Infinity;
  const walk = (picks: PitchSlot["candidates"], cost: number): void => {
    // Costs of a step can be a little below nothing: an octave that is liked.
    if (cost - 0.4 * slots.length >= best) return;
    if (picks.length === slots.length) {
      const total = cost + step(lastOf(picks), firstOf(picks), firstOf(slots));
      const fits = spans.every(
        (f) =>
          new Set(
            picks
              .filter((_, i) => nth(slots, i).start >= f.from && nth(slots, i).start < f.to)
              .map((c) => mod(c.midi, 12)),
          ).size <= limit,
      );
      if (fits) best = Math.min(best, total);
      return;
    }
    const to = nth(slots, picks.length);
    for (const c of to.candidates) {
      const next = cost + c.cost + (picks.length ? step(lastOf(picks), c, to) : 0);
      if (next < Infinity) walk([...picks, c], next);
    }
  };
  walk([], 0);
  return best;
}

const SHORT: Slot[] = [
  { start: 0, duration: 480, use: "anchor" },
  { start: 960, duration: 480, use: "octave" },
  { start: 1680, duration: 240, use: "approach" },
  { start: 1920, duration: 480, use: "anchor" },
  { start: 2880, duration: 480, use: "scale" },
];

test.each(
  BASS_STYLES.filter((s) => !s.pedals).flatMap((s) => [4, 2, 1].map((limit): [string, number] => [s.id, limit])),
)("%s with at most %i pitch classes a figure equals brute force on short lines", (id, limit) => {
  const song = songWith({ key: "C major", line: "| Am7 | F |", kicks: [[0, 100]] });
  const narrow = {
    ...song,
    parts: song.parts.map((p) => (p.id === "bass" ? { ...p, range: ["E1", "G2"] as [string, string] } : p)),
  };
  const { ctx, style } = must(
    bassRequest(factsOf(narrow), { section: "s1", part: "bass", style: id, settings: { pitches: limit } }),
  );
  const slots = pitchSlots(ctx, style, SHORT);
  const found = sure(choosePitches(ctx, style, slots));
  const best = brute(
    slots,
    (a, b, to) => bassStep(style, ctx.settings.octaves, a, { to: b, lifts: to.use === "octave" }),
    figures(ctx),
    limit,
  );
  if (best < Infinity) {
    expect(found.over).toEqual([]);
    expect(found.path.cost).toBeCloseTo(best, 9);
  } else expect(firstOf(found.over).count).toBeGreaterThan(limit);
});
