import { firstOf } from "../../../base/list";
import { beatsText, type Ticks } from "../../../theory/time/meter";
import type { RealizedNote } from "../../../song/realize";
import type { RoleSpan } from "../../../hear/slice/roles";
import { namesOver } from "../../../hear/slice/slices";
import type { BassContext } from "../context";
import { reasonOf } from "../reasons";
import { defineMeasure, idsOf, percent, spansOf } from "./measure";

const OUTSIDE = new Set([
  "outside",
  "tension",
  "passing",
  "neighbor",
  "appoggiatura",
  "escape",
  "approach",
  "suspension",
  "retardation",
]);
const LEADS = new Set(["outside", "tension", "passing", "neighbor", "appoggiatura", "approach"]);

const isOutside = (span: RoleSpan): boolean => OUTSIDE.has(span.kind);
const outsideNotes = (ctx: BassContext): string[] => idsOf(ctx.notes.filter((n) => spansOf(ctx, n).some(isOutside)));

export const chordTime = defineMeasure({
  id: "chordTime",
  title: "Time on chord tones",
  unit: "share",
  how: "Of the time that sounds under chords, the share on their tones. Pedals and anticipations count neither way.",
  take(ctx): { chordTime: number | null } {
    // A pedal, and a chord taken early, are heard as what they are.
    const spans = ctx.notes
      .flatMap((n) => spansOf(ctx, n))
      .filter((s) => s.kind !== "free" && s.kind !== "pedal" && s.kind !== "anticipation");
    const sum = (list: readonly RoleSpan[]) => list.reduce((total, s) => total + s.duration, 0);
    const all = sum(spans);
    return { chordTime: all ? sum(spans.filter((s) => s.kind === "chord")) / all : null };
  },
  notes: outsideNotes,
  show: (own) => (own.chordTime === null ? "–" : percent(own.chordTime)),
  target: (own, { style: { targets } }) =>
    targets.chordTime
      ? [`${percent(targets.chordTime)} or more`, (own.chordTime ?? 1) >= targets.chordTime - 1e-9]
      : null,
  cause: () => ({
    code: "outside",
    message: "Steps between the chords take more time than the style wants beside its chord tones.",
  }),
});

export const longestOutside = defineMeasure({
  id: "longestOutside",
  title: "Longest other tone",
  unit: "beats",
  how: "The longest stretch of one note outside its chord; pedals and anticipations by name are excepted.",
  take: (ctx): { longestOutside: Ticks } => ({
    longestOutside: Math.max(
      0,
      ...ctx.notes.flatMap((n) =>
        spansOf(ctx, n)
          .filter(isOutside)
          .map((s) => s.duration),
      ),
    ),
  }),
  notes: outsideNotes,
  show: (own, meter) => (own.longestOutside ? beatsText(meter, own.longestOutside) : "none"),
  target: (own, { style: { targets }, meter }) =>
    targets.longestOutside === null
      ? null
      : [
          `at most ${beatsText(meter, targets.longestOutside * firstOf(meter.beats).duration)}; pedals and ` +
            "anticipations by name are excepted",
          own.longestOutside <= targets.longestOutside * Math.max(...meter.beats.map((b) => b.duration)),
        ],
});

/** Notes that leave their chord at their end: they should lead somewhere. */
const leading = (ctx: BassContext): { note: RealizedNote; resolved: boolean }[] =>
  ctx.notes.flatMap((note) => {
    const kind = spansOf(ctx, note).at(-1)?.kind;
    return kind && LEADS.has(kind) ? [{ note, resolved: kind !== "outside" && kind !== "tension" }] : [];
  });

export const approaches = defineMeasure({
  id: "approaches",
  title: "Approaches resolved",
  unit: "notes",
  how: "Of the notes that end outside their chord, those that leave by step.",
  take(ctx): { approaches: number; approachesResolved: number } {
    const found = leading(ctx);
    return { approaches: found.length, approachesResolved: found.filter((x) => x.resolved).length };
  },
  notes: (ctx) => idsOf(leading(ctx).flatMap((x) => (x.resolved ? [] : [x.note]))),
  show: (own) => (own.approaches ? `${own.approachesResolved} of ${own.approaches}` : "none"),
  target: (own) => ["all: tones outside the chord leave by step", own.approachesResolved === own.approaches],
});

/** How often each tone is played over chords of one kind. */
export interface ToneUse {
  root: number;
  third: number;
  fifth: number;
  other: number;
}

/** The tone each note begins on, where it is one of its chord. */
const tonesOver = (ctx: BassContext, minor: boolean): { note: RealizedNote; tone: keyof ToneUse }[] =>
  ctx.notes.flatMap((note) => {
    const first = spansOf(ctx, note)[0];
    if (first?.kind !== "chord" || !first.chord?.chord) return [];
    if (first.chord.chord.tones.some((t) => t.role === "b3") !== minor) return [];
    const { role } = first;
    const toneOf = () => {
      if (role === "R") return "root";
      if (/^b?3$/.test(role)) return "third";
      if (/^[b#]?5$/.test(role)) return "fifth";
      return "other";
    };
    return [{ note, tone: toneOf() }];
  });

function useOf(ctx: BassContext, minor: boolean): ToneUse {
  const use: ToneUse = { root: 0, third: 0, fifth: 0, other: 0 };
  for (const { tone } of tonesOver(ctx, minor)) use[tone]++;
  return use;
}

const colored = (ctx: BassContext, minor: boolean): string[] =>
  idsOf(tonesOver(ctx, minor).flatMap(({ note, tone }) => (tone === "third" || tone === "fifth" ? [note] : [])));

const used = (use: ToneUse): string =>
  use.root + use.third + use.fifth + use.other
    ? `root ${use.root}, fifth ${use.fifth}, third ${use.third}${use.other ? `, other ${use.other}` : ""}`
    : "none";

export const overMajor = defineMeasure({
  id: "overMajor",
  title: "Over major chords",
  unit: "notes",
  how: "The tones that notes begin on over chords without a minor third.",
  take: (ctx): { overMajor: ToneUse } => ({ overMajor: useOf(ctx, false) }),
  notes: (ctx) => colored(ctx, false),
  show: (own) => used(own.overMajor),
});

export const overMinor = defineMeasure({
  id: "overMinor",
  title: "Over minor chords",
  unit: "notes",
  how: "The tones that notes begin on over chords with a minor third.",
  take: (ctx): { overMinor: ToneUse } => ({ overMinor: useOf(ctx, true) }),
  notes: (ctx) => colored(ctx, true),
  show: (own) => used(own.overMinor),
});

const heardAsOthers = (ctx: BassContext) => [...namesOver(ctx.chords, [...ctx.notes, ...ctx.layers])];

export const sounding = defineMeasure({
  id: "sounding",
  title: "Chords heard as others",
  unit: "words",
  how:
    "Chords under which the bass holds another note than the written one for half their length, or on their " +
    "first beat.",
  take: (ctx): { sounding: { chord: string; symbol: string; heard: string; tick: Ticks }[] } => ({
    sounding: heardAsOthers(ctx).map(([chord, heard]) => ({
      chord: chord.id,
      symbol: chord.symbol,
      heard,
      tick: chord.start,
    })),
  }),
  notes: (ctx) =>
    idsOf(
      heardAsOthers(ctx).flatMap(([chord]) =>
        ctx.notes.filter((n) => n.start < chord.start + chord.duration && n.start + n.duration > chord.start),
      ),
    ),
  ticks: (own) => own.sounding.map((s) => s.tick),
  show: (own) => (own.sounding.length ? own.sounding.map((s) => `${s.symbol} as ${s.heard}`).join(", ") : "none"),
});

const unreasoned = (ctx: BassContext): RealizedNote[] => {
  const kickAt = new Set(ctx.kicks.map((k) => k.start));
  return ctx.notes.filter((n) => !reasonOf(n, spansOf(ctx, n), kickAt.has(n.start)));
};

export const reasons = defineMeasure({
  id: "reasons",
  title: "Notes without a reason",
  unit: "notes",
  how: "Notes that were not written for a reason, are not pinned, and are justified by no place or way of leading on.",
  take: (ctx): { withoutReason: number } => ({ withoutReason: unreasoned(ctx).length }),
  notes: (ctx) => idsOf(unreasoned(ctx)),
  show: (own) => String(own.withoutReason),
  target: (own) => ["none: each is written for a reason, pinned, or justified by its place", own.withoutReason === 0],
});
