import Table from "react-bootstrap/Table";
import { useState } from "react";
import { type Edit, Song, sure, Take } from "../../../core/src/index";
import { acceptEdit, auditionEdit } from "../../app/commands/audition";
import { logged } from "../../app/commands/log";
import { bringEdit, ofText, type KeptTake } from "../../app/commands/takes";
import type { SectionData } from "../../app/store/sectionData";
import { useOfSong, useStored } from "../../app/store/song";
import { Button } from "../../kit/Button";
import { HearTake } from "../../kit/HearTake";

/** Bars a row of the table shows; longer sections go on below. */
const ROW = 8;

/** Takes of a section joined bar by bar: for each bar the take it comes from, or what stands there. */
export function JoinTab({ data }: { data: SectionData }) {
  const { song, section } = useStored(data.section.id);
  const takes = useOfSong((s) => s.takes).filter((t) => t.sectionId === section.id);
  const [choice, setChoice] = useState<Record<number, string>>({});
  if (!takes.length)
    return (
      <p className="small">
        Keep two takes of {section.name} under Takes, and join them here: bars 1 and 3 of one, 2 and 4 of another.
      </p>
    );
  const chosen = Object.entries(choice)
    .map(([bar, id]) => ({ bar: Number(bar), take: takes.find((t) => t.id === id) }))
    .filter((c): c is { bar: number; take: KeptTake } => c.take !== undefined && c.bar < section.bars)
    .sort((a, b) => a.bar - b.bar);
  const bars = chosen.map(({ bar, take }): Edit => bringEdit(take, { bars: [bar, bar + 1] }));
  const said = chosen.map(({ bar, take }) => `bar ${bar + 1} of ${take.name}`).join(", ");
  const joined: Edit = { do: "all", label: "takes joined", edits: bars };
  const take = () => {
    const line = logged({ what: `Joined: ${said}`.slice(0, 400), section: section.id });
    if (acceptEdit({ ...joined, edits: [...bars, line] })) setChoice({});
  };
  const rows = Array.from({ length: Math.ceil(section.bars / ROW) }, (_, i) => i * ROW);
  return (
    <>
      <p className="small">For each bar, choose the take it comes from; what is not chosen stays as it stands.</p>
      {rows.map((from) => (
        <Bars
          key={from}
          song={song}
          section={section}
          takes={takes}
          bars={Array.from({ length: Math.min(ROW, section.bars - from) }, (_, i) => from + i)}
          choice={choice}
          choose={(bar, id) => setChoice(withChoice(choice, bar, id))}
        />
      ))}
      <div className="controls">
        <HearTake
          id={`join:${said}`}
          takeText="Join"
          disabled={!bars.length}
          hear={() => auditionEdit(joined, "takes joined", `join:${said}`, { from: 0, to: data.length })}
          take={take}
        />
        <Button disabled={!bars.length} onClick={() => setChoice({})}>
          none
        </Button>
      </div>
    </>
  );
}

/** A bar of another take; pressed again it is as it stands. */
function withChoice(choice: Readonly<Record<number, string>>, bar: number, id: string): Record<number, string> {
  const { [bar]: now, ...rest } = choice;
  return now === id ? rest : { ...rest, [bar]: id };
}

interface BarsProps {
  song: Song;
  section: Song["sections"][number];
  takes: readonly KeptTake[];
  bars: readonly number[];
  choice: Readonly<Record<number, string>>;
  choose(bar: number, take: string): void;
}

function Bars({ song, section, takes, bars, choice, choose }: BarsProps) {
  return (
    <Table bsPrefix="measures" className="join-bars">
      <thead>
        <tr>
          <th scope="col">take</th>
          {bars.map((b) => (
            <th key={b} scope="col">
              {b + 1}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {takes.map((t) => {
          const [from, to] = Take.bars(t, sure(section));
          return (
            <tr key={t.id}>
              <th scope="row" title={ofText(song, t)}>
                {t.name}
              </th>
              {bars.map((b) => (
                <td key={b}>
                  {b >= from && b < to && (
                    <Button
                      className="cell"
                      aria-pressed={choice[b] === t.id}
                      aria-label={`Bar ${b + 1} of ${t.name}`}
                      onClick={() => choose(b, t.id)}
                    >
                      {choice[b] === t.id ? "●" : "·"}
                    </Button>
                  )}
                </td>
              ))}
            </tr>
          );
        })}
      </tbody>
    </Table>
  );
}
