import { useMemo, useState } from "react";
import { Groove, type Lane, type Meter, nth, type Section, sure, type Ticks } from "../../../core/src/index";
import { acceptEdit } from "../../app/commands/audition";
import { useOffers, type Offer } from "../../app/store/results";
import type { SectionData } from "../../app/store/sectionData";
import { edit, useStored } from "../../app/store/song";
import { Check } from "../../kit/Check";
import { OfferButtons } from "../../kit/OfferButtons";
import { Select } from "../../kit/Select";
import { percent } from "../../kit/texts";
import { Euclidean } from "./Euclidean";
import { Button } from "../../kit/Button";

/** Bars of a pattern that are heard. */
const HEARD_BARS = 4;

/** Generic patterns to hear and take, and what is done with the one that stands. */
export function Patterns({ data }: { data: SectionData }) {
  const [add, setAdd] = useState(false);
  const { meter, length } = data;
  // What is built on is what is stored, not a pattern that is just being heard.
  const { section } = useStored(data.section.id);
  const { lanes } = section.groove;
  const offers = useMemo(
    () =>
      Groove.PATTERNS.map((pattern): Offer => {
        const fresh = Groove.lanes(pattern, meter, section.bars);
        return {
          id: `pattern:${section.id}:${pattern.id}:${add}`,
          label: pattern.title.toLowerCase(),
          edit: { do: "setDrums", section: section.id, lanes: add ? Groove.merge(lanes, fresh) : fresh },
          from: 0,
          to: Math.min(length, HEARD_BARS * meter.bar),
          whole: true,
        };
      }),
    [meter, section.id, section.bars, lanes, add, length],
  );
  useOffers(offers);
  return (
    <>
      <p className="small">
        Click or drag in the drum grid to paint, click a hit to clear it. Drag it up or down for its loudness, with Alt
        sideways off the grid. Shift-click a kick to mark it as a main accent.
      </p>
      <Check on={add} set={setAdd}>
        add to what is there instead of replacing it
      </Check>
      <ol className="offer-list" aria-label="Patterns">
        {Groove.PATTERNS.map((p, i) => (
          <li key={p.id}>
            <span className="offer-head">
              <b>{i + 1}</b>
              <span className="offer-chords">{p.title}</span>
              <OfferButtons offer={nth(offers, i)} bar={meter.bar} end={length} />
            </span>
            <span className="small offer-why">
              {p.explanation}
              {p.swing && ` Usually swung, about ${percent(p.swing)}.`}
            </span>
          </li>
        ))}
      </ol>
      <Euclidean data={data} />
      <ShapeIt section={section} meter={meter} length={length} />
    </>
  );
}

/** Repeating, filling and varying what is painted. */
function ShapeIt({ section, meter, length }: { section: Section; meter: Meter; length: Ticks }) {
  const [turn, setTurn] = useState(2);
  const [seed, setSeed] = useState(1);
  const { lanes } = section.groove;
  const filled = lanes.flatMap((l) => l.hits.map((h) => Math.floor(h.start / meter.bar)));
  const first = filled.length ? Math.min(...filled) : null;
  const last = section.bars - 1;
  /** Each click is another try. */
  const put = (next: Lane[]) => {
    if (acceptEdit({ do: "setDrums", section: section.id, lanes: next })) setSeed(seed + 1);
  };
  return (
    <>
      <h3>Shape it</h3>
      <div className="controls">
        <Button
          disabled={first === null || section.bars < 2}
          onClick={() => edit({ do: "repeatDrums", section: section.id, bar: sure(first) })}
        >
          Repeat bar {(first ?? 0) + 1} through the section
        </Button>
      </div>
      <div className="controls">
        <Button disabled={first === null} onClick={() => put(Groove.withFill(lanes, meter, last, { length: 1, seed }))}>
          Fill on the last beat
        </Button>
        <Button
          disabled={first === null}
          onClick={() => put(Groove.withFill(lanes, meter, last, { length: Math.ceil(meter.beats.length / 2), seed }))}
        >
          Fill half the last bar
        </Button>
      </div>
      <div className="controls">
        <Button
          disabled={first === null || section.bars <= turn}
          onClick={() => put(Groove.withVariation(lanes, meter, turn, { length, seed }))}
        >
          Vary every second time
        </Button>
        <Select
          label="Bars that are repeated"
          text="of"
          value={turn}
          choices={[1, 2, 4].map((n) => [n, `${n} ${n === 1 ? "bar" : "bars"}`])}
          set={setTurn}
        />
      </div>
      <p className="small">Each click is another try; undo goes back.</p>
    </>
  );
}
