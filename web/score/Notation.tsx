import { useEffect, useMemo, useRef, useState, type KeyboardEvent, type MouseEvent, type RefObject } from "react";
import {
  engrave,
  engraveDrums,
  engraveGrand,
  legendOf,
  instrumentOf,
  neckOf,
  positionText,
  writtenSymbol,
  type Part,
  type SectionVoicing,
} from "../../core/src/index";
import { playhead, soundNote, useSound } from "../audio/sound";
import { soundLayout } from "../commands/voicings";
import { usePlayback } from "../store/playback";
import { usePreferences } from "../store/preferences";
import { useResults } from "../store/results";
import type { SectionData } from "../store/sectionData";
import { chooseChord, chooseNotes, useSelection } from "../store/selection";
import { ChordName } from "../ui/ChordName";
import { FretDiagram } from "../ui/FretDiagram";
import { Select, type Choice } from "../ui/Select";
import { Switches } from "../ui/Switches";
import { drawStaves } from "./engraving";
import { makeAxis } from "./axis";
import { laneScale, partRange } from "./laneScale";
import { laneOrder } from "./layout";
import { noteKey } from "./noteKeys";
import type { Placed, StaffPart } from "./sheet";
import { tablature } from "./tablature";

/** A part as it is drawn: its staves, and for fretted instruments strings and frets. */
function staffOf(data: SectionData, part: Part, written: boolean): StaffPart | null {
  if (part.role === "drums") {
    const drums = engraveDrums(data.song, data.section.id, part.id);
    const legend = legendOf(data.real.hits);
    if (!drums.ok || !legend.length) return null;
    return { ...drums.value, legend: `from below: ${legend.map((d) => d.title).join(", ")}` };
  }
  const engraved = engrave(data.song, data.section.id, part.id, { written });
  if (!engraved.ok) return null;
  const { capo, tuning } = part.playing.voicing ?? {};
  const neck = neckOf(instrumentOf(part.instrument, data.song), capo, tuning);
  return { ...engraved.value, ...(neck ? { tab: tablature(engraved.value, neck) } : {}) };
}

/** Everything on a grand staff. */
const GRAND = "*";
const EACH = "";

function grand(data: SectionData): StaffPart[] {
  const engraved = engraveGrand(data.song, data.section.id);
  return engraved.ok ? [engraved.value] : [];
}

/** Room above a line for symbols, and for symbols with shapes. */
const [SYMBOLS, SHAPES] = [44, 96];

/** Draws the sheet anew where its parts or its width have changed. */
function useSheet(parts: readonly StaffPart[], bars: number, above: number) {
  const scroller = useRef<HTMLDivElement>(null);
  const sheet = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(900);
  const [placed, setPlaced] = useState<Placed | null>(null);
  useEffect(() => {
    const observer = new ResizeObserver(() => setWidth(Math.floor((scroller.current?.clientWidth ?? 900) / 20) * 20));
    observer.observe(scroller.current!);
    return () => observer.disconnect();
  }, []);
  useEffect(() => {
    const stop = { on: false };
    void drawStaves(sheet.current!, parts, { width: width - 30, bars, above, stop }).then((result) => {
      if (!stop.on && result) setPlaced(result);
    });
    return () => {
      stop.on = true;
    };
  }, [parts, width, bars, above]);
  return { scroller, sheet, placed };
}

/** Moves the playhead outside React, once a frame, and keeps its line in sight. */
function useSheetPlayhead(placed: Placed | null, scroller: RefObject<HTMLDivElement | null>): RefObject<HTMLDivElement | null> {
  const playing = useSound((s) => s.playing);
  const head = useRef<HTMLDivElement>(null);
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
      const at = tick === null || usePlayback.getState().wholeSong ? null : placed.at(tick);
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
  }, [playing, placed, scroller]);
  return head;
}

/** The section on staves: chord symbols above, shapes beside them for fretted parts, tablature below their lines. */
export default function Notation({ data }: { data: SectionData }) {
  const written = usePreferences((s) => s.written);
  const lanes = useSelection((s) => s.lanes);
  const [only, setOnly] = useState(EACH);
  const parted = useMemo(() => laneOrder(data.song.parts), [data.song.parts]);
  const pitched = useMemo(() => parted.filter((p) => p.role !== "drums"), [parted]);
  const parts = useMemo(() => {
    if (only === GRAND) return grand(data);
    return parted.filter((p) => (only ? p.id === only : lanes[p.id] !== false)).flatMap((p) => staffOf(data, p, written) ?? []);
  }, [data, written, only, lanes, parted]);
  const fretted = pitched.find((p) => p.link?.kind === "voicing" && instrumentOf(p.instrument, data.song).held.by === "frets");
  const shapes = useResults((s) => (fretted ? s.voicing[fretted.id] : undefined));
  const { scroller, sheet, placed } = useSheet(parts, data.section.bars, shapes ? SHAPES : SYMBOLS);
  const head = useSheetPlayhead(placed, scroller);
  return (
    <div className="notation" ref={scroller}>
      <div className="notation-bar" role="toolbar" aria-label="Staves">
        <Select<string>
          label="Staves"
          text="staves"
          value={only}
          set={setOnly}
          choices={[[EACH, "one for each part"], [GRAND, "two for everything"], ...parted.map((p): Choice<string> => [p.id, p.name])]}
        />
        <Switches
          label="Pitch"
          value={written ? "written" : "sounding"}
          choices={[
            ["sounding", "as it sounds"],
            ["written", "as players read it"],
          ]}
          titles={{ written: "Each transposing instrument in its own key" }}
          set={(v) => usePreferences.setState({ written: v === "written" })}
        />
        {written && parts.length > 1 && parts.some((p) => p.key.signature !== parts[0]!.key.signature) && (
          <span className="small">chord symbols as they sound</span>
        )}
      </div>
      <div
        className="sheet"
        role="group"
        tabIndex={0}
        aria-label={`${data.section.name} on staves: ${parts.map((p) => p.name).join(", ")}`}
        title="A click chooses a note; arrows go from note to note, up and down change it"
        {...useStaffNotes(data, parts, sheet, placed)}
      >
        <div className="playhead" ref={head} aria-hidden="true" />
        <div ref={sheet} aria-hidden="true" />
        {placed?.labels.map((l, i) => (
          <span key={i} className="staff-name" style={{ left: 4, top: l.y }}>
            {l.text}
            {l.legend && <small>{l.legend}</small>}
          </span>
        ))}
      </div>
      {placed && <SheetChords data={data} placed={placed} shapes={shapes} name={symbolsFor(data, parts, written)} />}
    </div>
  );
}

/** Chord symbols as the player of the only part reads them; as they sound where there are several. */
function symbolsFor(data: SectionData, parts: readonly StaffPart[], written: boolean): (symbol: string) => string {
  const part = parts.length === 1 && written ? data.song.parts.find((p) => p.id === parts[0]!.part) : undefined;
  return part && part.role !== "drums"
    ? (symbol) => writtenSymbol(symbol, instrumentOf(part.instrument, data.song).transposition)
    : (symbol) => symbol;
}

/** Notes are chosen on the staves as in the lanes, and the same keys change them. */
function useStaffNotes(data: SectionData, parts: readonly StaffPart[], sheet: RefObject<HTMLDivElement | null>, placed: Placed | null) {
  const chosen = useSelection((s) => s.notes);
  const previewing = usePlayback((s) => s.preview !== null);
  useEffect(() => {
    for (const head of sheet.current?.querySelectorAll<SVGElement>(".staff-note") ?? [])
      head.classList.toggle("chosen", head.dataset.part === chosen.part && chosen.ids.includes(head.dataset.note ?? ""));
  }, [chosen, placed, sheet]);
  const onClick = (e: MouseEvent) => {
    const { part, note } = (e.target as SVGElement).closest<SVGElement>(".staff-note")?.dataset ?? {};
    const real = data.real.parts.find((p) => p.id === part)?.notes.find((n) => n.id === note);
    if (!part || !note || !real) return;
    const kept = e.shiftKey && chosen.part === part ? chosen.ids.filter((id) => id !== note) : [];
    chooseNotes(part, [note, ...kept]);
    void soundNote(part, real.midi);
  };
  const onKeyDown = (e: KeyboardEvent) => {
    const part = data.real.parts.find((p) => p.id === chosen.part) ?? data.real.parts.find((p) => p.id === parts[0]?.part);
    if (!part || part.role === "drums" || e.target !== e.currentTarget) return;
    const lane = {
      data,
      part,
      axis: makeAxis(1, data.pickup, data.length),
      scale: laneScale(partRange(part, data.song), 100),
      editable: !part.linked && !previewing,
      select: (id: string, all = [id]) => chooseNotes(part.id, all),
      typeWords: () => undefined,
    };
    if (!noteKey(e, lane)) return;
    e.preventDefault();
    e.stopPropagation();
  };
  return { onClick, onKeyDown };
}

/** Symbols over the staves, chosen and heard like those over the lanes. */
interface SheetChordsProps {
  data: SectionData;
  placed: Placed;
  shapes: SectionVoicing | undefined;
  name(symbol: string): string;
}

function SheetChords({ data, placed, shapes, name }: SheetChordsProps) {
  const selected = useSelection((s) => s.chord);
  return (
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
            aria-label={`${name(c.symbol)}, ${positionText(data.meter, c.start)}`}
            onClick={() => {
              chooseChord(c.id);
              soundLayout(data.song, c);
            }}
          >
            <ChordName symbol={name(c.symbol)} />
            {shape && <FretDiagram shape={shape} />}
          </button>
        );
      })}
    </div>
  );
}
