import { create } from "zustand";
import { applyEdit, sectionOf, type Edit, type Problem, type Section, type Song } from "../../core/src/index";

/** What can be set of the ways a part plays. */
export type PlayingChange = Omit<Extract<Edit, { do: "setPlaying" }>, "do" | "part" | "section" | "pass">;

export type SaveStatus = "saved" | "waiting" | "saving" | "away" | "conflict" | "refused";

interface SongState {
  song: Song | null;
  /** Counts every change of `song`; the worker knows songs by it. */
  version: number;
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
  /** Takes another version of the song in place of this one, as a step that undo takes back. */
  adopt(song: Song, revision: number, status: SaveStatus): void;
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
const CLEAN = { lastEdit: null, conflict: null, future: [], problem: null, lineProblems: [] };

/**
 * The open song and its history. Songs are immutable and share what did not change, so the history keeps whole songs: an entry costs only
 * what its edit touched.
 */
export const useSong = create<SongState>((set, get) => ({
  song: null,
  version: 0,
  revision: 0,
  status: "saved",
  past: [],
  ...CLEAN,
  open: (song, revision, status = "saved") => set({ ...CLEAN, song, revision, status, version: get().version + 1, past: [] }),
  adopt: (song, revision, status) => {
    const { song: now, past, version } = get();
    set({ ...CLEAN, song, revision, status, version: version + 1, past: now ? [...past.slice(-HISTORY), now] : past });
  },
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

/** The stored song: what is drawn may be a moment behind it. */
export const songNow = (): Song => useSong.getState().song!;

/** A section as it is stored now. */
export const sectionNow = (id: string): Section | undefined => {
  const { song } = useSong.getState();
  return song ? sectionOf(song, id) : undefined;
};

/** Makes an edit of the stored song. */
export const edit = (change: Edit, options?: { quiet?: boolean }): boolean => useSong.getState().edit(change, options);

/** Shows a message; null takes it away. */
export const say = (problem: Problem | null): void => useSong.getState().say(problem);

/** The song as it is stored, and one of its sections, whatever is being tried out in the score. */
export function useStored(sectionId: string): { song: Song; section: Section } {
  const song = useSong((s) => s.song)!;
  return { song, section: sectionOf(song, sectionId) ?? song.sections[0]! };
}
