import { Drums, Instrument, type Midi, type Part, Pitch } from "../../core/src/index";
import { usePlayback } from "../app/store/playback";
import { setLane } from "../app/store/selection";
import { edit, usePass } from "../app/store/song";
import { memo } from "react";
import type { DrumData, LaneData } from "./laneData";
import { laneScale, octaves } from "./laneScale";
import { LaneMenu } from "./LaneMenu";
import { rowsOf, type LaneBox } from "./layout";
import { Toggle } from "../kit/Toggle";
import { Button } from "../kit/Button";

/** Whether a name in the list of solo players belongs to a part: a single drum belongs to the drums. */
const belongs = (part: Part, id: string): boolean => id === part.id || (part.role === "drums" && Drums.of(id) !== null);

/** Hears a part alone, or with the others again. */
export function toggleSolo(part: Part): void {
  const { solo } = usePlayback.getState();
  const on = solo.some((id) => belongs(part, id));
  usePlayback.setState({ solo: on ? solo.filter((id) => !belongs(part, id)) : [...solo, part.id] });
}

/** What a part is played on, where its name does not say it; that it is out in the pass. */
function Role({ part, instrument }: { part: Part; instrument: string }) {
  const out = usePass()?.muted?.includes(part.id) ?? false;
  if (out) return <span className="role">out in this pass</span>;
  if (part.role === "drums" || instrument === part.name) return null;
  return <span className="role">{Pitch.typesetAll(instrument)}</span>;
}

interface Props {
  source: Part;
  section: LaneData["section"];
  instruments?: LaneData["instruments"];
  box: LaneBox;
  /** The drums, whose rows have names. */
  groove?: DrumData["groove"];
  /** The pitches of another lane, whose octaves are named, and its height without words. */
  low?: Midi;
  high?: Midi;
  foot?: number;
}

/** The head of a lane: who plays it, on what, whether it is heard, and how high it stands. */
export const LaneLabel = memo(function LaneLabel({ source: part, section, instruments, box, ...marks }: Props) {
  const soloed = usePlayback((s) => s.solo.some((id) => belongs(part, id)));
  const instrument = Instrument.of(part.instrument, instruments ? { instruments } : {}).title;
  const open = !box.folded;
  return (
    <div className="lane-label">
      <span className="lane-name">
        <b title={part.name}>{part.name}</b>
        <LaneMenu section={section} part={part} />
      </span>
      {open && <Role part={part} instrument={instrument} />}
      <span className="lane-tools">
        <Toggle
          on={part.muted ?? false}
          label={`mute ${part.name}`}
          title="Mute (M)"
          press={() => edit({ do: "setPart", part: part.id, muted: !part.muted })}
        >
          mute
        </Toggle>
        <Toggle on={soloed} label={`solo ${part.name}`} title="Solo (S)" press={() => toggleSolo(part)}>
          solo
        </Toggle>
        <Button
          title={open ? "Fold to a strip" : "Unfold"}
          aria-expanded={open}
          aria-label={`${open ? "fold" : "unfold"} ${part.name}`}
          onClick={() => setLane(part.id, !open)}
        >
          {open ? "▾" : "▸"}
        </Button>
      </span>
      {open && marks.groove && <DrumNames groove={marks.groove} height={box.height} />}
      {open && marks.high !== undefined && <Octaves {...marks} high={marks.high} />}
    </div>
  );
});

const DrumNames = ({ groove, height }: { groove: DrumData["groove"]; height: number }) =>
  rowsOf({ groove }).map((drum, i, { length }) => (
    <i key={drum} className="drum-name" style={{ top: (i * height) / length, lineHeight: `${height / length}px` }}>
      {Drums.laneName({ groove }, drum)}
    </i>
  ));

function Octaves({ low = 0, high, foot = 0 }: { low?: Midi; high: Midi; foot?: number }) {
  const scale = laneScale([low, high], foot);
  return octaves(low, high).map((m) => (
    <i key={m} className="octave" style={{ top: scale.y(m) }}>
      C{m / 12 - 1}
    </i>
  ));
}
