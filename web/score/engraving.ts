import {
  Clef,
  type Element,
  GhostNote,
  MultiMeasureRest,
  Renderer,
  Stave,
  StaveConnector,
  StaveNote,
  TabStave,
  type RenderContext,
} from "vexflow/bravura";
import {
  type EngravedPart,
  type EngravedStaff,
  firstOf,
  lastOf,
  Notation,
  nth,
  sure,
  type Tablature,
} from "../../core/src/index";
import { barOf, DOWN, tabBar, UP } from "./bars";
import {
  drawTies,
  formatBar,
  looseVoice,
  spotsOf,
  symbolVoice,
  type BarBox,
  type Drawn,
  type Pending,
} from "./formatting";
import { layOutSheet, placesOf, type Line, type Placed, type SheetOptions, type Spot } from "./sheet";
import { type StaffPart } from "./rows";
import { TAB_GAP, type Row } from "./rows";
import "./sheet.scss";
import { shrinkModifier, shrinkNote, SMALL_GAP } from "./small";
import { Marks, type Chorded } from "./marks";

const SIGNATURES = ["Cb", "Gb", "Db", "Ab", "Eb", "Bb", "F", "C", "G", "D", "A", "E", "B", "F#", "C#"];
const signatureOf = (part: EngravedPart): string => nth(SIGNATURES, part.key.signature + 7);

/** A head that was drawn, and the note it stands for. */
interface Head {
  head: Element;
  note: string;
  part: string;
}

interface Sheet {
  parts: readonly StaffPart[];
  options: SheetOptions;
  /** Heads that were drawn. */
  heads: Head[];
  pending: Pending;
}

/** One line that is being drawn. */
interface DrawnLine extends Sheet {
  line: Line;
  index: number;
  context: RenderContext;
  svg: SVGElement;
  chorded: Chorded[];
  spots: Spot[];
}

/** Lets the page breathe between lines. */
const pause = () => new Promise((resolve) => setTimeout(resolve));

/**
 * Draws parts bar by bar on lines that fit the width. Each line is drawn in a task of its own; null when it was called
 * off. The sheet is exchanged when all of it is drawn.
 */
export async function drawStaves(
  host: HTMLElement,
  parts: readonly StaffPart[],
  options: SheetOptions,
  stop: { on: boolean },
): Promise<Placed | null> {
  await document.fonts.ready;
  if (!parts.length || stop.on) {
    host.replaceChildren();
    return { labels: [], at: () => null };
  }
  const drawing = document.createElement("div");
  const lines = layOutSheet(parts, options);
  const spots: Spot[] = [];
  const sheet: Sheet = { parts, options, heads: [], pending: new Map() };
  const marks = new Marks(parts, options);
  for (const [index, line] of lines.entries()) {
    await pause();
    if (stop.on) return null;
    const div = document.createElement("div");
    div.className = "sheet-system";
    drawing.appendChild(div);
    const renderer = new Renderer(div, Renderer.Backends.SVG);
    // The last bar line stands on the edge.
    renderer.resize((options.width + 2) * options.scale, line.rows.height * options.scale);
    const context = renderer.getContext();
    context.scale(options.scale, options.scale);
    context.setFillStyle("currentColor").setStrokeStyle("currentColor");
    div.style.setProperty("--text", String(options.text));
    const drawn: DrawnLine = {
      ...sheet,
      line,
      index,
      context,
      svg: sure(div.querySelector("svg")),
      chorded: [],
      spots,
    };
    if (!(await drawLine(drawn, stop))) return null;
    marks.write(drawn.svg, line, index, { chorded: drawn.chorded, spots: spots.filter((s) => s.line === index) });
    sheet.pending.clear();
  }
  if (stop.on) return null;
  host.replaceChildren(drawing);
  // Drawn heads are found once they are on the page.
  for (const { head, note, part } of sheet.heads) {
    const drawn = head.getSVGElement();
    drawn?.classList.add("staff-note");
    drawn?.setAttribute("data-note", note);
    drawn?.setAttribute("data-part", part);
  }
  return placesOf(parts, spots, lines);
}

/** As long as a piece of a line may keep the page waiting, in milliseconds. */
const PATIENCE = 16;

/** Draws a line, bar by bar; false when it was called off. */
async function drawLine(drawn: DrawnLine, stop: { on: boolean }): Promise<boolean> {
  const { line, index, options } = drawn;
  let x = options.margin;
  let since = performance.now();
  for (const [i, b] of line.bars.entries()) {
    const box = { ...b, x, first: i === 0, opening: i === 0 && index === 0 };
    if (b.span > 1) drawCounted(drawn, box);
    else drawBar(drawn, box);
    x += b.width;
    if (performance.now() - since < PATIENCE) continue;
    await pause();
    if (stop.on) return false;
    since = performance.now();
  }
  return true;
}

const BAR_LINE = { single: 1, double: 2, end: 3, repeatBegin: 4, repeatEnd: 5 } as const;

/** Draws all staves of one bar. */
function drawBar(sheet: DrawnLine, box: BarBox): void {
  const { parts, context } = sheet;
  const drawn: Drawn[] = [];
  const staves: Stave[] = [];
  for (const [p, part] of parts.entries()) {
    const own = part.staves.map((staff, i) => {
      const row = nth(nth(sheet.line.rows.parts, p), i);
      const voices = drawStaff(sheet, { p, i, staff }, row, box);
      const stave = firstOf(voices).stave;
      drawn.push(...voices);
      staves.push(stave);
      if (part.tab && row.tab) {
        const tab = drawTab(sheet, part.tab, firstOf(voices), { y: row.tab.y, box });
        drawn.push(tab);
        staves.push(tab.stave);
      }
      return stave;
    });
    brace(sheet, own, box);
  }
  const length = firstOf(parts).meter.bar;
  const begin = Math.max(...staves.map((s) => s.getNoteStartX()));
  const symbols = symbolVoice(sheet.options, length, box, firstOf(staves));
  formatBar(drawn, symbols, begin, { box, context });
  for (const d of drawn) sheet.heads.push(...headsOf(d, parts));
  connect(sheet, staves, box);
  for (const d of drawn) if (!(d.stave instanceof TabStave)) drawTies(context, d.bar, d.id, sheet.pending);
  for (const d of drawn)
    d.bar?.chords.forEach((chord, k) => {
      const note = sure(d.bar).notes[k];
      if (note instanceof StaveNote)
        sheet.chorded.push({ part: d.part, staff: d.staff, second: d.second, bar: box.bar, chord, note });
    });
  sheet.spots.push(...spotsOf(drawn, symbols, { length, index: sheet.index }, { begin, box }));
}

/** Bar lines through all staves. */
function connect({ context, options, parts }: DrawnLine, staves: readonly Stave[], { bar, span, first }: BarBox): void {
  const [top, foot] = [firstOf(staves), lastOf(staves)];
  const last = bar + span === options.bars;
  let right: "singleRight" | "boldDoubleRight" | "thinDouble";
  if (!last) right = "singleRight";
  else if (options.closes || options.times > 1) right = "boldDoubleRight";
  else right = "thinDouble";
  new StaveConnector(top, foot).setType(right).setContext(context).draw();
  if (first && (staves.length > 1 || parts.length > 1))
    new StaveConnector(top, foot).setType("singleLeft").setContext(context).draw();
}

/** The eight at a clef that is read an octave off. */
function octaveSign(octave: number): "8vb" | "8va" | undefined {
  if (octave === 0) return undefined;
  return octave < 0 ? "8vb" : "8va";
}

function lastBarLine({ times, closes }: DrawnLine["options"]): (typeof BAR_LINE)[keyof typeof BAR_LINE] {
  if (times > 1) return BAR_LINE.repeatEnd;
  return closes ? BAR_LINE.end : BAR_LINE.double;
}

/**
 * A staff without its notes: clef and signature where its line begins, the bar lines, a change of clef before the next
 * bar.
 */
function staveOf(
  sheet: DrawnLine,
  part: StaffPart,
  staff: EngravedStaff,
  { row, box }: { row: Row; box: BarBox },
): Stave {
  const { options, context } = sheet;
  const stave = new Stave(box.x, row.y, box.width, part.small ? { spacingBetweenLinesPx: SMALL_GAP } : {});
  const clef = staff.readings[Math.max(0, box.bar)]?.clef ?? staff.clef;
  const eight = octaveSign(staff.octave);
  if (box.first) {
    stave.addClef(clef, "default", eight).addKeySignature(signatureOf(part));
    if (box.opening && !part.small && options.time) stave.addTimeSignature(firstOf(part.meter.text.split(" ")));
  }
  const after = staff.readings[box.bar + box.span]?.clef;
  if (after && after !== clef) stave.addEndClef(after, "small", eight);
  if (part.small) stave.getModifiers().forEach(shrinkModifier);
  if (options.times > 1 && box.bar === 0) stave.setBegBarType(BAR_LINE.repeatBegin);
  if (box.bar + box.span === options.bars) stave.setEndBarType(lastBarLine(options));
  stave.setContext(context).draw();
  return stave;
}

function drawStaff(
  sheet: DrawnLine,
  { p, i, staff }: { p: number; i: number; staff: EngravedStaff },
  row: Row,
  box: BarBox,
): Drawn[] {
  const part = nth(sheet.parts, p);
  const stave = staveOf(sheet, part, staff, { row, box });
  const clef = staff.readings[Math.max(0, box.bar)]?.clef ?? staff.clef;
  const voices = Notation.voicesIn(staff, box.bar);
  const id = `${part.part}.${i}`;
  const about = { part: p, staff: i, stave };
  const empty: Drawn = {
    id,
    ...about,
    second: false,
    voice: looseVoice([new GhostNote({ duration: "q" })]),
    bar: null,
  };
  const made = voices.flatMap((chords, v): Drawn[] => {
    if (!chords.length) return [];
    const stems = () => {
      if (voices.length < 2) return undefined;
      if (v === 0) return UP;
      return DOWN;
    };
    const bar = barOf(
      chords,
      clef,
      { meter: part.meter, text: sheet.options.text },
      { stem: stems(), other: voices[1 - v] },
    );
    if (part.small) for (const note of bar.notes) if (note instanceof StaveNote) shrinkNote(note);
    return [{ id: v ? `${id}.second` : id, ...about, second: v > 0, voice: looseVoice(bar.notes), bar }];
  });
  return made.length ? made : [empty];
}

/** Silent bars that are counted together; no symbols stand over them. */
function drawCounted(sheet: DrawnLine, box: BarBox): void {
  const staves: Stave[] = [];
  for (const [p, part] of sheet.parts.entries()) {
    const own = part.staves.map((staff, i) => {
      const row = nth(nth(sheet.line.rows.parts, p), i);
      const stave = staveOf(sheet, part, staff, { row, box });
      const rest = new MultiMeasureRest(box.span, { numberOfMeasures: box.span, showNumber: true });
      rest.setStave(stave).setContext(sheet.context).draw();
      staves.push(stave);
      if (part.tab && row.tab) staves.push(emptyTab(sheet, part.tab, row.tab.y, { box, stave }));
      return stave;
    });
    brace(sheet, own, box);
  }
  connect(sheet, staves, box);
  const { bar } = firstOf(sheet.parts).meter;
  sheet.spots.push({ tick: box.bar * bar, x: box.x + 30, line: sheet.index, counted: true });
  sheet.spots.push({ tick: (box.bar + box.span) * bar - 1, x: box.x + box.width - 8, line: sheet.index });
}

function brace({ context }: DrawnLine, own: readonly Stave[], { first }: BarBox): void {
  if (first && own.length > 1)
    new StaveConnector(firstOf(own), nth(own, 1)).setType("brace").setContext(context).draw();
}

/** "TAB" for four strings (SMuFL, fourStringTabClef). */
const FOUR_STRINGS = "\uE06E";

function emptyTab(
  { context, options }: DrawnLine,
  tab: Tablature,
  y: number,
  { box: { x, width, first, bar, span }, stave }: { box: BarBox; stave: Stave },
): TabStave {
  const tabStave = new TabStave(x, y, width, { numLines: tab.strings, spacingBetweenLinesPx: TAB_GAP });
  if (first) {
    tabStave.addTabGlyph();
    // The sign for six strings is too tall for four.
    const sign = tabStave.getModifiers().find((m) => m instanceof Clef);
    if (sign && tab.strings < 6)
      Object.assign(sign, { text: tab.strings < 5 ? FOUR_STRINGS : sign.getText(), line: (tab.strings - 1) / 2 });
  }
  if (bar + span === options.bars)
    tabStave.setEndBarType(options.times > 1 || options.closes ? BAR_LINE.end : BAR_LINE.double);
  tabStave.setNoteStartX(stave.getNoteStartX());
  tabStave.setContext(context).draw();
  return tabStave;
}

function drawTab(sheet: DrawnLine, tab: Tablature, notes: Drawn, { y, box }: { y: number; box: BarBox }): Drawn {
  const stave = emptyTab(sheet, tab, y, { box, stave: notes.stave });
  const moments = box.bar < 0 ? tab.pickup : nth(tab.measures, box.bar);
  return {
    ...notes,
    id: "",
    second: true,
    voice: looseVoice(tabBar(notes.bar, moments, tab.strings)),
    stave,
    bar: null,
  };
}

/** The heads of a voice with the notes they stand for. */
function headsOf({ bar, part }: Drawn, parts: readonly StaffPart[]): Head[] {
  return (bar?.chords ?? []).flatMap((c, i) => {
    const note = sure(bar).notes[i];
    return note instanceof StaveNote
      ? c.notes.flatMap((n, k) =>
          note.noteHeads[k] ? [{ head: note.noteHeads[k], note: n.id, part: nth(parts, part).part }] : [],
        )
      : [];
  });
}
