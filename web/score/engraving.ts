import {
  Accidental,
  Articulation,
  Beam,
  Clef,
  Dot,
  Formatter,
  Fraction,
  GhostNote,
  ModifierPosition,
  Renderer,
  Stave,
  StaveConnector,
  StaveNote,
  StaveTie,
  TabNote,
  TabStave,
  Tuplet,
  Voice,
  type RenderContext,
  type StemmableNote,
} from "vexflow/bravura";
import {
  EIGHTH,
  QUARTER,
  type EngravedChord,
  type EngravedPart,
  type EngravedStaff,
  type Meter,
  type TabPlace,
} from "../../core/src/index";
import { layOutSheet, MARGIN, placesOf, rowsOf, TAB_GAP, type Rows, type Line, type Placed, type Spot, type StaffPart } from "./sheet";
import { shrinkModifier, shrinkNote, SMALL_GAP, Spacer } from "./small";
import type { Tablature } from "./tablature";

const SIGNATURES = ["Cb", "Gb", "Db", "Ab", "Eb", "Bb", "F", "C", "G", "D", "A", "E", "B", "F#", "C#"];
const signatureOf = (part: EngravedPart): string => SIGNATURES[part.key.signature + 7]!;

const vexKey = (pitch: string): string => {
  const [, name, octave] = /^([A-G](?:bb|b|##|x|#)?)(-?\d+)$/.exec(pitch)!;
  return `${name!.toLowerCase().replace("x", "##")}/${octave}`;
};

const REST_KEY: Record<EngravedStaff["clef"], string> = { treble: "b/4", bass: "d/3", alto: "c/4", tenor: "a/3", percussion: "b/4" };

interface Bar {
  notes: StemmableNote[];
  chords: readonly EngravedChord[];
  tuplets: Tuplet[];
  beams: Beam[];
}

/** Where a rest stands beside another voice: above its staff's middle, or below it. */
const REST_BESIDE: Record<EngravedStaff["clef"], [above: string, below: string]> = {
  treble: ["e/5", "f/4"],
  bass: ["g/3", "a/2"],
  alto: ["f/4", "g/3"],
  tenor: ["d/4", "e/3"],
  percussion: ["e/5", "f/4"],
};
/** Heads of percussion. */
const HEADS: Record<NonNullable<EngravedChord["notes"][number]["head"]>, string> = {
  x: "/x2",
  "circle-x": "/cx",
  diamond: "/d2",
  triangle: "/t2",
};
const UP = 1;
const DOWN = -1;
type Stem = typeof UP | typeof DOWN;

/** One bar of a voice as notes that can be drawn; with a stem direction, one of two voices. */
function barOf(
  chords: readonly EngravedChord[],
  staff: EngravedStaff,
  { meter, room }: Pick<StaffPart, "meter" | "room">,
  stem?: Stem,
): Bar {
  const silent = chords.every((c) => !c.notes.length);
  const list = silent ? [{ ...chords[0]!, value: "w" as const, dots: 0 as const, triplet: false }] : chords;
  const restKey = stem === undefined ? REST_KEY[staff.clef] : REST_BESIDE[staff.clef][stem === UP ? 0 : 1];
  const notes = list.map((c): StemmableNote => {
    const rest = !c.notes.length;
    const duration = `${c.value}${c.dots ? "d" : ""}`;
    if (c.hidden) return new GhostNote({ duration, dots: c.dots });
    const note = new StaveNote({
      clef: staff.clef,
      keys: rest ? [restKey] : c.notes.map((n) => vexKey(n.pitch) + (n.head ? HEADS[n.head] : "")),
      duration: `${duration}${rest ? "r" : ""}`,
      ...(stem === undefined ? { autoStem: true } : { stemDirection: stem }),
      ...(silent ? { alignCenter: true } : {}),
    });
    if (c.dots) Dot.buildAndAttach([note], { all: true });
    const wide = room?.get(c.start);
    if (wide && !silent) note.addModifier(new Spacer(wide));
    return note;
  });
  if (silent) return { notes, chords: [], tuplets: [], beams: [] };
  const groups = meter.beats.map((b) => new Fraction(b.duration / EIGHTH, 8));
  const beams = Beam.generateBeams(
    notes.filter((n) => !(n instanceof GhostNote)),
    stem === undefined ? { groups, maintainStemDirections: false } : { groups, stemDirection: stem },
  );
  // Beams turn stems: dots and lines are set when that is known, at the heads, or outside where another voice is on that side.
  notes.forEach((note, i) => {
    const sign = list[i]!.articulation;
    if (!sign) return;
    const above = stem === undefined ? note.getStemDirection() === DOWN : stem === UP;
    note.addModifier(
      new Articulation(sign === "staccato" ? "a." : "a-").setPosition(above ? ModifierPosition.ABOVE : ModifierPosition.BELOW),
    );
  });
  return { notes, chords: list, tuplets: tupletsOf(list, notes), beams };
}

/** Thirds of a beat, bracketed beat by beat. */
function tupletsOf(list: readonly EngravedChord[], notes: StemmableNote[]): Tuplet[] {
  const beats = new Map<number, StemmableNote[]>();
  list.forEach((c, i) => {
    if (!c.triplet) return;
    const beat = Math.floor(c.start / QUARTER);
    beats.set(beat, [...(beats.get(beat) ?? []), notes[i]!]);
  });
  return [...beats.values()].map((group) => new Tuplet(group, { numNotes: 3, notesOccupied: 2 }));
}

/** A bar of tablature beside the notes of the same bar. */
function tabBar(notes: Bar | null, places: readonly (TabPlace[] | null)[], strings: number): StemmableNote[] {
  if (!notes) return [new GhostNote({ duration: "q" })];
  if (!notes.chords.length) return [new GhostNote({ duration: "w" })];
  return notes.chords.map((c, i) => {
    const here = places[i];
    const duration = `${c.value}${c.dots ? "d" : ""}`;
    if (!here?.length) return new GhostNote({ duration });
    return new TabNote({ positions: here.map((p) => ({ str: strings - p.string, fret: p.fret })), duration });
  });
}

/** Notes whose ties go on into the next bar, by staff. */
type Pending = Map<string, { note: StaveNote; indices: Map<number, number> }>;

/** A voice of a staff in one bar, ready to be drawn. */
interface Drawn {
  id: string;
  voice: Voice;
  stave: Stave;
  bar: Bar | null;
}

interface Sheet {
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
    spots.push(...drawLine({ parts, meter, bars, rows, context, pending }, line, k));
    pending.clear();
  }
  if (stop.on) return null;
  host.replaceChildren(sheet);
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
  const voices: [Drawn, ...Drawn[]] = [{ id, voice, stave, bar: made }];
  if (below) voices.push({ id: `${id}.second`, voice: voiceOf(meter, below.notes), stave, bar: below });
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
  return { id: "", voice: voiceOf(meter, tabBar(notes, places, tab.strings)), stave: tabStave, bar: null };
}

const voiceOf = (meter: Meter, notes: StemmableNote[]): Voice =>
  new Voice({ numBeats: meter.count, beatValue: meter.unit }).setMode(Voice.Mode.SOFT).addTickables(notes);

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
