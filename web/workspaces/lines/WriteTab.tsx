import { useState } from "react";
import {
  Chord,
  Counter,
  type CounterLine,
  type CounterSettings,
  type CounterStyle,
  Drums,
  Song,
  Text,
} from "../../../core/src/index";
import { addPart } from "../../app/commands/parts";
import { useLineOffers, useWritten, writeCounters } from "../../app/commands/written";
import { useSelection } from "../../app/store/selection";
import { LineBench } from "../../kit/LineBench";
import { LineSettings, putPlaying, type Control } from "../../kit/LineSettings";
import { OwnFindings } from "../../kit/OwnFindings";
import type { PartProps } from "../../kit/partProps";
import { Select } from "../../kit/Select";
import { percent } from "../../kit/texts";
import { Button } from "../../kit/Button";

/** Counter melodies written for an instrument by style, heard in place and taken. */
export function WriteTab({ data, part }: PartProps) {
  if (part.role === "counter") return <Writer data={data} part={part} />;
  const others = data.song.parts.filter((p) => p.role === "counter" && Song.isWritten(p));
  return (
    <>
      <p>{part.name} is a tune. What answers it is written for a part of its own, so that the tune stays as it is.</p>
      <p className="controls">
        {others.map((p) => (
          <Button key={p.id} onClick={() => useSelection.setState({ linePart: p.id })}>
            Write for {p.name}
          </Button>
        ))}
        <Button
          className={others.length ? "" : "primary"}
          onClick={() => {
            const id = addPart("counter");
            if (id) useSelection.setState({ linePart: id });
          }}
        >
          Add a counter melody
        </Button>
      </p>
    </>
  );
}

function Writer({ data, part }: PartProps) {
  const section = data.section.id;
  const lines = useWritten("counter", section, part.id);
  const offers = useLineOffers("counter", part.id, section, data.length);
  const [seed, setSeed] = useState(1);
  const [lead, setLead] = useState<string | undefined>(undefined);
  const leads = Counter.leads(data.song, part.id);
  const against = leads.find((p) => p.id === lead) ?? leads[0];
  const style = Counter.styleOf(part, data.section);
  const bare = !style.withoutChords && !data.section.chords.some((c) => Chord.of(c.symbol));
  const run = () => {
    const next = lines.length ? seed + 1 : seed;
    setSeed(next);
    void writeCounters(section, part.id, next, against?.id);
  };
  return (
    <LineBench
      data={data}
      part={part}
      way="counter"
      style={{ label: "Style", field: "style", now: style, all: Counter.STYLES }}
      against={{ label: "The line it answers", words: "against", parts: leads, now: against, set: setLead }}
      write={{ words: lines.length ? "More lines" : "Write lines", possible: !bare, run }}
      lines={lines}
      offers={offers}
      text={(line) => lineText(line, style)}
      before={
        bare && (
          <p className="small">
            There are no chords here yet: type them in Chords, and lines can be written against them.
          </p>
        )
      }
      settings={["how it is written", <Settings key="counter" data={data} part={part} style={style} />]}
    >
      <OwnFindings data={data} part={part.id} />
    </LineBench>
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

const CONTROLS: readonly Control<keyof CounterSettings>[] = [
  { kind: "slider", name: "density", label: "Density", from: "few notes", to: "many", step: 0.05 },
  {
    kind: "choice",
    name: "side",
    words: "lies",
    choices: [
      ["either", "where there is room"],
      ["below", "below the tune"],
      ["above", "above the tune"],
    ],
  },
  {
    kind: "choice",
    name: "hits",
    words: "pitches of the hits",
    choices: [
      ["few", "as few as it can"],
      ["chord", "up and down the chord"],
      ["line", "a line by step"],
    ],
  },
  {
    kind: "choice",
    name: "cell",
    words: "the cell",
    choices: [
      ["refit", "is refitted to every chord"],
      ["scale", "moves along the scale"],
      ["hold", "is held as it is"],
    ],
  },
  {
    kind: "choice",
    name: "under",
    words: "two notes",
    choices: [
      ["sixths", "a sixth apart"],
      ["thirds", "a third apart"],
    ],
  },
];

/** How the line is written, in plain terms: what the style makes use of. Every change is one of this section. */
function Settings({ data, part, style }: PartProps & { style: CounterStyle }) {
  const now = Counter.settings(part, data.section, style.usual);
  return (
    <LineSettings
      data={data}
      part={part}
      way="counter"
      controls={CONTROLS.filter((c) => style.uses.includes(c.name))}
      now={{ drum: undefined, ...now }}
      range={now}
      chosen={{ style: style.id }}
    >
      {style.uses.includes("drum") && (
        <DrumChoice data={data} drum={now.drum} put={(drum) => putPlaying({ data, part, way: "counter" }, { drum })} />
      )}
    </LineSettings>
  );
}

type DrumName = NonNullable<CounterSettings["drum"]>;

/** Whose hits the line takes: the drums that have some here. */
function DrumChoice({
  data,
  drum,
  put,
}: {
  data: PartProps["data"];
  drum: DrumName | undefined;
  put(drum: DrumName | null): boolean;
}) {
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
