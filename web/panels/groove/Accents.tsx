import { useMemo } from "react";
import { ACCENT_STEP, accentMap, positionText, type AccentPair, type AccentRow } from "../../../core/src/index";
import type { ScoreData } from "../../score/data";

const WORDS: Record<AccentPair["kind"], string> = { agree: "agree", interlock: "interlock", fight: "rub", apart: "go their own ways" };

/** Who strikes where in the bar, and who agrees with whom. */
export function Accents({ data }: { data: ScoreData }) {
  const map = useMemo(() => accentMap(data.song, data.section.id), [data.song, data.section.id]);
  if (!map.ok) return <p className="problem">{map.error.message}</p>;
  const { rows, steps, total, pairs, meter } = map.value;
  if (!rows.length) return <p className="small">Nothing is struck yet: paint drums or write a line.</p>;
  const beats = meter.beats.map((b) => b.start / ACCENT_STEP);
  const where = (step: number) => positionText(meter, step * ACCENT_STEP).replace("bar 1, ", "");
  const nameOf = (id: string) => rows.find((r) => r.id === id)!.name;
  const most = Math.max(...total, 0.01);
  const line = (r: Pick<AccentRow, "id" | "name" | "strength" | "accents">, scale: number) => (
    <tr key={r.id}>
      <th scope="row">{r.name}</th>
      {r.strength.map((s, i) => (
        <td key={i} className={beats.includes(i) ? "beat" : ""} title={`${r.name}, ${where(i)}: ${Math.round((s / scale) * 100)} %`}>
          <i className={r.accents.includes(i) ? "accent" : ""} style={{ height: `${Math.round(Math.min(1, s / scale) * 14)}px` }} />
        </td>
      ))}
    </tr>
  );
  const interesting = pairs.filter((p) => p.kind !== "apart");
  const order = { fight: 0, interlock: 1, agree: 2, apart: 3 };
  return (
    <>
      <h3>Who strikes where in the bar</h3>
      <table className="accent-map" aria-label={`Accents over ${steps} sixteenths of the bar`}>
        <tbody>
          {line({ id: "all", name: "all", strength: total, accents: [] }, most)}
          {rows.map((r) => line(r, 1))}
        </tbody>
      </table>
      <p className="small">Dark columns are accents: struck in most bars, and not much softer than the strongest of the row.</p>
      <h3>Syncopation a bar</h3>
      <table className="measures">
        <tbody>
          {rows.map((r) => (
            <tr key={r.id} className={r.syncopation ? "" : "zero"}>
              <th scope="row">{r.name}</th>
              <td title="A weak attack before a stronger place that is silent or held (Longuet-Higgins & Lee 1984)">
                {r.syncopation.toFixed(1)}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <h3>Pairs</h3>
      {interesting.length ? (
        <ul className="plain-list">
          {[...interesting]
            .sort((a, b) => order[a.kind] - order[b.kind])
            .map((p) => (
              <li key={`${p.a}|${p.b}`}>
                {nameOf(p.a)} and {nameOf(p.b)} <b className={p.kind === "fight" ? "severity warning" : ""}>{WORDS[p.kind]}</b>
                <span className="small">
                  {p.rubbing.length > 0 && `, a sixteenth apart at ${p.rubbing.map(([x, y]) => `${where(Math.min(x, y))}`).join(", ")}`}
                  {p.kind === "agree" && ` on ${p.together.map(where).join(", ")}`}
                </span>
              </li>
            ))}
        </ul>
      ) : (
        <p className="small">No two players agree, interlock or rub.</p>
      )}
    </>
  );
}
