/**
 * Windows of this browser tell each other which songs they have open and what they stored. Which are open is asked of
 * the locks they hold, so that one that died is not counted.
 */

/** What a window says. */
export interface Said {
  kind: "opened" | "stored";
  id: string;
  /** Of what was stored. */
  revision?: number;
}

const channel = typeof BroadcastChannel === "undefined" ? null : new BroadcastChannel("orchard-songs");
// Outside a browser an open channel would keep the process.
(channel as { unref?(): void } | null)?.unref?.();

export const sayToWindows = (said: Said): void => channel?.postMessage(said);

/** Hears what other windows say of a song; the function that is returned ends it. */
export function hearWindows(id: string, heard: (said: Said) => void): () => void {
  const listen = ({ data }: MessageEvent<Said>) => data.id === id && heard(data);
  channel?.addEventListener("message", listen);
  return () => channel?.removeEventListener("message", listen);
}

/**
 * Holds a song open in this window, and tells in how many windows of this browser it is whenever that changes. Each
 * holds a lock of its own; who waits for one is told when its window is gone, however it went. Where a browser has no
 * locks nothing is told. The function that is returned lets go of it.
 */
export function holdOpen(id: string, told: (windows: number) => void): () => void {
  const manager = typeof navigator === "undefined" ? undefined : navigator.locks;
  if (!manager) return () => undefined;
  const prefix = `orchard-open:${id}:`;
  const own = prefix + Math.random().toString(36).slice(2);
  const ending = new AbortController();
  const waitedFor = new Set([own]);
  const count = async (): Promise<void> => {
    const { held = [] } = await manager.query();
    if (ending.signal.aborted) return;
    const open = held.flatMap(({ name }) => (name?.startsWith(prefix) ? [name] : []));
    told(Math.max(1, open.length));
    for (const name of open.filter((n) => !waitedFor.has(n))) {
      waitedFor.add(name);
      manager
        .request(name, { signal: ending.signal }, () => void waitedFor.delete(name))
        .then(count)
        .catch(() => undefined);
    }
  };
  let letGo: () => void = () => undefined;
  const held = new Promise<void>((resolve) => (letGo = resolve));
  manager
    .request(own, () => {
      sayToWindows({ kind: "opened", id });
      void count();
      return held;
    })
    .catch(() => undefined);
  const endHearing = hearWindows(id, ({ kind }) => void (kind === "opened" && count()));
  return () => {
    ending.abort();
    endHearing();
    letGo();
  };
}
