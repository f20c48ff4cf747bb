import Modal from "react-bootstrap/Modal";

const ROWS: [string, string][] = [
  ["Space", "play, stop"],
  ["← →", "previous, next note or chord in the lane"],
  ["↑ ↓", "one step of the chosen snap; Shift a semitone, Alt an octave"],
  ["Ctrl ← →", "move the note in time"],
  ["Shift ← →", "shorter, longer"],
  ["N", "new note after the chosen one"],
  ["Enter", "edit in place; in the drum grid: set or clear a hit"],
  ["Delete", "delete"],
  [".", "in the drum grid: make the kick a main accent, or not (Shift-click)"],
  ["Alt drag", "a drum hit off the grid, early or late"],
  ["+ −", "loudness of a drum hit; elsewhere zoom"],
  ["1–9", "hear a candidate"],
  ["A", "back and forth between candidate and what is written"],
  ["T", "take the candidate that is heard"],
  ["C", "to the chord line (Chords)"],
  ["I, V, R, O", "Voicings: next inversion of the chosen chord, style, higher register, instrument; with Shift back"],
  ["Shift ← →", "on a chord: choose a row of chords"],
  ["↑ ↓", "on a chord: along the scale, with Shift by semitones"],
  ["Tab", "while typing a chord: on to the next, past the end to a new bar"],
  ["P", "on a chord: pin it"],
  ["L", "loop on, off"],
  ["M, S", "mute, solo the lane of the chosen note"],
  ["Tab, F6", "next lane; between score and panel"],
  ["Ctrl Z, Ctrl Shift Z", "undo, redo"],
  ["?", "this list"],
];

export function Help({ show, close }: { show: boolean; close(): void }) {
  return (
    <Modal show={show} onHide={close} centered aria-labelledby="help-title">
      <Modal.Header closeButton>
        <Modal.Title id="help-title" as="h2">
          Keys
        </Modal.Title>
      </Modal.Header>
      <Modal.Body>
        <table className="measures">
          <tbody>
            {ROWS.map(([key, what]) => (
              <tr key={key}>
                <th scope="row">
                  <kbd>{key}</kbd>
                </th>
                <td>{what}</td>
              </tr>
            ))}
          </tbody>
        </table>
        <p className="small mt-3">
          Listening long? Keep headphones at a moderate level: NIOSH (98-126, 1998) recommends at most 85 dBA over eight hours, half the
          time for every 3 dB more. Local rules come first.
        </p>
      </Modal.Body>
    </Modal>
  );
}
