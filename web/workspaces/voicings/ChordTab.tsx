import Table from "react-bootstrap/Table";
import {
  type Alternative,
  Chord,
  type ChordEvent,
  firstOf,
  Instrument,
  nth,
  type Part,
  Pitch,
  type PitchName,
  type SectionVoicing,
  Text,
  type VoicedChord,
  Voicing,
} from "../../../core/src/index";
import { around, auditionEdit } from "../../app/commands/audition";
import { invertChord, soundPitches, soundWhenVoiced } from "../../app/commands/voicings";
import { useResults } from "../../app/store/results";
import type { SectionData } from "../../app/store/sectionData";
import { useSelection } from "../../app/store/selection";
import { edit, say } from "../../app/store/song";
import { ChordName } from "../../kit/ChordName";
import { FretDiagram } from "../../kit/FretDiagram";
import { HearTake } from "../../kit/HearTake";
import { LaidOutAnew } from "../../kit/LaidOutAnew";
import { InPlace } from "../../kit/InPlace";
import { oneDecimal, typedPitch } from "../../kit/texts";
import { HandMade } from "./HandMade";
import { HandsOf, NeckOf } from "./Held";
import { Toggle } from "../../kit/Toggle";
import { Button } from "../../kit/Button";

/** Costs below this are not told. */
const NOTHING = 0.05;

interface Props {
  data: SectionData;
  part: Part;
}

/** One chord of a part: what was chosen, what it takes to play, what else there is. */
export function ChordTab({ data, part }: Props) {
  const focus = useSelection((s) => s.chord);
  const voicing = useResults((s) => s.voicing[part.id]);
  const events = data.section.chords.filter((c) => Chord.of(c.symbol));
  const event = events.find((c) => c.id === focus) ?? events[0];
  const index = event && voicing ? voicing.ids.indexOf(event.id) : -1;
  if (!event || !voicing || index < 0)
    return <p className="small">Type a chord line in Chords, then choose a chord above the lanes.</p>;
  return <OneChord data={data} part={part} event={event} voicing={voicing} index={index} />;
}

interface OneProps extends Props {
  event: ChordEvent;
  voicing: SectionVoicing;
  /** Place of the chord in the path. */
  index: number;
}

function Inverting({ frets }: { frets: boolean }) {
  return (
    <span className="stepper" role="group" aria-label="Invert">
      <Button title="Shift I" onClick={() => invertChord(-1)}>
        {frets ? "lower shape" : "invert down"}
      </Button>
      <Button title="I" onClick={() => invertChord(1)}>
        {frets ? "higher shape" : "invert up"}
      </Button>
    </span>
  );
}

function WantedEnd({
  text,
  label,
  pitch,
  commit,
}: {
  text: string;
  label: string;
  pitch: PitchName | undefined;
  commit(text: string): boolean;
}) {
  return (
    <span className="inline-field">
      {text} <InPlace label={label} value={pitch ? Pitch.typeset(pitch) : "any"} commit={commit} />
    </span>
  );
}

function MissedTop({ top }: { top: OneProps["voicing"]["tops"][string] | undefined }) {
  if (top?.met !== "no") return null;
  return (
    <p className="small problem flush">
      {Pitch.typeset(top.wanted)} on top cannot be had: {top.why}.
    </p>
  );
}

function OneChord({ data, part, event, voicing, index }: OneProps) {
  const chosen = nth(voicing.chords, index);
  const base = { section: data.section.id, part: part.id, chord: event.id };
  const own = event.voicings?.[part.id];
  const pinned = own?.pinned ?? false;
  const { held } = Instrument.of(part.instrument, data.song);

  const pin = (pitches: PitchName[] | null): boolean => edit({ do: "pinVoicing", ...base, pitches });
  const setEnd = (end: "top" | "bottom", text: string): boolean => {
    if (/^(any|-|–)?$/i.test(text.trim())) return edit({ do: "pinEnds", ...base, [end]: null });
    const name = typedPitch(text, say);
    if (!name) return false;
    soundWhenVoiced(part.id);
    return edit({ do: "pinEnds", ...base, [end]: name });
  };
  return (
    <>
      <div className="chord-head">
        <h3>
          <ChordName symbol={event.symbol} />
        </h3>
        <span className="pitches">{chosen.pitches.map(Pitch.typeset).join(" ")}</span>
        {pinned && <span className="pin-mark">pinned</span>}
      </div>
      <p className="small flush">{motionText(chosen)}</p>
      <div className="controls">
        <Inverting frets={held.by === "frets"} />
        <Button onClick={() => soundPitches(part.id, chosen.pitches)}>Hear it</Button>
        <Toggle on={pinned} press={() => pin(pinned ? null : chosen.pitches)}>
          {pinned ? "Unpin" : "Pin"}
        </Toggle>
      </div>
      <div className="controls">
        <WantedEnd text="top note" label="Wanted top note" pitch={own?.top} commit={(t) => setEnd("top", t)} />
        <WantedEnd text="lowest" label="Wanted lowest note" pitch={own?.bottom} commit={(t) => setEnd("bottom", t)} />
      </div>
      <MissedTop top={voicing.tops[event.id]} />
      <HandMade data={data} part={part} chord={event.id} />
      {held.by === "hands" && (
        <HandsOf pitches={chosen.pitches} part={part} easier={voicing.easier[event.id]} pin={pin} />
      )}
      {chosen.says && <p className="small">{Pitch.typesetAll(chosen.says)}</p>}
      {chosen.shape && <NeckOf shape={chosen.shape} before={voicing.chords[index - 1]?.shape} />}
      <Others
        data={data}
        part={part}
        event={event}
        chosen={chosen}
        alternatives={voicing.alternatives[event.id] ?? []}
        pin={pin}
      />
      <p className="small">A pinned layout stays when the part is laid out anew. {pinned && "This one is pinned."}</p>
      <LaidOutAnew data={data} part={part} />
      <Costs chosen={chosen} />
    </>
  );
}

const motionText = ({ motion, kept }: VoicedChord): string =>
  motion === null
    ? "Begins the path."
    : `From the chord before: moves ${Text.counted(motion, "semitone")}, keeps ${Text.counted(kept ?? 0, "tone")}.`;

interface OthersProps extends Props {
  event: ChordEvent;
  chosen: VoicedChord;
  alternatives: readonly Alternative[];
  pin(pitches: PitchName[]): boolean;
}

/** Other layouts of the chord beside its present neighbors, the cheapest first. */
function Others({ data, part, event, chosen, alternatives, pin }: OthersProps) {
  const { from, to } = around(data.section, data.meter, event.start);
  const edits = (pitches: PitchName[]) => ({
    do: "pinVoicing" as const,
    section: data.section.id,
    part: part.id,
    chord: event.id,
    pitches,
  });
  return (
    <>
      <div className="row-head">
        <h4>Other layouts here</h4>
      </div>
      <ol className="choices" aria-label="Other layouts">
        {alternatives.map((a, i) => {
          const pitches = a.pitches.map(Pitch.typeset).join(" ");
          const same = a.pitches.join() === chosen.pitches.join();
          const id = `voicing:${event.id}:${a.pitches.join()}`;
          return (
            <li key={a.pitches.join() + (a.shape?.frets.join() ?? "")} className={same ? "current" : ""}>
              {a.shape && <FretDiagram shape={a.shape} />}
              <span className="line-title">
                <span className="pitches">{pitches}</span>
                <span className="small">{same ? "chosen" : a.trades.join(", ") || "nearly the same"}</span>
              </span>
              <span className="cost" title="Cost beside its present neighbors, compared with the best">
                {i === 0 ? "best" : `+${oneDecimal(a.cost - firstOf(alternatives).cost)}`}
              </span>
              <HearTake
                id={id}
                name={pitches}
                takeText="Pin"
                hear={() => auditionEdit(edits(a.pitches), pitches, id, { from, to })}
                take={() => {
                  pin(a.pitches);
                  soundPitches(part.id, a.pitches);
                }}
              />
            </li>
          );
        })}
      </ol>
    </>
  );
}

/** What the chord costs, term by term. */
function Costs({ chosen }: { chosen: VoicedChord }) {
  return (
    <Table bsPrefix="measures">
      <tbody>
        {Voicing.TERM_NAMES.filter((t) => (chosen.terms[t] ?? 0) >= NOTHING).map((t) => (
          <tr key={t}>
            <th scope="row">{Voicing.TERMS[t]}</th>
            <td>{oneDecimal(chosen.terms[t] ?? 0)}</td>
          </tr>
        ))}
      </tbody>
      <tfoot>
        <tr>
          <th scope="row">cost of this chord</th>
          <td>{oneDecimal(chosen.cost)}</td>
        </tr>
      </tfoot>
    </Table>
  );
}
