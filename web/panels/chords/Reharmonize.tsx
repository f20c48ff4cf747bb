import { startTransition, useEffect, useMemo, useState } from "react";
import { describeChange, TECHNIQUES, typeset, typesetNames, writeLine, type Problem, type Progressed } from "../../../core/src/index";
import type { ScoreData } from "../../score/data";
import { useSong } from "../../store/song";
import { useView, type Offer } from "../../store/view";
import { ChordName } from "../../ui/ChordName";
import { latest, workers } from "../../workers/client";
import type { ShownOffer } from "../../workers/music.worker";
import { bassFollows, OfferButtons } from "./offers";
import { Between } from "../../ui/Between";

type Aim = "all" | "more" | "less";

/** What the last request found; only the newest one is shown. */
interface Found {
  one: ShownOffer[];
  whole: Progressed[];
  problem: Problem | null;
}

const NOTHING: Found = { one: [], whole: [], problem: null };

/** Alternatives for the chosen chords or the whole section, from close to adventurous. */
export function Reharmonize({ data }: { data: ScoreData }) {
  const { chords, chord, verdict, set } = useView();
  const version = useSong((s) => s.version);
  const written = useSong((s) => s.song?.sections.find((x) => x.id === data.section.id)?.chords.length ?? 0);
  const [range, setRange] = useState(0.35);
  const [off, setOff] = useState<string[]>([]);
  const [aim, setAim] = useState<Aim>("all");
  const [whole, setWhole] = useState(false);
  const [found, setFound] = useState<Found>(NOTHING);
  const [follows, setFollows] = useState(bassFollows.on);
  const request = useMemo(
    () =>
      latest(
        async (section: string, ids: string[], at: number, allowed: string[], all: boolean): Promise<Found> => {
          if (all) {
            const result = await workers.writer.reharmonizeSection({ section, range: at, techniques: allowed });
            return result.ok ? { ...NOTHING, whole: result.value } : { ...NOTHING, problem: result.error };
          }
          const result = await workers.writer.reharmonize({ section, chordIds: ids, range: at, techniques: allowed });
          return result.ok ? { ...NOTHING, one: result.value } : { ...NOTHING, problem: result.error };
        },
        (result) => startTransition(() => setFound(result)),
      ),
    [],
  );
  const ids = chords.length ? chords : chord ? [chord] : [];
  const allowed = TECHNIQUES.filter((t) => !off.includes(t.id) && (aim === "all" || t.aim === aim)).map((t) => t.id);
  const idText = ids.join();
  const allowedText = allowed.join();
  useEffect(() => {
    if (!whole && !idText) setFound(NOTHING);
    else request(data.section.id, idText.split(","), range, allowedText.split(","), whole);
  }, [request, data.section.id, idText, range, allowedText, whole, version]);

  const shown = found.one;
  const offers = useMemo(
    () =>
      whole
        ? found.whole.map((p, i): Offer => ({
            id: `whole:${i}:${p.cost.toFixed(3)}`,
            label: `progression ${i + 1}`,
            edit: { do: "setChords", section: data.section.id, from: 0, to: data.length, chords: p.events },
            from: 0,
            to: data.length,
          }))
        : found.one.map((c): Offer => ({
            id: `reharm:${c.from}:${c.chords.map((x) => x.symbol).join()}`,
            label: `${c.title}: ${c.chords.map((x) => x.symbol).join(" ")}`,
            edit: { do: "setChords", section: data.section.id, from: c.from, to: c.to, chords: c.chords },
            from: c.from,
            to: c.to,
          })),
    [found, whole, data.section.id, data.length],
  );
  useEffect(() => {
    set({ offers });
    return () => set({ offers: [] });
  }, [offers, set]);

  const bar = data.meter.bar;
  return (
    <>
      {verdict && data.section.chords.length > 1 && (
        <p className={verdict.enough ? "verdict enough" : "verdict"}>{typesetNames(verdict.text)}</p>
      )}
      <div className="controls" role="group" aria-label="What to change">
        <button type="button" aria-pressed={!whole} onClick={() => setWhole(false)}>
          {ids.length > 1 ? `${ids.length} chosen chords` : "chosen chord"}
        </button>
        <button type="button" aria-pressed={whole} onClick={() => setWhole(true)}>
          whole section
        </button>
      </div>
      <Between from="close" to="adventurous" label="From close to adventurous" value={range} step={0.05} set={setRange} />
      <div className="controls" role="group" aria-label="More or less">
        {(
          [
            ["all", "everything"],
            ["more", "more color"],
            ["less", "fewer chords"],
          ] as [Aim, string][]
        ).map(([id, label]) => (
          <button key={id} type="button" aria-pressed={aim === id} onClick={() => setAim(id)}>
            {label}
          </button>
        ))}
        <label title="The written bass keeps its rhythm and goes to the new chord tones">
          <input
            type="checkbox"
            checked={follows}
            onChange={(e) => {
              bassFollows.on = e.target.checked;
              setFollows(e.target.checked);
            }}
          />{" "}
          bass follows
        </label>
      </div>
      <details className="techniques">
        <summary className="small">
          {TECHNIQUES.length - off.length} of {TECHNIQUES.length} techniques
        </summary>
        <div className="controls">
          <button type="button" onClick={() => setOff([])}>
            all
          </button>
          <button type="button" onClick={() => setOff(TECHNIQUES.map((t) => t.id))}>
            none
          </button>
        </div>
        {TECHNIQUES.map((t) => (
          <label key={t.id} title={`${t.explanation} (${t.source})`}>
            <input
              type="checkbox"
              checked={!off.includes(t.id)}
              onChange={() => setOff(off.includes(t.id) ? off.filter((x) => x !== t.id) : [...off, t.id])}
            />{" "}
            {t.title}
          </label>
        ))}
      </details>
      {found.problem && (
        <p className="small">
          {found.problem.message}. {found.problem.hint}
        </p>
      )}
      {!whole && !ids.length && (
        <p className="small">Choose a chord in the score; Shift and arrows, or Shift and a click, choose a row of them.</p>
      )}
      <ol className="offer-list" aria-label="Alternatives">
        {whole
          ? found.whole.map((p, i) => (
              <WholeOffer key={offers[i]?.id ?? i} p={p} n={i + 1} data={data} written={written} offer={offers[i]} />
            ))
          : shown.map((c, i) => <OneOffer key={offers[i]?.id ?? i} c={c} n={i + 1} offer={offers[i]} bar={bar} end={data.length} />)}
      </ol>
      {offers.length > 0 && (
        <p className="small">
          Keys 1–{offers.length} hear one, A goes back and forth between it and what is written, T takes it. Pinned chords stay.
        </p>
      )}
    </>
  );
}

function OneOffer({ c, n, offer, bar, end }: { c: ShownOffer; n: number; offer: Offer | undefined; bar: number; end: number }) {
  const heard = useView((s) => s.preview?.id === offer?.id);
  const clashes = c.melody.clashes;
  const tune = c.melody.chordTones + c.melody.tensions + clashes.length;
  return (
    <li className={heard ? "current" : ""}>
      <span className="offer-head">
        <b className="tabular">{n}</b>
        <span className="offer-chords">
          {c.chords.map((x, i) => (
            <ChordName key={i} symbol={x.symbol} />
          ))}
        </span>
        {offer && <OfferButtons offer={offer} bar={bar} end={end} />}
      </span>
      <span className="offer-why">
        {c.title}. {describeChange(c.reasons[0])}.
      </span>
      <span className="small offer-measures">
        {tune === 0
          ? "no tune here"
          : clashes.length
            ? clashes[0]
            : c.melody.tensions
              ? `tune: ${c.melody.chordTones} chord tones, ${c.melody.tensions} tension${c.melody.tensions === 1 ? "" : "s"}`
              : "tune: all chord tones"}
        {clashes.length > 1 && ` and ${clashes.length - 1} more`}; voices {c.motion.before} → {c.motion.after} st;{" "}
        {c.outside ? `${c.outside} note${c.outside === 1 ? "" : "s"} outside the key` : "in the key"}
        {c.bass.clashes.length > 0 && !bassFollows.on && `; bass: ${c.bass.clashes[0]}`}
      </span>
    </li>
  );
}

function WholeOffer({
  p,
  n,
  data,
  written,
  offer,
}: {
  p: Progressed;
  n: number;
  data: ScoreData;
  written: number;
  offer: Offer | undefined;
}) {
  const heard = useView((s) => s.preview?.id === offer?.id);
  const titles = p.technique
    .split(", ")
    .map((id) => TECHNIQUES.find((t) => t.id === id)?.title.toLowerCase() ?? id)
    .join(", ");
  return (
    <li className={heard ? "current" : ""}>
      <span className="offer-head">
        <b className="tabular">{n}</b>
        <span className="small">
          {p.changed ? `${p.changed} of ${written} chords changed` : "as written"}, cost {p.cost.toFixed(1)}
        </span>
        {offer && <OfferButtons offer={offer} bar={data.meter.bar} end={data.length} />}
      </span>
      <span className="offer-line">{typeset(writeLine(p.events, data.meter, data.section.bars))}</span>
      <span className="small">
        {titles};{" "}
        {p.clashes.length
          ? `${p.clashes.length} ${p.clashes.length === 1 ? "note" : "notes"} of the tune would clash: ${p.clashes[0]}`
          : "the tune fits"}
      </span>
    </li>
  );
}
