import { del, get as read, set as write } from "idb-keyval";
import { Song } from "../../../core/src/index";
import { api, ApiProblem } from "../api";
import { useSong } from "./song";

/** An edit state that the server does not have yet, kept in the browser. */
interface Unsent {
  song: Song;
  revision: number;
}

const keyOf = (id: string): string => `unsent:${id}`;
/** From the last edit to its save, and from the first that is not saved, however many come after it. */
const DELAY = 500;
const MOST = 3000;
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
 * Sends every change to the server within a second of the last edit. What is on its way, or cannot be sent, is kept in
 * this browser until it is stored there: one copy a save, and one when the page is left. Returns a function that ends
 * this.
 */
export function startAutosave(): () => void {
  let timer: ReturnType<typeof setTimeout> | undefined;
  let running = false;
  const later = (delay: number) => {
    clearTimeout(timer);
    timer = setTimeout(() => void save(), delay);
  };
  /** When the first edit came that no save has taken yet. */
  let since: number | null = null;
  /** The version that the browser's own copy holds, and the revision it is based on. */
  let kept = "";
  const keep = () => {
    const { song, revision, version } = useSong.getState();
    const now = `${version} on ${revision}`;
    if (!song || kept === now) return;
    kept = now;
    void write(keyOf(song.id), { song, revision } satisfies Unsent);
  };
  const save = async () => {
    const { song, revision, status, version, setSave } = useSong.getState();
    if (song && status === "conflict") keep();
    if (!song || running || (status !== "waiting" && status !== "away")) return;
    running = true;
    since = null;
    keep();
    setSave({ status: "saving" });
    try {
      const next = await api.save(song, revision);
      const unchanged = useSong.getState().version === version;
      setSave({ revision: next, status: unchanged ? "saved" : "waiting" });
      if (unchanged) await del(keyOf(song.id));
      else later(DELAY);
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
    since ??= Date.now();
    later(Math.max(0, Math.min(DELAY, since + MOST - Date.now())));
  };
  const unsubscribe = useSong.subscribe(onChange);
  const online = () => later(0);
  // A page that is left may not come back: what is not stored yet is kept, and sent if there is time.
  const leave = () => {
    if (document.visibilityState !== "hidden" || useSong.getState().status === "saved") return;
    keep();
    void save();
  };
  window.addEventListener("online", online);
  document.addEventListener("visibilitychange", leave);
  if (useSong.getState().status !== "saved") later(DELAY);
  return () => {
    unsubscribe();
    window.removeEventListener("online", online);
    document.removeEventListener("visibilitychange", leave);
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
