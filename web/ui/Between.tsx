import type { ReactNode } from "react";

/** A slider between two ends that are named, not numbered. */
export function Between({
  from,
  to,
  label,
  value,
  set,
  min = 0,
  max = 1,
  step = 0.1,
}: {
  from: string;
  to: ReactNode;
  label: string;
  value: number;
  set(value: number): void;
  min?: number;
  max?: number;
  step?: number;
}) {
  return (
    <label className="range">
      <span>{from}</span>
      <input type="range" min={min} max={max} step={step} value={value} aria-label={label} onChange={(e) => set(Number(e.target.value))} />
      <span>{to}</span>
    </label>
  );
}
