import { sure } from "../../base/list";
import type { Draft } from "immer";
import { z } from "zod";
import type { Ticks } from "../../theory/time/meter";
import { positionText } from "../../theory/time/meter";
import { chordSymbol } from "../../theory/chord/chord";
import { parseChord } from "../../theory/chord/parse";
import { LINE_LIMIT, NO_CHORD, readLine } from "../../theory/chord/progression";
import { cutAt, joined } from "../beyond";
import { beginningAt } from "../layouts";
import { sectionMeter, sectionOf } from "../document";
import { ChordEvent, ChordId, ChordText, LIMITS, SectionId, Tick, type Section } from "../schema";
import { defineEdit, draftOf, refuse, type EditTools } from "./define";

export type NewChord = Omit<ChordEvent, "id"> & { id?: string | undefined };

/** Chord events with the stretch from one tick to another replaced; chords that reach into it are cut there. */
export function replaceChords(
  chords: readonly ChordEvent[],
  from: Ticks,
  to: Ticks,
  { list, fresh }: { list: readonly NewChord[]; fresh: () => string },
): ChordEvent[] {
  const kept = chords.flatMap((c): ChordEvent[] => {
    const end = c.start + c.duration;
    if (end <= from || c.start >= to) return [c];
    const parts: ChordEvent[] = [];
    if (c.start < from) parts.push({ ...c, duration: from - c.start });
    if (end > to) parts.push({ ...beginningAt(c, to), id: c.start < from ? fresh() : c.id, duration: end - to });
    return parts;
  });
  const used = new Set(kept.map((c) => c.id));
  const before = new Map(chords.map((c) => [c.id, c]));
  const added = list.map((c): ChordEvent => {
    const id = c.id && !used.has(c.id) && before.has(c.id) ? c.id : fresh();
    used.add(id);
    const old = before.get(id);
    const { voicings: played, ...plain } = c;
    // The same chord keeps its voicings; a new one has what hands have pinned for it; another one is voiced anew.
    const voicings = old ? old.symbol === c.symbol && old.voicings : !c.id && pinnedOnly(played);
    return { ...plain, id, ...(voicings ? { voicings } : {}) };
  });
  return [...kept, ...added].sort((a, b) => a.start - b.start);
}

/** Layouts that are pinned, by part; nothing where none is. */
function pinnedOnly(voicings: ChordEvent["voicings"]): ChordEvent["voicings"] {
  const pinned = Object.entries(voicings ?? {}).filter(([, v]) => v.pinned);
  return pinned.length ? Object.fromEntries(pinned) : undefined;
}

/** The canonical spelling of a symbol that can be read. */
const canonical = (symbol: string): string => {
  const chord = symbol === NO_CHORD ? null : parseChord(symbol);
  return chord?.ok ? chordSymbol(chord.value) : NO_CHORD;
};

export const chordFresh =
  ({ fresh }: EditTools) =>
  () =>
    fresh("c");

/**
 * Replaces the chords of a section by those of a line. Chords that keep place, length and symbol keep their voicings
 * and pins.
 */
export const setLine = defineEdit({
  name: "setLine",
  title: "write a chord line",
  schema: { section: SectionId, line: z.string().max(100_000).meta({ text: "line" }) },
  apply(draft, edit, tools) {
    const section = sure(sectionOf(tools.song, edit.section));
    const meter = sectionMeter(tools.song, section);
    const parsed = readLine(edit.line, meter);
    if (!parsed.bars) return parsed.problems[0] ?? { code: "line.empty", message: "The line has no chord." };
    if (parsed.bars > LIMITS.bars)
      return {
        code: "line.bars",
        message: `The line has ${parsed.bars} bars; a section has at most ${LIMITS.bars}`,
        hint: `A line has at most ${LINE_LIMIT} characters and ${LIMITS.bars} bars.`,
      };
    const fresh = chordFresh(tools);
    // Where the line cannot be read, what stood there stays, cut to that place.
    const kept = parsed.unread.flatMap((u) =>
      section.chords.flatMap((c): ChordEvent[] => {
        const start = Math.max(c.start, u.start);
        const end = Math.min(c.start + c.duration, u.start + u.duration);
        if (end <= start) return [];
        return start === c.start && end === c.start + c.duration
          ? [c]
          : [{ ...c, id: fresh(), start, duration: end - start }];
      }),
    );
    const old = new Map(section.chords.map((c) => [`${c.start}:${c.symbol}`, c]));
    const target = draftOf(draft, edit.section);
    target.chords = [
      ...parsed.chords.map((c): ChordEvent => {
        const same = old.get(`${c.start}:${c.symbol}`);
        if (!same) return { id: fresh(), ...c };
        return same.duration === c.duration ? same : { ...same, duration: c.duration };
      }),
      ...kept,
    ].sort((a, b) => a.start - b.start);
    target.bars = Math.max(parsed.bars, lastUsedBar(section, meter.bar));
    if (section.beyond && target.bars > section.bars) bringBack(target, section, target.bars * meter.bar, fresh);
    parsed.problems.forEach(tools.note);
  },
});

/**
 * A line that makes the section longer brings back the notes and hits that were kept past its end, but not the chords
 * it stands for.
 */
function bringBack(target: Draft<Section>, section: Section, end: Ticks, fresh: () => string): void {
  const { chords = [], ...kept } = sure(section.beyond);
  const rest = chords.filter((c) => c.start >= end);
  const { groove, notes, beyond } = cutAt(
    joined({ ...section, beyond: rest.length ? { ...kept, chords: rest } : kept }, fresh),
    end,
  );
  Object.assign(target, { groove, notes });
  if (beyond) target.beyond = beyond;
  else delete target.beyond;
}

/** Number of bars that hold notes or drum hits: a shorter chord line never cuts them off. */
function lastUsedBar(section: Section, bar: Ticks): number {
  const starts = [
    ...Object.values(section.notes).flatMap((list) => list.map((n) => n.start)),
    ...section.groove.lanes.flatMap((l) => l.hits.map((h) => h.start)),
  ];
  return starts.reduce((last, start) => Math.max(last, Math.floor(start / bar) + 1), 1);
}

export const setChord = defineEdit({
  name: "setChord",
  title: "change a chord",
  schema: { section: SectionId, chord: ChordId, symbol: ChordText },
  apply(draft, { section, chord, symbol }) {
    const event = sure(draftOf(draft, section).chords.find((c) => c.id === chord));
    event.symbol = canonical(symbol);
    // What hands have pinned stays, foreign tones and all; N.C. has no notes.
    event.voicings = event.symbol === NO_CHORD ? undefined : pinnedOnly(event.voicings);
    if (!event.voicings) delete event.voicings;
    delete event.why;
    delete event.readings;
    delete event.certainty;
    delete event.written;
  },
});

/** Fills the stretch from one tick to another with chords; a chord that keeps its id and symbol keeps its voicings. */
export const setChords = defineEdit({
  name: "setChords",
  title: "write chords into a stretch",
  schema: {
    section: SectionId,
    from: Tick,
    to: Tick,
    chords: z.array(ChordEvent.omit({ id: true }).extend({ id: z.string().max(40).optional() })).max(5000),
  },
  apply(draft, { section, from, to, chords }, tools) {
    const target = draftOf(draft, section);
    const before = sure(sectionOf(tools.song, section));
    const meter = sectionMeter(tools.song, before);
    if (to <= from) return refuse("chords", "The stretch to fill has no length");
    const outside = chords.find((c) => c.start < from || c.start + c.duration > to);
    if (outside)
      return refuse(
        "chords",
        `${outside.symbol} does not lie between ${positionText(meter, from)} and ${positionText(meter, to)}`,
      );
    target.chords = replaceChords(before.chords, from, to, { list: chords, fresh: chordFresh(tools) });
    target.bars = Math.max(before.bars, Math.ceil(to / meter.bar));
  },
});

/** Readings of a chord one is not sure of, or none; why they are these, where something has decided. */
export const setReadings = defineEdit({
  name: "setReadings",
  title: "keep several readings of a chord",
  schema: {
    section: SectionId,
    chord: ChordId,
    readings: ChordEvent.shape.readings.unwrap().nullable(),
    why: ChordEvent.shape.why,
  },
  apply(draft, { section, chord, readings, why }) {
    const event = sure(draftOf(draft, section).chords.find((c) => c.id === chord));
    if (readings?.length) event.readings = readings;
    else delete event.readings;
    if (why) event.why = why;
  },
});
