import { useState } from "react";
import { positionText, RULES, typesetNames, type Finding } from "../../core/src/index";
import type { ScoreData } from "../score/data";
import { useSong } from "../store/song";
import { useView } from "../store/view";
import { FixLink } from "./hear";

const WORDS = { fault: "fault", warning: "warning", note: "note" } as const;

export function FindingList({ data, findings, all }: { data: ScoreData; findings: readonly Finding[]; all: readonly Finding[] }) {
  const edit = useSong((s) => s.edit);
  const set = useView((s) => s.set);
  const [waiving, setWaiving] = useState<{ id: string; reason: string } | null>(null);
  const show = (f: Finding) => set({ selected: { part: f.where.parts[0]!, ids: f.where.notes.filter((n) => !n.includes("@")) } });
  return (
    <ol className="findings">
      {findings.map((f) => (
        <li key={f.id} className={`${f.severity}${f.waived !== undefined ? " waived" : ""}`}>
          <button type="button" className="number" title={`Show it in the score: ${positionText(data.meter, f.where.tick)}`} onClick={() => show(f)}>{all.indexOf(f) + 1}</button>
          <div>
            <p>{typesetNames(f.message)}</p>
            <p className="small" title={RULES.find((r) => r.id === f.rule)?.explanation}><span className={`severity ${f.severity}`}>{WORDS[f.severity]}</span> {f.measure} · {RULES.find((r) => r.id === f.rule)?.title} <span className="source">({f.source})</span></p>
            {f.waived !== undefined ? (
              <p className="small">Left: “{f.waived}” <button type="button" onClick={() => edit({ do: "unwaive", finding: f.id })}>Judge it again</button></p>
            ) : (
              <p className="fixes">
                {f.fixes.map((fix) => <FixLink key={fix.label} fix={fix} id={`${f.id}/${fix.label}`} section={data.section} meter={data.meter} tick={f.where.tick} />)}
                {waiving?.id === f.id ? (
                  <input autoFocus aria-label="Reason for leaving it" placeholder="why it may stand" value={waiving.reason} onChange={(e) => setWaiving({ id: f.id, reason: e.target.value })} onBlur={() => setWaiving(null)}
                    onKeyDown={(e) => { e.stopPropagation(); if (e.key === "Escape") setWaiving(null); if (e.key === "Enter" && waiving.reason.trim()) { edit({ do: "waive", finding: f.id, reason: waiving.reason.trim() }); setWaiving(null); } }} />
                ) : (
                  <button type="button" onClick={() => setWaiving({ id: f.id, reason: "" })}>Leave, with a reason</button>
                )}
              </p>
            )}
          </div>
        </li>
      ))}
    </ol>
  );
}
