import { memo } from "react";
import { Check, Comp, Meter, nth, Slice, sure, Voicing } from "../../core/src/index";
import type { Axis, Window } from "./axis";
import type { LaneData } from "./laneData";
import { DOTS_BELOW } from "./layout";

interface Props {
  source: LaneData["source"];
  events: LaneData["events"];
  profile: LaneData["profile"];
  axis: Axis;
  y(midi: number): number;
  window: Window;
}

const PARALLELS = sure(Check.RULES.find((r) => r.id === "parallels"));

const REACH = 22;

/** Room left for threads at the end of a chord as wide as this, in pixels. */
export const threadReach = (width: number): number => Math.min(REACH, width * 0.4);

type Thread = ReturnType<typeof Slice.threads>[number];

/** What is written beside a thread: the interval that is kept, or the semitones of a leap. */
function wordsOf({ parallel, kind, semitones }: Thread): string {
  if (parallel) return `∥${parallel === "fifth" ? "5" : "8"}`;
  if (kind !== "leap") return "";
  return semitones > 0 ? `+${semitones}` : `−${-semitones}`;
}

/** One voice from a chord to the next one, whose beginning is at x. */
function ThreadMark({
  thread,
  x,
  reach,
  ends: [y1, y2],
  classes,
  told,
}: {
  thread: Thread;
  x: number;
  reach: number;
  ends: readonly [number, number];
  classes: string;
  told: boolean;
}) {
  const words = told ? wordsOf(thread) : "";
  return (
    <g className={classes}>
      <path d={`M${x - reach - 2},${y1} C${x - reach / 2},${y1} ${x - reach / 2},${y2} ${x},${y2}`} />
      {words && (
        <text x={x - reach / 2} y={(y1 + y2) / 2 - 3}>
          {words}
        </text>
      )}
    </g>
  );
}

/**
 * The way of each voice from chord to chord: straight where it stays, dotted by step, dashed with its semitones where
 * it leaps, doubled and marked where it moves in a parallel fifth or octave.
 */
export const Threads = memo(function Threads({ source, events, profile, axis, y, window }: Props) {
  const chords = Comp.voicedChords({ chords: events }, Comp.voices(source));
  // Counted as the cost of the layouts counts them, red where the school that judges calls them a fault.
  const counted = Voicing.countedBy(source.playing.voicing?.school ?? "band");
  const fault = PARALLELS.severity[profile] === "fault" ? " fault" : "";
  // Words stand where there is room for them.
  const told = axis.scale * Meter.QUARTER >= DOTS_BELOW;
  const joins = chords.flatMap((chord, i) => {
    const last = i === chords.length - 1;
    const next = last && source.link?.loop ? chords[0] : chords[i + 1];
    const end = chord.start + chord.duration;
    const x = axis.x(end);
    const apart = !next || (!last && next.start > end);
    return apart || x < window.from || x > window.to + REACH ? [] : [{ chord, next, last, x }];
  });
  return (
    <g className="threads" aria-hidden="true">
      {joins.map(({ chord, next, last, x }) =>
        Slice.threads(
          chord.pitches.map((p) => p.midi),
          next.pitches.map((p) => p.midi),
          counted,
        ).map((t) => (
          <ThreadMark
            key={`${chord.id}.${t.from}.${t.to}`}
            thread={t}
            x={x}
            reach={threadReach(chord.duration * axis.scale)}
            ends={[y(nth(chord.pitches, t.from).midi), y(nth(next.pitches, t.to).midi)]}
            classes={`thread ${t.kind}${t.parallel ? ` parallel${fault}` : ""}${last ? " join" : ""}`}
            told={told}
          />
        )),
      )}
    </g>
  );
});
