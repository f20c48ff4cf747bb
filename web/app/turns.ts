import { useLayoutEffect, useState } from "react";
import { flushSync } from "react-dom";

/** What waits for its turn, the first to be seen first. */
const waiting: { order: number; run: () => void }[] = [];
let running = false;

function next(): void {
  const first = waiting.shift();
  running = first !== undefined;
  if (!first) return;
  // In a task of its own comes what is behind it, whatever this one does.
  setTimeout(next);
  first.run();
}

/** Does something in a task of its own, behind all that is seen before it. Returns a function that calls it off. */
export function inTurn(order: number, run: () => void): () => void {
  const entry = { order, run };
  const at = waiting.findIndex((w) => w.order > order);
  waiting.splice(at < 0 ? waiting.length : at, 0, entry);
  if (!running) {
    running = true;
    setTimeout(next);
  }
  return () => {
    const place = waiting.indexOf(entry);
    if (place >= 0) waiting.splice(place, 1);
  };
}

/** Does at once all that waits: whoever presses a key already means what is still to be drawn. */
export function allNow(): void {
  for (const { run } of waiting.splice(0)) run();
}

/** Whether it is the turn of something to be drawn: what stands before it is drawn by then. It stays drawn. */
export function useTurn(order: number): boolean {
  const [drawn, draw] = useState(false);
  useLayoutEffect(
    () => inTurn(order, () => flushSync(() => draw(true))),
    // Once drawn, its place does not matter any more.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [],
  );
  return drawn;
}
