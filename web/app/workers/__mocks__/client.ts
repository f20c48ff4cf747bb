import { sure } from "../../../../core/src/index";
import type { MusicWorker } from "../music.worker";

/**
 * The two workers without a browser: each a module of its own with its own memory, asked and answered by copies, one
 * call after another. What runs in them is the real thing.
 */
let waiting = 0;

export function startWorker(): unknown {
  const exposed: MusicWorker[] = [];
  jest.isolateModules(() => {
    jest.doMock("comlink", () => ({
      expose: (worker: MusicWorker) => void exposed.push(worker),
      proxy: (told: unknown) => told,
    }));
    require("../music.worker");
  });
  const worker = exposed[0] as unknown as Record<string, (...args: unknown[]) => unknown>;
  let last: Promise<unknown> = Promise.resolve();
  const call = (name: string, args: unknown[]): Promise<unknown> => {
    // A function crosses by itself: it is called back, with copies.
    const sent = args.map((arg) =>
      typeof arg === "function"
        ? async (...told: unknown[]) => (arg as (...told: unknown[]) => unknown)(...structuredClone(told))
        : structuredClone(arg),
    );
    waiting++;
    const answer = last.then(async () => structuredClone(await sure(worker[name])(...sent))).finally(() => waiting--);
    last = answer.catch(() => undefined);
    return answer;
  };
  const remote = new Proxy(
    {},
    {
      get: (_, name) =>
        typeof name === "string" && name !== "then" ? (...args: unknown[]) => call(name, args) : undefined,
    },
  );
  return { remote, end: () => undefined, onFailure: () => undefined };
}

/** Waits until both workers have answered all they were asked, and what their answers set off. */
export async function idle(): Promise<void> {
  for (let quiet = 0; quiet < 3; quiet = waiting ? 0 : quiet + 1) await new Promise((resolve) => setImmediate(resolve));
}
