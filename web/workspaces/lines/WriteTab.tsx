import { useState } from "react";
import {
  Chord,
  Counter,
  type CounterLine,
  type CounterSettings,
  type CounterStyle,
  Drums,
  Song,
  sure,
  Text,
} from "../../../core/src/index";
import { addPart } from "../../app/commands/parts";
import { useLineOffers, useWritten, writeCounters } from "../../app/commands/written";
import { clearLines, useResults } from "../../app/store/results";
import { useSelection } from "../../app/store/selection";
import { edit } from "../../app/store/song";
import { Fold } from "../../kit/Fold";
import { LineCandidates } from "../../kit/LineCandidates";
import { OwnFindings } from "../../kit/OwnFindings";
import type { PartProps } from "../../kit/partProps";
import { Refused } from "../../kit/Refused";
import { Select, type Choice } from "../../kit/Select";
import { Slider } from "../../kit/Slider";
import { percent } from "../../kit/texts";
import { WayButtons, WayRange } from "../../kit/WaySettings";

/** Counter melodies written for an instrument by style, heard in place and taken. */
export function WriteTab({ data, part }: PartProps) {
  if (part.role === "counter") return <Writer data={data} part={part} />;
  const others = data.song.parts.filter((p) => p.role === "counter" && Song.isWritten(p));
  return (
    <>
      <p>{part.name} is a tune. What answers it is written for a part of its own, so that the tune stays as it is.</p>
      <p className="controls">
        {others.map((p) => (
          <button key={p.id} type="button" onClick={() => useSelection.setState({ linePart: p.id })}>
            Write for {p.name}
          </button>
        ))}
        <button
          type="button"
          className={others.length ? "" : "primary"}
          onClick={() => {
            const id = addPart("counter");
            if (id) useSelection.setState({ linePart: id });
          }}
        >
          Add a counter melody
        </button>
      </p>
    </>
  );
}

function Writer({ data, part }: PartProps) {
  const section = data.section.id;
  const busy = useResults((s) => s.busy !== null);
  const problem = useResults((s) => s.writeProblem);
  const lines = useWritten("counter", section, part.id);
  const offers = useLineOffers("counter", part.id, section, data.length);
  const [seed, setSeed] = useState(1);
  const [lead, setLead] = useState<string | undefined>(undefined);
  const leads = Counter.leads(data.song, part.id);
  const against = leads.find((p) => p.id === lead) ?? leads[0];
  const style = Counter.styleOf(part, data.section);
  const bare = !style.withoutChords && !data.section.chords.some((c) => Chord.of(c.symbol));
  const write = () => {
    const next = lines.length ? seed + 1 : seed;
    setSeed(next);
    void writeCounters(section, part.id, next, against?.id);
  };
  return (
    <>
      <div className="controls">
        <Select
          label="Style"
          value={style.id}
          choices={Counter.STYLES.map((s) => [s.id, s.title])}
          set={(id) => {
            edit({ do: "setPlaying", part: part.id, section, counter: { style: id } });
            clearLines();
          }}
        />
        {leads.length > 1 && (
          <Select
            label="The line it answers"
            text="against"
            value={sure(against).id}
            choices={leads.map((p) => [p.id, p.name])}
            set={(id) => {
              setLead(id);
              clearLines();
            }}
          />
        )}
        <button type="button" className="primary" onClick={write} disabled={busy || bare}>
          {busy && "Writing …"}
          {!busy && (lines.length ? "More lines" : "Write lines")}
        </button>
      </div>
      <p className="small">
        {style.explanation} {style.source.startsWith("common") ? "" : `(${style.source}.) `}Pinned notes stay.
      </p>
      {bare && (
        <p className="small">
          There are no chords here yet: type them in Chords, and lines can be written against them.
        </p>
      )}
      {problem && <Refused problem={problem} />}
      <LineCandidates data={data} part={part} offers={offers} lines={lines} text={(line) => lineText(line, style)} />
      <Fold title="how it is written">
        <Settings data={data} part={part} style={style} />
      </Fold>
      <OwnFindings data={data} part={part.id} />
    </>
  );
}

/** What sets a line apart, in the figures its style aims at. */
function lineText({ report }: CounterLine, { targets }: CounterStyle): string {
  return [
    Text.counted(report.notes, "note"),
    `${report.pitches} different in two bars`,
    report.clashes ? `${report.clashes} rub` : "no rub",
    targets.independent !== undefined && report.independent !== null && `${percent(report.independent)} its own way`,
    targets.overlap !== undefined && report.overlap !== null && `${percent(report.overlap)} under the tune`,
    targets.guides !== undefined && report.guides !== null && `${percent(report.guides)} guide tones`,
    targets.hits && `${report.hits - report.missed.length} of ${report.hits} hits`,
  ]
    .filter(Boolean)
    .join(", ");
}

const CHOICES: Partial<Record<keyof CounterSettings, { label: string; choices: readonly Choice<string>[] }>> = {
  side: {
    label: "lies",
    choices: [
      ["either", "where there is room"],
      ["below", "below the tune"],
      ["above", "above the tune"],
    ],
  },
  hits: {
    label: "pitches of the hits",
    choices: [
      ["few", "as few as it can"],
      ["chord", "up and down the chord"],
      ["line", "a line by step"],
    ],
  },
  cell: {
    label: "the cell",
    choices: [
      ["refit", "is refitted to every chord"],
      ["scale", "moves along the scale"],
      ["hold", "is held as it is"],
    ],
  },
  under: {
    label: "two notes",
    choices: [
      ["sixths", "a sixth apart"],
      ["thirds", "a third apart"],
    ],
  },
};

/** How the line is written, in plain terms: what the style makes use of. Every change is one of this section. */
function Settings({ data, part, style }: PartProps & { style: CounterStyle }) {
  const section = data.section.id;
  const now = Counter.settings(part, data.section, style.usual);
  const put = (
    values: Parameters<typeof edit>[0] extends infer E
      ? E extends { do: "setPlaying"; counter?: infer C }
        ? C
        : never
      : never,
    quiet = false,
  ): boolean => {
    clearLines();
    return edit({ do: "setPlaying", part: part.id, section, counter: values }, { quiet });
  };
  const shown = style.uses.filter((name) => CHOICES[name]);
  return (
    <div className="line-settings">
      {style.uses.includes("density") && (
        <Slider
          from="few notes"
          to="many"
          label="Density"
          value={now.density}
          step={0.05}
          set={(n, quiet) => put({ density: n }, quiet)}
        />
      )}
      <table className="measures settings">
        <tbody>
          {shown.map((name) => {
            const { label, choices } = sure(CHOICES[name]);
            return (
              <tr key={name}>
                <th scope="row">{label}</th>
                <td>
                  <Select label={label} value={String(now[name])} choices={choices} set={(v) => put({ [name]: v })} />
                </td>
              </tr>
            );
          })}
          {style.uses.includes("drum") && (
            <DrumChoice data={data} part={part} drum={now.drum} put={(drum) => put({ drum })} />
          )}
          <tr>
            <th scope="row">range</th>
            <td className="span">
              <WayRange data={data} part={part} low={now.low} high={now.high} put={put} />
            </td>
          </tr>
        </tbody>
      </table>
      <WayButtons data={data} part={part} way="counter" chosen={{ style: style.id }} />
    </div>
  );
}

type DrumName = NonNullable<CounterSettings["drum"]>;

/** Whose hits the line takes: the drums that have some here. */
function DrumChoice({
  data,
  drum,
  put,
}: PartProps & { drum: DrumName | undefined; put(drum: DrumName | null): boolean }) {
  const struck = data.section.groove.lanes.filter((l) => l.hits.length);
  return (
    <tr>
      <th scope="row">takes the hits of</th>
      <td>
        <Select
          label="takes the hits of"
          value={drum ?? ""}
          choices={[
            ["", "what stands out"] as [DrumName | "", string],
            ...struck.map((l): [DrumName | "", string] => [l.drum, l.name ?? Drums.KINDS[l.drum].title]),
          ]}
          set={(v) => put(v === "" ? null : (v as DrumName))}
        />
      </td>
    </tr>
  );
}
