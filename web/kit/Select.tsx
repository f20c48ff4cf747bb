import type { ReactNode } from "react";
import FormSelect from "react-bootstrap/FormSelect";

/** A value, and what it is called. */
export type Choice<T extends string | number> = readonly [value: T, label: string];

interface Props<T extends string | number> {
  /** What is chosen, for those who do not see the words beside it. */
  label: string;
  /** Words before the box, where there are any. */
  text?: ReactNode;
  value: T;
  choices: readonly Choice<NoInfer<T>>[];
  set(value: NoInfer<T>): unknown;
  title?: string;
  disabled?: boolean;
}

/** One value out of a few. */
export function Select<T extends string | number>({ label, text, value, choices, set, title, disabled }: Props<T>) {
  const box = (
    <FormSelect
      bsPrefix="select"
      aria-label={label}
      title={title}
      disabled={disabled}
      value={value}
      onChange={(e) => {
        const chosen = choices.find(([v]) => String(v) === e.target.value);
        if (chosen) set(chosen[0]);
      }}
    >
      {choices.map(([v, words]) => (
        <option key={v} value={v}>
          {words}
        </option>
      ))}
    </FormSelect>
  );
  return text === undefined ? (
    box
  ) : (
    <label>
      <span className="muted">{text}</span>
      {box}
    </label>
  );
}
