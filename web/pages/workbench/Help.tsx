import Table from "react-bootstrap/Table";
import Modal from "react-bootstrap/Modal";
import { usePreferences } from "../../app/store/preferences";
import type { Shortcut } from "../../kit/shortcuts";
import { CHORD_KEYS } from "../../score/chordKeys";
import { DRUM_KEYS } from "../../score/drumKeys";
import { NOTE_KEYS } from "../../score/noteKeys";
import { BENCH_KEYS, OFFER_KEYS, VOICING_KEYS } from "./benchKeys";

/** Where keys mean something. */
type Place = "anywhere" | "notes" | "chords" | "drums" | "offers" | "voicings";

const TITLES: Record<Place, string> = {
  anywhere: "Anywhere",
  notes: "On a note in a lane",
  chords: "On a chord",
  drums: "In the drum grid",
  offers: "What is offered in the panel",
  voicings: "In Voicings",
};

/** The very rows that the handlers run. */
const ROWS: Record<Place, readonly Pick<Shortcut<never>, "keys" | "what" | "mouse">[]> = {
  anywhere: BENCH_KEYS,
  notes: NOTE_KEYS,
  chords: CHORD_KEYS,
  drums: DRUM_KEYS,
  offers: OFFER_KEYS,
  voicings: VOICING_KEYS,
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
              <Table bsPrefix="measures" className="keys">
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
              </Table>
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
