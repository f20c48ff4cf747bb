import { useEffect, type ReactNode } from "react";
import type { Ticks } from "../../core/src/index";
import { useSound } from "../audio/sound";
import { startComputerKeys, startMidi, usePlayed } from "../input/played";
import { stopRecording, useRecord } from "../input/record";
import { useView } from "../store/view";
import { Between } from "../ui/Between";

/** How what is played in is set on the grid. */
export interface PlayIn {
  countIn: boolean;
  grid: Ticks;
  strength: number;
  mode: "replace" | "add";
}

export const PLAY_IN: PlayIn = { countIn: true, grid: 240, strength: 1, mode: "replace" };

const GRIDS: [Ticks, string][] = [
  [480, "quarters"],
  [240, "eighths"],
  [120, "sixteenths"],
  [160, "eighth triplets"],
  [80, "sixteenth triplets"],
];

/** Recording from any keyboard: on screen, of the computer, or MIDI; the same for notes and for drums. */
export function PlayControls({
  settings,
  set,
  record,
  keys,
  heard,
  children,
}: {
  settings: PlayIn;
  set(change: Partial<PlayIn>): void;
  record(): void;
  /** What the computer's keys stand for. */
  keys: ReactNode;
  /** What is held now, in words. */
  heard: string;
  children?: ReactNode;
}) {
  const { playIn, set: view } = useView();
  const on = useRecord((s) => s.on);
  const playing = useSound((s) => s.playing);
  const { device, deviceProblem } = usePlayed();
  useEffect(() => {
    void startMidi();
    return () => {
      view({ playIn: false });
      if (useRecord.getState().on) stopRecording();
    };
  }, [view]);
  useEffect(() => (playIn ? startComputerKeys(36) : undefined), [playIn]);
  return (
    <>
      <p className="small">
        Press record, then play: the keys on screen at the foot of the page, those of the computer, or a MIDI keyboard.{" "}
        {device ? `Listening to ${device}.` : deviceProblem}
      </p>
      <div className="controls">
        <button
          type="button"
          className="primary"
          aria-pressed={on}
          onClick={(e) => {
            e.currentTarget.blur();
            if (on) stopRecording();
            else record();
          }}
        >
          {on ? "Stop recording" : playing ? "Record from the beginning" : "Record"}
        </button>
        <button
          type="button"
          aria-pressed={playIn}
          title="A W S E D F … are piano keys from C, Z and X move an octave"
          onClick={(e) => {
            e.currentTarget.blur();
            view({ playIn: !playIn });
          }}
        >
          computer keys play
        </button>
        <label>
          <input type="checkbox" checked={settings.countIn} onChange={(e) => set({ countIn: e.target.checked })} /> count-in
        </label>
      </div>
      {playIn && <p className="small">{keys}</p>}
      <p className="played-notes" aria-live="polite">
        {on ? heard || "Listening …" : null}
      </p>
      <div className="controls">
        <label>
          <span className="muted">set on</span>
          <select value={settings.grid} onChange={(e) => set({ grid: Number(e.target.value) })}>
            {GRIDS.map(([ticks, label]) => (
              <option key={ticks} value={ticks}>
                {label}
              </option>
            ))}
          </select>
        </label>
        {children}
      </div>
      <Between
        from="as played"
        to="on the grid"
        label="How strictly on the grid"
        value={settings.strength}
        step={0.05}
        set={(n) => set({ strength: n })}
      />
      <div className="controls">
        <label>
          <span className="muted">what was there</span>
          <select value={settings.mode} onChange={(e) => set({ mode: e.target.value as PlayIn["mode"] })}>
            <option value="replace">gives way</option>
            <option value="add">stays, the new notes join it</option>
          </select>
        </label>
      </div>
    </>
  );
}

/** What was recorded: heard, taken or dropped. */
export function PlayedIn({ text, audition, accept }: { text: string; audition(): void; accept(): boolean }) {
  return (
    <div className="played-in">
      <p role="status">{text}</p>
      <p className="controls">
        <button type="button" onClick={audition}>
          Hear
        </button>
        <button
          type="button"
          className="primary"
          onClick={() => {
            if (accept()) useRecord.setState({ recording: null });
          }}
        >
          Take
        </button>
        <button type="button" onClick={() => useRecord.setState({ recording: null })}>
          Drop it
        </button>
      </p>
    </div>
  );
}
