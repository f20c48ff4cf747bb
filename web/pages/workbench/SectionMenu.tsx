import Dropdown from "react-bootstrap/Dropdown";
import { Song, sure } from "../../../core/src/index";
import { move } from "../../app/commands/moves";
import { addSection, beyondText, removeSection, setBars } from "../../app/commands/sections";
import { showSection, useSelection } from "../../app/store/selection";
import { storedSong, useFieldsOfSong } from "../../app/store/song";
import { InPlace } from "../../kit/InPlace";
import { MoveSelect } from "../../kit/MoveSelect";
import { useNames } from "./names";
import { Select } from "../../kit/Select";

/** The section in view: chosen in a box that only chooses, and what can be done with it in a menu of its own. */
export function SectionMenu() {
  const id = useSelection((s) => s.section);
  const names = useNames();
  const { name, bars, beyond } = useFieldsOfSong((song) => {
    const section = Song.section(song, id);
    return { name: section?.name, bars: section?.bars, beyond: section && beyondText(section) };
  });
  if (name === undefined) return null;
  const whole = () => sure(Song.section(storedSong(), id));
  return (
    <span className="head-group sections">
      <Select label="Section" value={id} choices={names} set={showSection} />
      <InPlace
        label="Bars of this section"
        width={30}
        value={String(bars)}
        commit={(t) => setBars(id, Number(t))}
        suffix="bars"
      />
      <Dropdown>
        <Dropdown.Toggle
          as="button"
          type="button"
          className="quiet"
          aria-label="What to do with sections"
          title="Add, copy, delete sections"
        >
          <i className="bi-three-dots" />
        </Dropdown.Toggle>
        <Dropdown.Menu>
          {beyond && <Dropdown.ItemText className="small">{beyond}</Dropdown.ItemText>}
          <Dropdown.Item as="button" type="button" onClick={() => addSection()}>
            New section
          </Dropdown.Item>
          <Dropdown.Item as="button" type="button" onClick={() => addSection(whole())}>
            Copy {name}
          </Dropdown.Item>
          <Dropdown.Item as="button" type="button" disabled={names.length === 1} onClick={() => removeSection(whole())}>
            Delete {name}
          </Dropdown.Item>
          <Dropdown.Divider />
          <div className="lane-menu-fields">
            <MoveSelect
              label="Move the whole song along its scales"
              words="move the whole song"
              steps
              go={(by, said) => "steps" in by && move({ do: "shiftInScale", steps: by.steps }, `The song went ${said}`)}
            />
          </div>
        </Dropdown.Menu>
      </Dropdown>
    </span>
  );
}
