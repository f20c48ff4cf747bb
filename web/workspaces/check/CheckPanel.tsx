import { PROFILE_WORDS, PROFILES, RULES } from "../../../core/src/index";
import { useResults } from "../../store/results";
import type { SectionData } from "../../store/sectionData";
import { edit } from "../../store/song";
import { FindingList } from "../../ui/FindingList";
import { PanelHead } from "../../ui/PanelHead";
import { Select } from "../../ui/Select";
import "./style.scss";

const count = (n: number): string => (n === 0 ? "Nothing to look at" : n === 1 ? "One thing to look at" : `${n} things to look at`);

/** Everything found in the section in a column of its own, most grave first. */
export function CheckPanel({ data }: { data: SectionData }) {
  const findings = useResults((s) => s.findings);
  const open = findings.filter((f) => f.waived === undefined);
  const waived = findings.filter((f) => f.waived !== undefined);
  const { profile } = data.song;
  return (
    <>
      <PanelHead title={count(open.length)}>
        <p className="small flush">
          {data.section.name}
          {waived.length > 0 && `, ${waived.length} left with a reason`}
        </p>
        <div className="controls">
          <Select
            label="Judged as"
            text="judged as"
            value={profile}
            choices={PROFILES.map((p) => [p, PROFILE_WORDS[p].title])}
            set={(p) => edit({ do: "setProfile", profile: p })}
          />
        </div>
        <p className="small flush assumes">{PROFILE_WORDS[profile].assumes}</p>
      </PanelHead>
      {open.length ? <FindingList data={data} findings={open} all={findings} /> : <Nothing data={data} />}
      {waived.length > 0 && (
        <>
          <h3>Left with a reason</h3>
          <FindingList data={data} findings={waived} all={findings} />
        </>
      )}
    </>
  );
}

/** What was looked at, where nothing was found. */
function Nothing({ data }: { data: SectionData }) {
  const heard = data.real.parts.filter((p) => p.notes.length || (p.role === "drums" && data.real.hits.length)).map((p) => p.name);
  if (!heard.length) return <p>There is nothing to check yet: no part has a note in {data.section.name}.</p>;
  return (
    <>
      <p>
        {heard.join(", ")} were checked against each other, the chords and the kick over {data.section.bars} bars by {RULES.length} rules.
        Nothing is worth a remark.
      </p>
      <details>
        <summary className="small">What was checked</summary>
        <ul className="plain-list small">
          {RULES.map((r) => (
            <li key={r.id} title={r.explanation}>
              {r.title}
            </li>
          ))}
        </ul>
      </details>
    </>
  );
}
