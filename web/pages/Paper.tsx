import { useEffect, useRef, useState, type ReactNode } from "react";
import { feelText, keyName, typeset, type Key, type Meter, type PageBlock, type Pages, type Song } from "../../core/src/index";
import { drawOnPage, PAPERS, type Paper } from "../score/pageStaves";
import type { SheetOptions, StaffPart } from "../score/sheet";
import { keyText } from "../ui/texts";

/** The head of what is handed to a player: the song, for whom, and what holds from the first bar on. */
export function PageHead({
  song,
  paper,
  reader,
  note,
  written,
  pages,
  children,
}: {
  song: Song;
  paper: Paper;
  reader: string;
  note?: string;
  /** The key as it is read; none for drums. */
  written: Key | null;
  pages: Pages;
  children: ReactNode;
}) {
  const first = pages.blocks[0];
  return (
    <article className={`singer-page on-${paper}`} style={{ width: PAPERS[paper].width + 104 }} aria-label={`${reader}, ${song.title}`}>
      <header>
        <h1>{song.title}</h1>
        <p className="for">
          {reader} {note && <span className="muted">{note}</span>}
        </p>
        <p className="facts-line">
          {written && `${keyText(keyName(written))} · `}
          {first?.meter.text}
          {first && (
            <>
              {" · "}
              <span className="tabular">♩ = {round(first.tempo)}</span>
              {feelText(first.swing) && ` · ${feelText(first.swing)}`}
            </>
          )}
        </p>
        <p className="facts-line road-map">{formText(pages)}</p>
      </header>
      {children}
    </article>
  );
}

const round = (tempo: number): number => Math.round(tempo * 100) / 100;

/** "Verse twice – Chorus": the order in which the sections are played. */
export const formText = ({ form }: Pages): string =>
  form.map(({ name, times }) => (times === 1 ? name : times === 2 ? `${name} twice` : `${name} ${times} times`)).join(" – ");

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
    ...(before && writtenBefore && keyName(written) !== keyName(writtenBefore) ? [keyText(keyName(written))] : []),
    ...(before && before.meter.text !== block.meter.text ? [block.meter.text] : []),
    ...(before && before.tempo !== block.tempo ? [`♩ = ${round(block.tempo)}`] : []),
    ...(before && feelText(before.swing) !== feelText(block.swing) ? [feelText(block.swing) || "straight"] : []),
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
}: { parts: readonly StaffPart[]; label: string; paper: Paper; scale: number } & Partial<SheetOptions> & Pick<SheetOptions, "bars">) {
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
  return <div ref={host} className="page-host" role="img" aria-busy={!drawn} aria-label={typeset(label)} />;
}

/** Meters whose time signature has not been seen yet. */
export const newMeter = (blocks: readonly { meter: Meter }[], i: number): boolean =>
  i === 0 || blocks[i]!.meter.text !== blocks[i - 1]!.meter.text;
