import type { SectionData } from "../../app/store/sectionData";
import { PanelHead } from "../../kit/PanelHead";
import { Tabs, useTab, type Tab } from "../../kit/Tabs";
import { JoinTab } from "./JoinTab";
import { LogTab } from "./LogTab";
import { TakesTab } from "./TakesTab";
import "./style.scss";

interface Props {
  data: SectionData;
}

const TABS: readonly Tab<Props>[] = [
  { id: "log", title: "Log", Tab: LogTab },
  { id: "takes", title: "Takes", Tab: TakesTab },
  { id: "join", title: "Bar by bar", Tab: JoinTab },
];

/** What was tried, decided and agreed, and the takes that were kept of it. */
export function LogPanel({ data }: Props) {
  const open = useTab("log", TABS);
  return (
    <>
      <PanelHead title="Log">
        <Tabs row="log" label="Log" tabs={TABS} />
      </PanelHead>
      <open.Tab data={data} />
    </>
  );
}
