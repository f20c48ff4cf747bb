import {
  Accidental,
  Clef,
  type Element,
  Formatter,
  GhostNote,
  Renderer,
  Stave,
  StaveConnector,
  StaveNote,
  StaveTie,
  TabStave,
  Voice,
  type RenderContext,
  type StemmableNote,
} from "vexflow/bravura";
import { type EngravedChord, type EngravedPart, type EngravedStaff, type Meter } from "../../core/src/index";
import { barOf, DOWN, tabBar, UP, type Bar } from "./bars";
import { layOutSheet, MARGIN, placesOf, rowsOf, TAB_GAP, type Rows, type Line, type Placed, type Spot, type StaffPart } from "./sheet";
import { shrinkModifier, shrinkNote, SMALL_GAP } from "./small";
import type { Tablature } from "./tablature";

const SIGNATURES = ["Cb", "Gb", "Db", "Ab", "Eb", "Bb", "F", "C", "G", "D", "A", "E", "B", "F#", "C#"];
const signatureOf = (part: EngravedPart): string => SIGNATURES[part.key.signature + 7]!;

/** Notes whose ties go on into the next bar, by staff. */
type Pending = Map<string, { note: StaveNote; indices: Map<number, number> }>;

/** A voice of a staff in one bar, ready to be drawn. */
interface Drawn {
  id: string;
  part: string;
  voice: Voice;
  stave: Stave;
  bar: Bar | null;
}

/** A head that was drawn, and the note it stands for. */
interface Head {
  head: Element;
  note: string;
  part: string;
}

interface Sheet {
  heads: Head[];
  parts: readonly StaffPart[];
  meter: Meter;
  bars: number;
  rows: Rows;
  context: RenderContext;
  pending: Pending;
}

/** Chords of a staff in a bar; bar −1 is the pickup. */
export const chordsIn = (staff: EngravedStaff, bar: number): readonly EngravedChord[] => (bar < 0 ? staff.pickup : staff.measures[bar]!);

/** Lets the page breathe between lines. */
const pause = () => new Promise((resolve) => setTimeout(resolve));

/**
 * Draws parts bar by bar on lines that fit the width. Each line is drawn in a task of its own; null when it was called off. The sheet is
 * exchanged when all of it is drawn.
 */
export async function drawStaves(
  host: HTMLElement,
  parts: readonly StaffPart[],
  { width, bars, above, stop }: { width: number; bars: number; above: number; stop: { on: boolean } },
): Promise<Placed | null> {
  await document.fonts.ready;
  const meter = parts[0]?.meter;
  if (!meter || stop.on) {
    host.replaceChildren();
    return { labels: [], at: () => null };
  }
  const sheet = document.createElement("div");
  const { lines, height } = layOutSheet(parts, { width, bars, above });
  const rows = rowsOf(parts, above);
  const spots: Spot[] = [];
  const heads: Head[] = [];
  const pending: Pending = new Map();
  for (const [k, line] of lines.entries()) {
    await pause();
    if (stop.on) return null;
    const div = document.createElement("div");
    sheet.appendChild(div);
    const renderer = new Renderer(div, Renderer.Backends.SVG);
    // The last bar line stands on the edge.
    renderer.resize(width + 2, height);
    const context = renderer.getContext();
    context.setFillStyle("currentColor").setStrokeStyle("currentColor");
    spots.push(...drawLine({ heads, parts, meter, bars, rows, context, pending }, line, k));
    pending.clear();
  }
  if (stop.on) return null;
  host.replaceChildren(sheet);
  // Drawn heads are found once they are on the page.
  for (const { head, note, part } of heads) {
    const drawn = head.getSVGElement();
    drawn?.classList.add("staff-note");
    drawn?.setAttribute("data-note", note);
    drawn?.setAttribute("data-part", part);
  }
  return placesOf(parts, spots, { above, height });
}

function drawLine(sheet: Sheet, line: Line, k: number): Spot[] {
  let x = MARGIN;
  return line.bars.flatMap(({ bar, width }, i) => {
    const spots = drawBar(sheet, bar, { x, width, first: i === 0, opening: i === 0 && k === 0, line: k });
    x += width;
    return spots;
  });
}

interface BarBox {
  x: number;
  width: number;
  /** First bar of its line, and of the sheet. */
  first: boolean;
  opening: boolean;
  line: number;
}

/** Draws all staves of one bar; returns where its places stand. */
function drawBar(sheet: Sheet, bar: number, box: BarBox): Spot[] {
  const { parts, meter, bars, context, pending } = sheet;
  const last = bar === bars - 1;
  const drawn: Drawn[] = [];
  for (const [p, part] of parts.entries()) {
    const own = part.staves.map((staff, i) => {
      const [made, ...under] = drawStaff(sheet, part, staff, bar, { ...box, y: sheet.rows.staves[p]![i]!, id: `${part.part}.${i}` });
      drawn.push(made, ...under);
      if (part.tab && i === 0) drawn.push(drawTab(sheet, part.tab, made.bar, bar, { ...box, y: sheet.rows.tabs[p]!, stave: made.stave }));
      return made.stave;
    });
    if (box.first && own.length > 1) new StaveConnector(own[0]!, own[1]!).setType("brace").setContext(context).draw();
  }
  const begin = Math.max(...drawn.map((s) => s.stave.getNoteStartX()));
  formatBar(drawn, begin, box, context);
  for (const d of drawn) sheet.heads.push(...headsOf(d));
  const [top, foot] = [drawn[0]!.stave, drawn.at(-1)!.stave];
  new StaveConnector(top, foot)
    .setType(last ? "boldDoubleRight" : "singleRight")
    .setContext(context)
    .draw();
  if (box.first) new StaveConnector(top, foot).setType("singleLeft").setContext(context).draw();
  for (const d of drawn) if (!(d.stave instanceof TabStave)) drawTies(context, d.bar, d.id, pending);
  return spotsOf(drawn, bar, meter, begin, box);
}

function drawStaff(
  { meter, bars, context }: Sheet,
  part: StaffPart,
  staff: EngravedStaff,
  bar: number,
  { x, y, width, first, opening, id }: BarBox & { y: number; id: string },
): [Drawn, ...Drawn[]] {
  const stave = new Stave(x, y, width, part.small ? { spacingBetweenLinesPx: SMALL_GAP } : {});
  if (first) {
    stave
      .addClef(staff.clef, "default", staff.octave === 0 ? undefined : staff.octave < 0 ? "8vb" : "8va")
      .addKeySignature(signatureOf(part));
    if (opening && !part.small) stave.addTimeSignature(meter.text.split(" ")[0]!);
  }
  if (part.small) stave.getModifiers().forEach(shrinkModifier);
  if (bar === bars - 1) stave.setEndBarType(3);
  stave.setContext(context).draw();
  const chords = chordsIn(staff, bar);
  const under = bar < 0 ? [] : staff.second[bar]!;
  const made = chords.length ? barOf(chords, staff, part, under.length ? UP : undefined) : null;
  const voice = voiceOf(meter, made ? made.notes : [new GhostNote({ duration: "q" })]);
  const below = under.length ? barOf(under, staff, part, DOWN) : null;
  const voices: [Drawn, ...Drawn[]] = [{ id, part: part.part, voice, stave, bar: made }];
  if (below) voices.push({ id: `${id}.second`, part: part.part, voice: voiceOf(meter, below.notes), stave, bar: below });
  Accidental.applyAccidentals(
    voices.map((v) => v.voice),
    signatureOf(part),
  );
  if (part.small) for (const note of [...(made?.notes ?? []), ...(below?.notes ?? [])]) if (note instanceof StaveNote) shrinkNote(note);
  return voices;
}

/** "TAB" for four strings (SMuFL, fourStringTabClef). */
const FOUR_STRINGS = "\uE06E";

function drawTab(
  { meter, context }: Sheet,
  tab: Tablature,
  notes: Bar | null,
  bar: number,
  { x, y, width, first, stave }: BarBox & { y: number; stave: Stave },
): Drawn {
  const tabStave = new TabStave(x, y, width, { numLines: tab.strings, spacingBetweenLinesPx: TAB_GAP });
  if (first) {
    tabStave.addTabGlyph();
    // The sign for six strings is too tall for four.
    const sign = tabStave.getModifiers().find((m) => m instanceof Clef);
    if (sign && tab.strings < 6)
      Object.assign(sign, { text: tab.strings < 5 ? FOUR_STRINGS : sign.getText(), line: (tab.strings - 1) / 2 });
  }
  tabStave.setNoteStartX(stave.getNoteStartX());
  tabStave.setContext(context).draw();
  const places = bar < 0 ? [] : tab.measures[bar]!;
  return { id: "", part: "", voice: voiceOf(meter, tabBar(notes, places, tab.strings)), stave: tabStave, bar: null };
}

const voiceOf = (meter: Meter, notes: StemmableNote[]): Voice =>
  new Voice({ numBeats: meter.count, beatValue: meter.unit }).setMode(Voice.Mode.SOFT).addTickables(notes);

/** The heads of a voice with the notes they stand for. */
function headsOf({ bar, part }: Drawn): Head[] {
  return (bar?.chords ?? []).flatMap((c, i) => {
    const note = bar!.notes[i];
    return note instanceof StaveNote
      ? c.notes.flatMap((n, k) => (note.noteHeads[k] ? [{ head: note.noteHeads[k], note: n.id, part }] : []))
      : [];
  });
}

/** Sets the notes of all staves under each other, and draws them. */
function formatBar(drawn: readonly Drawn[], begin: number, { x, width }: BarBox, context: RenderContext): void {
  for (const d of drawn) d.stave.setNoteStartX(begin);
  const formatter = new Formatter();
  // Voices of one staff are set beside each other where they meet.
  for (const stave of new Set(drawn.map((d) => d.stave))) formatter.joinVoices(drawn.filter((d) => d.stave === stave).map((d) => d.voice));
  formatter.format(
    drawn.map((d) => d.voice),
    Math.max(20, x + width - begin - 14),
  );
  for (const { voice, stave, bar } of drawn) {
    voice.draw(context, stave);
    for (const beam of bar?.beams ?? []) beam.setContext(context).draw();
    for (const tuplet of bar?.tuplets ?? []) tuplet.setContext(context).draw();
  }
}

/** Where the places of a bar stand. */
function spotsOf(drawn: readonly Drawn[], bar: number, meter: Meter, begin: number, { x, width, line }: BarBox): Spot[] {
  const starts = new Map<number, number>();
  for (const { bar: b } of drawn)
    b?.chords.forEach((c, i) => starts.set(c.start, Math.min(starts.get(c.start) ?? Infinity, b.notes[i]!.getAbsoluteX())));
  if (bar >= 0 && !starts.has(bar * meter.bar)) starts.set(bar * meter.bar, begin + 8);
  return [...[...starts].map(([tick, at]) => ({ tick, x: at, line })), { tick: (bar + 1) * meter.bar - 1, x: x + width - 8, line }];
}

/** Ties, also from the bar before. */
function drawTies(context: RenderContext, bar: Bar | null, id: string, pending: Pending): void {
  let before = pending.get(id) ?? null;
  pending.delete(id);
  bar?.chords.forEach((chord, i) => {
    const note = bar.notes[i] as StaveNote;
    chord.notes.forEach((n, index) => {
      const from = before?.indices.get(n.midi);
      if (before && from !== undefined)
        new StaveTie({ firstNote: before.note, lastNote: note, firstIndexes: [from], lastIndexes: [index] }).setContext(context).draw();
    });
    const tied = chord.notes.flatMap((n, index) => (n.tied ? [[n.midi, index] as const] : []));
    before = tied.length ? { note, indices: new Map(tied) } : null;
  });
  if (before) pending.set(id, before);
}
