import FormControl from "react-bootstrap/FormControl";
import { useEffect, useRef, useState } from "react";
import { Meter, type NewNote, type Note, type Problem, Song, sure, Tune } from "../../../core/src/index";
import { useSelection } from "../../app/store/selection";
import { edit, say, useSong, useStored } from "../../app/store/song";
import { Fold } from "../../kit/Fold";
import { LineProblems } from "../../kit/LineProblems";
import { MidiFile } from "../../kit/MidiFile";
import type { PartProps } from "../../kit/partProps";
import { PlayTab } from "../../kit/PlayTab";
import { Select } from "../../kit/Select";
import { inBars } from "../../kit/texts";
import { useLate } from "../../kit/useLate";
import { Slider } from "../../kit/Slider";
import { Button } from "../../kit/Button";

/** Ways to get a line in: typed, played, from a file; drawing needs no tab. */
export function EnterTab({ data, part }: PartProps) {
  return (
    <>
      <Typed data={data} part={part} />
      <h3>Play it in</h3>
      <PlayTab data={data} part={part} />
      <Tighten data={data} part={part} />
      <Fold title="take a line from a MIDI file">
        <MidiFile data={data} only="melody" part={part.id} />
      </Fold>
      <p className="small">Or draw it: a press into the lane writes a note, and a drag to the right makes it longer.</p>
    </>
  );
}

/**
 * A note that stays as it is stays with all that is said of it; one that changes keeps its words, its loudness and its
 * pin.
 */
function withWhatItHad(n: NewNote, stored: readonly Note[]): NewNote & { id?: string } {
  const before = stored.find((m) => m.start === n.start);
  if (!before) return n;
  if (before.pitch === n.pitch && before.duration === n.duration) return before;
  const { id, velocity, lyrics, pinned } = before;
  return { ...n, id, velocity, ...(lyrics ? { lyrics } : {}), ...(pinned ? { pinned } : {}) };
}

const NONE: Note[] = [];

/** The line as text: every change that can be read is heard by the score. */
function Typed({ data, part }: PartProps) {
  const { section } = useStored(data.section.id);
  const { meter } = data;
  const stored = section.notes[part.id] ?? NONE;
  const { value: written, now } = useLate(`${section.id} ${part.id}`, stored, (notes) => {
    const line = Tune.write(notes, meter);
    return line === null ? null : inBars(line);
  });
  const [draft, setDraft] = useState<string | null>(null);
  const [problem, setProblem] = useState<Problem | null>(null);
  // One visit to the field is one step of undo, however many keys it took.
  const visited = useRef(false);
  useEffect(() => {
    setDraft(null);
    setProblem(null);
  }, [section.id, part.id]);
  const take = (text: string) => {
    setDraft(text);
    const read = Tune.parse(text, { meter });
    if (!read.ok) return setProblem(read.error);
    const notes = read.value.map((n) => withWhatItHad(n, stored));
    const fine = edit({ do: "setNotes", section: section.id, part: part.id, notes }, { quiet: visited.current });
    if (fine) visited.current = true;
    setProblem(fine ? null : useSong.getState().problem);
    say(null);
  };
  if (written === null && draft === null)
    return (
      <p className="small">The line has notes together or between the grid: it is changed in its lane, not as text.</p>
    );
  const text = draft ?? sure(written);
  return (
    <>
      <label className="block-label" htmlFor="tune">
        The line as text
      </label>
      <FormControl
        as="textarea"
        bsPrefix="field"
        id="tune"
        rows={4}
        spellCheck={false}
        autoComplete="off"
        value={text}
        aria-invalid={problem !== null}
        aria-describedby="tune-help"
        placeholder="E4 q F e G e A h | G q E r h"
        onChange={(e) => take(e.target.value)}
        onKeyDown={(e) => e.stopPropagation()}
        onFocus={() => {
          now();
          visited.current = false;
        }}
        onBlur={() => {
          now();
          if (!problem) setDraft(null);
        }}
      />
      {problem && (
        <LineProblems text={text} problems={[problem]} after="The line stays as it was until this can be read." />
      )}
      <p id="tune-help" className="small">
        A note and its length: <code>w h q e s t</code> are whole to thirty-second, <code>.</code> dots, <code>3</code>{" "}
        makes a triplet; a length holds for what follows. <code>r</code> rests, <code>_</code> holds on, <code>|</code>{" "}
        is checked.
      </p>
    </>
  );
}

/** Notes set on the grid later: the chosen ones, or all. */
function Tighten({ data, part }: PartProps) {
  const chosen = useSelection((s) => s.notes);
  const [grid, setGrid] = useState(Meter.EIGHTH);
  const [strength, setStrength] = useState(1);
  const { section } = useStored(data.section.id);
  const stored = section.notes[part.id] ?? [];
  const ids = chosen.part === part.id ? chosen.ids : [];
  const notes = ids.length > 1 ? stored.filter((n) => ids.includes(n.id)) : stored;
  if (!stored.length) return null;
  return (
    <Fold title="set it on the grid later">
      <div className="controls">
        <Select
          label="Grid"
          text="set on"
          value={grid}
          choices={[
            [Meter.QUARTER, "quarters"],
            [Meter.EIGHTH, "eighths"],
            [Meter.SIXTEENTH, "sixteenths"],
          ]}
          set={setGrid}
        />
        <Button
          onClick={() =>
            edit({
              do: "changeNotes",
              section: data.section.id,
              part: part.id,
              notes: Song.tighten(notes, { grid, strength }),
            })
          }
        >
          Set {ids.length > 1 ? `the ${notes.length} chosen notes` : "all notes"}
        </Button>
      </div>
      <Slider from="as played" to="on the grid" label="How strictly" value={strength} step={0.05} set={setStrength} />
    </Fold>
  );
}
