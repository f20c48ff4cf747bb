import {
  COMP_KINDS,
  instrumentOf,
  instrumentsFor,
  invert,
  pitchMidi,
  VOICING_STYLES,
  type Part,
  type PitchName,
  type Song,
  type VoicingStyle,
} from "../../../core/src/index";
import { soundNote } from "../../audio/sound";
import { useSong, type PlayingChange } from "../../store/song";
import { useView } from "../../store/view";

/** Parts that are laid out by the path. */
export const voicedParts = (song: Song): Part[] =>
  song.parts.filter((p) => p.link && !p.link.from && COMP_KINDS.find((k) => k.id === p.link!.kind)!.voices);

/** The part whose voicings are worked on. */
export const chosenPart = (song: Song): Part | undefined => {
  const parts = voicedParts(song);
  return parts.find((p) => p.id === useView.getState().voicePart) ?? parts.find((p) => p.link!.kind === "voicing") ?? parts[0];
};

/** Styles that suit how an instrument is held. */
export const stylesFor = (song: Song, part: Part): VoicingStyle[] => {
  const { held } = instrumentOf(part.instrument, song);
  return VOICING_STYLES.filter(
    (s) => (!s.held || s.held === held.by) && (held.by === "hands" || s.id !== "every") && (held.by !== "frets" || s.id !== "keyboard"),
  );
};

export const voicingStyleOf = (song: Song, part: Part): VoicingStyle => {
  const styles = stylesFor(song, part);
  return styles.find((s) => s.id === part.playing.voicing?.style) ?? styles[0]!;
};

/** Lets a chord sound in the sound of its part. */
export function soundPitches(part: string, pitches: readonly PitchName[]): void {
  for (const p of pitches) void soundNote(part, pitchMidi(p), 0.9);
}

const chordInFocus = (song: Song) => {
  const section = song.sections.find((s) => s.id === useView.getState().section);
  const events = section?.chords.filter((c) => c.symbol !== "N.C.") ?? [];
  return { section, event: events.find((c) => c.id === useView.getState().chord) ?? events[0] };
};

/** Sounds the chord in focus as soon as it has been laid out anew. */
export function soundWhenVoiced(part: string): void {
  const { song } = useSong.getState();
  const event = song && chordInFocus(song).event;
  if (!event) return;
  const before = event.voicings?.[part]?.pitches.join();
  const sound = () => {
    const now = useSong.getState().song;
    const pitches = now && chordInFocus(now).event?.voicings?.[part]?.pitches;
    if (pitches) soundPitches(part, pitches);
  };
  const off = useSong.subscribe((state) => {
    const now = state.song && chordInFocus(state.song).event?.voicings?.[part]?.pitches.join();
    if (now === before) return;
    done();
    sound();
  });
  const timer = setTimeout(() => {
    off();
    sound();
  }, 900);
  const done = () => {
    off();
    clearTimeout(timer);
  };
}

/** Lays the chord in focus an inversion higher (or lower), keeps it so, and lets it sound. On a neck: the next shape up or down. */
export function invertChord(direction: 1 | -1): void {
  const { song, edit, say } = useSong.getState();
  const part = song && chosenPart(song);
  if (!song || !part) return;
  const { section, event } = chordInFocus(song);
  const pitches = event?.voicings?.[part.id]?.pitches;
  if (!section || !event || !pitches) return;
  const next =
    instrumentOf(part.instrument, song).held.by === "frets" ? nextShape(part.id, event.id, pitches, direction) : invert(pitches, direction);
  if (!next || next.some((p) => pitchMidi(p) < 12 || pitchMidi(p) > 115)) {
    say({ code: "voicing.inversion", message: `There is no ${direction > 0 ? "higher" : "lower"} layout of ${event.symbol}` });
    return;
  }
  useView.getState().set({ chord: event.id });
  if (edit({ do: "pinVoicing", section: section.id, part: part.id, chord: event.id, pitches: next })) soundPitches(part.id, next);
}

function nextShape(part: string, chord: string, pitches: readonly PitchName[], direction: 1 | -1): PitchName[] | undefined {
  const height = (p: readonly PitchName[]) => p.reduce((sum, x) => sum + pitchMidi(x), 0) / p.length;
  const all = useView.getState().voicing[part]?.alternatives[chord] ?? [];
  return all
    .filter((a) => (height(a.pitches) - height(pitches)) * direction > 0.01)
    .sort((a, b) => Math.abs(height(a.pitches) - height(pitches)) - Math.abs(height(b.pitches) - height(pitches)))[0]?.pitches;
}

const setVoicing = (voicing: PlayingChange["voicing"]): void => {
  const { song, edit } = useSong.getState();
  const part = song && chosenPart(song);
  if (!part) return;
  soundWhenVoiced(part.id);
  edit({ do: "setPlaying", part: part.id, voicing });
};

/** The next style (or the one before) for the whole part. */
export function nextStyle(direction: 1 | -1): void {
  const { song } = useSong.getState();
  const part = song && chosenPart(song);
  if (!song || !part) return;
  const styles = stylesFor(song, part);
  const at = styles.indexOf(voicingStyleOf(song, part));
  setVoicing({ style: styles[(at + direction + styles.length) % styles.length]!.id });
}

/** Semitones by which one step moves the register. */
const REGISTER_STEP = 4;

export function moveRegister(direction: 1 | -1): void {
  const { song } = useSong.getState();
  const part = song && chosenPart(song);
  if (!part) return;
  const now = part.playing.voicing?.register ?? 0;
  setVoicing({ register: Math.max(-24, Math.min(24, now + direction * REGISTER_STEP)) });
}

export function nextInstrument(direction: 1 | -1): void {
  const { song } = useSong.getState();
  const part = song && chosenPart(song);
  if (!song || !part) return;
  const all = instrumentsFor(song).filter((i) => i.roles.includes(part.role));
  const at = all.findIndex((i) => i.id === part.instrument);
  soundWhenVoiced(part.id);
  useSong.getState().edit({ do: "setPart", part: part.id, instrument: all[(at + direction + all.length) % all.length]!.id });
}
