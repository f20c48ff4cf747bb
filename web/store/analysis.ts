import { COMP_KINDS, storeVoicing, type Edit, type Part, type SectionVoicing, type Song } from "../../core/src/index";
import { latest, sync, workers } from "../workers/client";
import { useSong } from "./song";
import { useView } from "./view";

let shownHarmony = -1;
const analyze = latest(
  (section: string, tried?: Edit) => workers.judge.analyze(section, useView.getState().bassPart, tried),
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

const partById = (id: string): Part | undefined => useSong.getState().song?.parts.find((p) => p.id === id);

/** Lays out one part in one section whenever it is asked to, and stores what came out. */
const makeVoice = (section: string, part: string) =>
  latest(
    async () => {
      const asked = voicingInputs(useSong.getState().song, part, section);
      const block = partById(part)?.link?.kind === "block";
      return { asked, result: block ? await workers.writer.block(section, part) : await workers.writer.voice(section, part) };
    },
    ({ result, asked }) => {
      const state = useSong.getState();
      if (!partById(part)?.link) return;
      if (differ(asked, voicingInputs(state.song, part, section))) {
        revoice(section, part);
        return;
      }
      const view = useView.getState();
      const show = (value: SectionVoicing | null) => {
        if (view.section !== section) return;
        const { [part]: _, ...rest } = view.voicing;
        view.set({ voicing: value ? { ...rest, [part]: value } : rest });
      };
      if (!result.ok) {
        show(null);
        if (view.section === section) state.say(result.error);
        return;
      }
      // Undo steps over what is stored here: the voicings belong to the edit that called for them.
      const stored = state.song?.sections.find((s) => s.id === section);
      const { value } = result;
      if (value && "ids" in value) {
        show(value);
        const pitches = new Map(value.ids.map((id, i) => [id, value.chords[i]!.pitches.join()]));
        if (stored?.chords.some((c) => (c.voicings?.[part]?.pitches ?? []).join() !== (pitches.get(c.id) ?? "")))
          state.edit(storeVoicing(section, part, value), { quiet: true });
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

const voices = new Map<string, ReturnType<typeof makeVoice>>();
function revoice(section: string, part: string): void {
  const id = `${section}|${part}`;
  if (!voices.has(id)) voices.set(id, makeVoice(section, part));
  voices.get(id)!();
}

/** Every part of the section in view, whose paths are shown. */
const revoiceShown = (): void => {
  for (const part of voicedParts(useSong.getState().song)) revoice(useView.getState().section, part.id);
};

/** Sections out of sight in which a part has chords but no voicings yet. */
function revoiceBare(): void {
  const { song } = useSong.getState();
  for (const part of voicedParts(song))
    for (const section of song?.sections ?? [])
      if (part.link!.kind === "voicing" && section.chords.some((c) => c.symbol !== "N.C." && !c.voicings?.[part.id]))
        revoice(section.id, part.id);
}

const differ = (a: readonly unknown[], b: readonly unknown[]): boolean => a.length !== b.length || a.some((x, i) => x !== b[i]);

/** What the voicing path of a part in a section depends on. */
const voicingInputs = (song: Song | null, partId: string, section: string): unknown[] => {
  const part = song?.parts.find((p) => p.id === partId);
  if (!song || !part) return [];
  const here = song.sections.find((s) => s.id === section);
  return [
    part.instrument,
    song.instruments?.find((i) => i.id === part.instrument),
    part.link?.kind,
    part.link?.loop,
    part.link?.top,
    part.link?.top ? here?.notes[part.link.top] : null,
    part.settings,
    part.range,
    song.profile,
    song.parts.some((p) => p.role === "bass" && !p.muted),
    ...(here?.chords ?? []).flatMap((c) => {
      const v = c.voicings?.[partId];
      return [c.id, c.symbol, c.start, v?.pinned ?? false, v?.pinned ? v.pitches : null, v?.top, v?.bottom];
    }),
  ];
};

/** Lays out anew what changed between two versions of the song, in all its sections. */
function revoiceChanged(song: Song, before: Song | null): void {
  const sameBand = song.parts === before?.parts && song.instruments === before.instruments && song.profile === before.profile;
  for (const section of song.sections) {
    if (sameBand && before.sections.includes(section)) continue;
    for (const part of voicedParts(song))
      if (differ(voicingInputs(song, part.id, section.id), voicingInputs(before, part.id, section.id))) revoice(section.id, part.id);
  }
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
    revoiceChanged(state.song, before.song);
  });
  const offView = useView.subscribe((state, before) => {
    if (state.bassPart !== before.bassPart) refresh();
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
    revoiceShown();
  });
  refresh();
  revoiceShown();
  revoiceBare();
  return () => {
    offSong();
    offView();
  };
}
