import Table from "react-bootstrap/Table";
import { useMemo } from "react";
import {
  Fact,
  firstOf,
  Meter,
  type Part,
  Place,
  type RealizedNote,
  Singer,
  Song,
  sure,
  Tune,
} from "../../../core/src/index";
import { factsNow, type SectionData } from "../../app/store/sectionData";
import { useResults } from "../../app/store/results";
import { useSelection } from "../../app/store/selection";
import { useStored } from "../../app/store/song";
import { FindingList } from "../../kit/FindingList";
import { RangeStrip } from "../../kit/RangeStrip";
import { percent } from "../../kit/texts";
import { Button } from "../../kit/Button";

interface Line {
  part: Part;
  notes: readonly RealizedNote[];
}

const short = (p: Part): string => firstOf(p.name.split(","));

/**
 * The sung lines of the section side by side: where each spends its time, how two go together, who leads; and what
 * Check finds between them.
 */
export function Between({ data }: { data: SectionData }) {
  const { song, section } = useStored(data.section.id);
  const lines = useMemo((): Line[] => {
    const read = factsNow(song);
    return song.parts
      .filter((p) => Singer.isSung(song, p))
      .map((part) => ({ part, notes: read.get(Fact.notes, Place.section(section.id), part.id, "played") }))
      .filter((l) => l.notes.length > 0);
  }, [song, section.id]);
  const findings = useResults((s) => s.findings);
  const rules = findings.filter(
    (f) =>
      f.family === "voices" &&
      f.waived === undefined &&
      f.where.parts.every((id) => lines.some((l) => l.part.id === id)),
  );
  if (!lines.length) return null;
  const tempo = Song.tempoOf(song, section);
  const voices = Tune.byVoice(lines, data);
  return (
    <>
      <h3>The voices here</h3>
      <Table bsPrefix="measures" className="voices">
        <tbody>
          {voices.map(([first, ...takes]) => {
            const { part, notes } = sure(first);
            const time = Singer.timeByPitch(
              notes.map((n) => ({ midi: n.midi, seconds: Meter.seconds(n.duration, tempo) })),
            );
            return (
              <tr key={part.id}>
                <th scope="row">
                  <Button title={`Work on ${part.name}`} onClick={() => useSelection.setState({ linePart: part.id })}>
                    {short(part)}
                  </Button>
                  {takes.length > 0 && (
                    <span className="small"> with {takes.map((t) => short(t.part)).join(", ")}, takes of one line</span>
                  )}
                </th>
                <td>
                  <RangeStrip label={part.name} range={Singer.rangeOfPart(song, part)} time={time} />
                </td>
              </tr>
            );
          })}
        </tbody>
      </Table>
      <Pairs data={data} voices={voices.map((v) => firstOf(v))} />
      {rules.length > 0 && <FindingList data={data} findings={rules} all={findings} />}
    </>
  );
}

const bars = ({ meter }: SectionData, from: number, to: number): string => {
  const [a, b] = [Math.floor(from / meter.bar) + 1, Math.ceil(to / meter.bar)];
  if (a < 1) {
    if (b < 2) return "the pickup";
    return `the pickup to ${b}`;
  }
  if (a === b) return String(a);
  return `${a}–${b}`;
};

/** Every two voices: how much of their rhythm they share, and who leads where. */
function Pairs({ data, voices }: { data: SectionData; voices: readonly Line[] }) {
  const { song } = useStored(data.section.id);
  const rows = useMemo(() => {
    const chords = factsNow(song).get(Fact.chords, Place.section(data.section.id));
    return voices.flatMap((a, i) =>
      voices.slice(i + 1).map((b) => ({ a, b, pair: Tune.pair(a.notes, b.notes, { meter: data.meter, chords }) })),
    );
  }, [song, voices, data.section.id, data.meter]);
  return rows.map(({ a, b, pair }) => {
    const names = { first: short(a.part), second: short(b.part) };
    const led = pair.leads.filter((l) => l.who !== "together");
    const told = led.slice(0, 4).map((l) => `${names[l.who as "first" | "second"]} in ${bars(data, l.from, l.to)}`);
    return (
      <p key={`${a.part.id}:${b.part.id}`} className="small">
        {names.first} and {names.second}: {percent(pair.sameRhythm)} of the attacks together
        {pair.together ? "" : ", never at once"}
        {told.length
          ? `; more by itself, bar by bar: ${told.join(", ")}${led.length > told.length ? " …" : ""}`
          : ", neither leads"}
        .
      </p>
    );
  });
}
