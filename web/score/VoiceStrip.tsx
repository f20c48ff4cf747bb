import { Comp, type Part, Pitch, Text } from "../../core/src/index";
import { soundNote } from "../app/audio/sound";
import { addVoices, changeNotes, notesNow, removeNotes, strikeAgain, type NotePlace } from "../app/commands/notes";
import { usePreferences } from "../app/store/preferences";
import type { SectionData } from "../app/store/sectionData";
import { chooseNoNotes, chooseNotes } from "../app/store/selection";
import { edit, say } from "../app/store/song";
import { Button } from "../kit/Button";
import { InPlace } from "../kit/InPlace";
import { Switches } from "../kit/Switches";
import { typedPitch } from "../kit/texts";

interface Props {
  data: SectionData;
  part: Part;
  ids: readonly string[];
}

/** Chosen voices of a chord, of a part that plays the chords: what is changed of them, and for how long. */
export function VoiceStrip({ data, part, ids }: Props) {
  const of = usePreferences((s) => s.voicesOf);
  const place: NotePlace = { section: data.section.id, part: part.id };
  const [first] = Comp.notes(data.song, data.section, part).filter((n) => n.note.id === ids[0]);
  const event = data.section.chords.find((c) => c.id === first?.chordId);
  if (!first || !event) return null;
  const { note } = first;
  const chosen = () => notesNow(place).filter((n) => ids.includes(n.id));
  const setPitch = (text: string): boolean => {
    const name = typedPitch(text, say);
    if (!name) return false;
    void soundNote(part.id, Pitch.midi(name));
    return changeNotes(place, [{ id: note.id, pitch: name }]);
  };
  const double = (octaves: 1 | -1) => {
    const added = addVoices(
      place,
      chosen().map((n) => ({ ...n, pitch: Pitch.name(n.midi + 12 * octaves, Pitch.note(n.pitch)) })),
    );
    if (added.length) chooseNotes(part.id, added);
  };
  const strokes = event.voicings?.[part.id]?.strokes ?? [];
  const at = (first.stroke ?? note.start) - event.start;
  return (
    <span
      className="group chosen voices"
      aria-label={`${Text.counted(ids.length, "voice")} of ${Pitch.typeset(event.symbol)}, ${part.name}`}
      role="group"
    >
      <InPlace label="Pitch of the voice" width={42} value={Pitch.typeset(note.pitch)} commit={setPitch} />
      <Switches
        label="What is changed"
        value={of}
        choices={[
          ["chord", "every stroke"],
          ["stroke", "this stroke"],
        ]}
        set={(voicesOf) => usePreferences.setState({ voicesOf })}
      />
      <span className="stepper" role="group" aria-label="Double the voice">
        <Button title="Double it an octave lower" onClick={() => double(-1)}>
          8vb
        </Button>
        <Button title="Double it an octave higher" onClick={() => double(1)}>
          8va
        </Button>
      </span>
      <Button
        title="Struck once more in the second half of its length, in this stroke"
        onClick={() => strikeAgain(place, ids)}
      >
        once more
      </Button>
      {strokes.some((s) => s.at === at) && (
        <Button
          title="This stroke as the layout and the rhythm make it"
          onClick={() =>
            edit({ do: "setStrokes", ...place, chord: event.id, strokes: strokes.filter((s) => s.at !== at) })
          }
        >
          as written
        </Button>
      )}
      <Button
        className="quiet"
        title="Take the voice out"
        aria-label="Take the voice out"
        onClick={() => {
          if (removeNotes(place, [...ids])) chooseNoNotes();
        }}
      >
        <i className="bi-trash3" />
      </Button>
    </span>
  );
}
