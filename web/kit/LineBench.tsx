import type { ReactNode } from "react";
import { type Conflict, type Part, Pitch } from "../../core/src/index";
import { stopWriting } from "../app/commands/written";
import { clearLines, useResults, type Offer } from "../app/store/results";
import { Fold } from "./Fold";
import { LineCandidates } from "./LineCandidates";
import { putPlaying } from "./LineSettings";
import type { PartProps } from "./partProps";
import { Refused } from "./Refused";
import { Select } from "./Select";
import { StopLooking } from "./StopLooking";
import { Button } from "./Button";

interface Style {
  id: string;
  title: string;
  explanation: string;
  source: string;
}

interface Props<L extends { title: string; conflicts: readonly Conflict[] }> extends PartProps {
  way: "bass" | "counter" | "vocal";
  /** The styles there are and the one in use; `field` is where parts store it. */
  style: { label: string; field: "style" | "school"; now: Style; all: readonly Style[] };
  /** The line it is written against, where there are several to choose from. */
  against?: { label: string; words: string; parts: readonly Part[]; now: Part | undefined; set(id: string): void };
  write: { words: string; possible: boolean; run(): void };
  lines: readonly L[];
  offers: Offer[];
  /** What sets a line apart, in figures. */
  text(line: L): string;
  /** What else can be done with a line. */
  each?(line: L, offer: Offer): ReactNode;
  /** Shown before the lines: what is missing, and what belongs to the request. */
  before?: ReactNode;
  /** How it is written, folded away under these words. */
  settings?: [words: string, ReactNode];
  children?: ReactNode;
}

/** The bench on which lines of any kind are written: style, request, candidates to be heard and taken, settings. */
export function LineBench<L extends { title: string; conflicts: readonly Conflict[] }>(props: Props<L>) {
  const { data, part, way, style, against, write, lines, offers, before, settings, children } = props;
  const busy = useResults((s) => s.busy !== null);
  const problem = useResults((s) => s.writeProblem);
  const { explanation, source } = style.now;
  return (
    <>
      <div className="controls">
        <Select
          label={style.label}
          value={style.now.id}
          choices={style.all.map((s) => [s.id, s.title])}
          set={(id) => putPlaying({ data, part, way }, { [style.field]: id })}
        />
        {against?.now && against.parts.length > 1 && (
          <Select
            label={against.label}
            text={against.words}
            value={against.now.id}
            choices={against.parts.map((p) => [p.id, p.name])}
            set={(id) => {
              against.set(id);
              clearLines();
            }}
          />
        )}
        <Button className="primary" onClick={write.run} disabled={busy || !write.possible}>
          {busy ? "Writing …" : write.words}
        </Button>
        {busy && <StopLooking stop={stopWriting} />}
      </div>
      <p className="small">
        {Pitch.typesetAll(explanation)} {source.startsWith("common") ? "" : `(${source}.) `}Pinned notes stay.
      </p>
      {before}
      {problem && <Refused problem={problem} />}
      <LineCandidates data={data} part={part} offers={offers} lines={lines} text={props.text}>
        {props.each}
      </LineCandidates>
      {settings && <Fold title={settings[0]}>{settings[1]}</Fold>}
      {children}
    </>
  );
}
