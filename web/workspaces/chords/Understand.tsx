import Table from "react-bootstrap/Table";
import { Chord, Harmony, Key, nth, Pitch, Slice, type Tension } from "../../../core/src/index";
import { rename } from "../../app/commands/chords";
import { useResults } from "../../app/store/results";
import type { SectionData } from "../../app/store/sectionData";
import { useSelection } from "../../app/store/selection";
import { ChordName } from "../../kit/ChordName";
import { SectionKeys } from "./SectionKeys";
import { Button } from "../../kit/Button";

/** Everything about the chord in focus, and the keys the section's chords fit. */
export function Understand({ data }: { data: SectionData }) {
  const id = useSelection((s) => s.chord);
  const found = useResults((s) => s.harmony?.chords.find((c) => c.id === id));
  const index = data.section.chords.findIndex((c) => c.id === id);
  const event = data.section.chords[index];
  const chord = event ? Chord.of(event.symbol) : null;
  const local = Key.parse(found?.key ?? "");
  return (
    <>
      {event && chord ? (
        <>
          <Tones chord={chord} data={data} id={event.id} />
          <Colors chord={chord} home={local.ok ? local.value : data.key} />
          <Distances chord={chord} index={index} data={data} />
        </>
      ) : (
        <p className="small">Choose a chord in the score to see its notes, tensions and scales.</p>
      )}
      <SectionKeys data={data} />
    </>
  );
}

/** How far the chord lies from home and from its neighbors. */
function Distances({ chord, index, data: { key, section } }: { chord: Chord; index: number; data: SectionData }) {
  const n = section.chords.length;
  const beside = (step: number) => (n > 1 ? Chord.of(nth(section.chords, Pitch.mod(index + step, n)).symbol) : null);
  const home = Key.tonic(key);
  const rows: [string, Chord | null][] = [
    [`home, ${Pitch.typeset(home.root + home.quality)}`, home],
    ["the chord before", beside(-1)],
    ["the chord after", beside(1)],
  ];
  return (
    <>
      <h3>Distances</h3>
      <Table bsPrefix="measures">
        <tbody>
          {rows.map(([label, other]) => {
            if (!other) return null;
            const d = Chord.distance(other, chord, Key.region(other, key), Key.region(chord, key));
            return (
              <tr key={label}>
                <th scope="row">from {label}</th>
                <td title={`key ${d.region} + root ${d.chord} + new notes ${d.distinct} (Lerdahl 1988)`}>{d.total}</td>
                <td title="smallest voice leading, in semitones">{Chord.motion(other, chord)} st</td>
              </tr>
            );
          })}
        </tbody>
      </Table>
      <p className="small">
        Left: distance in tonal space after Lerdahl (1988), keys counted where a chord leaves the key; right: the least
        motion of all voices, in semitones.
      </p>
    </>
  );
}

/** The chord's tones; each can be bent by a semitone, with what comes of it. */
function Tones({ chord, data, id }: { chord: Chord; data: SectionData; id: string }) {
  const bend = (i: number, direction: 1 | -1) => {
    const bent = Chord.bend(chord, i, direction, data.key);
    if (!bent) return null;
    const role = Slice.ROLE_WORDS[bent.to.role] ?? bent.to.role;
    const said =
      `${Pitch.typeset(bent.from.note)} becomes ${Pitch.typeset(bent.to.note)}, ${role} of ` +
      `${Pitch.typeset(bent.symbol)}`;
    return (
      <Button title={said} aria-label={said} onClick={() => rename(data.section.id, id, bent.symbol)}>
        {direction > 0 ? "♯" : "♭"} <ChordName symbol={bent.symbol} />
      </Button>
    );
  };
  const rooted = { ...chord, bass: chord.root };
  return (
    <Table bsPrefix="measures" className="tones">
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
            <th scope="row">{Slice.ROLE_WORDS[t.role] ?? t.role}</th>
            <td>{Pitch.typeset(Chord.toneName(rooted, Pitch.mod(Chord.rootPc(chord) + t.semitones, 12)) ?? "")}</td>
            <td>{bend(i, -1)}</td>
            <td>{bend(i, 1)}</td>
          </tr>
        ))}
        {chord.bass && (
          <tr>
            <th scope="row">in the bass</th>
            <td>{Pitch.typeset(chord.bass)}</td>
            <td />
            <td />
          </tr>
        )}
      </tbody>
    </Table>
  );
}

/** Tensions, notes to avoid, and scales that hold the chord. */
function Colors({ chord, home }: { chord: Chord; home: Key }) {
  const list = Harmony.tensions(chord, home);
  const scales = Harmony.scales(chord, home).slice(0, 4);
  const name = (t: Tension) => `${Pitch.typeset(t.role)} ${Pitch.typeset(t.note)}`;
  return (
    <>
      <h3>Tensions and scales in {Pitch.typeset(Key.name(home))}</h3>
      <ul className="tension-list">
        {[...list]
          .sort((a, b) => Number(b.available) - Number(a.available))
          .map((t) => (
            <li key={t.note}>
              <b className={t.available ? "" : "avoid"}>{t.available ? name(t) : `avoid ${name(t)}`}</b>{" "}
              <span className="small">{t.rule}</span>
            </li>
          ))}
        {!list.length && <li className="small">No scale in common use holds all of its notes.</li>}
      </ul>
      {scales.length > 0 && (
        <Table bsPrefix="measures">
          <tbody>
            {scales.map((s) => (
              <tr key={s.name}>
                <th scope="row">
                  {Pitch.typeset(chord.root)} {s.name.replace(" b", " ♭")}
                </th>
                <td className="scale-notes">{Pitch.typeset(s.notes.join(" "))}</td>
              </tr>
            ))}
          </tbody>
        </Table>
      )}
      <p className="small">
        Jazz teaching calls notes a semitone above a chord tone avoid notes; chorale style resolves them, loop music
        often does not mind.
      </p>
    </>
  );
}
