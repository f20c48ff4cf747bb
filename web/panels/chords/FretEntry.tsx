import { useState } from "react";
import { keyName, parseFrets, parseTuning, fretReadings, TUNINGS, typeset } from "../../../core/src/index";
import type { ScoreData } from "../../score/data";
import { Named } from "./Named";
import { Refused } from "../../ui/Refused";

const SHOWN = 5;

/** A shape on guitar, ukulele or bass: clicked on the neck or typed, with capo and any tuning. */
export function FretEntry({ data }: { data: ScoreData }) {
  const [tuningId, setTuningId] = useState("guitar");
  const [ownTuning, setOwnTuning] = useState<string | null>(null);
  const [capo, setCapo] = useState(0);
  const [position, setPosition] = useState(1);
  const known = TUNINGS.find((t) => t.id === tuningId)!;
  const parsedTuning = ownTuning === null ? null : parseTuning(ownTuning, known.strings);
  const strings = parsedTuning?.ok ? parsedTuning.value : known.strings;
  const [text, setText] = useState("x32010");
  const frets = parseFrets(text);
  const shape = frets.ok && frets.value.length === strings.length ? frets.value : strings.map(() => null);
  const named = frets.ok ? fretReadings({ frets: frets.value, tuning: strings, capo, key: keyName(data.key) }) : frets;
  const setFret = (string: number, fret: number | null) => {
    const next = shape.map((f, i) => (i === string ? (f === fret ? null : fret) : f));
    setText(next.map((f) => (f === null ? "x" : String(f))).join(next.some((f) => f !== null && f > 9) ? " " : ""));
  };
  const problem = parsedTuning && !parsedTuning.ok ? parsedTuning.error : !named.ok ? named.error : null;
  return (
    <>
      <div className="controls">
        <select
          aria-label="Instrument and tuning"
          value={tuningId}
          onChange={(e) => {
            const next = TUNINGS.find((t) => t.id === e.target.value)!;
            setTuningId(next.id);
            setOwnTuning(null);
            setText(next.strings.map(() => "x").join(""));
          }}
        >
          {TUNINGS.map((t) => (
            <option key={t.id} value={t.id}>
              {t.title}
            </option>
          ))}
        </select>
        <label>
          <span className="muted">capo</span>
          <input type="number" min={0} max={12} value={capo} style={{ width: 52 }} onChange={(e) => setCapo(Number(e.target.value) || 0)} />
        </label>
      </div>
      <div className="controls">
        <label>
          <span className="muted">tuning</span>
          <input
            value={ownTuning ?? strings.map((s) => s.replace(/\d/, "")).join(" ")}
            style={{ width: "9.5rem" }}
            spellCheck={false}
            onChange={(e) => setOwnTuning(e.target.value)}
            title="Strings as text, lowest drawn string first: D A D F# A D, or with octaves D2 A2 …"
          />
        </label>
        <label>
          <span className="muted">frets</span>
          <input value={text} spellCheck={false} style={{ width: "6.5rem" }} aria-label="Frets" onChange={(e) => setText(e.target.value)} />
        </label>
      </div>
      <div className="neck" role="group" aria-label="Neck">
        <div className="neck-row names">
          <span>{position > 1 ? position : ""}</span>
          {strings.map((s, i) => (
            <button
              key={i}
              type="button"
              aria-pressed={shape[i] === 0}
              aria-label={`String ${strings.length - i}, ${s}: ${shape[i] === null ? "silent" : shape[i] === 0 ? "open" : `fret ${shape[i]}`}`}
              title={shape[i] === null ? "Silent; click for the open string" : "Click for the open string, again for silence"}
              onClick={() => setFret(i, 0)}
            >
              {shape[i] === null ? "×" : shape[i] === 0 ? "o" : " "}
            </button>
          ))}
        </div>
        {Array.from({ length: SHOWN }, (_, row) => position + row).map((fret) => (
          <div key={fret} className="neck-row">
            <span>{fret}</span>
            {strings.map((_, i) => (
              <button
                key={i}
                type="button"
                aria-pressed={shape[i] === fret}
                aria-label={`String ${strings.length - i}, fret ${fret}`}
                onClick={() => setFret(i, fret)}
              >
                {shape[i] === fret ? "●" : ""}
              </button>
            ))}
          </div>
        ))}
        <div className="controls">
          <button type="button" disabled={position === 1} onClick={() => setPosition(position - 1)}>
            lower frets
          </button>
          <button type="button" disabled={position > 12} onClick={() => setPosition(position + 1)}>
            higher frets
          </button>
        </div>
      </div>
      {problem && <Refused problem={problem} />}
      {named.ok && (
        <>
          <p className="played-notes">{typeset(named.value.pitches.join("  "))}</p>
          <Named data={data} readings={named.value.sounding} {...(capo ? { shape: named.value.shape } : {})} />
        </>
      )}
    </>
  );
}
