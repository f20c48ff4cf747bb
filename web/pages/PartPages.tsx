import { useMemo } from "react";
import {
  type EngravedPass,
  firstOf,
  Instrument,
  type Layout,
  must,
  Notation,
  nth,
  type Order,
  type Pages,
  type Part,
  Pitch,
  type Semitones,
  type Song,
  sure,
} from "../../core/src/index";
import { scaleFor, type Paper } from "../score/pageStaves";
import { drawnAs, sheetSymbols, stringsText } from "../score/staffParts";
import type { StaffPart } from "../score/rows";
import { ChordName } from "../kit/ChordName";
import { FretDiagram } from "../kit/FretDiagram";
import { BlockHead, newMeter, FormHead, Staves } from "./Paper";

interface Props {
  song: Song;
  pages: Pages;
  paper: Paper;
}

/** Blocks of one or several parts with their headings. */
function Blocks({
  pages,
  paper,
  passes,
  partsOf,
  name,
  scale,
  counted = false,
}: Omit<Props, "song"> & {
  passes: readonly EngravedPass[];
  partsOf: readonly (readonly StaffPart[])[];
  /** Chord symbols as they are read; null where none are. */
  name: ((symbol: string) => string) | null;
  scale: number;
  counted?: boolean;
}) {
  return pages.blocks.map((block, i) => (
    <section key={block.pass} className="page-section">
      <BlockHead
        block={block}
        written={nth(passes, i).key}
        {...(i > 0 ? { before: nth(pages.blocks, i - 1), writtenBefore: nth(passes, i - 1).key } : {})}
      />
      <Staves
        parts={nth(partsOf, i)}
        label={block.name}
        paper={paper}
        scale={scale}
        bars={block.bars}
        first={block.first}
        times={block.times}
        symbols={name ? sheetSymbols(block.chords, name) : []}
        closes={i === pages.blocks.length - 1}
        time={newMeter(pages.blocks, i)}
        countRests={counted}
      />
    </section>
  ));
}

/** Who reads a part, and what it is played on where the name does not say it. */
function readerOf(song: Song, part: Part): { reader: string; note: string } {
  const title = Pitch.typesetAll(Instrument.of(part.instrument, song).title);
  const named = title.startsWith(part.name);
  const strings = stringsText(song, part);
  return {
    reader: named ? title : part.name,
    note: [...(named ? [] : [title]), ...(strings ? [strings] : [])].join(", "),
  };
}

/** How many staves one line of a part has, with tablature. */
const stavesIn = (drawn: Pick<StaffPart, "staves" | "tab"> | undefined): number =>
  (drawn?.staves.length ?? 1) + (drawn?.tab ? 1 : 0);

/** A part for its player. */
export function PlayerPage({
  song,
  order,
  paper,
  part,
  layout,
}: Omit<Props, "pages"> & { order: Order; part: Part; layout: Layout }) {
  const pages = useMemo(() => Notation.pages(song, order, [part.id]), [song, order, part.id]);
  const own = part.role === "chords" ? layout : "notes";
  const drawn = useMemo(() => {
    const passes = Notation.blocks(song, pages, part.id, { layout: own });
    return passes.ok
      ? {
          passes: passes.value,
          partsOf: passes.value.map((p) => [
            drawnAs(song, part, p, {
              place: { kind: "pass", id: p.pass },
              hits: pages.real.hits,
              notes: own === "notes",
            }),
          ]),
        }
      : null;
  }, [song, pages, part, own]);
  if (!drawn) return null;
  const { transposition } = Instrument.of(part.instrument, song);
  const staves = drawn.partsOf[0]?.[0];
  const name = (symbol: string) => Notation.writtenSymbol(symbol, transposition);
  const drums = part.role === "drums";
  return (
    <FormHead
      song={song}
      pages={pages}
      paper={paper}
      {...readerOf(song, part)}
      written={drums ? null : firstOf(drawn.passes).key}
    >
      {staves?.legend && <p className="entrance small">{staves.legend}</p>}
      {part.role === "chords" && <Diagrams shapes={shapesOf(pages, drawn.partsOf, name)} />}
      <Blocks
        pages={pages}
        paper={paper}
        passes={drawn.passes}
        partsOf={drawn.partsOf}
        name={drums ? null : name}
        scale={scaleFor(stavesIn(staves))}
        counted
      />
    </FormHead>
  );
}

/**
 * The shape each chord is first struck in, as its tablature has it; each symbol and shape once, in the order in which
 * they come.
 */
function shapesOf(pages: Pages, partsOf: readonly (readonly StaffPart[])[], name: (symbol: string) => string) {
  const shapes = new Map<string, { symbol: string; frets: (number | null)[] }>();
  pages.blocks.forEach(({ chords }, i) => {
    const [part] = nth(partsOf, i);
    const { tab, staves } = sure(part);
    if (!tab) return;
    const struck = firstOf(staves).measures.flatMap((bar, k) =>
      bar.map((c, j) => ({ start: c.start, moment: nth(tab.measures, k)[j] })),
    );
    for (const c of chords) {
      const moment = struck.find(
        (m) => m.start >= c.start && m.start < c.start + c.duration && m.moment && !m.moment.held,
      )?.moment;
      if (!moment || moment.places.length < 2) continue;
      const frets = Array.from(
        { length: tab.strings },
        (_, string) => moment.places.find((p) => p.string === string)?.fret ?? null,
      );
      shapes.set(`${c.symbol} ${frets.join()}`, { symbol: name(c.symbol), frets });
    }
  });
  return [...shapes];
}

/** The shapes a comping part on frets holds. */
const Diagrams = ({ shapes }: { shapes: ReturnType<typeof shapesOf> }) =>
  shapes.length > 0 && (
    <ul className="page-shapes" aria-label="Shapes">
      {shapes.map(([id, { symbol, frets }]) => (
        <li key={id}>
          <ChordName symbol={symbol} />
          <FretDiagram shape={{ frets }} />
        </li>
      ))}
    </ul>
  );

/** Tune, words and chords. */
export function LeadSheet({ song, pages, paper, transposition }: Props & { transposition: Semitones }) {
  const drawn = useMemo(() => {
    const tune = Notation.tunePart(song);
    if (!tune.ok) return null;
    // A voice keeps its clef; a player of another instrument reads at the height the tune is sung.
    const passes = must(
      Notation.blocks(song, pages, tune.value.id, transposition ? { transposition } : { written: false }),
    );
    return { tune: tune.value, passes, partsOf: passes.map((p) => [p]) };
  }, [song, pages, transposition]);
  if (!drawn) return <p className="message">No part has notes for a lead sheet yet: write a tune in Lines.</p>;
  return (
    <FormHead
      song={song}
      pages={pages}
      paper={paper}
      reader="Lead sheet"
      note={drawn.tune.name}
      written={firstOf(drawn.passes).key}
    >
      <Blocks
        pages={pages}
        paper={paper}
        passes={drawn.passes}
        partsOf={drawn.partsOf}
        name={(s) => Notation.writtenSymbol(s, transposition)}
        scale={scaleFor(1)}
      />
    </FormHead>
  );
}

/** All chosen parts under each other, as they sound. */
export function ScorePage({ song, pages, paper, parts }: Props & { parts: readonly Part[] }) {
  const drawn = useMemo(() => {
    const all = parts.flatMap((part) => {
      const passes = Notation.blocks(song, pages, part.id, { written: false });
      return passes.ok ? [{ part, passes: passes.value }] : [];
    });
    const partsOf = pages.blocks.map((_, i) =>
      all.map(({ part, passes }): StaffPart => ({ ...nth(passes, i), name: part.name })),
    );
    return { passes: all.find(({ part }) => part.role !== "drums")?.passes ?? all[0]?.passes, partsOf };
  }, [song, pages, parts]);
  if (!drawn.passes) return <p className="message">No part is chosen.</p>;
  const staves = (drawn.partsOf[0] ?? []).reduce((sum, p) => sum + p.staves.length, 0);
  return (
    <FormHead
      song={song}
      pages={pages}
      paper={paper}
      reader="Score"
      note="as it sounds"
      written={firstOf(drawn.passes).key}
    >
      <Blocks
        pages={pages}
        paper={paper}
        passes={drawn.passes}
        partsOf={drawn.partsOf}
        name={(s) => s}
        scale={scaleFor(Math.max(3, staves))}
      />
    </FormHead>
  );
}
