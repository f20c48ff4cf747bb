import type { ReactNode } from "react";

/** A yes or no, with its words. */
export const Check = ({
  on,
  set,
  title,
  children,
}: {
  on: boolean;
  set(on: boolean): unknown;
  title?: string;
  children: ReactNode;
}) => (
  <label className="check" title={title}>
    <input type="checkbox" checked={on} onChange={(e) => set(e.target.checked)} /> {children}
  </label>
);
