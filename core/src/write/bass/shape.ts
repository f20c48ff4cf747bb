import { firstOf, nth, sure } from "../../base/list";
import { fail, ok, type Result } from "../../base/result";
import { mod, type Midi } from "../../theory/pitch/pitch";
import { metricalLevel, THIRTY_SECOND, type Ticks } from "../../theory/time/meter";
import { chordPitchClasses } from "../../theory/chord/chord";
import { sectionOf } from "../../song/document";
import type { Edit } from "../../song/edits";
import { applyEdit } from "../../song/edits";
import type { RealizedNote } from "../../song/realize";
import { weightOfReason } from "../../song/reasons";
import type { Note, Reason, Song } from "../../song/schema";
import { beatLength, chordAt, inGap, type BassContext } from "./context";
import { bassStep } from "./choose";
import { pitchSlots, type Candidate, type OpenSlot, type PitchSlot } from "./pitches";
import { reasonForNote, reasonOf, spellBass } from "./reasons";
import { factsOf } from "../../facts/memory";
import type { BassReport } from "./measures";
import { halfOf } from "../../hear/line/figure";
import { beatsOf, restsOf, untilBackbeat } from "./rhythm";
import type { BassStyle, RhythmPlace } from "./style";
import { bassRequest, reportBass, type BassRequest } from "./write";

/** One step of thinning or building, as an edit that undo takes back. */
export interface ShapeStep {
  edit: Edit;
  tick: Ticks;
  pitch: string;
  /** Why it went first, or was added; null where the note had no reason at all. */
  reason: Reason | null;
  /** How many notes there are after it. */
  notes: number;
}

const LEADING = /^(approach|scaleStep|anticipation|fill|passing)/;

/**
 * Notes of the line with how well each is justified, least first. Pinned notes and those written by hand for a reason
 * stand last.
 */
export function justified(ctx: BassContext): { note: RealizedNote; reason: Reason | null; weight: number }[] {
  const { notes, roles } = ctx;
  const kickAt = new Set(ctx.kicks.map((k) => k.start));
  const list = notes.map((note) => ({ note, reason: reasonOf(note, sure(roles.get(note)), kickAt.has(note.start)) }));
  return list
    .map(({ note, reason }, i) => {
      let weight = weightOfReason(reason, note.pinned);
      if (weight > 0 && weight < 1) {
        // A note that another one leads into is needed by it; notes under the tune's motion and on weak places are
        // needed less.
        if (i > 0 && LEADING.test(nth(list, i - 1).reason?.id ?? "")) weight += 0.4;
        if (ctx.tune.notes.length && !inGap(ctx, note.start)) weight -= 0.08;
        weight += metricalLevel(ctx.meter, note.start) * 0.02;
      }
      return { note, reason, weight };
    })
    .sort((a, b) => a.weight - b.weight || b.note.start - a.note.start);
}

/**
 * Removes the least justified note; what was tied to its beginning takes its time where the chord is the same. Errors:
 * as `bassRequest`, `bass.bare`.
 */
export function thinOut(song: Song, request: BassRequest): Result<ShapeStep> {
  const resolved = bassRequest(factsOf(song), request);
  if (!resolved.ok) return resolved;
  const { ctx } = resolved.value;
  const order = justified(ctx);
  const least = order[0];
  if (!least) return fail("bass.bare", "There is no note to remove");
  if (least.weight >= 1)
    return fail("bass.bare", "Every note that is left must sound: a new chord, a main accent, or pinned by you");
  const { note } = least;
  const at = { section: ctx.section.id, part: ctx.part.id };
  const edits: Edit[] = [{ do: "removeNotes", ...at, notes: [note.id] }];
  const before = order.map((o) => o.note).find((n) => n.start + n.duration === note.start && !n.pinned);
  if (before && ctx.settings.gate === "ring" && chordAt(ctx, before.start) === chordAt(ctx, note.start))
    edits.push({ do: "changeNotes", ...at, notes: [{ id: before.id, duration: before.duration + note.duration }] });
  return ok({
    edit: { do: "all", label: "thin out", edits },
    tick: note.start,
    pitch: note.pitch,
    reason: least.reason,
    notes: order.length - 1,
  });
}

/**
 * Places where a note could be added, the most wanted first: new chords, kicks, what the style knows, and the beats
 * between.
 */
function freePlaces(
  ctx: BassContext,
  style: BassStyle,
  notes: readonly RealizedNote[],
): { place: RhythmPlace; score: number }[] {
  const free = (at: Ticks) =>
    at >= 0 &&
    at < ctx.length &&
    chordAt(ctx, at)?.chord &&
    !notes.some((n) => Math.abs(n.start - at) < 120 || (n.pinned && n.start < at && n.start + n.duration > at));
  const candidates: RhythmPlace[] = [
    ...ctx.chords.flatMap((c): RhythmPlace[] => (c.chord ? [{ at: c.start, use: "anchor", priority: 1 }] : [])),
    ...ctx.kicks.map((k): RhythmPlace => ({ at: k.start, use: "kick", priority: k.main ? 1 : 0.6 })),
    ...style.places(ctx),
    ...beatsOf(ctx).flatMap((b): RhythmPlace[] => [
      { at: b.at, use: "hook", priority: 0.2 },
      { at: b.at + halfOf(b.duration), use: "hook", priority: 0.1 },
    ]),
  ];
  const places = new Map<Ticks, RhythmPlace>();
  for (const place of candidates)
    if (free(place.at) && (places.get(place.at)?.priority ?? -1) < place.priority) places.set(place.at, place);
  const gaps = ctx.tune.notes.length > 0;
  return [...places.values()]
    .map((place) => {
      const leaning = () => {
        if (gaps) {
          if (inGap(ctx, place.at)) return 0.15;
          return -0.15;
        }
        return 0;
      };
      return { place, score: place.priority + leaning() };
    })
    .sort((x, y) => y.score - x.score || x.place.at - y.place.at);
}

/** The slot of a place: as long as the style holds it, within its room. */
function slotAt(
  ctx: BassContext,
  style: BassStyle,
  { at, use, prefers, with: other }: RhythmPlace,
  next: Ticks,
): OpenSlot {
  const chord = sure(chordAt(ctx, at));
  const most = Math.min(
    Math.min(next, chord.start + chord.duration) - at,
    style.hold(ctx, at, use),
    beatLength(ctx, at) * 2,
  );
  return {
    start: at,
    duration: Math.max(60, Math.round(ctx.settings.gate === "cut" ? untilBackbeat(ctx.backbeats, at, most) : most)),
    use,
    ...(prefers ? { prefers } : {}),
    ...(other ? { with: other } : {}),
    ...(inGap(ctx, at) ? { inGap: true } : {}),
  };
}

/** How many of the most wanted places are tried with all their pitches. */
const TRIED = 8;

/**
 * Adds the best justified note the style knows a place for, with the pitch that suits its neighbors. Errors: as
 * `bassRequest`, `bass.full`.
 */
export function buildUp(song: Song, request: BassRequest): Result<ShapeStep> {
  const resolved = bassRequest(factsOf(song), request);
  if (!resolved.ok) return resolved;
  const { ctx, style } = resolved.value;
  const { notes } = ctx;
  const fixed: OpenSlot[] = notes.map((n) => ({
    start: n.start,
    duration: n.duration,
    use: "anchor",
    pinMidi: n.midi,
  }));
  const pedal = style.pedals && notes.length ? mod(firstOf(notes).midi, 12) : undefined;
  let best: { score: number; slot: OpenSlot; pitch: string; reason: Reason } | null = null;
  for (const { place, score: wanted } of freePlaces(ctx, style, notes).slice(0, TRIED)) {
    const slot = slotAt(ctx, style, place, notes.find((n) => n.start > place.at)?.start ?? ctx.length);
    const all = [...fixed, slot].sort((x, y) => x.start - y.start);
    const slots = pitchSlots(ctx, style, all, pedal);
    const i = slots.findIndex((s) => s.start === slot.start);
    if (i < 0) continue;
    for (const { midi, cost } of pricedAt(ctx, style, slots, i)) {
      const line = slots.map((s, k) => ({ slot: s, midi: k === i ? midi : (s.pinMidi ?? firstOf(s.candidates).midi) }));
      const reason = reasonForNote(ctx, line, i, pedal !== undefined);
      const score = weightOfReason(reason) + wanted - cost * 0.3;
      if (!best || score > best.score)
        best = { score, slot, reason, pitch: spellBass(ctx, nth(line, i), nth(line, (i + 1) % line.length)) };
    }
  }
  if (!best)
    return fail("bass.full", "The style knows no other place for a note here", { hint: "Another style knows others." });
  const { slot, pitch, reason } = best;
  const at = { section: ctx.section.id, part: ctx.part.id };
  const over = notes.filter((n) => n.start < slot.start && n.start + n.duration > slot.start);
  const edits: Edit[] = [
    ...(over.length
      ? [{ do: "changeNotes" as const, ...at, notes: over.map((n) => ({ id: n.id, duration: slot.start - n.start })) }]
      : []),
    {
      do: "addNote",
      ...at,
      note: { start: slot.start, duration: slot.duration, pitch, velocity: slot.use === "kick" ? 90 : 80, reason },
    },
  ];
  return ok({
    edit: { do: "all", label: "build up", edits },
    tick: slot.start,
    pitch,
    reason,
    notes: notes.length + 1,
  });
}

/** Pitches of one slot among fixed neighbors, with what they and the steps into and out of them cost. */
function pricedAt(
  ctx: BassContext,
  style: BassStyle,
  slots: readonly PitchSlot[],
  i: number,
): { midi: Midi; cost: number }[] {
  const here = nth(slots, i);
  const [before, after] = [nth(slots, (i + slots.length - 1) % slots.length), nth(slots, (i + 1) % slots.length)];
  const step = (from: PitchSlot, a: Candidate, to: PitchSlot, b: Candidate) =>
    from === to ? 0 : bassStep(style, ctx.settings.octaves, a, { to: b, lifts: to.use === "octave" });
  return here.candidates
    .map((c) => ({
      midi: c.midi,
      cost:
        c.cost +
        Math.min(...before.candidates.map((x) => step(before, x, here, c))) +
        Math.min(...after.candidates.map((x) => step(here, c, after, x))),
    }))
    .filter((x) => x.cost < Infinity);
}

/** A way to end notes, with what it does to the groove. */
export interface Gate {
  id: "cut" | "ring" | "short" | "breath";
  title: string;
  explanation: string;
  edit: Edit;
  effect: Pick<BassReport, "silence" | "backbeatsFree" | "backbeats">;
  changed: number;
}

const SHORTEST: Ticks = THIRTY_SECOND;
/** A note whose reason weighs less is done without when a line is to breathe. */
const WEAK = 0.9;

type NotePlace = Pick<Extract<Edit, { do: "changeNotes" }>, "section" | "part">;

/** How long a note of the line may ring: to the next one, and into the next chord only where it belongs to it. */
function roomOf({ notes, chords, length }: BassContext, i: number): Ticks {
  const note = nth(notes, i);
  const end = notes[i + 1]?.start ?? length;
  const cut = chords.find(
    (c) =>
      c.start > note.start && c.start < end && (!c.chord || !chordPitchClasses(c.chord).includes(mod(note.midi, 12))),
  );
  return Math.max(SHORTEST, (cut?.start ?? end) - note.start);
}

/** The edit that gives each note another length; pinned ones keep theirs. */
const withLengths = (
  at: NotePlace,
  { notes }: BassContext,
  length: (note: RealizedNote, i: number) => Ticks,
): Edit => ({
  do: "changeNotes",
  ...at,
  notes: notes.flatMap((n, i) => {
    const duration = Math.max(SHORTEST, Math.round(length(n, i)));
    return n.pinned || duration === n.duration ? [] : [{ id: n.id, duration }];
  }),
});

/** The edit that silences the end of every figure, but for what must sound there. */
function breathe(at: NotePlace, ctx: BassContext): Edit {
  const rests = restsOf(ctx);
  const weak = new Set(
    justified(ctx)
      .filter((j) => j.weight < WEAK)
      .map((j) => j.note.id),
  );
  const gone = ctx.notes.filter((n) => weak.has(n.id) && rests.some((r) => n.start >= r.from && n.start < r.to));
  const cut = ctx.notes.flatMap((n) => {
    const rest = rests.find((r) => n.start < r.from && n.start + n.duration > r.from);
    return rest && !n.pinned ? [{ id: n.id, duration: rest.from - n.start }] : [];
  });
  return {
    do: "all",
    label: "breathe",
    edits: [
      ...(gone.length ? [{ do: "removeNotes" as const, ...at, notes: gone.map((n) => n.id) }] : []),
      { do: "changeNotes", ...at, notes: cut },
    ],
  };
}

const waysToEnd = (at: NotePlace, ctx: BassContext): Omit<Gate, "effect" | "changed">[] => [
  {
    id: "cut",
    title: "Cut before the backbeat",
    explanation: "Every note ends where a snare or clap is played: the line breathes and the backbeat stands alone.",
    edit: withLengths(at, ctx, (n) => untilBackbeat(ctx.backbeats, n.start, n.duration)),
  },
  {
    id: "ring",
    title: "Ring through",
    explanation: "Every note lasts until the next one, as long as its chord allows: full and even.",
    edit: withLengths(at, ctx, (_, i) => roomOf(ctx, i)),
  },
  {
    id: "short",
    title: "Short",
    explanation: "Every note takes half of its room: dry and light.",
    edit: withLengths(at, ctx, (n, i) => Math.min(roomOf(ctx, i) / 2, beatLength(ctx, Math.max(0, n.start)))),
  },
  {
    id: "breath",
    title: "Breathe at the end of the figure",
    explanation: "The last beat of every figure is silent, but for what must sound there.",
    edit: breathe(at, ctx),
  },
];

/** How many notes of a part an edit changed or removed. */
function changedNotes(before: Song, after: Song, { section, part }: NotePlace): number {
  const text = (s: Song) => (sectionOf(s, section)?.notes[part] ?? []).map((n: Note) => `${n.id}:${n.duration}`);
  const [was, is] = [new Set(text(before)), text(after)];
  return is.filter((t) => !was.has(t)).length + Math.max(0, was.size - is.length);
}

/**
 * Ways to set the lengths of a line that stands, each with its effect. Pinned notes keep theirs. Errors: as
 * `bassRequest`.
 */
export function gates(song: Song, request: BassRequest): Result<{ now: Gate["effect"]; gates: Gate[] }> {
  const resolved = bassRequest(factsOf(song), request);
  if (!resolved.ok) return resolved;
  const { ctx } = resolved.value;
  const at: NotePlace = { section: ctx.section.id, part: ctx.part.id };
  const effectOf = (of: Song): Gate["effect"] => {
    const report = reportBass(of, at);
    return report.ok ? report.value : { silence: 0, backbeatsFree: 0, backbeats: 0 };
  };
  return ok({
    now: effectOf(song),
    gates: waysToEnd(at, ctx).map((g) => {
      const applied = applyEdit(song, g.edit);
      const after = applied.ok ? applied.value.song : song;
      return { ...g, effect: effectOf(after), changed: changedNotes(song, after, at) };
    }),
  });
}
