import Table from "react-bootstrap/Table";
import { Check, type MomentNote, nth, Pitch } from "../../../core/src/index";
import { usePlayback } from "../../app/store/playback";
import type { SectionData } from "../../app/store/sectionData";
import { useStored } from "../../app/store/song";
import { ChordName } from "../../kit/ChordName";
import { oneDecimal } from "../../kit/texts";
import { Button } from "../../kit/Button";

/** Everything that sounds at one moment, from the place where playing begins; the arrow keys walk. */
export function MomentTab({ data }: { data: SectionData }) {
  const { song, section } = useStored(data.section.id);
  const from = usePlayback((s) => s.from) ?? 0;
  const moments = Check.moments(song, section.id);
  const found = Check.moment(song, section.id, from);
  if (!moments.ok || !found.ok) return <p>Nothing sounds in {section.name} yet.</p>;
  const ticks = moments.value.map((m) => m.tick);
  const at = ticks.findLastIndex((t) => t <= from);
  const go = (to: number) => usePlayback.setState({ from: nth(ticks, Math.min(ticks.length - 1, Math.max(0, to))) });
  const { where, chord, sounding, notes, drums, roughness } = found.value;
  return (
    <div
      className="moment"
      role="group"
      aria-label="A moment"
      tabIndex={0}
      onKeyDown={(e) => {
        const step = { ArrowLeft: -1, ArrowRight: 1, Home: -ticks.length, End: ticks.length }[e.key];
        if (step === undefined) return;
        e.preventDefault();
        e.stopPropagation();
        go(at + step);
      }}
    >
      <p className="finding-places">
        <Button aria-label="Moment before" onClick={() => go(at - 1)}>
          ‹
        </Button>
        <b>{where}</b>
        <Button aria-label="Next moment" onClick={() => go(at + 1)}>
          ›
        </Button>
      </p>
      <p className="small">Arrow keys walk; a click into the ruler goes there. What is held over is pale.</p>
      <p>
        {chord === null ? "No chord" : <ChordName symbol={chord} />}
        {sounding !== null && sounding !== chord && (
          <>
            , sounding <ChordName symbol={sounding} />
          </>
        )}
        {notes.length > 1 && <span className="small"> · roughness {oneDecimal(roughness * 10)}</span>}
        {drums.length > 0 && <span className="small"> · {drums.join(", ")}</span>}
      </p>
      <Register notes={notes} />
      <Table bsPrefix="measures" className="moment-table">
        <thead>
          <tr>
            <th scope="col">part</th>
            <th scope="col">note</th>
            <th scope="col">over the bass</th>
            <th scope="col">to the tune</th>
          </tr>
        </thead>
        <tbody>
          {notes.map((n) => (
            <tr key={`${n.part}:${n.pitch}`} className={n.struck ? "" : "held"}>
              <th scope="row">
                {n.name.split(",")[0]}
                <span className="small"> {Pitch.typesetAll(n.role)}</span>
              </th>
              <td title={n.struck ? "struck here" : "held over"}>{Pitch.typeset(n.pitch)}</td>
              <td>{n.overBass ?? "–"}</td>
              <td>{n.toTune ?? "–"}</td>
            </tr>
          ))}
        </tbody>
      </Table>
    </div>
  );
}

const [LOW, HIGH] = [24, 96];
const WIDTH = 330;
const BLACK = new Set([1, 3, 6, 8, 10]);

/** Where the notes lie, on one keyboard. */
function Register({ notes }: { notes: readonly MomentNote[] }) {
  const step = WIDTH / (HIGH - LOW + 1);
  const x = (midi: number) => (Math.min(HIGH, Math.max(LOW, midi)) - LOW) * step;
  const words = notes.map((n) => `${n.name} ${Pitch.typeset(n.pitch)}`).join(", ");
  return (
    <svg className="register" width={WIDTH} height={34} role="img" aria-label={`Register: ${words || "nobody"}`}>
      {Array.from({ length: HIGH - LOW + 1 }, (_, i) => LOW + i).map((m) => (
        <rect
          key={m}
          className={BLACK.has(m % 12) ? "black" : "white"}
          x={x(m)}
          width={step}
          y={14}
          height={BLACK.has(m % 12) ? 12 : 20}
        />
      ))}
      {notes.map((n) => (
        <circle
          key={`${n.part}:${n.pitch}`}
          className={n.struck ? "struck" : "held"}
          cx={x(n.midi) + step / 2}
          cy={7}
          r={4.5}
        >
          <title>{`${n.name}: ${Pitch.typeset(n.pitch)}`}</title>
        </circle>
      ))}
    </svg>
  );
}
