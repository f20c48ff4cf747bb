import FormControl from "react-bootstrap/FormControl";
import { useEffect, useRef, useState } from "react";
import { Chord } from "../../../core/src/index";
import type { SectionData } from "../../app/store/sectionData";
import { edit, say, useSong } from "../../app/store/song";
import { inBars } from "../../kit/texts";
import { useLate } from "../../kit/useLate";
import { LineProblems, type LineProblem } from "../../kit/LineProblems";

/** The whole section as one line of symbols: every key pressed is heard by the score. */
export function SymbolLine({ data }: { data: SectionData }) {
  const lineProblems = useSong((s) => s.lineProblems);
  const { id, chords, bars } = data.section;
  const { value: written, now } = useLate(`${id} ${bars}`, chords, (list) =>
    list.length ? inBars(Chord.writeLine(list, data.meter, bars)) : "",
  );
  const [draft, setDraft] = useState<string | null>(null);
  const [refused, setRefused] = useState<LineProblem | null>(null);
  // Another song, section or an undo shows what is stored.
  useEffect(() => {
    setDraft(null);
    setRefused(null);
  }, [data.section.id]);
  // One visit to the field is one step of undo, however many keys it took.
  const visited = useRef(false);
  const text = draft ?? written;
  let problems: LineProblem[];
  if (draft === null) problems = [];
  else if (refused) problems = [refused];
  else problems = lineProblems;

  const take = (line: string) => {
    setDraft(line);
    if (!line.trim()) {
      setRefused({ message: "The line has no chord.", hint: "Write bars between bar lines: | C | Am F |." });
      return;
    }
    const fine = edit({ do: "setLine", section: data.section.id, line }, { quiet: visited.current });
    if (fine) visited.current = true;
    setRefused(fine ? null : useSong.getState().problem);
    say(null);
  };
  return (
    <>
      <label className="block-label" htmlFor="line">
        Chord line
      </label>
      <FormControl
        as="textarea"
        bsPrefix="field"
        id="line"
        rows={4}
        spellCheck={false}
        autoComplete="off"
        value={text}
        aria-invalid={problems.length > 0}
        aria-describedby="line-help"
        placeholder="| Ebmaj9 | Cm7 F7sus4 F7 | Bbm7 Eb9 | Abmaj7 | % |"
        onChange={(e) => take(e.target.value)}
        onKeyDown={(e) => {
          e.stopPropagation();
          if (e.key === "Enter") {
            e.preventDefault();
            e.currentTarget.blur();
          }
        }}
        onFocus={() => {
          now();
          visited.current = false;
        }}
        onBlur={() => {
          now();
          if (!problems.length) setDraft(null);
        }}
      />
      <LineProblems
        text={text}
        problems={problems}
        after="The rest of the line stands; what stood at these places before stays."
      />
      <p id="line-help" className="small">
        Bars between <code>|</code>. Several chords share the bar: two halve it, three take 2+1+1 beats. <code>.</code>{" "}
        holds one more beat, <code>%</code> repeats the bar, <code>N.C.</code> is no chord.
      </p>
    </>
  );
}
