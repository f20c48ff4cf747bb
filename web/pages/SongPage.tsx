import { lazy, Suspense, useDeferredValue, useEffect, useState } from "react";
import { Link, useParams } from "react-router";
import { ApiProblem } from "../api";
import { endPreview, renderOpenSong, startSound } from "../audio/sound";
import { BassPanel } from "../panels/bass/BassPanel";
import { CheckPanel } from "../panels/CheckPanel";
import { ChordsPanel } from "../panels/ChordsPanel";
import { GroovePanel } from "../panels/groove/GroovePanel";
import { HandOverPanel } from "../panels/HandOverPanel";
import { VoicingsPanel } from "../panels/voicings/VoicingsPanel";
import { Score } from "../score/Score";
import { useScoreData } from "../score/data";
import { startAnalysis } from "../store/analysis";
import { openSong, startAutosave } from "../store/autosave";
import { useSong } from "../store/song";
import { useView, WORKSPACES, type Workspace } from "../store/view";
import { Header } from "../ui/Header";
import { Help } from "../ui/Help";
import { NoteStrip } from "../ui/NoteStrip";
import { Transport } from "../ui/Transport";
import { Conflict } from "./Conflict";
import { Keys } from "./Keys";

const TITLES: Record<Workspace, string> = {
  groove: "Groove",
  chords: "Chords",
  voicings: "Voicings",
  bass: "Bass",
  check: "Check",
  handover: "Hand over",
};

/** The engraver and its music font are loaded when notes are first shown on staves. */
const Notation = lazy(() => import("../score/Notation"));

declare global {
  interface Window {
    /** For tests only: offline rendering of the open song, and the song itself. */
    orchard?: { render: typeof renderOpenSong; song: () => ReturnType<typeof useSong.getState>["song"] };
  }
}

export function SongPage() {
  const { id = "" } = useParams();
  const song = useSong((s) => s.song);
  const [failed, setFailed] = useState<ApiProblem | null>(null);
  const [ready, setReady] = useState("");

  useEffect(() => {
    let ends: (() => void)[] = [];
    let gone = false;
    setFailed(null);
    openSong(id).then(
      () => {
        if (gone) return;
        const opened = useSong.getState().song!;
        useView.getState().set({
          section: opened.form[0]?.sectionId ?? opened.sections[0]!.id,
          chord: null,
          selected: { part: "", ids: [] },
          lines: [],
          preview: null,
          loop: null,
          solo: [],
          folded: [],
          findings: [],
          report: null,
          voicing: {},
          voicePart: "",
          bassPart: "",
          voicingPaths: [],
          offers: [],
          zoom: fit(opened.sections[0]!.bars),
        });
        ends = [startAutosave(), startAnalysis(), startSound()];
        window.orchard = { render: renderOpenSong, song: () => useSong.getState().song };
        setReady(id);
      },
      (error: unknown) => setFailed(error instanceof ApiProblem ? error : new ApiProblem(0, "unknown", String(error))),
    );
    return () => {
      gone = true;
      for (const end of ends) end();
      delete window.orchard;
    };
  }, [id]);

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
  if (!song || ready !== id)
    return (
      <main className="message" aria-busy="true">
        <p>Opening …</p>
      </main>
    );
  return <Workbench />;
}

/** Zoom at which up to four bars fill the usual width. */
const fit = (bars: number): number => (bars <= 2 ? 96 : bars <= 4 ? 52 : 40);

function Workbench() {
  const song = useSong((s) => s.song)!;
  const { problem, conflict, say, status } = useSong();
  const view = useView();
  const shown = view.preview?.song ?? song;
  // An undone section leaves its id behind: fall back to the first one.
  const section = shown.sections.some((s) => s.id === view.section) ? view.section : shown.sections[0]!.id;
  useEffect(() => {
    if (section !== view.section) view.set({ section });
  }, [section, view]);
  // The score follows a frame or two later, in slices, so that no edit blocks the hand that makes it.
  const data = useScoreData(useDeferredValue(shown), useDeferredValue(section));
  const { workspace = "chords" } = useParams();
  const current = (WORKSPACES as readonly string[]).includes(workspace) ? (workspace as Workspace) : "chords";
  useEffect(() => {
    document.title = `${song.title} · Hushed Orchard`;
  }, [song.title]);
  if (!data) return null;
  const open = view.findings.filter((f) => f.waived === undefined);
  const bassPart = song.parts.find((p) => p.role === "bass")?.id;
  const badge: Partial<Record<Workspace, number>> = {
    bass: open.filter((f) => bassPart && f.where.parts.includes(bassPart)).length,
    check: open.length,
  };
  return (
    <div className="workbench">
      <Keys data={data} workspace={current} />
      <Header song={song} />
      <nav className="workspaces" aria-label="Workspaces">
        {WORKSPACES.map((w) => (
          <Link key={w} to={`/songs/${song.id}/${w}`} aria-current={w === current ? "page" : undefined}>
            {TITLES[w]}
            {badge[w] ? <sup aria-label={`${badge[w]} findings`}>{badge[w]}</sup> : null}
          </Link>
        ))}
        {view.preview && (
          <span className="preview-note" role="status">
            Hearing: {view.preview.label}{" "}
            <button type="button" onClick={endPreview}>
              back to what is written
            </button>
          </span>
        )}
        <span className="shown-as" role="group" aria-label="Shown as">
          <button type="button" aria-pressed={!view.notation} onClick={() => view.set({ notation: false })}>
            lanes
          </button>
          <button
            type="button"
            aria-pressed={view.notation}
            title="The section on staves, with tablature for fretted parts"
            onClick={() => view.set({ notation: true })}
          >
            staves
          </button>
        </span>
        <button type="button" className="help-button" onClick={() => view.set({ help: true })} title="Keys (?)" aria-label="Keys">
          ?
        </button>
      </nav>
      {problem && (
        <div className="problem-bar" role="alert">
          {problem.message}
          {/[.!?]$/.test(problem.message) ? "" : "."} {problem.hint}{" "}
          <button type="button" aria-label="Close" onClick={() => say(null)}>
            ×
          </button>
        </div>
      )}
      {conflict && status === "conflict" ? (
        <Conflict mine={song} />
      ) : (
        <div className={`desk ${current}`}>
          <main className={view.preview ? "previewing" : ""} id="score" tabIndex={-1} aria-label="Score">
            {!view.notation && <NoteStrip data={data} />}
            {view.notation ? (
              <Suspense fallback={<p className="muted">Setting the notes …</p>}>
                <Notation data={data} />
              </Suspense>
            ) : (
              <Score data={data} />
            )}
          </main>
          <aside className={`panel ${current}`} id="panel" tabIndex={-1} aria-label={TITLES[current]}>
            {current === "groove" && <GroovePanel data={data} />}
            {current === "chords" && <ChordsPanel data={data} />}
            {current === "voicings" && <VoicingsPanel data={data} />}
            {current === "bass" && <BassPanel data={data} />}
            {current === "check" && <CheckPanel data={data} />}
            {current === "handover" && <HandOverPanel data={data} />}
          </aside>
        </div>
      )}
      <Transport data={data} workspace={current} />
      <div className="visually-hidden" aria-live="polite">
        {open.length === 0 ? "No findings" : `${open.length} findings. ${open[0]!.message}`}
      </div>
      <Help show={view.help} close={() => view.set({ help: false })} />
    </div>
  );
}
