import ButtonGroup from "react-bootstrap/ButtonGroup";
import { Button } from "./Button";
import type { Choice } from "./Select";

/** Two or three values beside each other, of which one is pressed. */
export function Switches<T extends string | number>({
  label,
  value,
  choices,
  set,
  titles = {},
}: {
  label: string;
  value: T;
  choices: readonly Choice<NoInfer<T>>[];
  set(value: NoInfer<T>): unknown;
  titles?: Partial<Record<T, string>>;
}) {
  return (
    <ButtonGroup as="span" bsPrefix="switches" aria-label={label}>
      {choices.map(([v, words]) => (
        <Button key={v} aria-pressed={v === value} title={titles[v]} onClick={() => set(v)}>
          {words}
        </Button>
      ))}
    </ButtonGroup>
  );
}
