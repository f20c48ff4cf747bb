import type { StaveNote } from "vexflow/bravura";
import {
  type Dynamic,
  type EngravedChord,
  firstOf,
  lastOf,
  Notation,
  nth,
  type SungSyllable,
  type Ticks,
} from "../../core/src/index";
import { VERSE, type Row } from "./rows";
import type { Line, SheetOptions, Spot } from "./sheet";
import type { StaffPart } from "./rows";
import { widthOf, writeLine, writeSymbol, writeText } from "./svg";

/** A chord as it was drawn on a line. */
export interface Chorded {
  part: number;
  staff: number;
  second: boolean;
  bar: number;
  chord: EngravedChord;
  note: StaveNote;
}

/** Signs of loudness (SMuFL, dynamics). */
const DYNAMICS: Record<Dynamic, string> = {
  ppp: "\uE52A",
  pp: "\uE52B",
  p: "\uE520",
  mp: "\uE52C",
  mf: "\uE52D",
  f: "\uE522",
  ff: "\uE52F",
  fff: "\uE530",
};

const headX = (note: StaveNote): number => note.getNoteHeadBeginX();
const endX = (note: StaveNote): number => note.getNoteHeadEndX();

/** Whether a chord begins before a tick, where there is one; `more` ticks later will do too. */
const isBefore = (chord: EngravedChord | undefined, tick: Ticks | null, more = 0): boolean =>
  chord !== undefined && tick !== null && chord.start < tick + more;

/** A syllable that goes on: where its text ends, and how far it is held. */
interface Open {
  syllable: SungSyllable;
  end: number;
  reach: number;
}

/**
 * What is written around the notes of a sheet, line by line: words, loudness, slides, lines of octaves, breaths,
 * symbols, numbers of bars.
 */
export class Marks {
  /** Syllables that go on into the next line, by staff and verse. */
  private readonly open = new Map<string, readonly (Open | null)[]>();

  constructor(
    private readonly parts: readonly StaffPart[],
    private readonly options: SheetOptions,
  ) {}

  write(
    svg: SVGElement,
    line: Line,
    index: number,
    { chorded, spots }: { chorded: readonly Chorded[]; spots: readonly Spot[] },
  ): void {
    const { options, parts } = this;
    const right = options.width - 4;
    parts.forEach((part, p) =>
      part.staves.forEach((_, s) => {
        const row = nth(nth(line.rows.parts, p), s);
        const own = chorded.filter((c) => c.part === p && c.staff === s);
        this.words(svg, row, `${p}.${s}`, { own, right });
        this.loudness(svg, row, own);
        for (const second of [false, true])
          this.slides(
            svg,
            own.filter((c) => c.second === second),
            right,
          );
        this.octaves(svg, row, part, { s, own });
      }),
    );
    this.breaths(svg, line, spots);
    this.symbols(svg, spots);
    this.margins(svg, line, index);
  }

  /** Words under their notes: hyphens between syllables, a line as long as one is held. */
  private words(
    svg: SVGElement,
    row: Row,
    id: string,
    { own, right }: { own: readonly Chorded[]; right: number },
  ): void {
    const line = own.filter((c) => c.chord.notes.length > 0);
    const open = this.open.get(id) ?? [];
    const verses = Math.max(open.length, ...line.map((c) => c.chord.words?.length ?? 0));
    this.open.set(
      id,
      Array.from({ length: verses }, (_, v) =>
        this.verse(svg, line, open[v] ?? null, { v, y: row.words + v * VERSE, right }),
      ),
    );
  }

  /** One verse of a row, after the syllable that is open before it; gives what is left open. */
  private verse(
    svg: SVGElement,
    line: readonly Chorded[],
    before: Open | null,
    { v, y, right }: { v: number; y: number; right: number },
  ): Open | null {
    let open = before && { ...before, end: this.options.margin + 40, reach: 0 };
    let tied = false;
    for (const { chord, note } of line) {
      const syllable = chord.words?.[v];
      if (syllable) {
        const x = headX(note) - 3;
        this.goOn(svg, open, x, y);
        const end = x + widthOf(syllable.text, "syllable") * this.options.text;
        writeText(svg, "syllable", syllable.text, { x, y });
        open = { syllable, end, reach: endX(note) };
      } else if (open && (tied || isBefore(chord, open.syllable.until, 1))) open.reach = endX(note);
      tied = chord.notes.some((n) => n.tied);
    }
    if (!open) return null;
    const { goesOn, until } = open.syllable;
    if (goesOn) this.hyphens(svg, open.end, Math.min(right, open.end + 60), { y, most: 1 });
    else this.extender(svg, open, y);
    const last = line.at(-1)?.chord;
    return goesOn || tied || isBefore(last, until) ? open : null;
  }

  private goOn(svg: SVGElement, open: Open | null, x: number, y: number): void {
    if (!open) return;
    if (open.syllable.goesOn) this.hyphens(svg, open.end, x, { y });
    else this.extender(svg, open, y, x - 6);
  }

  private hyphens(
    svg: SVGElement,
    from: number,
    to: number,
    { y, most = Infinity }: { y: number; most?: number | undefined },
  ): void {
    const gap = to - from;
    if (gap < 5) return;
    const many = Math.min(most, Math.max(1, Math.floor(gap / 90)));
    for (let k = 1; k <= many; k++)
      writeText(svg, "syllable", "-", { x: from + (gap * k) / (many + 1), y, anchor: "middle" });
  }

  private extender(svg: SVGElement, { end, reach, syllable }: Open, y: number, most = Infinity): void {
    const to = Math.min(reach, most);
    if (to - end > 8 && !syllable.goesOn)
      writeLine(svg, "extender", [
        [end + 2, y],
        [to, y],
      ]);
  }

  private loudness(svg: SVGElement, row: Row, own: readonly Chorded[]): void {
    const above = own.some((c) => c.chord.words?.length);
    const y = above ? row.high + 20 : row.low - 6;
    for (const { chord, note } of own) {
      if (chord.dynamic) writeText(svg, "dynamic", DYNAMICS[chord.dynamic], { x: headX(note) - 4, y });
      if (chord.swell && chord.notes.length) {
        const [from, to] = [headX(note), Math.max(headX(note) + 46, endX(note) + 30)];
        writeLine(svg, "hairpin", [
          [to, y - 9],
          [from, y - 4],
          [to, y + 1],
        ]);
      }
    }
  }

  /** A line to the next note, or off the head where nothing follows at once. */
  private slides(svg: SVGElement, own: readonly Chorded[], right: number): void {
    own.forEach(({ chord, note }, i) => {
      const next = own[i + 1];
      chord.notes.forEach((n, k) => {
        if (n.slide === undefined) return;
        const [x, y] = [endX(note) + 3, nth(note.getYs(), k)];
        const follows = next && next.chord.notes.length > 0 && next.chord.start === chord.start + chord.ticks;
        if (follows) {
          const target = Math.max(
            0,
            next.chord.notes.findIndex((o) => o.pitch === n.slide),
          );
          writeLine(svg, "slide", [
            [x, y],
            [headX(next.note) - 4 - (next.chord.notes[target]?.accidental ? 10 : 0), nth(next.note.getYs(), target)],
          ]);
        } else {
          const falls = Notation.staffStep(n.slide) < Notation.staffStep(n.pitch);
          writeLine(svg, "slide", [
            [x, y],
            [Math.min(right, x + 20), y + (falls ? 12 : -12)],
          ]);
        }
      });
    });
  }

  private octaves(
    svg: SVGElement,
    row: Row,
    part: StaffPart,
    { s, own }: { s: number; own: readonly Chorded[] },
  ): void {
    const { readings } = nth(part.staves, s);
    let run: Chorded[] = [];
    const close = () => {
      const notes = run.filter((c) => c.chord.notes.length);
      const shift = readings[Math.max(0, run[0]?.bar ?? 0)]?.shift ?? 0;
      run = [];
      if (!notes.length || !shift) return;
      const y = shift > 0 ? row.high + 12 : row.low - 2;
      const [from, to] = [Math.min(...notes.map((c) => headX(c.note))), Math.max(...notes.map((c) => endX(c.note)))];
      writeText(svg, "octaves", shift > 0 ? "8va" : "8vb", { x: from - 4, y });
      if (to - from > 26)
        writeLine(svg, "octave-line", [
          [from + 24, y - 5],
          [to + 4, y - 5],
          [to + 4, y - 5 + 8 * shift],
        ]);
    };
    for (const c of own) {
      if (run.length && readings[Math.max(0, c.bar)]?.shift !== readings[Math.max(0, firstOf(run).bar)]?.shift) close();
      run.push(c);
    }
    close();
  }

  private breaths(svg: SVGElement, line: Line, spots: readonly Spot[]): void {
    this.parts.forEach((part, p) => {
      const row = firstOf(nth(line.rows.parts, p));
      for (const tick of part.breaths ?? []) {
        const at = spots.find((s) => s.tick === tick) ?? spots.find((s) => s.tick === tick - 1);
        if (at) writeText(svg, "breath", "’", { x: at.x - 12, y: row.top - 4 });
      }
    });
  }

  private symbols(svg: SVGElement, spots: readonly Spot[]): void {
    for (const { start, text } of this.options.symbols) {
      const at = text === undefined ? undefined : spots.find((s) => s.tick === start && !s.counted);
      if (at && text !== undefined) writeSymbol(svg, text, { x: at.x - 4, y: 20 * this.options.text });
    }
  }

  /** The number of the first bar of each line, names of the staves at the first one, how often it is played. */
  private margins(svg: SVGElement, line: Line, index: number): void {
    const { options, parts } = this;
    const top = firstOf(firstOf(line.rows.parts)).top;
    const bar = firstOf(line.bars).bar;
    if (bar > 0 || (bar === 0 && options.first > 1))
      writeText(svg, "number", String(options.first + bar), { x: options.margin - 2, y: top - 8, anchor: "end" });
    if (options.names && index === 0)
      parts.forEach((part, p) => {
        const rows = nth(line.rows.parts, p);
        this.name(svg, part, (firstOf(rows).top + lastOf(rows).foot) / 2);
      });
    if (options.times > 2 && line.bars.some((b) => b.bar + b.span === options.bars))
      writeText(svg, "times", `${options.times} times`, { x: options.width - 2, y: top - 8, anchor: "end" });
  }

  /** The name of a part in the middle before its staves. */
  private name(svg: SVGElement, part: StaffPart, y: number): void {
    const lines = nameLines(part.name);
    const size = NAME_LINE * this.options.text;
    lines.forEach((text, i) =>
      writeText(svg, "part-name", text, { x: 2, y: y + 4 + (i - (lines.length - 1) / 2) * size }),
    );
  }
}

const NAME_LINE = 14;
/** Letters on a line of a name. */
const LONG = 12;

/** A name on lines of about a dozen letters. */
export function nameLines(name: string): string[] {
  const lines: string[] = [];
  for (const word of name.split(" ")) {
    const last = lines.at(-1);
    if (last !== undefined && last.length + word.length < LONG) lines[lines.length - 1] = `${last} ${word}`;
    else lines.push(word);
  }
  return lines;
}
