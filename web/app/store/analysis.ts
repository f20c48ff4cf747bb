import { Edit, Plain, sure } from "../../../core/src/index";
import { whenIdle } from "../idle";
import type { Analysis } from "../workers/music.worker";
import { lookAt, workers, latest, tell } from "../workers/sync";
import { passInView } from "./passes";
import { leaveSectionPlayback } from "./playback";
import { leaveSectionResults, useResults } from "./results";
import { chooseChord, chooseNoNotes, useSelection } from "./selection";
import { say, useSong } from "./song";

const judge = latest(
  (section: string, tried?: Edit) =>
    workers.judge.analyze(section, useSelection.getState().bassPart, useResults.getState().harmonyNumber, tried),
  (result) => {
    callOff();
    callOff = whenIdle(() => show(result));
  },
  () => useResults.setState({ checked: "failed", findings: [] }),
);

/** Calls off a result that waits to be shown. */
let callOff = (): void => undefined;

/** Shows what was judged; what says the same as before stays the same, so that only what differs is drawn. */
function show({ harmony, findings, report }: Analysis): void {
  const before = useResults.getState();
  useResults.setState({
    findings: Plain.sharing(before.findings, findings),
    report: Plain.sharing(before.report, report),
    checked: "done",
    ...(harmony && {
      harmony: Plain.sharing(before.harmony, harmony.harmony),
      verdict: Plain.sharing(before.verdict, harmony.verdict),
      harmonyNumber: harmony.number,
    }),
  });
}

/** Judges the section, perhaps with an edit that is only tried; what was judged before it is not shown any more. */
function analyze(section: string, tried?: Edit): void {
  callOff();
  judge(section, tried);
}

/** Judges an edit that is still being made, such as a note under the mouse. */
export const tryEdit = (edit: Edit): void => analyze(useSelection.getState().section, edit);

/** Judges the section in view again. */
export const checkAgain = (): void => {
  useResults.setState({ checked: "yet" });
  refresh();
};

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

function refresh(): void {
  const { section } = useSelection.getState();
  const { song } = useSong.getState();
  analyze(section);
  if (song && Edit.laidOutParts(song).length) showLayouts(section);
}

/** The pass that was told to be in view. */
let seen = "";

/** Tells the workers which pass is in view, where it is another one; whether it is. */
function look(): boolean {
  const { song } = useSong.getState();
  const { pass, section, here } = useSelection.getState();
  const id = song && passInView(song, pass, section);
  const now = `${id} ${here}`;
  if (now === seen) return false;
  seen = now;
  lookAt(id, here);
  return true;
}

/** Tells a version of the song; makes what belongs to it, as one step of undo with it, or else judges it. */
async function follow(edit: Edit | null): Promise<void> {
  const { song, version } = useSong.getState();
  if (!song) return;
  const follows = await tell({ version, song, edit });
  // What was worked out for an older song comes with the newer one's answer.
  if (useSong.getState().version !== version) return;
  if (!follows || !useSong.getState().edit(follows, { quiet: true, stored: true })) refresh();
}

/**
 * Follows the song: tells the workers, makes what belongs to each edit, and judges. Returns a function that ends this.
 */
export function startAnalysis(): () => void {
  seen = "";
  look();
  const offSong = useSong.subscribe((state, before) => {
    if (state.version === before.version || !state.song) return;
    const told = follow(state.version === before.version + 1 ? state.lastEdit : null);
    look();
    void told;
  });
  const offSelection = useSelection.subscribe((state, before) => {
    if (state.section !== before.section || state.pass !== before.pass || state.here !== before.here) {
      if (look() && state.section === before.section) refresh();
    }
    if (state.bassPart !== before.bassPart) analyze(state.section);
    if (state.section === before.section) return;
    leaveSectionResults();
    leaveSectionPlayback();
    chooseChord(null);
    chooseNoNotes();
    refresh();
  });
  void follow(null);
  return () => {
    offSong();
    offSelection();
  };
}
