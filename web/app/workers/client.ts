import { wrap, type Remote } from "comlink";
import type { MusicWorker } from "./music.worker";

const start = (): Remote<MusicWorker> =>
  wrap<MusicWorker>(new Worker(new URL("./music.worker.ts", import.meta.url), { type: "module" }));

/** One worker judges, the other writes, so that findings never wait for a bass line. */
export const workers = { judge: start(), writer: start() };
