import { COMP_KINDS, storeVoicing, type Edit, type Part, type Song } from "../../core/src/index";
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

/** Parts that the voicing path lays out: with voicings of their own, or block chords under a tune. */
const voicedParts = (song: Song | null): Part[] =>
  song?.parts.filter((p) => p.link && !p.link.from && COMP_KINDS.some((k) => k.id === p.link!.kind && k.voices)) ?? [];

const makeVoice = (part: string) =>
  latest(
    async (section: string, version: number) => ({
      result:
        partById(part)?.link?.kind === "block" ? await workers.writer.block(section, part) : await workers.writer.voice(section, part),
      section,
      version,
    }),
    ({ result, section, version }) => {
      const state = useSong.getState();
      const now = partById(part);
      if (!now?.link) return;
      if (state.version !== version || useView.getState().section !== section) {
        revoice(part);
        return;
      }
      const { voicing, set } = useView.getState();
      if (!result.ok) {
        const { [part]: _, ...rest } = voicing;
        set({ voicing: rest });
        state.say(result.error);
        return;
      }
      // Undo steps over what is stored here: the voicings belong to the edit that called for them.
      const stored = state.song?.sections.find((s) => s.id === section);
      const { value } = result;
      if (value && "ids" in value) {
        set({ voicing: { ...voicing, [part]: value } });
        const edit = storeVoicing(section, part, value);
        const stale = stored?.chords.some(
          (c) => (c.voicings?.[part]?.pitches ?? []).join() !== (edit.do === "setVoicings" ? (edit.pitches[c.id] ?? []) : []).join(),
        );
        if (stale) state.edit(edit, { quiet: true });
      } else {
        const text = (notes: readonly { start: number; duration: number; pitch: string }[]) =>
          notes
            .map((n) => `${n.start}:${n.duration}:${n.pitch}`)
            .sort()
            .join();
        if (text(value ?? []) !== text(stored?.notes[part] ?? []))
          state.edit({ do: "setNotes", section, part, notes: value ?? [] }, { quiet: true });
      }
    },
  );

const partById = (id: string): Part | undefined => useSong.getState().song?.parts.find((p) => p.id === id);

const voices = new Map<string, ReturnType<typeof makeVoice>>();
function revoice(only?: string): void {
  const { song, version } = useSong.getState();
  for (const part of voicedParts(song)) {
    if (only && part.id !== only) continue;
    if (!voices.has(part.id)) voices.set(part.id, makeVoice(part.id));
    voices.get(part.id)!(useView.getState().section, version);
  }
}

/** What the voicing path of a part depends on. */
const voicingInputs = (song: Song | null, part: Part, section: string): unknown[] => {
  const here = song?.sections.find((s) => s.id === section);
  const own = song?.instruments?.find((i) => i.id === part.instrument);
  return [
    part.instrument,
    own,
    part.link?.kind,
    part.link?.loop,
    part.link?.top,
    part.link?.top ? here?.notes[part.link.top] : null,
    part.settings,
    part.range,
    song?.profile,
    song?.parts.some((p) => p.role === "bass" && !p.muted),
    ...(here?.chords ?? []).flatMap((c) => {
      const v = c.voicings?.[part.id];
      return [c.id, c.symbol, c.start, v?.pinned ?? false, v?.pinned ? v.pitches : null, v?.top, v?.bottom];
    }),
  ];
};

/** Parts whose path has to be found anew between two versions of the song. */
function stale(song: Song, before: Song | null, section: string): Part[] {
  return voicedParts(song).filter((part) => {
    const old = before?.parts.find((p) => p.id === part.id);
    if (!old) return true;
    const now = voicingInputs(song, part, section);
    const then = voicingInputs(before, old, section);
    return now.length !== then.length || now.some((x, i) => x !== then[i]);
  });
}

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
    for (const part of stale(state.song, before.song, useView.getState().section)) revoice(part.id);
  });
  const offView = useView.subscribe((state, before) => {
    if (state.section === before.section) return;
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
    revoice();
  });
  refresh();
  revoice();
  return () => {
    offSong();
    offView();
  };
}
