import FormControl from "react-bootstrap/FormControl";
import { useState } from "react";
import { Frets, Key, Pitch } from "../../../core/src/index";
import type { SectionData } from "../../app/store/sectionData";
import { useSelection } from "../../app/store/selection";
import { NumberBox } from "../../kit/NumberBox";
import { Refused } from "../../kit/Refused";
import { Select } from "../../kit/Select";
import { around, NAME_ONLY, NEW_PART } from "./hands";
import { Named } from "./Named";
import { tuningOf, useNeck } from "./useNeck";
import { Button } from "../../kit/Button";

const SHOWN = 5;
const HIGHEST_POSITION = 12;

/** A shape on guitar, ukulele or bass: clicked on the neck or typed, with capo and any tuning. */
export function FretEntry({ data }: { data: SectionData }) {
  const neck = useNeck(data);
  const { strings, capo, tuning, target } = neck;
  const [text, setText] = useState("x32010");
  const chord = useSelection((s) => s.chord);
  const frets = Frets.parse(text);
  const shape = frets.ok && frets.value.length === strings.length ? frets.value : strings.map(() => null);
  const named = frets.ok
    ? Frets.readings({ frets: frets.value, tuning: strings, capo, key: Key.name(data.key), ...around(data, chord) })
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
    neck.setKnown(id);
    setText(
      tuningOf(id)
        .strings.map(() => "x")
        .join(""),
    );
  };
  return (
    <>
      <div className="controls">
        <Select
          label="Instrument and tuning"
          value={neck.known.id}
          choices={Frets.TUNINGS.map((t) => [t.id, t.title])}
          set={setKnown}
        />
        <label>
          <span className="muted">capo</span>
          <NumberBox label="Capo" min={0} max={12} value={capo} set={neck.setCapo} />
        </label>
        <Select
          label="For whom the shape is"
          text="for"
          value={target}
          choices={[
            ...neck.parts.map((p) => [p.id, p.name] as const),
            [NEW_PART, `a new part, ${neck.player.name}`],
            [NAME_ONLY, "its name alone"],
          ]}
          set={neck.setTarget}
        />
      </div>
      <StringFields neck={neck} text={text} setText={setText} />
      <NeckGrid strings={strings} shape={shape} setFret={setFret} />
      {problem && <Refused problem={problem} />}
      {named.ok && (
        <>
          <p className="played-notes">{Pitch.typeset(named.value.pitches.join("  "))}</p>
          <Named
            data={data}
            readings={named.value.sounding}
            {...(capo ? { shape: named.value.shape } : {})}
            done={neck.goOn}
            hands={{
              target,
              pitches: [...named.value.pitches].sort((a, b) => Pitch.midi(a) - Pitch.midi(b)),
              neck: { frets: shape, capo, strings, ...neck.player },
            }}
          />
        </>
      )}
    </>
  );
}

interface FieldProps {
  neck: ReturnType<typeof useNeck>;
  text: string;
  setText(text: string): void;
}

/** Tuning and frets as text. */
function StringFields({ neck, text, setText }: FieldProps) {
  return (
    <div className="controls">
      <label>
        <span className="muted">tuning</span>
        <FormControl
          bsPrefix="field"
          value={neck.typed ?? neck.strings.map(Pitch.note).join(" ")}
          className="tuning"
          spellCheck={false}
          onChange={(e) => neck.setTyped(e.target.value)}
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
