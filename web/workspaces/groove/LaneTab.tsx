import Table from "react-bootstrap/Table";
import { useState } from "react";
import {
  type Drum,
  Drums,
  type Edit,
  firstOf,
  Groove,
  type Hit,
  type Lane,
  lastOf,
  Meter,
  Pitch,
} from "../../../core/src/index";
import type { SectionData } from "../../app/store/sectionData";
import { edit, say } from "../../app/store/song";
import { Check } from "../../kit/Check";
import { InPlace } from "../../kit/InPlace";
import { Select } from "../../kit/Select";
import { Slider } from "../../kit/Slider";
import { milliseconds, percent, ticksOf, typedPitch } from "../../kit/texts";
import { Button } from "../../kit/Button";

type LaneChange = Extract<Edit, { do: "setLane" }>["change"];
type HitChange = Extract<Edit, { do: "changeHit" }>["change"];

/** Loudness of a roll at its beginning and at its end. */
const [ROLL_FROM, ROLL_TO] = [36, 112];
/** Bars whose hits are listed. */
const LISTED_BARS = 2;

interface Props {
  data: SectionData;
  lane: Lane;
  set(change: LaneChange, quiet?: boolean): boolean;
}

/** One lane: how it is called, mapped and played, and its single hits. */
export function LaneTab({ data }: { data: SectionData }) {
  const { section } = data;
  const [drum, setDrum] = useState<Drum>("closedHat");
  const stored = section.groove.lanes.find((l) => l.drum === drum);
  const lane: Lane = stored ?? { drum, hits: [] };
  const set = (change: LaneChange, quiet = false) =>
    edit({ do: "setLane", section: section.id, drum, change }, { quiet });
  const used = (d: Drum) => section.groove.lanes.some((l) => l.drum === d && l.hits.length);
  return (
    <>
      <div className="controls">
        <Select
          label="Lane"
          value={drum}
          choices={Drums.ALL.map((d) => [d, `${Drums.laneName(section, d)}${used(d) ? "" : " (empty)"}`])}
          set={setDrum}
        />
        {!stored && <Button onClick={() => set({})}>Add the lane</Button>}
      </div>
      <Naming data={data} lane={lane} set={set} />
      <Feel data={data} lane={lane} set={set} />
      <h3>Hits of the first two bars</h3>
      <Hits data={data} lane={lane} />
    </>
  );
}

function Naming({ lane, set }: Props) {
  const { note: usual } = Drums.KINDS[lane.drum];
  return (
    <Table bsPrefix="measures" className="facts">
      <tbody>
        <tr>
          <th scope="row">name</th>
          <td>
            <InPlace label="Name of the lane" value={Drums.laneTitle(lane)} commit={(name) => set({ name })} />
          </td>
        </tr>
        <tr>
          <th scope="row">MIDI note</th>
          <td>
            <InPlace
              label="MIDI note of the lane"
              value={String(lane.note ?? usual)}
              commit={(text) => set({ note: Number(text) === usual ? null : Number(text) })}
            />
          </td>
        </tr>
      </tbody>
    </Table>
  );
}

/** Swing, early or late, tuned; a roll, or nothing. */
function Feel({ data: { song, section, meter }, lane, set }: Props) {
  const swing = lane.swing ?? song.swing.ratio;
  const offset = lane.offset ?? 0;
  const end = section.bars * meter.bar;
  const last = end - meter.bar + lastOf(meter.beats).start;
  return (
    <>
      <Slider
        className="slider"
        label="Swing of the lane"
        from="swing"
        to={`${percent(swing)}${lane.swing === undefined ? " (song)" : ""}`}
        value={swing}
        min={0.5}
        max={0.75}
        step={0.01}
        set={(n, quiet) => set({ swing: Math.round(n * 100) / 100 }, quiet)}
      />
      <Slider
        className="slider"
        label="The lane late or early"
        from="late or early"
        to={`${milliseconds(offset, song.tempo)} ms`}
        value={offset}
        min={-60}
        max={60}
        step={2}
        set={(n, quiet) => set({ offset: n || null }, quiet)}
      />
      <div className="controls">
        {lane.swing !== undefined && <Button onClick={() => set({ swing: null })}>Swing with the song</Button>}
        {Drums.TUNABLE.includes(lane.drum) && (
          <Check on={lane.tuned ?? false} set={(on) => set({ tuned: on || null })}>
            tuned
          </Check>
        )}
        <Button
          title="Thirty-second notes over the last beat, from soft to loud"
          onClick={() =>
            set({
              hits: [
                ...lane.hits.filter((h) => h.start < last),
                ...Groove.roll(last, end, Meter.THIRTY_SECOND, { from: ROLL_FROM, to: ROLL_TO }),
              ],
            })
          }
        >
          Roll into the next bar
        </Button>
        <Button disabled={!lane.hits.length} onClick={() => set({ hits: [] })}>
          Empty it
        </Button>
      </div>
    </>
  );
}

function Hits({ data, lane }: { data: SectionData; lane: Lane }) {
  const hits = lane.hits.filter((h) => h.start < LISTED_BARS * data.meter.bar);
  if (!hits.length) return <p className="small">No hit yet. Add the lane and paint in its row.</p>;
  return (
    <Table bsPrefix="measures" className="hits">
      <thead>
        <tr>
          <th scope="col">where</th>
          <th scope="col">loud</th>
          <th scope="col">off the grid</th>
          {lane.drum === "openHat" && <th scope="col">rings</th>}
          {lane.tuned && <th scope="col">pitch</th>}
        </tr>
      </thead>
      <tbody>
        {hits.map((h) => (
          <HitRow key={h.start} data={data} lane={lane} hit={h} />
        ))}
      </tbody>
    </Table>
  );
}

function HitRow({ data: { section, song, meter }, lane, hit: h }: { data: SectionData; lane: Lane; hit: Hit }) {
  const where = Meter.position(meter, h.start);
  const beat = firstOf(meter.beats).duration;
  const change = (fields: HitChange) =>
    edit({ do: "changeHit", section: section.id, drum: lane.drum, start: h.start, change: fields });
  const number = (take: (n: number) => HitChange) => (text: string) =>
    Number.isFinite(Number(text)) && change(take(Number(text)));
  return (
    <tr>
      <th scope="row">{where}</th>
      <td>
        <InPlace
          label={`Velocity at ${where}`}
          value={String(h.velocity)}
          commit={number((n) => ({ velocity: Math.round(n) }))}
        />
      </td>
      <td>
        <InPlace
          label={`Milliseconds late at ${where}`}
          value={String(milliseconds(h.offset ?? 0, song.tempo))}
          commit={number((ms) => ({ offset: ticksOf(ms, song.tempo) || null }))}
          suffix="ms"
        />
      </td>
      {lane.drum === "openHat" && (
        <td>
          <InPlace
            label={`Length in beats at ${where}`}
            value={h.duration ? String(h.duration / beat) : "free"}
            commit={(t) =>
              t === "free"
                ? change({ duration: null })
                : Number(t) > 0 && change({ duration: Math.round(Number(t) * beat) })
            }
          />
        </td>
      )}
      {lane.tuned && (
        <td>
          <InPlace
            label={`Pitch at ${where}`}
            value={h.pitch ? Pitch.typeset(h.pitch) : "–"}
            commit={(t) => {
              const pitch = typedPitch(t, say);
              return pitch !== null && change({ pitch });
            }}
          />
        </td>
      )}
    </tr>
  );
}
