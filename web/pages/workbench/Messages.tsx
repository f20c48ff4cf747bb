import { memo } from "react";
import Alert from "react-bootstrap/Alert";
import { sure } from "../../../core/src/index";
import { endPreview } from "../../app/audio/sound";
import { usePlayback } from "../../app/store/playback";
import { tell, useNotice } from "../../app/store/notice";
import { say, useSong } from "../../app/store/song";
import { startAgain, useHealth } from "../../app/workers/sync";
import type { Health } from "../../app/workers/supervise";
import { Button } from "../../kit/Button";

/** What is heard instead of the song, in a place of its own. */
export function PreviewNote() {
  const label = usePlayback((s) => s.preview?.label);
  return (
    <span className="preview-note" role="status">
      {label !== undefined && (
        <>
          Hearing: <b>{label}</b> <Button onClick={endPreview}>back to what is written</Button>
        </>
      )}
    </span>
  );
}

/** What each worker does, as it is missed. */
const MISSED = {
  judge: "Checking, harmony and accents",
  writer: "Writing lines, layouts and other chords",
} as const;

/** Says where nothing can be worked out for now, and what to do about it. */
function WorkersNote() {
  const health = useHealth();
  const of = (state: Health) => (["judge", "writer"] as const).filter((who) => health[who] === state);
  const [mending, down] = [of("mending"), of("down")];
  const missed = (who: readonly ("judge" | "writer")[]) => who.map((w) => MISSED[w]).join("; ");
  return (
    <>
      {mending.length > 0 && (
        <Alert bsPrefix="notice" variant="" transition={false} role="status">
          {missed(mending)}: stopped, and beginning again …
        </Alert>
      )}
      {down.length > 0 && (
        <Alert bsPrefix="notice" variant="" transition={false} className="problem">
          {missed(down)}: stopped three times in a row. Your song is safe; what is shown may be older than it.{" "}
          <Button onClick={startAgain}>Start again</Button>
        </Alert>
      )}
    </>
  );
}

/** Refusals and notices: they float over the foot of the score, so that nothing moves. */
export const Messages = memo(function Messages() {
  const problem = useSong((s) => s.problem);
  const notice = useNotice((s) => s.notice);
  return (
    <div className="messages">
      <WorkersNote />
      {notice && (
        <Alert bsPrefix="notice" variant="" transition={false} role="status">
          {notice.text}{" "}
          {notice.list && (
            <ul>
              {notice.list.map((line) => (
                <li key={line}>{line}</li>
              ))}
            </ul>
          )}
          {notice.act && (
            <Button
              onClick={() => {
                sure(notice.act).run();
                tell(null);
              }}
            >
              {notice.act.label}
            </Button>
          )}
          <Button className="close" aria-label="Close" onClick={() => tell(null)}>
            ×
          </Button>
        </Alert>
      )}
      {problem && (
        <Alert bsPrefix="notice" variant="" transition={false} className="problem">
          {problem.message}
          {/[.!?]$/.test(problem.message) ? "" : "."} {problem.hint}{" "}
          <Button className="close" aria-label="Close" onClick={() => say(null)}>
            ×
          </Button>
        </Alert>
      )}
    </div>
  );
});
