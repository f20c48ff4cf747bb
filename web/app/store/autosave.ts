import { del, get as read, set as write } from "idb-keyval";
import { Song, sure } from "../../../core/src/index";
import { api, ApiProblem } from "../api";
import { useSong } from "./song";

/** An edit state that the server does not have yet, kept in the browser. */
interface Unsent {
  song: Song;
  revision: number;
}

const keyOf = (id: string): string => `unsent:${id}`;
const DELAY = 500;
const RETRY = 2500;

/**
 * Opens a song: the stored one, or the unsent edits of this browser when there are any. Throws ApiProblem when neither
 * is to be had.
 */
export async function openSong(id: string): Promise<void> {
  const unsent = await read<Unsent>(keyOf(id));
  const mine = unsent && Song.parse(unsent.song).ok ? unsent : undefined;
  try {
    const stored = await api.get(id);
    if (!mine || JSON.stringify(mine.song) === JSON.stringify(stored.song)) {
      if (mine) await del(keyOf(id));
      useSong.getState().open(stored.song, stored.revision);
    } else if (mine.revision === stored.revision) useSong.getState().open(mine.song, stored.revision, "waiting");
    else {
      useSong.getState().open(mine.song, mine.revision, "conflict");
      useSong.getState().setSave({ conflict: stored });
    }
  } catch (error) {
    if (mine && error instanceof ApiProblem && error.status === 0)
      useSong.getState().open(mine.song, mine.revision, "away");
    else throw error;
  }
}

/**
 * Keeps every change in the browser at once and sends it to the server within a second of the last edit; returns a
 * function that ends this.
 */
export function startAutosave(): () => void {
  let timer: ReturnType<typeof setTimeout> | undefined;
  let running = false;
  const later = (delay: number) => {
    clearTimeout(timer);
    timer = setTimeout(() => void save(), delay);
  };
  const save = async () => {
    const { song, revision, status, version, setSave } = useSong.getState();
    if (!song || running || (status !== "waiting" && status !== "away")) return;
    running = true;
    setSave({ status: "saving" });
    try {
      const next = await api.save(song, revision);
      const unchanged = useSong.getState().version === version;
      setSave({ revision: next, status: unchanged ? "saved" : "waiting" });
      if (unchanged) await del(keyOf(song.id));
      else {
        await write(keyOf(song.id), { song: sure(useSong.getState().song), revision: next } satisfies Unsent);
        later(DELAY);
      }
    } catch (error) {
      const problem = error instanceof ApiProblem ? error : new ApiProblem(0, "server.away", String(error));
      const { current, revision = 0 } = problem.more;
      if (problem.status === 409 && current) setSave({ status: "conflict", conflict: { song: current, revision } });
      else if (problem.status === 0) {
        setSave({ status: "away" });
        later(RETRY);
      } else {
        setSave({ status: "refused" });
        useSong.getState().say({
          code: problem.code,
          message: `Not saved: ${problem.message}`,
          ...(problem.hint ? { hint: problem.hint } : {}),
        });
      }
    } finally {
      running = false;
    }
  };
  const onChange = (state: ReturnType<typeof useSong.getState>, before: ReturnType<typeof useSong.getState>) => {
    if (state.version === before.version && state.status === before.status) return;
    if (state.status !== "waiting" && !(state.version !== before.version && state.status === "conflict")) return;
    if (state.song && state.version !== before.version)
      void write(keyOf(state.song.id), { song: state.song, revision: state.revision } satisfies Unsent);
    later(DELAY);
  };
  const unsubscribe = useSong.subscribe(onChange);
  const online = () => later(0);
  window.addEventListener("online", online);
  if (useSong.getState().status !== "saved") later(DELAY);
  return () => {
    unsubscribe();
    window.removeEventListener("online", online);
    clearTimeout(timer);
    void save();
  };
}

/**
 * Ends a conflict: keep this browser's version (saved over the stored one) or take the stored one, which undo takes
 * back.
 */
export async function resolveConflict(keep: "mine" | "stored"): Promise<void> {
  const { conflict, song, adopt, setSave } = useSong.getState();
  if (!conflict || !song) return;
  if (keep === "stored") {
    await del(keyOf(song.id));
    adopt(conflict.song, conflict.revision, "saved");
  } else setSave({ revision: conflict.revision, conflict: null, status: "waiting" });
}
