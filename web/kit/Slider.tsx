import { useRef, type ReactNode } from "react";
import FormRange from "react-bootstrap/FormRange";

interface Props {
  label: string;
  /** Words before the slider. */
  from: ReactNode;
  /** Words or the value behind it. */
  to: ReactNode;
  value: number;
  min?: number;
  max?: number;
  step?: number;
  /** `quiet` for all but the first change of one drag, so that a drag is one step of undo. */
  set(value: number, quiet: boolean): unknown;
  className?: string;
  title?: string;
}

/** A value that is dragged, or moved by keys. */
export function Slider({
  label,
  from,
  to,
  value,
  min = 0,
  max = 1,
  step = 0.1,
  set,
  className = "range",
  title,
}: Props) {
  const dragging = useRef(false);
  const moved = useRef(false);
  return (
    <label className={className} title={title}>
      <span>{from}</span>
      <FormRange
        bsPrefix="slide"
        min={min}
        max={max}
        step={step}
        value={value}
        aria-label={label}
        onPointerDown={() => {
          dragging.current = true;
          moved.current = false;
        }}
        onPointerUp={() => {
          dragging.current = false;
        }}
        onChange={(e) => {
          set(Number(e.target.value), dragging.current && moved.current);
          moved.current = true;
        }}
      />
      <span className="tabular">{to}</span>
    </label>
  );
}
