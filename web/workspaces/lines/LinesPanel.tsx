import { lineHearings, lineParts, linePartOf } from "../../app/commands/lines";
import { clearLines } from "../../app/store/results";
import type { SectionData } from "../../app/store/sectionData";
import { useSelection } from "../../app/store/selection";
import { HeardWith } from "../../kit/HeardWith";
import { PanelHead } from "../../kit/PanelHead";
import type { PartProps } from "../../kit/partProps";
import { Select } from "../../kit/Select";
import { Tabs, useTab, type Tab } from "../../kit/Tabs";
import { EnterTab } from "./EnterTab";
import { ReportTab } from "./ReportTab";
import { RoomTab } from "./RoomTab";
import { SingersTab } from "./SingersTab";
import "./style.scss";
import { VoicesTab } from "./VoicesTab";
import { WordsTab } from "./WordsTab";
import { WriteTab } from "./WriteTab";

const TABS: readonly Tab<PartProps>[] = [
  { id: "enter", title: "Enter", Tab: EnterTab },
  { id: "words", title: "Words", Tab: WordsTab },
  { id: "report", title: "Report", Tab: ReportTab },
  { id: "answer", title: "Answer", Tab: WriteTab },
  { id: "voices", title: "Voices", Tab: VoicesTab },
  { id: "singers", title: "Singers", Tab: SingersTab },
  { id: "room", title: "Room", Tab: RoomTab },
];

/** The tune and what answers it: entered, given words, measured, answered, and given room. */
export function LinesPanel({ data }: { data: SectionData }) {
  const id = useSelection((s) => s.linePart);
  const open = useTab("lines", TABS);
  const lines = lineParts(data.song);
  const part = linePartOf(data.song, id);
  return (
    <>
      <PanelHead title={`Lines, ${data.section.name.toLowerCase()}`}>
        {lines.length > 1 && part && (
          <Select
            label="Line"
            value={part.id}
            choices={lines.map((p) => [p.id, p.name])}
            set={(chosen) => {
              useSelection.setState({ linePart: chosen });
              clearLines();
            }}
          />
        )}
        {part && (
          <>
            <HeardWith label="Hear the line" song={data.song} part={part.id} hearings={lineHearings(data.song)} />
            <Tabs row="lines" label="Lines" tabs={TABS} />
          </>
        )}
      </PanelHead>
      {part ? (
        <open.Tab key={part.id} data={data} part={part} />
      ) : (
        <p>There is no line yet: add a voice or a counter melody at the label of any lane.</p>
      )}
    </>
  );
}
