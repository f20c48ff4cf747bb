import type { ReactNode } from "react";
import { Button } from "./Button";

interface Props {
  on: boolean;
  press(): unknown;
  /** What it does, where the words on it do not say it in full. */
  label?: string;
  title?: string;
  children: ReactNode;
}

/** A button that stays pressed. */
export const Toggle = ({ on, press, label, title, children }: Props) => (
  <Button className="toggle" aria-pressed={on} aria-label={label} title={title} onClick={() => press()}>
    {children}
  </Button>
);
