import { nth, sure } from "../../core/src/index";
import {
  Accidental,
  Dot,
  Formatter,
  Fraction,
  GhostNote,
  StaveNote,
  StaveTie,
  Voice,
  type RenderContext,
  type Stave,
  type StemmableNote,
} from "vexflow/bravura";
import type { EngravedChord } from "../../core/src/index";
import type { Bar } from "./bars";
import type { LineBar, SheetOptions, Spot } from "./sheet";
import { Spacer } from "./small";

/** Notes whose ties go on into the next bar, by staff. */
export type Pending = Map<string, { note: StaveNote; indices: Map<number, number> }>;

/** A voice of a staff in one bar, ready to be drawn. */
export interface Drawn {
  id: string;
  part: number;
  staff: number;
  second: boolean;
  voice: Voice;
  stave: Stave;
  bar: Bar | null;
}

export interface BarBox extends LineBar {
  x: number;
  /** First bar of its line, and of the sheet. */
  first: boolean;
  opening: boolean;
}

export const looseVoice = (notes: StemmableNote[]): Voice =>
  new Voice({ numBeats: 4, beatValue: 4 }).setMode(Voice.Mode.SOFT).addTickables(notes);

interface Symbols {
  voice: Voice;
  stave: Stave;
  notes: { tick: number; note: GhostNote }[];
}

/** Ticks of a sheet in those of the engraver. */
const toFraction = (ticks: number) => new Fraction(ticks * 128, 15);

/** Places of chord symbols between the notes of a bar, as wide as they are. */
export function symbolVoice(options: SheetOptions, length: number, { bar }: BarBox, stave: Stave): Symbols | null {
  const here = options.symbols.filter((s) => s.start >= bar * length && s.start < (bar + 1) * length);
  if (!here.length || bar < 0) return null;
  const starts = [...new Set([bar * length, ...here.map((s) => s.start)])].sort((a, b) => a - b);
  const notes = starts.map((tick, i) => {
    const note = new GhostNote({ duration: "q" });
    Object.assign(note, { ticks: toFraction((starts[i + 1] ?? (bar + 1) * length) - tick) });
    const wide = Math.max(0, ...here.filter((s) => s.start === tick).map((s) => s.width * options.text));
    if (wide) note.addModifier(new Spacer(wide));
    return { tick, note };
  });
  return { voice: looseVoice(notes.map((n) => n.note)), stave, notes };
}

/** Sets the notes of all staves under each other, and draws them. */
export function formatBar(
  drawn: readonly Drawn[],
  symbols: Symbols | null,
  begin: number,
  { box: { x, width }, context }: { box: BarBox; context: RenderContext },
): void {
  for (const d of drawn) d.stave.setNoteStartX(begin);
  const formatter = new Formatter();
  // Voices of one staff are set beside each other where they meet.
  for (const stave of new Set(drawn.map((d) => d.stave)))
    formatter.joinVoices(drawn.filter((d) => d.stave === stave).map((d) => d.voice));
  if (symbols) formatter.joinVoices([symbols.voice]);
  const voices = [...drawn.map((d) => d.voice), ...(symbols ? [symbols.voice] : [])];
  const end = Math.min(...drawn.map((d) => d.stave.getNoteEndX()), x + width);
  formatter.format(voices, Math.max(20, end - begin - 14));
  clearDots(drawn);
  for (const { voice, stave, bar } of drawn) {
    voice.draw(context, stave);
    for (const beam of bar?.beams ?? []) beam.setContext(context).draw();
    for (const tuplet of bar?.tuplets ?? []) tuplet.setContext(context).draw();
  }
  if (symbols) symbols.voice.draw(context, symbols.stave);
}

/** Where one voice is set aside to the right of another, dots of both stand behind it, and its signs before both. */
function clearDots(drawn: readonly Drawn[]): void {
  for (const own of drawn) {
    const other = drawn.find((d) => d.stave === own.stave && d !== own && d.bar);
    if (!own.bar || !other?.bar) continue;
    own.bar.chords.forEach((c, i) => {
      const k = sure(other.bar).chords.findIndex((o) => o.start === c.start);
      const [mine, theirs] = [sure(own.bar).notes[i], sure(other.bar).notes[k]];
      if (
        !(mine instanceof StaveNote && theirs instanceof StaveNote) ||
        !c.notes.length ||
        !nth(sure(other.bar).chords, k).notes.length
      )
        return;
      const aside = theirs.getXShift() - mine.getXShift();
      for (const dot of aside > 0 ? mine.getModifiersByType(Dot.CATEGORY) : []) dot.setXShift(dot.getXShift() + aside);
      for (const sign of aside < 0 ? mine.getModifiersByType(Accidental.CATEGORY) : [])
        sign.setXShift(-sign.getXShift() - aside);
    });
  }
}

/** Where the places of a bar stand. */
export function spotsOf(
  drawn: readonly Drawn[],
  symbols: Symbols | null,
  { length, index }: { length: number; index: number },
  { begin, box: { x, width, bar } }: { begin: number; box: BarBox },
): Spot[] {
  const starts = new Map<number, number>();
  for (const { bar: b } of drawn)
    b?.chords.forEach((c, i) =>
      starts.set(c.start, Math.min(starts.get(c.start) ?? Infinity, nth(b.notes, i).getAbsoluteX())),
    );
  for (const { tick, note } of symbols?.notes ?? []) if (!starts.has(tick)) starts.set(tick, note.getAbsoluteX());
  if (bar >= 0 && !starts.has(bar * length)) starts.set(bar * length, begin + 8);
  return [
    ...[...starts].map(([tick, at]) => ({ tick, x: at, line: index })),
    { tick: (bar + 1) * length - 1, x: x + width - 8, line: index },
  ];
}

/** Ties, also from the bar before. */
export function drawTies(context: RenderContext, bar: Bar | null, id: string, pending: Pending): void {
  let before = pending.get(id) ?? null;
  pending.delete(id);
  bar?.chords.forEach((chord: EngravedChord, i) => {
    const note = bar.notes[i] as StaveNote;
    chord.notes.forEach((n, index) => {
      const from = before?.indices.get(n.midi);
      if (before && from !== undefined)
        new StaveTie({ firstNote: before.note, lastNote: note, firstIndexes: [from], lastIndexes: [index] })
          .setContext(context)
          .draw();
    });
    const tied = chord.notes.flatMap((n, index) => (n.tied ? [[n.midi, index] as const] : []));
    before = tied.length ? { note, indices: new Map(tied) } : null;
  });
  if (before) pending.set(id, before);
}
