import { memo, useEffect, useState } from "react";
import { firstOf, Meter, Pitch, Song, type Ticks } from "../../../core/src/index";
import { play, playhead, playheadIn, stop, useSound } from "../../app/audio/sound";
import { clearLoop, toggleLoop, usePlayback } from "../../app/store/playback";
import type { SectionData } from "../../app/store/sectionData";
import { useSelection } from "../../app/store/selection";
import { ChordName } from "../../kit/ChordName";
import { Select } from "../../kit/Select";
import { Keyboard } from "./Keyboard";
import { soundingAt, type Sounding } from "./sounding";
import { Toggle } from "../../kit/Toggle";
import { Button } from "../../kit/Button";

/** How often the position is read while the band plays, in milliseconds. */
const TICK = 70;

/** The playhead, read now and then; null while nothing plays. */
function usePosition(): Ticks | null {
  const playing = useSound((s) => s.playing);
  const [tick, setTick] = useState<Ticks | null>(null);
  useEffect(() => {
    if (!playing) {
      setTick(null);
      return;
    }
    const timer = setInterval(() => setTick(playheadIn(useSelection.getState().section)), TICK);
    return () => clearInterval(timer);
  }, [playing]);
  return tick;
}

/**
 * Where one looks: at the playhead; stopped, at the chosen chord, at the chosen note, or where playing was set to
 * begin.
 */
function usePlaceInView(data: SectionData, tick: Ticks | null): Ticks | null {
  const from = usePlayback((s) => s.from);
  const chord = useSelection((s) => s.chord);
  const chosen = useSelection((s) => s.notes);
  const playing = useSound((s) => s.playing);
  if (playing) return tick;
  const event = data.section.chords.find((c) => c.id === chord);
  const note = chosen.ids.length
    ? data.real.parts.find((p) => p.id === chosen.part)?.notes.find((n) => n.id === chosen.ids[0])
    : undefined;
  return event?.start ?? (note ? Math.max(0, note.start) : from);
}

/** Play, position, and what sounds now: on the keyboard and in words. */
export const Transport = memo(function Transport({ data }: { data: SectionData }) {
  const playing = useSound((s) => s.playing);
  const loading = useSound((s) => s.loading);
  const tick = usePosition();
  const at = usePlaceInView(data, tick);
  const sounding = at === null ? [] : soundingAt(data, at);
  const icon = playing ? "bi-stop-fill" : "bi-play-fill";
  return (
    <footer className="transport">
      <Button
        className="play"
        aria-label={playing ? "Stop" : "Play"}
        title="Space"
        onClick={() => (playing ? stop() : void play())}
      >
        <i className={loading ? "bi-hourglass-split" : icon} />
      </Button>
      <div className="where">
        <Position data={data} tick={tick} at={at} />
        <Switches length={data.length} />
      </div>
      <Keyboard data={data} sounding={sounding} />
      <Now data={data} at={at} sounding={sounding} />
    </footer>
  );
});

function Position({ data, tick, at }: { data: SectionData; tick: Ticks | null; at: Ticks | null }) {
  const whole = usePlayback((s) => s.wholeSong);
  let text: string;
  if (tick !== null && whole)
    text = `${data.section.name}, ${Meter.position(data.meter, Math.floor(tick / Meter.SIXTEENTH) * Meter.SIXTEENTH)}`;
  else if (tick !== null) text = Meter.position(data.meter, Math.floor(tick / Meter.SIXTEENTH) * Meter.SIXTEENTH);
  else if (at !== null) text = Meter.position(data.meter, at);
  else text = "Stopped";
  return <b className="tabular">{text}</b>;
}

const SPEEDS = [1, 0.9, 0.8, 0.7, 0.6, 0.5];

const Switches = memo(function Switches({ length }: { length: Ticks }) {
  const loop = usePlayback((s) => s.loop);
  const whole = usePlayback((s) => s.wholeSong);
  const click = usePlayback((s) => s.click);
  const countIn = usePlayback((s) => s.countIn);
  const speed = usePlayback((s) => s.speed);
  const playing = useSound((s) => s.playing);
  return (
    <div className="play-switches">
      <Toggle
        on={!whole && (loop?.on ?? true)}
        title="Again and again: the section, or the bars chosen in the ruler (L)"
        press={() => toggleLoop(length)}
      >
        loop
      </Toggle>
      <Button
        className="quiet"
        disabled={!loop || (loop.from === 0 && loop.to === length)}
        title="The whole section again (Shift L)"
        aria-label="clear the looped bars"
        onClick={clearLoop}
      >
        ×
      </Button>
      <Toggle
        on={whole}
        title="Play the whole form once"
        press={() => usePlayback.setState({ wholeSong: !whole, passes: null })}
      >
        whole song
      </Toggle>
      <Toggle on={click} title="Metronome" press={() => usePlayback.setState({ click: !click })}>
        click
      </Toggle>
      <Toggle on={countIn} title="Count in one bar" press={() => usePlayback.setState({ countIn: !countIn })}>
        count-in
      </Toggle>
      <Select
        label="Practice tempo"
        title="Tempo for practice; the song keeps its own"
        value={speed}
        choices={SPEEDS.map((s) => [s, `${s * 100} %`])}
        set={(s) => {
          const now = playhead();
          usePlayback.setState({ speed: s });
          if (playing) void play(now ?? undefined);
        }}
      />
    </div>
  );
});

/** The chord of the moment, and what each part has in it. */
function Now({ data, at, sounding }: { data: SectionData; at: Ticks | null; sounding: readonly Sounding[] }) {
  const playing = useSound((s) => s.playing);
  const chord = at === null ? null : Song.chordAt(data.real.chords, at);
  if (at === null) return <p className="now">Choose a chord or press Space</p>;
  if (!chord) return <p className="now">No chord here</p>;
  const words = data.real.parts
    .filter((p) => p.role !== "drums")
    .map((p) => ({
      name: firstOf(p.name.split(",")),
      roles: sounding.filter((s) => s.part.id === p.id).map((s) => Pitch.typeset(s.role?.label ?? "–")),
    }))
    .filter((w) => w.roles.length)
    .map((w) => `${w.name} ${w.roles.join(" ")}`);
  return (
    <p className="now">
      {playing ? "Now" : "Here"}: <ChordName symbol={chord.symbol} /> {words.join(" · ") || "nothing sounds"}
    </p>
  );
}
