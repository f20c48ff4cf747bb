import { useCallback, useEffect, useLayoutEffect, useMemo, useRef, useState } from "react";
import { drumOf, instrumentOf, midiRange, type Part } from "../../core/src/index";
import { playhead, useSound } from "../audio/sound";
import { useSong } from "../store/song";
import { useView } from "../store/view";
import { InPlace } from "../ui/InPlace";
import { ChordRow } from "./ChordRow";
import { makeAxis, partOfReal, type ScoreData } from "./data";
import { drumName, DrumLane, ROW, rowsOf } from "./DrumLane";
import { laneRange } from "./geometry";
import { HEAD } from "./NoteMark";
import { laneFoot, octaves } from "./LaneBack";
import { PitchLane } from "./PitchLane";

const HEAD_WIDTH = 112;
const FOLDED = 26;
const TINTS: Partial<Record<Part["role"], string>> = {
  bass: "tint-bass",
  chords: "tint-chords",
  counter: "tint-counter",
  vocal: "tint-vocal",
};

const tintOf = (part: Part): string =>
  part.role === "drums" ? "" : (TINTS[part.role] ?? (instrumentOf(part.instrument).sound === "voice" ? "tint-vocal" : "tint-counter"));
/** Highest register on top, drums at the bottom. */
const ORDER: Record<Part["role"], number> = { melody: 0, vocal: 1, counter: 2, chords: 3, bass: 4, drums: 5 };

/** Height of the ruler and the chords with their numerals. */
const TOP = 98;

export function Score({ data }: { data: ScoreData }) {
  const { zoom, folded, solo, findings, set } = useView();
  const edit = useSong((s) => s.edit);
  const playing = useSound((s) => s.playing);
  const scroller = useRef<HTMLDivElement>(null);
  const head = useRef<HTMLDivElement>(null);
  const [box, setBox] = useState({ left: 0, width: 900, height: 500 });
  const axis = useMemo(() => makeAxis(zoom, data.pickup, data.length), [zoom, data.pickup, data.length]);
  const parts = useMemo(() => [...data.song.parts].sort((a, b) => ORDER[a.role] - ORDER[b.role]), [data.song.parts]);

  const measure = useCallback(() => {
    const el = scroller.current;
    if (!el) return;
    // Rounded, so that scrolling draws anew only now and then.
    const left = Math.floor(el.scrollLeft / 200) * 200;
    setBox((b) =>
      b.left === left && b.width === el.clientWidth && b.height === el.clientHeight
        ? b
        : { left, width: el.clientWidth, height: el.clientHeight },
    );
  }, []);
  useLayoutEffect(() => {
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(scroller.current!);
    return () => observer.disconnect();
  }, [measure]);

  // The playhead moves outside React, once a frame.
  useEffect(() => {
    if (!playing) {
      if (head.current) head.current.style.display = "none";
      return;
    }
    let frame = 0;
    const draw = () => {
      const tick = playhead();
      const el = head.current;
      const view = scroller.current;
      if (el && view && tick !== null && !useView.getState().wholeSong) {
        const x = axis.x(tick);
        el.style.display = "block";
        el.style.transform = `translateX(${HEAD_WIDTH + x}px)`;
        const inView = x - view.scrollLeft;
        if (inView > view.clientWidth - HEAD_WIDTH - 30 || inView < 0) view.scrollLeft = Math.max(0, x - 40);
      }
      frame = requestAnimationFrame(draw);
    };
    frame = requestAnimationFrame(draw);
    return () => cancelAnimationFrame(frame);
  }, [playing, axis]);

  const from = box.left - 250;
  const to = box.left + box.width + 250;
  const pitched = parts.filter((p) => p.role !== "drums");
  const open = pitched.filter((p) => !folded.includes(p.id));
  const drums = parts.find((p) => p.role === "drums");
  const rows = rowsOf(data.section);
  const drumHeight = drums && !folded.includes(drums.id) ? rows.length * ROW : FOLDED;
  const spare = box.height - TOP - drumHeight - (pitched.length - open.length) * FOLDED - parts.length - 16;
  const laneHeight = Math.max(84, Math.min(190, Math.floor(spare / Math.max(1, open.length))));
  // A single drum that is heard alone belongs to the drums.
  const belongs = (part: Part, id: string) => id === part.id || (part.role === "drums" && drumOf(id) !== null);
  const soloOf = (part: Part) => solo.some((id) => belongs(part, id));
  const toggle = (list: string[], id: string) => (list.includes(id) ? list.filter((x) => x !== id) : [...list, id]);

  return (
    <div className="score" ref={scroller} onScroll={measure}>
      <div className="score-inner" style={{ width: HEAD_WIDTH + axis.width }}>
        <div className="playhead" ref={head} aria-hidden="true" />
        <div className="lane top">
          <div className="lane-head">
            <InPlace
              label="Name of the section"
              value={data.section.name}
              commit={(name) => edit({ do: "setSection", section: data.section.id, name })}
            />
          </div>
          <ChordRow data={data} axis={axis} from={from} to={to} />
        </div>
        {parts.map((part) => {
          const isFolded = folded.includes(part.id);
          const real = partOfReal(data, part.id);
          const height = isFolded ? FOLDED : part.role === "drums" ? drumHeight : laneHeight;
          return (
            <section
              key={part.id}
              className={`lane ${part.role} ${tintOf(part)}${isFolded ? " folded" : ""}`}
              style={{ height }}
              aria-label={part.name}
            >
              <div className="lane-head">
                <b title={part.name}>{part.name}</b>
                {!isFolded && part.role !== "drums" && (
                  <span className="role">
                    {instrumentOf(part.instrument, data.song).title === part.name
                      ? ""
                      : instrumentOf(part.instrument, data.song).title.toLowerCase()}
                  </span>
                )}
                <span className="lane-tools">
                  <button
                    type="button"
                    title="Mute (M)"
                    aria-pressed={part.muted ?? false}
                    onClick={() => edit({ do: "setPart", part: part.id, muted: !part.muted })}
                  >
                    M
                  </button>
                  <button
                    type="button"
                    title="Solo (S)"
                    aria-pressed={soloOf(part)}
                    onClick={() => set({ solo: soloOf(part) ? solo.filter((s) => !belongs(part, s)) : [...solo, part.id] })}
                  >
                    S
                  </button>
                  <button
                    type="button"
                    title={isFolded ? "Unfold" : "Fold"}
                    aria-expanded={!isFolded}
                    aria-label={`${isFolded ? "Unfold" : "Fold"} ${part.name}`}
                    onClick={() => set({ folded: toggle(folded, part.id) })}
                  >
                    {isFolded ? "▸" : "▾"}
                  </button>
                </span>
                {part.role === "drums" &&
                  !isFolded &&
                  rows.map((drum, i) => (
                    <i key={drum} className="drum-name" style={{ top: i * ROW }}>
                      {drumName(data.section, drum)}
                    </i>
                  ))}
                {part.role !== "drums" && !isFolded && (
                  <Octaves part={part} midis={real.notes.map((n) => n.midi)} height={laneFoot(real.notes, laneHeight)} />
                )}
              </div>
              {isFolded ? (
                <Strip data={data} part={part.id} axis={axis} />
              ) : part.role === "drums" ? (
                <DrumLane data={data} axis={axis} from={from} to={to} />
              ) : (
                <PitchLane
                  data={data}
                  part={part.id}
                  axis={axis}
                  height={laneHeight}
                  tint={tintOf(part)}
                  from={from}
                  to={to}
                  findings={findings}
                />
              )}
            </section>
          );
        })}
      </div>
    </div>
  );
}

function Octaves({ part, midis, height }: { part: Part; midis: number[]; height: number }) {
  const comfortable = midiRange(instrumentOf(part.instrument).comfortable);
  const [low, high] = laneRange(midis, [
    Math.max(comfortable[0], part.role === "bass" ? 28 : 55),
    Math.min(comfortable[1], part.role === "bass" ? 46 : 76),
  ]);
  return (
    <>
      {octaves(low, high).map((m) => (
        <i key={m} className="octave" style={{ top: HEAD + 3 + ((high - m) / (high - low)) * (height - 2 * HEAD - 6) }}>
          C{m / 12 - 1}
        </i>
      ))}
    </>
  );
}

/** A folded lane: where the part sounds, nothing more. */
function Strip({ data, part, axis }: { data: ScoreData; part: string; axis: ReturnType<typeof makeAxis> }) {
  const real = partOfReal(data, part);
  const marks = real.role === "drums" ? data.real.hits.map((h) => ({ start: h.start, duration: 60 })) : real.notes;
  return (
    <svg className="lane-svg" width={axis.width} height={FOLDED} aria-hidden="true">
      {marks.map((n, i) => (
        <line key={i} className="strip" x1={axis.x(n.start)} x2={axis.x(n.start + n.duration) - 1} y1={FOLDED / 2} y2={FOLDED / 2} />
      ))}
    </svg>
  );
}
