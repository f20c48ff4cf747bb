import { useEffect, type ReactNode } from "react";
import { Meter, type Midi, type Ticks } from "../../core/src/index";
import { useSound } from "../app/audio/sound";
import { dropRecording, isRecording, stopRecording, useRecord } from "../app/commands/record";
import { startComputerKeys, startMidi, usePlayed } from "../app/input/played";
import { usePreferences } from "../app/store/preferences";
import { Check } from "./Check";
import { Select } from "./Select";
import { Slider } from "./Slider";
import { ComputerKeys } from "./ComputerKeys";
import { Button } from "./Button";

/** How what is played in is set on the grid. */
export interface PlayIn {
  countIn: boolean;
  click: boolean;
  grid: Ticks;
  strength: number;
  mode: "replace" | "add";
  /** Round and round: each round is a take. */
  rounds: boolean;
}

export const PLAY_IN: PlayIn = {
  countIn: true,
  click: true,
  grid: Meter.EIGHTH,
  strength: 1,
  mode: "replace",
  rounds: false,
};

/** The C from which the computer's keys play a bass or drums: two octaves below the middle one. */
export const LOWEST_KEY = 36;

interface Props {
  settings: PlayIn;
  set(change: Partial<PlayIn>): void;
  record(): void;
  /** What the computer's keys stand for. */
  keys: ReactNode;
  /** The lowest of the computer's keys, where it is another one. */
  lowest?: Midi;
  /** What is held now, in words. */
  heard: string;
  children?: ReactNode;
}

/** Every keyboard plays while the controls are shown; what is left open is ended with them. */
function useKeyboards(lowest: Midi): void {
  const playIn = usePreferences((s) => s.playIn);
  useEffect(() => {
    void startMidi();
    usePlayed.setState({ screenKeys: "play" });
    return () => {
      usePlayed.setState({ screenKeys: "sound" });
      usePreferences.setState({ playIn: false });
      if (isRecording(useRecord.getState())) stopRecording();
    };
  }, []);
  useEffect(() => (playIn ? startComputerKeys(lowest) : undefined), [playIn, lowest]);
}

/** What the keys do now: they sound, and nothing is kept; the band counts in; they are kept. */
const PHASES = {
  off: "Armed: keys sound, nothing is kept",
  counting: "Counting in …",
  recording: "Recording",
} as const;

/** Recording from any keyboard: on screen, of the computer, or MIDI; the same for notes and for drums. */
export function PlayControls({ settings, set, record, keys, lowest = LOWEST_KEY, heard, children }: Props) {
  const playIn = usePreferences((s) => s.playIn);
  const phase = useRecord((s) => s.phase);
  const on = phase !== "off";
  const playing = useSound((s) => s.playing);
  const begins = playing ? "Record from the beginning" : "Record";
  const device = usePlayed((s) => s.device);
  const deviceProblem = usePlayed((s) => s.deviceProblem);
  useKeyboards(lowest);
  return (
    <>
      <p className="small">
        Press record, then play: the keys at the foot of the page, those of the computer, or a MIDI keyboard.{" "}
        {device ? `Listening to ${device}.` : deviceProblem}
      </p>
      <div className="controls">
        <Button
          className="primary"
          aria-pressed={on}
          aria-label={on ? "Stop recording" : begins}
          title={playing && !on ? "From the beginning" : undefined}
          onClick={(e) => {
            e.currentTarget.blur();
            if (on) stopRecording();
            else record();
          }}
        >
          {on ? "Stop" : "Record"}
        </Button>
        <ComputerKeys />
        <Check on={settings.countIn} set={(countIn) => set({ countIn })}>
          count-in
        </Check>
        <Check on={settings.click} set={(click) => set({ click })}>
          click
        </Check>
        <Check on={settings.rounds} set={(rounds) => set({ rounds })}>
          a take each round
        </Check>
      </div>
      {playIn && <p className="small">{keys}</p>}
      <p className={`played-notes ${phase}`} role="status">
        <b>{PHASES[phase]}</b> {heard}
      </p>
      <OnTheGrid settings={settings} set={set}>
        {children}
      </OnTheGrid>
    </>
  );
}

/** How what was played is set on the grid, and what it does to what was there. */
function OnTheGrid({ settings, set, children }: Pick<Props, "settings" | "set" | "children">) {
  return (
    <>
      <div className="controls">
        <Select
          label="Set on"
          text="set on"
          value={settings.grid}
          choices={[
            [Meter.QUARTER, "quarters"],
            [Meter.EIGHTH, "eighths"],
            [Meter.SIXTEENTH, "sixteenths"],
            [Meter.EIGHTH_TRIPLET, "eighth triplets"],
            [Meter.SIXTEENTH_TRIPLET, "sixteenth triplets"],
          ]}
          set={(grid) => set({ grid })}
        />
        {children}
      </div>
      <Slider
        from="as played"
        to="on the grid"
        label="How strictly on the grid"
        value={settings.strength}
        step={0.05}
        set={(strength) => set({ strength })}
      />
      <div className="controls">
        <Select
          label="What was there"
          text="what was there"
          value={settings.mode}
          choices={[
            ["replace", "gives way"],
            ["add", "stays, the new notes join it"],
          ]}
          set={(mode) => set({ mode })}
        />
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
        <Button onClick={audition}>Hear</Button>
        <Button className="primary" onClick={() => accept() && dropRecording()}>
          Take
        </Button>
        <Button onClick={dropRecording}>Drop it</Button>
      </p>
    </div>
  );
}
