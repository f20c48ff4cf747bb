import { Edit, sure } from "../../../core/src/index";
import { workers } from "../workers/client";
import { latest, sync } from "../workers/sync";
import { passInView } from "./passes";
import { leaveSectionPlayback } from "./playback";
import { leaveSectionResults, useResults } from "./results";
import { chooseChord, chooseNoNotes, useSelection } from "./selection";
import { say, useSong } from "./song";

const analyze = latest(
  (section: string, tried?: Edit) =>
    workers.judge.analyze(section, useSelection.getState().bassPart, useResults.getState().harmonyNumber, tried),
  ({ harmony, ...result }) =>
    useResults.setState(
      harmony
        ? { ...result, harmony: harmony.harmony, verdict: harmony.verdict, harmonyNumber: harmony.number }
        : result,
    ),
);

/** Judges an edit that is still being made, such as a note under the mouse. */
export const tryEdit = (edit: Edit): void => analyze(useSelection.getState().section, edit);

/** Shows what the voicing path chose in the section in view. */
const showLayouts = latest(
  (section: string) =>
    workers.writer.layouts(section, useResults.getState().layoutNumbers).then((layouts) => ({ section, layouts })),
  ({ section, layouts }) => {
    if (useSelection.getState().section !== section) return;
    const shown = useResults.getState().voicing;
    const changed = layouts.filter((l) => l.voicing);
    const gone = Object.keys(shown).filter((part) => !layouts.some((l) => l.part === part));
    const layoutNumbers = Object.fromEntries(layouts.map((l) => [l.part, l.number]));
    if (!changed.length && !gone.length) return useResults.setState({ layoutNumbers });
    const voicing = Object.fromEntries(Object.entries(shown).filter(([part]) => !gone.includes(part)));
    for (const { part, voicing: laidOut } of changed) {
      const said = sure(laidOut);
      if (said.ok) voicing[part] = said.value;
      else {
        delete voicing[part];
        say(said.error);
      }
    }
    useResults.setState({ voicing, layoutNumbers });
  },
);

/** Makes what belongs to the edits since the song was last settled, as one step of undo with them. */
const settle = latest(
  () => workers.writer.follow(),
  ({ version, edits }) => {
    const state = useSong.getState();
    // What was worked out for an older song is asked for again.
    if (version !== state.version) settle();
    else if (edits.length) state.edit({ do: "all", label: Edit.WHAT_FOLLOWS, edits }, { quiet: true, stored: true });
  },
);

function refresh(): void {
  const { section } = useSelection.getState();
  const { song } = useSong.getState();
  analyze(section);
  if (song && Edit.laidOutParts(song).length) showLayouts(section);
}

/** Tells the workers which pass is in view. */
function look(): string {
  const { song } = useSong.getState();
  const { pass, section, here } = useSelection.getState();
  const id = song && passInView(song, pass, section);
  for (const worker of Object.values(workers)) void worker.look(id, here);
  return `${id} ${here}`;
}

/**
 * Follows the song: tells the workers, judges again, and makes what belongs to each edit. Returns a function that ends
 * this.
 */
export function startAnalysis(): () => void {
  const { song, version } = useSong.getState();
  if (song) sync(version, song, null);
  let seen = look();
  const offSong = useSong.subscribe((state, before) => {
    if (state.version === before.version || !state.song) return;
    sync(state.version, state.song, state.version === before.version + 1 ? state.lastEdit : null);
    seen = look();
    settle();
    refresh();
  });
  const offSelection = useSelection.subscribe((state, before) => {
    if (state.section !== before.section || state.pass !== before.pass || state.here !== before.here) {
      const now = look();
      if (now !== seen) {
        seen = now;
        if (state.section === before.section) refresh();
      }
    }
    if (state.bassPart !== before.bassPart) analyze(state.section);
    if (state.section === before.section) return;
    leaveSectionResults();
    leaveSectionPlayback();
    chooseChord(null);
    chooseNoNotes();
    refresh();
  });
  settle();
  refresh();
  return () => {
    offSong();
    offSelection();
  };
}
