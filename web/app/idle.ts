/** The longest something waits for the page to be idle, in milliseconds. */
const MOST = 250;

/**
 * Does something while the page is idle, or after a while at the latest; at once where a browser does not say when it
 * is idle. Returns a function that calls it off.
 */
export function whenIdle(run: () => void, timeout = MOST): () => void {
  const { requestIdleCallback, cancelIdleCallback } = globalThis as Partial<
    Pick<Window, "requestIdleCallback" | "cancelIdleCallback">
  >;
  if (!requestIdleCallback || !cancelIdleCallback) {
    run();
    return () => undefined;
  }
  const id = requestIdleCallback(run, { timeout });
  return () => cancelIdleCallback(id);
}
