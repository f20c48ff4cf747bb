import { useId, type ReactNode } from "react";
import FormCheck from "react-bootstrap/FormCheck";

/** A yes or no, with its words. */
export function Check({
  on,
  set,
  title,
  children,
}: {
  on: boolean;
  set(on: boolean): unknown;
  title?: string;
  children: ReactNode;
}) {
  const id = useId();
  return (
    <FormCheck className="check" title={title}>
      <FormCheck.Input id={id} bsPrefix="check-box" checked={on} onChange={(e) => set(e.target.checked)} />
      <FormCheck.Label htmlFor={id} bsPrefix="check-words" title={title}>
        {children}
      </FormCheck.Label>
    </FormCheck>
  );
}
