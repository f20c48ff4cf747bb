import { useCallback, useEffect, useState } from "react";
import { Link, useNavigate } from "react-router";
import { Midi, MusicXml, SongFile } from "../../../core/src/index";
import type { RevisionInfo } from "../../../shared/songs";
import { api, ApiProblem } from "../../app/api";
import { download, fileName, importFile } from "../../app/commands/files";
import type { SectionData } from "../../app/store/sectionData";
import { say, useSong } from "../../app/store/song";
import { Field } from "../../kit/Field";
import { OpenFile, SONG_FILES } from "../../kit/OpenFile";
import { PanelHead } from "../../kit/PanelHead";
import "./style.scss";

const PRINTED = [
  ["lead", "Lead sheet"],
  ["parts", "Parts"],
  ["chart", "Chord chart"],
  ["score", "Score"],
  ["singers", "Singers’ pages"],
] as const;

/** Versions that are listed. */
const SHOWN = 12;

const refused = (error: unknown): void =>
  say({
    code: "import",
    message: error instanceof Error ? error.message : String(error),
    ...(error instanceof ApiProblem && error.hint ? { hint: error.hint } : {}),
  });

/** Files out and in, and the versions that were stored. */
export function HandOverPanel({ data: { song } }: { data: SectionData }) {
  const navigate = useNavigate();
  const midi = (swing: "straight" | "played") =>
    download(fileName(song, "mid"), new Uint8Array(Midi.write(song, { swing })), "audio/midi");
  const open = (file: File) => void importFile(file).then((id) => void navigate(`/songs/${id}`), refused);
  return (
    <>
      <PanelHead title="Hand over" />
      <h3>On paper</h3>
      <p className="small">Printed from the browser, or saved as PDF there.</p>
      <div className="controls">
        {PRINTED.map(([kind, title], i) => (
          <Link key={kind} className={i === 0 ? "button primary" : "button"} to={`/songs/${song.id}/pages?for=${kind}`}>
            {title}
          </Link>
        ))}
      </div>
      <h3>MIDI file</h3>
      <p className="small">
        One track a part, drums on the General MIDI map, with tempo, meter, key and names; glides as pitch bend. Muted
        parts are included.
      </p>
      <div className="controls">
        <button type="button" onClick={() => midi("played")}>
          As it is played
        </button>
        <button type="button" onClick={() => midi("straight")}>
          Straight, as written
        </button>
      </div>
      <h3>Score</h3>
      <p className="small">
        For notation programs: every part as its player reads it, words, chord symbols and drums, pass by pass. Muted
        parts are included.
      </p>
      <div className="controls">
        <button
          type="button"
          onClick={() =>
            download(fileName(song, "musicxml"), MusicXml.write(song), "application/vnd.recordare.musicxml+xml")
          }
        >
          Save as MusicXML
        </button>
      </div>
      <h3>Song file</h3>
      <div className="controls">
        <button
          type="button"
          onClick={() => download(fileName(song, "json"), SongFile.write(song), "application/json")}
        >
          Save as JSON
        </button>
        <OpenFile accept={SONG_FILES} open={open}>
          Open a JSON file …
        </OpenFile>
      </div>
      <p className="small">An opened file becomes a song of its own; nothing here is overwritten.</p>
      <Versions song={song.id} />
    </>
  );
}

/** Earlier versions, named and brought back. */
function Versions({ song }: { song: string }) {
  const revision = useSong((s) => s.revision);
  const status = useSong((s) => s.status);
  const [revisions, setRevisions] = useState<RevisionInfo[]>([]);
  const refresh = useCallback(() => void api.revisions(song).then(setRevisions, () => setRevisions([])), [song]);
  useEffect(refresh, [refresh, revision]);
  const bringBack = (number: number) =>
    void api.revision(song, number).then((old) => {
      const state = useSong.getState();
      state.adopt(old, state.revision, "waiting");
    }, refused);
  const rename = (number: number, name: string) =>
    void api.nameRevision(song, number, name || null).then(refresh, refused);
  return (
    <>
      <h3>Earlier versions</h3>
      {status !== "saved" && <p className="small">The newest edits are not stored yet.</p>}
      <ul className="revisions">
        {revisions.slice(0, SHOWN).map((r) => (
          <li key={r.revision}>
            <span className="tabular">
              {new Date(r.createdAt).toLocaleString([], { dateStyle: "short", timeStyle: "short" })}
            </span>
            <Field
              label={`Name of version ${r.revision}`}
              placeholder="name it to keep it"
              value={r.name ?? ""}
              commit={(name) => rename(r.revision, name)}
            />
            {r.revision === revision ? (
              <span className="small">now</span>
            ) : (
              <button type="button" title="Undo takes it back" onClick={() => bringBack(r.revision)}>
                Bring back
              </button>
            )}
          </li>
        ))}
      </ul>
    </>
  );
}
