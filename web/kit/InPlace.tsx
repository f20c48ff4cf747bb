import { useEffect, useRef, useState } from "react";
import FormControl from "react-bootstrap/FormControl";

interface Props {
  label: string;
  value: string;
  /** Takes the new text; false leaves the old value standing. */
  commit(text: string): boolean;
  className?: string;
  width?: number;
  suffix?: string;
  list?: string;
}

/** A value that is edited where it stands: Enter or leaving takes it, Escape gives it back. */
export function InPlace({ label, value, commit, className = "", width, suffix, list }: Props) {
  const [text, setText] = useState(value);
  // A value that arrives late, from the edit before, does not take away what is being typed.
  const typing = useRef(false);
  useEffect(() => {
    if (!typing.current) setText(value);
  }, [value]);
  const finish = () => {
    typing.current = false;
    if (text.trim() === value || (text.trim() && commit(text.trim()))) return;
    setText(value);
  };
  return (
    <label className={`in-place ${className}`}>
      <span className="visually-hidden">{label}</span>
      <FormControl
        bsPrefix="field"
        value={text}
        title={label}
        style={{ width: width ?? `${Math.max(3, text.length + 2.5)}ch`, ...(suffix ? { textAlign: "right" } : {}) }}
        list={list}
        onChange={(e) => {
          typing.current = true;
          setText(e.target.value);
        }}
        onBlur={finish}
        onKeyDown={(e) => {
          e.stopPropagation();
          if (e.key === "Enter") e.currentTarget.blur();
          else if (e.key === "Escape") {
            typing.current = false;
            setText(value);
            e.currentTarget.value = value;
            requestAnimationFrame(() => (e.target as HTMLInputElement).blur());
          }
        }}
      />
      {suffix && <span aria-hidden="true">{suffix}</span>}
    </label>
  );
}
