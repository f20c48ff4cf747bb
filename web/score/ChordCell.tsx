import { memo, useRef, type MouseEvent, type PointerEvent } from "react";
import {
  type ChordAnalysis,
  type ChordEvent,
  Harmony,
  Meter,
  Pitch,
  type Shape,
  sure,
  type Ticks,
} from "../../core/src/index";
import { usePreferences } from "../app/store/preferences";
import { edit } from "../app/store/song";
import { ChordName } from "../kit/ChordName";
import { FretDiagram } from "../kit/FretDiagram";
import type { Axis } from "./axis";
import { chooseInRow, chordKey } from "./chordKeys";
import { symbolFits, symbolSize } from "./geometry";
import { Button } from "../kit/Button";

/** Pixels a chord must be wide for its shape, and for its sounding name. */
const SHAPED = 92;
const SOUNDING = 76;

interface Props {
  event: ChordEvent;
  section: string;
  meter: Meter;
  width: number;
  chosen: boolean;
  focusable: boolean;
  analysis: ChordAnalysis | undefined;
  sounding: string | undefined;
  shape: Shape | undefined;
  layoutPinned: boolean;
  focus(id: string): void;
  rename(id: string, symbol: string): void;
}

/** What a chord is in its key; a pivot in both. */
const numeralOf = ({ pivot, roman }: ChordAnalysis): string => (pivot ? `${pivot} = ${roman}` : roman);

const meaningOf = (found: ChordAnalysis | undefined): string =>
  found ? `: ${Pitch.typeset(numeralOf(found))}, ${Harmony.categoryTitle(found.category)}. ${found.explanation}` : "";

/** A numeral where there is room for it: it is not cut to another one either. */
function Numeral({ text, foreign, width }: { text: string; foreign: boolean; width: number }) {
  if (text.length * NUMERAL + PADDING > width) return null;
  return <b className={foreign ? "roman foreign" : "roman"}>{Pitch.typeset(text)}</b>;
}

const Doubt = () => (
  <i className="doubt" aria-label="not sure">
    ?
  </i>
);

const Pins = ({ name, layout }: { name: boolean; layout: boolean }) => (
  <>
    {name && (
      <i className="pin-mark" aria-label="pinned">
        pin
      </i>
    )}
    {layout && <i className="pin-dot" aria-label="voicing pinned" />}
  </>
);

/** What a chord sounds like with the bass, where that is not what is written. */
const Sounding = ({ name, written }: { name: string | undefined; written: string }) =>
  name && name !== written ? <span className="sounding">{Pitch.typeset(name)}</span> : null;

/** A chord above the lanes: its symbol, what it is in the key, and what it sounds like with the bass. */
export const ChordCell = memo(function ChordCell({ event, analysis, width, meter, sounding, shape, ...rest }: Props) {
  const { section, chosen, focusable, layoutPinned, focus } = rest;
  const rename = () => rest.rename(event.id, event.symbol);
  const found = analysis && analysis.category !== "none" && analysis.symbol === event.symbol ? analysis : undefined;
  const room = width - (shape && width > SHAPED ? FRETS : 0);
  return (
    <Button
      className={symbolFits(event.symbol, room) ? "" : "tight"}
      data-chord={event.id}
      tabIndex={focusable ? 0 : -1}
      aria-pressed={chosen}
      title={`${Pitch.typeset(event.symbol)}, ${Meter.position(meter, event.start)}${meaningOf(found)}`}
      onClick={(e: MouseEvent) => chooseInRow(section, event.id, e.shiftKey)}
      onDoubleClick={rename}
      onKeyDown={(e) => {
        if (!chordKey(e, { section, id: event.id, focus, rename })) return;
        e.preventDefault();
        e.stopPropagation();
      }}
    >
      <span className="symbol" style={symbolSize(event.symbol, room)}>
        <ChordName symbol={event.symbol} />
        {event.readings && <Doubt />}
      </span>
      <span className="under">
        {found && <Numeral text={numeralOf(found)} foreign={found.outside.length > 0} width={width} />}
        <Pins name={event.pinned ?? false} layout={layoutPinned} />
      </span>
      {shape && width > SHAPED && <FretDiagram shape={shape} />}
      {width > SOUNDING && <Sounding name={sounding} written={event.symbol} />}
    </Button>
  );
});

/** Pixels a letter of a numeral takes, and what lies beside it. */
const NUMERAL = 7.5;
const PADDING = 8;
/** Pixels a fret diagram takes. */
const FRETS = 64;

interface BorderProps {
  event: ChordEvent;
  section: string;
  axis: Axis;
}

/** The border before a chord: dragged, it snaps to the grid; one edit when it is let go. */
export const ChordBorder = memo(function ChordBorder({ event, section, axis }: BorderProps) {
  const grid = usePreferences((s) => s.grid);
  const drag = useRef<{ x: number; start: Ticks } | null>(null);
  const target = (e: PointerEvent) =>
    Math.round((sure(drag.current).start + (e.clientX - sure(drag.current).x) / axis.scale) / grid) * grid;
  return (
    <span
      className="chord-border"
      title="Drag the border"
      onPointerDown={(e) => {
        e.preventDefault();
        e.currentTarget.setPointerCapture(e.pointerId);
        drag.current = { x: e.clientX, start: event.start };
      }}
      onPointerMove={(e) => {
        if (drag.current)
          e.currentTarget.style.transform = `translateX(${(target(e) - drag.current.start) * axis.scale}px)`;
      }}
      onPointerUp={(e) => {
        if (!drag.current) return;
        const start = target(e);
        drag.current = null;
        e.currentTarget.style.transform = "";
        if (start !== event.start) edit({ do: "setBorder", section, chord: event.id, start });
      }}
    />
  );
});
