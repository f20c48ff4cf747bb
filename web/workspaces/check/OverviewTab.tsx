import Table from "react-bootstrap/Table";
import { nth } from "../../../core/src/index";
import { lazy, Suspense, useEffect, useState } from "react";
import type { Overview } from "../../../core/src/index";
import type { SectionData } from "../../app/store/sectionData";
import { useSong } from "../../app/store/song";
import { percent } from "../../kit/texts";
import { workers } from "../../app/workers/sync";

/** Charts are loaded when they are first looked at. */
const Charts = lazy(() => import("./Charts"));

/** Where the trouble lies over the whole form, where each part lies, and who covers whom. */
export function OverviewTab({ data }: { data: SectionData }) {
  const version = useSong((s) => s.version);
  const [overview, setOverview] = useState<Overview | null>(null);
  useEffect(() => {
    let wanted = true;
    void workers.writer.overview().then((found) => wanted && setOverview(found));
    return () => {
      wanted = false;
    };
  }, [version]);
  if (!overview)
    return (
      <p className="small" role="status">
        Looking over the form …
      </p>
    );
  return (
    <>
      <Suspense fallback={<p className="small">Drawing …</p>}>
        <Charts overview={overview} section={data.section.id} />
      </Suspense>
      <Covering overview={overview} />
    </>
  );
}

/** Shares below this say nothing. */
const LEAST = 0.05;

/** A table of parts: how much of a part's time another one sounds in its octave, about as loud or louder. */
function Covering({ overview: { covering } }: { overview: Overview }) {
  const { parts, share } = covering;
  if (parts.length < 2) return null;
  return (
    <>
      <h3>Who covers whom</h3>
      <p className="small">
        Share of a part’s time (row) in which another one (column) sounds in its octave, about as loud or louder. Chords
        over chords are thick; anything over the tune is heard before it.
      </p>
      <div className="covering-scroll">
        <Table bsPrefix="measures" className="covering">
          <thead>
            <tr>
              <th scope="col">covered</th>
              {parts.map((p, i) => (
                <th key={p.id} scope="col" title={p.name}>
                  {i + 1}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {parts.map((p, row) => (
              <tr key={p.id}>
                <th scope="row" title={p.name}>
                  {row + 1} {p.name.split(",")[0]}
                </th>
                {parts.map((other, column) => {
                  const value = nth(nth(share, row), column);
                  return (
                    <td
                      key={other.id}
                      title={
                        row === column ? undefined : `${other.name} covers ${p.name} for ${percent(value)} of its time`
                      }
                      style={{ background: `color-mix(in srgb, var(--fault) ${Math.round(value * 45)}%, transparent)` }}
                    >
                      {row === column && "·"}
                      {row !== column && (value >= LEAST ? Math.round(value * 100) : "–")}
                    </td>
                  );
                })}
              </tr>
            ))}
          </tbody>
        </Table>
      </div>
    </>
  );
}
