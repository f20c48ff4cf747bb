import { pairwise, firstOf, lastOf, nth, sure } from "../../base/list";
import { fail, ok, type Result } from "../../base/result";
import type { Key } from "../../theory/pitch/key";
import { typeset } from "../../theory/pitch/pitch";
import type { Ticks } from "../../theory/time/meter";
import { bassPc, chordPitchClasses, rootPc, type Chord } from "../../theory/chord/chord";
import { parseChord } from "../../theory/chord/parse";
import { describeReason } from "../../song/reasons";
import type { ChordEvent, Reason, Song } from "../../song/schema";
import { belongs, type Heard } from "../../hear/harmony/context";
import { smallestMotion } from "../../hear/harmony/distance";
import { bassFit, fitOf, outsideOf } from "./fit";
import { techniqueReason, type Proposal, type Technique } from "./technique";
import { beside, materialOf, spotAt, type Ground } from "./ground";
import { has } from "./tools";
import { TECHNIQUES } from "./techniques";

export interface ReharmTerm {
  name: "melody" | "bass" | "voice leading" | "outside the key" | "adventure";
  cost: number;
}

export interface ReharmCandidate {
  /** All chords of the section as they would be. */
  events: ChordEvent[];
  /** The stretch that changes, and what takes its place: one `setChords` edit. */
  from: Ticks;
  to: Ticks;
  chords: Omit<ChordEvent, "id">[];
  technique: string;
  title: string;
  aim: "more" | "less";
  reasons: Reason[];
  terms: ReharmTerm[];
  /** How far it goes, 0 to 1. */
  adventure: number;
  /** What the tune and the bass would be over it. */
  melody: { chordTones: number; tensions: number; clashes: string[] };
  bass: { clashes: string[] };
  /** Semitones of voice leading through the stretch, before and after. */
  motion: { before: number; after: number };
  /** Different notes outside the key in it. */
  outside: number;
}

export interface ReharmRequest {
  song: Song;
  section: string;
  chordIds: readonly string[];
  /** 0 stays close, 1 is adventurous; orders the candidates. */
  range: number;
  /** Ids of the techniques that may be used; all when absent. */
  techniques?: readonly string[];
}

/** Why a chord is there: in the words of its technique, or of the writer that made it. */
export function describeChange(reason: Reason | undefined): string {
  const [id, variant] = (reason?.id ?? "").split(".");
  const words = TECHNIQUES.find((t) => t.id === id)?.words[variant ?? ""];
  if (!words) return describeReason(reason);
  return words.replace(/\{(\w+)\}/g, (_, name: string) => {
    const value = String(sure(reason).params?.[name] ?? "");
    // Notes, chords and degrees are typeset; other words are left alone.
    return /^[A-G]|^[b#]?\d/.test(value) ? typeset(value) : value;
  });
}

/** The list alone, best first; empty where `reharmonizations` would name an error. */
export function reharmonize(request: ReharmRequest): ReharmCandidate[] {
  const result = reharmonizations(request);
  return result.ok ? result.value : [];
}

const PER_TECHNIQUE = 4;
const MOST = 40;
const AGAIN = 0.5;
const BORDER = 40;

const spelled = (chords: readonly { symbol: string; duration: Ticks }[]): string =>
  chords.map((c) => `${c.symbol}+${c.duration}`).join();

/** Whether a proposal is something else than the chords `from` to `to`, which are there and not pinned. */
function mayReplace(ground: Ground, proposal: Proposal, from: number, to: number): boolean {
  if (to >= ground.slots.length) return false;
  const span = ground.slots.slice(from, to + 1).map((s) => s.event);
  // Silence between two chords is not filled.
  const broken = pairwise(span).some(([a, b]) => b.start !== a.start + a.duration);
  return !broken && !span.some((e) => e.pinned) && spelled(span) !== spelled(proposal.chords);
}

/**
 * Alternatives for chosen chords, those nearest to the wanted range first. Pinned chords stay. Errors:
 * `reharm.section`, `reharm.none` when nothing is chosen that can change, `reharm.pinned` when all that is chosen is
 * pinned.
 */
export function reharmonizations({
  song,
  section,
  chordIds,
  range,
  techniques,
}: ReharmRequest): Result<ReharmCandidate[]> {
  const read = materialOf(song, section);
  if (!read.ok) return read;
  const ground = read.value;
  const chosen = ground.slots.flatMap((s, i) => (chordIds.includes(s.event.id) ? [i] : []));
  if (!chosen.length)
    return fail("reharm.none", "No chord is chosen", { hint: "Choose one or more chords in the score." });
  if (chosen.every((i) => nth(ground.slots, i).event.pinned))
    return fail("reharm.pinned", "All chosen chords are pinned", {
      hint: "Take the pin from a chord that may change.",
    });
  const allowed = techniques ? TECHNIQUES.filter((t) => techniques.includes(t.id)) : TECHNIQUES;
  const found: ReharmCandidate[] = [];
  const seen = new Set<string>();
  // Runs of neighboring chosen chords that are not pinned.
  for (const [from, to] of runs(chosen.filter((i) => !nth(ground.slots, i).event.pinned)))
    for (let index = from; index <= to; index++) {
      const spot = spotAt(ground, index, [from, to]);
      for (const technique of allowed)
        for (const proposal of technique.propose(spot)) {
          const end = index + (proposal.span ?? 1) - 1;
          if (!mayReplace(ground, proposal, index, end)) continue;
          if (technique.aim === "more" && repeats(ground, proposal, index, end)) continue;
          const candidate = weigh(ground, technique, proposal, { index, end });
          const id = `${candidate.from}:${spelled(candidate.chords)}`;
          if (seen.has(id)) continue;
          seen.add(id);
          found.push(candidate);
        }
    }
  const most = allowed.length < 4 ? MOST : PER_TECHNIQUE * Math.min(3, chosen.length);
  return ok(varied(found, range, most));
}

/** A change that only says the harmony before or after it once more. */
function repeats(ground: Ground, proposal: Proposal, index: number, end: number): boolean {
  const { slots } = ground;
  const chords = chordsOf(proposal);
  const same = (a: Chord, b: Chord) =>
    rootPc(a) === rootPc(b) && bassPc(a) === bassPc(b) && ["3", "b3"].every((role) => has(a, role) === has(b, role));
  const again = (mine: Chord, other: Heard | undefined, old: number) =>
    other !== undefined && same(mine, other.chord) && !same(nth(slots, old).chord, other.chord);
  return (
    again(firstOf(chords), beside(ground, index - 1), index) || again(lastOf(chords), beside(ground, end + 1), end)
  );
}

/** Best first, each technique a little later with every offer it has already. */
function varied(found: readonly ReharmCandidate[], range: number, most: number): ReharmCandidate[] {
  const rest = found.map((c) => ({ c, score: total(c, range) })).sort((a, b) => a.score - b.score);
  const counts = new Map<string, number>();
  const out: ReharmCandidate[] = [];
  while (rest.length && out.length < MOST) {
    const late = (x: (typeof rest)[number]) => x.score + AGAIN * (counts.get(x.c.technique) ?? 0);
    const best = rest.reduce((a, b) => (late(b) < late(a) ? b : a));
    rest.splice(rest.indexOf(best), 1);
    const count = (counts.get(best.c.technique) ?? 0) + 1;
    counts.set(best.c.technique, count);
    if (count <= most) out.push(best.c);
  }
  return out;
}

function runs(indices: readonly number[]): [number, number][] {
  const out: [number, number][] = [];
  for (const i of indices) {
    const last = out.at(-1);
    if (last && last[1] === i - 1) last[1] = i;
    else out.push([i, i]);
  }
  return out;
}

/**
 * The wanted distance first, then the tune, then the rest. At the ends of the range an offer on the wrong side of the
 * key's border comes last.
 */
const total = (c: ReharmCandidate, range: number): number =>
  Math.abs(c.adventure - range) * 6 +
  (c.outside ? Math.max(0, 0.3 - range) : Math.max(0, range - 0.7)) * BORDER +
  c.terms.reduce((sum, t) => sum + (t.name === "adventure" ? 0 : t.cost), 0);

export const chordsOf = (proposal: Proposal): Chord[] =>
  proposal.chords.map((c) => {
    const chord = parseChord(c.symbol);
    if (!chord.ok) throw new Error(chord.error.message);
    return chord.value;
  });

/**
 * How far a change goes, 0 to 1: what stays in the key stays below 0.4; what leaves it begins there, further with every
 * note.
 */
export function adventureOf(technique: Technique, outside: number): number {
  return outside
    ? Math.min(1, 0.35 + technique.adventure * 0.35 + Math.min(5, outside) * 0.07)
    : technique.adventure * 0.5;
}

/**
 * Notes that chords bring from outside a key and that were not there before; in minor the dominant's raised seventh is
 * at home.
 */
export function newOutside(chords: readonly Chord[], old: readonly Chord[], key: Key): number {
  const known = new Set(old.flatMap(chordPitchClasses));
  const pcs = chords.filter((c) => !belongs(c, key)).flatMap(chordPitchClasses);
  return new Set(pcs.filter((pc) => !key.pcs.includes(pc) && !known.has(pc))).size;
}

const motionThrough = (chords: readonly (Chord | undefined)[]): number =>
  pairwise(chords).reduce((sum, [from, to]) => sum + (from && to ? smallestMotion(from, to) : 0), 0);

function weigh(
  ground: Ground,
  technique: Technique,
  proposal: Proposal,
  { index, end }: { index: number; end: number },
): ReharmCandidate {
  const { slots, lines, section } = ground;
  const spot = spotAt(ground, index, [index, end]);
  const after = beside(ground, end + 1)?.chord;
  const chords = chordsOf(proposal);
  const key = spot.here.key;
  const from = spot.here.event.start;
  const to = nth(slots, end).event.start + nth(slots, end).event.duration;
  const reason = techniqueReason(technique, proposal);
  let at = from;
  const melody = { chordTones: 0, tensions: 0, clashes: [] as string[] };
  const bass = { clashes: [] as string[] };
  let melodyCost = 0;
  let bassCost = 0;
  const placed = proposal.chords.map((c, i): Omit<ChordEvent, "id"> => {
    const start = at;
    at += c.duration;
    const m = fitOf(nth(chords, i), key, { from: start, to: at, notes: lines.melody, lines });
    melody.chordTones += m.chordTones;
    melody.tensions += m.tensions;
    melody.clashes.push(...m.clashes.map((x) => x.text));
    melodyCost += m.cost;
    const b = bassFit(nth(chords, i), key, start, { to: at, lines });
    bass.clashes.push(...b.clashes.map((x) => x.text));
    bassCost += b.cost;
    return { start, duration: c.duration, symbol: c.symbol, why: reason };
  });
  const old = slots.slice(index, end + 1).map((s) => s.chord);
  const motion = {
    before: motionThrough([spot.prev?.chord, ...old, after]),
    after: motionThrough([spot.prev?.chord, ...chords, after]),
  };
  const outside = newOutside(chords, old, key);
  const adventure = adventureOf(technique, outside);
  const kept = section.chords.filter((c) => c.start + c.duration <= from || c.start >= to);
  return {
    events: [...kept, ...placed.map((c, i) => ({ id: `new${i + 1}`, ...c }))].sort((a, b) => a.start - b.start),
    from,
    to,
    chords: placed,
    technique: technique.id,
    title: technique.title,
    aim: technique.aim,
    reasons: [reason],
    terms: [
      { name: "melody", cost: melodyCost * 1.6 },
      { name: "bass", cost: bassCost * 0.5 },
      {
        name: "voice leading",
        cost:
          Math.max(0, motion.after / Math.max(1, chords.length + 1) - motion.before / Math.max(1, old.length + 1)) *
          0.15,
      },
      { name: "outside the key", cost: chords.reduce((sum, c) => sum + outsideOf(c, key), 0) * 0.05 },
      { name: "adventure", cost: adventure },
    ],
    adventure,
    melody,
    bass,
    motion,
    outside,
  };
}
