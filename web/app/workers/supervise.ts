import type { Remote } from "comlink";

/** A worker that was started: what is asked of it, how it is ended, and who is told where it fails. */
export interface Started<W> {
  remote: Remote<W>;
  end(): void;
  /** Told of an error nobody caught, of a script that could not be loaded, of a message that cannot be read. */
  onFailure(failed: (why: string) => void): void;
}

/** It works; a new one is being brought to where the old one was; it failed too often and waits to be asked. */
export type Health = "well" | "mending" | "down";

export interface Supervision<W> {
  /** Brings a new worker to where the song is. */
  restore(remote: Remote<W>): Promise<unknown>;
  changed(health: Health): void;
  /** How long a call may take, in milliseconds: the larger the song the longer. */
  patience(): number;
}

/** What nobody could answer: every worker that was asked it failed. */
export class NotAnswered extends Error {
  constructor(what: string) {
    super(`${what} could not be worked out: three workers failed at it`);
  }
}

/** So many failures in a row, without an answer between them, and it waits to be asked; so often a call is tried. */
const FAILURES = 3;
/** A worker that is idle is asked so often whether it lives, in milliseconds. */
const BEAT = 10_000;

interface Call {
  name: string;
  args: unknown[];
  tries: number;
  resolve(value: unknown): void;
  reject(error: unknown): void;
}

/**
 * Calls a worker that is replaced where it fails: an error, a death, a script that does not load, a call that does not
 * return. The new one is brought to where the song is, and asked again what had no answer. After three failures in a
 * row it stays down, and what was asked waits, until `again` is called.
 */
class Supervisor<W extends { alive(): boolean }> {
  health: Health = "well";
  private failures = 0;
  private generation = 0;
  private readonly open = new Set<Call>();
  private worker: Started<W>;

  constructor(
    private readonly start: () => Started<W>,
    private readonly by: Supervision<W>,
  ) {
    this.worker = this.begin();
    const beat = setInterval(() => {
      if (this.health === "well" && !this.open.size) void this.ask("alive", []).catch(() => undefined);
    }, BEAT);
    // Where there is no browser nothing waits for the next beat.
    if (typeof beat === "object") (beat as { unref?(): void }).unref?.();
  }

  ask(name: string, args: unknown[]): Promise<unknown> {
    return new Promise((resolve, reject) => {
      const call: Call = { name, args, tries: 0, resolve, reject };
      this.open.add(call);
      if (this.health === "well") this.send(call);
    });
  }

  again(): void {
    if (this.health !== "down") return;
    this.failures = 0;
    for (const call of this.open) call.tries = 0;
    this.mend();
  }

  private begin(): Started<W> {
    const mine = ++this.generation;
    const made = this.start();
    made.onFailure((why) => this.failed(mine, why));
    return made;
  }

  private become(now: Health): void {
    this.health = now;
    this.by.changed(now);
  }

  private failed(mine: number, why: string): void {
    if (mine !== this.generation) return;
    console.warn(`A worker failed: ${why}`);
    this.worker.end();
    this.failures++;
    for (const call of this.open) {
      if (call.tries < FAILURES) continue;
      this.open.delete(call);
      call.reject(new NotAnswered(call.name));
    }
    if (this.failures < FAILURES) return this.mend();
    this.generation++;
    this.become("down");
  }

  /** Fails where it takes too long; `still` tells whether nothing else has happened to the worker meanwhile. */
  private inTime(what: string): () => boolean {
    const mine = this.generation;
    const late = setTimeout(() => this.failed(mine, what), this.by.patience());
    return () => {
      clearTimeout(late);
      return mine === this.generation;
    };
  }

  private mend(): void {
    this.become("mending");
    this.worker = this.begin();
    const mine = this.generation;
    const still = this.inTime("it did not start");
    this.by.restore(this.worker.remote).then(
      () => {
        if (!still()) return;
        this.become("well");
        for (const call of this.open) this.send(call);
      },
      (error: unknown) => {
        if (still()) this.failed(mine, String(error));
      },
    );
  }

  private send(call: Call): void {
    call.tries++;
    const still = this.inTime(`${call.name} did not return`);
    const settled = (done: () => void) => {
      if (!still()) return;
      this.failures = 0;
      this.open.delete(call);
      done();
    };
    const ask = this.worker.remote[call.name as keyof Remote<W>] as (...args: unknown[]) => Promise<unknown>;
    ask(...call.args).then(
      (value) => settled(() => call.resolve(value)),
      (error: unknown) => settled(() => call.reject(error)),
    );
  }
}

/** The calls of a supervised worker, as if it never failed; `again` starts one that stays down. */
export function supervise<W extends { alive(): boolean }>(
  start: () => Started<W>,
  by: Supervision<W>,
): { calls: Remote<W>; again(): void; health(): Health } {
  const supervisor = new Supervisor(start, by);
  return {
    calls: new Proxy({} as Remote<W>, {
      get: (_, name) =>
        typeof name === "string" && name !== "then" ? (...args: unknown[]) => supervisor.ask(name, args) : undefined,
    }),
    again: () => supervisor.again(),
    health: () => supervisor.health,
  };
}
