import Table from "react-bootstrap/Table";
import { useMemo, useState } from "react";
import { Bass, type BassLayers, type Drum, Drums, type Edit, Meter, nth, type Part } from "../../../core/src/index";
import { acceptEdit, auditionEdit } from "../../app/commands/audition";
import { bassParts, keepNotes } from "../../app/commands/bass";
import type { SectionData } from "../../app/store/sectionData";
import { chooseNotes } from "../../app/store/selection";
import { edit, say, songNow, useStored } from "../../app/store/song";
import { Check } from "../../kit/Check";
import { HearTake } from "../../kit/HearTake";
import { Select } from "../../kit/Select";
import type { PartProps } from "../../kit/partProps";
import { Button } from "../../kit/Button";

const WORDS: Record<BassLayers["kind"], string> = {
  alone: "No more than one bass sound plays here.",
  turns: "The bass sounds take turns: never two at once.",
  voice: "The bass sounds are one voice: same pitches, same rhythm.",
  mixed: "The bass sounds play together without being one voice.",
};
/** Clashes between layers that are told. */
const SHOWN = 6;

/** Several bass sounds: who plays where, how they can share a line, and a tuned drum as the bass. */
export function LayersTab({ data, part }: PartProps) {
  const section = data.section.id;
  const found = useMemo(() => Bass.layers(data.song, section), [data.song, section]);
  const others = bassParts(data.song).filter((p) => p.id !== part.id);
  if (!found.ok) return <p className="problem">{found.error.message}</p>;
  const { layers, kind } = found.value;
  const name = others.length ? `Bass ${others.length + 2}` : "Bass 2";
  return (
    <>
      <p>
        {WORDS[kind]}
        {kind === "alone" && layers[0] && layers[0].id !== part.id && ` It is the ${layers[0].name}.`}
        {!layers.length && " Nothing is written yet."}
      </p>
      {layers.length > 1 && <Bars found={found.value} />}
      <Clashes data={data} problems={found.value.problems} />
      <h3>Share the line of {part.name.split(",")[0]}</h3>
      {others.length ? (
        others.map((o) => <Offers key={o.id} data={data} lead={part} other={o} />)
      ) : (
        <p className="small">A second bass sound can take turns with this one, or double it an octave away.</p>
      )}
      <p className="controls">
        <Button onClick={() => edit({ do: "addPart", name, role: "bass", instrument: "subBass" })}>
          Add a bass part
        </Button>
      </p>
      <DrumBass data={data} part={part} />
    </>
  );
}

/** Who plays in which bar. */
const Bars = ({ found: { layers, bars } }: { found: BassLayers }) => (
  <Table bsPrefix="accent-map" className="layers" aria-label="Who plays in which bar">
    <tbody>
      {layers.map((l) => (
        <tr key={l.id}>
          <th scope="row">{l.name}</th>
          {bars.map((who, i) => (
            <td
              key={i}
              className={who.includes(l.id) ? "on" : ""}
              title={`${l.name}, bar ${i + 1}: ${who.includes(l.id) ? "plays" : "rests"}`}
            />
          ))}
        </tr>
      ))}
    </tbody>
  </Table>
);

function Clashes({ data, problems }: { data: SectionData; problems: BassLayers["problems"] }) {
  if (!problems.length) return null;
  return (
    <>
      <h3>In each other’s way</h3>
      <ul className="plain-list">
        {problems.slice(0, SHOWN).map((p, i) => {
          const at = p.layers.findIndex((l) => !Drums.of(l));
          const place = Meter.position(data.meter, p.tick);
          return (
            <li key={i}>
              {at < 0 ? (
                <b>{place}</b>
              ) : (
                <Button onClick={() => chooseNotes(nth(p.layers, at), [nth(p.notes, at)])}>{place}</Button>
              )}{" "}
              <span className="small">{p.message}</span>
            </li>
          );
        })}
      </ul>
      <p className="small">
        {problems.length > SHOWN ? `And ${problems.length - SHOWN} more. ` : ""}Ways out of each stand in Check.
      </p>
    </>
  );
}

/** Ways in which two bass sounds can share a line. */
function Offers({ data, lead, other }: { data: SectionData; lead: Part; other: Part }) {
  const section = data.section.id;
  // Offers belong to the song as it is, not to the one that is being heard.
  const { song } = useStored(section);
  const offers = useMemo(() => Bass.layerOffers(song, section, lead.id, other.id), [song, section, lead.id, other.id]);
  if (!offers.ok)
    return (
      <p className="small">
        {offers.error.message}. {offers.error.hint}
      </p>
    );
  const take = (title: string, change: Edit) => {
    const kept = [lead, other].map((p) => keepNotes(section, p.id, `${p.name}, before sharing`));
    acceptEdit({ do: "all", label: title, edits: [...kept, change] });
  };
  return (
    <ul className="plain-list layer-offers" aria-label={`With ${other.name}`}>
      {offers.value.map((o) => {
        const id = `layer:${other.id}:${o.id}`;
        return (
          <li key={o.id}>
            <span className="offer-head">
              <b>{o.title}</b>
              <HearTake
                id={id}
                name={o.title}
                hear={() => auditionEdit(o.edit, o.title.toLowerCase(), id, { from: 0, to: data.length })}
                take={() => take(o.title, o.edit)}
              />
            </span>
            <span className="small">{o.explanation}</span>
          </li>
        );
      })}
    </ul>
  );
}

type DrumRhythm = "line" | "drum";

/** A tuned drum that plays the line. */
function DrumBass({ data, part }: PartProps) {
  const [drum, setDrum] = useState<Drum>("kick");
  const [rhythm, setRhythm] = useState<DrumRhythm>("drum");
  const [glides, setGlides] = useState(false);
  const [instead, setInstead] = useState(true);
  const id = `${Drums.player(drum)}:${rhythm}:${glides}:${instead}`;
  const make = (then: (change: Edit) => void) => {
    const made = Bass.fromDrum(songNow(), data.section.id, part.id, { drum, how: { rhythm, glides, instead } });
    if (made.ok) then(made.value);
    else say(made.error);
  };
  const lane = data.section.groove.lanes.find((l) => l.drum === drum);
  return (
    <>
      <h3>A low drum as the bass</h3>
      <p className="small">Its pitch follows the line, and its tail ends before the next note.</p>
      <div className="controls">
        <Select label="Drum" value={drum} choices={Drums.TUNABLE.map((d) => [d, Drums.KINDS[d].title])} set={setDrum} />
        <Select
          label="Rhythm of the drum"
          value={rhythm}
          choices={[
            ["drum", "in its own rhythm"],
            ["line", "in the line’s rhythm"],
          ]}
          set={setRhythm}
        />
      </div>
      <Check on={glides} set={setGlides}>
        long notes slide into the next
      </Check>
      <Check on={instead} set={setInstead} title="Its line is kept under Shape, to come back to">
        in place of {part.name.split(",")[0]}
      </Check>
      <p className="controls">
        <HearTake
          id={id}
          name={`${Drums.KINDS[drum].title} as the bass`}
          hear={() =>
            make((change) =>
              auditionEdit(change, `${Drums.KINDS[drum].title} as the bass`, id, { from: 0, to: data.length }),
            )
          }
          take={() => make(acceptEdit)}
        />
        {lane?.tuned && (
          <Button onClick={() => edit(Bass.untuneDrum(songNow(), data.section.id, part.id, drum))}>
            Only a drum again
          </Button>
        )}
      </p>
    </>
  );
}
