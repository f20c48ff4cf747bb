import { create } from "zustand";
import type { Song, Ticks } from "../../../core/src/index";

interface PlaybackState {
  /** Only these sound, when any are named: parts by id, a drum alone as a drum player. */
  solo: string[];
  /** The stretch that is played, and whether it is played again and again; null is the section. */
  loop: { on: boolean; from: Ticks; to: Ticks } | null;
  /** Where playing begins, when a place was set in the ruler. */
  from: Ticks | null;
  wholeSong: boolean;
  /** Passes of the whole song that are played again and again, the first and the last. */
  passes: { from: string; to: string } | null;
  click: boolean;
  countIn: boolean;
  /** Tempo of practice, as a share. */
  speed: number;
  /** A part that is silent while it is played in anew. */
  silent: string | null;
  /** What is being auditioned instead of the song: shown and heard until it ends. */
  preview: { song: Song; label: string; id: string } | null;
  /** The offer heard last, so that one key goes back and forth between it and what is written. */
  lastOffer: string | null;
}

const initial = (): PlaybackState => ({
  solo: [],
  loop: null,
  from: null,
  wholeSong: false,
  passes: null,
  click: false,
  countIn: false,
  speed: 1,
  silent: null,
  preview: null,
  lastOffer: null,
});

/** How the song is listened to. Nothing here changes it. */
export const usePlayback = create<PlaybackState>(initial);

/**
 * Another song is opened: nothing of the last one is heard or looped; click, count-in and practice tempo stay as they
 * are liked.
 */
export const resetPlayback = (): void => {
  const { click, countIn, speed } = usePlayback.getState();
  usePlayback.setState({ ...initial(), click, countIn, speed });
};

/** Another section: what was looped and auditioned belongs to the one before. */
export const leaveSectionPlayback = (): void =>
  usePlayback.setState({ loop: null, from: null, preview: null, lastOffer: null });

/** What is played of a section of this length: the looped stretch, or all of it. */
export const stretchOf = (loop: PlaybackState["loop"], length: Ticks): { from: Ticks; to: Ticks } =>
  loop?.on ? { from: loop.from, to: loop.to } : { from: 0, to: length };

/** Plays again and again, or once. */
export const toggleLoop = (length: Ticks): void => {
  const { loop } = usePlayback.getState();
  usePlayback.setState({
    wholeSong: false,
    passes: null,
    loop: loop ? { ...loop, on: !loop.on } : { on: false, from: 0, to: length },
  });
};

/** The whole section again, from its beginning. */
export const clearLoop = (): void => usePlayback.setState({ loop: null, from: null });
