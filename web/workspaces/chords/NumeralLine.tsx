import FormControl from "react-bootstrap/FormControl";
import { useState } from "react";
import { Chord, Key, Pitch } from "../../../core/src/index";
import type { SectionData } from "../../app/store/sectionData";
import { edit } from "../../app/store/song";
import { LineProblems } from "../../kit/LineProblems";
import { Button } from "../../kit/Button";

/** Numerals of the present chords that are shown. */
const SHOWN = 24;

/** Numerals or degrees, read in the section's key, shown as chords while they are typed. */
export function NumeralLine({ data }: { data: SectionData }) {
  const [text, setText] = useState("");
  const read = text.trim() ? Chord.readNumerals(text, data.key, data.meter) : null;
  const good = read && !read.problems.length;
  const line = good ? Chord.writeLine(read.chords, data.meter, read.bars) : "";
  const write = () => good && edit({ do: "setLine", section: data.section.id, line }) && setText("");
  const present = data.section.chords.map((c) => {
    const chord = Chord.of(c.symbol);
    return chord ? Chord.numeral(chord, data.key) : "–";
  });
  return (
    <>
      <label className="block-label" htmlFor="numerals">
        Numerals or degrees in {Pitch.typeset(Key.name(data.key))}
      </label>
      <FormControl
        as="textarea"
        bsPrefix="field"
        id="numerals"
        rows={2}
        spellCheck={false}
        autoComplete="off"
        value={text}
        placeholder="6 4 1 5   or   | ii7 V7/V | V7 Imaj7 |"
        onChange={(e) => setText(e.target.value)}
        onKeyDown={(e) => {
          e.stopPropagation();
          if (e.key === "Enter") {
            e.preventDefault();
            write();
          }
        }}
      />
      {read && (
        <LineProblems
          text={text}
          problems={read.problems}
          after="Nothing is written until every numeral can be read."
        />
      )}
      {good && <p className="line-preview">{Pitch.typeset(line)}</p>}
      <div className="controls">
        <Button className="primary" disabled={!good} onClick={write}>
          Write into the section
        </Button>
      </div>
      <p className="small">
        Without bar lines every numeral is a bar. Plain degrees take the key’s own triad, <code>27</code> its seventh;{" "}
        <code>V65</code> is an inversion, <code>V7/ii</code> an applied dominant, <code>IV/5</code> stands over degree
        5.
      </p>
      {present.length > 0 && <p className="small">Now: {Pitch.typeset(present.slice(0, SHOWN).join("  "))}</p>}
    </>
  );
}
