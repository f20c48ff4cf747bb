import { create } from "zustand";
import type { Midi, Song, Ticks } from "../../../../core/src/index";
import { usePlayback } from "../../store/playback";

/** The band without a loudspeaker: it keeps what it was asked to play. */
export const useSound = create(() => ({ playing: false, loading: false }));

export interface Heard {
  song: Song;
  label: string;
  from: Ticks;
  to: Ticks;
}

/** What was auditioned, and the single notes that sounded, in turn. */
export const heard: Heard[] = [];
export const notesHeard: { part: string; midi: Midi }[] = [];

let head: Ticks | null = null;
/** Moves the playhead. */
export const setPlayhead = (tick: Ticks | null): void => void (head = tick);
export const playhead = (): Ticks | null => head;

export const play = (): Promise<void> => Promise.resolve(useSound.setState({ playing: true }));

export function stop(): void {
  useSound.setState({ playing: false });
}

export function audition(
  song: Song,
  label: string,
  id: string,
  { from, to }: { from: Ticks; to: Ticks },
): Promise<void> {
  if (usePlayback.getState().preview?.id === id && useSound.getState().playing) return Promise.resolve(endPreview());
  usePlayback.setState({ preview: { song, label, id }, wholeSong: false });
  heard.push({ song, label, from, to });
  return play();
}

export function endPreview(): void {
  if (!usePlayback.getState().preview) return;
  stop();
  usePlayback.setState({ preview: null });
}

export const soundNote = (part: string, midi: Midi): Promise<void> =>
  Promise.resolve(void notesHeard.push({ part, midi }));
export const soundPlayedNote = soundNote;
export const soundPlayedDrum = (): Promise<void> => Promise.resolve();
