import { useMemo, useState } from "react";
import { Link, useParams, useSearchParams } from "react-router";
import { type Layout, Notation, type Order, type Pages, type Part, type Song } from "../../core/src/index";
import { PAPERS, type Paper } from "../score/pageStaves";
import { Check } from "../kit/Check";
import { Select, type Choice } from "../kit/Select";
import { ChordChart } from "./ChordChart";
import { useOpened } from "./opened";
import { LeadSheet, PlayerPage, ScorePage } from "./PartPages";
import { singersWithPages, SingersPages } from "./SingerPages";
import "../kit/style.scss";
import "./pages.scss";
import { Button } from "../kit/Button";

const KINDS = [
  ["lead", "Lead sheet"],
  ["parts", "Parts"],
  ["chart", "Chord chart"],
  ["score", "Score"],
  ["singers", "Singers’ pages"],
] as const satisfies readonly Choice<string>[];
type Kind = (typeof KINDS)[number][0];

const ORDER_CHOICES: readonly Choice<Order>[] = [
  ["once", "each section once"],
  ["through", "as the form goes"],
];
const LAYOUT_WORDS: Record<Layout, string> = { notes: "notes", rhythm: "rhythm on slashes", slashes: "slashes" };
/** Semitones an instrument sounds above what it reads. */
const KEYS_READ: readonly Choice<number>[] = [
  [0, "C, as it sounds"],
  [-2, "B♭, a whole tone higher"],
  [-9, "E♭, a major sixth higher"],
];

/** Parts with something to play. */
const playing = (song: Song, { real }: Pages): Part[] =>
  song.parts.filter((p) =>
    p.role === "drums" ? real.hits.length > 0 : real.parts.some((r) => r.id === p.id && r.notes.length > 0),
  );

/** What is handed to the players, printed from the browser or saved as PDF there. */
export function SongPages() {
  const { id = "" } = useParams();
  const { song, failed } = useOpened(id);
  const [search, setSearch] = useSearchParams();
  const kind: Kind = KINDS.find(([k]) => k === search.get("for"))?.[0] ?? "lead";
  if (failed) return <p className="message">The song cannot be opened: {failed}</p>;
  if (!song) return <p className="message muted">Opening …</p>;
  return <Opened song={song} kind={kind} setKind={(k) => setSearch({ for: k }, { replace: true })} />;
}

interface Listed {
  id: string;
  name: string;
}

/** Players or singers of whom pages can be left out. */
function listedFor(kind: Kind, song: Song, parts: readonly Part[]): readonly Listed[] {
  if (kind === "singers") return singersWithPages(song);
  return kind === "parts" || kind === "score" ? parts : [];
}

/** The parts that stand on a kind of page. */
function partsOn(kind: Kind, song: Song, chosen: readonly Part[]): string[] {
  if (kind === "chart") return [];
  if (kind !== "lead") return chosen.map((p) => p.id);
  const tune = Notation.tunePart(song);
  return tune.ok ? [tune.value.id] : [];
}

function WhoIsPrinted({
  listed,
  left,
  setLeft,
}: {
  listed: readonly Listed[];
  left: readonly string[];
  setLeft(left: readonly string[]): void;
}) {
  if (!listed.length) return null;
  return (
    <span className="pages-chosen">
      {listed.map((p) => (
        <Check
          key={p.id}
          on={!left.includes(p.id)}
          set={(on) => setLeft(on ? left.filter((x) => x !== p.id) : [...left, p.id])}
        >
          {p.name}
        </Check>
      ))}
    </span>
  );
}

function Opened({ song, kind, setKind }: { song: Song; kind: Kind; setKind(kind: Kind): void }) {
  const [paper, setPaper] = useState<Paper>("A4");
  const [order, setOrder] = useState<Order>("once");
  const [layout, setLayout] = useState<Layout>("notes");
  const [read, setRead] = useState(0);
  const [left, setLeft] = useState<readonly string[]>([]);
  const parts = useMemo(() => playing(song, Notation.pages(song, order)), [song, order]);
  const chosen = useMemo(() => parts.filter((p) => !left.includes(p.id)), [parts, left]);
  const about = useMemo(() => partsOn(kind, song, chosen), [song, kind, chosen]);
  const pages = useMemo(() => Notation.pages(song, order, about), [song, order, about]);
  const sheet = { song, pages, paper };
  return (
    <main className="singer-pages">
      <div className="pages-bar controls" role="toolbar" aria-label="Pages">
        <Link to={`/songs/${song.id}/handover`}>Back to the song</Link>
        <Select<Kind> label="What to print" value={kind} set={setKind} choices={KINDS} />
        {kind !== "singers" && (
          <Select<Order> label="Form" text="form" value={order} set={setOrder} choices={ORDER_CHOICES} />
        )}
        {kind === "parts" && parts.some((p) => p.role === "chords") && (
          <Select<Layout>
            label="Comping parts"
            text="comping"
            value={layout}
            set={setLayout}
            choices={Notation.LAYOUTS.map((l): Choice<Layout> => [l, LAYOUT_WORDS[l]])}
          />
        )}
        {(kind === "lead" || kind === "chart") && (
          <Select<number> label="Written in" text="written in" value={read} set={setRead} choices={KEYS_READ} />
        )}
        <Select<Paper>
          label="Paper"
          text="paper"
          value={paper}
          set={setPaper}
          choices={(Object.keys(PAPERS) as Paper[]).map((p): Choice<Paper> => [p, PAPERS[p].title])}
        />
        <Button className="primary" onClick={() => window.print()}>
          Print, or save as PDF
        </Button>
        <WhoIsPrinted listed={listedFor(kind, song, parts)} left={left} setLeft={setLeft} />
      </div>
      {kind === "lead" && <LeadSheet {...sheet} transposition={read} />}
      {kind === "parts" &&
        chosen.map((part) => (
          <PlayerPage key={part.id} song={song} order={order} paper={paper} part={part} layout={layout} />
        ))}
      {kind === "parts" && !chosen.length && <p className="message">No part is chosen, or none has notes yet.</p>}
      {kind === "chart" && <ChordChart {...sheet} transposition={read} />}
      {kind === "score" && <ScorePage {...sheet} parts={chosen} />}
      {kind === "singers" && <SingersPages song={song} paper={paper} left={left} />}
    </main>
  );
}
