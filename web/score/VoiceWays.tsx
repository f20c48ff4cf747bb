import { memo } from "react";
import type { Finding, RealizedNote } from "../../core/src/index";
import { inSight, type Axis, type Window } from "./axis";
import type { Numbered } from "./findings";

interface Props {
  notes: readonly RealizedNote[];
  /** The findings about this part. */
  found: readonly Numbered[];
  axis: Axis;
  y(midi: number): number;
  window: Window;
}

/** From a note to the one after it, of a finding of so many degrees. */
interface Way {
  id: string;
  severity: Finding["severity"];
  from: RealizedNote;
  to: RealizedNote;
}

/** The moves of this part that make a finding of voices: the other voice is drawn in its own lane. */
function waysOf({ notes, found }: Pick<Props, "notes" | "found">): Way[] {
  const byId = new Map(notes.map((n) => [n.id, n]));
  const ways = new Map<string, Way>();
  for (const { family, severity, places } of found.map((f) => f.finding)) {
    if (family !== "voices") continue;
    for (const place of places) {
      const own = place.notes.flatMap((id) => byId.get(id) ?? []).sort((a, b) => a.start - b.start);
      for (const [i, to] of own.entries()) {
        const from = own[i - 1];
        const id = `${from?.id}-${to.id}`;
        if (from && from.start < to.start && !ways.has(id)) ways.set(id, { id, severity, from, to });
      }
    }
  }
  return [...ways.values()];
}

/** How a voice moves where two of them make a finding: a line from note to note, in the lane of each. */
export const VoiceWays = memo(function VoiceWays({ axis, y, window, ...about }: Props) {
  return (
    <g className="voice-ways" aria-hidden="true">
      {waysOf(about)
        .filter(({ from, to }) => inSight(axis, window, from.start, to.start))
        .map(({ id, severity, from, to }) => (
          <line
            key={id}
            className={severity}
            x1={axis.x(from.start)}
            y1={y(from.midi)}
            x2={axis.x(to.start)}
            y2={y(to.midi)}
          />
        ))}
    </g>
  );
});
