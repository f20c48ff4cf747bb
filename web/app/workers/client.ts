import { wrap } from "comlink";
import type { MusicWorker } from "./music.worker";
import type { Started } from "./supervise";

/** Starts a worker of its own. */
export function startWorker(): Started<MusicWorker> {
  const worker = new Worker(new URL("./music.worker.ts", import.meta.url), { type: "module" });
  return {
    remote: wrap<MusicWorker>(worker),
    end: () => worker.terminate(),
    onFailure(failed) {
      worker.addEventListener("error", (event) => {
        // It is seen to here.
        event.preventDefault();
        failed(event.message || "it could not be loaded");
      });
      worker.addEventListener("messageerror", () => failed("a message could not be read"));
    },
  };
}
