import { firstOf, nth } from "../../../base/list";
import { mod } from "../../../theory/pitch/pitch";
import { positionText, type Ticks } from "../../../theory/time/meter";
import { toneRole } from "../../../theory/chord/chord";
import type { RealizedNote } from "../../../song/realize";
import { textbookKind } from "../../../hear/slice/roles";
import { rubbedBeats } from "../clash";
import { chordAt, type CounterContext } from "../context";
import { at, defineMeasure, idsOf, percent, topOf } from "./measure";

/** Whether a note is a suspension where it stands at a tick: then it may rub. */
const suspended = (ctx: CounterContext, note: RealizedNote, tick: Ticks): boolean => {
  const span = ctx.roles.get(note)?.find((s) => s.start <= tick && tick < s.start + s.duration);
  const kind = span && textbookKind(span);
  return kind === "suspension" || kind === "retardation";
};
const clashing = (ctx: CounterContext): { note: RealizedNote; at: Ticks }[] =>
  ctx.notes.flatMap((note) =>
    rubbedBeats(ctx, note.midi, note.start, note.duration)
      .filter((at) => !suspended(ctx, note, at))
      .slice(0, 1)
      .map((at) => ({ note, at })),
  );

export const clashes = defineMeasure({
  id: "clashes",
  title: "Rubs on a beat",
  unit: "notes",
  how:
    "Notes a semitone or a minor ninth from the tune, from a part that lays out the chords, or above a tone of " +
    "the chord, on a beat. Tones of the chord and suspensions do not count",
  take: (ctx): { clashes: number } => ({ clashes: clashing(ctx).length }),
  notes: (ctx) => idsOf(clashing(ctx).map((c) => c.note)),
  show: (own) => String(own.clashes),
  target: (own) => ["none", own.clashes === 0],
  cause(ctx, line) {
    const list = clashing(ctx);
    const told = list.slice(0, 4).map(({ note, at }) => `${note.pitch} in ${positionText(ctx.meter, at)}`);
    let what;
    if (list.some((c) => c.note.pinned)) what = "A pinned note rubs";
    else if (line[0]?.slot.fixed !== undefined) what = "The cell rubs";
    else what = "The rules of the style hear the tune alone; against the chords it rubs";
    const more = list.length > told.length ? ` and ${list.length - told.length} more` : "";
    return { code: "clash", ...(list[0] ? { tick: list[0].at } : {}), message: `${what}: ${told.join("; ")}${more}.` };
  },
});

export const chordTime = defineMeasure({
  id: "chordTime",
  title: "Time on chord tones",
  unit: "share",
  how: "The share of its time on tones of the chord of the moment",
  take(ctx): { chordTime: number | null } {
    const spans = ctx.notes.flatMap((n) => ctx.roles.get(n) ?? []).filter((s) => s.chord?.chord);
    const all = spans.reduce((sum, s) => sum + s.duration, 0);
    return { chordTime: all ? spans.reduce((sum, s) => sum + (s.kind === "chord" ? s.duration : 0), 0) / all : null };
  },
  notes: (ctx) =>
    idsOf(ctx.notes.filter((n) => (ctx.roles.get(n) ?? []).some((s) => s.chord?.chord && s.kind !== "chord"))),
  show: (own) => (own.chordTime === null ? null : percent(own.chordTime)),
  target: (own, { style: { targets } }) =>
    targets.chordTime === undefined || own.chordTime === null
      ? null
      : [`${percent(targets.chordTime)} or more`, own.chordTime >= targets.chordTime - 1e-9],
  cause: (ctx) => ({
    code: "outside",
    message: `${ctx.against || "The tune"} takes the tones of the chords, and the line keeps clear of it.`,
  }),
});

/** Different notes in every two bars, octaves counted as one. */
function densest(ctx: CounterContext): { from: Ticks; count: number } {
  let best = { from: 0, count: 0 };
  for (let bar = 0; bar < ctx.bars; bar++) {
    const from = bar * ctx.meter.bar;
    const to = from + 2 * ctx.meter.bar;
    const count = new Set(ctx.notes.flatMap((n) => (n.start >= from && n.start < to ? [mod(n.midi, 12)] : []))).size;
    if (count > best.count) best = { from, count };
  }
  return best;
}

export const pitches = defineMeasure({
  id: "pitches",
  title: "Different notes",
  unit: "notes",
  how: "The most in any two bars, octaves counted as one",
  take: (ctx): { pitches: number; pitchesAt: Ticks } => {
    const { from, count } = densest(ctx);
    return { pitches: count, pitchesAt: from };
  },
  show: (own) => (own.pitches ? String(own.pitches) : null),
  target: (own, { style: { targets } }) =>
    targets.pitches === undefined ? null : [`${targets.pitches} at most`, own.pitches <= targets.pitches],
  cause: (ctx, _line, own) => ({
    code: "pitches",
    tick: own.pitchesAt,
    message: `From ${positionText(ctx.meter, own.pitchesAt)} the chords share too few tones for fewer notes.`,
  }),
});

const leapsIn = (ctx: CounterContext): RealizedNote[] => {
  const line = topOf(ctx);
  return line.filter(
    (n, i) =>
      i > 0 &&
      n.start - (nth(line, i - 1).start + nth(line, i - 1).duration) < firstOf(ctx.meter.beats).duration &&
      Math.abs(n.midi - nth(line, i - 1).midi) > 2,
  );
};

export const stepwise = defineMeasure({
  id: "stepwise",
  title: "Moves by step",
  unit: "share",
  how: "The share of moves that are a tone or less; repeats count with them. It points at the leaps",
  take(ctx): { stepwise: number | null } {
    const count = topOf(ctx).length - 1;
    return { stepwise: count > 0 ? 1 - leapsIn(ctx).length / count : null };
  },
  notes: (ctx) => idsOf(leapsIn(ctx)),
  show: (own) => (own.stepwise === null ? null : percent(own.stepwise)),
  target: (own, { style: { targets } }) =>
    targets.stepwise === undefined || own.stepwise === null
      ? null
      : [`${percent(targets.stepwise)} or more`, own.stepwise >= targets.stepwise - 1e-9],
  cause: (ctx) => ({
    code: "leaps",
    message: `The chords lie too far apart for steps${at(ctx, leapsIn(ctx)[0]?.start)}.`,
  }),
});

const GUIDES = new Set(["3", "b3", "7", "b7", "bb7", "4", "2"]);
const isGuide = (ctx: CounterContext, n: RealizedNote): boolean => {
  const chord = chordAt(ctx, Math.max(0, n.start))?.chord;
  if (!chord) return true;
  const { role } = toneRole(chord, mod(n.midi, 12));
  return GUIDES.has(role) || (role === "6" && !chord.tones.some((t) => t.degree === 7));
};

export const guides = defineMeasure({
  id: "guides",
  title: "Thirds and sevenths",
  unit: "share",
  how:
    "The share of notes that begin as the third or seventh of their chord: a fourth in its place counts, and the " +
    "sixth where there is no seventh",
  take: (ctx): { guides: number | null } => ({
    guides: ctx.notes.length ? ctx.notes.filter((n) => isGuide(ctx, n)).length / ctx.notes.length : null,
  }),
  notes: (ctx) => idsOf(ctx.notes.filter((n) => !isGuide(ctx, n))),
  show: (own) => (own.guides === null ? null : percent(own.guides)),
  target: (own, { style: { targets } }) =>
    targets.guides === undefined || own.guides === null
      ? null
      : [`${percent(targets.guides)} or more`, own.guides >= targets.guides - 1e-9],
  cause: (ctx) => ({
    code: "guides",
    message: ctx.chords.some((c) => c.chord && !c.chord.tones.some((t) => t.degree === 7))
      ? "Chords without a seventh leave their thirds alone, and those lie a leap apart."
      : `Thirds and sevenths rub against ${ctx.against || "the tune"} there, or double it.`,
  }),
});
