import {
  Accidental,
  Beam,
  Dot,
  Formatter,
  Fraction,
  GhostNote,
  Renderer,
  Stave,
  StaveConnector,
  StaveNote,
  StaveTie,
  TabNote,
  TabStave,
  Tuplet,
  Voice,
  type StemmableNote,
} from "vexflow/bravura";
import type { EngravedChord, EngravedPart, EngravedStaff, Meter, TabPlace } from "../../core/src/index";

export interface StaffPart extends EngravedPart {
  tab?: { strings: number; measures: (TabPlace[] | null)[][] };
}

/** Where things stand on the sheet, in pixels. */
export interface Placed {
  labels: { text: string; y: number }[];
  /** Place of a tick: on which line of the sheet, and where on it. */
  at(tick: number): { x: number; top: number; height: number } | null;
}

const MARGIN = 92;
const LINE = 78;
/** Height of a staff of tablature with so many strings. */
const tabLine = (strings: number): number => strings * TAB_GAP + 46;
const TAB_GAP = 12;
const SIGNATURES = ["Cb", "Gb", "Db", "Ab", "Eb", "Bb", "F", "C", "G", "D", "A", "E", "B", "F#", "C#"];

const vexKey = (pitch: string): string => {
  const [, name, octave] = /^([A-G](?:bb|b|##|x|#)?)(-?\d+)$/.exec(pitch)!;
  return `${name!.toLowerCase().replace("x", "##")}/${octave}`;
};

const REST_KEY: Record<EngravedStaff["clef"], string> = { treble: "b/4", bass: "d/3", alto: "c/4", tenor: "a/3" };

const groups = (meter: Meter): Fraction[] => meter.beats.map((b) => new Fraction(b.duration / 240, 8));

interface Bar {
  notes: StemmableNote[];
  chords: readonly EngravedChord[];
  tuplets: Tuplet[];
  beams: Beam[];
}

/** One bar of a staff as notes that can be drawn. */
function barOf(chords: readonly EngravedChord[], staff: EngravedStaff, meter: Meter): Bar {
  const silent = chords.every((c) => !c.notes.length);
  const list = silent ? [{ ...chords[0]!, value: "w" as const, dots: 0 as const, triplet: false }] : chords;
  const notes = list.map((c) => {
    const rest = !c.notes.length;
    const note = new StaveNote({
      clef: staff.clef,
      keys: rest ? [REST_KEY[staff.clef]] : c.notes.map((n) => vexKey(n.pitch)),
      duration: `${c.value}${c.dots ? "d" : ""}${rest ? "r" : ""}`,
      autoStem: true,
      ...(silent ? { alignCenter: true } : {}),
    });
    if (c.dots) Dot.buildAndAttach([note], { all: true });
    return note;
  });
  const tuplets: Tuplet[] = [];
  if (!silent)
    for (let i = 0; i < list.length;) {
      if (!list[i]!.triplet) {
        i++;
        continue;
      }
      // A beat's worth of thirds.
      const start = Math.floor(list[i]!.start / 480) * 480;
      let j = i;
      while (j < list.length && list[j]!.triplet && list[j]!.start < start + 480) j++;
      tuplets.push(new Tuplet(notes.slice(i, j), { numNotes: 3, notesOccupied: 2 }));
      i = j;
    }
  const beams = silent ? [] : Beam.generateBeams(notes, { groups: groups(meter), maintainStemDirections: false });
  return { notes, chords: silent ? [] : list, tuplets, beams };
}

/** A bar of tablature beside the notes of the same bar. */
function tabBar(notes: Bar, places: readonly (TabPlace[] | null)[], strings: number): StemmableNote[] {
  if (!notes.chords.length) return [new GhostNote({ duration: "w" })];
  return notes.chords.map((c, i) => {
    const here = places[i];
    const duration = `${c.value}${c.dots ? "d" : ""}`;
    if (!here?.length) return new GhostNote({ duration });
    const note = new TabNote({ positions: here.map((p) => ({ str: strings - p.string, fret: p.fret })), duration });
    return note;
  });
}

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
  const sheet = document.createElement("div");
  await document.fonts.ready;
  const meter = parts[0]?.meter;
  if (!meter || stop.on) {
    host.replaceChildren();
    return { labels: [], at: () => null };
  }
  const hasPickup = parts.some((p) => p.staves.some((s) => s.pickup.length));
  const measures = [...(hasPickup ? [-1] : []), ...Array.from({ length: bars }, (_, b) => b)];
  const chordsOf = (staff: EngravedStaff, bar: number): readonly EngravedChord[] =>
    bar < 0 ? (staff.pickup.length ? staff.pickup : []) : staff.measures[bar]!;
  // How wide a bar wants to be, by the number of its places.
  const wish = (bar: number): number => {
    const starts = new Set(parts.flatMap((p) => p.staves.flatMap((s) => chordsOf(s, bar).map((c) => c.start))));
    return (bar < 0 ? 30 : 54) + Math.max(1, starts.size) * 21;
  };
  const signatureWidth = 56 + Math.max(...parts.map((p) => Math.abs(p.key.signature))) * 9;
  const room = width - MARGIN;
  const lines: number[][] = [];
  for (const bar of measures) {
    const line = lines.at(-1);
    const used = line ? signatureWidth + line.reduce((sum, b) => sum + wish(b), 0) : Infinity;
    if (line && used + wish(bar) <= room) line.push(bar);
    else lines.push([bar]);
  }
  const heightOf = (p: StaffPart) => p.staves.length * LINE + (p.tab ? tabLine(p.tab.strings) : 0) + 14;
  const lineHeight = above + parts.reduce((sum, p) => sum + heightOf(p), 0);
  const places: { tick: number; x: number; line: number }[] = [];
  const labels: Placed["labels"] = [];
  const pending = new Map<string, { note: StaveNote; indices: Map<number, number> }>();
  for (const [k, line] of lines.entries()) {
    await pause();
    if (stop.on) return null;
    const div = document.createElement("div");
    sheet.appendChild(div);
    const renderer = new Renderer(div, Renderer.Backends.SVG);
    renderer.resize(width, lineHeight);
    const context = renderer.getContext();
    context.setFillStyle("currentColor").setStrokeStyle("currentColor");
    const wanted = line.reduce((sum, b) => sum + wish(b), 0);
    // A last short line is not drawn out over the whole width.
    const share = k === lines.length - 1 && wanted < room * 0.6 && lines.length > 1 ? 1.15 : (room - signatureWidth) / wanted;
    let x = MARGIN;
    for (const [m, bar] of line.entries()) {
      const first = m === 0;
      const barWidth = wish(bar) * share + (first ? signatureWidth : 0);
      let y = above - 30;
      const voices: { voice: Voice; stave: Stave; bar: Bar | null }[] = [];
      const staves: Stave[] = [];
      const sets: Voice[][] = [];
      for (const part of parts) {
        const own: Stave[] = [];
        for (const staff of part.staves) {
          const stave = new Stave(x, y, barWidth);
          if (first) {
            stave
              .addClef(staff.clef, "default", staff.octave === -1 ? "8vb" : undefined)
              .addKeySignature(SIGNATURES[part.key.signature + 7]!);
            if (k === 0) stave.addTimeSignature(meter.text.split(" ")[0]!);
          }
          if (bar === bars - 1) stave.setEndBarType(3);
          stave.setContext(context).draw();
          own.push(stave);
          const chords = chordsOf(staff, bar);
          const drawn = chords.length ? barOf(chords, staff, meter) : null;
          const voice = new Voice({ numBeats: meter.count, beatValue: meter.unit }).setMode(Voice.Mode.SOFT);
          voice.addTickables(drawn ? drawn.notes : [new GhostNote({ duration: "q" })]);
          Accidental.applyAccidentals([voice], SIGNATURES[part.key.signature + 7]!);
          voices.push({ voice, stave, bar: drawn });
          sets.push([voice]);
          if (part.tab && staff === part.staves[0]) {
            const tab = new TabStave(x, y + LINE + 8, barWidth, { numLines: part.tab.strings, spacingBetweenLinesPx: TAB_GAP });
            if (first) tab.addTabGlyph();
            tab.setNoteStartX(stave.getNoteStartX());
            tab.setContext(context).draw();
            const places = bar < 0 ? [] : part.tab.measures[bar]!;
            const tabVoice = new Voice({ numBeats: meter.count, beatValue: meter.unit }).setMode(Voice.Mode.SOFT);
            tabVoice.addTickables(drawn ? tabBar(drawn, places, part.tab.strings) : [new GhostNote({ duration: "q" })]);
            voices.push({ voice: tabVoice, stave: tab, bar: null });
            sets.push([tabVoice]);
          }
          if (first && k === 0 && staff === part.staves[0]) labels.push({ text: part.name, y: y + 50 });
          y += LINE;
        }
        if (part.tab) y += tabLine(part.tab.strings);
        y += 14;
        staves.push(...own);
        if (first && own.length > 1) new StaveConnector(own[0]!, own[1]!).setType("brace").setContext(context).draw();
      }
      const begin = Math.max(...staves.map((s) => s.getNoteStartX()));
      for (const s of voices) s.stave.setNoteStartX(begin);
      const formatter = new Formatter();
      for (const set of sets) formatter.joinVoices(set);
      formatter.format(
        voices.map((v) => v.voice),
        Math.max(20, x + barWidth - begin - 14),
      );
      for (const { voice, stave, bar: drawn } of voices) {
        voice.draw(context, stave);
        for (const beam of drawn?.beams ?? []) beam.setContext(context).draw();
        for (const tuplet of drawn?.tuplets ?? []) tuplet.setContext(context).draw();
      }
      new StaveConnector(staves[0]!, staves.at(-1)!)
        .setType(bar === bars - 1 ? "boldDoubleRight" : "singleRight")
        .setContext(context)
        .draw();
      if (first) new StaveConnector(staves[0]!, staves.at(-1)!).setType("singleLeft").setContext(context).draw();
      // Ties, also from the line before.
      let s = 0;
      for (const part of parts)
        part.staves.forEach((_, i) => {
          while (!voices[s]!.bar && voices[s]!.stave instanceof TabStave) s++;
          const { bar: drawn } = voices[s++]!;
          drawTies(context, drawn, `${part.part}.${i}`, pending);
        });
      const starts = new Map<number, number>();
      for (const { bar: drawn } of voices)
        drawn?.chords.forEach((c, i) => starts.set(c.start, Math.min(starts.get(c.start) ?? Infinity, drawn.notes[i]!.getAbsoluteX())));
      if (!starts.has(bar * meter.bar) && bar >= 0) starts.set(bar * meter.bar, begin + 8);
      for (const [tick, at] of starts) places.push({ tick, x: at, line: k });
      places.push({ tick: (bar + 1) * meter.bar - 1, x: x + barWidth - 8, line: k });
      x += barWidth;
    }
    pending.clear();
  }
  if (stop.on) return null;
  host.replaceChildren(sheet);
  places.sort((a, b) => a.tick - b.tick);
  return {
    labels,
    at(tick) {
      const i = places.findLastIndex((p) => p.tick <= tick);
      const here = places[Math.max(0, i)];
      if (!here) return null;
      const next = places[i + 1];
      const share = next && next.line === here.line && next.tick > here.tick ? Math.max(0, tick - here.tick) / (next.tick - here.tick) : 0;
      return { x: here.x + (next ? (next.x - here.x) * share : 0), top: here.line * lineHeight, height: lineHeight };
    },
  };
}

type Pending = Map<string, { note: StaveNote; indices: Map<number, number> }>;

function drawTies(context: Parameters<StaveTie["setContext"]>[0], bar: Bar | null, id: string, pending: Pending): void {
  let before = pending.get(id) ?? null;
  pending.delete(id);
  bar?.chords.forEach((chord, i) => {
    const note = bar.notes[i] as StaveNote;
    if (before)
      chord.notes.forEach((n, index) => {
        const from = before!.indices.get(n.midi);
        if (from !== undefined)
          new StaveTie({ firstNote: before!.note, lastNote: note, firstIndexes: [from], lastIndexes: [index] }).setContext(context!).draw();
      });
    const tied = chord.notes.flatMap((n, index) => (n.tied ? [[n.midi, index] as const] : []));
    before = tied.length ? { note, indices: new Map(tied) } : null;
  });
  if (before) pending.set(id, before);
}
