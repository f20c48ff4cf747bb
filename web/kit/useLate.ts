import { useEffect, useState } from "react";
import { whenIdle } from "../app/idle";

/** What something is made of stands still so long before it is made, in milliseconds. */
const STILL = 400;

/**
 * Something that is dear to make or to show, such as a long line as one text: made anew when what it is made of has
 * stood still for a while and the page is idle, and at once for another `id`. `now` makes it at once, so that nobody
 * works on what is no longer so.
 */
export function useLate<From, T>(id: string, from: From, make: (from: From) => T): { value: T; now(): void } {
  const [made, setMade] = useState(() => ({ id, from, value: make(from) }));
  let shown = made;
  if (made.id !== id) {
    shown = { id, from, value: make(from) };
    setMade(shown);
  }
  const isLate = shown.from !== from;
  const now = () => {
    if (isLate) setMade({ id, from, value: make(from) });
  };
  useEffect(() => {
    if (!isLate) return undefined;
    let callOff = (): void => undefined;
    const timer = setTimeout(() => {
      callOff = whenIdle(() => setMade({ id, from, value: make(from) }));
    }, STILL);
    return () => {
      clearTimeout(timer);
      callOff();
    };
    // What makes it is no part of what it is made of.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [isLate, id, from]);
  return { value: shown.value, now };
}
