import { memo } from "react";
import type { RealizedNote } from "../../core/src/index";
import { inSight, type Axis, type Window } from "./axis";
import type { DrumData, LaneData } from "./laneData";
import { STRIP_HEIGHT } from "./layout";

const PAD = 5;
/** Width of a drum hit. */
const HIT = 3;

interface Seen {
  axis: Axis;
  window: Window;
}

/** A stroke from one place to another at one height. */
const stroke = (x1: number, x2: number, y: number): string => `M${x1.toFixed(1)},${y.toFixed(1)}H${x2.toFixed(1)}`;

function strokesOfNotes(notes: readonly RealizedNote[], { axis, window }: Seen): string {
  const midis = notes.map((n) => n.midi);
  const [low, high] = [Math.min(...midis), Math.max(...midis)];
  const y = (midi: number) =>
    high > low ? PAD + ((high - midi) / (high - low)) * (STRIP_HEIGHT - 2 * PAD) : STRIP_HEIGHT / 2;
  return notes
    .filter((n) => inSight(axis, window, n.start, n.start + n.duration))
    .map((n) => stroke(axis.x(n.start), axis.x(n.start + n.duration) - 1, y(n.midi)))
    .join("");
}

const strokesOfHits = (hits: DrumData["hits"], { axis, window }: Seen): string =>
  hits
    .filter((h) => inSight(axis, window, h.start, h.start))
    .map((h) => stroke(axis.x(h.start), axis.x(h.start) + HIT, STRIP_HEIGHT / 2))
    .join("");

/** A folded lane: where the part sounds, and how its pitches lie to each other, as one line. */
export const Strip = memo(function Strip({ data, ...seen }: { data: LaneData | DrumData } & Seen) {
  return (
    <svg className="lane-svg" width={seen.axis.width} height={STRIP_HEIGHT} aria-hidden="true">
      <path
        className="strip"
        d={"hits" in data ? strokesOfHits(data.hits, seen) : strokesOfNotes(data.part.notes, seen)}
      />
    </svg>
  );
});
