import { Plain, Song } from "../../../core/src/index";
import { api, ApiProblem } from "../api";
import { tell, tellForAWhile } from "./notice";
import { dropCopy, keepCopy, ownCopy, type OwnCopy } from "./ownCopy";
import { useSong } from "./song";
import { hearWindows, holdOpen, sayToWindows } from "./windows";

/** From the last edit to its save, and from the first that is not saved, however many come after it. */
const DELAY = 500;
const MOST = 3000;
const RETRY = 2500;
/** What ends by itself. */
const AGAIN = new Set(["disk.full", "requests.many"]);
/** So many unanswered saves are remembered. */
const MOST_SENT = 8;

/** The copy the open song was taken from: it goes once its edits are stored. */
let takenOver: OwnCopy | null = null;
/** Whether it was said that this browser keeps no copy. */
let saidUnkept = false;

/** Keeps edits in this browser; says once where it cannot. */
async function keepHere(song: Song, revision: number): Promise<void> {
  if ((await keepCopy({ song, revision, sent })) || saidUnkept) return;
  saidUnkept = true;
  tell({ text: "This browser keeps no copy of edits that are on their way. Leave the page once it says Saved." });
}

/** What was kept of the open song is stored by now. */
function stored(id: string): void {
  void dropCopy(id);
  if (takenOver) void dropCopy(id, takenOver.key);
  takenOver = null;
}

/** The open song as the server has it at the revision the edits stand on; null where nobody knows any more. */
let standing: Song | null = null;

/**
 * What the edits of this browser and the stored song both come from: a save of our own that arrived without an answer,
 * else what it was based on, as it is known here or as the history of the server has it.
 */
async function baseOf(id: string, revision: number, unanswered: readonly Song[]): Promise<Song | null> {
  const ofHistory = (of: number) => api.revision(id, of).catch(() => null);
  const next = unanswered.length ? await ofHistory(revision + 1) : null;
  return next && isOwn(next, unanswered) ? next : (standing ?? ofHistory(revision));
}

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
  const copy = await ownCopy(id);
  const mine = copy?.unsent;
  takenOver = copy;
  try {
    const stored = await api.get(id);
    sent = [];
    standing = null;
    if (!mine || same(mine.song, stored.song)) {
      if (copy) void dropCopy(id, copy.key);
      useSong.getState().open(stored.song, stored.revision);
    } else if (mine.revision === stored.revision || isOwn(stored.song, mine.sent ?? []))
      useSong.getState().open(mine.song, stored.revision, "waiting");
    else await openBoth(mine, stored);
    standing = stored.song;
  } catch (error) {
    if (!mine || !(error instanceof ApiProblem) || error.status !== 0) throw error;
    sent = mine.sent ?? [];
    standing = null;
    useSong.getState().open(mine.song, mine.revision, "away");
  }
}

/** Opens edits of this browser over a song that somebody else changed: joined where they are of different things. */
async function openBoth(mine: OwnCopy["unsent"], stored: { song: Song; revision: number }): Promise<void> {
  const base = await baseOf(stored.song.id, mine.revision, mine.sent ?? []);
  const joined = base && Song.join(base, mine.song, stored.song);
  if (joined && !joined.apart.length) {
    useSong.getState().open(joined.song, stored.revision, "waiting");
    return;
  }
  useSong.getState().open(mine.song, mine.revision, "conflict");
  useSong.getState().setSave({ conflict: { ...stored, base } });
}

const ELSEWHERE = "What another window changed meanwhile was brought in.";

/**
 * What the server has in place of what the edits stand on: joined with them where they are of different things; else
 * both are offered side by side.
 */
async function meet(current: Song, revision: number): Promise<void> {
  const before = useSong.getState();
  const base = before.song && (await baseOf(current.id, before.revision, sent));
  const { song, bring, setSave } = useSong.getState();
  if (song?.id !== current.id) return;
  const theirs = base ? Plain.sharing(base, current) : current;
  const joined = base && Song.join(base, song, theirs);
  if (!joined || joined.apart.length) {
    setSave({ status: "conflict", conflict: { song: current, revision, base } });
    return;
  }
  standing = theirs;
  sent = [];
  bring(joined.song, revision, "waiting");
  tellForAWhile(ELSEWHERE);
}

/** What becomes of a save that the server did not take: it is tried again later, met, or told. */
async function notSaved(problem: ApiProblem, again: () => void): Promise<void> {
  const { setSave, say } = useSong.getState();
  const { current, revision = 0 } = problem.more;
  if (current && isOwn(current, sent)) {
    sent = [];
    setSave({ revision, status: "waiting" });
  } else if (problem.status === 409 && current) await meet(current, revision);
  else if (problem.status === 0 || AGAIN.has(problem.code)) {
    setSave({ status: "away" });
    // A full disk is called that, and tried again: somebody makes room.
    if (problem.status !== 0) say({ code: problem.code, message: `Not saved yet: ${problem.message}` });
    again();
  } else {
    setSave({ status: "refused" });
    const hint = problem.hint ? { hint: problem.hint } : {};
    say({ code: problem.code, message: `Not saved: ${problem.message}`, ...hint });
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
    void keepHere(song, revision);
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
      standing = song;
      sayToWindows({ kind: "stored", id: song.id, revision: next });
      if (unchanged) stored(song.id);
      else later(DELAY);
    } catch (error) {
      const problem = error instanceof ApiProblem ? error : new ApiProblem(0, "server.away", String(error));
      await notSaved(problem, () => later(RETRY));
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
  const endWindows = follow(() => later(0));
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
    endWindows();
    window.removeEventListener("online", online);
    document.removeEventListener("visibilitychange", leave);
    clearTimeout(timer);
    void save();
  };
}

/**
 * Goes along with what other windows of this browser do with the open song: what they stored is fetched where nothing
 * waits here, and met by a save where something does. The function that is returned ends it.
 */
function follow(saveNow: () => void): () => void {
  const id = useSong.getState().song?.id;
  if (id === undefined) return () => undefined;
  const catchUp = async (revision: number) => {
    const before = useSong.getState();
    if (before.song?.id !== id || before.revision >= revision) return;
    if (before.status !== "saved") return saveNow();
    const stored = await api.get(id).catch(() => null);
    const now = useSong.getState();
    // What was edited while it was fetched is saved, and meets it there.
    if (!stored || now.song !== before.song || now.status !== "saved" || stored.revision <= now.revision) return;
    standing = Plain.sharing(before.song, stored.song);
    now.bring(standing, stored.revision, "saved");
    tellForAWhile(ELSEWHERE);
  };
  const end = hearWindows(id, ({ kind, revision = 0 }) => void (kind === "stored" && catchUp(revision)));
  const letGo = holdOpen(id, (windows) => useSong.getState().setSave({ windows }));
  return () => {
    end();
    letGo();
  };
}

/**
 * Ends a conflict: keep this browser's version (saved over the stored one), take the stored one, which undo takes back,
 * or join both, where this browser's stands wherever both changed the same.
 */
export async function resolveConflict(keep: "mine" | "stored" | "both"): Promise<void> {
  const { conflict, song, adopt, bring, setSave } = useSong.getState();
  if (!conflict || !song) return;
  const joined = keep === "both" && conflict.base && Song.join(conflict.base, song, conflict.song);
  standing = conflict.song;
  if (keep === "stored") {
    stored(song.id);
    adopt(conflict.song, conflict.revision, "saved");
  } else if (joined) bring(joined.song, conflict.revision, "waiting");
  else setSave({ revision: conflict.revision, conflict: null, status: "waiting" });
}
