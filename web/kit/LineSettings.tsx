import Table from "react-bootstrap/Table";
import type { ReactNode } from "react";
import { clearLines } from "../app/store/results";
import { edit } from "../app/store/song";
import { Check } from "./Check";
import type { PartProps } from "./partProps";
import { Select, type Choice } from "./Select";
import { Slider } from "./Slider";
import { WayButtons, WayRange } from "./WaySettings";

type Value = string | number;

/** One setting of a line, as it is shown: a slider, one of a few, a yes or no. */
export type Control<Name extends string> =
  | { kind: "slider"; name: Name; label: string; from: string; to: string; step?: number }
  | { kind: "choice"; name: Name; words: string; label?: string; choices: readonly Choice<Value>[] }
  | { kind: "check"; name: Name; words: string; title: string };

interface Props<Name extends string> extends PartProps {
  /** The way of playing that the settings belong to. */
  way: "bass" | "counter" | "vocal";
  controls: readonly Control<Name>[];
  now: Readonly<Record<Name, unknown>>;
  /** Lowest and highest note, where the range can be set. */
  range?: { low: string; high: string };
  /** Style or school as it stands: it stays when settings are given back. */
  chosen: Record<string, string>;
  /** Rows of its own. */
  children?: ReactNode;
}

/** Changes how a part plays in a section; lines that were written before are done with. */
export function putPlaying(
  { data, part, way }: Pick<Props<never>, "data" | "part" | "way">,
  values: Record<string, unknown>,
  quiet = false,
): boolean {
  clearLines();
  return edit({ do: "setPlaying", part: part.id, section: data.section.id, [way]: values }, { quiet });
}

/** How a line is written, in plain terms. Every change is one of this section. */
export function LineSettings<Name extends string>(props: Props<Name>) {
  const { data, part, way, controls, now, range, chosen, children } = props;
  const put = (values: Record<string, unknown>, quiet = false) => putPlaying({ data, part, way }, values, quiet);
  return (
    <div className="line-settings">
      {controls.map((c) =>
        c.kind === "slider" ? (
          <Slider
            key={c.name}
            from={c.from}
            to={c.to}
            label={c.label}
            value={Number(now[c.name])}
            {...(c.step === undefined ? {} : { step: c.step })}
            set={(n, quiet) => put({ [c.name]: n }, quiet)}
          />
        ) : null,
      )}
      <Table bsPrefix="measures" className="settings">
        <tbody>
          {controls.map((c) =>
            c.kind === "choice" ? (
              <tr key={c.name}>
                <th scope="row">{c.words}</th>
                <td>
                  <Select
                    label={c.label ?? c.words}
                    value={now[c.name] as Value}
                    choices={c.choices}
                    set={(v) => put({ [c.name]: v })}
                  />
                </td>
              </tr>
            ) : null,
          )}
          {children}
          {range && (
            <tr>
              <th scope="row">range</th>
              <td className="span">
                <WayRange data={data} part={part} low={range.low} high={range.high} put={put} />
              </td>
            </tr>
          )}
        </tbody>
      </Table>
      {controls.map((c) =>
        c.kind === "check" ? (
          <Check key={c.name} title={c.title} on={now[c.name] === true} set={(on) => put({ [c.name]: on })}>
            {c.words}
          </Check>
        ) : null,
      )}
      <WayButtons data={data} part={part} way={way} chosen={chosen} />
    </div>
  );
}
