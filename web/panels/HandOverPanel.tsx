import { useEffect, useState } from "react";
import { useNavigate } from "react-router";
import { instrumentsFor, readSongFile, writeMidi, writeSongFile, type Song } from "../../core/src/index";
import type { RevisionInfo } from "../../server/store/songs";
import { api, ApiProblem } from "../api";
import type { ScoreData } from "../score/data";
import { useSong } from "../store/song";
import { OpenFile, SONG_FILES } from "../ui/OpenFile";

export function download(name: string, data: BlobPart, type: string): void {
  const url = URL.createObjectURL(new Blob([data], { type }));
  const link = Object.assign(document.createElement("a"), { href: url, download: name });
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 1000);
}

export const fileName = (song: Song, ending: string): string =>
  `${
    song.title
      .replace(/[^\p{L}\p{N}]+/gu, "-")
      .replace(/^-|-$/g, "")
      .toLowerCase() || "song"
  }.${ending}`;

/** Reads a song file and stores it as a new song; returns its id or says what is wrong. */
export async function importFile(file: File): Promise<string> {
  const read = readSongFile(await file.text());
  if (!read.ok) throw new ApiProblem(422, read.error.code, `${file.name}: ${read.error.message}`, read.error.hint);
  return (await api.create(read.value)).song.id;
}

export function HandOverPanel({ data }: { data: ScoreData }) {
  const { song } = data;
  const { say, edit, revision, status } = useSong();
  const navigate = useNavigate();
  const [revisions, setRevisions] = useState<RevisionInfo[]>([]);
  const refresh = () => void api.revisions(song.id).then(setRevisions, () => setRevisions([]));
  useEffect(refresh, [song.id, revision]);
  const midi = (swing: "straight" | "played") => download(fileName(song, "mid"), new Uint8Array(writeMidi(song, { swing })), "audio/midi");
  const fail = (error: unknown) =>
    say({
      code: "import",
      message: error instanceof Error ? error.message : String(error),
      ...(error instanceof ApiProblem && error.hint ? { hint: error.hint } : {}),
    });
  const bringBack = async (number: number) => {
    try {
      const old = await api.revision(song.id, number);
      const state = useSong.getState();
      state.open(old, state.revision, "waiting");
      useSong.setState({ past: [song] });
    } catch (error) {
      fail(error);
    }
  };
  return (
    <>
      <h2>Hand over</h2>
      <h3>MIDI file</h3>
      <p className="small">
        One track a part, drums on the General MIDI map, with tempo, meter, key and names; glides as pitch bend. Muted parts are included.
      </p>
      <div className="controls">
        <button type="button" className="primary" onClick={() => midi("played")}>
          As it is played
        </button>
        <button type="button" onClick={() => midi("straight")}>
          Straight, as written
        </button>
      </div>
      <h3>Song file</h3>
      <div className="controls">
        <button type="button" onClick={() => download(fileName(song, "json"), writeSongFile(song), "application/json")}>
          Save as JSON
        </button>
        <OpenFile accept={SONG_FILES} open={(file) => void importFile(file).then((id) => void navigate(`/songs/${id}`), fail)}>
          Open a JSON file …
        </OpenFile>
      </div>
      <p className="small">An opened file becomes a song of its own; nothing here is overwritten.</p>
      <h3>Parts</h3>
      <ul className="parts">
        {song.parts.map((p) => (
          <li key={p.id}>
            <input
              aria-label={`Name of ${p.name}`}
              defaultValue={p.name}
              key={p.name}
              onKeyDown={(e) => {
                e.stopPropagation();
                if (e.key === "Enter") e.currentTarget.blur();
              }}
              onBlur={(e) =>
                e.target.value.trim() && e.target.value !== p.name && edit({ do: "setPart", part: p.id, name: e.target.value.trim() })
              }
            />
            {p.role !== "drums" && (
              <select
                aria-label={`Instrument of ${p.name}`}
                value={p.instrument}
                onChange={(e) => edit({ do: "setPart", part: p.id, instrument: e.target.value })}
              >
                {instrumentsFor(song)
                  .filter((i) => i.roles.includes(p.role))
                  .map((i) => (
                    <option key={i.id} value={i.id}>
                      {i.title}
                    </option>
                  ))}
              </select>
            )}
            {p.role === "counter" && (
              <button
                type="button"
                aria-label={`Remove ${p.name}`}
                title="Remove the part and its notes; Undo brings it back"
                onClick={() => edit({ do: "removePart", part: p.id })}
              >
                ×
              </button>
            )}
          </li>
        ))}
      </ul>
      <button type="button" onClick={() => edit({ do: "addPart", name: "Counter line", role: "counter", instrument: "clarinet" })}>
        Add a melodic part
      </button>
      <h3>Earlier versions</h3>
      {status !== "saved" && <p className="small">The newest edits are not stored yet.</p>}
      <ul className="revisions">
        {revisions.slice(0, 12).map((r) => (
          <li key={r.revision}>
            <span className="tabular">{new Date(r.createdAt).toLocaleString([], { dateStyle: "short", timeStyle: "short" })}</span>
            <input
              aria-label={`Name of version ${r.revision}`}
              placeholder="name it to keep it"
              defaultValue={r.name ?? ""}
              onKeyDown={(e) => {
                e.stopPropagation();
                if (e.key === "Enter") e.currentTarget.blur();
              }}
              onBlur={(e) =>
                e.target.value.trim() !== (r.name ?? "") &&
                void api.nameRevision(song.id, r.revision, e.target.value.trim() || null).then(refresh, fail)
              }
            />
            {r.revision === revision ? (
              <span className="small">now</span>
            ) : (
              <button type="button" onClick={() => void bringBack(r.revision)}>
                Bring back
              </button>
            )}
          </li>
        ))}
      </ul>
    </>
  );
}
