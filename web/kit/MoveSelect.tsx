import FormSelect from "react-bootstrap/FormSelect";
import { Pitch, Text } from "../../core/src/index";
import type { MoveBy } from "../app/commands/moves";

const SEMITONES = [1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12];
const STEPS = ["a second", "a third", "a fourth", "a fifth", "a sixth", "a seventh", "an octave"];

/** By how much something is moved, up or down: an interval, or along the scale. It only asks; nothing stays chosen. */
export function MoveSelect({
  label,
  words = "move",
  steps = false,
  go,
}: {
  label: string;
  words?: string;
  /** Only along the scale. */
  steps?: boolean;
  go(by: MoveBy, said: string): unknown;
}) {
  return (
    <FormSelect
      bsPrefix="select"
      aria-label={label}
      title={label}
      value=""
      onChange={(e) => {
        const [way, n] = e.target.value.split(":");
        const by = Number(n);
        const up = by > 0 ? "up" : "down";
        if (way === "semitones") go({ semitones: by }, `${up} ${Text.withArticle(Pitch.interval(Math.abs(by)))}`);
        if (way === "steps") go({ steps: by }, `${up} ${STEPS[Math.abs(by) - 1]} along the scale`);
      }}
    >
      <option value="">{words} …</option>
      {(steps ? [] : [1, -1]).map((sign) => (
        <optgroup key={sign} label={sign > 0 ? "up" : "down"}>
          {SEMITONES.map((n) => (
            <option key={n} value={`semitones:${sign * n}`}>
              {sign > 0 ? "↑" : "↓"} {Pitch.interval(n)}
            </option>
          ))}
        </optgroup>
      ))}
      {[1, -1].map((sign) => (
        <optgroup key={`scale${sign}`} label={sign > 0 ? "up along the scale" : "down along the scale"}>
          {STEPS.map((step, i) => (
            <option key={step} value={`steps:${sign * (i + 1)}`}>
              {sign > 0 ? "↑" : "↓"} {step}
            </option>
          ))}
        </optgroup>
      ))}
    </FormSelect>
  );
}
