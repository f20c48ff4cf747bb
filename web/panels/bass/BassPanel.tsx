import { useSound } from "../../audio/sound";
import type { ScoreData } from "../../score/data";
import { BASS_TABS, useView, type BassTab } from "../../store/view";
import { LayersTab } from "./LayersTab";
import { bassPartOf, bassParts, heardWith, hearWith } from "./lines";
import { PlayTab } from "./PlayTab";
import { ReportTab } from "./ReportTab";
import { ShapeTab } from "./ShapeTab";
import { WriteTab } from "./WriteTab";

const TITLES: Record<BassTab, string> = { write: "Write", report: "Report", shape: "Shape", layers: "Layers", "play in": "Play in" };
const HEARD = [
  ["alone", "alone"],
  ["kick", "with the kick"],
  ["all", "with all"],
] as const;

/** The bench of the bass: lines written and measured against chord tones, kick and tune. */
export function BassPanel({ data }: { data: ScoreData }) {
  const { bassPart, bassTab, solo, report, set } = useView();
  const playing = useSound((s) => s.playing);
  const part = bassPartOf(data.song, bassPart);
  if (!part) return <p>This song has no bass part. Add one in Voicings, Parts.</p>;
  const all = bassParts(data.song);
  const heard = heardWith(part.id, solo);
  const short = report?.part === part.id && report.report.notes ? report.measures.filter((m) => m.met === false).length : 0;
  return (
    <>
      <h2>
        {all.length > 1 ? (
          <select aria-label="Bass part" value={part.id} onChange={(e) => set({ bassPart: e.target.value, lines: [] })}>
            {all.map((p) => (
              <option key={p.id} value={p.id}>
                {p.name}
              </option>
            ))}
          </select>
        ) : (
          "Bass"
        )}
        , {data.section.name.toLowerCase()}
      </h2>
      <div className="controls heard" role="group" aria-label="Hear the bass">
        <span className="muted">{playing ? "hearing it" : "hear it"}</span>
        {HEARD.map(([id, label]) => (
          <button key={id} type="button" aria-pressed={heard === id} onClick={() => hearWith(part.id, id)}>
            {label}
          </button>
        ))}
      </div>
      <div className="tabs" role="tablist" aria-label="Bass">
        {BASS_TABS.map((t) => (
          <button key={t} type="button" role="tab" aria-selected={bassTab === t} onClick={() => set({ bassTab: t })}>
            {TITLES[t]}
            {t === "report" && short > 0 && <sup aria-label={`${short} off the target`}>{short}</sup>}
          </button>
        ))}
      </div>
      {bassTab === "write" && <WriteTab data={data} part={part} />}
      {bassTab === "report" && <ReportTab data={data} part={part} />}
      {bassTab === "shape" && <ShapeTab data={data} part={part} />}
      {bassTab === "layers" && <LayersTab data={data} part={part} />}
      {bassTab === "play in" && <PlayTab data={data} part={part} />}
    </>
  );
}
