import { memo, useRef, useState, type KeyboardEvent, type PointerEvent } from "react";
import { DRUM_KINDS, DRUMS, positionText, typeset, type Drum, type Section, type Ticks } from "../../core/src/index";
import { useSong } from "../store/song";
import { useView } from "../store/view";
import type { Axis, ScoreData } from "./data";
import { floorTick } from "./geometry";
import { HEAD } from "./NoteMark";

/** Lanes that are always drawn; others when they are used or were added. */
const USUAL: readonly Drum[] = ["kick", "snare", "clap", "closedHat", "openHat"];

/** The rows of the grid, top to bottom: hats above, kick at the foot, under the bass. */
export const rowsOf = (section: Section): Drum[] =>
  DRUMS.filter((d) => USUAL.includes(d) || section.groove.lanes.some((l) => l.drum === d)).reverse();

/** What a lane is called. */
export const drumName = (section: Section, drum: Drum): string =>
  section.groove.lanes.find((l) => l.drum === drum)?.name ?? DRUM_KINDS[drum].title;

export const ROW = 17;

interface Drag {
  row: number;
  start: Ticks;
  y: number;
  x: number;
  mode: "paint" | "erase" | "velocity" | "press" | "offset";
  velocity: number;
  first: boolean;
}

/** The drum grid: click or drag to paint, click a hit to take it away, drag a hit up or down for its loudness. */
export const DrumLane = memo(function DrumLane({ data, axis, from, to }: { data: ScoreData; axis: Axis; from: number; to: number }) {
  const edit = useSong((s) => s.edit);
  const preview = useView((s) => s.preview);
  const STEP = useView((s) => s.drumGrid);
  const svg = useRef<SVGSVGElement>(null);
  const [drag, setDrag] = useState<Drag | null>(null);
  const [cursor, setCursor] = useState<{ row: number; start: Ticks } | null>(null);
  const rows = rowsOf(data.section);
  const height = rows.length * ROW;
  // Read from the song as it is stored now: the drawn one may be a frame behind a fast hand.
  const stored = () => useSong.getState().song?.sections.find((s) => s.id === data.section.id) ?? data.section;
  const hitsOf = (row: number) => stored().groove.lanes.find((l) => l.drum === rows[row])?.hits ?? [];
  const hit = (row: number, start: Ticks) => hitsOf(row).find((h) => h.start === start);
  const mains = new Set(data.kicks.filter((k) => k.main).map((k) => k.start));
  const put = (row: number, start: Ticks, velocity: number | null, quiet: boolean) =>
    edit({ do: "setHit", section: data.section.id, drum: rows[row]!, start, velocity }, { quiet });
  const usual = (row: number, start: Ticks) => DRUM_KINDS[rows[row]!].velocity[start % 480 === 0 ? 0 : 1];

  const place = (e: PointerEvent) => {
    const box = svg.current!.getBoundingClientRect();
    const px = e.clientX - box.left;
    const py = e.clientY - box.top;
    const row = Math.min(rows.length - 1, Math.max(0, Math.floor(py / ROW)));
    // A hit stands at the left edge of its step; half a head of tolerance to its left.
    const start = floorTick(axis.tick(px - 1), STEP);
    // A hit that stands between the steps of this grid is met where it is drawn.
    const drawn = hitsOf(row).find((h) => Math.abs(axis.x(h.start + (h.offset ?? 0)) + HEAD - px) < 6);
    return { row, start: drawn?.start ?? start, y: py, x: px };
  };
  /** Marks a kick as a main accent, or takes the mark away; from then on the marks count, not the rule. */
  const toggleAccent = (start: Ticks) =>
    edit({
      do: "setAccents",
      section: data.section.id,
      accents: mains.has(start) ? [...mains].filter((m) => m !== start) : [...mains, start],
    });
  const onDown = (e: PointerEvent) => {
    if (e.button !== 0 || preview) return;
    const at = place(e);
    if (at.start < 0 || at.start >= data.length) return;
    svg.current!.setPointerCapture(e.pointerId);
    setCursor(at);
    const existing = hit(at.row, at.start);
    if (existing && e.shiftKey && rows[at.row] === "kick") toggleAccent(at.start);
    else if (existing && e.altKey) setDrag({ ...at, mode: "offset", velocity: existing.offset ?? 0, first: true });
    else if (existing) setDrag({ ...at, mode: "press", velocity: existing.velocity, first: true });
    else {
      put(at.row, at.start, usual(at.row, at.start), false);
      setDrag({ ...at, mode: "paint", velocity: 0, first: false });
    }
  };
  const onMove = (e: PointerEvent) => {
    if (!drag) return;
    const at = place(e);
    if (drag.mode === "offset") {
      const offset = Math.round(Math.max(-STEP / 2, Math.min(STEP / 2, drag.velocity + (at.x - drag.x) / axis.scale)));
      edit(
        { do: "changeHit", section: data.section.id, drum: rows[drag.row]!, start: drag.start, change: { offset: offset || null } },
        { quiet: !drag.first },
      );
      if (drag.first) setDrag({ ...drag, first: false });
    } else if (drag.mode === "press" || drag.mode === "velocity") {
      const dy = drag.y - at.y;
      if (drag.mode === "press" && at.start !== drag.start && Math.abs(dy) < 6) {
        put(drag.row, drag.start, null, false);
        setDrag({ ...drag, mode: "erase", first: false });
        return;
      }
      if (drag.mode === "press" && Math.abs(dy) < 4) return;
      put(drag.row, drag.start, Math.min(127, Math.max(1, drag.velocity + Math.round(dy * 1.5))), !drag.first);
      setDrag({ ...drag, mode: "velocity", first: false });
    } else if (at.start >= 0 && at.start < data.length && (drag.mode === "paint") !== (hit(drag.row, at.start) !== undefined))
      put(drag.row, at.start, drag.mode === "paint" ? usual(drag.row, at.start) : null, true);
  };
  const onUp = () => {
    if (drag?.mode === "press") put(drag.row, drag.start, null, false);
    setDrag(null);
  };
  const onKey = (e: KeyboardEvent) => {
    const at = cursor ?? { row: rows.length - 1, start: 0 };
    const step = e.shiftKey ? data.meter.beats[0]!.duration : STEP;
    const found = hit(at.row, at.start);
    if (e.key === "ArrowLeft") setCursor({ ...at, start: Math.max(0, at.start - step) });
    else if (e.key === "ArrowRight") setCursor({ ...at, start: Math.min(data.length - STEP, at.start + step) });
    else if (e.key === "ArrowUp" && !e.altKey) setCursor({ ...at, row: Math.max(0, at.row - 1) });
    else if (e.key === "ArrowDown" && !e.altKey) setCursor({ ...at, row: Math.min(rows.length - 1, at.row + 1) });
    else if (e.key === "." && found && rows[at.row] === "kick") toggleAccent(at.start);
    else if (e.key === "Enter") put(at.row, at.start, found ? null : usual(at.row, at.start), false);
    else if ((e.key === "Delete" || e.key === "Backspace") && found) put(at.row, at.start, null, false);
    else if ((e.key === "+" || e.key === "-" || (e.altKey && e.key.startsWith("Arrow"))) && found)
      put(at.row, at.start, Math.min(127, Math.max(1, found.velocity + (e.key === "+" || e.key === "ArrowUp" ? 8 : -8))), false);
    else return;
    e.preventDefault();
    e.stopPropagation();
  };
  const here = cursor && hit(cursor.row, cursor.start);
  const label = cursor
    ? `${drumName(data.section, rows[cursor.row]!)}, ${positionText(data.meter, cursor.start)}, ${here ? `velocity ${here.velocity}${rows[cursor.row] === "kick" && mains.has(cursor.start) ? ", main accent" : ""}` : "empty"}`
    : "arrow keys move, Enter sets a hit";
  const bars = Array.from({ length: data.section.bars }, (_, b) => b).filter(
    (b) => axis.x((b + 1) * data.meter.bar) >= from && axis.x(b * data.meter.bar) <= to,
  );

  return (
    <svg
      ref={svg}
      className="lane-svg drums editable"
      width={axis.width}
      height={height}
      role="application"
      aria-label={`Drums: ${label}`}
      tabIndex={0}
      onPointerDown={onDown}
      onPointerMove={onMove}
      onPointerUp={onUp}
      onPointerCancel={onUp}
      onKeyDown={onKey}
      onFocus={() => cursor || setCursor({ row: rows.length - 1, start: 0 })}
    >
      {bars.flatMap((b) =>
        Array.from({ length: data.meter.bar / STEP }, (_, i) => {
          const tick = b * data.meter.bar + i * STEP;
          const onBeat = data.meter.beats.some((x) => x.start === i * STEP);
          return (
            <line
              key={tick}
              className={i === 0 ? "bar-line" : onBeat ? "beat-line" : "step-line"}
              x1={axis.x(tick)}
              x2={axis.x(tick)}
              y1={0}
              y2={height}
            />
          );
        }),
      )}
      {rows.map((drum, row) => (
        <g key={drum} className={`row ${drum}`}>
          <line className="row-line" x1={axis.x(0)} x2={axis.x(data.length)} y1={row * ROW + ROW / 2} y2={row * ROW + ROW / 2} />
          {data.section.groove.lanes
            .find((l) => l.drum === drum)
            ?.hits.filter((h) => h.start < data.length && axis.x(h.start) >= from - 20 && axis.x(h.start) <= to)
            .map((h) => {
              const r = 2.6 + (h.velocity / 127) * 5;
              const x = axis.x(h.start + (h.offset ?? 0)) + HEAD;
              const y = row * ROW + ROW / 2;
              const main = drum === "kick" && mains.has(h.start);
              return (
                <path
                  key={h.start}
                  className={`hit${main ? " main" : ""}`}
                  data-hit={`${drum}@${h.start}`}
                  d={`M${x},${y - r} L${x + r * 0.8},${y} L${x},${y + r} L${x - r * 0.8},${y} Z`}
                >
                  <title>{`${drumName(data.section, drum)}, ${positionText(data.meter, h.start)}, velocity ${h.velocity}${h.offset ? `, ${h.offset > 0 ? "late" : "early"}` : ""}${h.pitch ? `, ${typeset(h.pitch)}` : ""}`}</title>
                </path>
              );
            })}
        </g>
      ))}
      {!data.real.hits.length && (
        <text className="invite" x={axis.x(0) + 10} y={(rows.length - 0.5) * ROW}>
          Click in this row to paint a kick
        </text>
      )}
      {cursor && (
        <rect className="cursor" x={axis.x(cursor.start) + HEAD - 8} y={cursor.row * ROW + 0.5} width={16} height={ROW - 1} rx={3} />
      )}
    </svg>
  );
});
