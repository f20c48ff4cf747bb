import type { Edit, Song } from "../../../core/src/index";
import { workers } from "./client";

/** Brings both workers to a version of the song. Calls are answered in order, so what follows sees it. */
export function sync(version: number, song: Song, edit: Edit | null): void {
  for (const worker of Object.values(workers))
    if (!edit) void worker.load(version, song, true);
    else void worker.edit(version, edit).then((followed) => (followed ? undefined : worker.load(version, song, false)));
}

/** Runs a request so that only the newest one is answered; at most one is under way and one waits. */
export function latest<A extends unknown[], R>(
  run: (...args: A) => Promise<R>,
  done: (result: R) => void,
): (...args: A) => void {
  let busy = false;
  let next: A | null = null;
  const go = (args: A): void => {
    busy = true;
    void run(...args)
      .then((result) => {
        if (!next) done(result);
      })
      .finally(() => {
        busy = false;
        if (next) {
          const waiting = next;
          next = null;
          go(waiting);
        }
      });
  };
  return (...args) => {
    if (busy) next = args;
    else go(args);
  };
}
