import { useMemo } from "react";
import { Echo, type Edit, nth, type Part, Pitch, sure, Text, type Ticks } from "../../../core/src/index";
import type { Offer } from "../../app/store/results";
import { chooseNotes } from "../../app/store/selection";
import { edit, useSong, useStored } from "../../app/store/song";
import { Fold } from "../../kit/Fold";
import { OfferButtons } from "../../kit/OfferButtons";
import type { PartProps } from "../../kit/partProps";
import { Select, type Choice } from "../../kit/Select";
import { percent } from "../../kit/texts";
import { Button } from "../../kit/Button";

/** Echoes of a line: added as a part of their own, set, judged against the chords they fall into, printed to notes. */
export function EchoOf({ data, part }: PartProps) {
  const { song } = useStored(data.section.id);
  const echoes = song.parts.filter((p) => p.echoes === part.id);
  return (
    <Fold
      title={
        echoes.length
          ? `${Text.counted(echoes.length, "echo", "echoes")} of ${part.name.split(",")[0]}`
          : "an echo of this line"
      }
      open={echoes.length > 0}
    >
      {echoes.map((e) => (
        <OneEcho key={e.id} data={data} part={e} />
      ))}
      {!echoes.length && (
        <p className="small">
          A part of its own that repeats {part.name.split(",")[0]}: a dotted eighth later, three times, half as loud
          each time, unless you set it otherwise.
        </p>
      )}
      <p className="controls">
        <Button
          onClick={() => {
            const name = `${part.name.split(",")[0]}, echo`;
            useSong
              .getState()
              .make({ do: "addPart", name, role: "counter", instrument: part.instrument, echoes: part.id });
          }}
        >
          {echoes.length ? "Add another echo" : "Add an echo"}
        </Button>
      </p>
    </Fold>
  );
}

const DECAYS: readonly Choice<number>[] = [0.25, 0.35, 0.5, 0.65, 0.7, 0.8, 1].map((d) => [d, percent(d)]);
const SHIFTS: readonly Choice<number>[] = [
  [0, "as it is"],
  [12, "an octave up"],
  [-12, "an octave down"],
  [7, "a fifth up"],
];

function OneEcho({ data, part }: { data: PartProps["data"]; part: Part }) {
  const { song, section } = useStored(data.section.id);
  const place = useMemo(() => ({ section: section.id, part: part.id }), [section.id, part.id]);
  const report = useMemo(() => Echo.report(song, place), [song, place]);
  if (!report.ok) return null;
  const { settings, seconds, decibels, notes, inside, outside } = report.value;
  const put = (values: Extract<Edit, { do: "setPlaying" }>["echo"]) =>
    edit({ do: "setPlaying", part: part.id, section: section.id, echo: sure(values) });
  const known = Echo.DELAYS.some(([d]) => d === settings.delay);
  return (
    <div className="echo">
      <b>{part.name}</b>
      <div className="controls">
        <Select
          label="Delay"
          text="after"
          value={settings.delay}
          choices={[...Echo.DELAYS, ...(known ? [] : [[settings.delay, `${settings.delay} ticks`] as Choice<number>])]}
          set={(delay) => put({ delay })}
        />
        <Select
          label="Repeats"
          text="repeats"
          value={settings.repeats}
          choices={Array.from({ length: 12 }, (_, i): Choice<number> => [i + 1, String(i + 1)])}
          set={(repeats) => put({ repeats })}
        />
        <Select
          label="Left each time"
          text="left each time"
          value={settings.decay}
          choices={DECAYS}
          set={(decay) => put({ decay })}
        />
        <Select label="Pitch" text="pitch" value={settings.shift} choices={SHIFTS} set={(shift) => put({ shift })} />
      </div>
      <p className="small">
        {Math.round(seconds * 1000)} ms; each repeat {Math.abs(decibels).toFixed(2)} dB softer.{" "}
        {notes
          ? `${inside} of ${notes} notes fall on tones or colors of the chord.`
          : "There is nothing to repeat here."}{" "}
        Repeats past the end of the section are not played.
      </p>
      {outside.length > 0 && (
        <p className="small">
          <Button
            className="quiet"
            onClick={() =>
              chooseNotes(
                part.id,
                outside.map((o) => o.id),
              )
            }
          >
            Outside the chord
          </Button>
          :{" "}
          {Pitch.typesetAll(
            outside
              .slice(0, 3)
              .map((o) => o.words)
              .join("; "),
          )}
          {outside.length > 3 ? ` and ${outside.length - 3} more` : ""}
        </p>
      )}
      <OtherDelays data={data} part={part} now={settings.delay} />
      <p className="controls">
        <Button
          title="It has notes of its own from then on"
          onClick={() => edit({ do: "setEcho", part: part.id, of: null })}
        >
          Print to notes
        </Button>
        <Button onClick={() => edit({ do: "removePart", part: part.id })}>Remove</Button>
      </p>
    </div>
  );
}

const OFFERED = 3;

/** Delays that fit the chords better, heard and taken. */
function OtherDelays({ data, part, now }: { data: PartProps["data"]; part: Part; now: Ticks }) {
  const { song, section } = useStored(data.section.id);
  const better = useMemo(() => {
    const found = Echo.delays(song, { section: section.id, part: part.id });
    if (!found.ok) return [];
    const own = found.value.find((d) => d.delay === now);
    return found.value.filter((d) => !own || d.inside / d.notes > own.inside / own.notes + 0.02).slice(0, OFFERED);
  }, [song, section.id, part.id, now]);
  const offers = useMemo(
    () =>
      better.map(({ delay, title }): Offer => ({
        id: `echo:${part.id}:${delay}`,
        label: `the echo after ${title}`,
        edit: { do: "setPlaying", part: part.id, section: section.id, echo: { delay } },
        from: 0,
        to: data.length,
        whole: true,
      })),
    [better, part.id, section.id, data.length],
  );
  if (!better.length) return null;
  return (
    <ol className="choices" aria-label="Other delays">
      {better.map((d, i) => (
        <li key={d.delay}>
          <span className="line-title">
            After {d.title}{" "}
            <span className="small">
              {d.inside} of {d.notes} inside the chords
            </span>
          </span>
          <OfferButtons offer={nth(offers, i)} bar={data.meter.bar} end={data.length} />
        </li>
      ))}
    </ol>
  );
}
