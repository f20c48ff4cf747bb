import { useEffect, useMemo, useRef, useState } from "react";
import { Link, useParams } from "react-router";
import { parseMeter, singerPage, typeset, typesetNames, VOICES, type PageSection, type SingerPage, type Song } from "../../core/src/index";
import { drawPageSection } from "../score/pageStaves";
import { Check } from "../ui/Check";
import { keyText } from "../ui/texts";
import { useOpened } from "./opened";
import "./pages.scss";

/** A page for each singer, printed from the browser or saved as PDF there. */
export function SingerPages() {
  const { id = "" } = useParams();
  const { song, failed } = useOpened(id);
  const [left, setLeft] = useState<readonly string[]>([]);
  const pages = useMemo(
    () =>
      (song?.singers ?? []).flatMap((s) => {
        const page = song && singerPage(song, s.id);
        return page?.ok ? [{ id: s.id, page: page.value }] : [];
      }),
    [song],
  );
  if (failed) return <p className="message">The song cannot be opened: {failed}</p>;
  if (!song) return <p className="message muted">Opening …</p>;
  return (
    <main className="singer-pages">
      <div className="pages-bar controls" role="toolbar" aria-label="Pages">
        <Link to={`/songs/${id}/lines`}>Back to the song</Link>
        {pages.map(({ id: singer, page }) => (
          <Check key={singer} on={!left.includes(singer)} set={(on) => setLeft(on ? left.filter((s) => s !== singer) : [...left, singer])}>
            {page.singer}
          </Check>
        ))}
        <button type="button" className="primary" disabled={!pages.length} onClick={() => window.print()}>
          Print, or save as PDF
        </button>
      </div>
      {!pages.length && (
        <p className="message">
          No singer has a part yet. <Link to={`/songs/${id}/lines`}>In Lines, under Singers,</Link> say who sings what.
        </p>
      )}
      {pages.map(({ id: singer, page }) => !left.includes(singer) && <Page key={singer} song={song} page={page} />)}
    </main>
  );
}

function Page({ song, page }: { song: Song; page: SingerPage }) {
  const voice = VOICES.find((v) => v.id === page.voice)?.title ?? page.voice;
  return (
    <article className="singer-page" aria-label={`Page for ${page.singer}`}>
      <header>
        <h1>{song.title}</h1>
        <p className="for">
          {page.singer} <span className="muted">{voice.toLowerCase()}</span>
        </p>
        <p className="facts-line">
          {keyText(page.key)} · {song.meter} · <span className="tabular">♩ = {song.tempo}</span>
          {song.swing.ratio > 0.52 ? ` · swung ${song.swing.unit === 8 ? "eighths" : "sixteenths"}` : ""}
        </p>
        <p className="facts-line">{page.form.join(" – ")}</p>
      </header>
      {page.sections.map((section) => (
        <Section key={section.section} song={song} page={page} section={section} />
      ))}
      <footer className="small">
        ’ breathe · small notes: the tune. Singing high or loud for long tires the voice: warm up, take breaks.
      </footer>
    </article>
  );
}

/** Width of the staves on the paper, in pixels. */
const WIDTH = 690;

function Section({ song, page, section }: { song: Song; page: SingerPage; section: PageSection }) {
  const host = useRef<HTMLDivElement>(null);
  const [drawn, setDrawn] = useState(false);
  useEffect(() => {
    const stop = { on: false };
    const meter = parseMeter(section.meter);
    setDrawn(false);
    if (meter.ok && host.current)
      void drawPageSection(host.current, song, section, page.part, { width: WIDTH, bar: meter.value.bar, stop }).then(() => {
        if (!stop.on) setDrawn(true);
      });
    return () => {
      stop.on = true;
    };
  }, [song, section, page.part]);
  const other = section.key !== page.key || section.meter !== song.meter || section.tempo !== song.tempo;
  return (
    <section className="page-section" aria-busy={!drawn} aria-label={section.name}>
      <h2>
        {section.name}
        {other && (
          <span className="small">
            {" "}
            {keyText(section.key)}, {section.meter}, ♩ = {section.tempo}
          </span>
        )}
      </h2>
      {section.sings ? (
        section.entrances.map((e) => (
          <p key={e.tick} className="entrance small">
            Enters in {typesetNames(e.words)}.
          </p>
        ))
      ) : (
        <p className="entrance small">Does not sing here: {section.bars} bars.</p>
      )}
      <div ref={host} className="page-host" role="img" aria-label={`${section.name}, ${typeset(page.partName)}`} />
    </section>
  );
}
