import { lazy, memo, Suspense, useDeferredValue, useEffect, useMemo, useRef, useState } from "react";
import { Link, useParams } from "react-router";
import { firstOf, nth, Song, sure } from "../../../core/src/index";
import { NoteStrip } from "../../score/NoteStrip";
import { Score } from "../../score/Score";
import { usePlayback } from "../../app/store/playback";
import { passInView } from "../../app/store/passes";
import { usePreferences } from "../../app/store/preferences";
import { useResults } from "../../app/store/results";
import { useSectionData, workOut, type SectionData } from "../../app/store/sectionData";
import { showSection, useSelection } from "../../app/store/selection";
import { useFieldsOfSong, useOfSong, useSong, useView } from "../../app/store/song";
import { useTurn } from "../../app/turns";
import { Switches } from "../../kit/Switches";
import { WORKSPACES, type Workspace } from "../../workspaces";
import { Conflict } from "./Conflict";
import { FormStrip } from "./FormStrip";
import { Header } from "./Header";
import { Help, placeOfFocus } from "./Help";
import { Keys } from "./Keys";
import { Messages, PreviewNote } from "./Messages";
import { PanelEdge } from "./PanelEdge";
import "./style.scss";
import { QuickLine } from "./QuickLine";
import { Transport } from "./Transport";
import { Button } from "../../kit/Button";

/** The engraver and its music font are loaded when notes are first shown on staves. */
const Notation = lazy(() => import("../../score/Notation"));

/** The section in view of the song that is shown: what is auditioned, or what is written. */
function useShown(song: Song): SectionData | null {
  const preview = usePlayback((s) => s.preview?.song);
  const chosen = useSelection((s) => s.section);
  const view = useView(song);
  const shown = preview ?? view;
  // An undone section leaves its id behind: fall back to the first one.
  const section = Song.section(shown, chosen) ? chosen : firstOf(shown.sections).id;
  useEffect(() => {
    if (section !== chosen) showSection(section);
  }, [section, chosen]);
  // The score follows a frame or two later, in slices, so that no edit blocks the hand that makes it.
  const pass = useSelection((s) => passInView(song, s.pass, s.section));
  const ready = useWorkedOut(shown, section);
  return useSectionData(useDeferredValue(shown), useDeferredValue(ready), useDeferredValue(pass));
}

/** The section that is wanted, once it is worked out; until then the one before, where it is still there. */
function useWorkedOut(song: Song, section: string): string {
  const [ready, setReady] = useState(section);
  const latest = useRef(song);
  useEffect(() => {
    latest.current = song;
  });
  useEffect(() => {
    let gone = false;
    // Where it cannot be worked out, that shows where it is drawn.
    const done = () => gone || setReady(section);
    void workOut(latest.current, section, () => gone).then(done, done);
    return () => {
      gone = true;
    };
  }, [section]);
  return Song.section(song, ready) ? ready : section;
}

/** Parts the open workspace is about. */
function useFocus(workspace: Workspace): string[] {
  const voicePart = useSelection((s) => s.voicePart);
  const bassPart = useSelection((s) => s.bassPart);
  const linePart = useSelection((s) => s.linePart);
  const chosen = useSelection((s) => s.notes.part);
  const findings = useResults((s) => s.findings);
  const text = useOfSong((song) => workspace.focus({ song, voicePart, bassPart, linePart, findings, chosen }).join());
  return useMemo(() => (text ? text.split(",") : []), [text]);
}

export function Workbench() {
  const song = sure(useSong((s) => s.song));
  const conflict = useSong((s) => s.conflict !== null && s.status === "conflict");
  const { workspace: word } = useParams();
  const workspace = WORKSPACES.find((w) => w.id === word) ?? nth(WORKSPACES, 1);
  const data = useShown(song);
  const focus = useFocus(workspace);
  const help = usePreferences((s) => s.help);
  const offers = useResults((s) => s.offers.length > 0);
  const previewing = usePlayback((s) => s.preview !== null);
  const panelWidth = usePreferences((s) => s.panelWidth);
  useEffect(() => {
    document.title = `${song.title} · Hushed Orchard`;
  }, [song.title]);
  if (!data) return null;
  return (
    <div className="workbench">
      <a className="skip-link" href="#score">
        To the score
      </a>
      <Keys data={data} workspace={workspace.id} />
      <Header />
      <Nav song={song.id} current={workspace} />
      <FormStrip />
      {conflict && <Conflict mine={song} />}
      {conflict ? (
        <div className="desk" />
      ) : (
        <div
          className={`desk ${workspace.id}`}
          style={panelWidth ? ({ "--panel-width": `${panelWidth}px` } as React.CSSProperties) : undefined}
        >
          <main className={previewing ? "previewing" : ""} id="score" tabIndex={-1} aria-label="Score">
            <Sheet data={data} focus={focus} />
            <Messages />
          </main>
          <aside className="side" aria-label={workspace.title}>
            <PanelEdge />
            <div className={`panel ${workspace.id}`} id="panel" tabIndex={-1}>
              <Panel of={workspace} data={data} />
            </div>
          </aside>
        </div>
      )}
      <QuickLine />
      <Transport data={data} />
      <FindingsSaid />
      {help && <Help workspace={workspace.id} focus={placeOfFocus()} offers={offers} />}
    </div>
  );
}

/** The section as lanes, or on staves. */
const Sheet = memo(function Sheet({ data, focus }: { data: SectionData; focus: readonly string[] }) {
  const notation = usePreferences((s) => s.notation);
  return notation ? (
    <Suspense fallback={<p className="muted">Setting the notes …</p>}>
      <Notation data={data} />
    </Suspense>
  ) : (
    <>
      <NoteStrip data={data} />
      <Score data={data} focus={focus} />
    </>
  );
});

/** What one works with beside the score; it follows an edit when the score has followed. */
const Panel = memo(function Panel({ of, data }: { of: Workspace; data: SectionData }) {
  const drawn = useTurn(BEHIND);
  return drawn && <of.Panel data={data} />;
});
/** Behind all lanes. */
const BEHIND = 100;

/** The workspaces, what is heard, and how the section is shown. */
const Nav = memo(function Nav({ song, current }: { song: string; current: Workspace }) {
  const findings = useResults((s) => s.findings);
  const notation = usePreferences((s) => s.notation);
  const open = useMemo(() => findings.filter((f) => f.waived === undefined), [findings]);
  const counts = useFieldsOfSong((s) =>
    WORKSPACES.map((w) => (w.counts ? open.filter((f) => w.counts?.(f, s)).length : 0)),
  );
  return (
    <nav className="workspaces" aria-label="Workspaces">
      {WORKSPACES.map((w, i) => {
        const count = nth(counts, i);
        return (
          <Link key={w.id} to={`/songs/${song}/${w.id}`} aria-current={w === current ? "page" : undefined}>
            {w.title}
            {count ? <sup aria-label={`${count} ${count === 1 ? "finding" : "findings"}`}>{count}</sup> : null}
          </Link>
        );
      })}
      <PreviewNote />
      <Switches
        label="Shown as"
        value={notation ? "staves" : "lanes"}
        choices={[
          ["lanes", "lanes"],
          ["staves", "staves"],
        ]}
        titles={{ staves: "The section on staves, with tablature for fretted parts" }}
        set={(v) => usePreferences.setState({ notation: v === "staves" })}
      />
      <Button
        className="help-button"
        onClick={() => usePreferences.setState({ help: true })}
        title="Keys (?)"
        aria-label="Keys"
      >
        ?
      </Button>
    </nav>
  );
});

/** What is found, for those who hear the page. */
const FindingsSaid = memo(function FindingsSaid() {
  const findings = useResults((s) => s.findings);
  const checked = useResults((s) => s.checked);
  const open = findings.filter((f) => f.waived === undefined);
  const none = { yet: "", done: "No findings", failed: "Not checked" }[checked];
  const count = open.length === 1 ? "1 finding" : `${open.length} findings`;
  return (
    <div className="visually-hidden" aria-live="polite">
      {open.length ? `${count}. ${firstOf(open).message}` : none}
    </div>
  );
});
