import { useState } from "react";
import { type Finding, Meter, Pitch, type SafeFixes as Safe, Text } from "../../../core/src/index";
import { acceptEdit, auditionEdit } from "../../app/commands/audition";
import type { SectionData } from "../../app/store/sectionData";
import { useSong } from "../../app/store/song";
import { HearTake } from "../../kit/HearTake";
import { workers } from "../../app/workers/sync";
import { Button } from "../../kit/Button";

/** Mends what is safe of the findings that are shown: the whole change is seen and heard before it is made. */
export function SafeFixes({ data, findings }: { data: SectionData; findings: readonly Finding[] }) {
  const version = useSong((s) => s.version);
  const [found, setFound] = useState<{ version: number; safe: Safe } | "asked" | null>(null);
  const { section, meter } = data;
  const ask = () => {
    setFound("asked");
    void workers.writer
      .safe(
        section.id,
        findings.map((f) => f.id),
      )
      .then((safe) => setFound(safe && { version, safe }));
  };
  if (found === "asked")
    return (
      <p className="small" role="status">
        Trying every fix …
      </p>
    );
  // What was tried holds for the song as it was.
  if (!found || found.version !== version)
    return (
      <p className="controls">
        <Button onClick={ask}>Fix what is safe …</Button>
      </p>
    );
  const { steps, edit, left } = found.safe;
  return (
    <section className="safe" aria-label="What would be changed">
      <p className="small">
        {steps.length
          ? `${Text.counted(steps.length, "change")}, each of which mends its place and brings no fault or warning.`
          : "Nothing here can be mended without a doubt."}
        {left > 0 && ` ${Text.counted(left, "place")} would be left for you to decide.`}
      </p>
      <ol className="small">
        {steps.map((s) => (
          <li key={s.place.id}>
            {Meter.position(meter, s.place.tick)}: {Pitch.typesetAll(s.fix.label)}
            <span className="muted"> · {Pitch.typesetAll(s.place.message)}</span>
          </li>
        ))}
      </ol>
      <p className="controls">
        {edit && (
          <HearTake
            id="safe"
            name="all these changes"
            takeText="Take all"
            hear={() => auditionEdit(edit, "what is safe", "safe", { from: 0, to: data.length })}
            take={() => acceptEdit(edit)}
          />
        )}
        <Button className="quiet" onClick={() => setFound(null)}>
          Not now
        </Button>
      </p>
    </section>
  );
}
