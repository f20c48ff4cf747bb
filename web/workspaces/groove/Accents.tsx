import Table from "react-bootstrap/Table";
import { Meter, type AccentMap, type AccentPair, type AccentRow, Drums, sure } from "../../../core/src/index";
import { setMain } from "../../app/commands/drums";
import type { SectionData } from "../../app/store/sectionData";
import { percent } from "../../kit/texts";
import { Button } from "../../kit/Button";

const WORDS: Record<AccentPair["kind"], string> = {
  agree: "agree",
  interlock: "interlock",
  fight: "just miss each other",
  apart: "go their own ways",
};
const ORDER: Record<AccentPair["kind"], number> = { fight: 0, interlock: 1, agree: 2, apart: 3 };
/** Height of a column at full strength. */
const COLUMN = 14;

interface KickStep {
  hits: number[];
  main: boolean;
}

/** Kicks by step of the bar: a step is a main accent when it is one in every bar that has a kick there. */
function kickSteps(data: SectionData, { meter, step: length }: AccentMap): Map<number, KickStep> {
  const steps = new Map<number, KickStep>();
  for (const k of data.kicks) {
    const step = Math.round((k.start % meter.bar) / length);
    const known = steps.get(step) ?? { hits: [], main: true };
    steps.set(step, { hits: [...known.hits, k.start], main: known.main && k.main });
  }
  return steps;
}

/** Who strikes where in the bar, and who agrees with whom. */
export function Accents({ data, map }: { data: SectionData; map: AccentMap }) {
  const { rows, steps, total } = map;
  const kicks = kickSteps(data, map);
  const all = { id: "all", name: "all", strength: total, accents: [] };
  return (
    <>
      <h3>Who plays where in the bar</h3>
      <Table bsPrefix="accent-map" aria-label={`Accents over ${steps} steps of the bar`}>
        <tbody>
          <Row row={all} scale={Math.max(...total, 0.01)} data={data} map={map} kicks={null} />
          {rows.map((r) => (
            <Row key={r.id} row={r} scale={1} data={data} map={map} kicks={Drums.of(r.id) === "kick" ? kicks : null} />
          ))}
        </tbody>
      </Table>
      <p className="small">
        Dark columns are accents: played in most bars, and not much softer than the strongest of the row. Underlined
        kicks are main accents, which the bass must meet: press one to change that in all bars.
      </p>
      <h3>Syncopation a bar</h3>
      <Table bsPrefix="measures">
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
      </Table>
      <Pairs map={map} />
    </>
  );
}

interface RowProps {
  row: Pick<AccentRow, "id" | "name" | "strength" | "accents">;
  scale: number;
  data: SectionData;
  map: AccentMap;
  /** The kick's own row can be marked. */
  kicks: Map<number, KickStep> | null;
}

function Row({ row: { name, strength, accents }, scale, data, map, kicks }: RowProps) {
  const beats = map.meter.beats.map((b) => b.start / map.step);
  return (
    <tr>
      <th scope="row">{name}</th>
      {strength.map((s, i) => {
        const where = Meter.inBar(map.meter, i * map.step);
        const column = (
          <i
            className={accents.includes(i) ? "accent" : ""}
            style={{ height: `${Math.round(Math.min(1, s / scale) * COLUMN)}px` }}
          />
        );
        const kick = kicks?.get(i);
        return (
          <td key={i} className={beats.includes(i) ? "beat" : ""} title={`${name}, ${where}: ${percent(s / scale)}`}>
            {kick ? (
              <Button
                className={kick.main ? "main" : ""}
                aria-pressed={kick.main}
                aria-label={`Main accent of the kick at ${where}`}
                onClick={() => setMain(data.section.id, data.kicks, kick.hits, !kick.main)}
              >
                {column}
              </Button>
            ) : (
              column
            )}
          </td>
        );
      })}
    </tr>
  );
}

function Pairs({ map: { pairs, rows, meter, step } }: { map: AccentMap }) {
  const where = (at: number) => Meter.inBar(meter, at * step);
  const nameOf = (id: string) => sure(rows.find((r) => r.id === id)).name;
  const interesting = pairs.filter((p) => p.kind !== "apart").sort((a, b) => ORDER[a.kind] - ORDER[b.kind]);
  return (
    <>
      <h3>Pairs</h3>
      {interesting.length ? (
        <ul className="plain-list">
          {interesting.map((p) => (
            <li key={`${p.a}|${p.b}`}>
              {nameOf(p.a)} and {nameOf(p.b)}{" "}
              <b className={p.kind === "fight" ? "severity warning" : ""}>{WORDS[p.kind]}</b>
              <span className="small">
                {p.nearMisses.length > 0 &&
                  `, a little apart at ${p.nearMisses.map(([x, y]) => where(Math.min(x, y))).join(", ")}`}
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
