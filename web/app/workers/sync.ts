import type { Remote } from "comlink";
import { Edit, type Song } from "../../../core/src/index";
import { create } from "zustand";
import { startWorker } from "./client";
import type { MusicWorker } from "./music.worker";
import { supervise, type Health } from "./supervise";

/** A version of the song, and the edit that led to it; null where it came from elsewhere. */
export interface Version {
  version: number;
  song: Song;
  edit: Edit | null;
}

/** How the two workers are: the page says it where one is not well. */
export const useHealth = create<Record<"judge" | "writer", Health>>(() => ({ judge: "well", writer: "well" }));

/** The newest version there is, and the pass that is looked at: where a new worker has to be brought to. */
let newest: Version | null = null;
let looked: [pass: string | null, here: boolean] = [null, false];

/** A call may take half a minute, and the longer the larger the song is. */
const PATIENCE = 30_000;
const PER_BAR = 100;
function patience(): number {
  const { sections = [], parts = [] } = newest?.song ?? {};
  return PATIENCE + PER_BAR * parts.length * sections.reduce((sum, s) => sum + s.bars, 0);
}

/** One worker judges, the other writes, so that findings never wait for a bass line. */
const supervised = (who: "judge" | "writer") =>
  supervise<MusicWorker>(startWorker, {
    async restore(remote) {
      if (newest) await remote.load(newest.version, newest.song, { fresh: true, ask: false });
      await remote.look(...looked);
    },
    changed: (health) => useHealth.setState({ [who]: health }),
    patience,
  });
const both = { judge: supervised("judge"), writer: supervised("writer") };
const started = { judge: both.judge.calls, writer: both.writer.calls };

/** Starts workers again that failed too often: they go on with what they were asked last. */
export const startAgain = (): void => {
  both.judge.again();
  both.writer.again();
};

/** Tells both workers which pass is in view. */
export function lookAt(pass: string | null, here: boolean): void {
  looked = [pass, here];
  for (const worker of Object.values(workers)) void worker.look(pass, here);
}

/** Versions the writer has not been told yet: it is told when it is asked for something. */
let untold: Version[] = [];
/** Whether an edit is what the judge answered: made, it is there already. */
const isAnswer = (edit: Edit): boolean => edit.do === "all" && edit.label === Edit.WHAT_FOLLOWS;

/**
 * Tells the judge a version of the song; answers with what follows from it, as one edit. What followed and was made
 * goes no second time. The writer is told when it is next asked.
 */
export async function tell(now: Version): Promise<Edit | null> {
  const { version, song, edit } = now;
  newest = now;
  if (edit) untold.push(now);
  else untold = [now];
  const { judge } = started;
  let answer: Edit | null | undefined;
  if (edit) answer = await (isAnswer(edit) ? judge.took(version) : judge.edits(version, [edit], true));
  if (answer === undefined) answer = await judge.load(version, song, { fresh: !edit || isAnswer(edit), ask: true });
  return answer;
}

/** Brings the writer to the newest version: the song where it came from elsewhere, and all edits in one message. */
async function bring(): Promise<void> {
  const versions = untold;
  untold = [];
  const { writer } = started;
  const whole = versions.findLast(({ edit }) => !edit);
  if (whole) void writer.load(whole.version, whole.song, { fresh: true, ask: false });
  const last = versions.at(-1);
  const changes = versions.slice(whole ? versions.indexOf(whole) + 1 : 0).flatMap(({ edit }) => edit ?? []);
  if (!last || !changes.length) return;
  const held = await writer.edits(last.version, changes, false);
  if (held === undefined) await writer.load(last.version, last.song, { fresh: false, ask: false });
}

/** The workers, each as far as the song is: what is asked of the writer comes behind all that it has to know. */
export const workers: Record<"judge" | "writer", Remote<MusicWorker>> = {
  judge: started.judge,
  writer: new Proxy(started.writer, {
    get(writer, name: keyof MusicWorker) {
      void bring();
      return writer[name];
    },
  }),
};

/**
 * Runs a request so that only the newest one is answered; at most one is under way and one waits. `failed` is told
 * where it could not be answered.
 */
export function latest<A extends unknown[], R>(
  run: (...args: A) => Promise<R>,
  done: (result: R) => void,
  failed?: () => void,
): (...args: A) => void {
  let busy = false;
  let next: A | null = null;
  const go = (args: A): void => {
    busy = true;
    void run(...args)
      .then(
        (result) => {
          if (!next) done(result);
        },
        (error: unknown) => {
          if (!failed) throw error;
          if (!next) failed();
        },
      )
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
