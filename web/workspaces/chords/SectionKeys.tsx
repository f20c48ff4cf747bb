import Table from "react-bootstrap/Table";
import { Harmony, type HarmonyReport, Key, Pitch, sure } from "../../../core/src/index";
import { useResults } from "../../app/store/results";
import type { SectionData } from "../../app/store/sectionData";
import { edit } from "../../app/store/song";
import { Fold } from "../../kit/Fold";
import { Button } from "../../kit/Button";

const TONICS = ["Cb", "C", "C#", "Db", "D", "D#", "Eb", "E", "F", "F#", "Gb", "G", "G#", "Ab", "A", "A#", "Bb", "B"];

/** The other name of a key, where it has one. */
function enharmonic(name: string): string | null {
  const read = Key.parse(name);
  if (!read.ok) return null;
  for (const tonic of TONICS) {
    const other = Key.parse(`${tonic} ${read.value.mode}`);
    if (tonic !== read.value.tonic && other.ok && other.value.pcs[0] === read.value.pcs[0])
      return Key.name(other.value);
  }
  return null;
}

const signed = (n: number): string => (n > 0 ? `+${n.toFixed(2)}` : n.toFixed(2).replace("-", "−"));

/** Which keys fit the chords, cadences, the loop's join, other spellings. */
export function SectionKeys({ data }: { data: SectionData }) {
  const harmony = useResults((s) => s.harmony);
  if (!harmony || data.section.chords.length < 2) return null;
  const other = enharmonic(data.song.key);
  return (
    <>
      <h3>Key and shape of the section</h3>
      <BestKey data={data} harmony={harmony} />
      <Table bsPrefix="measures">
        <tbody>
          {harmony.keys.slice(0, 3).map((k) => (
            <tr key={k.key}>
              <th scope="row">{Pitch.typeset(k.key)}</th>
              <td>{k.score.toFixed(2)}</td>
              <td>{signed(k.margin)}</td>
            </tr>
          ))}
        </tbody>
      </Table>
      {other && (
        <p className="small">
          <Button
            title="Renames every chord and note; nothing sounds different"
            onClick={() => edit({ do: "respell", key: other })}
          >
            spell the song in {Pitch.typeset(other)}
          </Button>
        </p>
      )}
      {harmony.regions.map((r) => (
        <p key={r.from} className="small">
          {Pitch.typesetAll(r.text)}.
        </p>
      ))}
      {harmony.join && <p className="small">Loop: {Pitch.typesetAll(harmony.join.text)}</p>}
      {harmony.cadences.length > 0 && (
        <ul className="small plain-list">
          {harmony.cadences.slice(0, 8).map((c) => (
            <li key={c.from + c.to}>{Pitch.typesetAll(c.text)}</li>
          ))}
        </ul>
      )}
      <Words harmony={harmony} />
    </>
  );
}

function BestKey({ data, harmony }: { data: SectionData; harmony: HarmonyReport }) {
  const [best, next] = harmony.keys;
  const named = Key.name(data.key);
  if (!best) return null;
  const rivals = best.equal.length
    ? ` and ${Pitch.typeset(best.equal.join(", "))} equally well`
    : `, ahead of ${Pitch.typeset(sure(next).key)}`;
  return (
    <p className="small">
      The chords fit {Pitch.typeset(best.key)} best{rivals}.{" "}
      {best.key !== named && !best.equal.includes(named) && !data.section.key && (
        <Button onClick={() => edit({ do: "setKey", key: best.key })}>write it in {Pitch.typeset(best.key)}</Button>
      )}
    </p>
  );
}

/** What the words mean that were used of the section's chords. */
function Words({ harmony }: { harmony: HarmonyReport }) {
  const used = new Set(harmony.chords.flatMap((c) => (c.category === "none" ? [] : [c.category, ...c.also])));
  return (
    <Fold title="what the words mean">
      <dl className="small words">
        {Harmony.RECOGNIZERS.filter((r) => used.has(r.id)).map((r) => (
          <div key={r.id}>
            <dt>{Harmony.CATEGORIES[r.id]}</dt>
            <dd>
              {r.explanation} ({r.source})
            </dd>
          </div>
        ))}
      </dl>
    </Fold>
  );
}
