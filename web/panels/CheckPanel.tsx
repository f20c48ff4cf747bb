import { PROFILE_WORDS, PROFILES, type Profile } from "../../core/src/index";
import type { ScoreData } from "../score/data";
import { useSong } from "../store/song";
import { useView } from "../store/view";
import { FindingList } from "./FindingList";

export function CheckPanel({ data }: { data: ScoreData }) {
  const findings = useView((s) => s.findings);
  const edit = useSong((s) => s.edit);
  const open = findings.filter((f) => f.waived === undefined);
  const waived = findings.filter((f) => f.waived !== undefined);
  return (
    <>
      <h2>Check, {data.section.name.toLowerCase()}</h2>
      <div className="controls">
        <label>
          judged as{" "}
          <select value={data.song.profile} onChange={(e) => edit({ do: "setProfile", profile: e.target.value as Profile })}>
            {PROFILES.map((p) => (
              <option key={p} value={p}>
                {PROFILE_WORDS[p].title}
              </option>
            ))}
          </select>
        </label>
      </div>
      <p className="small">{PROFILE_WORDS[data.song.profile].assumes}</p>
      {open.length ? <FindingList data={data} findings={open} all={findings} /> : <p>Nothing to report in this section.</p>}
      {waived.length > 0 && (
        <>
          <h3>Left with a reason</h3>
          <FindingList data={data} findings={waived} all={findings} />
        </>
      )}
    </>
  );
}
