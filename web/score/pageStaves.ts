import { engrave, typesetNames, type EngravedPart, type PageSection, type Song } from "../../core/src/index";
import { drawStaves } from "./engraving";
import { MARGIN, stepOf, TOP_LINE, type Placed, type StaffPart } from "./sheet";

/** Room above the first staff for symbols, and for each line of words below the own one. */
const SYMBOLS = 46;
const VERSE = 17;
/** From the place of a part's label up to the top of its staff, as the sheet sets it, and from there to the words. */
const LABEL = 50;
const WORDS = 96;

/** Staves of one section on a singer's page: the tune small, the own line under it. */
export function pageParts(song: Song, section: PageSection, part: string): StaffPart[] {
  const tune = section.tune === null ? null : engrave(song, section.section, section.tune, { written: true });
  const own = engrave(song, section.section, part, { written: true });
  return [
    ...(tune?.ok
      ? [
          {
            ...tune.value,
            small: true,
            room: roomFor(
              section.chords.map((c) => [c.start, typesetNames(c.symbol)]),
              SYMBOL_FONT,
            ),
          },
        ]
      : []),
    ...(own.ok
      ? [
          {
            ...own.value,
            below: Math.max(0, section.verses.length - 1) * VERSE + depthOf(own.value),
            room: roomFor(
              [
                ...section.verses.flat().map((w): [number, string] => [w.start, w.text]),
                ...(tune?.ok ? [] : section.chords.map((c): [number, string] => [c.start, `${typesetNames(c.symbol)} `])),
              ],
              WORD_FONT,
            ),
          },
        ]
      : []),
  ];
}

/** What of a note's depth the words clear anyway, in steps, and the five lines of a staff. */
const CLEAR = 2;
const LINES = 8;

/** How far notes hang below their staff, past where words stand: each step is half a space. */
function depthOf({ staves }: EngravedPart): number {
  const depths = staves.flatMap((staff) =>
    [...staff.pickup, ...staff.measures.flat(), ...staff.second.flat()].flatMap((c) =>
      c.notes.map((n) => TOP_LINE[staff.clef] - LINES - stepOf(n.pitch)),
    ),
  );
  return Math.max(0, Math.max(0, ...depths) - CLEAR) * 5;
}

const WORD_FONT = "13px 'Source Serif 4'";
const SYMBOL_FONT = "600 15px 'Source Serif 4'";

/** How wide texts are, by where they stand; of several at one place the widest. */
function roomFor(texts: readonly (readonly [tick: number, text: string])[], font: string): Map<number, number> {
  const context = document.createElement("canvas").getContext("2d");
  const out = new Map<number, number>();
  if (!context) return out;
  context.font = font;
  for (const [tick, text] of texts) out.set(tick, Math.max(out.get(tick) ?? 0, context.measureText(text).width));
  return out;
}

interface Text {
  text: string;
  kind: "symbol" | "syllable" | "breath" | "number" | "staff";
  tick: number;
  /** From the place of its tick, and from the top of its line. */
  dx: number;
  y: number;
}

/** Everything on a page that is text: symbols, words, breaths, numbers of bars at the beginning of a line, names of the staves. */
function textsOf(section: PageSection, parts: readonly StaffPart[], placed: Placed, bar: number): Text[] {
  const own = placed.labels.at(-1)!.y - LABEL;
  const deep = depthOf(parts.at(-1)!);
  const firsts = new Map<number, number>();
  for (let b = 0; b < section.bars; b++) {
    const top = placed.at(b * bar)?.top;
    if (top !== undefined && !firsts.has(top)) firsts.set(top, b);
  }
  return [
    ...section.chords.map((c): Text => ({ kind: "symbol", text: typesetNames(c.symbol), tick: c.start, dx: -4, y: 8 })),
    ...section.verses.flatMap((line, v) =>
      line.map((w): Text => ({ kind: "syllable", text: w.text, tick: w.start, dx: -3, y: own + WORDS + deep + v * VERSE })),
    ),
    ...section.breaths.map((tick): Text => ({ kind: "breath", text: "’", tick, dx: -13, y: own + 18 })),
    ...[...firsts.values()].map((b): Text => ({ kind: "number", text: String(b + 1), tick: b * bar, dx: NaN, y: own + 22 })),
    ...[...firsts.values()].flatMap((b, k) =>
      parts.map((p, i): Text => ({ kind: "staff", text: k === 0 ? p.name : "", tick: b * bar, dx: NaN, y: placed.labels[i]!.y })),
    ),
  ];
}

/** Draws one section of a singer's page into a host; null when it was called off. */
export async function drawPageSection(
  host: HTMLElement,
  song: Song,
  section: PageSection,
  part: string,
  { width, bar, stop }: { width: number; bar: number; stop: { on: boolean } },
): Promise<void> {
  const parts = pageParts(song, section, part);
  const placed = await drawStaves(host, parts, { width, bars: section.bars, above: SYMBOLS, stop });
  if (!placed || stop.on || !placed.labels.length) return;
  const lines = [...(host.firstElementChild?.children ?? [])] as HTMLElement[];
  for (const line of lines) line.className = "page-line";
  for (const { kind, text, tick, dx, y } of textsOf(section, parts, placed, bar)) {
    const at = placed.at(tick);
    const line = at && lines[Math.round(at.top / at.height)];
    if (!at || !line || !text) continue;
    const span = document.createElement("span");
    span.className = `page-${kind}`;
    span.textContent = text;
    span.style.left = `${Number.isNaN(dx) ? (kind === "staff" ? 0 : MARGIN - 14) : at.x + dx}px`;
    span.style.top = `${y}px`;
    line.appendChild(span);
  }
}
