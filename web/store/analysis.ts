import { laidOutParts, type Edit } from "../../core/src/index";
import { latest, sync, workers } from "../workers/client";
import { useSong } from "./song";
import { useView } from "./view";

/** Number of the harmony that is shown, so that it is not sent again. */
let shownHarmony = -1;
const analyze = latest(
  (section: string, tried?: Edit) => workers.judge.analyze(section, useView.getState().bassPart, shownHarmony, tried),
  ({ harmony, ...result }) => {
    if (harmony) shownHarmony = harmony.number;
    useView.getState().set(harmony ? { ...result, harmony: harmony.harmony, verdict: harmony.verdict } : result);
  },
);

/** Judges an edit that is still being made, such as a note under the mouse. */
export const tryEdit = (edit: Edit): void => analyze(useView.getState().section, edit);

/** Numbers of the layouts that are shown, by part. */
let shownLayouts: Record<string, number> = {};
/** Shows what the voicing path chose in the section in view. */
const showLayouts = latest(
  (section: string) => workers.writer.layouts(section, shownLayouts).then((layouts) => ({ section, layouts })),
  ({ section, layouts }) => {
    const view = useView.getState();
    if (view.section !== section) return;
    const changed = layouts.filter((l) => l.voicing);
    const gone = Object.keys(view.voicing).filter((part) => !layouts.some((l) => l.part === part));
    shownLayouts = Object.fromEntries(layouts.map((l) => [l.part, l.number]));
    if (!changed.length && !gone.length) return;
    const voicing = Object.fromEntries(Object.entries(view.voicing).filter(([part]) => !gone.includes(part)));
    for (const { part, voicing: laidOut } of changed) {
      if (laidOut!.ok) voicing[part] = laidOut!.value;
      else {
        delete voicing[part];
        useSong.getState().say(laidOut!.error);
      }
    }
    view.set({ voicing });
  },
);

/** Makes what belongs to the edits since the song was last settled, as one step of undo with them. */
const settle = latest(
  () => workers.writer.follow(),
  ({ version, edits }) => {
    const state = useSong.getState();
    // What was worked out for an older song is asked for again.
    if (version !== state.version) settle();
    else if (edits.length) state.edit({ do: "all", label: "what follows", edits }, { quiet: true });
  },
);

/** Follows the song: tells the workers, judges again, and makes what belongs to each edit. */
export function startAnalysis(): () => void {
  const first = useSong.getState();
  if (first.song) sync(first.version, first.song, null, true);
  const refresh = () => {
    const { section } = useView.getState();
    analyze(section);
    if (useSong.getState().song && laidOutParts(useSong.getState().song!).length) showLayouts(section);
  };
  const offSong = useSong.subscribe((state, before) => {
    if (state.version === before.version || !state.song) return;
    const fresh = state.opened !== before.opened;
    sync(state.version, state.song, state.version === before.version + 1 && !fresh ? state.lastEdit : null, fresh);
    settle();
    refresh();
  });
  const offView = useView.subscribe((state, before) => {
    if (state.bassPart !== before.bassPart) analyze(state.section);
    if (state.section === before.section) return;
    shownLayouts = {};
    shownHarmony = -1;
    state.set({
      lines: [],
      voicing: {},
      voicingPaths: [],
      writeProblem: null,
      preview: null,
      chord: null,
      chords: [],
      offers: [],
      loop: null,
      selected: { part: "", ids: [] },
    });
    refresh();
  });
  settle();
  refresh();
  return () => {
    offSong();
    offView();
  };
}
