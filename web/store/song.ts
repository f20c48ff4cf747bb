import { create } from "zustand";
import { applyEdit, type Edit, type Problem, type Song } from "../../core/src/index";

/** What can be set of the ways a part plays. */
export type PlayingChange = Omit<Extract<Edit, { do: "setPlaying" }>, "do" | "part" | "section" | "pass">;

export type SaveStatus = "saved" | "waiting" | "saving" | "away" | "conflict" | "refused";

interface SongState {
  song: Song | null;
  /** Counts every change of `song`; the worker knows songs by it. */
  version: number;
  /** Counts the songs that came from elsewhere: opened, brought back, taken after a conflict. */
  opened: number;
  /** The edit that led from the version before to this one; null when the song came from elsewhere (opened, undone, redone). */
  lastEdit: Edit | null;
  /** Revision of the server that the song is based on. */
  revision: number;
  status: SaveStatus;
  /** The stored song, when somebody else changed it meanwhile. */
  conflict: { song: Song; revision: number } | null;
  past: Song[];
  future: Song[];
  /** Last refusal or problem, shown until the next edit. */
  problem: Problem | null;
  /** Problems of the chord line that was typed last, by section. */
  lineProblems: Problem[];

  open(song: Song, revision: number, status?: SaveStatus): void;
  /** Makes an edit; false (and a problem) when it cannot be made. `quiet` joins it to the edit before, as one step of undo. */
  edit(edit: Edit, options?: { quiet?: boolean }): boolean;
  /** The same, with the ids of what it made; null when it cannot be made. */
  make(edit: Edit, options?: { quiet?: boolean }): string[] | null;
  undo(): void;
  redo(): void;
  setSave(update: Partial<Pick<SongState, "status" | "revision" | "conflict">>): void;
  say(problem: Problem | null): void;
}

const HISTORY = 500;

/**
 * The open song and its history. Songs are immutable and share what did not change, so the history keeps whole songs: an entry costs only
 * what its edit touched.
 */
export const useSong = create<SongState>((set, get) => ({
  song: null,
  version: 0,
  opened: 0,
  lastEdit: null,
  revision: 0,
  status: "saved",
  conflict: null,
  past: [],
  future: [],
  problem: null,
  lineProblems: [],
  open: (song, revision, status = "saved") =>
    set({
      song,
      revision,
      status,
      version: get().version + 1,
      opened: get().opened + 1,
      lastEdit: null,
      conflict: null,
      past: [],
      future: [],
      problem: null,
      lineProblems: [],
    }),
  edit: (edit, options) => get().make(edit, options) !== null,
  make: (edit, { quiet = false } = {}) => {
    const { song, past, version } = get();
    if (!song) return null;
    const result = applyEdit(song, edit);
    if (!result.ok) {
      set({ problem: result.error });
      return null;
    }
    const { song: next, problems, created } = result.value;
    const lineProblems = edit.do === "setLine" ? problems : get().lineProblems;
    if (next === song) {
      set({ lineProblems, problem: null });
      return created;
    }
    set({
      song: next,
      version: version + 1,
      lastEdit: edit,
      past: quiet ? past : [...past.slice(-HISTORY), song],
      future: quiet ? get().future : [],
      // What follows an edit by itself does not take a message away.
      problem: quiet ? get().problem : null,
      lineProblems,
      status: get().status === "conflict" ? "conflict" : "waiting",
    });
    return created;
  },
  undo: () => move(get, set, "past", "future"),
  redo: () => move(get, set, "future", "past"),
  setSave: (update) => set(update),
  say: (problem) => set({ problem }),
}));

function move(get: () => SongState, set: (s: Partial<SongState>) => void, from: "past" | "future", to: "past" | "future"): void {
  const state = get();
  const target = state[from].at(-1);
  if (!target || !state.song) return;
  set({
    song: target,
    version: state.version + 1,
    lastEdit: null,
    [from]: state[from].slice(0, -1),
    [to]: [...state[to], state.song],
    status: state.status === "conflict" ? "conflict" : "waiting",
    problem: null,
    lineProblems: [],
  });
}
