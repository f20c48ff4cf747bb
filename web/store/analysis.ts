import type { Edit } from "../../core/src/index";
import { latest, sync, workers } from "../workers/client";
import { useSong } from "./song";
import { useView } from "./view";

let shownHarmony = -1;
const analyze = latest(
  (section: string, tried?: Edit) => workers.judge.analyze(section, tried),
  ({ harmony, verdict, harmonyId, ...result }) => {
    // What did not change stays the same object, so that nothing that shows it is drawn again.
    const same = harmonyId === shownHarmony && useView.getState().harmony !== null;
    shownHarmony = harmonyId;
    useView.getState().set(same ? result : { ...result, harmony, verdict });
  },
);

/** Judges an edit that is still being made, such as a note under the mouse. */
export const tryEdit = (edit: Edit): void => analyze(useView.getState().section, edit);

const voice = latest(
  async (section: string, part: string, version: number) => ({ result: await workers.writer.voice(section, part), section, part, version }),
  ({ result, section, part, version }) => {
    const state = useSong.getState();
    if (state.version !== version || useView.getState().section !== section) {
      revoice();
      return;
    }
    if (!result.ok) {
      useView.getState().set({ voicing: null });
      state.say(result.error);
      return;
    }
    useView.getState().set({ voicing: result.value });
    const pitches = Object.fromEntries(result.value.ids.map((id, i) => [id, result.value.chords[i]!.pitches]));
    const stored = state.song?.sections.find((s) => s.id === section)?.chords ?? [];
    const stale = stored.some((c) => (c.voicings?.[part]?.pitches ?? []).join() !== (pitches[c.id] ?? []).join());
    // Undo steps over this: the voicings belong to the edit that called for them.
    if (stale) state.edit({ do: "setVoicings", section, part, pitches }, { quiet: true });
  },
);

function revoice(): void {
  const { song, version } = useSong.getState();
  const part = song?.parts.find((p) => p.link);
  if (part) voice(useView.getState().section, part.id, version);
}

/** What the voicing path of a section depends on. */
const voicingInputs = (state: ReturnType<typeof useSong.getState>, section: string): unknown[] => {
  const part = state.song?.parts.find((p) => p.link);
  const chords = state.song?.sections.find((s) => s.id === section)?.chords ?? [];
  return [
    part?.instrument,
    part?.link?.loop,
    part?.settings,
    state.song?.profile,
    ...chords.flatMap((c) => {
      const own = part ? c.voicings?.[part.id] : undefined;
      return [c.id, c.symbol, own?.pinned ?? false, own?.pinned ? own.pitches : null];
    }),
  ];
};

/** Follows the song: tells the workers, judges again, and voices anew where chords, pins or the instrument changed. */
export function startAnalysis(): () => void {
  const first = useSong.getState();
  if (first.song) sync(first.version, first.song, null);
  const refresh = () => {
    analyze(useView.getState().section);
  };
  const offSong = useSong.subscribe((state, before) => {
    if (state.version === before.version || !state.song) return;
    sync(state.version, state.song, state.version === before.version + 1 ? state.lastEdit : null);
    refresh();
    const { section } = useView.getState();
    const now = voicingInputs(state, section);
    const then = voicingInputs(before, section);
    if (now.length !== then.length || now.some((x, i) => x !== then[i])) revoice();
  });
  const offView = useView.subscribe((state, before) => {
    if (state.section === before.section) return;
    state.set({
      lines: [],
      writeProblem: null,
      preview: null,
      chord: null,
      chords: [],
      offers: [],
      loop: null,
      selected: { part: "", ids: [] },
    });
    refresh();
    revoice();
  });
  refresh();
  revoice();
  return () => {
    offSong();
    offView();
  };
}
