import { Key, must, Notation, nth, type PageBlock, type Pages, type Semitones, type Song } from "../../core/src/index";
import { PAPERS, type Paper } from "../score/pageStaves";
import { symbolWidth } from "../score/svg";
import { ChordName } from "../kit/ChordName";
import { BlockHead, FormHead } from "./Paper";

interface ChartBar {
  bar: number;
  /** Symbols that begin in it, by their place from 0 to 1; none where the chord before goes on. */
  chords: { at: number; symbol: string }[];
  /** It repeats the bar before. */
  same: boolean;
}

/** Chords of a block bar by bar. */
function barsOf({ chords, bars, meter }: PageBlock): ChartBar[] {
  const out: ChartBar[] = [];
  for (let bar = 0; bar < bars; bar++) {
    const here = chords
      .filter((c) => c.start >= bar * meter.bar && c.start < (bar + 1) * meter.bar)
      .map((c) => ({ at: (c.start - bar * meter.bar) / meter.bar, symbol: c.symbol }));
    const before = out[bar - 1];
    const text = (list: readonly { at: number; symbol: string }[]) => JSON.stringify(list);
    const held = here.length === 0 && before !== undefined;
    const first = before && (before.same ? out.findLast((b) => !b.same) : before);
    const same =
      bar % PER_LINE !== 0 && first !== undefined && (held || (here.length > 0 && text(here) === text(first.chords)));
    out.push({ bar, chords: here, same });
  }
  return out;
}

/** Bars on a line of the chart. */
const PER_LINE = 4;

/** Where chords stand in a bar, in hundredths of it; sizes of their letters. */
const [LEFT, SPREAD] = [7, 91];
const [LARGE, LEAST] = [22, 12];
/** Size in which widths are measured. */
const MEASURED = 17;

/** The largest size in which the chords of a bar stand beside each other. */
function sizeOf(chords: readonly { at: number; width: number }[], cell: number): number {
  const fits = chords.map((c, i) => (((chords[i + 1]?.at ?? 1) - c.at) * SPREAD * cell) / 100 / (c.width + 4));
  return Math.max(LEAST, Math.min(LARGE, Math.floor(MEASURED * Math.min(...fits))));
}

/** The chords in bars, section by section. */
export function ChordChart({
  song,
  pages,
  paper,
  transposition,
}: {
  song: Song;
  pages: Pages;
  paper: Paper;
  transposition: Semitones;
}) {
  const cell = PAPERS[paper].width / PER_LINE;
  const names = (chords: ChartBar["chords"]) =>
    chords.map((c) => ({ at: c.at, width: symbolWidth(Notation.writtenSymbol(c.symbol, transposition)) }));
  const keys = pages.blocks.map((b) => Notation.writtenKey(b.key, transposition).key);
  return (
    <FormHead
      song={song}
      pages={pages}
      paper={paper}
      reader="Chord chart"
      written={keys[0] ?? must(Key.parse(song.key))}
    >
      {pages.blocks.map((block, i) => (
        <section key={block.pass} className="page-section chart-section">
          <BlockHead
            block={block}
            written={nth(keys, i)}
            {...(i > 0 ? { before: nth(pages.blocks, i - 1), writtenBefore: nth(keys, i - 1) } : {})}
          />
          <ol
            className="chart"
            aria-label={`${block.name}, ${block.bars} bars`}
            data-times={block.times > 1 ? block.times : undefined}
          >
            {barsOf(block).map(({ bar, chords, same }) => (
              <li
                key={bar}
                className={[
                  bar === 0 && block.times > 1 && "opens",
                  bar === block.bars - 1 && (block.times > 1 ? "repeats" : "ends"),
                ]
                  .filter(Boolean)
                  .join(" ")}
              >
                {bar % PER_LINE === 0 && <span className="page-number">{block.first + bar}</span>}
                {same ? (
                  <span className="chart-same" aria-label="as the bar before">
                    𝄎
                  </span>
                ) : (
                  chords.map((c) => (
                    <span
                      key={c.at}
                      className="chart-chord"
                      style={{ left: `${LEFT + c.at * SPREAD}%`, fontSize: sizeOf(names(chords), cell) }}
                    >
                      <ChordName symbol={Notation.writtenSymbol(c.symbol, transposition)} />
                    </span>
                  ))
                )}
                {!same && chords.length === 0 && <span className="chart-same muted">–</span>}
              </li>
            ))}
          </ol>
        </section>
      ))}
    </FormHead>
  );
}
