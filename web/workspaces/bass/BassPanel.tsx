import { BASS_HEARINGS, bassParts, useBassPart } from "../../app/commands/bass";
import { clearLines, useResults } from "../../app/store/results";
import type { SectionData } from "../../app/store/sectionData";
import { useSelection } from "../../app/store/selection";
import { HeardWith } from "../../kit/HeardWith";
import { PanelHead } from "../../kit/PanelHead";
import { Select } from "../../kit/Select";
import { Tabs, useTab, type Tab } from "../../kit/Tabs";
import type { PartProps } from "../../kit/partProps";
import { LayersTab } from "./LayersTab";
import { PlayTab } from "../../kit/PlayTab";
import { ReportTab } from "./ReportTab";
import { ShapeTab } from "./ShapeTab";
import "./style.scss";
import { WriteTab } from "./WriteTab";

const TABS: readonly Tab<PartProps>[] = [
  { id: "write", title: "Write", Tab: WriteTab },
  { id: "report", title: "Report", Tab: ReportTab },
  { id: "shape", title: "Shape", Tab: ShapeTab },
  { id: "layers", title: "Layers", Tab: LayersTab },
  { id: "play in", title: "Play in", Tab: PlayTab },
];

/** The bench of the bass: lines written and measured against chord tones, kick and tune. */
export function BassPanel({ data }: { data: SectionData }) {
  const part = useBassPart(data.song);
  const open = useTab("bass", TABS);
  const verdict = useResults((s) => s.report);
  if (!part)
    return (
      <>
        <PanelHead title="Bass" />
        <p>This song has no bass part. Add one at the label of any lane.</p>
      </>
    );
  const all = bassParts(data.song);
  const mine = verdict?.part === part.id && verdict.report.notes > 0;
  const short = mine ? verdict.measures.filter((m) => m.met === false).length : 0;
  return (
    <>
      <PanelHead title={`Bass, ${data.section.name.toLowerCase()}`}>
        {all.length > 1 && (
          <Select
            label="Bass part"
            value={part.id}
            choices={all.map((p) => [p.id, p.name])}
            set={(id) => {
              useSelection.setState({ bassPart: id });
              clearLines();
            }}
          />
        )}
        <HeardWith label="Hear the bass" song={data.song} part={part.id} hearings={BASS_HEARINGS} />
        <Tabs
          row="bass"
          label="Bass"
          tabs={TABS}
          mark={(id) => id === "report" && short > 0 && <sup aria-label={`${short} off the target`}>{short}</sup>}
        />
      </PanelHead>
      <open.Tab key={part.id} data={data} part={part} />
    </>
  );
}
