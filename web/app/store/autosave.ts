import { del, get as read, set as write } from "idb-keyval";
import { Song } from "../../../core/src/index";
import { api, ApiProblem } from "../api";
import { useSong } from "./song";

/** An edit state that the server does not have yet, kept in the browser. */
interface Unsent {
  song: Song;
  revision: number;
  /** What was sent on that revision and never answered: the server may have one of these. */
  sent: Song[];
}

const keyOf = (id: string): string => `unsent:${id}`;
/** From the last edit to its save, and from the first that is not saved, however many come after it. */
const DELAY = 500;
const MOST = 3000;
const RETRY = 2500;
/** So many unanswered saves are remembered. */
const MOST_SENT = 8;

/** The saves of the open song that were never answered. A page that was left, or a lost line, makes them. */
let sent: Song[] = [];
const same = (a: Song, b: Song): boolean => JSON.stringify(a) === JSON.stringify(b);
/** Whether the stored song is one of this browser's own: then it is what the edits stand on, and no conflict. */
const isOwn = (stored: Song, unanswered: readonly Song[]): boolean => unanswered.some((song) => same(song, stored));

/**
 * Opens a song: the stored one, or the unsent edits of this browser when there are any. Throws ApiProblem when neither
 * is to be had.
 */
export async function openSong(id: string): Promise<void> {
  const unsent = await read<Unsent>(keyOf(id));
  const mine = unsent && Song.parse(unsent.song).ok ? unsent : undefined;
  try {
    const stored = await api.get(id);
    sent = [];
    if (!mine || same(mine.song, stored.song)) {
      if (mine) await del(keyOf(id));
      useSong.getState().open(stored.song, stored.revision);
    } else if (mine.revision === stored.revision || isOwn(stored.song, mine.sent ?? []))
      useSong.getState().open(mine.song, stored.revision, "waiting");
    else {
      useSong.getState().open(mine.song, mine.revision, "conflict");
      useSong.getState().setSave({ conflict: stored });
    }
  } catch (error) {
    if (!mine || !(error instanceof ApiProblem) || error.status !== 0) throw error;
    sent = mine.sent ?? [];
    useSong.getState().open(mine.song, mine.revision, "away");
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
  /** What the browser's own copy holds: the version, the revision it is based on, how many saves had no answer. */
  let kept = "";
  const keep = () => {
    const { song, revision, version } = useSong.getState();
    const now = `${version} on ${revision} after ${sent.length}`;
    if (!song || kept === now) return;
    kept = now;
    void write(keyOf(song.id), { song, revision, sent } satisfies Unsent);
  };
  const notSaved = (problem: ApiProblem) => {
    const { setSave, say } = useSong.getState();
    const { current, revision = 0 } = problem.more;
    if (current && isOwn(current, sent)) {
      sent = [];
      setSave({ revision, status: "waiting" });
    } else if (problem.status === 409 && current)
      setSave({ status: "conflict", conflict: { song: current, revision } });
    else if (problem.status === 0) {
      setSave({ status: "away" });
      later(RETRY);
    } else {
      setSave({ status: "refused" });
      const hint = problem.hint ? { hint: problem.hint } : {};
      say({ code: problem.code, message: `Not saved: ${problem.message}`, ...hint });
    }
  };

  const save = async () => {
    const { song, revision, status, version, setSave } = useSong.getState();
    if (song && status === "conflict") keep();
    if (!song || running || (status !== "waiting" && status !== "away")) return;
    running = true;
    since = null;
    if (!sent.includes(song)) sent = [...sent, song].slice(-MOST_SENT);
    keep();
    setSave({ status: "saving" });
    try {
      const next = await api.save(song, revision);
      sent = [];
      const unchanged = useSong.getState().version === version;
      setSave({ revision: next, status: unchanged ? "saved" : "waiting" });
      if (unchanged) await del(keyOf(song.id));
      else later(DELAY);
    } catch (error) {
      notSaved(error instanceof ApiProblem ? error : new ApiProblem(0, "server.away", String(error)));
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
    void save();
    keep();
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
