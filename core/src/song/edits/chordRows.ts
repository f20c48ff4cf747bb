import { current } from "immer";
import { firstOf, lastOf, nth, sure } from "../../base/list";
import { z } from "zod";
import type { Key } from "../../theory/pitch/key";
import { SIXTEENTH, type Ticks } from "../../theory/time/meter";
import { chordSymbol } from "../../theory/chord/chord";
import { moveBySemitones, moveInScale } from "../../theory/chord/modify";
import { chordOf } from "../../theory/chord/progression";
import { sectionKey, sectionMeter, sectionOf } from "../document";
import { ChordEvent, ChordId, SectionId, Tick } from "../schema";
import { beginningAt } from "../layouts";
import { chordFresh, replaceChords } from "./chords";
import { defineEdit, draftOf, refuse } from "./define";

/** Shortest chord a border can be dragged to. */
const SHORTEST: Ticks = SIXTEENTH;

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

export const setBorder = defineEdit({
  name: "setBorder",
  title: "move where a chord begins",
  schema: { section: SectionId, chord: ChordId, start: Tick },
  apply(draft, { section, chord: id, start }) {
    const { chords } = draftOf(draft, section);
    const index = chords.findIndex((c) => c.id === id);
    const chord = nth(chords, index);
    const before = chords[index - 1];
    const touching = before !== undefined && before.start + before.duration === chord.start;
    const end = chord.start + chord.duration;
    let earliest: number;
    if (before) {
      if (touching) earliest = before.start + SHORTEST;
      else earliest = before.start + before.duration;
    } else earliest = 0;
    if (start < earliest || start > end - SHORTEST)
      return refuse("border", "The border would leave a chord shorter than a sixteenth", "Delete the chord instead.");
    if (touching) before.duration = start - before.start;
    Object.assign(chord, beginningAt(current(chord), start), { duration: end - start });
  },
});

export const moveChords = defineEdit({
  name: "moveChords",
  title: "move chords along the scale or by semitones",
  schema: { ...Chords, by: z.enum(["scale", "semitone"]), steps: z.int().min(-48).max(48) },
  apply(draft, { section, chords, by, steps }, { song }) {
    const ids = new Set(chords);
    const key: Key = sectionKey(song, sure(sectionOf(song, section)));
    for (const c of draftOf(draft, section).chords) {
      const chord = ids.has(c.id) ? chordOf(c.symbol) : null;
      if (!chord) continue;
      c.symbol = chordSymbol(by === "scale" ? moveInScale(chord, steps, key) : moveBySemitones(chord, steps, key));
      delete c.voicings;
      delete c.why;
      delete c.readings;
      delete c.certainty;
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
    const section = sure(sectionOf(tools.song, edit.section));
    const { bar } = sectionMeter(tools.song, section);
    const chosen = section.chords.filter((c) => edit.chords.includes(c.id));
    const from = firstOf(chosen).start;
    const length = lastOf(chosen).start + lastOf(chosen).duration - from;
    const to = edit.to ?? section.bars * bar;
    const copies = chosen.map(({ id: _, ...c }) => ({ ...c, start: c.start - from + to }));
    const target = draftOf(draft, edit.section);
    target.chords = replaceChords(section.chords, to, to + length, { list: copies, fresh: chordFresh(tools) });
    target.bars = Math.max(section.bars, Math.ceil((to + length) / bar));
  },
});

/**
 * Rearranges chords inside the time they take together; their lengths go with them, except that swapped chords change
 * only their names.
 */
export const arrangeChords = defineEdit({
  name: "arrangeChords",
  title: "reverse, swap, double, halve or remove chords",
  schema: { ...Chords, how: z.enum(["reverse", "swap", "double", "halve", "remove"]) },
  apply(draft, edit, tools) {
    const all = sure(sectionOf(tools.song, edit.section)).chords;
    const chosen = all.filter((c) => edit.chords.includes(c.id));
    const arranged = ARRANGE[edit.how](all, chosen, chordFresh(tools));
    if ("code" in arranged) return arranged;
    draftOf(draft, edit.section).chords = arranged;
  },
});

type Arrange = (
  all: readonly ChordEvent[],
  chosen: readonly ChordEvent[],
  fresh: () => string,
) => ChordEvent[] | ReturnType<typeof refuse>;

const spanOf = (chosen: readonly ChordEvent[]): [from: Ticks, to: Ticks] => [
  firstOf(chosen).start,
  lastOf(chosen).start + lastOf(chosen).duration,
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
    const placed = (what: ChordEvent, { id, start, duration }: ChordEvent): ChordEvent => ({
      ...what,
      id,
      start,
      duration,
    });
    return all.map((c) => {
      if (c === a) return placed(b, a);
      if (c === b) return placed(a, b);
      return c;
    });
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
    if (chosen.some((c) => c.duration < 2 * SHORTEST))
      return refuse("rhythm", "A chord would become shorter than a sixteenth");
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
