import { useState, type ReactNode } from "react";

/** Something that is only shown when it is asked for. */
export function Fold({ title, open: first = false, children }: { title: string; open?: boolean; children: ReactNode }) {
  const [open, setOpen] = useState(first);
  return (
    <>
      <button type="button" className="more" aria-expanded={open} onClick={() => setOpen(!open)}>
        {open ? "▾" : "▸"} {title}
      </button>
      {open && children}
    </>
  );
}
