import { useDeferredValue, useEffect, useState } from "react";
import { useHotkeys } from "react-hotkeys-hook";
import { Link, useParams } from "react-router";
import { ApiProblem } from "../api";
import { endPreview, play, renderOpenSong, startSound, stop, useSound } from "../audio/sound";
import { BassPanel, useLineOffers } from "../panels/BassPanel";
import { CheckPanel } from "../panels/CheckPanel";
import { ChordsPanel } from "../panels/ChordsPanel";
import { GroovePanel } from "../panels/GroovePanel";
import { hearEdit } from "../panels/hear";
import { HandOverPanel } from "../panels/HandOverPanel";
import { VoicingsPanel } from "../panels/VoicingsPanel";
import { hearOffer, hearWritten, takeOffer } from "../panels/chords/offers";
import { Score } from "../score/Score";
import { useScoreData, type ScoreData } from "../score/data";
import { startAnalysis } from "../store/analysis";
import { openSong, startAutosave } from "../store/autosave";
import { useSong } from "../store/song";
import { useView, WORKSPACES, type Offer, type Workspace } from "../store/view";
import { Header } from "../ui/Header";
import { Help } from "../ui/Help";
import { NoteStrip } from "../ui/NoteStrip";
import { Transport } from "../ui/Transport";
import { Conflict } from "./Conflict";

const TITLES: Record<Workspace, string> = {
  groove: "Groove",
  chords: "Chords",
  voicings: "Voicings",
  bass: "Bass",
  check: "Check",
  handover: "Hand over",
};

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
          voicing: null,
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
            <NoteStrip data={data} />
            <Score data={data} />
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

/** Keys count wherever no text is typed: sliders and check boxes have no use for them. */
const OUTSIDE_TEXT = {
  enableOnFormTags: true,
  ignoreEventWhen: (e: KeyboardEvent) => {
    const target = e.target as HTMLInputElement;
    return /^(TEXTAREA|SELECT)$/.test(target.tagName) || (target.tagName === "INPUT" && !/^(range|checkbox)$/.test(target.type));
  },
};

/** The keyboard of the workbench; lanes and inputs handle their own keys first. */
function Keys({ data, workspace }: { data: ScoreData; workspace: Workspace }) {
  const { undo, redo, edit } = useSong();
  const view = useView();
  const lines = useLineOffers(data);
  const bass = data.song.parts.find((p) => p.role === "bass")?.id;
  const inChords = workspace === "chords";
  const offers = inChords ? view.offers : lines;
  const heard = offers.findIndex((o) => view.preview?.id === o.id);
  const bar = data.meter.bar;
  const listen = (o: Offer) => (inChords ? void hearOffer(o, bar, data.length) : hearEdit(o.edit, o.label, o.id, o.from, o.to));
  const [remembered, setRemembered] = useState(0);
  useEffect(() => {
    if (heard >= 0) setRemembered(heard);
  }, [heard]);
  // Space always means play: it never presses the button that happens to have the focus.
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      const target = e.target as HTMLElement;
      if (e.code !== "Space" || (/^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName) && (target as HTMLInputElement).type !== "checkbox"))
        return;
      e.preventDefault();
      e.stopPropagation();
      if (useSound.getState().playing) stop();
      else void play();
    };
    const swallow = (e: KeyboardEvent) => {
      if (e.code === "Space" && (e.target as HTMLElement).tagName === "BUTTON") e.preventDefault();
    };
    window.addEventListener("keydown", onKey, true);
    window.addEventListener("keyup", swallow, true);
    return () => {
      window.removeEventListener("keydown", onKey, true);
      window.removeEventListener("keyup", swallow, true);
    };
  }, []);
  const toggle = (list: string[], id: string) => (list.includes(id) ? list.filter((x) => x !== id) : [...list, id]);
  const lane = view.selected.part || bass || "";
  useHotkeys(
    "mod+z",
    (e) => {
      e.preventDefault();
      undo();
    },
    OUTSIDE_TEXT,
  );
  useHotkeys(
    "mod+shift+z, mod+y",
    (e) => {
      e.preventDefault();
      redo();
    },
    OUTSIDE_TEXT,
  );
  useHotkeys(
    "l",
    () => view.set({ wholeSong: false, loop: view.loop ? { ...view.loop, on: !view.loop.on } : { on: false, from: 0, to: data.length } }),
    OUTSIDE_TEXT,
  );
  useHotkeys(
    "m",
    () => lane && edit({ do: "setPart", part: lane, muted: !data.song.parts.find((p) => p.id === lane)?.muted }),
    OUTSIDE_TEXT,
  );
  useHotkeys("s", () => lane && view.set({ solo: toggle(view.solo, lane) }), OUTSIDE_TEXT);
  useHotkeys("shift+slash, ?", () => view.set({ help: true }), { ...OUTSIDE_TEXT, useKey: true });
  useHotkeys("equal, plus", () => view.set({ zoom: Math.min(200, view.zoom * 1.25) }), OUTSIDE_TEXT);
  useHotkeys("minus", () => view.set({ zoom: Math.max(14, view.zoom / 1.25) }), OUTSIDE_TEXT);
  useHotkeys(
    "1,2,3,4,5,6,7,8,9",
    (e) => {
      const offer = offers[Number(e.key) - 1];
      if (offer) listen(offer);
    },
    OUTSIDE_TEXT,
  );
  // Before and after at the same spot: the offer heard last, and what is written.
  useHotkeys(
    "a",
    () => {
      const offer = offers[remembered];
      if (!offer) return;
      if (heard >= 0 && inChords) {
        stop();
        void hearWritten(offer, bar, data.length);
      } else if (heard >= 0) {
        endPreview();
        void play();
      } else {
        stop();
        listen(offer);
      }
    },
    OUTSIDE_TEXT,
  );
  useHotkeys(
    "t",
    () => {
      const offer = offers[heard] ?? (view.preview?.id.startsWith("written:") ? offers[remembered] : undefined);
      if (!offer) return;
      if (inChords) void takeOffer(offer);
      else {
        endPreview();
        if (edit(offer.edit)) view.set({ lines: [] });
      }
    },
    OUTSIDE_TEXT,
  );
  useHotkeys(
    "c",
    (e) => {
      if (!inChords) return;
      e.preventDefault();
      view.set({ chordTab: "write", wayIn: "symbols" });
      requestAnimationFrame(() => document.getElementById("line")?.focus());
    },
    OUTSIDE_TEXT,
  );
  useHotkeys(
    "f6",
    (e) => {
      e.preventDefault();
      (document.activeElement?.closest("#panel") ? document.getElementById("score") : document.getElementById("panel"))?.focus();
    },
    OUTSIDE_TEXT,
  );
  useHotkeys("escape", () => endPreview(), OUTSIDE_TEXT);
  return null;
}
