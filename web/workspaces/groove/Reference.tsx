import FormControl from "react-bootstrap/FormControl";
import { useState } from "react";
import { type AccentMap, Drums, type Edit, firstOf, Groove, Meter, type Nearness } from "../../../core/src/index";
import { acceptEdit, auditionEdit } from "../../app/commands/audition";
import type { SectionData } from "../../app/store/sectionData";
import { edit, useStored } from "../../app/store/song";
import { HearTake } from "../../kit/HearTake";
import { Refused } from "../../kit/Refused";
import { Select } from "../../kit/Select";
import { Slider } from "../../kit/Slider";
import { percent } from "../../kit/texts";
import { Button } from "../../kit/Button";

/** Share of the bars in which a step is played, from which it belongs to the rhythm: every sixth. */
const BELONGS = 0.15;

/** A rhythm beside one it should not come too close to. */
export function Reference({ data, map }: { data: SectionData; map: AccentMap }) {
  const { song } = useStored(data.section.id);
  const drums = song.parts.find((p) => p.role === "drums");
  const stored = drums?.playing.drums?.reference ?? "";
  const [text, setText] = useState(stored);
  const [chosen, choose] = useState("");
  const row =
    map.rows.find((r) => r.id === chosen) ?? map.rows.find((r) => Drums.of(r.id) === "kick") ?? firstOf(map.rows);
  const reference = text.trim() ? Groove.parseReference(text) : null;
  const own = row.strength.map((s) => s > BELONGS);
  /** The reference stays with the song. */
  const keep = (next: string) => {
    if (drums && next.trim() !== stored)
      edit({ do: "setPlaying", part: drums.id, drums: { reference: next.trim() || null } });
  };
  return (
    <>
      <h3>Too close to a known rhythm?</h3>
      <div className="controls">
        <Select
          label="Rhythm to compare"
          text="compare"
          value={row.id}
          choices={map.rows.map((r) => [r.id, r.name])}
          set={choose}
        />
      </div>
      <div className="controls">
        <label>
          <span className="muted">with</span>
          <FormControl
            bsPrefix="field"
            aria-label="Reference rhythm"
            className="reference"
            placeholder="x..x..x...x.x..."
            value={text}
            onKeyDown={(e) => e.stopPropagation()}
            onChange={(e) => setText(e.target.value)}
            onBlur={() => keep(text)}
          />
        </label>
        <Button
          title="The rhythm as it stands now becomes the reference"
          onClick={() => {
            const now = own.map((x) => (x ? "x" : ".")).join("");
            setText(now);
            keep(now);
          }}
        >
          this one
        </Button>
      </div>
      {reference && !reference.ok && <Refused problem={reference.error} />}
      {reference?.ok && <Closeness data={data} map={map} id={row.id} own={own} reference={reference.value} />}
      <p className="small">
        x is a hit, a point is silence, one step {stepWords(map.step)}. Rhythms of your own to stay clear of; nothing is
        compared unless you write it here.
      </p>
    </>
  );
}

const stepWords = (step: number): string => {
  if (step === Meter.SIXTEENTH) return "a sixteenth";
  if (step === Meter.SIXTEENTH_TRIPLET) return "a sixteenth triplet";
  return "a twelfth of a beat";
};

interface ClosenessProps {
  data: SectionData;
  map: AccentMap;
  id: string;
  own: boolean[];
  reference: boolean[];
}

/** How near two rhythms are, and the least move that takes them apart. */
function Closeness({ data, map: { step: length }, id, own, reference }: ClosenessProps) {
  const { song } = useStored(data.section.id);
  const [limit, setLimit] = useState(0.7);
  const near = Groove.nearness(own, reference);
  const moves = near.share >= limit ? Groove.moveAway(own, reference, limit) : [];
  // What lies beyond the bar repeats with it.
  const within = moves.filter(([a, b]) => a < own.length && b < own.length);
  const change = within.length
    ? Groove.move(song, data.section.id, { id, moves: within, steps: own.length, tick: length })
    : null;
  const where = (step: number) => Meter.inBar(data.meter, step * length);
  return (
    <>
      <Slider
        from="too close from"
        to={percent(limit)}
        label="Too close from"
        value={limit}
        min={0.3}
        step={0.05}
        set={setLimit}
      />
      <Verdict near={near} limit={limit} where={where} />
      {change && (
        <p className="offer-head">
          <span>
            Move{" "}
            {within
              .slice(0, 3)
              .map(([a, b]) => `${where(a)} to ${where(b)}`)
              .join(", ")}
          </span>
          <Away id={id} change={change} length={data.length} />
        </p>
      )}
    </>
  );
}

const Away = ({ id, change, length }: { id: string; change: Edit; length: number }) => (
  <HearTake
    id={`away:${id}`}
    name="moved away"
    hear={() => auditionEdit(change, "moved away", `away:${id}`, { from: 0, to: length })}
    take={() => acceptEdit(change)}
  />
);

function Verdict({ near, limit, where }: { near: Nearness; limit: number; where(step: number): string }) {
  const close = Math.max(near.share, near.rotatedShare) >= limit;
  const rotated = near.rotatedBy > 0 && near.rotatedShare > near.share;
  return (
    <p role="status">
      <b className={close ? "severity warning" : ""}>{close ? "Too close" : "Far enough"}</b>: {percent(near.share)} of
      the attacks are shared
      {rotated && `, ${percent(near.rotatedShare)} when it is rotated by ${near.rotatedBy} steps`}.{" "}
      <span className="small">
        {near.swaps} {near.swaps === 1 ? "step" : "steps"} of moving make one of the other
        {near.together.length > 0 && `; together at ${near.together.slice(0, 6).map(where).join(", ")}`}.
      </span>
    </p>
  );
}
