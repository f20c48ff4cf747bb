import { drumOf, positionText, type AccentMap, type AccentPair, type AccentRow } from "../../../core/src/index";
import type { ScoreData } from "../../score/data";
import { useSong } from "../../store/song";

const WORDS: Record<AccentPair["kind"], string> = {
  agree: "agree",
  interlock: "interlock",
  fight: "just miss each other",
  apart: "go their own ways",
};

/** Who strikes where in the bar, and who agrees with whom. */
export function Accents({ data, map }: { data: ScoreData; map: AccentMap }) {
  const edit = useSong((s) => s.edit);
  const { rows, steps, step: length, total, pairs, meter } = map;
  const beats = meter.beats.map((b) => b.start / length);
  const where = (step: number) => positionText(meter, step * length).replace("bar 1, ", "");
  const nameOf = (id: string) => rows.find((r) => r.id === id)!.name;
  const most = Math.max(...total, 0.01);
  // A step of the kick is a main accent when it is one in every bar that has a kick there.
  const kickSteps = new Map<number, { hits: number[]; main: boolean }>();
  for (const k of data.kicks) {
    const step = Math.round((k.start % meter.bar) / length);
    const known = kickSteps.get(step) ?? { hits: [], main: true };
    kickSteps.set(step, { hits: [...known.hits, k.start], main: known.main && k.main });
  }
  const toggle = (step: number) => {
    const kick = kickSteps.get(step)!;
    const mains = data.kicks.filter((k) => k.main && !kick.hits.includes(k.start)).map((k) => k.start);
    edit({ do: "setAccents", section: data.section.id, accents: kick.main ? mains : [...mains, ...kick.hits] });
  };
  const line = (r: Pick<AccentRow, "id" | "name" | "strength" | "accents">, scale: number) => (
    <tr key={r.id}>
      <th scope="row">{r.name}</th>
      {r.strength.map((s, i) => (
        <td key={i} className={beats.includes(i) ? "beat" : ""} title={`${r.name}, ${where(i)}: ${Math.round((s / scale) * 100)} %`}>
          {drumOf(r.id) === "kick" && kickSteps.has(i) ? (
            <button
              type="button"
              className={kickSteps.get(i)!.main ? "main" : ""}
              aria-pressed={kickSteps.get(i)!.main}
              aria-label={`Main accent of the kick at ${where(i)}`}
              onClick={() => toggle(i)}
            >
              <i className={r.accents.includes(i) ? "accent" : ""} style={{ height: `${Math.round(Math.min(1, s / scale) * 14)}px` }} />
            </button>
          ) : (
            <i className={r.accents.includes(i) ? "accent" : ""} style={{ height: `${Math.round(Math.min(1, s / scale) * 14)}px` }} />
          )}
        </td>
      ))}
    </tr>
  );
  const interesting = pairs.filter((p) => p.kind !== "apart");
  const order = { fight: 0, interlock: 1, agree: 2, apart: 3 };
  return (
    <>
      <h3>Who strikes where in the bar</h3>
      <table className="accent-map" aria-label={`Accents over ${steps} steps of the bar`}>
        <tbody>
          {line({ id: "all", name: "all", strength: total, accents: [] }, most)}
          {rows.map((r) => line(r, 1))}
        </tbody>
      </table>
      <p className="small">
        Dark columns are accents: struck in most bars, and not much softer than the strongest of the row. Underlined kicks are main accents,
        which the bass must meet: press one to change that in all bars.
      </p>
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
                  {p.nearMisses.length > 0 && `, a little apart at ${p.nearMisses.map(([x, y]) => `${where(Math.min(x, y))}`).join(", ")}`}
                  {p.kind === "agree" && ` on ${p.together.map(where).join(", ")}`}
                </span>
              </li>
            ))}
        </ul>
      ) : (
        <p className="small">No two players agree, interlock or just miss each other.</p>
      )}
    </>
  );
}
