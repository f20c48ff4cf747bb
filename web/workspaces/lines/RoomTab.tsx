import Table from "react-bootstrap/Table";
import { useMemo, useState } from "react";
import { Fact, type InTheRoom, nth, Pitch, Room, type RoomOffer } from "../../../core/src/index";
import { factsNow } from "../../app/store/sectionData";
import { useOffers, type Offer } from "../../app/store/results";
import { useStored } from "../../app/store/song";
import { OfferButtons } from "../../kit/OfferButtons";
import type { PartProps } from "../../kit/partProps";
import { percent } from "../../kit/texts";
import { Button } from "../../kit/Button";

/** Who plays while the line sounds, where, how loud and how much in its way; what each could do instead. */
export function RoomTab({ data, part }: PartProps) {
  // What is heard just now is not what is written.
  const { song } = useStored(data.section.id);
  const room = factsNow(song).get(Fact.room, data.section.id, part.id);
  const [open, setOpen] = useState<string | null>(null);
  if (room.lowest === null)
    return (
      <p>
        {part.name} has no note in {data.section.name}: there is nothing to leave room for yet.
      </p>
    );
  const chosen = room.parts.find((p) => p.part === open) ?? room.parts.find((p) => p.conflict > 0) ?? null;
  return (
    <>
      <p className="small">
        Who plays while {part.name} sounds. Its lowest note is {Pitch.typeset(room.lowest)}. A part is in its way while
        it sounds within a fourth of the sung note; an octave lower it is not.
      </p>
      <Table bsPrefix="measures" className="room">
        <thead>
          <tr>
            <th scope="col">part</th>
            <th scope="col">in the way</th>
            <th scope="col" title="Attacks in a bar of the line">
              attacks
            </th>
            <th scope="col" title="Octaves it sounds in, from C to B">
              octaves
            </th>
            <th scope="col" title="Its highest note meanwhile">
              top
            </th>
            <th scope="col" title="Loudness against the line, by velocities and levels">
              dB
            </th>
          </tr>
        </thead>
        <tbody>
          {room.parts.map((p) => (
            <Row key={p.part} row={p} current={p === chosen} open={() => setOpen(p.part)} />
          ))}
        </tbody>
      </Table>
      {!room.parts.length && <p className="small">Nobody else plays while it sounds.</p>}
      {chosen && <Instead data={data} part={part} row={chosen} />}
    </>
  );
}

const signed = (n: number): string => {
  if (n > 0) return `+${n}`;
  if (n < 0) return `−${-n}`;
  return "0";
};

function Row({ row, current, open }: { row: InTheRoom; current: boolean; open(): void }) {
  const { name, conflict, attacksABar, octaves, top, loudness } = row;
  return (
    <tr className={current ? "current" : ""}>
      <th scope="row">
        <Button aria-pressed={current} title={`${name}: what it could do instead`} onClick={open}>
          {name}
        </Button>
      </th>
      <td className={conflict > 0.1 ? "off" : ""}>{percent(conflict)}</td>
      <td>{attacksABar.toFixed(1)}</td>
      <td>{octaves.length > 1 ? `${octaves[0]}–${octaves.at(-1)}` : octaves[0]}</td>
      <td>{Pitch.typeset(top)}</td>
      <td>{signed(loudness)}</td>
    </tr>
  );
}

/** Other ways for a part that is in the way. */
function Instead({ data, part, row }: PartProps & { row: InTheRoom }) {
  const { song, section } = useStored(data.section.id);
  const { length, meter } = data;
  const found = useMemo(
    () => Room.offers(song, { section: section.id, voice: part.id, part: row.part }),
    [song, section.id, part.id, row.part],
  );
  const offers = useMemo(
    () =>
      found.map((o): Offer => ({
        id: `room:${row.part}:${o.id}`,
        label: `${row.name}: ${o.label.toLowerCase()}`,
        edit: o.edit,
        from: 0,
        to: length,
        whole: true,
      })),
    [found, row.part, row.name, length],
  );
  useOffers(offers);
  if (!found.length)
    return (
      <p className="small">
        {row.name} {row.conflict > 0.1 ? "has no other way that would help here." : "leaves it room."}
      </p>
    );
  return (
    <>
      <h3>{row.name} instead</h3>
      <ol className="choices" aria-label="Room for the voice">
        {found.map((o, i) => (
          <li key={o.id}>
            <span className="line-title">
              {o.label} <span className="small">{effect(o, row)}</span>
            </span>
            <OfferButtons offer={nth(offers, i)} bar={meter.bar} end={length} />
          </li>
        ))}
      </ol>
    </>
  );
}

const effect = (o: RoomOffer, was: InTheRoom): string =>
  "in the way " +
  `${percent(o.conflict)}${o.attacks === was.attacks ? "" : `, ${o.attacks} instead of ${was.attacks} attacks`}`;
