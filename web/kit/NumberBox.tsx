import { useEffect, useId, useState } from "react";
import Feedback from "react-bootstrap/Feedback";
import FormControl from "react-bootstrap/FormControl";

interface Props {
  label: string;
  value: number;
  min: number;
  max?: number;
  set(value: number): unknown;
}

/** A whole number that is typed or stepped. What is out of its bounds is said and not taken; leaving gives it back. */
export function NumberBox({ label, value, min, max = Infinity, set }: Props) {
  const [text, setText] = useState(String(value));
  const id = useId();
  useEffect(() => setText(String(value)), [value]);
  const isGood = (n: number) => Number.isInteger(n) && n >= min && n <= max;
  const wrong = text.trim() === "" || !isGood(Number(text));
  return (
    <span className="number">
      <FormControl
        type="number"
        bsPrefix="number-box"
        aria-label={label}
        aria-describedby={wrong ? id : undefined}
        isInvalid={wrong}
        min={min}
        max={max === Infinity ? undefined : max}
        value={text}
        onKeyDown={(e) => e.stopPropagation()}
        onBlur={() => setText(String(value))}
        onChange={(e) => {
          setText(e.target.value);
          const n = Number(e.target.value);
          if (e.target.value.trim() !== "" && isGood(n) && n !== value) set(n);
        }}
      />
      {wrong && (
        <Feedback as="span" type="invalid" id={id}>
          {max === Infinity ? `a whole number from ${min}` : `a whole number from ${min} to ${max}`}
        </Feedback>
      )}
    </span>
  );
}
