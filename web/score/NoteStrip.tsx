import FormControl from "react-bootstrap/FormControl";
import { Meter, type Note, type Part, Pitch, Song, Text } from "../../core/src/index";
import { soundNote } from "../app/audio/sound";
import { move } from "../app/commands/moves";
import { changeNotes, removeNotes, type NoteChange } from "../app/commands/notes";
import { usePreferences } from "../app/store/preferences";
import { partOfReal, type SectionData } from "../app/store/sectionData";
import { chooseNoNotes, useSelection } from "../app/store/selection";
import { say } from "../app/store/song";
import { InPlace } from "../kit/InPlace";
import { MoveSelect } from "../kit/MoveSelect";
import { BarsMenu } from "./BarsMenu";
import { FigureMenu } from "./FigureMenu";
import { VoiceStrip } from "./VoiceStrip";
import { Switches } from "../kit/Switches";
import { typedPitch } from "../kit/texts";
import { Toggle } from "../kit/Toggle";
import { Button } from "../kit/Button";

/** How notes snap, and the chosen note: everything about it, edited in place. */
export function NoteStrip({ data }: { data: SectionData }) {
  const chosen = useSelection((s) => s.notes);
  const snap = usePreferences((s) => s.snap);
  const grid = usePreferences((s) => s.grid);
  const names = usePreferences((s) => s.names);
  const part = chosen.ids.length ? data.song.parts.find((p) => p.id === chosen.part) : undefined;
  const note =
    part && Song.isWritten(part) ? data.section.notes[part.id]?.find((n) => n.id === chosen.ids[0]) : undefined;
  return (
    <div className="strip-bar" role="toolbar" aria-label="Notes">
      <Switches
        label="Pitch snaps to"
        value={snap}
        choices={[
          ["chord", "chord tones"],
          ["scale", "scale"],
          ["semitone", "semitones"],
        ]}
        set={(s) => usePreferences.setState({ snap: s })}
      />
      <Switches
        label="Time grid"
        value={grid}
        choices={[
          [Meter.QUARTER, "¼"],
          [Meter.EIGHTH, "⅛"],
          [Meter.EIGHTH_TRIPLET, "⅛ triplet"],
          [Meter.SIXTEENTH, "1⁄16"],
        ]}
        set={(g) => usePreferences.setState({ grid: g })}
      />
      <Button
        className="toggle names"
        aria-pressed={names}
        title="Note names instead of roles"
        onClick={() => usePreferences.setState({ names: !names })}
      >
        note names
      </Button>
      {note && part && <ChosenNote data={data} part={part} note={note} ids={chosen.ids} />}
      {part?.link && <VoiceStrip data={data} part={part} ids={chosen.ids} />}
      {!part && <BarsMenu data={data} />}
      {!part && <span className="muted hint">Click writes, drag moves, Shift-drag chooses several.</span>}
    </div>
  );
}

/** Pitch, place, loudness, pin and glide of the chosen note. */
function ChosenNote({ data, part, note, ids }: { data: SectionData; part: Part; note: Note; ids: string[] }) {
  const place = { section: data.section.id, part: part.id };
  const change = (fields: Omit<NoteChange, "id">) =>
    changeNotes(
      place,
      ids.map((id) => ({ id, ...fields })),
    );
  const setPitch = (text: string): boolean => {
    const name = typedPitch(text, say);
    if (!name) return false;
    void soundNote(part.id, Pitch.midi(name));
    return changeNotes(place, [{ id: note.id, pitch: name }]);
  };
  const following = partOfReal(data, part.id).notes.find((n) => n.start > note.start);
  return (
    <span className="group chosen">
      <span className="muted">
        {part.name.split(",")[0]}
        {ids.length > 1 ? `, ${ids.length} notes` : ""}
      </span>
      <label className="in-place strong">
        <span className="visually-hidden">Pitch</span>
        <PitchInput key={note.id + note.pitch} value={note.pitch} commit={setPitch} />
      </label>
      <span className="tabular">
        {Meter.position(data.meter, note.start)}, {Meter.beats(data.meter, note.duration)}
      </span>
      <InPlace
        label="Velocity, 1 to 127"
        width={34}
        value={String(note.velocity)}
        commit={(t) => change({ velocity: Number(t) })}
        suffix="vel"
      />
      <Toggle
        on={note.pinned ?? false}
        title="Pinned notes stay when lines are written"
        press={() => change({ pinned: !note.pinned })}
      >
        pin
      </Toggle>
      {part.role === "bass" && following && (
        <Toggle
          on={note.slide !== undefined}
          title={`Glide into ${following.pitch}`}
          press={() => change({ slide: note.slide ? null : { kind: "glide", to: following.pitch } })}
        >
          glide
        </Toggle>
      )}
      <FigureMenu place={place} ids={ids} />
      <MoveSelect
        label={ids.length > 1 ? `Move ${ids.length} notes` : "Move the note"}
        go={(by, said) =>
          move(
            { do: "transposePart", ...place, notes: ids, ...by },
            `${Text.counted(ids.length, "note")} of ${part.name} went ${said}`,
          )
        }
      />
      <Button
        className="quiet"
        title="Delete"
        aria-label="Delete the note"
        onClick={() => {
          removeNotes(place, ids);
          chooseNoNotes();
        }}
      >
        <i className="bi-trash3" />
      </Button>
    </span>
  );
}

function PitchInput({ value, commit }: { value: string; commit(text: string): boolean }) {
  return (
    <FormControl
      bsPrefix="field"
      id="note-pitch"
      title={`Pitch (MIDI ${Pitch.midi(value)})`}
      defaultValue={value}
      style={{ width: 42 }}
      onBlur={(e) => {
        if (e.target.value !== value && !commit(e.target.value.trim())) e.target.value = value;
      }}
      onKeyDown={(e) => {
        e.stopPropagation();
        if (e.key === "Enter" || e.key === "Escape") {
          if (e.key === "Escape") e.currentTarget.value = value;
          e.currentTarget.blur();
        }
      }}
    />
  );
}
