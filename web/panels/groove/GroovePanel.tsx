import { useEffect, useMemo, useState } from "react";
import { DRUM_PATTERNS, mergeLanes, patternLanes, withFill, withVariation, type Edit, type Lane } from "../../../core/src/index";
import type { ScoreData } from "../../score/data";
import { useSong } from "../../store/song";
import { GROOVE_TABS, useView, type Offer } from "../../store/view";
import { OfferButtons } from "../chords/offers";
import { AccentsTab } from "./AccentsTab";
import { DrumPlay } from "./DrumPlay";
import { Euclidean } from "./Euclidean";
import { LaneTab } from "./LaneTab";
import { MidiFile } from "../chords/MidiFile";
import { acceptEdit, useStored } from "../hear";

const STEPS: [number, string][] = [
  [120, "sixteenths"],
  [240, "eighths"],
  [160, "eighth triplets"],
  [80, "sixteenth triplets"],
  [60, "thirty-seconds"],
];
const TITLES = { patterns: "Patterns", lanes: "Lanes", accents: "Accents", "play in": "Play in", file: "File" };

export function GroovePanel({ data }: { data: ScoreData }) {
  const { drumGrid, grooveTab: tab, set } = useView();
  return (
    <>
      <h2>Groove, {data.section.name.toLowerCase()}</h2>
      <p className="small">
        Click or drag in the drum grid to paint, click a hit to take it away. Drag it up or down for its loudness, with Alt sideways off the
        grid. Shift-click a kick to mark it as a main accent.
      </p>
      <div className="controls">
        <label>
          <span className="muted">steps are</span>
          <select aria-label="Steps of the grid" value={drumGrid} onChange={(e) => set({ drumGrid: Number(e.target.value) })}>
            {STEPS.map(([ticks, label]) => (
              <option key={ticks} value={ticks}>
                {label}
              </option>
            ))}
          </select>
        </label>
      </div>
      <div className="tabs" role="tablist" aria-label="Groove">
        {GROOVE_TABS.map((t) => (
          <button key={t} type="button" role="tab" aria-selected={tab === t} onClick={() => set({ grooveTab: t })}>
            {TITLES[t]}
          </button>
        ))}
      </div>
      {tab === "patterns" && <Patterns data={data} />}
      {tab === "play in" && <DrumPlay data={data} />}
      {tab === "file" && (
        <>
          <p className="small">Drums of a Standard MIDI File: choose track and channel, the bars, and the lane of every drum note.</p>
          <MidiFile data={data} only="drums" />
        </>
      )}
      {tab === "lanes" && <LaneTab data={data} />}
      {tab === "accents" && <AccentsTab data={data} />}
    </>
  );
}

/** Generic patterns to hear and take, and what is done with the one that stands. */
function Patterns({ data }: { data: ScoreData }) {
  const edit = useSong((s) => s.edit);
  const set = useView((s) => s.set);
  const offers = useView((s) => s.offers);
  const [add, setAdd] = useState(false);
  const [pass, setPass] = useState(2);
  const [seed, setSeed] = useState(1);
  const { section, meter, length } = data;
  // What is built on is what is stored, not a pattern that is just being heard.
  const { lanes } = useStored(section.id).section.groove;
  const made = useMemo(
    () =>
      DRUM_PATTERNS.map((pattern): Offer => {
        const fresh = patternLanes(pattern, meter, section.bars);
        const put: Edit = { do: "setDrums", section: section.id, lanes: add ? mergeLanes(lanes, fresh) : fresh };
        return {
          id: `pattern:${section.id}:${pattern.id}:${add}`,
          label: pattern.title.toLowerCase(),
          edit: put,
          from: 0,
          to: Math.min(length, 4 * meter.bar),
          whole: true,
        };
      }),
    [meter, section.id, section.bars, lanes, add, length],
  );
  useEffect(() => {
    set({ offers: made });
    return () => set({ offers: [] });
  }, [made, set]);
  const filled = [...new Set(lanes.flatMap((l) => l.hits.map((h) => Math.floor(h.start / meter.bar))))].sort((a, b) => a - b);
  const put = (next: Lane[]) => acceptEdit({ do: "setDrums", section: section.id, lanes: next });
  const has = filled.length > 0;
  return (
    <>
      <label className="controls">
        <input type="checkbox" checked={add} onChange={(e) => setAdd(e.target.checked)} /> add to what is there instead of replacing it
      </label>
      <ol className="offer-list" aria-label="Patterns">
        {DRUM_PATTERNS.map((p, i) => (
          <li key={p.id}>
            <span className="offer-head">
              <b>{i + 1}</b>
              <span className="offer-chords">{p.title}</span>
              {offers[i] && made[i] && <OfferButtons offer={made[i]} bar={meter.bar} end={length} />}
            </span>
            <span className="small offer-why">
              {p.explanation}
              {p.swing && ` Usually swung, about ${Math.round(p.swing * 100)} %.`}
            </span>
          </li>
        ))}
      </ol>
      <Euclidean data={data} />
      <h3>Shape it</h3>
      <div className="controls">
        <button
          type="button"
          disabled={!has || section.bars < 2}
          onClick={() => edit({ do: "repeatDrums", section: section.id, bar: filled[0]! })}
        >
          Repeat bar {(filled[0] ?? 0) + 1} through the section
        </button>
      </div>
      <div className="controls">
        <button
          type="button"
          disabled={!has}
          onClick={() => {
            if (put(withFill(lanes, meter, section.bars - 1, 1, seed))) setSeed(seed + 1);
          }}
        >
          Fill on the last beat
        </button>
        <button
          type="button"
          disabled={!has}
          onClick={() => {
            if (put(withFill(lanes, meter, section.bars - 1, Math.ceil(meter.beats.length / 2), seed))) setSeed(seed + 1);
          }}
        >
          Fill half the last bar
        </button>
      </div>
      <div className="controls">
        <button
          type="button"
          disabled={!has || section.bars <= pass}
          onClick={() => {
            if (put(withVariation(lanes, meter, pass, length, seed))) setSeed(seed + 1);
          }}
        >
          Vary every second pass
        </button>
        <label>
          of{" "}
          <select aria-label="Bars of a pass" value={pass} onChange={(e) => setPass(Number(e.target.value))}>
            {[1, 2, 4].map((n) => (
              <option key={n} value={n}>
                {n} {n === 1 ? "bar" : "bars"}
              </option>
            ))}
          </select>
        </label>
      </div>
      <p className="small">Each click is another try; undo goes back.</p>
    </>
  );
}
