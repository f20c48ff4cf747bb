import FormControl from "react-bootstrap/FormControl";
import { useEffect, useMemo, useState } from "react";
import { type Edit, nth, type Stress, type Syllable, Text, Words as TheWords } from "../../../core/src/index";
import { acceptEdit, auditionEdit } from "../../app/commands/audition";
import { layEdit, proposedNotes } from "../../app/commands/words";
import { usePreferences } from "../../app/store/preferences";
import { chooseNotes, useSelection } from "../../app/store/selection";
import { edit, useStored } from "../../app/store/song";
import { HearTake } from "../../kit/HearTake";
import { workers } from "../../app/workers/sync";
import { LANGUAGES, type Language } from "../../app/workers/wordBook";
import type { PartProps } from "../../kit/partProps";
import { Select } from "../../kit/Select";
import { Button } from "../../kit/Button";

/** A text in syllables; what is shown while another one is worked out is the one before. */
function useSyllables(text: string, language: Language): Syllable[][] {
  const [lines, setLines] = useState<Syllable[][]>([]);
  useEffect(() => {
    let wanted = true;
    void workers.writer.syllables(text, language).then((found) => wanted && setLines(found));
    return () => {
      wanted = false;
    };
  }, [text, language]);
  return lines;
}

/** Most verses of a note. */
const VERSES = 6;

/** Words: under notes that stand, or first, with a rhythm proposed for them. */
export function WordsTab({ data, part }: PartProps) {
  const { section } = useStored(data.section.id);
  const verse = usePreferences((s) => s.verse);
  const notes = section.notes[part.id] ?? [];
  const stored = TheWords.text(notes, verse);
  const [language, setLanguage] = useState<Language>("en-us");
  const [draft, setDraft] = useState<string | null>(null);
  const [stresses, setStresses] = useState<Record<string, Stress>>({});
  useEffect(() => setDraft(null), [section.id, part.id, verse]);
  const text = draft ?? "";
  const divided = useSyllables(text, language);
  const lines = useMemo(
    () =>
      divided.map((line, i) =>
        line.map((s, k): Syllable => ({ ...s, stress: stresses[`${i}:${k}:${s.text}`] ?? s.stress })),
      ),
    [divided, stresses],
  );
  return (
    <>
      <div className="controls">
        <Select
          label="Verse"
          text="verse"
          value={verse}
          choices={Array.from(
            { length: Math.min(VERSES, Math.max(TheWords.verses(notes) + 1, verse + 1)) },
            (_, i): [number, string] => [i, String(i + 1)],
          )}
          set={(n) => usePreferences.setState({ verse: n })}
        />
        <Select label="Language" text="in" value={language} choices={LANGUAGES} set={setLanguage} />
      </div>
      {stored ? (
        <p className="lyric-line">{stored.replace(/_/g, " _").replace(/- /g, "-")}</p>
      ) : (
        <p className="small">No words yet in this verse.</p>
      )}
      <p className="small">
        Choose a note in the lane and press <kbd>W</kbd>: words go under the notes as you type, space or hyphen goes on,{" "}
        <kbd>_</kbd> holds.
      </p>
      <label className="block-label" htmlFor="words">
        Or write or paste them here, a line of the song in each line
      </label>
      <FormControl
        as="textarea"
        bsPrefix="field"
        id="words"
        rows={4}
        value={text}
        placeholder="Lanterns hang above the row"
        onChange={(e) => setDraft(e.target.value)}
        onKeyDown={(e) => e.stopPropagation()}
      />
      {lines.length > 0 && (
        <>
          <Syllables lines={lines} set={(id, stress) => setStresses({ ...stresses, [id]: stress })} />
          <p className="small">Press a syllable to change its stress; type a hyphen in a word to divide it your way.</p>
          <Lay data={data} part={part} lines={lines} />
          <Propose data={data} part={part} lines={lines} />
        </>
      )}
    </>
  );
}

interface Words extends PartProps {
  lines: readonly (readonly Syllable[])[];
}

/** Lays the words under the notes that stand, from the chosen one on. */
function Lay({ data, part, lines }: Words) {
  const { section } = useStored(data.section.id);
  const verse = usePreferences((s) => s.verse);
  const chosen = useSelection((s) => s.notes);
  const notes = section.notes[part.id] ?? [];
  const line = TheWords.sung(notes);
  if (!line.length) return null;
  const syllables = lines.flat();
  const from =
    chosen.part === part.id
      ? Math.max(
          0,
          line.findIndex((n) => n.id === chosen.ids[0]),
        )
      : 0;
  const laid = layEdit(section, part.id, syllables.map(TheWords.written), { from, verse });
  return (
    <>
      <p className="controls">
        <Button className="primary" onClick={() => edit(laid.edit) && chooseNotes(part.id, [nth(line, from).id])}>
          Lay under the notes{from ? ` from note ${from + 1}` : ""}
        </Button>
      </p>
      <p className="small">
        {Text.counted(syllables.length, "syllable")} for {Text.counted(line.length - from, "note")}
        {laid.left.length ? `; ${Text.counted(laid.left.length, "syllable")} would find no note` : ""}.
      </p>
    </>
  );
}

/** A rhythm for words that come first. */
function Propose({ data, part, lines }: Words) {
  const { song, section } = useStored(data.section.id);
  const verse = usePreferences((s) => s.verse);
  const there = (section.notes[part.id] ?? []).length > 0;
  const { notes, left } = useMemo(
    () => proposedNotes(song, section, part, { lines, verse }),
    [song, section, part, lines, verse],
  );
  const change: Edit = { do: "setNotes", section: section.id, part: part.id, notes };
  return (
    <div className="offer-head">
      <span>
        {there ? "A new rhythm for the words" : "A rhythm for the words"}
        <span className="small">
          {" "}
          {Text.counted(notes.length, "note")}, stresses on strong beats
          {left ? `; ${Text.counted(left, "syllable")} would not fit the section` : ""}
          {there ? ". What the part has here gives way" : ""}
        </span>
      </span>
      <HearTake
        id="words"
        name="the rhythm for the words"
        disabled={!notes.length}
        hear={() => auditionEdit(change, "a rhythm for the words", "words", { from: 0, to: data.length })}
        take={() => acceptEdit(change)}
      />
    </div>
  );
}

const NEXT: Record<Stress, Stress> = { 0: 2, 2: 1, 1: 0 };
const SAID: Record<Stress, string> = { 0: "not stressed", 1: "a little stressed", 2: "stressed" };

/** Lines of words in syllables; a press goes from one stress to the next. */
function Syllables({ lines, set }: { lines: readonly (readonly Syllable[])[]; set(id: string, stress: Stress): void }) {
  return (
    <div className="syllables" role="group" aria-label="Syllables">
      {lines.map((line, i) => (
        <p key={i}>
          {line.map((s, k) => (
            <Button
              key={k}
              className={`syllable stress-${s.stress}`}
              aria-label={`${s.text}, ${SAID[s.stress]}`}
              onClick={() => set(`${i}:${k}:${s.text}`, NEXT[s.stress])}
            >
              {s.text}
              {s.goesOn ? "-" : ""}
            </Button>
          ))}
        </p>
      ))}
    </div>
  );
}
