import { create } from "zustand";
import type { PlayedNote, Ticks } from "../../../core/src/index";
import { play, playhead, stop, useSound } from "../audio/sound";
import { onPlayed, onReleased } from "../input/played";
import { usePlayback } from "../store/playback";

/** What was played in over a stretch. */
export interface Recording {
  notes: PlayedNote[];
  from: Ticks;
  to: Ticks;
}

interface RecordState {
  /** Nothing is recorded; the count-in is heard; what is played is kept. */
  phase: "off" | "counting" | "recording";
  /** Who is played in, what was played so far, and where the playhead stood when that was looked at. */
  part: string;
  live: readonly PlayedNote[];
  now: number;
  /** What was played last, and the stretch it belongs to. */
  recording: Recording | null;
  /** What was played in each round of a loop before the last. */
  rounds: readonly Recording[];
}

/** Playing-in: keys that are pressed while the section plays, at the place where the playhead stands. */
export const useRecord = create<RecordState>(() => ({
  phase: "off",
  part: "",
  live: [],
  now: 0,
  recording: null,
  rounds: [],
}));

export const isRecording = (s: RecordState): boolean => s.phase !== "off";

/** What was recorded is done with: taken or dropped. */
export const dropRecording = (): void => useRecord.setState({ recording: null, rounds: [] });

let end: (() => void) | null = null;

/** Milliseconds from look to look at the playhead: what is played is seen as it sounds. */
const LOOK = 60;

export interface RecordHow {
  countIn: boolean;
  /** The click is heard while one plays. */
  click: boolean;
  /** What the part has there is silent meanwhile. */
  over: boolean;
  /** The stretch goes round and round until it is stopped; each round is kept for itself. */
  rounds?: boolean;
}

/** Plays a stretch once, or round and round, after a count-in, and keeps what is played to it. */
export async function startRecording(
  part: string,
  from: Ticks,
  to: Ticks,
  { countIn, click, over, rounds: goesRound = false }: RecordHow,
): Promise<void> {
  end?.();
  const before = usePlayback.getState();
  const open = new Map<number, PlayedNote>();
  let notes: PlayedNote[] = [];
  const rounds: Recording[] = [];
  let seen = -Infinity;
  /** Notes that are still held end with the stretch. */
  const closed = () => {
    for (const note of open.values()) note.end = Math.max(note.start + 1, to);
    open.clear();
  };
  /** The playhead is back at the beginning: a round is over. */
  const turn = (now: number) => {
    if (goesRound && now < seen - (to - from) / 2) {
      closed();
      if (notes.length) rounds.push({ notes, from, to });
      notes = [];
    }
    seen = now;
  };
  const show = (now: number) =>
    useRecord.setState({
      phase: now < from ? "counting" : "recording",
      now,
      live: notes.map((n) => (open.get(n.midi) === n ? { ...n, end: Math.max(n.start + 1, now) } : { ...n })),
    });
  const look = setInterval(() => {
    const tick = playhead();
    if (tick === null) return;
    turn(tick);
    show(tick);
  }, LOOK);
  const offs = [
    onPlayed((midi, velocity) => {
      const tick = playhead();
      if (tick === null) return;
      turn(tick);
      const note: PlayedNote = { midi, velocity, start: tick, end: tick };
      open.set(midi, note);
      notes.push(note);
      show(tick);
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
    () => clearInterval(look),
  ];
  useRecord.setState({
    phase: countIn ? "counting" : "recording",
    part,
    live: [],
    now: from,
    recording: null,
    rounds: [],
  });
  const loop = { on: goesRound, from, to };
  usePlayback.setState({ wholeSong: false, countIn, click, loop, silent: over ? part : null });
  end = () => {
    end = null;
    for (const off of offs) off();
    closed();
    const { loop, countIn, click, wholeSong } = before;
    usePlayback.setState({ loop, countIn, click, wholeSong, silent: null });
    useRecord.setState({ phase: "off", part: "", live: [] });
    const last = notes.length ? { notes, from, to } : (rounds.pop() ?? null);
    useRecord.setState({ recording: last, rounds });
  };
  await play();
}

export function stopRecording(): void {
  stop();
  end?.();
}
