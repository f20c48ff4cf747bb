import { useMemo, useState } from "react";
import {
  bassLayers,
  DRUM_KINDS,
  drumAsBass,
  drumOf,
  drumPlayer,
  layerOffers,
  positionText,
  TUNABLE,
  type BassLayers,
  type Drum,
  type Edit,
  type Part,
} from "../../../core/src/index";
import type { ScoreData } from "../../score/data";
import { useSong } from "../../store/song";
import { useView } from "../../store/view";
import { auditionEdit, acceptEdit, useStored } from "../hear";
import { bassParts, songNow } from "./lines";

const WORDS: Record<BassLayers["kind"], string> = {
  alone: "No more than one bass sound plays here.",
  turns: "The bass sounds take turns: never two at once.",
  voice: "The bass sounds are one voice: same pitches, same rhythm.",
  mixed: "The bass sounds play together without being one voice.",
};

/** Several bass sounds: who plays where, how they can share a line, and a tuned drum as the bass. */
export function LayersTab({ data, part }: { data: ScoreData; part: Part }) {
  const { edit } = useSong();
  const section = data.section.id;
  const found = useMemo(() => bassLayers(data.song, section), [data.song, section]);
  const others = bassParts(data.song).filter((p) => p.id !== part.id);
  if (!found.ok) return <p className="problem">{found.error.message}</p>;
  const { layers, bars, kind, problems } = found.value;
  return (
    <>
      <p>
        {WORDS[kind]}
        {kind === "alone" && layers[0] && layers[0].id !== part.id && ` It is the ${layers[0].name}.`}
        {!layers.length && " Nothing is written yet."}
      </p>
      {layers.length > 1 && (
        <table className="accent-map layers" aria-label="Who plays in which bar">
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
        </table>
      )}
      {problems.length > 0 && (
        <>
          <h3>In each other’s way</h3>
          <ul className="plain-list">
            {problems.slice(0, 6).map((p, i) => (
              <li key={i}>
                <ShowNotes layers={p.layers} notes={p.notes} label={positionText(data.meter, p.tick)} />{" "}
                <span className="small">{p.message}</span>
              </li>
            ))}
          </ul>
          <p className="small">{problems.length > 6 ? `And ${problems.length - 6} more. ` : ""}Ways out of each stand in Check.</p>
        </>
      )}
      <h3>Share the line of {part.name.split(",")[0]}</h3>
      {others.length ? (
        others.map((o) => <Offers key={o.id} data={data} lead={part} other={o} />)
      ) : (
        <p className="small">A second bass sound can take turns with this one, or double it an octave away.</p>
      )}
      <p className="controls">
        <button
          type="button"
          onClick={() =>
            edit({ do: "addPart", name: others.length ? `Bass ${others.length + 2}` : "Bass 2", role: "bass", instrument: "subBass" })
          }
        >
          Add a bass part
        </button>
      </p>
      <DrumBass data={data} part={part} />
    </>
  );
}

function ShowNotes({ layers, notes, label }: { layers: readonly string[]; notes: readonly string[]; label: string }) {
  const set = useView((s) => s.set);
  const at = layers.findIndex((l) => !drumOf(l));
  if (at < 0) return <b>{label}</b>;
  return (
    <button type="button" onClick={() => set({ selected: { part: layers[at]!, ids: [notes[at]!] } })}>
      {label}
    </button>
  );
}

function Offers({ data, lead, other }: { data: ScoreData; lead: Part; other: Part }) {
  // Offers belong to the song as it is, not to the one that is being heard.
  const { song } = useStored(data.section.id);
  const offers = useMemo(() => layerOffers(song, data.section.id, lead.id, other.id), [song, data.section.id, lead.id, other.id]);
  if (!offers.ok)
    return (
      <p className="small">
        {offers.error.message}. {offers.error.hint}
      </p>
    );
  const keep: Edit[] = [lead, other].map((p) => ({
    do: "keepTake",
    section: data.section.id,
    part: p.id,
    name: `${p.name}, before sharing`,
  }));
  return (
    <ul className="plain-list layer-offers" aria-label={`With ${other.name}`}>
      {offers.value.map((o) => (
        <li key={o.id}>
          <span className="offer-head">
            <b>{o.title}</b>
            <span className="offer-buttons">
              <button
                type="button"
                onClick={() => auditionEdit(o.edit, o.title.toLowerCase(), `layer:${other.id}:${o.id}`, 0, data.length)}
              >
                Hear
              </button>
              <button type="button" onClick={() => acceptEdit({ do: "all", label: o.title, edits: [...keep, o.edit] })}>
                Take
              </button>
            </span>
          </span>
          <span className="small">{o.explanation}</span>
        </li>
      ))}
    </ul>
  );
}

function DrumBass({ data, part }: { data: ScoreData; part: Part }) {
  const { edit, say } = useSong();
  const [drum, setDrum] = useState<Drum>("kick");
  const [rhythm, setRhythm] = useState<"line" | "drum">("drum");
  const [glides, setGlides] = useState(false);
  const [mute, setMute] = useState(true);
  const make = (take: boolean) => {
    const made = drumAsBass(songNow(), data.section.id, part.id, drum, { rhythm, glides, mute });
    if (!made.ok) say(made.error);
    else if (take) acceptEdit(made.value);
    else
      auditionEdit(made.value, `${DRUM_KINDS[drum].title} as the bass`, `${drumPlayer(drum)}:${rhythm}:${glides}:${mute}`, 0, data.length);
  };
  const lane = data.section.groove.lanes.find((l) => l.drum === drum);
  return (
    <>
      <h3>A low drum as the bass</h3>
      <p className="small">Its pitch follows the line, and its tail ends before the next note.</p>
      <div className="controls">
        <select aria-label="Drum" value={drum} onChange={(e) => setDrum(e.target.value as Drum)}>
          {TUNABLE.map((d) => (
            <option key={d} value={d}>
              {DRUM_KINDS[d].title}
            </option>
          ))}
        </select>
        <select aria-label="Rhythm of the drum" value={rhythm} onChange={(e) => setRhythm(e.target.value as "line" | "drum")}>
          <option value="drum">in its own rhythm</option>
          <option value="line">in the line’s rhythm</option>
        </select>
      </div>
      <label className="check">
        <input type="checkbox" checked={glides} onChange={(e) => setGlides(e.target.checked)} /> long notes slide into the next
      </label>
      <label className="check">
        <input type="checkbox" checked={mute} onChange={(e) => setMute(e.target.checked)} /> mute {part.name.split(",")[0]}
      </label>
      <p className="controls">
        <button type="button" onClick={() => make(false)}>
          Hear
        </button>
        <button type="button" onClick={() => make(true)}>
          Take
        </button>
        {lane?.tuned && (
          <button
            type="button"
            onClick={() =>
              edit({
                do: "all",
                label: "drum untuned",
                edits: [
                  {
                    do: "setLane",
                    section: data.section.id,
                    drum,
                    change: { tuned: null, hits: lane.hits.map(({ pitch: _, glideTo: __, duration: ___, ...h }) => h) },
                  },
                  { do: "setPart", part: part.id, muted: false },
                ],
              })
            }
          >
            Only a drum again
          </button>
        )}
      </p>
    </>
  );
}
