import { sure } from "../../../core/src/index";
import { useRef } from "react";
import { usePreferences } from "../../app/store/preferences";

const LEAST = 260;
/** Room that is left for the score. */
const SCORE = 420;
const STEP = 24;

const setWidth = (width: number): void =>
  usePreferences.setState({ panelWidth: Math.round(Math.max(LEAST, Math.min(window.innerWidth - SCORE, width))) });

/** The edge between score and panel: dragged, or moved by arrow keys; a double click gives the usual width back. */
export function PanelEdge() {
  const width = usePreferences((s) => s.panelWidth);
  const edge = useRef<HTMLDivElement>(null);
  const now = () => width ?? sure(sure(edge.current).nextElementSibling).getBoundingClientRect().width;
  return (
    <div
      ref={edge}
      className="panel-edge"
      role="separator"
      aria-orientation="vertical"
      aria-label="Width of the panel"
      aria-valuenow={width ?? 0}
      aria-valuemin={LEAST}
      tabIndex={0}
      title="Drag: width of the panel. Double click: as usual"
      onPointerDown={(e) => e.currentTarget.setPointerCapture(e.pointerId)}
      onPointerMove={(e) => {
        if (e.currentTarget.hasPointerCapture(e.pointerId)) setWidth(window.innerWidth - e.clientX);
      }}
      onDoubleClick={() => usePreferences.setState({ panelWidth: null })}
      onKeyDown={(e) => {
        const step = { ArrowLeft: STEP, ArrowRight: -STEP }[e.key];
        if (!step) return;
        e.preventDefault();
        setWidth(now() + step);
      }}
    />
  );
}
