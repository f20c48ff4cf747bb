import { memo } from "react";
import { Check, Comp, Meter, nth, Slice, sure, Voicing } from "../../core/src/index";
import type { SectionData } from "../app/store/sectionData";
import type { Axis, Window } from "./axis";
import { DOTS_BELOW } from "./layout";

interface Props {
  data: SectionData;
  part: string;
  axis: Axis;
  y(midi: number): number;
  window: Window;
}

const PARALLELS = sure(Check.RULES.find((r) => r.id === "parallels"));

const REACH = 22;

/** Room left for threads at the end of a chord as wide as this, in pixels. */
export const threadReach = (width: number): number => Math.min(REACH, width * 0.4);

/**
 * The way of each voice from chord to chord: straight where it stays, dotted by step, dashed with its semitones where
 * it leaps, doubled and marked where it moves in a parallel fifth or octave.
 */
export const Threads = memo(function Threads({ data, part, axis, y, window }: Props) {
  const chords = Comp.voicedChords(data.section, part);
  const source = data.song.parts.find((p) => p.id === part);
  const joins = source?.link?.loop ?? false;
  // Counted as the cost of the layouts counts them, red where the school that judges calls them a fault.
  const counted = Voicing.countedBy(source?.playing.voicing?.school ?? "band");
  const fault = PARALLELS.severity[data.song.profile] === "fault" ? " fault" : "";
  // Words stand where there is room for them.
  const told = axis.scale * Meter.QUARTER >= DOTS_BELOW;
  const out = [];
  for (const [i, chord] of chords.entries()) {
    const last = i === chords.length - 1;
    const next = last && joins ? chords[0] : chords[i + 1];
    const end = chord.start + chord.duration;
    if (!next || (!last && next.start > end)) continue;
    const x = axis.x(end);
    if (x < window.from || x > window.to + REACH) continue;
    const reach = threadReach(chord.duration * axis.scale);
    for (const t of Slice.threads(
      chord.pitches.map((p) => p.midi),
      next.pitches.map((p) => p.midi),
      counted,
    )) {
      const [y1, y2] = [y(nth(chord.pitches, t.from).midi), y(nth(next.pitches, t.to).midi)];
      out.push(
        <g
          key={`${chord.id}.${t.from}.${t.to}`}
          className={`thread ${t.kind}${t.parallel ? ` parallel${fault}` : ""}${last ? " join" : ""}`}
        >
          <path d={`M${x - reach - 2},${y1} C${x - reach / 2},${y1} ${x - reach / 2},${y2} ${x},${y2}`} />
          {t.parallel && told && (
            <text x={x - reach / 2} y={(y1 + y2) / 2 - 3}>
              ∥{t.parallel === "fifth" ? "5" : "8"}
            </text>
          )}
          {t.kind === "leap" && !t.parallel && told && (
            <text x={x - reach / 2} y={(y1 + y2) / 2 - 3}>
              {t.semitones > 0 ? `+${t.semitones}` : `−${-t.semitones}`}
            </text>
          )}
        </g>,
      );
    }
  }
  return (
    <g className="threads" aria-hidden="true">
      {out}
    </g>
  );
});
