import { useCallback, useEffect, useState } from "react";
import { Link, useNavigate } from "react-router";
import { firstOf, Format, type Song } from "../../../core/src/index";
import type { RevisionInfo } from "../../../shared/songs";
import { api, ApiProblem } from "../../app/api";
import { download, fileName, importFile } from "../../app/commands/files";
import type { SectionData } from "../../app/store/sectionData";
import { say, useSong } from "../../app/store/song";
import { Field } from "../../kit/Field";
import { DropFile } from "../../kit/DropFile";
import { PanelHead } from "../../kit/PanelHead";
import "./style.scss";
import { Button } from "../../kit/Button";

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
      {Format.ALL.map((format) => (
        <Files key={format.id} format={format} song={song} />
      ))}
      <DropFile open={open} />
      <Versions song={song.id} />
    </>
  );
}

/** A format with the ways of writing the song in it. */
function Files({ format: { title, explanation, extensions, media, ways }, song }: { format: Format; song: Song }) {
  if (!ways.length) return null;
  return (
    <>
      <h3>{title}</h3>
      <p className="small">{explanation}</p>
      <div className="controls">
        {ways.map((way) => (
          <Button
            key={way.id}
            onClick={() => download(fileName(song, firstOf(extensions)), new Uint8Array(way.write(song)), media)}
          >
            {way.title}
          </Button>
        ))}
      </div>
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
      <p className="small">
        Named versions stay. Of the others all of the last ten minutes stay, then one for each ten minutes of a day,
        then one a day, up to 20 MB for a song.
      </p>
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
              <Button title="Undo takes it back" onClick={() => bringBack(r.revision)}>
                Bring back
              </Button>
            )}
          </li>
        ))}
      </ul>
    </>
  );
}
