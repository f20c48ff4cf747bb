import { create } from "zustand";
import type { PlayedNote, Ticks } from "../../core/src/index";
import { play, playhead, stop, useSound } from "../audio/sound";
import { onPlayed, onReleased } from "../input/played";
import { usePlayback } from "../store/playback";

interface RecordState {
  /** Listening to the keys while the band plays. */
  on: boolean;
  /** What was played in the last pass, and the stretch it belongs to. */
  recording: { notes: PlayedNote[]; from: Ticks; to: Ticks } | null;
}

/** Playing-in: keys that are pressed while the section plays, at the place where the playhead stands. */
export const useRecord = create<RecordState>(() => ({ on: false, recording: null }));

/** What was recorded is done with: taken or dropped. */
export const dropRecording = (): void => useRecord.setState({ recording: null });

let end: (() => void) | null = null;

/** Plays a stretch once, after a count-in, and keeps what is played to it; with `over`, what the part has there is silent meanwhile. */
export async function startRecording(
  part: string,
  from: Ticks,
  to: Ticks,
  { countIn, over }: { countIn: boolean; over: boolean },
): Promise<void> {
  end?.();
  const { loop, countIn: counted, wholeSong } = usePlayback.getState();
  const open = new Map<number, PlayedNote>();
  const notes: PlayedNote[] = [];
  const offs = [
    onPlayed((midi, velocity) => {
      const tick = playhead();
      if (tick === null) return;
      const note: PlayedNote = { midi, velocity, start: tick, end: tick };
      open.set(midi, note);
      notes.push(note);
    }),
    onReleased((midi) => {
      const note = open.get(midi);
      if (!note) return;
      note.end = Math.max(note.start + 1, playhead() ?? to);
      open.delete(midi);
    }),
    useSound.subscribe((state, was) => {
      if (was.playing && !state.playing) end?.();
    }),
  ];
  useRecord.setState({ on: true, recording: null });
  usePlayback.setState({ wholeSong: false, countIn, loop: { on: false, from, to }, silent: over ? part : null });
  end = () => {
    end = null;
    for (const off of offs) off();
    for (const note of open.values()) note.end = Math.max(note.start + 1, to);
    usePlayback.setState({ loop, countIn: counted, wholeSong, silent: null });
    useRecord.setState({ on: false, recording: notes.length ? { notes, from, to } : null });
  };
  await play();
}

export function stopRecording(): void {
  stop();
  end?.();
}
