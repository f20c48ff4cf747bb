import { firstOf, lastOf, nth } from "../../base/list";
import { fail, ok, type Result } from "../../base/result";
import { madeOf, toldAs, type Steps } from "../../base/steps";
import { bassPc, rootPc, type Chord } from "../../theory/chord/chord";
import type { ChordEvent, Reason, Song } from "../../song/schema";
import { prepare, type Path } from "../../search/lattice";
import { variedSteps } from "../../search/varied";
import { isTonic, type Heard } from "../../hear/harmony/context";
import { smallestMotion } from "../../hear/harmony/distance";
import { bassFit, fitOf } from "./fit";
import { linkCost } from "./link";
import { materialOf, spotAt, type Ground } from "./ground";
import { adventureOf, chordsOf, newOutside } from "./reharmonize";
import { has } from "./tools";
import { techniqueReason } from "./technique";
import { TECHNIQUES } from "./techniques";

export interface SectionRequest {
  song: Song;
  section: string;
  range: number;
  techniques?: readonly string[];
  /** How many progressions (5 when absent). */
  k?: number;
}

export interface Progressed {
  /** All chords of the section as they would be. */
  events: ChordEvent[];
  technique: string;
  reasons: Reason[];
  terms: { name: string; cost: number }[];
  cost: number;
  /** Chords of what is written that are no longer there as they were. */
  changed: number;
  /** Notes of the tune that would clash. */
  clashes: string[];
}

interface Option {
  chords: Chord[];
  events: Omit<ChordEvent, "id">[];
  reason: Reason | null;
  technique: string;
  needsNext: boolean;
  needsPrev: boolean;
  melody: number;
  bass: number;
  clashes: string[];
  adventure: number;
  /** Notes it brings from outside the key. */
  outside: number;
  cost: number;
}

/** Weights of the sum a progression is chosen by (common practice). */
const W = {
  melody: 2.4,
  bass: 0.6,
  range: 4,
  motion: 0.22,
  link: 1.6,
  /** How far from the wanted range a chord may be without being worse for it, as a share of the range. */
  near: 0.2,
  same: 0.5,
  change: 0.4,
  /** Close to what is written a chord stays in the key. */
  border: 10,
  /** Where a section begins or ends at home, home is left last. */
  home: 1,
  stutter: 1.2,
} as const;

/**
 * Whole progressions for a section, the best first, that differ from each other by at least a third of the chords,
 * colors counting little (`variedSteps`). Every chord may stay or be changed by one of the techniques; pinned chords
 * stay; the loop's join, or the step to what follows in the form, counts like every other. Errors: `reharm.section`,
 * `reharm.short` for fewer than two chords.
 */
export const reharmonizeSection = (request: SectionRequest): Result<Progressed[]> => madeOf(sectionSteps(request));

/** The same progression by progression, in the order in which they are found. */
export function* sectionSteps({
  song,
  section,
  range,
  techniques,
  k = 5,
}: SectionRequest): Steps<Progressed[], Result<Progressed[]>> {
  const read = materialOf(song, section);
  if (!read.ok) return read;
  const ground = read.value;
  if (ground.slots.length < 2)
    return fail("reharm.short", "A section needs at least two chords to be reharmonized", {
      hint: "Write a chord line first.",
    });
  const own = ground.slots.map((_, i) => optionsAt(ground, i, range, techniques));
  // What follows in the form stands behind the last chord and is not changed; otherwise the last one leads back to the
  // first.
  const slots = ground.after ? [...ground.slots, ground.after] : ground.slots;
  const columns = ground.after ? [...own, [standing(ground.after)]] : own;
  const n = columns.length;
  const step = (c: number, i: number, j: number): number => {
    const a = nth(nth(columns, c), i);
    const b = nth(nth(columns, (c + 1) % n), j);
    const from = lastOf(a.chords);
    const to = firstOf(b.chords);
    // A chord that leads into its neighbor is only right while that neighbor is there.
    if (a.needsNext && rootPc(to) !== rootPc(nth(slots, (c + 1) % n).chord)) return Infinity;
    if (b.needsPrev && rootPc(from) !== rootPc(nth(slots, c).chord)) return Infinity;
    const key = nth(slots, (c + 1) % n).key;
    // Two techniques that meet in the same chord stutter.
    const stutter =
      (a.reason || b.reason) && rootPc(from) === rootPc(to) && bassPc(from) === bassPc(to) ? W.stutter : 0;
    return smallestMotion(from, to) * W.motion + linkCost(from, to, key) * W.link + stutter;
  };
  const steps = variedSteps(
    prepare({
      sizes: columns.map((c) => c.length),
      node: (c, i) => nth(nth(columns, c), i).cost,
      step,
      closed: !ground.after,
    }),
    {
      k,
      alike: (c, i, j) => likeness(nth(nth(columns, c), i), nth(nth(columns, c), j)),
      atLeast: Math.max(1, ground.slots.length / 3),
    },
  );
  const told = (path: Path): Progressed => {
    const row = path.picks.map((i, c) => nth(nth(columns, c), i));
    const picks = row.slice(0, ground.slots.length);
    let id = 0;
    const events = picks.flatMap((o, c) =>
      o.reason ? o.events.map((e) => ({ id: `new${++id}`, ...e })) : [nth(ground.slots, c).event],
    );
    const silent = ground.section.chords.filter((c) => !ground.slots.some((s) => s.event === c));
    const sum = (of: (o: Option) => number) => picks.reduce((s, o) => s + of(o), 0);
    return {
      events: [...events, ...silent].sort((a, b) => a.start - b.start),
      technique: [...new Set(picks.flatMap((o) => (o.reason ? [o.technique] : [])))].join(", ") || "as written",
      reasons: picks.flatMap((o) => (o.reason ? [o.reason] : [])),
      terms: [
        { name: "melody", cost: sum((o) => o.melody) * W.melody },
        { name: "bass", cost: sum((o) => o.bass) * W.bass },
        { name: "distance from the wanted range", cost: sum((o) => offRange(o.adventure, range)) * W.range },
        {
          name: "voice leading",
          cost:
            picks.reduce((s, o, c) => s + smallestMotion(lastOf(o.chords), firstOf(nth(row, (c + 1) % n).chords)), 0) *
            W.motion,
        },
      ],
      cost: path.cost,
      changed: picks.filter((o) => o.reason).length,
      clashes: picks.flatMap((o) => o.clashes),
    };
  };
  return ok((yield* toldAs(steps, (paths) => paths.map(told))).map(told));
}

/** A chord that is as it is. */
const standing = ({ chord }: Heard): Option => ({
  chords: [chord],
  events: [],
  reason: null,
  technique: "",
  needsNext: false,
  needsPrev: false,
  melody: 0,
  bass: 0,
  clashes: [],
  adventure: 0,
  outside: 0,
  cost: 0,
});

/** How alike two options sound: other colors of the same harmony two thirds, another harmony not at all. */
function likeness(a: Option, b: Option): number {
  if (a === b) return 1;
  const frame = (o: Option) =>
    o.chords.map((c) => `${rootPc(c)}:${bassPc(c)}:${has(c, "b3") ? "m" : ""}`).filter((x, i, all) => x !== all[i - 1]);
  return frame(a).join() === frame(b).join() ? 2 / 3 : 0;
}

const offRange = (adventure: number, range: number): number =>
  Math.max(0, Math.abs(adventure - range) - W.near * range);

type About = Pick<Option, "reason" | "technique" | "needsNext" | "needsPrev" | "adventure" | "outside">;

/** Weighs chords that could stand in a place: what they do under tune and bass, how far they lead, what they cost. */
function maker(ground: Ground, index: number, range: number) {
  const slot = nth(ground.slots, index);
  const spot = spotAt(ground, index, [index, index]);
  const isHome = (index === 0 || spot.last) && isTonic(slot.chord, slot.key) && slot.chord.bass === undefined;
  const holdsHome = (c: Chord) => isTonic(c, slot.key) && bassPc(c) === slot.key.pcs[0];
  return (chords: Chord[], durations: readonly number[], symbols: readonly string[], more: About): Option => {
    let at = slot.event.start;
    let melody = 0;
    let bass = 0;
    const clashes: string[] = [];
    const events = symbols.map((symbol, i) => {
      const start = at;
      at += nth(durations, i);
      const m = fitOf(nth(chords, i), slot.key, {
        from: start,
        to: at,
        notes: ground.lines.melody,
        lines: ground.lines,
      });
      melody += m.cost;
      clashes.push(...m.clashes.map((c) => c.text));
      bass += bassFit(nth(chords, i), slot.key, start, { to: at, lines: ground.lines }).cost;
      return { start, duration: nth(durations, i), symbol, ...(more.reason ? { why: more.reason } : {}) };
    });
    const links = chords.reduce((s, c, i) => s + (i > 0 ? linkCost(nth(chords, i - 1), c, slot.key) : 0), 0);
    const inner = chords.reduce((s, c, i) => s + (i > 0 ? smallestMotion(nth(chords, i - 1), c) : 0), 0);
    const cost =
      melody * W.melody +
      bass * W.bass +
      offRange(more.adventure, range) * W.range +
      inner * W.motion * 0.5 +
      links * W.link +
      (more.outside ? Math.max(0, 0.3 - range) * W.border : 0) +
      (more.reason ? (1 - range) * W.change : range * W.same) +
      (isHome && !holdsHome(firstOf(chords)) ? W.home * (1 - range) : 0);
    return { chords, events, melody, bass, clashes, cost, ...more };
  };
}

function optionsAt(ground: Ground, index: number, range: number, allowed?: readonly string[]): Option[] {
  const slot = nth(ground.slots, index);
  const spot = spotAt(ground, index, [index, index]);
  const make = maker(ground, index, range);
  const written = make([slot.chord], [slot.event.duration], [slot.event.symbol], {
    reason: null,
    technique: "",
    needsNext: false,
    needsPrev: false,
    adventure: 0,
    outside: 0,
  });
  if (slot.event.pinned) return [written];
  const seen = new Set([slot.event.symbol]);
  const options = [written];
  for (const technique of TECHNIQUES) {
    if (allowed && !allowed.includes(technique.id)) continue;
    for (const p of technique.propose(spot)) {
      if ((p.span ?? 1) > 1) continue;
      const id = p.chords.map((c) => `${c.symbol}+${c.duration}`).join();
      if (seen.has(id)) continue;
      seen.add(id);
      const chords = chordsOf(p);
      const outside = newOutside(chords, [slot.chord], slot.key);
      options.push(
        make(
          chords,
          p.chords.map((c) => c.duration),
          p.chords.map((c) => c.symbol),
          {
            reason: techniqueReason(technique, p),
            technique: technique.id,
            needsNext: p.needsNext ?? false,
            needsPrev: p.needsPrev ?? false,
            adventure: adventureOf(technique, outside),
            outside,
          },
        ),
      );
    }
  }
  return options;
}
