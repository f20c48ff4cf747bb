import Dropdown from "react-bootstrap/Dropdown";
import { Instrument, type Part, Pitch, Song } from "../../core/src/index";
import { move } from "../app/commands/moves";
import { addPart, moveEdit, NEW_PARTS, removePart } from "../app/commands/parts";
import { setInstrument } from "../app/commands/voicings";
import type { LaneData } from "./laneData";
import { edit, useStored } from "../app/store/song";
import { InPlace } from "../kit/InPlace";
import { MoveSelect } from "../kit/MoveSelect";
import { Select } from "../kit/Select";

/**
 * What can be done with a part, at its own label: its name and instrument, its place among the others, more parts, and
 * away with it.
 */
export function LaneMenu({ section, part }: { section: LaneData["section"]; part: Part }) {
  return (
    <Dropdown autoClose="outside" className="lane-menu">
      <Dropdown.Toggle
        as="button"
        type="button"
        aria-label={`change ${part.name}`}
        title="Name, instrument, place, more parts"
      >
        <i className="bi-three-dots" />
      </Dropdown.Toggle>
      <Dropdown.Menu popperConfig={{ strategy: "fixed" }} renderOnMount={false}>
        <Items section={section} part={part} />
      </Dropdown.Menu>
    </Dropdown>
  );
}

function Items({ section, part }: { section: LaneData["section"]; part: Part }) {
  const { song } = useStored(section.id);
  // The song is ahead of the lanes: a part that was just removed has no place in it any more.
  if (!Song.part(song, part.id)) return null;
  const instruments = Instrument.forRole(song).filter((i) => i.roles.includes(part.role));
  const [up, down] = [moveEdit(song.parts, part.id, -1), moveEdit(song.parts, part.id, 1)];
  return (
    <>
      <div className="lane-menu-fields">
        <InPlace
          label={`Name of ${part.name}`}
          value={part.name}
          width={150}
          commit={(name) => edit({ do: "setPart", part: part.id, name })}
        />
        {instruments.length > 1 && (
          <Select
            label={`Instrument of ${part.name}`}
            text="on"
            value={part.instrument}
            choices={instruments.map((i) => [i.id, Pitch.typesetAll(i.title)])}
            set={(id) => setInstrument(part.id, id)}
          />
        )}
        {Song.isWritten(part) && (
          <>
            <MoveSelect
              label={`Move the notes of ${part.name} in ${section.name}`}
              words={`move its notes in ${section.name}`}
              go={(by, said) =>
                move(
                  { do: "transposePart", part: part.id, section: section.id, ...by },
                  `${part.name} went ${said} in ${section.name}`,
                )
              }
            />
            <MoveSelect
              label={`Move the notes of ${part.name} in all sections`}
              words="move its notes everywhere"
              go={(by, said) =>
                move({ do: "transposePart", part: part.id, ...by }, `${part.name} went ${said} in all sections`)
              }
            />
          </>
        )}
      </div>
      <Dropdown.Divider />
      <Dropdown.Item as="button" type="button" disabled={!up} onClick={() => up && edit(up)}>
        Move up
      </Dropdown.Item>
      <Dropdown.Item as="button" type="button" disabled={!down} onClick={() => down && edit(down)}>
        Move down
      </Dropdown.Item>
      <Dropdown.Divider />
      {NEW_PARTS.map(({ role, title }) => (
        <Dropdown.Item key={role} as="button" type="button" onClick={() => addPart(role)}>
          Add {title}
        </Dropdown.Item>
      ))}
      <Dropdown.Divider />
      <Dropdown.Item as="button" type="button" onClick={() => removePart(part.id)}>
        Remove {part.name}
      </Dropdown.Item>
    </>
  );
}
