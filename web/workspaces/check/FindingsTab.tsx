import Alert from "react-bootstrap/Alert";
import Table from "react-bootstrap/Table";
import { useState } from "react";
import { Link } from "react-router";
import { download, fileName } from "../../app/commands/files";
import { Check, type Family, type Finding, type Severity } from "../../../core/src/index";
import { checkAgain } from "../../app/store/analysis";
import { useResults } from "../../app/store/results";
import type { SectionData } from "../../app/store/sectionData";
import { edit } from "../../app/store/song";
import { Fold } from "../../kit/Fold";
import { FindingList } from "../../kit/FindingList";
import { Select } from "../../kit/Select";
import { SafeFixes } from "./SafeFixes";
import { Waivers } from "./Waivers";
import { Button } from "../../kit/Button";
import { Toggle } from "../../kit/Toggle";

/** What was found in the section, the gravest first, with what can be done about it. */
export function FindingsTab({ data }: { data: SectionData }) {
  const told = useResults((s) => s.findings);
  const checked = useResults((s) => s.checked);
  const [strict, setStrict] = useState(false);
  const findings = strict ? Check.habitsJudged(told) : told;
  const [filter, setFilter] = useState<Filter>(NO_FILTER);
  const all = findings.filter((f) => f.waived === undefined);
  const open = all.filter((f) => passes(f, filter));
  const waived = findings.filter((f) => f.waived !== undefined);
  if (checked !== "done") return <Unchecked failed={checked === "failed"} name={data.section.name} />;
  return (
    <>
      {told.some((f) => f.habit) && (
        <p className="controls">
          <Toggle
            on={strict}
            press={() => setStrict(!strict)}
            title="What happens nearly always is taken as meant and told once, as a note"
          >
            Judge habits too
          </Toggle>
        </p>
      )}
      {all.length > 3 && <Filters data={data} findings={all} filter={filter} set={setFilter} />}
      {open.length > 0 && (
        <>
          <SafeFixes key={open.map((f) => f.id).join()} data={data} findings={open} />
          <FindingList data={data} findings={open} all={findings} />
        </>
      )}
      {!open.length && (all.length ? <p>Nothing of this kind.</p> : <Nothing data={data} />)}
      {waived.length > 0 && (
        <>
          <h3>Left with a reason</h3>
          <FindingList data={data} findings={waived} all={findings} />
        </>
      )}
      {data.song.waivers.length > 0 && (
        <Fold title={`left with a reason in this song: ${data.song.waivers.length}`}>
          <Waivers song={data.song} />
        </Fold>
      )}
      <Fold title="how grave each rule is in this song">
        <Weights data={data} />
      </Fold>
      <Fold title="take the list with you">
        <TakeAway data={data} />
      </Fold>
    </>
  );
}

/** Nothing is said of a section that was not looked at. */
function Unchecked({ failed, name }: { failed: boolean; name: string }) {
  if (!failed) return <p role="status">{name} is being checked …</p>;
  return (
    <Alert bsPrefix="problem" variant="" transition={false}>
      {name} could not be checked. What is found is not known. <Button onClick={checkAgain}>Check again</Button>
    </Alert>
  );
}

/** The findings of the whole song as files. */
function TakeAway({ data: { song } }: { data: SectionData }) {
  return (
    <>
      <p className="small">Everything found in all sections, with places and ways out: as a table, or as data.</p>
      <p className="controls">
        <Button onClick={() => download(fileName(song, "findings.csv"), Check.csv(Check.report(song)), "text/csv")}>
          Table (CSV)
        </Button>
        <Button
          onClick={() =>
            download(fileName(song, "findings.json"), JSON.stringify(Check.report(song), null, 2), "application/json")
          }
        >
          Data (JSON)
        </Button>
        <Link to={`/songs/${song.id}/report`}>To print</Link>
      </p>
    </>
  );
}

interface Filter {
  part: string;
  family: Family | "";
  severity: Severity | "";
}
const NO_FILTER: Filter = { part: "", family: "", severity: "" };

const passes = (f: Finding, { part, family, severity }: Filter): boolean =>
  (!part || f.where.parts.includes(part)) && (!family || f.family === family) && (!severity || f.severity === severity);

/** Shows findings of a part, a family or a severity alone. */
function Filters({
  data,
  findings,
  filter,
  set,
}: {
  data: SectionData;
  findings: readonly Finding[];
  filter: Filter;
  set(f: Filter): void;
}) {
  const parts = data.song.parts.filter((p) => findings.some((f) => f.where.parts.includes(p.id)));
  const families = (Object.keys(Check.FAMILIES) as Family[]).filter((k) => findings.some((f) => f.family === k));
  const severities = (["fault", "warning", "note"] as const).filter((s) => findings.some((f) => f.severity === s));
  return (
    <div className="controls filters" role="group" aria-label="Show only">
      <Select<string>
        label="Part"
        value={filter.part}
        choices={[["", "all parts"], ...parts.map((p) => [p.id, p.name] as const)]}
        set={(part) => set({ ...filter, part })}
      />
      <Select<Family | "">
        label="Family"
        value={filter.family}
        choices={[["", "every kind"], ...families.map((k) => [k, Check.FAMILIES[k]] as const)]}
        set={(family) => set({ ...filter, family })}
      />
      <Select<Severity | "">
        label="Severity"
        value={filter.severity}
        choices={[["", "however grave"], ...severities.map((s) => [s, `${s}s`] as const)]}
        set={(severity) => set({ ...filter, severity })}
      />
    </div>
  );
}

const AS_SCHOOL = "school";

/** Every rule with its severity: as the school has it, or as it is weighed in this song. */
function Weights({ data: { song } }: { data: SectionData }) {
  return (
    <>
      <p className="small">
        What is set here holds for this song, whichever school judges it. The rest is as{" "}
        {Check.PROFILE_WORDS[song.profile].title} has it.
      </p>
      <Table bsPrefix="measures" className="settings">
        <tbody>
          {Check.RULES.map((rule) => (
            <tr key={rule.id}>
              <th scope="row" title={rule.explanation}>
                {rule.title}
              </th>
              <td>
                <Select<Severity | "off" | typeof AS_SCHOOL>
                  label={rule.title}
                  value={song.severities?.[rule.id] ?? AS_SCHOOL}
                  choices={[
                    [AS_SCHOOL, Check.severity(rule, { ...song, severities: {} })],
                    ["fault", "fault here"],
                    ["warning", "warning here"],
                    ["note", "note here"],
                    ["off", "off here"],
                  ]}
                  set={(s) => edit({ do: "setSeverity", rule: rule.id, severity: s === AS_SCHOOL ? null : s })}
                />
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
    </>
  );
}

/** What was looked at, where nothing was found. */
function Nothing({ data }: { data: SectionData }) {
  const heard = data.real.parts
    .filter((p) => p.notes.length || (p.role === "drums" && data.real.hits.length))
    .map((p) => p.name);
  if (!heard.length) return <p>There is nothing to check yet: no part has a note in {data.section.name}.</p>;
  return (
    <>
      <p>
        {heard.join(", ")} were checked against each other, chords and kick over {data.section.bars} bars by{" "}
        {Check.RULES.length} rules. Nothing is worth a remark.
      </p>
      <Fold title="what was checked">
        <ul className="plain-list small">
          {Check.RULES.map((r) => (
            <li key={r.id} title={r.explanation}>
              {r.title}
            </li>
          ))}
        </ul>
      </Fold>
    </>
  );
}
