import { useEffect, useRef, useState } from "react";
import { writeLine } from "../../../core/src/index";
import type { SectionData } from "../../store/sectionData";
import { edit, say, useSong } from "../../store/song";

interface LineProblem {
  message: string;
  position?: number;
  hint?: string;
}

/** The whole section as one line of symbols: every key pressed is heard by the score. */
export function SymbolLine({ data }: { data: SectionData }) {
  const lineProblems = useSong((s) => s.lineProblems);
  const written = data.section.chords.length ? writeLine(data.section.chords, data.meter, data.section.bars) : "";
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
  const problems: LineProblem[] = draft === null ? [] : refused ? [refused] : lineProblems;

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
      <textarea
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
          visited.current = false;
        }}
        onBlur={() => problems.length || setDraft(null)}
      />
      <LineProblems text={text} problems={problems} after="The rest of the line stands; what stood at these places before stays." />
      <p id="line-help" className="small">
        Bars between <code>|</code>. Several chords share the bar: two halve it, three take 2+1+1 beats. <code>.</code> holds one more beat,{" "}
        <code>%</code> repeats the bar, <code>N.C.</code> is no chord.
      </p>
    </>
  );
}

/** Characters shown before and behind the place of a problem. */
const BEFORE = 15;
const BEHIND = 12;

/** Problems of a typed line, each with its place. */
export function LineProblems({ text, problems, after }: { text: string; problems: LineProblem[]; after: string }) {
  const first = problems[0];
  if (!first) return null;
  return (
    <div className="line-problem" role="alert">
      {first.position !== undefined && (
        <pre aria-hidden="true">
          {text.slice(Math.max(0, first.position - BEFORE - 1), first.position + BEHIND)}
          {"\n"}
          {" ".repeat(Math.min(first.position - 1, BEFORE))}^
        </pre>
      )}
      {problems.slice(0, 4).map((p, i) => (
        <p key={i}>
          {p.message} <span className="small">{p.hint}</span>
        </p>
      ))}
      <p className="small">{after}</p>
    </div>
  );
}
