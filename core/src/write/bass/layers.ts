import { firstOf } from "../../base/list";
import { fail, ok, type Result } from "../../base/result";
import { mod, type Midi } from "../../theory/pitch/pitch";
import { positionText, type Ticks } from "../../theory/time/meter";
import { sectionMeter, sectionOf } from "../../song/document";
import { DRUM_KINDS, type Drum } from "../../theory/instrument/drums";
import { drumPlayer, type PlayerId } from "../../song/players";
import { realize, type RealizedNote, type RealizedSong } from "../../song/realize";
import type { Song } from "../../song/schema";

/** Below E2 (82 Hz) two full voices at once blur into one boom (common practice). */
export const LOW: Midi = 40;
/** A note this short does not fill the low octave. */
const FULL: Ticks = 240;

/** A player of bass notes: a bass part, or a tuned low drum. */
export interface BassLayer {
  id: PlayerId;
  name: string;
  kind: "part" | "drum";
  notes: Pick<RealizedNote, "id" | "start" | "duration" | "midi" | "pitch">[];
}

export type LayerProblem = {
  kind: "pitch" | "rhythm" | "low";
  tick: Ticks;
  duration: Ticks;
  /** The two layers, and their notes. */
  layers: [PlayerId, PlayerId];
  notes: [string, string];
  message: string;
};

export interface BassLayers {
  layers: BassLayer[];
  /** Who plays in each bar, by id. */
  bars: string[][];
  /** How the layers stand to each other: alone, taking turns, one voice in several sounds, or neither. */
  kind: "alone" | "turns" | "voice" | "mixed";
  problems: LayerProblem[];
}

/** The layers of a realized section: bass parts, and drums that are tuned. */
export function layersOf(real: RealizedSong): BassLayer[] {
  const parts: BassLayer[] = real.parts
    .filter((p) => p.role === "bass" && p.notes.length)
    .map((p) => ({ id: p.id, name: p.name, kind: "part", notes: p.notes }));
  const drums = new Map<Drum, BassLayer>();
  for (const hit of real.hits) {
    if (hit.midi === undefined || hit.midi >= 60) continue;
    const layer = drums.get(hit.drum) ?? {
      id: drumPlayer(hit.drum),
      name: `tuned ${DRUM_KINDS[hit.drum].title}`,
      kind: "drum",
      notes: [],
    };
    layer.notes.push({
      id: `${hit.drum}@${hit.start}`,
      start: hit.start,
      duration: hit.duration ?? FULL,
      midi: hit.midi,
      pitch: "",
    });
    drums.set(hit.drum, layer);
  }
  return [...parts, ...drums.values()];
}

/** Attacks nearer than this are one (a thirty-second). */
const TOGETHER: Ticks = 60;

/** How two notes of two layers that sound together for a while disagree; null where they do not. */
function problemOf(
  [a, b]: readonly [BassLayer, BassLayer],
  [x, y]: readonly [BassLayer["notes"][number], BassLayer["notes"][number]],
  overlap: Ticks,
): { kind: LayerProblem["kind"]; what: string; low?: string } | null {
  const low = x.midi < LOW && y.midi < LOW && overlap >= FULL;
  if (mod(x.midi - y.midi, 12) !== 0)
    return { kind: "pitch", what: "play different notes", ...(low ? { low: ", both in the low octave" } : {}) };
  if (Math.abs(x.start - y.start) < TOGETHER) return low ? { kind: "low", what: "both fill the low octave" } : null;
  const alone = (layer: BassLayer, start: Ticks) => layer.notes.every((n) => Math.abs(n.start - start) >= TOGETHER);
  if (alone(b, x.start) || alone(a, y.start)) return { kind: "rhythm", what: "begin the same note at different times" };
  return null;
}

/**
 * Who plays where, and where layers get in each other's way: at the same time with different pitch classes, with
 * attacks that miss each other, or both full below E2. Errors: `bass.section`.
 */
export function bassLayers(song: Song, sectionId: string): Result<BassLayers> {
  const section = sectionOf(song, sectionId);
  if (!section) return fail("bass.section", `No section has the id "${sectionId}"`);
  return ok(judgeLayers(realize(song, { section: sectionId }), sectionMeter(song, section).bar, section.bars));
}

export function judgeLayers(real: RealizedSong, bar: Ticks, bars: number): BassLayers {
  const layers = layersOf(real);
  const who = Array.from({ length: bars }, (_, b) =>
    layers
      .filter((l) => l.notes.some((n) => n.start < (b + 1) * bar && n.start + n.duration > b * bar))
      .map((l) => l.id),
  );
  const problems: LayerProblem[] = [];
  const { meter } = firstOf(real.sections);
  let together = 0;
  let agreed = 0;
  layers.forEach((a, i) =>
    layers.slice(i + 1).forEach((b) => {
      for (const x of a.notes)
        for (const y of b.notes) {
          const from = Math.max(x.start, y.start);
          const overlap = Math.min(x.start + x.duration, y.start + y.duration) - from;
          if (overlap < TOGETHER) continue;
          together++;
          const said = problemOf([a, b], [x, y], overlap);
          if (said)
            problems.push({
              tick: from,
              duration: overlap,
              layers: [a.id, b.id],
              notes: [x.id, y.id],
              kind: said.kind,
              message: `${a.name} and ${b.name} ${said.what} at ${positionText(meter, from)}${said.low ?? ""}.`,
            });
          else agreed++;
        }
    }),
  );
  let kind: "voice" | "alone" | "turns" | "mixed";
  if (layers.length < 2) kind = "alone";
  else if (together === 0) kind = "turns";
  else if (agreed === together) kind = "voice";
  else kind = "mixed";
  return { layers, bars: who, kind, problems };
}
