import { nth, sure } from "../../base/list";
import { onceFor } from "../../base/once";
import { ok, type Result } from "../../base/result";
import { madeOf, type Steps } from "../../base/steps";
import { mod, pitchClass, type Midi, type PitchClass } from "../../theory/pitch/pitch";
import { nameInKey } from "../../theory/pitch/key";
import { bassPc, chordPitchClasses, chordSymbol, chordToneName } from "../../theory/chord/chord";
import type { NewNote, Note, Part, Section, Song } from "../../song/schema";
import { factsOf, type Reader } from "../../facts/memory";
import { lineSteps, OFFERED, lineSetting } from "../lines/engine";
import { inPlace, noChords, tooNarrow } from "../lines/ground";
import type { LineKind, LineNote, LineRequest, Setting, WrittenLine } from "../lines/kind";
import { settingsOf, styleOf, usualOf } from "../lines/playing";
import { distinctRhythms, withPins, type Timed } from "../lines/slots";
import { ANOTHER, AS_IT_IS, byDensity } from "../lines/titles";
import { findConflicts } from "./conflicts";
import { bassContext, type BassContext } from "./context";
import { choosePitches, otherPitches } from "./choose";
import { pitchSlots, type OpenSlot, type PitchSlot } from "./pitches";
import { measuresOf, reportOf, type BassReport } from "./measures";
import { otherFigures } from "./measures/figure";
import { reasonForNote, spellBass, type Chosen } from "./reasons";
import { figureLikeness, attackProfile } from "../../hear/line/figure";
import { rhythmOf } from "./rhythm";
import { USUAL_SETTINGS, type BassSettings } from "./settings";
import type { BassStyle, Slot } from "./style";
import { BASS_STYLES } from "./styles";

export interface BassRequest extends LineRequest<BassSettings> {
  /** A style's id; what the part has stored for the section, or kick-locked, where it is absent. */
  style?: string;
  /** Over what is stored in the part. `glides` is the older name of `slides: "some"`. */
  settings?: Partial<BassSettings> & { glides?: boolean };
}

export interface BassLine extends WrittenLine<BassReport> {
  seed: number;
  style: string;
  /** Chords whose written bass the line changes, as they would be written with it. */
  slashes: { chord: string; symbol: string }[];
}

const ATTEMPTS = 12;
/** How much fuller and sparser, and how many of each. */
const DENSER = 0.25;
const FEW = 3;
/** How many are looked at: every rhythm with every pedal. */
const MOST_LINES = 20;
/** Semitones a line needs at least, so that every chord has its root. */
const LEAST_RANGE = 11;

/** Bass lines as the engine writes them. */
const BASS: LineKind<BassSettings, LineRequest<BassSettings> & { style?: string }, BassStyle, BassContext, BassLine> = {
  id: "bass",
  field: "style",
  words: { one: "bass style", all: "Styles" },
  styles: BASS_STYLES,
  first: sure(BASS_STYLES.find((s) => s.id === "kick-locked")),
  usual: USUAL_SETTINGS,
  follows: ({ targets }) => ({ pitches: targets.pitchClasses }),
  asked: (request) => request.style,
  context: (read, request, { settings }) => bassContext(read, request, settings),
  lacks: ({ ctx }) =>
    noChords("bass", ctx, "the bass is written against it. A bass of your own can be harmonized instead.") ??
    tooNarrow("bass", ctx, {
      least: LEAST_RANGE,
      width: "an octave",
      hint: "A line needs at least an octave, so that every chord has its root.",
    }),
  candidates,
  most: MOST_LINES,
  rows: (report, { ctx, style }) => measuresOf(report, { style, settings: ctx.settings, meter: ctx.meter }),
  unlike,
  apart,
  none: { message: "No line fits the range and the pinned notes", hint: "Widen the range or unpin a note." },
};

/** What is usual for a style. */
export const usualFor = (style: BassStyle): Partial<BassSettings> => usualOf(BASS, style);

/** The style a part has in a section; kick-locked where none was chosen. */
export const bassStyleOf = (part: Part, section: Section | undefined): BassStyle => styleOf(BASS, part, section);

/** Settings of a part in a section, over what is usual. */
export const bassSettings = (
  part: Part,
  section: Section | undefined,
  over: Partial<BassSettings> = {},
): BassSettings => settingsOf(BASS, part, { section, over });

/** A request in today's names. */
function today({ settings, ...request }: BassRequest): LineRequest<BassSettings> & { style?: string } {
  if (!settings) return request;
  const { glides, ...own } = settings;
  return { ...request, settings: glides === undefined ? own : { slides: glides ? "some" : "none", ...own } };
}

/** The context of a request with its style and settings resolved. Errors: `bass.style`, and those of `bassContext`. */
export const bassRequest = (read: Reader, request: BassRequest): Result<Setting<BassContext, BassStyle>> =>
  lineSetting(BASS, read, today(request));

/**
 * Writes up to five bass lines for a section in one style, best first: the same rhythm with other pitches, then other
 * rhythms from the seed. Where pins, chords, N.C. and targets cannot all be met, the line names the conflict. Errors:
 * `bass.style`, `bass.section`, `bass.part`, `bass.range`, `bass.chords`, `bass.none`.
 */
export const bassLines = (song: Song, request: BassRequest): Result<BassLine[]> => madeOf(bassSteps(song, request));

/** The same line by line, as `lineSteps` says. */
export const bassSteps = (song: Song, request: BassRequest): Steps<BassLine[], Result<BassLine[]>> =>
  lineSteps(BASS, song, today(request));

/** The lines alone, best first; empty where `bassLines` would name an error. */
export function writeBass(song: Song, request: BassRequest): BassLine[] {
  const result = bassLines(song, request);
  return result.ok ? result.value : [];
}

/** Lines over one rhythm: with each pedal, or as the style has it and, where asked for, with other notes. */
function* overRhythm(
  setting: Setting<BassContext, BassStyle>,
  slots: Slot[],
  { seed, first }: { seed: number; first: boolean },
): Iterable<BassLine | null> {
  const { ctx, style } = setting;
  const pedals: (PitchClass | undefined)[] = style.pedals?.(ctx) ?? [undefined];
  const anchor = (pin: Note): OpenSlot => ({ start: pin.start, duration: pin.duration, use: "anchor" });
  for (const pedal of pedals) {
    const open = pitchSlots(ctx, style, withPins<OpenSlot>(slots, ctx.pinned, anchor), pedal);
    const chosen = open.length ? choosePitches(ctx, style, open) : null;
    if (!chosen) continue;
    const named = pedal === undefined ? "" : `Pedal on ${nameInKey(pedal, ctx.key)}`;
    const plain = first ? AS_IT_IS : ANOTHER;
    const onPedal = first ? named : `${named}, ${ANOTHER.toLowerCase()}`;
    const job = { slots: open, seed, pedal: named !== "" };
    yield finish(setting, { ...job, picks: chosen.path.picks, over: chosen.over, title: named ? onPedal : plain });
    const other = first && !named ? otherPitches(ctx, style, open, chosen.path.picks) : null;
    if (other)
      yield finish(setting, { ...job, picks: other.path.picks, over: other.over, title: "Same rhythm, other notes" });
  }
}

function* candidates(
  setting: Setting<BassContext, BassStyle>,
  seed: number,
  found: readonly BassLine[],
): Iterable<BassLine | null> {
  const { ctx, style } = setting;
  const tried: Slot[][] = [];
  const isNew = (slots: Slot[]): boolean => {
    const other = !tried.some((t) => isSameRhythm(t, slots));
    if (other) tried.push(slots);
    return other;
  };
  for (const [attempt, slots] of rhythmsOf(ctx, style, seed).entries()) {
    if (unlike(found).length >= OFFERED) return;
    if (isNew(slots)) yield* overRhythm(setting, slots, { seed, first: attempt === 0 });
  }
  // Where the style leaves little to choose, fuller and sparser lines are looked at as well.
  for (const by of [DENSER, -DENSER]) {
    const density = Math.min(1, Math.max(0, ctx.settings.density + by));
    const others = rhythmsOf({ ...ctx, settings: { ...ctx.settings, density } }, style, seed).slice(0, FEW);
    for (const slots of others) {
      if (unlike(found).length >= OFFERED) return;
      if (isNew(slots)) yield* overRhythm(setting, slots, { seed, first: false });
    }
  }
}

/**
 * Over rhythms that share more of their places the cheapest pitches are nearly the same: the line would be told apart
 * from none (measured: of the lines that are offered none is missed).
 */
const SAME_RHYTHM = 0.96;

/** Whether two rhythms share so many of their places, each with its length, of those of the fuller one. */
export function isSameRhythm(a: readonly Timed[], b: readonly Timed[]): boolean {
  const text = ({ start, duration }: Timed) => `${start}:${duration}`;
  const places = new Set(a.map(text));
  return b.filter((s) => places.has(text(s))).length / Math.max(a.length, b.length) > SAME_RHYTHM;
}

/** Two lines that share more of their notes than this say the same (common practice). */
const MOST_SHARED = 0.6;

/** Of some lines, in their order, those that share less with each before them. */
function unlike(lines: readonly BassLine[]): BassLine[] {
  const kept: BassLine[] = [];
  for (const line of lines) if (kept.every((k) => sharedNotes(k.notes, line.notes) <= MOST_SHARED)) kept.push(line);
  return kept;
}

/** Attack and pitch of the notes of a line that are not pinned: lines are compared again and again. */
const textsOf = (line: readonly NewNote[]): ReadonlySet<string> =>
  onceFor([line], "texts", () => new Set(line.filter((n) => !n.pinned).map((n) => `${n.start}:${n.pitch}`)));

/** Share of the shorter line's notes that the other one has too, attack and pitch; what is pinned does not count. */
export function sharedNotes(a: readonly NewNote[], b: readonly NewNote[]): number {
  const [x, y] = [textsOf(a), textsOf(b)];
  const least = Math.min(x.size, y.size);
  return least ? [...x].filter((t) => y.has(t)).length / least : 1;
}

/** How a line differs from another one, in words, what differs most first. */
function apart({ report }: BassLine, { report: first }: BassLine): string[] {
  const off = report.syncopation - first.syncopation;
  const rest = report.silence - first.silence;
  return [
    ...byDensity(report.notes, first.notes),
    ...(Math.abs(off) > 0.3 ? [off > 0 ? "more syncopated" : "straighter"] : []),
    ...(Math.abs(rest) > 0.04 ? [rest > 0 ? "shorter notes" : "longer notes"] : []),
  ];
}

/**
 * Different rhythms from one seed; where a figure of its own is wanted, the one least like those of the other sections
 * comes first.
 */
function rhythmsOf(ctx: BassContext, style: BassStyle, seed: number): Slot[][] {
  const places = style.places(ctx);
  const list = distinctRhythms(ATTEMPTS, (attempt) => rhythmOf(ctx, style, seed * 97 + attempt, places));
  if (!ctx.settings.ownFigure) return list;
  const others = otherFigures(ctx);
  const nearest = (slots: Slot[]) => {
    const own = attackProfile(
      slots.map((s) => s.start),
      ctx.meter.bar,
      ctx.bars,
    );
    return Math.max(0, ...others.map((o) => figureLikeness(own, o.profile)));
  };
  return list
    .map((slots) => ({ slots, near: nearest(slots) }))
    .sort((a, b) => a.near - b.near)
    .map((r) => r.slots);
}

/** Loudness of a note: with the kick as loud as it is, otherwise by what it does. */
const velocityOf = (ctx: BassContext, slot: Slot): number => {
  const kick = ctx.kicks.find((k) => k.start === slot.start);
  if (kick) return Math.round(66 + kick.velocity * 0.28);
  if (slot.use === "approach" || slot.use === "scale") return 76;
  return 84;
};

/** A line as it was chosen. */
interface Draft {
  slots: PitchSlot[];
  picks: number[];
  over: { from: number; to: number; count: number }[];
  seed: number;
  title: string;
  pedal: boolean;
}

function finish({ ctx, style }: Setting<BassContext, BassStyle>, draft: Draft): BassLine | null {
  const { slots, picks, over, seed, title, pedal } = draft;
  const all: Chosen[] = slots.map((slot, i) => ({ slot, midi: nth(slot.candidates, nth(picks, i)).midi }));
  const line = all.filter(({ slot }) => !slot.beyond);
  const notes = line.map((chosen, i): LineNote => {
    const { slot } = chosen;
    if (slot.pin) return slot.pin;
    return {
      start: slot.start,
      duration: slot.duration,
      pitch: spellBass(ctx, chosen, nth(all, (i + 1) % all.length)),
      velocity: velocityOf(ctx, slot),
      reason: reasonForNote(ctx, all, i, pedal),
    };
  });
  if (ctx.settings.slides !== "none") addGlides(ctx, line, notes);
  const placed = inPlace(ctx, notes);
  if (!placed) return null;
  const report = reportOf(placed);
  return {
    notes,
    reasons: notes.map((n) => n.reason),
    report,
    conflicts: findConflicts(ctx, style, line, { over, report }),
    seed,
    style: style.id,
    title,
    slashes: slashesOf(ctx, style, line),
  };
}

/** Chords that should be written with another bass, where the style chose inversions or held a pedal. */
function slashesOf(ctx: BassContext, style: BassStyle, line: readonly Chosen[]): BassLine["slashes"] {
  if (!style.inverts && !style.pedals) return [];
  return ctx.chords.flatMap((c) => {
    if (!c.chord) return [];
    const note = line.findLast((s) => s.slot.start <= c.start && s.slot.start + s.slot.duration > c.start);
    if (!note || mod(note.midi, 12) === bassPc(c.chord)) return [];
    const pc = mod(note.midi, 12);
    const { bass: _, ...upper } = c.chord;
    if (pc === pitchClass(upper.root)) return [{ chord: c.id, symbol: chordSymbol(upper) }];
    const name = chordPitchClasses(upper).includes(pc) ? sure(chordToneName(upper, pc)) : nameInKey(pc, ctx.key);
    return [{ chord: c.id, symbol: chordSymbol({ ...upper, bass: name }) }];
  });
}

/**
 * Glides from a note that lasts into the next one, a third to an octave away: one in two bars at most, or wherever
 * there is room.
 */
function addGlides(ctx: BassContext, line: readonly Chosen[], notes: LineNote[]): void {
  const many = ctx.settings.slides === "many";
  let last = -Infinity;
  const far = (a: Midi, b: Midi) => Math.abs(a - b) >= 3 && Math.abs(a - b) <= 12;
  for (let i = 0; i + 1 < line.length; i++) {
    const { slot, midi } = nth(line, i);
    const joined = slot.start + slot.duration === nth(line, i + 1).slot.start;
    if (slot.pin || !joined || !far(midi, nth(line, i + 1).midi) || slot.duration < (many ? 240 : 480)) continue;
    if (slot.start - last < (many ? 1 : 2) * ctx.meter.bar * (many ? 0.5 : 1)) continue;
    notes[i] = { ...nth(notes, i), slide: { kind: "glide", to: nth(notes, i + 1).pitch } };
    last = slot.start;
  }
}

/** Measures a bass line of one section, written or drawn. Errors: as `bassRequest`. */
export function reportBass(
  song: Song,
  { settings, ...at }: { section: string; part: string; settings?: BassSettings },
): Result<BassReport> {
  const resolved = bassRequest(factsOf(song), settings ? { ...at, settings } : at);
  return resolved.ok ? ok(reportOf(resolved.value.ctx)) : resolved;
}
