import { firstOf, nth, sure } from "../../base/list";
import { fail, ok, type Result } from "../../base/result";
import { madeOf, type Steps } from "../../base/steps";
import { pitchMidi } from "../../theory/pitch/pitch";
import { positionText } from "../../theory/time/meter";
import type { Part, Section, Song } from "../../song/schema";
import { spellOver } from "../../song/spell";
import type { Fact, Reader } from "../../facts/memory";
import { lineSteps, OFFERED, lineSetting } from "../lines/engine";
import { inPlace, noChords, tooNarrow } from "../lines/ground";
import type { LineKind, LineNote, Setting, WrittenLine } from "../lines/kind";
import { causesOf, type Conflict, type Measure } from "../lines/measure";
import { settingsOf, styleOf } from "../lines/playing";
import { seenIn, topsOf } from "../lines/seen";
import { distinctRhythms, withPins } from "../lines/slots";
import { ANOTHER, AS_IT_IS, byDensity } from "../lines/titles";
import { counterContext, type CounterContext, type CounterRequest } from "./context";
import { counterMeasures, counterReportOf, EVERY_COUNTER_MEASURE, type CounterReport } from "./measures";
import { choosePitches, otherPitches, pitchSlots, type Candidate, type PitchSlot } from "./pitches";
import { counterReason, stopReason } from "./reasons";
import { USUAL_COUNTER, type CounterSettings } from "./settings";
import type { CounterSlot, CounterStyle } from "./style";
import { COUNTER_STYLES } from "./styles";

export type { CounterRequest } from "./context";

export interface CounterLine extends WrittenLine<CounterReport> {
  seed: number;
  style: string;
}

/** How many rhythms are tried. */
const ATTEMPTS = 8;
/** The first rhythms give two lines each: another rhythm is not the only other way. */
const TWICE = 2;
/** Semitones that a line needs at least to move in: a fifth. */
const LEAST_RANGE = 7;

/** Counter melodies as the engine writes them. */
const COUNTER: LineKind<CounterSettings, CounterRequest, CounterStyle, CounterContext, CounterLine> = {
  id: "counter",
  field: "style",
  words: { one: "style of counter melody", all: "Styles" },
  styles: COUNTER_STYLES,
  first: firstOf(COUNTER_STYLES),
  usual: USUAL_COUNTER,
  asked: (request) => request.style,
  context: (read, request, { settings }) => counterContext(read, request, settings),
  lacks: ({ ctx, style }) =>
    (style.withoutChords ? null : noChords("counter", ctx, "the line is written against it.")) ??
    tooNarrow("counter", ctx, {
      least: LEAST_RANGE,
      width: "a fifth",
      hint: "A line needs a fifth at least to move in.",
    }) ??
    noPlace(ctx, style),
  candidates,
  most: ATTEMPTS,
  rows: (report, { ctx, style }) => counterMeasures(report, { style, settings: ctx.settings }, ctx.meter),
  apart,
  none: {
    message: "No line fits the range, the tune and the pinned notes",
    hint: "Widen the range or unpin a note.",
  },
};

/** The style of a part in a section. */
export const counterStyleOf = (part: Part, section: Section | undefined): CounterStyle =>
  styleOf(COUNTER, part, section);

/** Settings of a part in a section, over what is usual. */
export const counterSettings = (
  part: Part,
  section: Section | undefined,
  over: Partial<CounterSettings> = {},
): CounterSettings => settingsOf(COUNTER, part, { section, over });

/**
 * The context of a request with its style and settings resolved. Errors: `counter.style`, and those of
 * `counterContext`.
 */
export const counterRequest = (read: Reader, request: CounterRequest): Result<Setting<CounterContext, CounterStyle>> =>
  lineSetting(COUNTER, read, request);

/**
 * Writes up to five counter melodies for a section in one style, those that meet most aims first. Where pins, chords,
 * the tune and the aims cannot all be met, the line names the conflict. Errors: `counter.style`, `counter.section`,
 * `counter.part`, `counter.against`, `counter.range`, `counter.chords`, `counter.place` (the style finds no place to
 * sound), `counter.none`.
 */
export const counterLines = (song: Song, request: CounterRequest): Result<CounterLine[]> =>
  madeOf(counterSteps(song, request));

/** The same line by line, as `lineSteps` says. */
export const counterSteps = (song: Song, request: CounterRequest): Steps<CounterLine[], Result<CounterLine[]>> =>
  lineSteps(COUNTER, song, request);

/** The lines alone, best first; empty where `counterLines` would name an error. */
export function writeCounterMelody(song: Song, request: CounterRequest): CounterLine[] {
  const result = counterLines(song, request);
  return result.ok ? result.value : [];
}

const rhythmsOf = (ctx: CounterContext, style: CounterStyle, seed: number): CounterSlot[][] =>
  distinctRhythms(ATTEMPTS, (attempt) => style.slots(ctx, seed * 97 + attempt, attempt));

/** Where the style finds no place to sound. */
function noPlace(ctx: CounterContext, style: CounterStyle): Result<never> | null {
  if (rhythmsOf(ctx, style, 1).length) return null;
  const { message, hint } = style.nothing?.(ctx) ?? {
    message: "The style finds no place to sound here",
    hint: "Choose another style.",
  };
  return fail("counter.place", message, { hint });
}

/** Other notes on a rhythm, by what the rhythm is called. */
function otherTitle(title: string | undefined, attempt: number): string {
  if (title) return `${title}, other notes`;
  return attempt ? "That rhythm, other notes" : "Same rhythm, other notes";
}

function* candidates(
  setting: Setting<CounterContext, CounterStyle>,
  seed: number,
  found: readonly CounterLine[],
): Iterable<CounterLine | null> {
  const { ctx, style } = setting;
  const titles = style.titles?.(ctx);
  for (const [attempt, rhythm] of rhythmsOf(ctx, style, seed).entries()) {
    if (found.length >= OFFERED) return;
    const { slots, stuck } = pitchSlots(
      ctx,
      style,
      withPins(rhythm, ctx.pinned, (pin): CounterSlot => ({ start: pin.start, duration: pin.duration })),
    );
    const picks = slots.length ? choosePitches(style, slots) : null;
    if (!picks) continue;
    const title = titles?.[attempt];
    const chosen = (of: readonly PitchSlot[], at: readonly number[]): Chosen[] =>
      of.map((slot, i) => ({ slot, pick: nth(slot.candidates, nth(at, i)) }));
    yield finish(setting, { line: chosen(slots, picks), stuck, seed, title: title ?? (attempt ? ANOTHER : AS_IT_IS) });
    const other = attempt < TWICE ? otherPitches(style, slots, picks) : null;
    if (other)
      yield finish(setting, {
        line: chosen(other.slots, other.picks),
        stuck,
        seed,
        title: otherTitle(title, attempt),
      });
  }
}

/** How a line differs from another one, in words. */
function apart({ notes, report }: CounterLine, first: CounterLine): string[] {
  const mean = (list: readonly LineNote[]) => list.reduce((sum, n) => sum + pitchMidi(n.pitch), 0) / list.length;
  const time = (list: readonly LineNote[]) => list.reduce((sum, n) => sum + n.duration, 0);
  const higher = mean(notes) - mean(first.notes);
  const longer = time(notes) / time(first.notes);
  return [
    ...byDensity(report.notes, first.report.notes),
    ...(Math.abs(higher) >= 1.5 ? [higher > 0 ? "higher" : "lower"] : []),
    ...(longer > 1.08 ? ["longer notes"] : []),
    ...(longer < 0.93 ? ["shorter notes"] : []),
  ];
}

/** Loudness of a note: softer than the tune while it sounds, a little forward where it rests (common practice). */
const velocityOf = (ctx: CounterContext, start: number): number => (ctx.tuneAt(start) ? 66 : 80);
/** The lower note of two is so much softer. */
const UNDER = 6;

/** A slot with the pitch that was chosen for it. */
interface Chosen {
  slot: PitchSlot;
  pick: Candidate;
}

/** Notes of one pitch that only a change of chord parts are one note, in styles that hold. */
function tied(line: readonly Chosen[]): Chosen[][] {
  const out: Chosen[][] = [];
  for (const chosen of line) {
    const last = out.at(-1);
    const before = last?.at(-1);
    const joins =
      chosen.slot.ties &&
      before?.slot.ties &&
      !before.slot.pin &&
      !chosen.slot.pin &&
      before.pick.midi === chosen.pick.midi &&
      before.slot.start + before.slot.duration === chosen.slot.start &&
      sure(last).length < 2;
    if (joins) sure(last).push(chosen);
    else out.push([chosen]);
  }
  return out;
}

/** The notes of a line, each with the slot it stands in. */
const written = (ctx: CounterContext, line: readonly Chosen[]): { note: LineNote; slot: PitchSlot }[] =>
  tied(line).flatMap((chosen) => {
    const { slot, pick } = firstOf(chosen);
    if (slot.pin) return [{ note: slot.pin, slot }];
    const duration = chosen.reduce((sum, c) => sum + c.slot.duration, 0);
    const spelled = (midi: number) => spellOver(ctx.key, slot.chord?.chord, midi);
    const velocity = velocityOf(ctx, slot.start);
    const base = { start: slot.start, duration };
    const top = { note: { ...base, pitch: spelled(pick.midi), velocity }, slot };
    if (pick.under === undefined) return [top];
    return [{ note: { ...base, pitch: spelled(pick.under), velocity: velocity - UNDER }, slot }, top];
  });

function finish(
  { ctx, style }: Setting<CounterContext, CounterStyle>,
  { line, stuck, ...own }: { line: readonly Chosen[]; stuck: readonly CounterSlot[]; seed: number; title: string },
): CounterLine | null {
  const bare = written(ctx, line);
  const seen = seenIn(
    ctx,
    bare.map((b) => b.note),
  );
  const tops = topsOf(seen);
  const notes = bare.map(({ note, slot }, i): LineNote => {
    if (slot.pin) return note;
    const at = nth(seen, i);
    const top = tops.get(at.start);
    const reason = top && top !== at ? stopReason(at, top) : counterReason(ctx, style, { note: at, slot });
    return { ...note, reason };
  });
  const placed = inPlace(ctx, notes);
  if (!placed) return null;
  const report = counterReportOf(placed);
  return {
    ...own,
    notes,
    reasons: notes.map((n) => n.reason),
    report,
    conflicts: conflictsOf({ ctx: placed, style }, line, { stuck, report }),
    style: style.id,
  };
}

/** Where the line rests because no tone stands clear. */
function stuckAt({ meter }: CounterContext, stuck: readonly CounterSlot[]): Conflict[] {
  const [at] = stuck;
  if (!at) return [];
  const more = stuck.length > 1 ? ` and ${stuck.length - 1} other places` : "";
  const message =
    "No tone of the range stands clear of the tune and the chords at " +
    `${positionText(meter, at.start)}${more}: the line rests there.`;
  return [{ code: "stuck", tick: at.start, measures: [], message }];
}

/** What stands between the material and the aims. */
function conflictsOf(
  { ctx, style }: Setting<CounterContext, CounterStyle>,
  line: readonly Chosen[],
  { stuck, report }: { stuck: readonly CounterSlot[]; report: CounterReport },
): Conflict[] {
  const known = stuckAt(ctx, stuck);
  const aim = { style, settings: ctx.settings };
  return [...known, ...causesOf(EVERY_COUNTER_MEASURE, known, { ctx, line, report, aim })];
}

/** All that the workspace shows of a counter melody as it stands. */
export interface CounterVerdict {
  style: string;
  report: CounterReport;
  measures: Measure[];
}

/** The verdict on a line as it stands. Errors: as `counterRequest`. */
export const counterVerdictAt: Fact<[section: string, part: string], Result<CounterVerdict>> = {
  id: "counter verdict",
  of(read, section, part) {
    const resolved = counterRequest(read, { section, part });
    if (!resolved.ok) return resolved;
    const report = counterReportOf(resolved.value.ctx);
    return ok({ style: resolved.value.style.id, report, measures: COUNTER.rows(report, resolved.value) });
  },
};
