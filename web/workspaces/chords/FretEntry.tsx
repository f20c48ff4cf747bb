import FormControl from "react-bootstrap/FormControl";
import { useState } from "react";
import { Frets, Key, Pitch, sure } from "../../../core/src/index";
import type { SectionData } from "../../app/store/sectionData";
import { NumberBox } from "../../kit/NumberBox";
import { Refused } from "../../kit/Refused";
import { Select } from "../../kit/Select";
import { Named } from "./Named";
import { Button } from "../../kit/Button";

const SHOWN = 5;
const HIGHEST_POSITION = 12;

/** A shape on guitar, ukulele or bass: clicked on the neck or typed, with capo and any tuning. */
export function FretEntry({ data }: { data: SectionData }) {
  const [tuningId, setTuningId] = useState("guitar");
  const [ownTuning, setOwnTuning] = useState<string | null>(null);
  const [capo, setCapo] = useState(0);
  const [text, setText] = useState("x32010");
  const known = sure(Frets.TUNINGS.find((t) => t.id === tuningId));
  const tuning = ownTuning === null ? null : Frets.parseTuning(ownTuning, known.strings);
  const strings = tuning?.ok ? tuning.value : known.strings;
  const frets = Frets.parse(text);
  const shape = frets.ok && frets.value.length === strings.length ? frets.value : strings.map(() => null);
  const named = frets.ok
    ? Frets.readings({ frets: frets.value, tuning: strings, capo, key: Key.name(data.key) })
    : frets;
  const refused = [tuning, named].find((read) => read && !read.ok);
  const problem = refused && !refused.ok ? refused.error : null;
  const setFret = (string: number, fret: number | null) => {
    const next = shape.map((f, i) => {
      if (i === string) {
        if (f === fret) return null;
        return fret;
      }
      return f;
    });
    setText(next.map((f) => (f === null ? "x" : String(f))).join(next.some((f) => f !== null && f > 9) ? " " : ""));
  };
  const setKnown = (id: string) => {
    setTuningId(id);
    setOwnTuning(null);
    setText(
      sure(Frets.TUNINGS.find((t) => t.id === id))
        .strings.map(() => "x")
        .join(""),
    );
  };
  return (
    <>
      <div className="controls">
        <Select
          label="Instrument and tuning"
          value={tuningId}
          choices={Frets.TUNINGS.map((t) => [t.id, t.title])}
          set={setKnown}
        />
        <label>
          <span className="muted">capo</span>
          <NumberBox label="Capo" min={0} max={12} value={capo} set={setCapo} />
        </label>
      </div>
      <div className="controls">
        <label>
          <span className="muted">tuning</span>
          <FormControl
            bsPrefix="field"
            value={ownTuning ?? strings.map(Pitch.note).join(" ")}
            className="tuning"
            spellCheck={false}
            onChange={(e) => setOwnTuning(e.target.value)}
            title="Strings as text, lowest drawn string first: D A D F# A D, or with octaves D2 A2 …"
          />
        </label>
        <label>
          <span className="muted">frets</span>
          <FormControl
            bsPrefix="field"
            value={text}
            className="frets"
            spellCheck={false}
            aria-label="Frets"
            onChange={(e) => setText(e.target.value)}
          />
        </label>
      </div>
      <NeckGrid strings={strings} shape={shape} setFret={setFret} />
      {problem && <Refused problem={problem} />}
      {named.ok && (
        <>
          <p className="played-notes">{Pitch.typeset(named.value.pitches.join("  "))}</p>
          <Named data={data} readings={named.value.sounding} {...(capo ? { shape: named.value.shape } : {})} />
        </>
      )}
    </>
  );
}

interface NeckProps {
  strings: readonly string[];
  shape: readonly (number | null)[];
  setFret(string: number, fret: number | null): void;
}

/** Five frets of the neck to click on, with the open strings above. */
function NeckGrid({ strings, shape, setFret }: NeckProps) {
  const [position, setPosition] = useState(1);
  const stateOf = (i: number) => {
    if (shape[i] === null) return "silent";
    if (shape[i] === 0) return "open";
    return `fret ${shape[i]}`;
  };
  return (
    <div className="neck" role="group" aria-label="Neck">
      <div className="neck-row names">
        <span>{position > 1 ? position : ""}</span>
        {strings.map((s, i) => (
          <Button
            key={i}
            aria-pressed={shape[i] === 0}
            aria-label={`String ${strings.length - i}, ${s}: ${stateOf(i)}`}
            title={
              shape[i] === null ? "Silent; click for the open string" : "Click for the open string, again for silence"
            }
            onClick={() => setFret(i, 0)}
          >
            {shape[i] === null && "×"}
            {shape[i] === 0 && "o"}
          </Button>
        ))}
      </div>
      {Array.from({ length: SHOWN }, (_, row) => position + row).map((fret) => (
        <div key={fret} className="neck-row">
          <span>{fret}</span>
          {strings.map((_, i) => (
            <Button
              key={i}
              aria-pressed={shape[i] === fret}
              aria-label={`String ${strings.length - i}, fret ${fret}`}
              onClick={() => setFret(i, fret)}
            >
              {shape[i] === fret ? "●" : ""}
            </Button>
          ))}
        </div>
      ))}
      <div className="controls">
        <Button disabled={position === 1} onClick={() => setPosition(position - 1)}>
          lower frets
        </Button>
        <Button disabled={position > HIGHEST_POSITION} onClick={() => setPosition(position + 1)}>
          higher frets
        </Button>
      </div>
    </div>
  );
}
