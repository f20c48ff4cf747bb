import { memo, useCallback, useEffect, useState } from "react";
import { firstOf, Meter, Pitch, Plain, type RealizedChord, Song, type Ticks } from "../../../core/src/index";
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

/** How often the place of the playhead is read while the band plays, in milliseconds. */
const TICK = 70;

/** Something of the playhead, read now and then; null while nothing plays. It is drawn where it says something else. */
function useAtHead<T>(read: (tick: Ticks) => T, same: (a: T, b: T) => boolean = Object.is): T | null {
  const playing = useSound((s) => s.playing);
  const [shown, show] = useState<T | null>(null);
  useEffect(() => {
    if (!playing) {
      show(null);
      return;
    }
    const look = () => {
      const tick = playheadIn(useSelection.getState().section);
      show((before) => {
        const now = tick === null ? null : read(tick);
        return before !== null && now !== null && same(before, now) ? before : now;
      });
    };
    look();
    const timer = setInterval(look, TICK);
    return () => clearInterval(timer);
  }, [playing, read, same]);
  return playing ? shown : null;
}

/** Where one looks while nothing plays: at the chosen chord, at the chosen note, or where playing was set to begin. */
function useChosenPlace(data: SectionData): Ticks | null {
  const from = usePlayback((s) => s.from);
  const chord = useSelection((s) => s.chord);
  const chosen = useSelection((s) => s.notes);
  const event = data.section.chords.find((c) => c.id === chord);
  const note = chosen.ids.length
    ? data.real.parts.find((p) => p.id === chosen.part)?.notes.find((n) => n.id === chosen.ids[0])
    : undefined;
  return event?.start ?? (note ? Math.max(0, note.start) : from);
}

/** What sounds where one looks, and the chord there. */
interface Heard {
  chord: RealizedChord | null;
  sounding: readonly Sounding[];
}
const heardAt = (data: SectionData, at: Ticks): Heard => ({
  chord: Song.chordAt(data.real.chords, at),
  sounding: soundingAt(data, at),
});
const sameHeard = (a: Heard, b: Heard): boolean =>
  a.chord === b.chord && Plain.keptItems(a.sounding, [...b.sounding]) === a.sounding;

/** Play, position, and what sounds now: on the keyboard and in words. */
export const Transport = memo(function Transport({ data }: { data: SectionData }) {
  const at = useChosenPlace(data);
  const playing = useSound((s) => s.playing);
  return (
    <footer className="transport">
      <PlayButton />
      <div className="where">
        <Position name={data.section.name} meter={data.meter} at={at} />
        <Switches length={data.length} />
      </div>
      {playing ? <AtHead data={data} /> : <Shown data={data} heard={at === null ? null : heardAt(data, at)} />}
    </footer>
  );
});

function PlayButton() {
  const playing = useSound((s) => s.playing);
  const loading = useSound((s) => s.loading);
  const icon = playing ? "bi-stop-fill" : "bi-play-fill";
  return (
    <Button
      className="play"
      aria-label={playing ? "Stop" : "Play"}
      title="Space"
      onClick={() => (playing ? stop() : void play())}
    >
      <i className={loading ? "bi-hourglass-split" : icon} />
    </Button>
  );
}

/** What sounds at the playhead. */
function AtHead({ data }: { data: SectionData }) {
  const heard = useAtHead(
    useCallback((tick: Ticks) => heardAt(data, tick), [data]),
    sameHeard,
  );
  return <Shown data={data} heard={heard} />;
}

const Shown = ({ data, heard }: { data: SectionData; heard: Heard | null }) => (
  <>
    <Keyboard data={data} sounding={heard?.sounding ?? []} />
    <Now data={data} heard={heard} />
  </>
);

function Position({ name, meter, at }: { name: string; meter: Meter; at: Ticks | null }) {
  const whole = usePlayback((s) => s.wholeSong);
  const playing = useSound((s) => s.playing);
  const step = useAtHead(toStep);
  let text: string;
  if (playing && step !== null) text = `${whole ? `${name}, ` : ""}${Meter.position(meter, step)}`;
  else if (at !== null) text = Meter.position(meter, at);
  else text = "Stopped";
  return <b className="tabular">{text}</b>;
}
/** The sixteenth that a tick lies in. */
const toStep = (tick: Ticks): Ticks => Math.floor(tick / Meter.SIXTEENTH) * Meter.SIXTEENTH;

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
function Now({ data, heard }: { data: SectionData; heard: Heard | null }) {
  const playing = useSound((s) => s.playing);
  if (!heard) return <p className="now">Choose a chord or press Space</p>;
  const { chord, sounding } = heard;
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
