import {
  bendTone,
  CATEGORIES,
  chordDistance,
  chordToneName,
  fittingScales,
  keyName,
  mod,
  parseChord,
  parseKey,
  RECOGNIZERS,
  regionOf,
  ROLE_WORDS,
  rootPc,
  smallestMotion,
  tensions,
  tonicOf,
  typeset,
  type Chord,
} from "../../../core/src/index";
import type { ScoreData } from "../../score/data";
import { useSong } from "../../store/song";
import { useView } from "../../store/view";
import { ChordName } from "../../ui/ChordName";
import { sound } from "./put";

/** Everything about the chord in focus, and the keys the section's chords fit. */
export function Understand({ data }: { data: ScoreData }) {
  const id = useView((s) => s.chord);
  const harmony = useView((s) => s.harmony);
  const index = data.section.chords.findIndex((c) => c.id === id);
  const event = data.section.chords[index];
  const read = (symbol: string | undefined): Chord | null => {
    const chord = symbol && symbol !== "N.C." ? parseChord(symbol) : null;
    return chord?.ok ? chord.value : null;
  };
  const chord = read(event?.symbol);
  const n = data.section.chords.length;
  const found = harmony?.chords.find((c) => c.id === id);
  const local = found ? parseKey(found.key) : null;
  const key = local?.ok ? local.value : data.key;
  return (
    <>
      {event && chord ? (
        <>
          <Tones chord={chord} data={data} id={event.id} />
          <Colors chord={chord} keyText={keyName(key)} />
          <h3>Distances</h3>
          <table className="measures">
            <tbody>
              {(
                [
                  [`home, ${typeset(tonicOf(data.key).root + tonicOf(data.key).quality)}`, tonicOf(data.key)],
                  ["the chord before", n > 1 ? read(data.section.chords[mod(index - 1, n)]!.symbol) : null],
                  ["the chord after", n > 1 ? read(data.section.chords[mod(index + 1, n)]!.symbol) : null],
                ] as [string, Chord | null][]
              )
                .filter((row): row is [string, Chord] => row[1] !== null)
                .map(([label, other]) => {
                  const d = chordDistance(other, chord, regionOf(other, data.key), regionOf(chord, data.key));
                  return (
                    <tr key={label}>
                      <th scope="row">from {label}</th>
                      <td title={`key ${d.region} + root ${d.chord} + new notes ${d.distinct} (Lerdahl 1988)`}>{d.total}</td>
                      <td title="smallest voice leading, in semitones">{smallestMotion(other, chord)} st</td>
                    </tr>
                  );
                })}
            </tbody>
          </table>
          <p className="small">
            Left: distance in tonal space after Lerdahl (1988), keys counted where a chord leaves the key; right: the least motion of all
            voices, in semitones.
          </p>
        </>
      ) : (
        <p className="small">Choose a chord in the score to see its notes, tensions and scales.</p>
      )}
      <Keys data={data} />
    </>
  );
}

/** The chord's tones; each can be bent by a semitone, with what comes of it. */
function Tones({ chord, data, id }: { chord: Chord; data: ScoreData; id: string }) {
  const edit = useSong((s) => s.edit);
  const bend = (i: number, direction: 1 | -1) => {
    const bent = bendTone(chord, i, direction, data.key);
    if (!bent) return null;
    const said = `${typeset(bent.from.note)} becomes ${typeset(bent.to.note)}, ${ROLE_WORDS[bent.to.role] ?? bent.to.role} of ${typeset(bent.symbol)}`;
    return (
      <button
        type="button"
        title={said}
        aria-label={said}
        onClick={() => {
          if (edit({ do: "setChord", section: data.section.id, chord: id, symbol: bent.symbol }))
            sound(useSong.getState().song!, bent.symbol);
        }}
      >
        {direction > 0 ? "♯" : "♭"} <ChordName symbol={bent.symbol} />
      </button>
    );
  };
  return (
    <table className="measures tones">
      <thead>
        <tr>
          <th scope="col">tone</th>
          <td />
          <th scope="col">bent down</th>
          <th scope="col">bent up</th>
        </tr>
      </thead>
      <tbody>
        {chord.tones.map((t, i) => (
          <tr key={t.role}>
            <th scope="row">{ROLE_WORDS[t.role] ?? t.role}</th>
            <td>{typeset(chordToneName({ ...chord, bass: chord.root }, mod(rootPc(chord) + t.semitones, 12)) ?? "")}</td>
            <td>{bend(i, -1)}</td>
            <td>{bend(i, 1)}</td>
          </tr>
        ))}
        {chord.bass && (
          <tr>
            <th scope="row">in the bass</th>
            <td>{typeset(chord.bass)}</td>
            <td />
            <td />
          </tr>
        )}
      </tbody>
    </table>
  );
}

function Colors({ chord, keyText }: { chord: Chord; keyText: string }) {
  const key = parseKey(keyText);
  if (!key.ok) return null;
  const list = tensions(chord, key.value);
  const scales = fittingScales(chord, key.value).slice(0, 4);
  const row = (available: boolean) => list.filter((t) => t.available === available);
  return (
    <>
      <h3>Tensions and scales in {typeset(keyText)}</h3>
      <ul className="tension-list">
        {row(true).map((t) => (
          <li key={t.note}>
            <b>
              {typeset(t.role)} {typeset(t.note)}
            </b>{" "}
            <span className="small">{t.rule}</span>
          </li>
        ))}
        {row(false).map((t) => (
          <li key={t.note}>
            <b className="avoid">
              avoid {typeset(t.role)} {typeset(t.note)}
            </b>{" "}
            <span className="small">{t.rule}</span>
          </li>
        ))}
        {!list.length && <li className="small">No scale in common use holds all of its notes.</li>}
      </ul>
      {scales.length > 0 && (
        <table className="measures">
          <tbody>
            {scales.map((s) => (
              <tr key={s.name}>
                <th scope="row">
                  {typeset(chord.root)} {s.name.replace(" b", " ♭")}
                </th>
                <td className="scale-notes">{typeset(s.notes.join(" "))}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <p className="small">
        Jazz teaching calls notes a semitone above a chord tone avoid notes; chorale style resolves them, loop music often does not mind.
      </p>
    </>
  );
}

const enharmonic = (name: string): string | null => {
  const read = parseKey(name);
  if (!read.ok) return null;
  const others = ["Cb", "C", "C#", "Db", "D", "D#", "Eb", "E", "F", "F#", "Gb", "G", "G#", "Ab", "A", "A#", "Bb", "B"];
  for (const tonic of others) {
    if (tonic === read.value.tonic) continue;
    const other = parseKey(`${tonic} ${read.value.mode}`);
    if (other.ok && other.value.pcs[0] === read.value.pcs[0]) return keyName(other.value);
  }
  return null;
};

/** Which keys fit the chords, cadences, the loop's join, other spellings. */
function Keys({ data }: { data: ScoreData }) {
  const harmony = useView((s) => s.harmony);
  const edit = useSong((s) => s.edit);
  if (!harmony || data.section.chords.length < 2) return null;
  const [best] = harmony.keys;
  const other = enharmonic(data.song.key);
  const named = keyName(data.key);
  const used = new Set(harmony.chords.flatMap((c) => (c.category === "none" ? [] : [c.category, ...c.also])));
  return (
    <>
      <h3>Key and shape of the section</h3>
      {best && (
        <p className="small">
          The chords fit {typeset(best.key)} best
          {best.equal.length > 0
            ? ` and ${typeset(best.equal.join(", "))} equally well`
            : `, ahead of ${typeset(harmony.keys[1]!.key)}`}.{" "}
          {best.key !== named && !best.equal.includes(named) && !data.section.key && (
            <button type="button" onClick={() => edit({ do: "setKey", key: best.key })}>
              write it in {typeset(best.key)}
            </button>
          )}
        </p>
      )}
      <table className="measures">
        <tbody>
          {harmony.keys.slice(0, 3).map((k) => (
            <tr key={k.key}>
              <th scope="row">{typeset(k.key)}</th>
              <td>{k.score.toFixed(2)}</td>
              <td>{k.margin > 0 ? `+${k.margin.toFixed(2)}` : k.margin.toFixed(2).replace("-", "−")}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {other && (
        <p className="small">
          <button
            type="button"
            title="Renames every chord and note; nothing sounds different"
            onClick={() => edit({ do: "respell", key: other })}
          >
            spell the song in {typeset(other)}
          </button>
        </p>
      )}
      {harmony.regions.map((r) => (
        <p key={r.from} className="small">
          {typeset(r.text)}.
        </p>
      ))}
      {harmony.join && <p className="small">Loop: {harmony.join.text}</p>}
      {harmony.cadences.length > 0 && (
        <ul className="small plain-list">
          {harmony.cadences.slice(0, 8).map((c) => (
            <li key={c.from + c.to}>{c.text}</li>
          ))}
        </ul>
      )}
      <details>
        <summary className="small">What the words mean</summary>
        <dl className="small words">
          {RECOGNIZERS.filter((r) => used.has(r.id)).map((r) => (
            <div key={r.id}>
              <dt>{CATEGORIES[r.id]}</dt>
              <dd>
                {r.explanation} ({r.source})
              </dd>
            </div>
          ))}
        </dl>
      </details>
    </>
  );
}
