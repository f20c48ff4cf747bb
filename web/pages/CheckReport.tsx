import { useMemo } from "react";
import { Link, useParams } from "react-router";
import { Check, Pitch, type ReportedFinding, sure, Text } from "../../core/src/index";
import { useOpened } from "./opened";
import "./pages.scss";
import { Button } from "../kit/Button";

/** What was found in the whole song as a page, printed from the browser or saved as PDF there. */
export function CheckReport() {
  const { id = "" } = useParams();
  const { song, failed } = useOpened(id);
  const report = useMemo(() => song && Check.report(song), [song]);
  if (failed) return <p className="message">The song cannot be opened: {failed}</p>;
  if (!song || !report) return <p className="message muted">Opening …</p>;
  const open = report.findings.filter((f) => f.left === undefined);
  const left = report.findings.filter((f) => f.left !== undefined);
  const { fault, warning, note } = report.counts;
  return (
    <main className="singer-pages">
      <div className="pages-bar controls" role="toolbar" aria-label="Pages">
        <Link to={`/songs/${id}/check`}>Back to the song</Link>
        <Button className="primary" onClick={() => window.print()}>
          Print, or save as PDF
        </Button>
      </div>
      <article className="singer-page check-report" aria-label={`What was found in ${song.title}`}>
        <header>
          <h1>{song.title}</h1>
          <p className="for">What was found</p>
          <p className="facts-line">
            Judged as {Check.PROFILE_WORDS[report.school].title}: {Check.PROFILE_WORDS[report.school].assumes}
          </p>
          <p className="facts-line">
            {Text.counted(fault, "fault")}, {Text.counted(warning, "warning")}, {Text.counted(note, "note")}
          </p>
        </header>
        {open.length ? <Rows findings={open} /> : <p>Nothing is worth a remark.</p>}
        {left.length > 0 && (
          <>
            <h2>Left with a reason</h2>
            <Rows findings={left} />
          </>
        )}
      </article>
    </main>
  );
}

/** Places that are listed one by one; where there are more the rest are counted. */
const SHOWN = 4;

function Rows({ findings }: { findings: readonly ReportedFinding[] }) {
  return (
    <ol className="reported">
      {findings.map((f, i) => {
        const [first] = f.places;
        const fixes = first?.fixes ?? [];
        const more = f.places.length - SHOWN;
        return (
          <li key={i}>
            <p>
              <b>{f.title}</b> <span className="small">{f.severity}</span>
              {f.left !== undefined && <span className="small">, left: “{f.left}”</span>}
            </p>
            <p>{Pitch.typesetAll(sure(first).message)}</p>
            <p className="small">
              {sure(first).section}:{" "}
              {f.places
                .slice(0, SHOWN)
                .map((p) => p.where)
                .join("; ")}
              {more > 0 && `; and ${Text.counted(more, "more place")}`}
              {fixes.length > 0 && `. Ways out: ${Pitch.typesetAll(fixes.join("; "))}`}. Source: {f.source}.
            </p>
          </li>
        );
      })}
    </ol>
  );
}
