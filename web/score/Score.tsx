import { memo, useCallback, useEffect, useMemo } from "react";
import { Instrument, type Part, type Pass, sure } from "../../core/src/index";
import { usePreferences } from "../app/store/preferences";
import { useResults } from "../app/store/results";
import type { SectionData } from "../app/store/sectionData";
import { useSelection } from "../app/store/selection";
import { edit, storedSong, usePass } from "../app/store/song";
import { InPlace } from "../kit/InPlace";
import { makeAxis, zoomForBars, zoomToFit, type Axis, type Window } from "./axis";
import { ChordRow } from "./ChordRow";
import { DrumLane } from "./DrumLane";
import { LaneLabel } from "./LaneLabel";
import { useNumbered, type Numbered } from "./findings";
import { useLanes, type DrumData, type LaneData } from "./laneData";
import { LABEL_WIDTH, laneBoxes, laneOrder, rowsOf, type LaneBox, SCORE_VARIABLES, TOP_HEIGHT } from "./layout";
import { laneFoot, partRange } from "./laneScale";
import { PitchLane } from "./PitchLane";
import { useRow } from "./rowData";
import { Strip } from "./Strip";
import "./style.scss";
import { useTurn } from "../app/turns";
import { showLane, useFound, usePlayhead, useViewport } from "./useViewport";

const TINTS: Partial<Record<Part["role"], string>> = {
  bass: "tint-bass",
  chords: "tint-chords",
  counter: "tint-counter",
  vocal: "tint-vocal",
};

const tintOf = (part: Part): string =>
  part.role === "drums"
    ? ""
    : (TINTS[part.role] ?? (Instrument.of(part.instrument).sound === "voice" ? "tint-vocal" : "tint-counter"));

/** Pixels drawn beyond the edges, so that scrolling shows no gaps. */
const BEYOND = 250;
/** Room behind the last bar. */
const BEHIND = 2;
/** Keeps the zoom as the window asks for, until one zooms by hand. */
function useFit(width: number, { pickup, section: { bars }, meter }: SectionData): void {
  const fit = usePreferences((s) => s.fit);
  useEffect(() => {
    if (!fit) return;
    const room = width - LABEL_WIDTH;
    const zoom =
      fit === "section"
        ? zoomToFit(room - BEHIND, pickup, bars * meter.bar)
        : zoomForBars(room - BEHIND, pickup, bars, meter);
    usePreferences.setState({ zoom });
  }, [fit, width, pickup, bars, meter]);
}

const NOBODY: readonly string[] = [];

/** Which pass is shown, where it is not as its section is or is written alone. */
function PassNote({ data }: { data: SectionData }) {
  const pass = usePass();
  const here = useSelection((s) => s.here);
  if (pass?.sectionId !== data.section.id || !(here || pass.own || pass.transpose || pass.playing || pass.name))
    return null;
  return (
    <span className="pass-note">
      {pass.name ?? timeOf(pass)}
      {pass.transpose ? `, ${pass.transpose > 0 ? "up" : "down"} ${Math.abs(pass.transpose)}` : ""}
      {here && <b>written for this pass alone</b>}
    </span>
  );
}

/** "time 2" */
const timeOf = ({ id, sectionId }: Pass): string =>
  `time ${
    storedSong()
      .form.filter((p) => p.sectionId === sectionId)
      .findIndex((p) => p.id === id) + 1
  }`;

interface Props {
  data: SectionData;
  /** Parts the work is about. */
  focus: readonly string[];
}

/**
 * The lanes of a section over time: highest register on top, drums at the bottom. Those the work is about stand high.
 */
export const Score = memo(function Score({ data, focus }: Props) {
  const zoom = usePreferences((s) => s.zoom);
  const chosen = useSelection((s) => s.lanes);
  const findings = useResults((s) => s.findings);
  const out = usePass()?.muted ?? NOBODY;
  const view = useViewport();
  const axis = useMemo(() => makeAxis(zoom, data.pickup, data.length), [zoom, data.pickup, data.length]);
  const parts = useMemo(() => laneOrder(data.song.parts), [data.song.parts]);
  const { head, again } = usePlayhead(view.ref, axis);
  const { onScroll } = view;
  const scrolled = useCallback(() => {
    onScroll();
    again();
  }, [onScroll, again]);
  useFit(view.width, data);
  const window = useMemo(
    () => ({ from: view.left - BEYOND, to: view.left + view.width + BEYOND }),
    [view.left, view.width],
  );
  const lanes = useLanes(data);
  const row = useRow(data);
  const rows = rowsOf(data.section).length;
  const boxes = useMemo(
    () => laneBoxes(parts, rows, view.height - TOP_HEIGHT, { focus, chosen }),
    [parts, rows, view.height, focus, chosen],
  );
  const found = useNumbered(
    findings,
    useMemo(() => parts.map((p) => p.id), [parts]),
  );
  // What one works in comes into view with its workspace.
  const first = focus[0];
  useEffect(() => {
    if (view.ref.current) showLane(view.ref.current, first);
  }, [first, view.ref]);
  useFound(view.ref, axis, findings);
  return (
    <div className="score" ref={view.ref} onScroll={scrolled} style={SCORE_VARIABLES}>
      <div className="score-inner" style={{ width: LABEL_WIDTH + axis.width }}>
        <div className="playhead" ref={head} aria-hidden="true" />
        <div className="lane top">
          <div className="lane-label">
            <InPlace
              label="Name of the section"
              value={data.section.name}
              commit={(name) => edit({ do: "setSection", section: data.section.id, name })}
            />
            <PassNote data={data} />
          </div>
          <ChordRow data={row} axis={axis} window={window} />
        </div>
        {parts.map((part, i) => (
          <Lane
            key={part.id}
            data={sure(lanes.pitched.get(part.id) ?? lanes.drums.get(part.id))}
            axis={axis}
            window={window}
            box={sure(boxes.get(part.id))}
            rows={rows}
            out={out.includes(part.id)}
            found={found(part.id)}
            lined={focus.includes(part.id)}
            order={focus.includes(part.id) ? 0 : i + 1}
          />
        ))}
      </div>
    </div>
  );
});

interface LaneProps {
  data: LaneData | DrumData;
  axis: Axis;
  window: Window;
  box: LaneBox;
  /** Rows of the drum grid. */
  rows: number;
  /** It is out in the pass in view. */
  out: boolean;
  found: readonly Numbered[];
  lined: boolean;
  /** Which lane is drawn first. */
  order: number;
}

/** Octaves that are named at the head of a lane, and the instruments it knows. */
function marksOf(data: LaneData, height: number) {
  const [low, high] = partRange(data.part, data);
  const { instruments } = data;
  return { low, high, foot: laneFoot(data.part.notes, height), ...(instruments ? { instruments } : {}) };
}

/** One part over time: its head, and its notes, hits, or both as a strip. */
const Lane = memo(function Lane({ data, axis, window, box, rows, out, found, lined, order }: LaneProps) {
  const drawn = useTurn(order);
  const part = data.source;
  const tint = tintOf(part);
  const state = `${box.folded ? " folded" : ""}${out ? " out" : ""}`;
  return (
    <section
      id={`lane-${part.id}`}
      className={`lane ${part.role} ${tint}${state}`}
      style={{ height: box.height }}
      aria-label={part.name}
    >
      {drawn && (
        <>
          <LaneLabel
            source={part}
            section={data.section}
            box={box}
            {...("part" in data ? marksOf(data, box.height) : { groove: data.groove })}
          />
          {box.folded && <Strip data={data} axis={axis} window={window} />}
          {!box.folded && "groove" in data && (
            <DrumLane data={data} axis={axis} window={window} row={box.height / rows} />
          )}
          {!box.folded && "part" in data && (
            <PitchLane
              data={data}
              axis={axis}
              height={box.height}
              tint={tint}
              window={window}
              found={found}
              lined={lined}
            />
          )}
        </>
      )}
    </section>
  );
});
