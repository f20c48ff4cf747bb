import Alert from "react-bootstrap/Alert";
import { sure } from "../../../core/src/index";
import { endPreview } from "../../app/audio/sound";
import { usePlayback } from "../../app/store/playback";
import { tell, useNotice } from "../../app/store/notice";
import { say, useSong } from "../../app/store/song";
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

/** Refusals and notices: they float over the foot of the score, so that nothing moves. */
export function Messages() {
  const problem = useSong((s) => s.problem);
  const notice = useNotice((s) => s.notice);
  return (
    <div className="messages">
      {notice && (
        <Alert bsPrefix="notice" variant="" transition={false} role="status">
          {notice.text}{" "}
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
}
