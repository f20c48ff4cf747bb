import { beatsText, pitchMidi, positionText } from "../../core/src/index";
import { soundNote } from "../audio/sound";
import { partOfReal, type ScoreData } from "../score/data";
import { useSong } from "../store/song";
import { useView, type Snap } from "../store/view";
import { InPlace } from "./InPlace";
import { typedPitch } from "./texts";

const GRIDS: [label: string, ticks: number][] = [
  ["¼", 480],
  ["⅛", 240],
  ["⅛ triplet", 160],
  ["1⁄16", 120],
];
const SNAPS: [Snap, string][] = [
  ["chord", "chord tones"],
  ["scale", "scale"],
  ["semitone", "semitones"],
];

/** How notes snap, and the chosen note: everything about it, edited in place. */
export function NoteStrip({ data }: { data: ScoreData }) {
  const { selected, snap, grid, names, set } = useView();
  const { edit, say } = useSong();
  const part = selected.ids.length ? data.song.parts.find((p) => p.id === selected.part) : undefined;
  const note = part && !part.link ? data.section.notes[part.id]?.find((n) => n.id === selected.ids[0]) : undefined;
  const change = (fields: object) =>
    edit({ do: "changeNotes", section: data.section.id, part: part!.id, notes: selected.ids.map((id) => ({ id, ...fields })) });
  const setPitch = (text: string) => {
    const name = typedPitch(text, say);
    if (!name) return false;
    void soundNote(part!.id, pitchMidi(name));
    return edit({ do: "changeNotes", section: data.section.id, part: part!.id, notes: [{ id: note!.id, pitch: name }] });
  };
  const following = note && part ? partOfReal(data, part.id).notes.find((n) => n.start > note.start) : undefined;
  return (
    <div className="strip-bar" role="toolbar" aria-label="Notes">
      <span className="group" role="group" aria-label="Pitch snaps to">
        {!note && <span className="muted">snap to</span>}
        {SNAPS.map(([id, label]) => (
          <button key={id} type="button" aria-pressed={snap === id} onClick={() => set({ snap: id })}>
            {label}
          </button>
        ))}
      </span>
      <span className="group" role="group" aria-label="Time grid">
        {GRIDS.map(([label, ticks]) => (
          <button key={ticks} type="button" aria-pressed={grid === ticks} onClick={() => set({ grid: ticks })}>
            {label}
          </button>
        ))}
      </span>
      {/* The chosen note needs the room: a strip that grew would move the score under the mouse. */}
      {!note && (
        <button type="button" aria-pressed={names} title="Note names instead of roles" onClick={() => set({ names: !names })}>
          note names
        </button>
      )}
      {note && part ? (
        <span className="group chosen">
          <span className="muted">
            {part.name.split(",")[0]}
            {selected.ids.length > 1 ? `, ${selected.ids.length} notes` : ""}
          </span>
          <label className="in-place strong">
            <span className="visually-hidden">Pitch</span>
            <PitchInput key={note.id + note.pitch} value={note.pitch} commit={setPitch} />
          </label>
          <span className="tabular">
            {positionText(data.meter, note.start)}, {beatsText(data.meter, note.duration)}
          </span>
          <InPlace
            label="Velocity, 1 to 127"
            width={30}
            value={String(note.velocity)}
            commit={(t) => change({ velocity: Number(t) })}
            suffix="vel"
          />
          <button
            type="button"
            aria-pressed={note.pinned ?? false}
            title="Pinned notes stay when lines are written"
            onClick={() => change({ pinned: !note.pinned })}
          >
            pin
          </button>
          {part.role === "bass" && following && (
            <button
              type="button"
              aria-pressed={note.slide !== undefined}
              title={`Glide into ${following.pitch}`}
              onClick={() => change({ slide: note.slide ? null : { kind: "glide", to: following.pitch } })}
            >
              glide
            </button>
          )}
          <button
            type="button"
            title="Delete"
            aria-label="Delete the note"
            onClick={() => {
              edit({ do: "removeNotes", section: data.section.id, part: part.id, notes: selected.ids });
              set({ selected: { part: "", ids: [] } });
            }}
          >
            <i className="bi-trash3" />
          </button>
        </span>
      ) : (
        <span className="muted hint">Click into a lane to write a note, drag to move it.</span>
      )}
    </div>
  );
}

function PitchInput({ value, commit }: { value: string; commit(text: string): boolean }) {
  return (
    <input
      id="note-pitch"
      title={`Pitch (MIDI ${pitchMidi(value)})`}
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
