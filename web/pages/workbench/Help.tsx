import Modal from "react-bootstrap/Modal";
import { usePreferences } from "../../app/store/preferences";

/** Where keys mean something. */
type Place = "anywhere" | "notes" | "chords" | "drums" | "offers" | "voicings";

interface Row {
  keys: string;
  what: string;
  /** How the same is done with the mouse. */
  mouse?: string;
}

const TITLES: Record<Place, string> = {
  anywhere: "Anywhere",
  notes: "On a note in a lane",
  chords: "On a chord",
  drums: "In the drum grid",
  offers: "What is offered in the panel",
  voicings: "In Voicings",
};

const ROWS: Record<Place, Row[]> = {
  offers: [
    { keys: "1–9", what: "hear one", mouse: "Hear" },
    { keys: "A", what: "back and forth between it and what is written" },
    { keys: "T", what: "take the one that is heard", mouse: "Take" },
    { keys: "Esc", what: "back to what is written" },
  ],
  notes: [
    { keys: "← →", what: "previous, next note", mouse: "click" },
    { keys: "↑ ↓", what: "one step of the chosen snap; Shift a semitone, Alt an octave", mouse: "drag" },
    { keys: "Ctrl ← →", what: "earlier, later", mouse: "drag" },
    { keys: "Ctrl Shift ← →", what: "shorter, longer", mouse: "drag the end" },
    { keys: "Shift ← →", what: "choose several; Ctrl A all", mouse: "Shift-drag a box" },
    { keys: "Ctrl C, X, V", what: "copy, cut, set down: where playing begins, or behind them" },
    { keys: "Ctrl D", what: "a copy right behind", mouse: "Alt-drag" },
    { keys: "W", what: "type words under the notes" },
    { keys: "N", what: "new note behind it", mouse: "click into the empty lane" },
    { keys: "Enter", what: "type its pitch", mouse: "above the lanes" },
    { keys: "Delete", what: "delete it" },
  ],
  chords: [
    { keys: "← →", what: "previous, next chord; Shift chooses a row of them", mouse: "click, Shift-click" },
    { keys: "↑ ↓", what: "along the scale; Shift by semitones" },
    { keys: "Enter", what: "type the symbol where it stands; Tab goes on to the next", mouse: "double-click" },
    { keys: "P", what: "pin it", mouse: "pin, in the panel" },
    { keys: "Ctrl A", what: "choose all" },
    { keys: "Delete", what: "delete it" },
  ],
  drums: [
    { keys: "arrows", what: "move; Shift by beats" },
    { keys: "Enter", what: "set or clear a hit", mouse: "click; drag paints a row" },
    { keys: "+ −", what: "louder, softer", mouse: "drag up or down" },
    { keys: ".", what: "make a kick a main accent, or not", mouse: "Shift-click; Accents in the panel" },
    { keys: "", what: "a hit a little early or late", mouse: "Alt-drag; Lanes in the panel" },
  ],
  voicings: [
    { keys: "I", what: "invert the chosen chord upwards; Shift downwards", mouse: "invert up, under Chord" },
    { keys: "V", what: "next style; Shift back" },
    { keys: "R", what: "higher register; Shift lower" },
    { keys: "O", what: "next instrument; Shift back" },
  ],
  anywhere: [
    { keys: "Space", what: "play, stop", mouse: "▶" },
    { keys: "Home", what: "play from the beginning again" },
    { keys: "L", what: "loop on, off", mouse: "drag in the ruler" },
    { keys: "Shift L", what: "the whole section again", mouse: "clear, beside loop" },
    { keys: "M, S", what: "mute, solo the part of the chosen note" },
    { keys: "Tab, F6", what: "next lane; between score and panel" },
    { keys: "+ −", what: "zoom" },
    { keys: "F", what: "the whole section in the window" },
    { keys: "J, K", what: "next, previous thing that was found", mouse: "in Check" },
    { keys: "C", what: "to the chord line, in Chords" },
    { keys: "Ctrl Z, Ctrl Shift Z", what: "undo, redo" },
    { keys: "?", what: "this list" },
  ],
};

/** What has the focus, so that its keys stand first. */
export function placeOfFocus(): Place {
  const at = document.activeElement;
  if (at?.closest("[data-note]")) return "notes";
  if (at?.closest("[data-chord]")) return "chords";
  if (at?.closest(".lane-svg.drums")) return "drums";
  return "offers";
}

/** What is possible here comes first: the keys of what has the focus, then those of the workspace. */
function placesFor(workspace: string, focus: Place, offers: boolean): Place[] {
  const here: Place[] = [
    focus,
    ...(offers ? (["offers"] as const) : []),
    ...(workspace === "voicings" ? (["voicings"] as const) : []),
  ];
  const bench: Record<string, Place[]> = { groove: ["drums"], chords: ["chords"], voicings: ["chords"] };
  const all = [...here, ...(bench[workspace] ?? ["notes"]), "anywhere", "notes", "chords", "drums"] as Place[];
  return [...new Set(all)].filter((p) => p !== "offers" || offers);
}

/** The list of keys, with the mouse's way beside each. */
export function Help({ workspace, focus, offers }: { workspace: string; focus: Place; offers: boolean }) {
  const close = () => usePreferences.setState({ help: false });
  return (
    <Modal show onHide={close} centered scrollable size="lg" aria-labelledby="help-title">
      <Modal.Header closeButton>
        <Modal.Title id="help-title" as="h2">
          Keys
        </Modal.Title>
      </Modal.Header>
      <Modal.Body>
        <div className="key-lists">
          {placesFor(workspace, focus, offers).map((place) => (
            <section key={place}>
              <h3>{TITLES[place]}</h3>
              <table className="measures keys">
                <tbody>
                  {ROWS[place].map(({ keys, what, mouse }) => (
                    <tr key={keys + what}>
                      <th scope="row">{keys && <kbd>{keys}</kbd>}</th>
                      <td>
                        {what}
                        {mouse && <span className="small"> ({mouse})</span>}
                      </td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </section>
          ))}
        </div>
        <p className="small mt-3">
          Listening long? Keep headphones at a moderate level: NIOSH (98-126, 1998) recommends at most 85 dBA over eight
          hours, half the time for every 3 dB more. Local rules come first.
        </p>
      </Modal.Body>
    </Modal>
  );
}
