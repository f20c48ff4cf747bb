import { memo, useState } from "react";
import { positionText, RULES, typesetNames, type Finding, type Meter, type Section } from "../../core/src/index";
import type { ScoreData } from "../score/data";
import { useSong } from "../store/song";
import { useView } from "../store/view";
import { FixLink } from "./hear";

const SHOWN = 25;

export function FindingList({ data, findings, all }: { data: ScoreData; findings: readonly Finding[]; all: readonly Finding[] }) {
  const [more, setMore] = useState(false);
  const rest = findings.length - SHOWN;
  return (
    <ol className="findings">
      {(more ? findings : findings.slice(0, SHOWN)).map((f) => (
        <Item key={f.id} finding={f} number={all.indexOf(f) + 1} section={data.section} meter={data.meter} />
      ))}
      {rest > 0 && !more && (
        <li>
          <span />
          <button type="button" onClick={() => setMore(true)}>
            Show {rest} more
          </button>
        </li>
      )}
    </ol>
  );
}

interface ItemProps {
  finding: Finding;
  number: number;
  section: Section;
  meter: Meter;
}

// Findings arrive anew from the worker at every step of a drag: only those that say something else are drawn again.
const same = (a: ItemProps, b: ItemProps): boolean =>
  a.number === b.number &&
  a.section.id === b.section.id &&
  a.section.bars === b.section.bars &&
  a.meter === b.meter &&
  JSON.stringify(a.finding) === JSON.stringify(b.finding);

const Item = memo(function Item({ finding: f, number, section, meter }: ItemProps) {
  const edit = useSong((s) => s.edit);
  const set = useView((s) => s.set);
  const [reason, setReason] = useState<string | null>(null);
  const rule = RULES.find((r) => r.id === f.rule);
  const show = () => set({ selected: { part: f.where.parts[0]!, ids: f.where.notes.filter((n) => !n.includes("@")) } });
  return (
    <li className={`${f.severity}${f.waived !== undefined ? " waived" : ""}`}>
      <button type="button" className="number" title={`Show it in the score: ${positionText(meter, f.where.tick)}`} onClick={show}>
        {number}
      </button>
      <div>
        <p>{typesetNames(f.message)}</p>
        <p className="small" title={rule?.explanation}>
          <span className={`severity ${f.severity}`}>{f.severity}</span> {f.amount} · {rule?.title}{" "}
          <span className="source">({f.source})</span>
        </p>
        {f.waived !== undefined ? (
          <p className="small">
            Left: “{f.waived}”{" "}
            <button type="button" onClick={() => edit({ do: "unwaive", waiver: f.waiver! })}>
              Judge it again
            </button>
          </p>
        ) : (
          <p className="fixes">
            {f.fixes.map((fix) => (
              <FixLink key={fix.label} fix={fix} id={`${f.id}/${fix.label}`} section={section} meter={meter} tick={f.where.tick} />
            ))}
            {reason !== null ? (
              <input
                autoFocus
                aria-label="Reason for leaving it"
                placeholder="why it may stand"
                value={reason}
                onChange={(e) => setReason(e.target.value)}
                onBlur={() => setReason(null)}
                onKeyDown={(e) => {
                  e.stopPropagation();
                  if (e.key === "Escape") setReason(null);
                  if (e.key === "Enter" && reason.trim()) {
                    edit({ do: "waive", finding: f.id, reason: reason.trim() });
                    setReason(null);
                  }
                }}
              />
            ) : (
              <button type="button" onClick={() => setReason("")}>
                Leave, with a reason
              </button>
            )}
          </p>
        )}
      </div>
    </li>
  );
}, same);
