import { useEffect, useMemo, useRef, useState } from "react";
import { engrave, engraveGrand, instrumentOf, neckOf, positionText, tabOf, type EngravedPart, type Part } from "../../core/src/index";
import { playhead, useSound } from "../audio/sound";
import { useView } from "../store/view";
import { soundPitches, chosenPart } from "../panels/voicings/act";
import { ChordName } from "../ui/ChordName";
import { FretDiagram } from "../ui/FretDiagram";
import type { ScoreData } from "./data";
import { drawStaves, type Placed, type StaffPart } from "./engraving";

/** A part as it is drawn: its staves, and for fretted instruments strings and frets. */
function partOf(data: ScoreData, part: Part, written: boolean): StaffPart | null {
  const engraved = engrave(data.song, data.section.id, part.id, { written });
  if (!engraved.ok) return null;
  const { capo, tuning } = part.playing.voicing ?? {};
  const neck = neckOf(instrumentOf(part.instrument, data.song), capo, tuning);
  return { ...engraved.value, ...(neck ? { tab: tablature(engraved.value, neck) } : {}) };
}

/** Everything on a grand staff. */
const GRAND = "*";

function grand(data: ScoreData): StaffPart[] {
  const engraved = engraveGrand(data.song, data.section.id);
  return engraved.ok ? [engraved.value] : [];
}

function tablature(part: EngravedPart, neck: NonNullable<ReturnType<typeof neckOf>>): NonNullable<StaffPart["tab"]> {
  // What is tied over is not struck again.
  let held = new Set<number>();
  const moments = part.staves[0]!.measures.map((measure) =>
    measure.map((chord) => {
      const struck = chord.notes.filter((n) => !held.has(n.midi)).map((n) => n.midi);
      held = new Set(chord.notes.filter((n) => n.tied).map((n) => n.midi));
      return struck;
    }),
  );
  const flat = moments.flat();
  const filled = flat.map((m, i) => ({ m, i })).filter(({ m }) => m.length);
  const places = tabOf(
    neck,
    filled.map(({ m }) => m),
  );
  const all = flat.map(() => null as (typeof places)[number]);
  filled.forEach(({ i }, k) => (all[i] = places[k]!));
  let at = 0;
  return { strings: neck.strings.length, measures: moments.map((m) => m.map(() => all[at++]!)) };
}

/** The section on staves: chord symbols above, shapes beside them for fretted parts, tablature below their lines. */
export default function Notation({ data }: { data: ScoreData }) {
  const { written, chord: selected, set, folded } = useView();
  const playing = useSound((s) => s.playing);
  const scroller = useRef<HTMLDivElement>(null);
  const sheet = useRef<HTMLDivElement>(null);
  const head = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(900);
  const [placed, setPlaced] = useState<Placed | null>(null);
  const [only, setOnly] = useState("");
  const pitched = data.song.parts.filter((p) => p.role !== "drums");
  const order = ["melody", "vocal", "counter", "chords", "bass"];
  const parts = useMemo(
    () =>
      [...pitched]
        .sort((a, b) => order.indexOf(a.role) - order.indexOf(b.role))
        .filter((p) => (only ? p.id === only : !folded.includes(p.id)))
        .flatMap((p) => partOf(data, p, written) ?? [])
        .concat(only === GRAND ? grand(data) : []),
    // The order never changes.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [data, written, only, folded],
  );
  const fretted = pitched.find((p) => p.link?.kind === "voicing" && instrumentOf(p.instrument, data.song).held.by === "frets");
  const shapes = useView((s) => (fretted ? s.voicing[fretted.id] : undefined));

  useEffect(() => {
    const observer = new ResizeObserver(() => setWidth(Math.floor((scroller.current?.clientWidth ?? 900) / 20) * 20));
    observer.observe(scroller.current!);
    return () => observer.disconnect();
  }, []);

  useEffect(() => {
    const stop = { on: false };
    const host = sheet.current!;
    void drawStaves(host, parts, { width: width - 30, bars: data.section.bars, above: shapes ? 96 : 44, stop }).then((result) => {
      if (!stop.on && result) setPlaced(result);
    });
    return () => {
      stop.on = true;
    };
  }, [parts, width, data.section.bars, shapes]);

  // The playhead moves outside React, once a frame, and keeps its line in sight.
  useEffect(() => {
    const el = head.current;
    if (!el) return;
    if (!playing || !placed) {
      el.style.display = "none";
      return;
    }
    let frame = 0;
    const draw = () => {
      const tick = playhead();
      const at = tick === null || useView.getState().wholeSong ? null : placed.at(tick);
      const view = scroller.current;
      el.style.display = at ? "block" : "none";
      if (at && view) {
        el.style.transform = `translate(${at.x}px, ${at.top}px)`;
        el.style.height = `${at.height}px`;
        if (at.top < view.scrollTop || at.top + at.height > view.scrollTop + view.clientHeight) view.scrollTop = Math.max(0, at.top - 20);
      }
      frame = requestAnimationFrame(draw);
    };
    frame = requestAnimationFrame(draw);
    return () => cancelAnimationFrame(frame);
  }, [playing, placed]);

  const choose = (id: string) => {
    set({ chord: id, chords: [id] });
    const part = chosenPart(data.song);
    const pitches = part && data.section.chords.find((c) => c.id === id)?.voicings?.[part.id]?.pitches;
    if (part && pitches) soundPitches(part.id, pitches);
  };
  return (
    <div className="notation" ref={scroller}>
      <div className="notation-bar" role="toolbar" aria-label="Staves">
        <label>
          staves{" "}
          <select value={only} onChange={(e) => setOnly(e.target.value)}>
            <option value="">one for each part</option>
            <option value={GRAND}>two for everything</option>
            {pitched.map((p) => (
              <option key={p.id} value={p.id}>
                {p.name}
              </option>
            ))}
          </select>
        </label>
        <span className="group" role="group" aria-label="Pitch">
          <button type="button" aria-pressed={!written} onClick={() => set({ written: false })}>
            as it sounds
          </button>
          <button
            type="button"
            aria-pressed={written}
            title="Each transposing instrument in its own key"
            onClick={() => set({ written: true })}
          >
            as players read it
          </button>
        </span>
      </div>
      <div className="sheet" role="img" aria-label={`${data.section.name} on staves: ${parts.map((p) => p.name).join(", ")}`}>
        <div className="playhead" ref={head} aria-hidden="true" />
        <div ref={sheet} aria-hidden="true" />
        {placed?.labels.map((l, i) => (
          <span key={i} className="staff-name" style={{ left: 4, top: l.y }}>
            {l.text}
          </span>
        ))}
      </div>
      {placed && (
        <div className="sheet-chords">
          {data.section.chords.map((c) => {
            const at = placed.at(c.start);
            if (!at) return null;
            const k = shapes?.ids.indexOf(c.id) ?? -1;
            const shape = k >= 0 ? shapes!.chords[k]?.shape : undefined;
            return (
              <button
                key={c.id}
                type="button"
                className="sheet-chord"
                style={{ left: at.x - 6, top: at.top + 2 }}
                aria-pressed={c.id === selected}
                aria-label={`${c.symbol}, ${positionText(data.meter, c.start)}`}
                onClick={() => choose(c.id)}
              >
                <ChordName symbol={c.symbol} />
                {shape && <FretDiagram shape={shape} />}
              </button>
            );
          })}
        </div>
      )}
    </div>
  );
}
