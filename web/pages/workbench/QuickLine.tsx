import FormControl from "react-bootstrap/FormControl";
import { useEffect, useRef, useState } from "react";
import { closeLog, useLogging, writeLog } from "../../app/commands/log";

/** A line for the log, typed from anywhere: Enter writes it, Escape leaves it. */
export function QuickLine() {
  const open = useLogging((s) => s.open);
  return open ? <Line /> : null;
}

function Line() {
  const [text, setText] = useState("");
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => {
    const before = document.activeElement as HTMLElement | null;
    field.current?.focus();
    return () => before?.focus();
  }, []);
  return (
    <div className="quick-line" role="group" aria-label="A line for the log">
      <label htmlFor="quick-line">Log</label>
      <FormControl
        id="quick-line"
        ref={field}
        bsPrefix="field"
        value={text}
        maxLength={400}
        autoComplete="off"
        placeholder="What was tried, decided or agreed – and why"
        onChange={(e) => setText(e.target.value)}
        onBlur={closeLog}
        onKeyDown={(e) => {
          e.stopPropagation();
          if (e.key === "Escape" || (e.key === "Enter" && (!text.trim() || writeLog(text)))) closeLog();
        }}
      />
      <span className="small">Enter writes it at the place in view, Esc leaves it.</span>
    </div>
  );
}
