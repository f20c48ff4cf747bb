import { useEffect, useRef, useState } from "react";
import { proxy } from "comlink";
import { ProgressBar } from "react-bootstrap";
import { type Finding, Meter, Pitch, type SafeFixes as Safe, type SafeProgress, Text } from "../../../core/src/index";
import { acceptEdit, auditionEdit } from "../../app/commands/audition";
import type { SectionData } from "../../app/store/sectionData";
import { useSong } from "../../app/store/song";
import { HearTake } from "../../kit/HearTake";
import { workers } from "../../app/workers/sync";
import { Button } from "../../kit/Button";

/** What was found for a version of the song; or how far looking for it is. */
type Found = { version: number; safe: Safe } | { going: SafeProgress | null };

/** Mends what is safe of the findings that are shown: the whole change is seen and heard before it is made. */
export function SafeFixes({ data, findings }: { data: SectionData; findings: readonly Finding[] }) {
  const version = useSong((s) => s.version);
  const [found, setFound] = useState<Found | "failed" | null>(null);
  const going = useRef(0);
  const { section, meter } = data;
  const stop = () => {
    going.current++;
    setFound(null);
  };
  const ask = () => {
    const mine = ++going.current;
    const isMine = () => going.current === mine;
    setFound({ going: null });
    const goOn = (now: SafeProgress): boolean => {
      if (isMine()) setFound({ going: now });
      return isMine();
    };
    workers.writer
      .safe(
        section.id,
        findings.map((f) => f.id),
        proxy(goOn),
      )
      .then(
        (safe) => isMine() && setFound(safe && { version, safe }),
        () => isMine() && setFound("failed"),
      );
  };
  // Elsewhere nobody waits for it.
  useEffect(() => () => void going.current++, [section.id]);
  if (found && found !== "failed" && "going" in found)
    return (
      <div className="controls" role="status">
        <span className="small">
          {found.going
            ? `Trying the fixes of place ${found.going.done + 1} of ${found.going.of} …`
            : "Trying the fixes …"}
        </span>
        <ProgressBar
          now={found.going ? (100 * found.going.done) / Math.max(1, found.going.of) : 0}
          aria-label="Fixes tried"
        />
        <Button className="quiet" onClick={stop}>
          Cancel
        </Button>
      </div>
    );
  if (found === "failed")
    return (
      <p className="controls" role="status">
        <span className="small">The fixes could not be tried.</span>
        <Button onClick={ask}>Try again</Button>
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
