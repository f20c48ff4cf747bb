import Dropdown from "react-bootstrap/Dropdown";
import { Comp, Figure, Text } from "../../core/src/index";
import { pasteAlongScale, pasteNotes, pasteRefitted, useClipboard } from "../app/commands/clipboard";
import { shapeNotes, strikeNotes } from "../app/commands/figures";
import type { NotePlace } from "../app/commands/notes";

/** Rhythms in which a held note is struck again. */
const RHYTHMS = ["beats", "driving", "offbeats", "backbeat", "long-short"];

/** Other values and loudness of the chosen notes, and what was copied set down in several ways. */
export function FigureMenu({ place, ids }: { place: NotePlace; ids: readonly string[] }) {
  const copied = useClipboard((s) => s.clip !== null);
  return (
    <Dropdown className="bars-menu">
      <Dropdown.Toggle
        as="button"
        type="button"
        className="quiet"
        aria-label="Figure"
        title="Figure: values, loudness, and what was copied"
      >
        <i className="bi-music-note-beamed" />
      </Dropdown.Toggle>
      <Dropdown.Menu popperConfig={{ strategy: "fixed" }} renderOnMount={false}>
        {Figure.SHAPES.map(({ id, title }) => (
          <Dropdown.Item key={id} as="button" type="button" onClick={() => shapeNotes(place, ids, id)}>
            {Text.capital(title)}
          </Dropdown.Item>
        ))}
        <Dropdown.Divider />
        {Comp.PATTERNS.filter((p) => RHYTHMS.includes(p.id)).map(({ id, title }) => (
          <Dropdown.Item key={id} as="button" type="button" onClick={() => strikeNotes(place, ids, id, title)}>
            Struck again: {title.toLowerCase()}
          </Dropdown.Item>
        ))}
        {copied && (
          <>
            <Dropdown.Divider />
            <Dropdown.Item as="button" type="button" onClick={() => pasteNotes(place, ids)}>
              Set down what was copied
            </Dropdown.Item>
            <Dropdown.Item as="button" type="button" onClick={() => pasteRefitted(place, ids)}>
              … refitted to the chords there
            </Dropdown.Item>
            <Dropdown.Item as="button" type="button" onClick={() => pasteAlongScale(place, ids)}>
              … moved along the scale
            </Dropdown.Item>
          </>
        )}
      </Dropdown.Menu>
    </Dropdown>
  );
}
