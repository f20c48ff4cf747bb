import { Meter } from "../../../core/src/index";
import { usePreferences } from "../../app/store/preferences";
import type { SectionData } from "../../app/store/sectionData";
import { MidiFile } from "../../kit/MidiFile";
import { PanelHead } from "../../kit/PanelHead";
import { Select } from "../../kit/Select";
import { Tabs, useTab, type Tab } from "../../kit/Tabs";
import { AccentsTab } from "./AccentsTab";
import { DrumPlay } from "./DrumPlay";
import { LaneTab } from "./LaneTab";
import { Patterns } from "./Patterns";
import "./style.scss";

interface Props {
  data: SectionData;
}

const FromFile = ({ data }: Props) => (
  <>
    <p className="small">
      Drums of a Standard MIDI File: choose track and channel, the bars, and the lane of every drum note.
    </p>
    <MidiFile data={data} only="drums" />
  </>
);

const TABS: readonly Tab<Props>[] = [
  { id: "patterns", title: "Patterns", Tab: Patterns },
  { id: "lanes", title: "Lanes", Tab: LaneTab },
  { id: "accents", title: "Accents", Tab: AccentsTab },
  { id: "play in", title: "Play in", Tab: DrumPlay },
  { id: "file", title: "File", Tab: FromFile },
];

/** The bench of the groove: drums painted, taken from patterns or played in, and what agrees with them. */
export function GroovePanel({ data }: Props) {
  const grid = usePreferences((s) => s.drumGrid);
  const open = useTab("groove", TABS);
  return (
    <>
      <PanelHead title={`Groove, ${data.section.name.toLowerCase()}`}>
        <div className="controls">
          <Select
            label="Steps of the grid"
            text="steps are"
            value={grid}
            choices={[
              [Meter.SIXTEENTH, "sixteenths"],
              [Meter.EIGHTH, "eighths"],
              [Meter.EIGHTH_TRIPLET, "eighth triplets"],
              [Meter.SIXTEENTH_TRIPLET, "sixteenth triplets"],
              [Meter.THIRTY_SECOND, "thirty-seconds"],
            ]}
            set={(drumGrid) => usePreferences.setState({ drumGrid })}
          />
        </div>
        <Tabs row="groove" label="Groove" tabs={TABS} />
      </PanelHead>
      <open.Tab data={data} />
    </>
  );
}
