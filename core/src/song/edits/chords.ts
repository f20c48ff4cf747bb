import type { Draft } from "immer";
import { z } from "zod";
import type { Key } from "../../pitch/key";
import type { Ticks } from "../../time/meter";
import { positionText } from "../../time/meter";
import { chordSymbol } from "../../chord/chord";
import { moveBySemitones, moveInScale } from "../../chord/modify";
import { parseChord } from "../../chord/parse";
import { chordOf, LINE_LIMIT, NO_CHORD, readLine } from "../../chord/progression";
import { cutAt, joined } from "../beyond";
import { sectionKey, sectionMeter, sectionOf } from "../document";
import { ChordEvent, ChordId, ChordText, LIMITS, SectionId, Tick, type Section } from "../schema";
import { defineEdit, draftOf, refuse, type EditTools } from "./define";

/** Shortest chord a border can be dragged to: a sixteenth. */
const SHORTEST: Ticks = 120;

export type NewChord = Omit<ChordEvent, "id"> & { id?: string | undefined };

/** Chord events with the stretch from one tick to another replaced; chords that reach into it are cut there. */
export function replaceChords(
  chords: readonly ChordEvent[],
  from: Ticks,
  to: Ticks,
  list: readonly NewChord[],
  fresh: () => string,
): ChordEvent[] {
  const kept = chords.flatMap((c): ChordEvent[] => {
    const end = c.start + c.duration;
    if (end <= from || c.start >= to) return [c];
    const parts: ChordEvent[] = [];
    if (c.start < from) parts.push({ ...c, duration: from - c.start });
    if (end > to) parts.push({ ...c, id: c.start < from ? fresh() : c.id, start: to, duration: end - to });
    return parts;
  });
  const used = new Set(kept.map((c) => c.id));
  const before = new Map(chords.map((c) => [c.id, c]));
  const added = list.map((c): ChordEvent => {
    const id = c.id && !used.has(c.id) && before.has(c.id) ? c.id : fresh();
    used.add(id);
    const old = before.get(id);
    const { voicings: _, ...plain } = c;
    // The same chord keeps its voicings; another one is voiced anew.
    return { ...plain, id, ...(old?.symbol === c.symbol && old.voicings ? { voicings: old.voicings } : {}) };
  });
  return [...kept, ...added].sort((a, b) => a.start - b.start);
}

/** The canonical spelling of a symbol that can be read. */
const canonical = (symbol: string): string => {
  const chord = symbol === NO_CHORD ? null : parseChord(symbol);
  return chord?.ok ? chordSymbol(chord.value) : NO_CHORD;
};

const chordFresh =
  ({ fresh }: EditTools) =>
  () =>
    fresh("c");

/** Replaces the chords of a section by those of a line. Chords that keep place, length and symbol keep their voicings and pins. */
export const setLine = defineEdit({
  name: "setLine",
  title: "write a chord line",
  schema: { section: SectionId, line: z.string().max(100_000).meta({ text: "line" }) },
  apply(draft, edit, tools) {
    const section = sectionOf(tools.song, edit.section)!;
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
        return start === c.start && end === c.start + c.duration ? [c] : [{ ...c, id: fresh(), start, duration: end - start }];
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

/** A line that makes the section longer brings back the notes and hits that were kept past its end, but not the chords it stands for. */
function bringBack(target: Draft<Section>, section: Section, end: Ticks, fresh: () => string): void {
  const { chords = [], ...kept } = section.beyond!;
  const rest = chords.filter((c) => c.start >= end);
  const { groove, notes, beyond } = cutAt(joined({ ...section, beyond: rest.length ? { ...kept, chords: rest } : kept }, fresh), end);
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
    const event = draftOf(draft, section).chords.find((c) => c.id === chord)!;
    event.symbol = canonical(symbol);
    delete event.voicings;
    delete event.why;
    delete event.readings;
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
    const before = sectionOf(tools.song, section)!;
    const meter = sectionMeter(tools.song, before);
    if (to <= from) return refuse("chords", "The stretch to fill has no length");
    const outside = chords.find((c) => c.start < from || c.start + c.duration > to);
    if (outside)
      return refuse("chords", `${outside.symbol} does not lie between ${positionText(meter, from)} and ${positionText(meter, to)}`);
    target.chords = replaceChords(before.chords, from, to, chords, chordFresh(tools));
    target.bars = Math.max(before.bars, Math.ceil(to / meter.bar));
  },
});

const Chords = { section: SectionId, chords: z.array(ChordId).min(1, "No chord is chosen").max(5000) };

export const pinChords = defineEdit({
  name: "pinChords",
  title: "pin chords or let them go",
  schema: { ...Chords, pinned: z.boolean() },
  apply(draft, { section, chords, pinned }) {
    const ids = new Set(chords);
    for (const c of draftOf(draft, section).chords) {
      if (!ids.has(c.id)) continue;
      if (pinned) c.pinned = true;
      else delete c.pinned;
    }
  },
});

export const setReadings = defineEdit({
  name: "setReadings",
  title: "keep several readings of a chord",
  schema: { section: SectionId, chord: ChordId, readings: ChordEvent.shape.readings.unwrap().nullable() },
  apply(draft, { section, chord, readings }) {
    const event = draftOf(draft, section).chords.find((c) => c.id === chord)!;
    if (readings?.length) event.readings = readings;
    else delete event.readings;
  },
});

export const setBorder = defineEdit({
  name: "setBorder",
  title: "move where a chord begins",
  schema: { section: SectionId, chord: ChordId, start: Tick },
  apply(draft, { section, chord: id, start }) {
    const { chords } = draftOf(draft, section);
    const index = chords.findIndex((c) => c.id === id);
    const chord = chords[index]!;
    const before = chords[index - 1];
    const touching = before !== undefined && before.start + before.duration === chord.start;
    const end = chord.start + chord.duration;
    const earliest = before ? (touching ? before.start + SHORTEST : before.start + before.duration) : 0;
    if (start < earliest || start > end - SHORTEST)
      return refuse("border", "The border would leave a chord shorter than a sixteenth", "Delete the chord instead.");
    if (touching) before.duration = start - before.start;
    chord.start = start;
    chord.duration = end - start;
  },
});

export const moveChords = defineEdit({
  name: "moveChords",
  title: "move chords along the scale or by semitones",
  schema: { ...Chords, by: z.enum(["scale", "semitone"]), steps: z.int().min(-48).max(48) },
  apply(draft, { section, chords, by, steps }, { song }) {
    const ids = new Set(chords);
    const key: Key = sectionKey(song, sectionOf(song, section)!);
    for (const c of draftOf(draft, section).chords) {
      const chord = ids.has(c.id) ? chordOf(c.symbol) : null;
      if (!chord) continue;
      c.symbol = chordSymbol(by === "scale" ? moveInScale(chord, steps, key) : moveBySemitones(chord, steps, key));
      delete c.voicings;
      delete c.why;
      delete c.readings;
      delete c.written;
    }
  },
});

/** Copies chords to a tick, or behind the last bar; what stands there gives way. Made: the copies. */
export const copyChords = defineEdit({
  name: "copyChords",
  title: "copy chords",
  schema: { ...Chords, to: Tick.optional() },
  apply(draft, edit, tools) {
    const section = sectionOf(tools.song, edit.section)!;
    const { bar } = sectionMeter(tools.song, section);
    const chosen = section.chords.filter((c) => edit.chords.includes(c.id));
    const from = chosen[0]!.start;
    const length = chosen.at(-1)!.start + chosen.at(-1)!.duration - from;
    const to = edit.to ?? section.bars * bar;
    const copies = chosen.map(({ id: _, ...c }) => ({ ...c, start: c.start - from + to }));
    const target = draftOf(draft, edit.section);
    target.chords = replaceChords(section.chords, to, to + length, copies, chordFresh(tools));
    target.bars = Math.max(section.bars, Math.ceil((to + length) / bar));
  },
});

/** Rearranges chords inside the time they take together; their lengths go with them, except that swapped chords change only their names. */
export const arrangeChords = defineEdit({
  name: "arrangeChords",
  title: "reverse, swap, double, halve or remove chords",
  schema: { ...Chords, how: z.enum(["reverse", "swap", "double", "halve", "remove"]) },
  apply(draft, edit, tools) {
    const all = sectionOf(tools.song, edit.section)!.chords;
    const chosen = all.filter((c) => edit.chords.includes(c.id));
    const arranged = ARRANGE[edit.how](all, chosen, chordFresh(tools));
    if ("code" in arranged) return arranged;
    draftOf(draft, edit.section).chords = arranged;
  },
});

type Arrange = (all: readonly ChordEvent[], chosen: readonly ChordEvent[], fresh: () => string) => ChordEvent[] | ReturnType<typeof refuse>;

const spanOf = (chosen: readonly ChordEvent[]): [from: Ticks, to: Ticks] => [
  chosen[0]!.start,
  chosen.at(-1)!.start + chosen.at(-1)!.duration,
];

/** The chords that are not chosen, and those that are put in their place. */
const beside = (all: readonly ChordEvent[], chosen: readonly ChordEvent[], put: readonly ChordEvent[]): ChordEvent[] =>
  [...all.filter((c) => !chosen.includes(c)), ...put].sort((a, b) => a.start - b.start);

/** Wraps an arrangement that only makes sense for neighbors. */
const ofNeighbors =
  (arrange: Arrange): Arrange =>
  (all, chosen, fresh) => {
    const [from, to] = spanOf(chosen);
    return all.some((c) => !chosen.includes(c) && c.start >= from && c.start < to)
      ? refuse("chords", "The chosen chords are not next to each other", "Choose a row of neighboring chords.")
      : arrange(all, chosen, fresh);
  };

const ARRANGE: Record<"reverse" | "swap" | "double" | "halve" | "remove", Arrange> = {
  /** The chord before holds on over the gap. */
  remove(all, chosen) {
    const [, to] = spanOf(chosen);
    const rest = all.filter((c) => !chosen.includes(c));
    return rest.map((c, i) => {
      const next = rest[i + 1];
      const gap = chosen.some((x) => x.start >= c.start + c.duration && (!next || x.start < next.start));
      return gap ? { ...c, duration: (next ? next.start : Math.max(c.start + c.duration, to)) - c.start } : c;
    });
  },
  swap(all, chosen) {
    const [a, b] = chosen;
    if (!a || !b || chosen.length > 2) return refuse("swap", "Two chords can be swapped", "Choose two chords.");
    const placed = (what: ChordEvent, { id, start, duration }: ChordEvent): ChordEvent => ({ ...what, id, start, duration });
    return all.map((c) => (c === a ? placed(b, a) : c === b ? placed(a, b) : c));
  },
  reverse: ofNeighbors((all, chosen) => {
    let [at] = spanOf(chosen);
    const turned = [...chosen].reverse().map((c) => {
      const moved = { ...c, start: at };
      at += c.duration;
      return moved;
    });
    return beside(all, chosen, turned);
  }),
  double: ofNeighbors((all, chosen, fresh) => {
    if (chosen.some((c) => c.duration < 2 * SHORTEST)) return refuse("rhythm", "A chord would become shorter than a sixteenth");
    const [from, to] = spanOf(chosen);
    const pass = (offset: number, again: boolean) =>
      chosen.map((c) => ({
        ...c,
        id: again ? fresh() : c.id,
        start: Math.round(from + offset + (c.start - from) / 2),
        duration: Math.round(c.duration / 2),
      }));
    return beside(all, chosen, [...pass(0, false), ...pass((to - from) / 2, true)]);
  }),
  halve: ofNeighbors((all, chosen) => {
    const [, to] = spanOf(chosen);
    return beside(
      all,
      chosen,
      chosen.flatMap((c, i) => (i % 2 ? [] : [{ ...c, duration: (chosen[i + 2]?.start ?? to) - c.start }])),
    );
  }),
};
