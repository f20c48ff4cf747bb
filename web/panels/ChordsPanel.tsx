import { useEffect, useRef, useState } from "react";
import { chordToneName, mod, parseChord, rootPc, ROLE_WORDS, typeset, writeLine } from "../../core/src/index";
import type { ScoreData } from "../score/data";
import { useSong } from "../store/song";
import { useView } from "../store/view";
import { ChordName } from "../ui/ChordName";

export function ChordsPanel({ data }: { data: ScoreData }) {
  const { edit, lineProblems, say } = useSong();
  const chordId = useView((s) => s.chord);
  const written = data.section.chords.length ? writeLine(data.section.chords, data.meter, data.section.bars) : "";
  const [draft, setDraft] = useState<string | null>(null);
  const [refused, setRefused] = useState<{ message: string; position?: number; hint?: string } | null>(null);
  // Another song, section or an undo shows what is stored.
  useEffect(() => {
    setDraft(null);
    setRefused(null);
  }, [data.section.id]);
  // One visit to the field is one step of undo, however many keys it took.
  const visited = useRef(false);
  const text = draft ?? written;
  const problems = draft === null ? [] : refused ? [refused] : lineProblems;
  const first = problems[0];

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
  const event = data.section.chords.find((c) => c.id === chordId);
  const parsed = event && event.symbol !== "N.C." ? parseChord(event.symbol) : null;
  const chord = parsed?.ok ? parsed.value : null;

  return (
    <>
      <h2>Chords, {data.section.name.toLowerCase()}</h2>
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
      {first && (
        <div className="line-problem" role="alert">
          {first.position !== undefined && (
            <pre aria-hidden="true">
              {text.slice(Math.max(0, first.position - 16), first.position + 12)}
              {"\n"}
              {" ".repeat(Math.min(first.position - 1, 15))}^
            </pre>
          )}
          {problems.slice(0, 4).map((p, i) => (
            <p key={i}>
              {p.message} <span className="small">{p.hint}</span>
            </p>
          ))}
          <p className="small">The rest of the line stands; what stood at these places before stays.</p>
        </div>
      )}
      <p id="line-help" className="small">
        Bars between <code>|</code>. Several chords share the bar: two halve it, three take 2+1+1 beats. <code>.</code> holds one more beat,{" "}
        <code>%</code> repeats the bar, <code>N.C.</code> is no chord.
      </p>
      <hr />
      {event && chord ? (
        <>
          <h3>
            <ChordName symbol={event.symbol} />
          </h3>
          <table className="measures">
            <tbody>
              {chord.tones.map((t) => (
                <tr key={t.role}>
                  <th scope="row">{ROLE_WORDS[t.role] ?? t.role}</th>
                  <td>{typeset(chordToneName(chord, mod(rootPc(chord) + t.semitones, 12)) ?? "")}</td>
                </tr>
              ))}
              {chord.bass && (
                <tr>
                  <th scope="row">bass</th>
                  <td>{typeset(chord.bass)}</td>
                </tr>
              )}
            </tbody>
          </table>
          <p className="small">Double click the symbol in the score, or press Enter on it, to write another.</p>
        </>
      ) : (
        <p className="small">Choose a chord in the score to see its notes.</p>
      )}
    </>
  );
}
