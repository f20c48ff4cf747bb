import { firstOf, lastOf, nth, sure } from "../../base/list";
import { mod, type Midi, type PitchName } from "../../theory/pitch/pitch";
import { positionText, type Ticks } from "../../theory/time/meter";
import { intervalWords, isHardLeap } from "../../theory/pitch/interval";
import { withArticle } from "../../theory/words/english";
import type { RealizedNote } from "../../song/realize";
import { pairReport, type Between, type PairReport } from "../../hear/line/between";
import { soundingIn } from "../../hear/slice/soundingIn";
import { chordUnder, type VocalContext } from "./context";
import type { VocalTargets } from "./school";
import { chordPcs, inChord, pitchesIn, rubsInVoices, scaleOf, weighs } from "./tones";
import { spellOver } from "../../song/spell";
import { leadingToneOf, seventhOf, WIDEST_UPPER } from "../../hear/harmony/tendency";

export const SPOT_KINDS = [
  "rub",
  "key",
  "chord",
  "parallel",
  "crossing",
  "unison",
  "leap",
  "range",
  "spacing",
  "tendency",
] as const;
export type SpotKind = (typeof SPOT_KINDS)[number];

/** A rough spot of written voices: where, why, and the tones that would mend it. */
export interface RoughSpot {
  kind: SpotKind;
  tick: Ticks;
  /** Which voice, high to low, and which of its notes. */
  voice: number;
  note: number;
  message: string;
  /** Pitches that would stand there without a rough spot of their own, the nearest first. */
  fixes: PitchName[];
}

/** Voices as they would sound, high to low, with how they go with the tune and with each other. */
export interface Sounding {
  ctx: VocalContext;
  voices: readonly (readonly RealizedNote[])[];
  targets: VocalTargets;
}

type Found = Omit<RoughSpot, "fixes">;

/** A hard leap without a rest before it, that is not the tune's own. */
function leapsHard({ ctx, targets }: Sounding, before: RealizedNote, n: RealizedNote): boolean {
  const rest = n.start - (before.start + before.duration);
  if (rest >= firstOf(ctx.meter.beats).duration || !isHardLeap(n.midi - before.midi)) return false;
  return !(targets.given || (targets.parallel && isHardLeap(leadMove(ctx, before, n))));
}

/** Where a note weighs outside the chord, and does not go along with a tune that is outside itself. */
function outsideChord(ctx: VocalContext, n: RealizedNote): ReturnType<typeof stretchesOutside>[number] | undefined {
  const lead = ctx.leadAt(n.start);
  if (lead?.start === n.start && !inChord(chordUnder(ctx, n.start), lead.midi)) return undefined;
  return stretchesOutside(ctx, n).find((o) => weighs(ctx, o.from, o.to - o.from));
}

function alone(s: Sounding, voice: number): Found[] {
  const { ctx } = s;
  const line = nth(s.voices, voice);
  const { name, extremes } = nth(ctx.voices, voice);
  return line.flatMap((n, i): Found[] => {
    const out: Found[] = [];
    const where = positionText(ctx.meter, n.start);
    const put = (kind: SpotKind, message: string, tick = n.start) => out.push({ kind, tick, voice, note: i, message });
    if (n.midi < extremes[0] || n.midi > extremes[1])
      put("range", `${n.pitch} at ${where} is ${n.midi < extremes[0] ? "below" : "above"} the range of ${name}`);
    const chord = chordUnder(ctx, n.start);
    const pc = mod(n.midi, 12);
    if (!chordPcs(chord).includes(pc) && !ctx.key.pcs.includes(pc))
      put("key", `${n.pitch} at ${where} leaves the key${chord?.chord ? ` and ${chord.symbol}` : ""}`);
    else {
      const beyond = outsideChord(ctx, n);
      if (beyond)
        put("chord", `${n.pitch} at ${positionText(ctx.meter, beyond.from)} is outside ${beyond.symbol}`, beyond.from);
    }
    const rubbed = beatsOf(ctx, n).find((t) => rubsInVoices(ctx, n.midi, t) && !goesAlong(ctx, n, t));
    if (rubbed !== undefined)
      put(
        "rub",
        `${n.pitch} at ${positionText(ctx.meter, rubbed)} rubs against ${rubbing(ctx, n.midi, rubbed)}`,
        rubbed,
      );
    const before = line[i - 1];
    if (before && leapsHard(s, before, n))
      put("leap", `${name} leaps ${withArticle(intervalWords(Math.abs(n.midi - before.midi)))} at ${where}`);
    return out;
  });
}

/** Stretches of a note under chords that do not hold it. */
function stretchesOutside(ctx: VocalContext, n: RealizedNote): { from: Ticks; to: Ticks; symbol: string }[] {
  const end = n.start + n.duration;
  return ctx.chordsWithin(n.start, end).flatMap((c) => {
    const [from, to] = [Math.max(n.start, c.start), Math.min(end, c.start + c.duration)];
    return to > from && c.chord && !inChord(c, n.midi) ? [{ from, to, symbol: c.symbol }] : [];
  });
}

const leadMove = (ctx: VocalContext, a: RealizedNote | undefined, b: RealizedNote): number => {
  const [from, to] = [a && ctx.leadAt(a.start), ctx.leadAt(b.start)];
  return from && to ? to.midi - from.midi : 0;
};

/** A short note that goes along with a passing one of the tune. */
function goesAlong(ctx: VocalContext, n: RealizedNote, tick: Ticks): boolean {
  const lead = ctx.leadAt(tick);
  const beat = firstOf(ctx.meter.beats).duration;
  return (
    lead !== null &&
    lead.start === n.start &&
    n.duration <= beat &&
    !inChord(chordUnder(ctx, tick), lead.midi) &&
    Math.abs(lead.midi - n.midi) > 2
  );
}

/** Beats a note sounds on, its beginning where it is long. */
function beatsOf(ctx: VocalContext, { start, duration }: RealizedNote): Ticks[] {
  const out = new Set<Ticks>(weighs(ctx, start, duration) ? [start] : []);
  for (let bar = Math.floor(start / ctx.meter.bar); bar * ctx.meter.bar < start + duration; bar++)
    for (const b of ctx.meter.beats) {
      const at = bar * ctx.meter.bar + b.start;
      if (at >= start && at < start + duration) out.add(at);
    }
  return [...out].sort((a, b) => a - b);
}

/** What a pitch rubs against, in words. */
function rubbing(ctx: VocalContext, midi: Midi, tick: Ticks): string {
  const near = (other: Midi) => [1, 13].includes(Math.abs(other - midi));
  const lead = ctx.leadAt(tick);
  if (lead && near(lead.midi)) return `${lead.pitch} of ${sure(ctx.lead).name}`;
  const other = ctx.others.flatMap((o) =>
    o
      .at(tick)
      .filter((n) => near(n.midi))
      .map((n) => ({ o, n })),
  )[0];
  if (other) return `${other.n.pitch} of ${other.o.part.name}`;
  return `the chord, ${chordUnder(ctx, tick)?.symbol ?? ""}`;
}

const WORDS: Partial<Record<Between["kind"], SpotKind>> = {
  crossing: "crossing",
  unison: "unison",
  parallel: "parallel",
  clash: "rub",
};

/** What a voice does to the tune (other −1) or to another voice. */
function against(s: Sounding, voice: number, other: number): Found[] {
  const { ctx, targets } = s;
  const line = nth(s.voices, voice);
  const [otherLine, otherName] =
    other < 0 ? [ctx.tune, ctx.lead?.name ?? "the tune"] : [nth(s.voices, other), nth(ctx.voices, other).name];
  const pair: PairReport = pairReport(line, otherLine, ctx);
  const { name } = nth(ctx.voices, voice);
  return pair.places.flatMap((p): Found[] => {
    const kind = WORDS[p.kind];
    if (!kind || (kind === "parallel" && (targets.parallel || targets.given || !targets.strict))) return [];
    if (targets.given && kind !== "rub") return [];
    // Strict voices may meet on one note; others that do are one voice less. Between voices of four, crossing alone
    // counts.
    if (kind === "unison" && (targets.strict || p.duration < firstOf(ctx.meter.beats).duration || !s.targets.parallel))
      return [];
    const note = line.indexOf(p.first);
    const where = positionText(ctx.meter, p.tick);
    const message = {
      crossing: `${name} crosses ${otherName} at ${where}`,
      unison: `${name} sings ${p.first.pitch} in unison with ${otherName} at ${where}`,
      parallel: `Parallel ${p.interval}s between ${name} and ${otherName} at ${where}`,
      rub: `${p.first.pitch} at ${where} rubs against ${p.second.pitch} of ${otherName}`,
    }[kind as "crossing" | "unison" | "parallel" | "rub"];
    return note < 0 ? [] : [{ kind, tick: p.tick, voice, note, message }];
  });
}

/** Tones that do not go where they want to, though the next chord has it. An inner leading tone may fall. */
function unresolved(
  ctx: VocalContext,
  n: RealizedNote,
  next: RealizedNote,
  voice: number,
): (readonly ["leading tone", "rise"] | readonly ["seventh", "fall"])[] {
  const [chord, after] = [chordUnder(ctx, n.start), chordUnder(ctx, next.start)];
  if (!after || after === chord || next.start > n.start + n.duration) return [];
  const [pc, move, pcs] = [mod(n.midi, 12), next.midi - n.midi, chordPcs(after)];
  if (pcs.includes(pc)) return [];
  const rises = voice === 2 && pc === leadingToneOf(ctx.key, chord) && pcs.includes(mod(pc + 1, 12));
  const falls = pc === seventhOf(chord) && [1, 2].some((d) => pcs.includes(mod(pc - d, 12)));
  return [
    ...(rises && move !== 1 ? [["leading tone", "rise"] as const] : []),
    ...(falls && move !== -1 && move !== -2 ? [["seventh", "fall"] as const] : []),
  ];
}

/** Strict voices: distances between upper neighbors, leading tones and sevenths. */
function strictly(s: Sounding): Found[] {
  const { ctx } = s;
  const lines = [ctx.tune, ...s.voices];
  const names = [ctx.lead?.name ?? "", ...ctx.voices.map((v) => v.name)];
  const out: Found[] = [];
  s.voices.forEach((line, voice) =>
    line.forEach((n, note) => {
      const where = positionText(ctx.meter, n.start);
      const above = nth(lines, voice).findLast((m) => m.start <= n.start && n.start < m.start + m.duration);
      if (voice < 2 && above && above.midi - n.midi > WIDEST_UPPER)
        out.push({
          kind: "spacing",
          tick: n.start,
          voice,
          note,
          message: `${names[voice + 1]} lies more than an octave under ${names[voice]} at ${where}`,
        });
      const next = line[note + 1];
      for (const [tone, way] of next ? unresolved(ctx, n, next, voice) : [])
        out.push({
          kind: "tendency",
          tick: n.start,
          voice,
          note,
          message: `The ${tone} ${n.pitch} at ${where} does not ${way}`,
        });
    }),
  );
  return out;
}

/** Tones tried in place of a rough one: this far up or down. */
const TRIED = 7;
const MOST_FIXES = 2;

/** Pitches that would stand at a note without a rough spot: tones of the chord first, then of the scale. */
function fixesFor(s: Sounding, windows: readonly Window[], spot: Found): PitchName[] {
  const { ctx } = s;
  const line = nth(s.voices, spot.voice);
  const n = nth(line, spot.note);
  if (n.pinned) return [];
  const chord = chordUnder(ctx, Math.max(n.start, spot.tick));
  const [low, high] = nth(ctx.voices, spot.voice).extremes;
  const tones = (pcs: readonly number[]) =>
    pitchesIn(pcs, Math.max(low, n.midi - TRIED), Math.min(high, n.midi + TRIED)).sort(
      (a, b) => Math.abs(a - n.midi) - Math.abs(b - n.midi),
    );
  const own = tones(chordPcs(chord));
  const candidates = [...own, ...tones(scaleOf(ctx, chord)).filter((m) => !own.includes(m))].filter(
    (m) => m !== n.midi,
  );
  const out: PitchName[] = [];
  for (const midi of candidates) {
    if (out.length === MOST_FIXES) break;
    const pitch = spellOver(ctx.key, chord?.chord, midi);
    if (!spotsNear(s, windows, spot.voice, { note: spot.note, tried: { ...n, midi, pitch } }).length) out.push(pitch);
  }
  return out;
}

/** Notes of a line that sound in a stretch, in order. */
type Window = (from: Ticks, to: Ticks) => RealizedNote[];

/**
 * Rough spots at one note of a voice and at the next one, were it another; what else the voices do is not looked at.
 */
function spotsNear(
  s: Sounding,
  windows: readonly Window[],
  voice: number,
  { note, tried }: { note: number; tried: RealizedNote },
): Found[] {
  const line = nth(s.voices, voice);
  const [before, after] = [line[note - 1], line[note + 1]];
  const from = before?.start ?? tried.start;
  const to = after ? after.start + after.duration : tried.start + tried.duration;
  const own = [before, tried, after].filter((n) => n !== undefined);
  const cut: Sounding = {
    ...s,
    ctx: { ...s.ctx, tune: lastOf(windows)(from, to) },
    voices: s.voices.map((_, v) => (v === voice ? own : nth(windows, v)(from, to))),
  };
  const at = own.indexOf(tried);
  return rough(cut).filter(
    (x) => x.voice === voice && (x.note === at || (x.note === at + 1 && (x.kind === "leap" || x.kind === "parallel"))),
  );
}

function rough(s: Sounding): Found[] {
  const pairs = s.voices.flatMap((_, v) => [
    ...against(s, v, -1),
    ...s.voices.flatMap((__, o) => (o < v ? against(s, v, o) : [])),
  ]);
  return [...s.voices.flatMap((_, v) => alone(s, v)), ...pairs, ...(s.targets.strict ? strictly(s) : [])];
}

/** All rough spots of written voices in order of time, each once a note, with what would mend it. */
export function roughSpots(s: Sounding): RoughSpot[] {
  const seen = new Set<string>();
  const windows = [...s.voices, s.ctx.tune].map((line): Window => {
    const { within } = soundingIn(line, s.ctx.meter.bar);
    return (from, to) => within(from, to).sort((a, b) => a.start - b.start);
  });
  return rough(s)
    .filter(({ kind, voice, note }) => {
      const id = `${kind}:${voice}:${note}`;
      return !seen.has(id) && seen.add(id);
    })
    .sort((a, b) => a.tick - b.tick || a.voice - b.voice)
    .map((spot) => ({ ...spot, fixes: fixesFor(s, windows, spot) }));
}
