/**
 * One of several who write into one song at once, in a process of its own: the application's own store and saving,
 * without a browser. Adds notes to its part, one after another, and ends when all of them are stored. Delays pass
 * faster than on the clock.
 *
 *     node stormWriter.mjs http://127.0.0.1:1234 song part edits
 */
import { setTimeout as wait } from "node:timers/promises";
import { sure } from "../../core/src/index";
import { openSong, startAutosave } from "../app/store/autosave";
import { useSong } from "../app/store/song";

/** How much faster delays pass. */
const FASTER = 20;
/** So many looks of five milliseconds until it is given up. */
const MOST_LOOKS = 12_000;

const [address, id, part, edits] = process.argv.slice(2).map((text) => sure(text));
let acknowledged = 0;
let conflicts = 0;
const { fetch: fetchIt, setTimeout: after } = globalThis;
Object.assign(globalThis, {
  window: { addEventListener: () => undefined, removeEventListener: () => undefined },
  document: { visibilityState: "visible", addEventListener: () => undefined, removeEventListener: () => undefined },
  setTimeout: (run: () => void, ms = 0) => after(run, ms / FASTER),
  fetch: async (path: string, init?: RequestInit) => {
    const response = await fetchIt(`${address}${path}`, { ...init, signal: AbortSignal.timeout(4000) });
    if (init?.method === "PUT" && response.ok) acknowledged++;
    return response;
  },
});

const state = () => useSong.getState();
async function until(what: string, holds: () => boolean): Promise<void> {
  for (let look = 0; look < MOST_LOOKS; look++) {
    if (holds()) return;
    await wait(5);
  }
  throw new Error(`${what}: ${JSON.stringify([state().status, state().problem])}`);
}

async function main(): Promise<void> {
  for (let tries = 0; !state().song; tries++) {
    await openSong(sure(id)).catch((error: unknown) => {
      if (tries > 400) throw error;
    });
    await wait(20);
  }
  startAutosave();
  for (let i = 0; i < Number(edits); i++) {
    const note = { start: i * 240, duration: 240, pitch: "C4", velocity: 1 + (i % 127) };
    if (!state().edit({ do: "addNote", section: "s1", part: sure(part), note }))
      throw new Error(`edit ${i}: ${JSON.stringify(state().problem)}`);
    // Mostly one save an edit; sometimes several edits are one.
    if (i % 7) await until(`edit ${i}`, () => state().status === "saved" || state().status === "conflict");
    if (state().status === "conflict") conflicts++;
  }
  await until("the last edit", () => state().status === "saved");
  console.log(JSON.stringify({ acknowledged, conflicts }));
}

main().then(
  () => process.exit(0),
  (error: unknown) => {
    console.error(error);
    process.exit(1);
  },
);
