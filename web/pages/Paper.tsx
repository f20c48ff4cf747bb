import { useEffect, useRef, useState, type ReactNode } from "react";
import { Key, Meter, nth, type PageBlock, type Pages, Pitch, type Song, type Swing } from "../../core/src/index";
import { drawOnPage, PAPERS, type Paper } from "../score/pageStaves";
import type { SheetOptions } from "../score/sheet";
import type { StaffPart } from "../score/rows";
import { keyText } from "../kit/texts";

/**
 * The head of what is handed to a player or singer: the song, for whom, what holds from the first bar on, the order of
 * the sections.
 */
export function PageHead({
  song,
  paper,
  label,
  reader,
  note,
  facts,
  form,
  children,
}: {
  song: Song;
  paper: Paper;
  label: string;
  reader: string;
  note?: string;
  facts: string;
  form: string;
  children: ReactNode;
}) {
  return (
    <article className={`singer-page on-${paper}`} style={{ width: PAPERS[paper].width + 104 }} aria-label={label}>
      <header>
        <h1>{song.title}</h1>
        <p className="for">
          {reader} {note && <span className="muted">{note}</span>}
        </p>
        <p className="facts-line tabular">{facts}</p>
        <p className="facts-line road-map">{form}</p>
      </header>
      {children}
    </article>
  );
}

/** "E♭ major · 4/4 · ♩ = 76 · swung eighths"; drums have no key. */
export const factsText = (
  key: string | null,
  { meter, tempo, swing }: { meter: string; tempo: number; swing: Swing },
): string =>
  [...(key ? [keyText(key)] : []), meter, `♩ = ${round(tempo)}`, Meter.feel(swing)].filter((t) => t).join(" · ");

/** The head of a page that is laid out from the form. */
export function FormHead({
  song,
  paper,
  pages,
  reader,
  note,
  written,
  children,
}: {
  song: Song;
  paper: Paper;
  pages: Pages;
  reader: string;
  note?: string;
  /** The key as it is read; none for drums. */
  written: Key | null;
  children: ReactNode;
}) {
  const first = pages.blocks[0];
  return (
    <PageHead
      song={song}
      paper={paper}
      label={`${reader}, ${song.title}`}
      reader={reader}
      {...(note ? { note } : {})}
      facts={first ? factsText(written && Key.name(written), { ...first, meter: first.meter.text }) : ""}
      form={formText(pages)}
    >
      {children}
    </PageHead>
  );
}

const round = (tempo: number): number => Math.round(tempo * 100) / 100;

/** "Verse twice – Chorus": the order in which the sections are played. */
const formText = ({ form }: Pages): string =>
  form
    .map(({ name, times }) => {
      if (times === 1) return name;
      if (times === 2) return `${name} twice`;
      return `${name} ${times} times`;
    })
    .join(" – ");

/** The name of a section with what is different in it. */
export function BlockHead({
  block,
  before,
  written,
  writtenBefore,
}: {
  block: PageBlock;
  before?: PageBlock;
  written: Key;
  writtenBefore?: Key;
}) {
  const changes = [
    ...(before && writtenBefore && Key.name(written) !== Key.name(writtenBefore) ? [keyText(Key.name(written))] : []),
    ...(before && before.meter.text !== block.meter.text ? [block.meter.text] : []),
    ...(before && before.tempo !== block.tempo ? [`♩ = ${round(block.tempo)}`] : []),
    ...(before && Meter.feel(before.swing) !== Meter.feel(block.swing) ? [Meter.feel(block.swing) || "straight"] : []),
  ];
  return (
    <h2>
      {block.name}
      {block.times > 1 && <span className="small"> {block.times === 2 ? "twice" : `${block.times} times`}</span>}
      {changes.length > 0 && <span className="small"> {changes.join(", ")}</span>}
    </h2>
  );
}

/** Staves of one stretch of music, drawn when they are on the page. */
export function Staves({
  parts,
  label,
  ...options
}: { parts: readonly StaffPart[]; label: string; paper: Paper; scale: number } & Partial<SheetOptions> &
  Pick<SheetOptions, "bars">) {
  const host = useRef<HTMLDivElement>(null);
  const [drawn, setDrawn] = useState(false);
  const settings = JSON.stringify(options);
  useEffect(() => {
    const stop = { on: false };
    setDrawn(false);
    if (host.current)
      void drawOnPage(host.current, parts, JSON.parse(settings) as typeof options, stop).then(() => {
        if (!stop.on) setDrawn(true);
      });
    return () => {
      stop.on = true;
    };
  }, [parts, settings]);
  return <div ref={host} className="page-host" role="img" aria-busy={!drawn} aria-label={Pitch.typesetAll(label)} />;
}

/** Meters whose time signature has not been seen yet. */
export const newMeter = (blocks: readonly { meter: Meter }[], i: number): boolean =>
  i === 0 || nth(blocks, i).meter.text !== nth(blocks, i - 1).meter.text;
