import { startTransition, useEffect, useMemo, useState } from "react";
import {
  describeChange,
  RHYTHMS,
  typeset,
  writeLine,
  type HarmonicRhythm,
  type Harmonization,
  type Problem,
} from "../../../core/src/index";
import type { ScoreData } from "../../score/data";
import { useView, type Offer } from "../../store/view";
import { workers } from "../../workers/client";
import { ChordName } from "../../ui/ChordName";
import { OfferButtons } from "./offers";
import { Between } from "../../ui/Between";
import { Refused } from "../../ui/Refused";

/** Chords for a line that is there already: a tune, or a bass. */
export function Harmonize({ data }: { data: ScoreData }) {
  const set = useView((s) => s.set);
  const parts = data.song.parts.filter((p) => !p.link && p.role !== "drums" && (data.section.notes[p.id]?.length ?? 0) > 0);
  const [partId, setPart] = useState("");
  const part = parts.find((p) => p.id === partId) ?? parts[0];
  const [rhythm, setRhythm] = useState<HarmonicRhythm>("bar");
  const [color, setColor] = useState(0.4);
  const [ending, setEnding] = useState<"closed" | "open">("closed");
  const [busy, setBusy] = useState(false);
  const [found, setFound] = useState<{ section: string; list: Harmonization[] } | null>(null);
  const [problem, setProblem] = useState<Problem | null>(null);
  const [open, setOpen] = useState<number | null>(0);
  const list = useMemo(() => (found?.section === data.section.id ? found.list : []), [found, data.section.id]);
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
  useEffect(() => {
    set({ offers });
    return () => set({ offers: [] });
  }, [offers, set]);
  if (!part)
    return (
      <p>
        There is no line here yet. Click a tune into a melody lane or a bass line into the bass lane, or take one from a MIDI file under
        Write, file.
      </p>
    );
  const as = part.role === "bass" ? "bass" : "melody";
  const go = async () => {
    setBusy(true);
    const result = await workers.writer.harmonize({ section: data.section.id, part: part.id, rhythm, color, ending }, as);
    setBusy(false);
    setProblem(result.ok ? null : result.error);
    startTransition(() => {
      setFound({ section: data.section.id, list: result.ok ? result.value : [] });
      setOpen(0);
    });
  };
  return (
    <>
      <div className="controls">
        <label>
          <span className="muted">line</span>
          <select value={part.id} onChange={(e) => setPart(e.target.value)}>
            {parts.map((p) => (
              <option key={p.id} value={p.id}>
                {p.name} ({p.role === "bass" ? "as the bass of the chords" : "on top of the chords"})
              </option>
            ))}
          </select>
        </label>
      </div>
      <div className="controls">
        <label>
          <span className="muted">a chord each</span>
          <select value={rhythm} onChange={(e) => setRhythm(e.target.value as HarmonicRhythm)}>
            {RHYTHMS.map((r) => (
              <option key={r} value={r}>
                {r === "free" ? "half bar, where the line asks for it" : r}
              </option>
            ))}
          </select>
        </label>
        <label>
          <span className="muted">end</span>
          <select value={ending} onChange={(e) => setEnding(e.target.value as "closed" | "open")}>
            <option value="closed">at home</option>
            <option value="open">on the dominant</option>
          </select>
        </label>
      </div>
      <Between from="plain triads" to="sevenths, neighbors" label="Color" value={color} set={setColor} />
      <div className="controls">
        <button type="button" className="primary" disabled={busy} onClick={() => void go()}>
          {busy ? "Working …" : `Harmonize ${part.name.split(",")[0]}`}
        </button>
      </div>
      {problem && <Refused problem={problem} />}
      <ol className="offer-list" aria-label="Harmonizations">
        {list.map((h, i) => (
          <li key={offers[i]!.id}>
            <span className="offer-head">
              <b className="tabular">{i + 1}</b>
              <span className="small">
                {h.clashes.length
                  ? `${h.clashes.length} ${h.clashes.length === 1 ? "note clashes" : "notes clash"}`
                  : "every long note fits"}
                , cost {h.cost.toFixed(1)}
              </span>
              <OfferButtons offer={offers[i]!} bar={data.meter.bar} end={data.length} />
            </span>
            <span className="offer-line">{typeset(writeLine(h.events, data.meter, data.section.bars))}</span>
            <button type="button" aria-expanded={open === i} onClick={() => setOpen(open === i ? null : i)}>
              reasons
            </button>
            {open === i && (
              <ul className="small reasons">
                {h.events.map((e) => (
                  <li key={e.id}>
                    <ChordName symbol={e.symbol} /> {e.pinned ? "pinned" : describeChange(e.why)}
                  </li>
                ))}
                {h.clashes.slice(0, 3).map((c) => (
                  <li key={c}>Rubs: {c}</li>
                ))}
              </ul>
            )}
          </li>
        ))}
      </ol>
      {list.length > 0 && (
        <p className="small">
          Pinned chords stay. Root progressions as usual in Piston’s table; each differs from the others in a fifth of its places or more.
        </p>
      )}
    </>
  );
}
