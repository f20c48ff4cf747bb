import { startTransition, useMemo, useState } from "react";
import {
  Chord,
  type HarmonicRhythm,
  type Harmonization,
  nth,
  type Part,
  Pitch,
  type Problem,
  Reharm,
  Song,
  Text,
} from "../../../core/src/index";
import { useOffers, type Offer } from "../../app/store/results";
import type { SectionData } from "../../app/store/sectionData";
import { ChordName } from "../../kit/ChordName";
import { OfferButtons } from "../../kit/OfferButtons";
import { Refused } from "../../kit/Refused";
import { Select } from "../../kit/Select";
import { Slider } from "../../kit/Slider";
import { workers } from "../../app/workers/sync";
import { Button } from "../../kit/Button";

type Ending = "closed" | "open";

/** Chords for a line that is there already: a tune, or a bass. */
export function Harmonize({ data }: { data: SectionData }) {
  const lines = data.song.parts.filter((p) => Song.isWritten(p) && (data.section.notes[p.id]?.length ?? 0) > 0);
  const [chosen, choose] = useState("");
  const part = lines.find((p) => p.id === chosen) ?? lines[0];
  if (!part)
    return (
      <p>
        There is no line here yet. Click a tune into a melody lane or a bass line into the bass lane, or take one from a
        MIDI file under Write, file.
      </p>
    );
  return <ForLine data={data} part={part} lines={lines} choose={choose} />;
}

const lineText = (p: Part): string =>
  `${p.name} (${p.role === "bass" ? "as the bass of the chords" : "on top of the chords"})`;

function ForLine({
  data,
  part,
  lines,
  choose,
}: {
  data: SectionData;
  part: Part;
  lines: Part[];
  choose(id: string): void;
}) {
  const [rhythm, setRhythm] = useState<HarmonicRhythm>("free");
  const [color, setColor] = useState(0.4);
  const [ending, setEnding] = useState<Ending>("closed");
  const [busy, setBusy] = useState(false);
  const [found, setFound] = useState<{ section: string; list: Harmonization[] } | null>(null);
  const [problem, setProblem] = useState<Problem | null>(null);
  const list = found?.section === data.section.id ? found.list : [];
  const go = async () => {
    setBusy(true);
    const as = part.role === "bass" ? "bass" : "melody";
    const result = await workers.writer.harmonize(
      { section: data.section.id, part: part.id, rhythm, color, ending },
      as,
    );
    setBusy(false);
    setProblem(result.ok ? null : result.error);
    startTransition(() => setFound({ section: data.section.id, list: result.ok ? result.value : [] }));
  };
  return (
    <>
      <div className="controls">
        <Select label="Line" text="line" value={part.id} choices={lines.map((p) => [p.id, lineText(p)])} set={choose} />
      </div>
      <div className="controls">
        <Select
          label="A chord each"
          text="a chord each"
          value={rhythm}
          choices={Reharm.RHYTHMS.map((r) => [r, r === "free" ? "half bar, where the line asks for it" : r])}
          set={setRhythm}
        />
        <Select
          label="End"
          text="end"
          value={ending}
          choices={[
            ["closed", "at home"],
            ["open", part.role === "bass" ? "open" : "on the dominant"],
          ]}
          set={setEnding}
        />
      </div>
      <Slider from="plain triads" to="sevenths, neighbors" label="Color" value={color} set={setColor} />
      <div className="controls">
        <Button className="primary" disabled={busy} onClick={() => void go()}>
          {busy ? "Working …" : `Harmonize ${part.name.split(",")[0]}`}
        </Button>
      </div>
      {problem && <Refused problem={problem} />}
      <Harmonizations data={data} list={list} />
    </>
  );
}

const clashText = (n: number): string =>
  n ? `${n} ${n === 1 ? "note clashes" : "notes clash"}` : "every long note fits";

function Harmonizations({ data, list }: { data: SectionData; list: readonly Harmonization[] }) {
  const [open, setOpen] = useState<number | null>(0);
  const offers = useMemo(
    () =>
      list.map((h, i): Offer => ({
        id: `harmonize:${i}:${h.cost.toFixed(3)}`,
        label: `harmonization ${i + 1}`,
        edit: { do: "setChords", section: data.section.id, from: 0, to: data.length, chords: h.events },
        from: 0,
        to: data.length,
      })),
    [list, data.section.id, data.length],
  );
  useOffers(offers);
  return (
    <>
      <ol className="offer-list" aria-label="Harmonizations">
        {list.map((h, i) => (
          <li key={nth(offers, i).id}>
            <span className="offer-head">
              <b className="tabular">{i + 1}</b>
              <span className="small">
                {Text.counted(h.events.length, "chord")}, {clashText(h.clashes.length)}
              </span>
              <OfferButtons offer={nth(offers, i)} bar={data.meter.bar} end={data.length} />
            </span>
            <span className="offer-line">
              {Pitch.typeset(Chord.writeLine(h.events, data.meter, data.section.bars))}
            </span>
            <Button aria-expanded={open === i} onClick={() => setOpen(open === i ? null : i)}>
              reasons
            </Button>
            {open === i && (
              <ul className="small reasons">
                {h.events.map((e) => (
                  <li key={e.id}>
                    <ChordName symbol={e.symbol} /> {e.pinned ? "pinned" : Reharm.describe(e.why)}
                  </li>
                ))}
                {h.clashes.slice(0, 3).map((c) => (
                  <li key={c}>Clash: {c}</li>
                ))}
              </ul>
            )}
          </li>
        ))}
      </ol>
      {list.length > 0 && (
        <p className="small">
          Pinned chords stay. Root progressions as usual in Piston’s table; each differs from the others in a fifth of
          its places or more.
        </p>
      )}
    </>
  );
}
