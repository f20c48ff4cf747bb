import FormControl from "react-bootstrap/FormControl";
import Table from "react-bootstrap/Table";
import { lazy, Suspense, useCallback, useEffect, useRef, useState } from "react";
import { Link, useNavigate } from "react-router";
import type { SongSummary } from "../../shared/songs";
import { api, ApiProblem } from "../app/api";
import { SongRow } from "./SongRow";
import "./songs.scss";
import { Button } from "../kit/Button";
import { Select } from "../kit/Select";

/** Files are read by the core: it comes after the list. */
const DropFile = lazy(() => import("../kit/DropFile").then((file) => ({ default: file.DropFile })));

/** Ways to begin an empty song: where each leads. */
const BEGINNINGS: readonly { label: string; title: string; workspace: string; tab?: [row: string, tab: string] }[] = [
  {
    label: "chords",
    title: "Type or play a progression; it is voiced at once",
    workspace: "chords",
    tab: ["chords", "write"],
  },
  { label: "a groove", title: "Paint or choose drums first", workspace: "groove", tab: ["groove", "patterns"] },
  {
    label: "a tune",
    title: "Write a line first and have chords found for it",
    workspace: "chords",
    tab: ["chords", "harmonize"],
  },
];

/** So many songs are shown at first, and so many more each time. */
const SHOWN = 50;
/** No more than these are shown: others are found by their titles. */
const MOST = 500;
/** A pause in typing, in milliseconds, after which it is searched. */
const TYPED = 200;

/** Songs as they are stored now, those that are asked for, and what went wrong last. */
function useSongs() {
  const [page, setPage] = useState<{ songs: SongSummary[]; total: number } | null>(null);
  const [search, setSearch] = useState("");
  const [sort, setSort] = useState<"changed" | "title">("changed");
  const [limit, setLimit] = useState(SHOWN);
  const asked = useRef(0);
  const [problem, setProblem] = useState<ApiProblem | null>(null);
  const fail = useCallback(
    (error: unknown) => setProblem(error instanceof ApiProblem ? error : new ApiProblem(0, "unknown", String(error))),
    [],
  );
  const refresh = useCallback(() => {
    const mine = ++asked.current;
    return api.list({ search: search.trim(), sort, limit }).then((list) => {
      if (mine !== asked.current) return;
      setPage(list);
      setProblem(null);
    }, fail);
  }, [fail, search, sort, limit]);
  useEffect(() => {
    const soon = setTimeout(() => void refresh(), search ? TYPED : 0);
    return () => clearTimeout(soon);
  }, [refresh, search]);
  return {
    page,
    search,
    setSearch,
    sort,
    setSort,
    more: () => setLimit(Math.min(MOST, limit + SHOWN)),
    problem,
    fail,
    refresh,
  };
}

type Songs = ReturnType<typeof useSongs>;

/** Which songs are shown, once there are so many that one looks for them. */
function Find({ page, search, setSearch, sort, setSort }: Songs) {
  if (!search && (page?.total ?? 0) <= FEW) return null;
  return (
    <div className="controls" role="search">
      <FormControl
        type="search"
        value={search}
        placeholder="Find a song"
        aria-label="Find a song"
        onChange={(e) => setSearch(e.target.value)}
      />
      <Select<"changed" | "title">
        label="Order"
        value={sort}
        choices={[
          ["changed", "changed last first"],
          ["title", "by title"],
        ]}
        set={setSort}
      />
    </div>
  );
}
const FEW = 8;

/** The songbook: songs opened, begun, renamed, copied and deleted. */
export function SongList() {
  const list = useSongs();
  const { page, problem, fail, refresh } = list;
  const songs = page?.songs ?? null;
  const [deleted, setDeleted] = useState<SongSummary | null>(null);
  useEffect(() => {
    document.title = "Hushed Orchard";
  }, []);
  const remove = (song: SongSummary) => void api.remove(song.id).then(() => (setDeleted(song), refresh()), fail);
  const restore = (song: SongSummary) => void api.restore(song.id).then(() => (setDeleted(null), refresh()), fail);
  const rename = (song: SongSummary, title: string) =>
    void api
      .get(song.id)
      .then((stored) => api.save({ ...stored.song, title }, stored.revision))
      .then(refresh, fail);
  return (
    <main className="songs-page">
      <header>
        <h1>Hushed Orchard</h1>
        <p>Chord progressions, their voicings, and bass lines written against the chords and the kick.</p>
      </header>
      <Begin fail={fail} />
      <Open fail={fail} />
      {problem && (
        <p className="problem" role="alert">
          {problem.message}. {problem.hint}
        </p>
      )}
      {deleted && (
        <p className="undo-note" role="status">
          “{deleted.title}” was deleted. <Button onClick={() => restore(deleted)}>Undo</Button>
        </p>
      )}
      {songs === null && !problem && <p>Opening …</p>}
      <Find {...list} />
      {songs?.length === 0 && (
        <p>{list.search ? "No song has this in its title." : "No songs yet. Begin one above."}</p>
      )}
      {songs && songs.length > 0 && (
        <Table bsPrefix="song-table">
          <thead>
            <tr>
              {["Song", "Key", "Tempo", "Meter", "Bars", "Changed"].map((title) => (
                <th key={title} scope="col">
                  {title}
                </th>
              ))}
              <th scope="col">
                <span className="visually-hidden">Actions</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {songs.map((song) => (
              <SongRow
                key={song.id}
                song={song}
                rename={(title) => rename(song, title)}
                duplicate={() => void api.duplicate(song.id).then(refresh, fail)}
                remove={() => remove(song)}
              />
            ))}
          </tbody>
        </Table>
      )}
      {page && page.songs.length < page.total && (
        <p className="controls">
          <span className="small">
            {page.songs.length} of {page.total} songs
          </span>
          {page.songs.length < MOST && <Button onClick={list.more}>Show more</Button>}
        </p>
      )}
      <Steps />
      <footer className="small">
        <Link to="/about">About, and whose work is in it</Link>
      </footer>
    </main>
  );
}

/** A song from a file of any format that can be opened. */
function Open({ fail }: { fail(error: unknown): void }) {
  const navigate = useNavigate();
  const open = (file: File) =>
    void import("../app/commands/files")
      .then((files) => files.importFile(file))
      .then((id) => void navigate(`/songs/${id}/chords`), fail);
  return (
    <Suspense fallback={<p className="drop-file small">Getting ready to open files …</p>}>
      <DropFile open={open} />
    </Suspense>
  );
}

/** A new song from chords, a groove or a tune. */
function Begin({ fail }: { fail(error: unknown): void }) {
  const [title, setTitle] = useState("");
  const navigate = useNavigate();
  const begin = ({ workspace, tab }: (typeof BEGINNINGS)[number]) =>
    api.create({ title: title.trim() || "Untitled" }).then(async ({ song }) => {
      if (tab) (await import("../app/store/preferences")).openTab(...tab);
      void navigate(`/songs/${song.id}/${workspace}`);
    }, fail);
  return (
    <form
      className="controls begin"
      onSubmit={(e) => {
        e.preventDefault();
        const [first] = BEGINNINGS;
        if (first) void begin(first);
      }}
    >
      <FormControl
        bsPrefix="field"
        aria-label="Title of the new song"
        placeholder="Title of a new song"
        maxLength={200}
        value={title}
        onChange={(e) => setTitle(e.target.value)}
      />
      <span className="muted">begin with</span>
      {BEGINNINGS.map((b, i) => (
        <Button
          key={b.label}
          type={i ? "button" : "submit"}
          className={i ? "" : "primary"}
          title={b.title}
          onClick={i ? () => void begin(b) : undefined}
        >
          {b.label}
        </Button>
      ))}
    </form>
  );
}

/** What a newcomer can do, in order. */
const Steps = () => (
  <section className="steps">
    <h2>From a chord line to a song</h2>
    <ol>
      <li>
        Make a song and type its <b>chord line</b>, for example <code>| Ebmaj9 | Cm7 F7 | Bbm7 Eb9 | Abmaj7 |</code>. It
        is voiced for the keyboard at once.
      </li>
      <li>
        Paint a <b>kick</b> into the drum grid. Kicks on a beat or clearly loud are the accents the bass has to meet.
      </li>
      <li>
        Have <b>bass lines</b> written in a style, hear them in place, take one, change what you like.
      </li>
      <li>
        Put sections together in <b>Form</b>: who plays in each pass, how, in which key, and how it ends.
      </li>
      <li>
        Read in <b>Check</b> what is wrong and why; hear each fix before you take it.
      </li>
      <li>
        <b>Hand over</b> pages for players and singers, a score as MusicXML, a MIDI file, or the song as JSON.
      </li>
    </ol>
  </section>
);
