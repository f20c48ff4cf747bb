import { useCallback, useEffect, useMemo, useRef, useState, type RefObject } from "react";
import {
  firstOf,
  lastOf,
  Instrument,
  Meter,
  Notation as TheNotation,
  type SectionVoicing,
  Song,
  sure,
} from "../../core/src/index";
import { playedIn } from "../app/audio/sound";
import { useHead } from "../app/audio/useHead";
import { soundLayout } from "../app/commands/voicings";
import { usePreferences } from "../app/store/preferences";
import { useResults } from "../app/store/results";
import type { SectionData } from "../app/store/sectionData";
import { chooseChord, useSelection } from "../app/store/selection";
import { ChordName } from "../kit/ChordName";
import { FretDiagram } from "../kit/FretDiagram";
import { Select, type Choice } from "../kit/Select";
import { Switches } from "../kit/Switches";
import { drawStaves } from "./engraving";
import { laneOrder } from "./layout";
import { PLAIN_SHEET, type Placed, type SheetSymbol } from "./sheet";
import { type StaffPart } from "./rows";
import { sheetSymbols, staffPart, stringsText } from "./staffParts";
import { useStaffFindings, useStaffNotes } from "./staffNotes";
import { Button } from "../kit/Button";

/** Everything on a grand staff. */
const GRAND = "*";
const EACH = "";

function grand(data: SectionData): StaffPart[] {
  const engraved = TheNotation.grand(data.song, data.section.id);
  return engraved.ok ? [engraved.value] : [];
}

/** Room above a line for symbols, and for symbols with shapes; how wide they are here against the page. */
const [SYMBOLS, SHAPES] = [44, 96];
const [SCREEN, DIAGRAM] = [1.1, 54];

/** Draws the sheet anew where its parts or its width have changed. */
function useSheet(parts: readonly StaffPart[], bars: number, above: number, symbols: readonly SheetSymbol[]) {
  const scroller = useRef<HTMLDivElement>(null);
  const sheet = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(900);
  const [drawn, setDrawn] = useState<{ asked: object; placed: Placed } | null>(null);
  useEffect(() => {
    const observer = new ResizeObserver(() => setWidth(Math.floor((scroller.current?.clientWidth ?? 900) / 20) * 20));
    observer.observe(sure(scroller.current));
    return () => observer.disconnect();
  }, []);
  const asked = useMemo(
    () => ({ parts, options: { ...PLAIN_SHEET, width: width - 30, bars, above, symbols } }),
    [parts, width, bars, above, symbols],
  );
  useEffect(() => {
    const stop = { on: false };
    void drawStaves(sure(sheet.current), asked.parts, asked.options, stop).then((placed) => {
      if (!stop.on && placed) setDrawn({ asked, placed });
    });
    return () => {
      stop.on = true;
    };
  }, [asked]);
  return { scroller, sheet, placed: drawn?.placed ?? null, busy: drawn?.asked !== asked };
}

/** The playhead on the sheet; its line is kept in sight. */
const useSheetPlayhead = (placed: Placed | null, scroller: RefObject<HTMLDivElement | null>) =>
  useHead(
    useCallback(
      (head: HTMLDivElement) => {
        const played = playedIn(useSelection.getState().section);
        const at = played && placed?.at(played.tick);
        const view = scroller.current;
        if (!played || !placed || !at || !view) return null;
        head.style.height = `${at.height}px`;
        if (at.top < view.scrollTop || at.top + at.height > view.scrollTop + view.clientHeight)
          view.scrollTop = Math.max(0, at.top - 20);
        // As far as its line goes, step by step: notes do not stand as far apart as they sound.
        const ticks = [played.tick];
        for (let tick = played.tick + STEP; tick <= played.until && placed.at(tick)?.top === at.top; tick += STEP)
          ticks.push(tick);
        const through = ticks
          .flatMap((tick) => placed.at(tick) ?? [])
          .map(({ x, top }) => `translate(${x}px, ${top}px)`);
        const share = Math.max(STEP, lastOf(ticks) - played.tick) / Math.max(1, played.until - played.tick);
        return { through, seconds: played.seconds * Math.min(1, share) };
      },
      [placed, scroller],
    ),
  );

/** Ticks from one place of the playhead to the next. */
const STEP = Meter.SIXTEENTH;

/** The section on staves: chord symbols above, shapes beside them for fretted parts, tablature below their lines. */
export default function Notation({ data }: { data: SectionData }) {
  const written = usePreferences((s) => s.written);
  const lanes = useSelection((s) => s.lanes);
  const [only, setOnly] = useState(EACH);
  const parted = useMemo(() => laneOrder(data.song.parts), [data.song.parts]);
  const pitched = useMemo(() => parted.filter((p) => p.role !== "drums"), [parted]);
  const parts = useMemo(() => {
    if (only === GRAND) return grand(data);
    return parted
      .filter((p) => (only ? p.id === only : lanes[p.id] !== false))
      .flatMap((p) => staffPart(data.song, data.section.id, p, written) ?? []);
  }, [data, written, only, lanes, parted]);
  const fretted = pitched.find(
    (p) => p.link?.kind === "voicing" && Instrument.of(p.instrument, data.song).held.by === "frets",
  );
  const shapes = useResults((s) => (fretted ? s.voicing[fretted.id] : undefined));
  const name = useMemo(() => symbolsFor(data, parts, written), [data, parts, written]);
  const symbols = useMemo(
    () =>
      sheetSymbols(data.section.chords, name).map(({ start, width }) => ({
        start,
        width: Math.max(width * SCREEN, shapes ? DIAGRAM : 0),
      })),
    [data.section.chords, name, shapes],
  );
  const { scroller, sheet, placed, busy } = useSheet(parts, data.section.bars, shapes ? SHAPES : SYMBOLS, symbols);
  const onNotes = useStaffNotes(data, parts, sheet, placed);
  useStaffFindings(sheet, placed);
  const { head } = useSheetPlayhead(placed, scroller);
  const feel = Meter.feel(Song.swingOf(data.song, data.section));
  const alone = parts.length === 1 ? data.song.parts.find((p) => p.id === firstOf(parts).part) : undefined;
  const strings = alone ? stringsText(data.song, alone) : "";
  return (
    <div className="notation" ref={scroller}>
      <div className="notation-bar" role="toolbar" aria-label="Staves">
        <Select<string>
          label="Staves"
          text="staves"
          value={only}
          set={setOnly}
          choices={[
            [EACH, "one for each part"],
            [GRAND, "two for everything"],
            ...parted.map((p): Choice<string> => [p.id, p.name]),
          ]}
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
        {written && parts.length > 1 && parts.some((p) => p.key.signature !== firstOf(parts).key.signature) && (
          <span className="small">chord symbols as they sound</span>
        )}
        <span className="small">
          ♩ = {Math.round(Song.tempoOf(data.song, data.section) * 100) / 100}
          {feel && `, ${feel}`}
          {strings && ` · ${strings}`}
        </span>
      </div>
      <div
        className="sheet"
        role="group"
        aria-busy={busy}
        tabIndex={0}
        aria-label={`${data.section.name} on staves: ${parts.map((p) => p.name).join(", ")}`}
        title="A click chooses a note; arrows go from note to note, up and down change it"
        {...onNotes}
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
      {placed && <SheetChords data={data} placed={placed} shapes={shapes} name={name} />}
    </div>
  );
}

/** Chord symbols as the player of the only part reads them; as they sound where there are several. */
function symbolsFor(data: SectionData, parts: readonly StaffPart[], written: boolean): (symbol: string) => string {
  const part = parts.length === 1 && written ? data.song.parts.find((p) => p.id === firstOf(parts).part) : undefined;
  return part && part.role !== "drums"
    ? (symbol) => TheNotation.writtenSymbol(symbol, Instrument.of(part.instrument, data.song).transposition)
    : (symbol) => symbol;
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
        const shape = k >= 0 ? sure(shapes).chords[k]?.shape : undefined;
        return (
          <Button
            key={c.id}
            className="sheet-chord"
            style={{ left: at.x - 6, top: at.top + 2 }}
            aria-pressed={c.id === selected}
            aria-label={`${name(c.symbol)}, ${Meter.position(data.meter, c.start)}`}
            onClick={() => {
              chooseChord(c.id);
              soundLayout(data.song, c);
            }}
          >
            <ChordName symbol={name(c.symbol)} />
            {shape && <FretDiagram shape={shape} />}
          </Button>
        );
      })}
    </div>
  );
}
