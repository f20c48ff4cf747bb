/** A whole number that is typed or stepped. */
export const NumberBox = ({
  label,
  value,
  min,
  max,
  set,
}: {
  label: string;
  value: number;
  min: number;
  max?: number;
  set(value: number): unknown;
}) => (
  <input
    type="number"
    className="number-box"
    aria-label={label}
    min={min}
    max={max}
    value={value}
    onKeyDown={(e) => e.stopPropagation()}
    onChange={(e) => set(Math.max(min, Math.min(max ?? Infinity, Math.round(Number(e.target.value)) || min)))}
  />
);
