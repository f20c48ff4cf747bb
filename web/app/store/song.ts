import { create } from "zustand";
import { useShallow } from "zustand/react/shallow";
import { Edit, firstOf, type Pass, type Problem, type Section, Song, sure } from "../../../core/src/index";
import { asMeant, passInView, viewOf } from "./passes";
import { useSelection } from "./selection";

/** What can be set of the ways a part plays. */
export type PlayingChange = Omit<Extract<Edit, { do: "setPlaying" }>, "do" | "part" | "section" | "pass">;

export type SaveStatus = "saved" | "waiting" | "saving" | "away" | "conflict" | "refused";

interface Making {
  /** Joins it to the edit before, as one step of undo. */
  quiet?: boolean;
  /** Made in the song as it is stored, whatever pass is in view. */
  stored?: boolean;
}

interface SongState {
  song: Song | null;
  /** Counts every change of `song`; the worker knows songs by it. */
  version: number;
  /**
   * The edit that led from the version before to this one; null when the song came from elsewhere (opened, undone,
   * redone).
   */
  lastEdit: Edit | null;
  /** Revision of the server that the song is based on. */
  revision: number;
  status: SaveStatus;
  /** The stored song, when somebody else changed it meanwhile, and what both come from where that is known. */
  conflict: { song: Song; revision: number; base: Song | null } | null;
  /** In how many windows of this browser it is open. */
  windows: number;
  past: Song[];
  future: Song[];
  /** Last refusal or problem, shown until the next edit. */
  problem: Problem | null;
  /** Problems of the chord line that was typed last, by section. */
  lineProblems: Problem[];

  open(song: Song, revision: number, status?: SaveStatus): void;
  /** Takes another version of the song in place of this one, as a step that undo takes back. */
  adopt(song: Song, revision: number, status: SaveStatus): void;
  /** Takes what another window changed: no step of its own, and no step back undoes it. */
  bring(song: Song, revision: number, status: SaveStatus): void;
  /** Makes an edit as it is meant for the pass in view; false (and a problem) when it cannot be made. */
  edit(edit: Edit, options?: Making): boolean;
  /** The same, with the ids of what it made; null when it cannot be made. */
  make(edit: Edit, options?: Making): string[] | null;
  undo(): void;
  redo(): void;
  setSave(update: Partial<Pick<SongState, "status" | "revision" | "conflict" | "windows">>): void;
  say(problem: Problem | null): void;
}

const HISTORY = 500;
const CLEAN = { lastEdit: null, conflict: null, future: [], problem: null, lineProblems: [] };

/**
 * The open song and its history. Songs are immutable and share what did not change, so the history keeps whole songs:
 * an entry costs only what its edit touched.
 */
export const useSong = create<SongState>((set, get) => ({
  song: null,
  version: 0,
  revision: 0,
  status: "saved",
  past: [],
  windows: 1,
  ...CLEAN,
  open: (song, revision, status = "saved") =>
    set({ ...CLEAN, song, revision, status, version: get().version + 1, past: [], windows: 1 }),
  adopt: (song, revision, status) => {
    const { song: now, past, version } = get();
    set({ ...CLEAN, song, revision, status, version: version + 1, past: now ? [...past.slice(-HISTORY), now] : past });
  },
  bring: (song, revision, status) => {
    const { song: now, past, future, version } = get();
    const along = (list: readonly Song[]) => (now ? withChange(list, now, song) : []);
    set({ ...CLEAN, song, revision, status, version: version + 1, past: along(past), future: along(future) });
  },
  edit: (edit, options) => get().make(edit, options) !== null,
  make: (asked, { quiet = false, stored = false } = {}) => {
    const { song, past, version } = get();
    if (!song) return null;
    const edit = stored ? asked : asMeant(song, asked);
    const result = Edit.apply(song, edit);
    if (!result.ok) {
      set({ problem: result.error });
      return null;
    }
    const { song: next, problems, created, edit: read } = result.value;
    const lineProblems = asked.do === "setLine" ? problems : get().lineProblems;
    if (next === song) {
      set({ lineProblems, problem: null });
      return created;
    }
    set({
      song: next,
      version: version + 1,
      lastEdit: read,
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

/** States to step back or forward to, with what led from one song to another elsewhere; the nearest stand last. */
function withChange(states: readonly Song[], from: Song, to: Song): Song[] {
  const out: Song[] = [];
  for (const state of [...states].reverse()) {
    const joined = Song.join(from, state, to);
    // What lies behind a state that cannot be had is not to be had either.
    if (!joined) break;
    out.unshift(joined.song);
  }
  return out;
}

function move(
  get: () => SongState,
  set: (s: Partial<SongState>) => void,
  from: "past" | "future",
  to: "past" | "future",
): void {
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

/** The song as it is stored: what is drawn may be a moment behind it. */
export const storedSong = (): Song => sure(useSong.getState().song);

/** The stored song as the pass in view plays it. */
export const songNow = (): Song => viewOf(storedSong());

/** A section as it is stored now, as the pass in view plays it. */
export const sectionNow = (id: string): Section | undefined => {
  const { song } = useSong.getState();
  return song ? Song.section(viewOf(song), id) : undefined;
};

/** Something of the stored song; what shows it is drawn anew only where that is another. */
export const useOfSong = <T>(pick: (song: Song) => T): T => useSong((s) => pick(sure(s.song)));

/** The same for an object made anew each time: it is another only where one of its fields is. */
export const useFieldsOfSong = <T>(pick: (song: Song) => T): T => useSong(useShallow((s) => pick(sure(s.song))));

/** Makes an edit of the stored song. */
export const edit = (change: Edit, options?: Making): boolean => useSong.getState().edit(change, options);

/** Shows a message; null takes it away. */
export const say = (problem: Problem | null): void => useSong.getState().say(problem);

/** The pass in view as it is stored; undefined where the form does not play the section. */
export function usePass(): Pass | undefined {
  const song = useSong((s) => s.song);
  const section = useSelection((s) => s.section);
  const pass = useSelection((s) => s.pass);
  const id = song && passInView(song, pass, section);
  return id === null ? undefined : song?.form.find((p) => p.id === id);
}

/** The song with a pass written out, as it is stored. */
export function useView(song: Song): Song {
  const section = useSelection((s) => s.section);
  const pass = useSelection((s) => s.pass);
  const here = useSelection((s) => s.here);
  return viewOf(song, { section, pass, here });
}

/** The song as the pass in view plays it, and one of its sections, whatever is being tried out in the score. */
export function useStored(sectionId: string): { song: Song; section: Section } {
  const song = useView(sure(useSong((s) => s.song)));
  return { song, section: Song.section(song, sectionId) ?? firstOf(song.sections) };
}
