import { memo, useRef, useState, type PointerEvent } from "react";
import { Meter, Pitch, sure } from "../../core/src/index";
import { usePlayback } from "../app/store/playback";
import { useResults } from "../app/store/results";
import type { RowData } from "./rowData";
import { usePass } from "../app/store/song";
import { ownText } from "../kit/texts";
import { barsInSight, inSight, type Axis, type Window } from "./axis";
import { showsBeats } from "./LaneBack";

/** Pixels the mouse may move before a press in the ruler drags a loop. */
const SLACK = 5;
/** Least pixels from one number to the next. */
const NUMBER = 26;
/** Every how many bars are numbered: one, two, four …, so that no number touches the next. */
const numbered = (width: number): number => 2 ** Math.max(0, Math.ceil(Math.log2(NUMBER / width)));
/** Least width of the mark of a finding. */
const LEAST_MARK = 6;

/** Bar numbers and beats. A click sets where playing begins; a drag loops the bars it goes over. */
export const Ruler = memo(function Ruler({ data, axis, window }: { data: RowData; axis: Axis; window: Window }) {
  const loop = usePlayback((s) => s.loop);
  const from = usePlayback((s) => s.from);
  const ruler = useRef<HTMLDivElement>(null);
  const [drag, setDrag] = useState<{ x: number; looping: boolean } | null>(null);
  const { bar } = data.meter;
  const every = numbered(bar * axis.scale);
  const tickAt = (clientX: number) => {
    const tick = axis.tick(clientX - sure(ruler.current).getBoundingClientRect().left);
    return Math.min(data.length - 1, Math.max(0, tick));
  };
  const onMove = (e: PointerEvent) => {
    if (!drag || (!drag.looping && Math.abs(e.clientX - drag.x) < SLACK)) return;
    const first = Math.floor(tickAt(drag.x) / bar);
    const last = Math.floor(tickAt(e.clientX) / bar);
    const [a, b] = [Math.min(first, last), Math.max(first, last) + 1];
    usePlayback.setState({ loop: { on: true, from: a * bar, to: b * bar }, from: null });
    if (!drag.looping) setDrag({ ...drag, looping: true });
  };
  const onUp = (e: PointerEvent) => {
    if (drag && !drag.looping) {
      const beat = sure(data.meter.beats.findLast((b) => b.start <= tickAt(e.clientX) % bar));
      usePlayback.setState({ from: Math.floor(tickAt(e.clientX) / bar) * bar + beat.start });
    }
    setDrag(null);
  };
  return (
    <div
      ref={ruler}
      className="ruler"
      style={{ width: axis.width }}
      title="Click: play from there. Drag over bars: loop them"
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        setDrag({ x: e.clientX, looping: false });
      }}
      onPointerMove={onMove}
      onPointerUp={onUp}
      onPointerCancel={() => setDrag(null)}
    >
      {loop && (
        <div
          className={`loop-range${loop.on ? "" : " off"}`}
          style={{ left: axis.x(loop.from), width: (loop.to - loop.from) * axis.scale }}
        />
      )}
      {barsInSight(axis, window, data.section.bars, data.meter).map((b) => (
        <div key={b} className="bar-number" style={{ left: axis.x(b * bar), width: bar * axis.scale }}>
          {b % every === 0 && b + 1}
          {showsBeats(axis) &&
            data.meter.beats.slice(1).map((beat, i) => (
              <span key={beat.start} style={{ left: beat.start * axis.scale }}>
                {i + 2}
              </span>
            ))}
        </div>
      ))}
      <FoundMarks data={data} axis={axis} window={window} />
      <OwnBars data={data} axis={axis} />
      {from !== null && (
        <div
          className="play-from"
          style={{ left: axis.x(from) }}
          title={`Play from ${Meter.position(data.meter, from)}`}
          aria-hidden="true"
        />
      )}
    </div>
  );
});

/** The bars that the pass in view has for itself. */
function OwnBars({ data, axis }: { data: RowData; axis: Axis }) {
  const pass = usePass();
  if (pass?.sectionId !== data.section.id) return null;
  return pass.own?.map((own) => (
    <div
      key={own.bars[0]}
      className="own-bars"
      style={{
        left: axis.x(own.bars[0] * data.meter.bar),
        width: (own.bars[1] - own.bars[0]) * data.meter.bar * axis.scale,
      }}
      title={`Of this pass alone: ${ownText(data.song, own)}`}
    />
  ));
}

/** Where something was found, under the numbers of the bars. */
function FoundMarks({ data, axis, window }: { data: RowData; axis: Axis; window: Window }) {
  const findings = useResults((s) => s.findings);
  return findings
    .filter((f) => f.waived === undefined && f.where.section === data.section.id)
    .flatMap((f) => f.places.map((place) => ({ ...place, severity: f.severity })))
    .filter(({ tick, duration }) => inSight(axis, window, tick, tick + duration))
    .map((p) => (
      <div
        key={p.id}
        className={`found ${p.severity}`}
        style={{ left: axis.x(Math.max(0, p.tick)), width: Math.max(LEAST_MARK, p.duration * axis.scale) }}
        title={Pitch.typesetAll(p.message)}
      />
    ));
}
