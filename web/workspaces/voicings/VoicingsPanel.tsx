import { Edit, type Part } from "../../../core/src/index";
import { useVoicePart } from "../../app/commands/voicings";
import type { SectionData } from "../../app/store/sectionData";
import { useSelection } from "../../app/store/selection";
import { edit } from "../../app/store/song";
import { PanelHead } from "../../kit/PanelHead";
import { Select } from "../../kit/Select";
import { Tabs, useTab, type Tab } from "../../kit/Tabs";
import { ChordTab } from "./ChordTab";
import { InstrumentTab } from "./InstrumentTab";
import { PartsTab } from "./PartsTab";
import { PathTab } from "./PathTab";
import "./style.scss";
import { Button } from "../../kit/Button";

const TABS: readonly Tab<{ data: SectionData; part: Part }>[] = [
  { id: "path", title: "Path", Tab: PathTab },
  { id: "chord", title: "Chord", Tab: ChordTab },
  { id: "parts", title: "Parts", Tab: PartsTab },
  { id: "instrument", title: "Instrument", Tab: InstrumentTab },
];

/** How each part lays the chords out. */
export function VoicingsPanel({ data }: { data: SectionData }) {
  const part = useVoicePart(data.song);
  const open = useTab("voicings", TABS);
  const parts = Edit.laidOutParts(data.song);
  if (!part)
    return (
      <>
        <PanelHead title="Voicings" />
        <p>No part of this song plays the chords yet.</p>
        <Button
          className="primary"
          onClick={() =>
            edit({
              do: "addPart",
              name: "Piano",
              role: "chords",
              instrument: "piano",
              link: { kind: "voicing", loop: true },
            })
          }
        >
          Add a piano that plays them
        </Button>
      </>
    );
  return (
    <>
      <PanelHead title={`Voicings, ${data.section.name.toLowerCase()}`}>
        {parts.length > 1 && (
          <Select
            label="Part"
            value={part.id}
            choices={parts.map((p) => [p.id, p.name])}
            set={(id) => useSelection.setState({ voicePart: id })}
          />
        )}
        <Tabs row="voicings" label="Voicings" tabs={TABS} />
      </PanelHead>
      <open.Tab key={part.id} data={data} part={part} />
    </>
  );
}
