import Table from "react-bootstrap/Table";
import type { ReactNode } from "react";
import { type Clef, Frets, Instrument, Pitch } from "../../../core/src/index";
import { say } from "../../app/store/song";
import { InPlace } from "../../kit/InPlace";
import { Select } from "../../kit/Select";
import { typedPitch } from "../../kit/texts";

const CLEF_WORDS: Record<Clef, string> = {
  treble: "treble",
  alto: "alto",
  tenor: "tenor",
  bass: "bass",
  grand: "two staves",
};

const heldWords = ({ held, polyphony }: Instrument): string => {
  if (held.by === "hands") return "two hands on keys";
  if (held.by === "frets") return `${held.strings.length} strings, ${held.frets} frets`;
  return polyphony === 1 ? "one note at a time" : "note by note";
};

const transposes = (n: number): string => {
  if (n === 0) return "sounds as written";
  if (n === -12) return "sounds an octave lower than written";
  return (
    `sounds ${Math.abs(n)} ${Math.abs(n) === 1 ? "semitone" : "semitones"} ${n < 0 ? "lower" : "higher"} than ` +
    "written"
  );
};

interface Props {
  instrument: Instrument;
  /** The instrument as it is stored now. */
  stored(): Instrument;
  /** Changes values; null while they are only shown. */
  put: ((change: Partial<Instrument>) => boolean) | null;
}

const Row = ({ title, children }: { title: string; children: ReactNode }) => (
  <tr>
    <th scope="row">{title}</th>
    <td>{children}</td>
  </tr>
);

/** What an instrument can do, in a table whose values are edited in place once they may be changed. */
export function InstrumentFacts({ instrument, stored, put }: Props) {
  const number = (label: string, shown: string, value: number, take: (n: number) => Partial<Instrument>) =>
    put ? (
      <InPlace label={label} value={String(value)} commit={(t) => Number.isFinite(Number(t)) && put(take(Number(t)))} />
    ) : (
      shown
    );
  const { held, polyphony, transposition, clef, sound } = instrument;
  return (
    <Table bsPrefix="measures" className="facts">
      <tbody>
        {put && (
          <Row title="name">
            <InPlace label="Name of the instrument" value={instrument.title} commit={(title) => put({ title })} />
          </Row>
        )}
        <Row title="sounding range">
          <Ends field="range" label="sounding range" instrument={instrument} stored={stored} put={put} />
        </Row>
        <Row title="comfortable">
          <Ends field="comfortable" label="comfortable" instrument={instrument} stored={stored} put={put} />
        </Row>
        <Row title="clef">
          {put ? (
            <Select
              label="Clef"
              value={clef}
              choices={Instrument.CLEFS.map((c) => [c, CLEF_WORDS[c]])}
              set={(c) => put({ clef: c })}
            />
          ) : (
            CLEF_WORDS[clef]
          )}
        </Row>
        <Row title="transposition">
          {number("Sounding less written, in semitones", transposes(transposition), transposition, (n) => ({
            transposition: n,
          }))}
        </Row>
        <Row title="notes at once">
          {number("Notes at once", String(polyphony), polyphony, (n) => ({ polyphony: n }))}
        </Row>
        <Row title="held">{heldWords(instrument)}</Row>
        {held.by === "hands" && put && (
          <Row title="one hand reaches">
            {number("Span of one hand in semitones", "", held.span, (span) => ({ held: { by: "hands", span } }))}{" "}
            semitones
          </Row>
        )}
        {held.by === "frets" && (
          <>
            <Row title="strings">
              <Strings held={held} put={put} />
            </Row>
            <Row title="string length">
              {number("String length in millimeters", String(held.scale), held.scale, (scale) => ({
                held: { ...held, scale },
              }))}{" "}
              mm
            </Row>
          </>
        )}
        {put && (
          <Row title="sound">
            <Select
              label="Sound"
              value={sound}
              choices={Instrument.SOUNDS.filter((s) => s !== "drums").map((s) => [s, s])}
              set={(s) => put({ sound: s })}
            />
          </Row>
        )}
      </tbody>
    </Table>
  );
}

function Ends({ field, label, instrument, stored, put }: Props & { field: "range" | "comfortable"; label: string }) {
  const [low, high] = instrument[field];
  if (!put)
    return (
      <>
        {Pitch.typeset(low)} – {Pitch.typeset(high)}
      </>
    );
  const commit = (end: 0 | 1) => (text: string) => {
    const name = typedPitch(text, say);
    if (!name) return false;
    const [from, to] = stored()[field];
    return put({ [field]: end ? [from, name] : [name, to] });
  };
  return (
    <>
      <InPlace label={`${label}, lowest note`} value={Pitch.typeset(low)} commit={commit(0)} />
      <InPlace label={`${label}, highest note`} value={Pitch.typeset(high)} commit={commit(1)} />
    </>
  );
}

type Fretted = Extract<Instrument["held"], { by: "frets" }>;

function Strings({ held, put }: { held: Fretted; put: Props["put"] }) {
  if (!put) return held.strings.map(Pitch.typeset).join(" ");
  const commit = (text: string) => {
    const parsed = Frets.parseTuning(text, held.strings);
    if (parsed.ok) return put({ held: { ...held, strings: parsed.value } });
    say(parsed.error);
    return false;
  };
  return <InPlace label="Open strings, lowest drawn first" value={held.strings.join(" ")} commit={commit} />;
}
