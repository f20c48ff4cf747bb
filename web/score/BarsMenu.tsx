import Dropdown from "react-bootstrap/Dropdown";
import { useState } from "react";
import { type Chosen, Song, Text } from "../../core/src/index";
import {
  barsText,
  copyBars,
  cutBars,
  divide,
  insertBars,
  joinBehind,
  listed,
  pasteBars,
  removeBars,
  repeatBars,
  sectionBehind,
  useBarsCopied,
  type Span,
} from "../app/commands/bars";
import { keep } from "../app/commands/takes";
import { usePlayback } from "../app/store/playback";
import type { SectionData } from "../app/store/sectionData";
import { edit, storedSong, useStored } from "../app/store/song";
import { Select } from "../kit/Select";

interface Stretch extends Span {
  /** No bars are chosen: all are meant. */
  all: boolean;
  /** The bar before which something is put in or divided: the first that is looped, or where playing begins. */
  at: number;
}

/** The bars that are looped; all where none are. */
function useStretch({ section: { id }, meter }: SectionData): Stretch {
  const loop = usePlayback((s) => s.loop);
  const begin = usePlayback((s) => s.from);
  const { section } = useStored(id);
  const [from, to] = loop?.on
    ? [Math.floor(loop.from / meter.bar), Math.min(section.bars, Math.ceil(loop.to / meter.bar))]
    : [0, section.bars];
  const all = from >= to || to - from === section.bars;
  const at = all ? Math.min(section.bars - 1, Math.floor((begin ?? 0) / meter.bar)) : from;
  return { section: id, bars: all ? [0, section.bars] : [from, to], all, at };
}

/** What can be done with whole bars: those that are looped, or all. */
export function BarsMenu({ data }: { data: SectionData }) {
  const span = useStretch(data);
  return (
    <Dropdown autoClose="outside" className="bars-menu">
      <Dropdown.Toggle
        as="button"
        type="button"
        className="toggle"
        aria-label={`Work on ${span.all ? "whole bars" : barsText(span.bars)}`}
        title="Drag over bar numbers to choose bars; they are looped"
      >
        {span.all ? "bars" : barsText(span.bars)}
      </Dropdown.Toggle>
      <Dropdown.Menu popperConfig={{ strategy: "fixed" }} renderOnMount={false}>
        <Items data={data} span={span} />
      </Dropdown.Menu>
    </Dropdown>
  );
}

const ALL = "all";
const CHORDS = "chords";
const DRUMS = "drums";

function chosenBy(value: string): Chosen {
  if (value === ALL) return {};
  if (value === CHORDS) return { chords: true, drums: false, parts: [] };
  if (value === DRUMS) return { chords: false, drums: true, parts: [] };
  return { chords: false, drums: false, parts: [value] };
}

function Items({ data, span }: { data: SectionData; span: Stretch }) {
  const { song, section } = useStored(data.section.id);
  const copied = useBarsCopied((s) => s.copied);
  const [what, setWhat] = useState(ALL);
  const [from, to] = span.bars;
  const { at } = span;
  const count = to - from;
  const chosen = chosenBy(what);
  const next = sectionBehind(storedSong(), section.id);
  const bars = (n: number) => Text.counted(n, "bar");
  return (
    <>
      <div className="lane-menu-fields">
        <Select
          label="What of the bars"
          text={`${span.all ? "all bars" : barsText(span.bars)}:`}
          value={what}
          choices={[
            [ALL, "everything"],
            [CHORDS, "the chords"],
            [DRUMS, "the drums"],
            ...song.parts.filter(Song.isWritten).map((p) => [p.id, p.name] as const),
          ]}
          set={setWhat}
        />
      </div>
      <Item run={() => copyBars(span, chosen)}>Copy</Item>
      <Item run={() => cutBars(span, chosen)}>Cut</Item>
      <Item run={() => edit({ do: "clearBars", section: span.section, bars: [from, to], ...listed(chosen) })}>
        Empty
      </Item>
      <Item run={() => keep(section.id, { ...listed(chosen), bars: [from, to] })}>Keep as a take</Item>
      {copied && (
        <>
          <Dropdown.Divider />
          <Item run={() => pasteBars(section.id, at, "over")}>
            Set {bars(copied.piece.bars)} down over bar {at + 1}
          </Item>
          <Item run={() => pasteBars(section.id, at, "over", "refitted")}>
            … with lines refitted to the chords there
          </Item>
          <Item run={() => pasteBars(section.id, at, "between")}>… between, before bar {at + 1}</Item>
        </>
      )}
      <Dropdown.Divider />
      <Item run={() => repeatBars(span)}>Repeat behind</Item>
      <Item run={() => insertBars(section.id, at, span.all ? 1 : count)}>
        Insert {bars(span.all ? 1 : count)} before bar {at + 1}
      </Item>
      <Item disabled={span.all} run={() => removeBars(span)}>
        Take {barsText(span.bars)} out
      </Item>
      <Item disabled={at === 0} run={() => divide(section.id, at)}>
        Divide {section.name} before bar {at + 1}
      </Item>
      <Item disabled={!next} run={() => joinBehind(section.id)}>
        Join with {next?.name ?? "what comes behind"}
      </Item>
    </>
  );
}

function Item({ run, disabled = false, children }: { run(): unknown; disabled?: boolean; children: React.ReactNode }) {
  return (
    <Dropdown.Item as="button" type="button" disabled={disabled} onClick={() => void run()}>
      {children}
    </Dropdown.Item>
  );
}
