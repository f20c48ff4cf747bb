import { sure } from "../../../core/src/index";
import { endPreview } from "../../app/audio/sound";
import { usePlayback } from "../../app/store/playback";
import { tell, useNotice } from "../../app/store/notice";
import { say, useSong } from "../../app/store/song";

/** What is heard instead of the song, in a place of its own. */
export function PreviewNote() {
  const label = usePlayback((s) => s.preview?.label);
  return (
    <span className="preview-note" role="status">
      {label !== undefined && (
        <>
          Hearing: <b>{label}</b>{" "}
          <button type="button" onClick={endPreview}>
            back to what is written
          </button>
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
        <p className="notice" role="status">
          {notice.text}{" "}
          {notice.act && (
            <button
              type="button"
              onClick={() => {
                sure(notice.act).run();
                tell(null);
              }}
            >
              {notice.act.label}
            </button>
          )}
          <button type="button" className="close" aria-label="Close" onClick={() => tell(null)}>
            ×
          </button>
        </p>
      )}
      {problem && (
        <p className="notice problem" role="alert">
          {problem.message}
          {/[.!?]$/.test(problem.message) ? "" : "."} {problem.hint}{" "}
          <button type="button" className="close" aria-label="Close" onClick={() => say(null)}>
            ×
          </button>
        </p>
      )}
    </div>
  );
}
