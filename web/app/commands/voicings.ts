import {
  Chord,
  type ChordEvent,
  Edit,
  firstOf,
  Instrument,
  nth,
  type Part,
  Pitch,
  type PitchName,
  type Section,
  Song,
  sure,
  Voicing,
  type VoicingStyle,
} from "../../../core/src/index";
import { soundNote } from "../audio/sound";
import { useResults } from "../store/results";
import { chooseChord, useSelection } from "../store/selection";
import { edit, say, useSong, type PlayingChange } from "../store/song";

const voicePartIn = (song: Pick<Song, "parts">, id: string): Part | undefined => {
  const parts = Edit.laidOutParts(song);
  return parts.find((p) => p.id === id) ?? parts.find((p) => sure(p.link).kind === "voicing") ?? parts[0];
};

/** The part whose voicings are worked on. */
export const voicePartOf = (song: Song): Part | undefined => voicePartIn(song, useSelection.getState().voicePart);

/** The part whose voicings are worked on, as it is drawn. */
export function useVoicePart(song: Pick<Song, "parts">): Part | undefined {
  const id = useSelection((s) => s.voicePart);
  return voicePartIn(song, id);
}

/** Styles that suit how an instrument is held. */
export const stylesFor = (song: Song, part: Part): VoicingStyle[] => {
  const { held } = Instrument.of(part.instrument, song);
  return Voicing.STYLES.filter(
    (s) =>
      (!s.held || s.held === held.by) &&
      (held.by === "hands" || s.id !== "every") &&
      (held.by !== "frets" || s.id !== "keyboard"),
  );
};

export const voicingStyleOf = (song: Song, part: Part): VoicingStyle => {
  const styles = stylesFor(song, part);
  return styles.find((s) => s.id === part.playing.voicing?.style) ?? firstOf(styles);
};

/** Lets a chord sound in the sound of its part. */
export function soundPitches(part: string, pitches: readonly PitchName[]): void {
  for (const p of pitches) void soundNote(part, Pitch.midi(p), 0.9);
}

/** Lets a chord of a section sound as it is laid out. */
export function soundLayout(song: Song, event: ChordEvent | undefined): void {
  const part = voicePartOf(song);
  const pitches = part && event?.voicings?.[part.id]?.pitches;
  if (part && pitches) soundPitches(part.id, pitches);
}

/** The chord in focus, or the first one of the section. */
function focused(song: Song): { section: Section | undefined; event: ChordEvent | undefined } {
  const { section: id, chord } = useSelection.getState();
  const section = Song.section(song, id);
  const events = section?.chords.filter((c) => c.symbol !== Chord.NONE) ?? [];
  return { section, event: events.find((c) => c.id === chord) ?? events[0] };
}

/** How long a layout is waited for, in milliseconds. */
const PATIENCE = 900;

/** Sounds the chord in focus as soon as it has been laid out anew. */
export function soundWhenVoiced(part: string): void {
  const { song } = useSong.getState();
  const event = song && focused(song).event;
  if (!event) return;
  const before = event.voicings?.[part]?.pitches.join();
  const sound = () => {
    const now = useSong.getState().song;
    const pitches = now && focused(now).event?.voicings?.[part]?.pitches;
    if (pitches) soundPitches(part, pitches);
  };
  const off = useSong.subscribe((state) => {
    const now = state.song && focused(state.song).event?.voicings?.[part]?.pitches.join();
    if (now === before) return;
    done();
    sound();
  });
  const timer = setTimeout(() => {
    off();
    sound();
  }, PATIENCE);
  const done = () => {
    off();
    clearTimeout(timer);
  };
}

/** Runs with the stored song and the part whose voicings are worked on, when there is one. */
function withVoicePart(run: (song: Song, part: Part) => void): void {
  const { song } = useSong.getState();
  const part = song && voicePartOf(song);
  if (song && part) run(song, part);
}

/** Lowest and highest pitch of a layout that is inverted by hand. */
const [LOWEST, HIGHEST] = [12, 115];

/**
 * Lays the chord in focus an inversion higher (or lower), keeps it so, and lets it sound. On a neck: the next shape up
 * or down.
 */
export const invertChord = (direction: 1 | -1): void =>
  withVoicePart((song, part) => {
    const { section, event } = focused(song);
    const pitches = event?.voicings?.[part.id]?.pitches;
    if (!section || !event || !pitches) return;
    const fretted = Instrument.of(part.instrument, song).held.by === "frets";
    const next = fretted ? nextShape(part.id, event.id, pitches, direction) : Voicing.invert(pitches, direction);
    if (!next || next.some((p) => Pitch.midi(p) < LOWEST || Pitch.midi(p) > HIGHEST)) {
      say({
        code: "voicing.inversion",
        message: `There is no ${direction > 0 ? "higher" : "lower"} layout of ${event.symbol}`,
      });
      return;
    }
    chooseChord(event.id, useSelection.getState().chords);
    if (edit({ do: "pinVoicing", section: section.id, part: part.id, chord: event.id, pitches: next }))
      soundPitches(part.id, next);
  });

function nextShape(
  part: string,
  chord: string,
  pitches: readonly PitchName[],
  direction: 1 | -1,
): PitchName[] | undefined {
  const height = (p: readonly PitchName[]) => p.reduce((sum, x) => sum + Pitch.midi(x), 0) / p.length;
  const all = useResults.getState().voicing[part]?.alternatives[chord] ?? [];
  return all
    .filter((a) => (height(a.pitches) - height(pitches)) * direction > 0.01)
    .sort((a, b) => Math.abs(height(a.pitches) - height(pitches)) - Math.abs(height(b.pitches) - height(pitches)))[0]
    ?.pitches;
}

/** Changes how a part is laid out, and lets the chord in focus sound as soon as it is. */
export function setVoicing(part: string, voicing: PlayingChange["voicing"], options?: { quiet?: boolean }): boolean {
  soundWhenVoiced(part);
  return edit({ do: "setPlaying", part, voicing }, options);
}

/** The next style (or the one before) for the whole part. */
export const nextStyle = (direction: 1 | -1): void =>
  withVoicePart((song, part) => {
    const styles = stylesFor(song, part);
    const at = styles.indexOf(voicingStyleOf(song, part));
    setVoicing(part.id, { style: nth(styles, (at + direction + styles.length) % styles.length).id });
  });

/** Semitones by which one step moves the register, and how far it goes. */
const REGISTER_STEP = 4;
const MOST_REGISTER = 24;

export const moveRegister = (direction: 1 | -1): void =>
  withVoicePart((_, part) => {
    const now = part.playing.voicing?.register ?? 0;
    setVoicing(part.id, {
      register: Math.max(-MOST_REGISTER, Math.min(MOST_REGISTER, now + direction * REGISTER_STEP)),
    });
  });

export const nextInstrument = (direction: 1 | -1): void =>
  withVoicePart((song, part) => {
    const all = Instrument.forRole(song).filter((i) => i.roles.includes(part.role));
    const at = all.findIndex((i) => i.id === part.instrument);
    setInstrument(part.id, nth(all, (at + direction + all.length) % all.length).id);
  });

/** Gives a part another instrument, and lets the chord in focus sound on it. */
export function setInstrument(part: string, instrument: string): boolean {
  soundWhenVoiced(part);
  return edit({ do: "setPart", part, instrument });
}
