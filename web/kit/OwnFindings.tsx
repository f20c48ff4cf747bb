import { useResults } from "../app/store/results";
import type { SectionData } from "../app/store/sectionData";
import { FindingList } from "./FindingList";

/** What Check finds about one part. */
export function OwnFindings({ data, part }: { data: SectionData; part: string }) {
  const findings = useResults((s) => s.findings);
  const own = findings.filter((f) => f.where.parts.includes(part) && f.waived === undefined);
  if (!own.length) return null;
  return (
    <>
      <hr />
      <FindingList data={data} findings={own} all={findings} />
    </>
  );
}
