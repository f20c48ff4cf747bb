import { Check, Song } from "../../../core/src/index";
import { useResults } from "../../app/store/results";
import type { SectionData } from "../../app/store/sectionData";
import { edit } from "../../app/store/song";
import { PanelHead } from "../../kit/PanelHead";
import { Select } from "../../kit/Select";
import { Tabs, useTab, type Tab } from "../../kit/Tabs";
import { FindingsTab } from "./FindingsTab";
import { LayersTab } from "./LayersTab";
import { MomentTab } from "./MomentTab";
import { OverviewTab } from "./OverviewTab";
import "./style.scss";

const count = (checked: "yet" | "done" | "failed", n: number): string => {
  if (checked === "yet") return "Checking …";
  if (checked === "failed") return "Not checked";
  if (n === 0) return "Nothing to look at";
  if (n === 1) return "One thing to look at";
  return `${n} things to look at`;
};

const TABS: readonly Tab<{ data: SectionData }>[] = [
  { id: "findings", title: "Findings", Tab: FindingsTab },
  { id: "overview", title: "Overview", Tab: OverviewTab },
  { id: "moment", title: "Moment", Tab: MomentTab },
  { id: "layers", title: "Layers", Tab: LayersTab },
];

/**
 * Everything found in the section in a column of its own, most grave first; what sounds at one moment; what each part
 * brings.
 */
export function CheckPanel({ data }: { data: SectionData }) {
  const findings = useResults((s) => s.findings);
  const checked = useResults((s) => s.checked);
  const all = findings.filter((f) => f.waived === undefined);
  const waived = findings.length - all.length;
  const open = useTab("check", TABS);
  const { profile } = data.song;
  return (
    <>
      <PanelHead title={count(checked, all.length)}>
        <p className="small flush">
          {data.section.name}
          {waived > 0 && `, ${waived} left with a reason`}
        </p>
        <div className="controls">
          <Select
            label="Judged as"
            text="judged as"
            value={profile}
            choices={Song.PROFILES.map((p) => [p, Check.PROFILE_WORDS[p].title])}
            set={(p) => edit({ do: "setProfile", profile: p })}
          />
        </div>
        <p className="small flush assumes">{Check.PROFILE_WORDS[profile].assumes}</p>
        <Tabs row="check" label="Check" tabs={TABS} />
      </PanelHead>
      <open.Tab data={data} />
    </>
  );
}
