import { pitchMidi } from "../theory/pitch/pitch";
import { QUARTER, type Ticks } from "../theory/time/meter";
import { CLOSING } from "../theory/instrument/drums";
import { atVelocity, louderBy, playedAt, type Frame } from "./frame";
import type { RealizedHit } from "./realized";
import type { Hit, Lane, Song } from "./schema";

/** An open hat that nothing closes rings for a beat. */
const OPEN_HAT: Ticks = QUARTER;

/** Drum hits of a place, in order; none where the pass mutes the drums. */
export function realizedHits(song: Song, frame: Frame): RealizedHit[] {
  const drums = song.parts.find((p) => p.role === "drums");
  const { section, pass } = frame;
  if (!drums || pass?.muted?.includes(drums.id)) return [];
  const { lanes } = section.groove;
  const late = drums.offset ?? 0;
  const louder = louderBy(drums, frame);
  const closing = lanes
    .filter((l) => CLOSING.includes(l.drum))
    .flatMap((l) => l.hits.map((h) => h.start))
    .sort((a, b) => a - b);
  const out: RealizedHit[] = [];
  for (const lane of lanes) {
    const played = playedAt(frame, lane.swing === undefined ? frame.swing : { ...frame.swing, ratio: lane.swing });
    for (const hit of lane.hits)
      if (hit.start >= frame.from && hit.start < frame.to)
        out.push(
          realizedHit(
            frame,
            lane,
            { ...hit, velocity: atVelocity(hit.velocity, louder) },
            { closing, played: played(hit.start - frame.from) + late },
          ),
        );
  }
  return out.sort((a, b) => a.start - b.start);
}

function realizedHit(
  frame: Frame,
  lane: Lane,
  hit: Hit,
  { closing, played }: { closing: readonly Ticks[]; played: number },
): RealizedHit {
  const { from, semitones } = frame;
  // An open hat rings until it is closed.
  const closed = lane.drum === "openHat" ? closing.find((c) => c > hit.start) : undefined;
  const length = closed === undefined ? hit.duration : Math.min(hit.duration ?? OPEN_HAT, closed - hit.start);
  return {
    drum: lane.drum,
    pass: frame.passId,
    start: hit.start - from,
    velocity: hit.velocity,
    played: played + (hit.offset ?? 0) + (lane.offset ?? 0),
    inSection: hit.start,
    ...(length ? { duration: length } : {}),
    ...(hit.pitch && lane.tuned ? { midi: pitchMidi(hit.pitch) + semitones } : {}),
    ...(hit.pitch && hit.glideTo && lane.tuned ? { glideTo: pitchMidi(hit.glideTo) + semitones } : {}),
    ...(lane.note !== undefined ? { note: lane.note } : {}),
  };
}
