import { firstOf, sure } from "../../core/src/index";
import { useEffect, useState } from "react";
import { Link, useParams } from "react-router";
import { ApiProblem } from "../app/api";
import { renderSong, startSound, warmUp } from "../app/audio/sound";
import { startAnalysis } from "../app/store/analysis";
import { openSong, startAutosave } from "../app/store/autosave";
import { tell, useNotice } from "../app/store/notice";
import { resetPlayback } from "../app/store/playback";
import { usePreferences } from "../app/store/preferences";
import { resetResults } from "../app/store/results";
import { workOut } from "../app/store/sectionData";
import { resetSelection, useSelection } from "../app/store/selection";
import { songNow, useSong } from "../app/store/song";
import { inTurn } from "../app/turns";
import "./songs.scss";
import { Workbench } from "./workbench/Workbench";

declare global {
  interface Window {
    /** For tests only: offline rendering of the open song, and the song itself. */
    orchard?: { render: typeof renderSong; song: () => ReturnType<typeof useSong.getState>["song"] };
  }
}

/** Behind everything that is drawn. */
const JUDGED = 1000;

/** What belongs to the song that was open before goes; what the user likes stays. */
function prepare(): void {
  const song = sure(useSong.getState().song);
  resetSelection(song.form[0]?.sectionId ?? firstOf(song.sections).id);
  resetPlayback();
  resetResults();
  if (useNotice.getState().notice?.about !== song.id) tell(null);
  usePreferences.setState({ fit: "bars" });
}

/** Opens a song, and ends all that belongs to it when it is left. */
function useOpenSong(id: string): { ready: boolean; failed: ApiProblem | null } {
  const [failed, setFailed] = useState<ApiProblem | null>(null);
  const [ready, setReady] = useState("");
  useEffect(() => {
    let ends: (() => void)[] = [];
    let gone = false;
    setFailed(null);
    const open = async () => {
      await openSong(id);
      if (gone) return;
      prepare();
      await workOut(songNow(), useSelection.getState().section, () => gone);
      if (gone) return;
      // Judging begins when the score is drawn: what is seen comes first.
      ends = [startAutosave(), startSound(), warmUp(), inTurn(JUDGED, () => ends.push(startAnalysis()))];
      window.orchard = { render: renderSong, song: () => useSong.getState().song };
      setReady(id);
    };
    open().catch((error: unknown) => {
      if (!gone) setFailed(error instanceof ApiProblem ? error : new ApiProblem(0, "unknown", String(error)));
    });
    return () => {
      gone = true;
      for (const end of ends) end();
      delete window.orchard;
    };
  }, [id]);
  return { ready: ready === id, failed };
}

export function SongPage() {
  const { id = "" } = useParams();
  const song = useSong((s) => s.song);
  const { ready, failed } = useOpenSong(id);
  if (failed)
    return (
      <main className="message">
        <h1>{failed.status === 404 ? "There is no such song" : "The song cannot be opened"}</h1>
        <p>
          {failed.message}. {failed.hint}
        </p>
        <Link to="/">All songs</Link>
      </main>
    );
  if (!song || !ready)
    return (
      <main className="message" aria-busy="true">
        <p>Opening …</p>
      </main>
    );
  return <Workbench />;
}
