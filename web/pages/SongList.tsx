import { useCallback, useEffect, useState } from "react";
import { Link, useNavigate } from "react-router";
import { typeset } from "../../core/src/index";
import type { SongSummary } from "../../server/store/songs";
import { api, ApiProblem } from "../api";
import { importFile } from "../panels/HandOverPanel";
import { InPlace } from "../ui/InPlace";
import { OpenFile, SONG_FILES } from "../ui/OpenFile";

export function SongList() {
  const [songs, setSongs] = useState<SongSummary[] | null>(null);
  const [problem, setProblem] = useState<ApiProblem | null>(null);
  const [deleted, setDeleted] = useState<SongSummary | null>(null);
  const [title, setTitle] = useState("");
  const navigate = useNavigate();
  const fail = useCallback(
    (error: unknown) => setProblem(error instanceof ApiProblem ? error : new ApiProblem(0, "unknown", String(error))),
    [],
  );
  const refresh = useCallback(
    () =>
      api.list().then((list) => {
        setSongs(list);
        setProblem(null);
      }, fail),
    [fail],
  );
  useEffect(() => {
    document.title = "Hushed Orchard";
    void refresh();
  }, [refresh]);

  const create = () => api.create({ title: title.trim() || "Untitled" }).then(({ song }) => navigate(`/songs/${song.id}/chords`), fail);
  const rename = (song: SongSummary, next: string) => {
    api
      .get(song.id)
      .then(({ song: document, revision }) => api.save({ ...document, title: next }, revision))
      .then(refresh, fail);
    return true;
  };
  const remove = (song: SongSummary) =>
    api.remove(song.id).then(() => {
      setDeleted(song);
      return refresh();
    }, fail);
  const restore = () =>
    deleted &&
    api.restore(deleted.id).then(() => {
      setDeleted(null);
      return refresh();
    }, fail);

  return (
    <main className="songs-page">
      <header>
        <h1>Hushed Orchard</h1>
        <p>Chord progressions, their voicings, and bass lines written against the chords and the kick.</p>
      </header>
      <form
        className="controls"
        onSubmit={(e) => {
          e.preventDefault();
          void create();
        }}
      >
        <input
          aria-label="Title of the new song"
          placeholder="Title of a new song"
          maxLength={200}
          value={title}
          onChange={(e) => setTitle(e.target.value)}
        />
        <button type="submit" className="primary">
          New song
        </button>
        <OpenFile accept={SONG_FILES} open={(file) => void importFile(file).then((id) => void navigate(`/songs/${id}/chords`), fail)}>
          Open a JSON file …
        </OpenFile>
      </form>
      {problem && (
        <p className="problem" role="alert">
          {problem.message}. {problem.hint}
        </p>
      )}
      {deleted && (
        <p className="undo-note" role="status">
          “{deleted.title}” was deleted.{" "}
          <button type="button" onClick={() => void restore()}>
            Undo
          </button>
        </p>
      )}
      {songs === null && !problem && <p>Opening …</p>}
      {songs?.length === 0 && <p>No songs yet. Give one a title above.</p>}
      {songs && songs.length > 0 && (
        <table className="song-table">
          <thead>
            <tr>
              <th scope="col">Song</th>
              <th scope="col">Key</th>
              <th scope="col">Tempo</th>
              <th scope="col">Meter</th>
              <th scope="col">Bars</th>
              <th scope="col">Changed</th>
              <th scope="col">
                <span className="visually-hidden">Actions</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {songs.map((song) => (
              <tr key={song.id}>
                <td>
                  {song.contents ? (
                    <InPlace label={`Title of ${song.title}`} className="title" value={song.title} commit={(t) => rename(song, t)} />
                  ) : (
                    <span className="title">{song.title}</span>
                  )}
                </td>
                {song.contents ? (
                  <>
                    <td>
                      {typeset(song.contents.key.split(" ")[0]!)} {song.contents.key.split(" ")[1]}
                    </td>
                    <td className="tabular">{song.contents.tempo} bpm</td>
                    <td className="tabular">{song.contents.meter}</td>
                    <td className="tabular">{song.contents.bars}</td>
                  </>
                ) : (
                  <td colSpan={4} className="problem">
                    This song cannot be read: {song.problem?.message}
                  </td>
                )}
                <td className="tabular">{new Date(song.updatedAt).toLocaleDateString([], { dateStyle: "medium" })}</td>
                <td>
                  <div className="actions">
                    {song.contents ? (
                      <>
                        <Link className="button primary" to={`/songs/${song.id}/chords`} aria-label={`Open ${song.title}`}>
                          Open
                        </Link>
                        <button type="button" onClick={() => void api.duplicate(song.id).then(refresh, fail)}>
                          Duplicate
                        </button>
                      </>
                    ) : (
                      <a className="button" href={api.documentUrl(song.id)} download aria-label={`Save ${song.title} to a file`}>
                        Save to a file
                      </a>
                    )}
                    <button type="button" onClick={() => void remove(song)} aria-label={`Delete ${song.title}`}>
                      Delete
                    </button>
                  </div>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <section className="steps">
        <h2>From a chord line to a bass line</h2>
        <ol>
          <li>
            Make a song and type its <b>chord line</b>, for example <code>| Ebmaj9 | Cm7 F7sus4 F7 | Bbm7 Eb9 | Abmaj7 |</code>. It is
            voiced for the keyboard at once.
          </li>
          <li>
            Paint a <b>kick</b> into the drum grid. Kicks on a beat or clearly loud are the accents the bass has to meet.
          </li>
          <li>
            Have <b>bass lines</b> written in a style, hear them in place, take one, change what you like.
          </li>
          <li>
            Read in <b>Check</b> what is wrong and why; hear each way out before you take it.
          </li>
          <li>
            <b>Hand over</b> a MIDI file. Tomorrow everything is still here.
          </li>
        </ol>
      </section>
      <footer className="small">Everything stays on this machine.</footer>
    </main>
  );
}
