import { firstOf, nth, sure } from "../../base/list";
import { fail, ok, type Result } from "../../base/result";
import { freeName } from "../../theory/words/english";
import { mod, pitchClass, pitchName, type Midi, type PitchClass } from "../../theory/pitch/pitch";
import { nameInKey } from "../../theory/pitch/key";
import { bassPc, chordPitchClasses, chordSymbol, chordToneName } from "../../theory/chord/chord";
import { partOf, sectionOf } from "../../song/document";
import { sectionPlace } from "../../song/place";
import type { NewNote, Note, Reason, Song } from "../../song/schema";
import { frameOf, realizedNotes } from "../../song/realize";
import { noteRoles } from "../../hear/slice/roles";
import { factsOf, type Reader } from "../../facts/memory";
import { bassStyle, bassStyleOf, usualFor } from "./chosen";
import { missesOf, type Conflict } from "../lines/measure";
import { collector, distinctRhythms, withPins } from "../lines/slots";
import { findConflicts } from "./conflicts";
import { bassContext, type BassContext } from "./context";
import { choosePitches, otherPitches, pitchSlots, type OpenSlot, type PitchSlot } from "./pitches";
import { measuresOf, reportOf, type BassReport } from "./measures";
import { otherFigures } from "./measures/figure";
import { reasonForNote, spell, type Chosen } from "./reasons";
import { alike, attackProfile } from "../../hear/line/figure";
import { rhythmOf } from "./rhythm";
import { bassSettings, type BassSettings } from "./settings";
import type { BassStyle, Slot } from "./style";
import { BASS_STYLES } from "./styles";

export interface BassRequest {
  section: string;
  part: string;
  /** A style's id; what the part has stored for the section, or kick-locked, where it is absent. */
  style?: string;
  seed?: number;
  /**
   * Over what is stored in the part, and what is usual for the style. `glides` is the older name of `slides: "some"`.
   */
  settings?: Partial<BassSettings> & { glides?: boolean };
}

export interface BassLine {
  /**
   * The whole part for the section: pinned notes kept, everything else new. Ids of new notes are given when the line is
   * taken.
   */
  notes: (NewNote & { id?: string })[];
  reasons: (Reason | undefined)[];
  report: BassReport;
  conflicts: Conflict[];
  seed: number;
  style: string;
  /** What sets this candidate apart, in words. */
  title: string;
  /** Chords whose written bass the line changes, as they would be written with it. */
  slashes: { chord: string; symbol: string }[];
}

/** How many lines are offered. */
const LINES = 5;
const ATTEMPTS = 12;
/** How much fuller and sparser, and how many of each. */
const DENSER = 0.25;
const FEW = 3;
/** How many are looked at: every rhythm with every pedal. */
const MOST_LINES = 20;

/** The context of a request with its style and settings resolved. Errors: `bass.style`, and those of `bassContext`. */
export function bassRequest(read: Reader, request: BassRequest): Result<{ ctx: BassContext; style: BassStyle }> {
  const { song } = read;
  const part = partOf(song, request.part);
  const section = sectionOf(song, request.section);
  const style =
    request.style === undefined
      ? ok(part ? bassStyleOf(part, section) : firstOf(BASS_STYLES))
      : bassStyle(request.style);
  if (!style.ok) return style;
  const { glides, ...own } = request.settings ?? {};
  const settings: BassSettings | undefined = part && {
    ...bassSettings(part, section, usualFor(style.value)),
    ...(glides === undefined ? {} : { slides: glides ? ("some" as const) : ("none" as const) }),
    ...own,
  };
  const ctx = bassContext(read, request.section, request.part, settings);
  return ctx.ok ? ok({ ctx: ctx.value, style: style.value }) : ctx;
}

/** What a line cannot be written without: chords, and an octave to write it in. */
function lacking(ctx: BassContext): Result<never> | null {
  if (!ctx.chords.some((c) => c.chord))
    return fail("bass.chords", `${ctx.section.name} has no chords yet`, {
      hint: "Type a chord line first; the bass is written against it. A bass of your own can be harmonized instead.",
    });
  if (ctx.range[1] - ctx.range[0] < 11)
    return fail(
      "bass.range",
      `${pitchName(ctx.range[0], nameInKey(mod(ctx.range[0], 12), ctx.key))} to ` +
        `${pitchName(ctx.range[1], nameInKey(mod(ctx.range[1], 12), ctx.key))} is less than an octave`,
      {
        hint: "A line needs at least an octave, so that every chord has its root.",
      },
    );
  return null;
}

/**
 * Writes up to five bass lines for a section in one style, best first: the same rhythm with other pitches, then other
 * rhythms from the seed. Where pins, chords, N.C. and targets cannot all be met, the line names the conflict. Errors:
 * `bass.style`, `bass.section`, `bass.part`, `bass.range`, `bass.chords`, `bass.none`.
 */
export function bassLines(song: Song, request: BassRequest): Result<BassLine[]> {
  const resolved = bassRequest(factsOf(song), request);
  if (!resolved.ok) return resolved;
  const { ctx, style } = resolved.value;
  const lacks = lacking(ctx);
  if (lacks) return lacks;
  const seed = request.seed ?? 1;
  const { lines, add } = collector<BassLine>(MOST_LINES);
  const pedals: (PitchClass | undefined)[] = style.pedals?.(ctx) ?? [undefined];
  const rhythms = rhythmsOf(ctx, style, seed);
  const tryOut = (attempt: number, slots: Slot[]): boolean => {
    if (unlike(lines).length >= LINES) return false;
    for (const pedal of pedals) {
      const open = pitchSlots(
        ctx,
        style,
        withPins<OpenSlot>(slots, ctx.pinned, (pin) => ({ start: pin.start, duration: pin.duration, use: "anchor" })),
        pedal,
      );
      const chosen = open.length ? choosePitches(ctx, style, open) : null;
      if (!chosen) continue;
      const named = pedal === undefined ? "" : `Pedal on ${nameInKey(pedal, ctx.key)}`;
      let title: string;
      if (attempt === 0) title = named || "As the style has it";
      else if (named) title = `${named}, another rhythm`;
      else title = "Another rhythm";
      add(
        finish(ctx, style, {
          slots: open,
          picks: chosen.path.picks,
          over: chosen.over,
          seed,
          title,
          pedal: pedal !== undefined,
        }),
      );
      if (attempt > 0 || pedal !== undefined) continue;
      const other = otherPitches(ctx, style, open, chosen.path.picks);
      if (other)
        add(
          finish(ctx, style, {
            slots: open,
            picks: other.path.picks,
            over: other.over,
            seed,
            title: "Same rhythm, other notes",
            pedal: false,
          }),
        );
    }
    return true;
  };
  rhythms.every((slots, attempt) => tryOut(attempt, slots));
  // Where the style leaves little to choose, fuller and sparser lines are looked at as well.
  for (const by of [DENSER, -DENSER]) {
    const density = Math.min(1, Math.max(0, ctx.settings.density + by));
    const others = () => rhythmsOf({ ...ctx, settings: { ...ctx.settings, density } }, style, seed).slice(0, FEW);
    if (unlike(lines).length < LINES) others().every((slots) => tryOut(1, slots));
  }
  // Lines that fall short of fewer targets come first; of lines that share most of their notes one is enough.
  const short = new Map(
    lines.map((l) => [l, missesOf(measuresOf(l.report, { style, settings: ctx.settings, meter: ctx.meter }))]),
  );
  lines.sort((a, b) => sure(short.get(a)) - sure(short.get(b)));
  const offered = unlike(lines);
  entitle(offered.slice(0, LINES), {
    meetsMore:
      offered.length > 1 && sure(short.get(firstOf(offered))) < Math.max(...offered.map((l) => sure(short.get(l)))),
  });
  return offered.length
    ? ok(offered.slice(0, LINES))
    : fail("bass.none", "No line fits the range and the pinned notes", { hint: "Widen the range or unpin a note." });
}

/** Two lines that share more of their notes than this say the same (common practice). */
const MOST_SHARED = 0.6;

/** Of some lines, in their order, those that share less with each before them. */
const unlike = (lines: readonly BassLine[]): BassLine[] =>
  lines.reduce<BassLine[]>(
    (kept, l) => (kept.every((k) => sharedNotes(k.notes, l.notes) <= MOST_SHARED) ? [...kept, l] : kept),
    [],
  );

/** Share of the shorter line's notes that the other one has too, attack and pitch; what is pinned does not count. */
export function sharedNotes(a: readonly NewNote[], b: readonly NewNote[]): number {
  const text = (n: NewNote) => `${n.start}:${n.pitch}`;
  const [x, y] = [a, b].map((l) => new Set(l.filter((n) => !n.pinned).map(text)));
  const least = Math.min(sure(x).size, sure(y).size);
  return least ? [...sure(x)].filter((t) => sure(y).has(t)).length / least : 1;
}

/** The lines alone, best first; empty where `bassLines` would name an error. */
export function writeBass(song: Song, request: BassRequest): BassLine[] {
  const result = bassLines(song, request);
  return result.ok ? result.value : [];
}

/** Says of each line what sets it apart from the first one, in words that no other has. */
function entitle(lines: readonly BassLine[], { meetsMore }: { meetsMore: boolean }): void {
  const [best] = lines;
  const taken = new Set<string>();
  for (const line of lines) {
    const bases =
      line.title.endsWith("nother rhythm") && line !== best
        ? apart(line.report, sure(best).report).map((a) => `${line.title}, ${a}`)
        : [];
    const own = line === best && meetsMore && line.title === "Another rhythm" ? "Meets most aims" : line.title;
    const title = [...bases, own, ...apart(line.report, sure(best).report).map((a) => `${own}, ${a}`)].find(
      (t) => !taken.has(t),
    );
    line.title = title ?? freeName(taken, own);
    taken.add(line.title);
  }
}

/** How a line differs from the first one, in words, what differs most first. */
function apart(report: BassReport, first: BassReport): string[] {
  const more = report.notes / Math.max(1, first.notes);
  const off = report.syncopation - first.syncopation;
  const rest = report.silence - first.silence;
  const density = () => {
    if (more > 1.08) return ["fuller"];
    if (more < 0.93) return ["sparser"];
    return [];
  };
  return [
    ...density(),
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
    return Math.max(0, ...others.map((o) => alike(own, o.profile)));
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

function finish(
  ctx: BassContext,
  style: BassStyle,
  {
    slots,
    picks,
    over,
    seed,
    title,
    pedal,
  }: {
    slots: PitchSlot[];
    picks: number[];
    over: { from: number; to: number; count: number }[];
    seed: number;
    title: string;
    pedal: boolean;
  },
): BassLine | null {
  const all: Chosen[] = slots.map((slot, i) => ({ slot, midi: nth(slot.candidates, nth(picks, i)).midi }));
  const line = all.filter(({ slot }) => !slot.beyond);
  const notes = line.map((chosen, i): NewNote & { id?: string } => {
    const { slot } = chosen;
    if (slot.pin) return slot.pin;
    return {
      start: slot.start,
      duration: slot.duration,
      pitch: spell(ctx, chosen, nth(all, (i + 1) % all.length)),
      velocity: velocityOf(ctx, slot),
      reason: reasonForNote(ctx, all, i, pedal),
    };
  });
  if (ctx.settings.slides !== "none") addGlides(ctx, line, notes);
  const measured = measure(ctx, notes);
  if (!measured) return null;
  return {
    notes,
    reasons: notes.map((n) => n.reason),
    report: measured,
    conflicts: findConflicts(ctx, style, line, { over, report: measured }),
    seed,
    style: style.id,
    title,
    slashes: slashesOf(ctx, style, line),
  };
}

/** The report of a line that is not yet written: it stands in the place of the part's own. */
function measure(ctx: BassContext, notes: readonly (NewNote & { id?: string })[]): BassReport | null {
  const frame = frameOf(ctx.song, sectionPlace(ctx.section.id));
  if (!frame) return null;
  const written = notes.map((n, i): Note => ({ ...n, id: n.id ?? `new${i}` }));
  const section = { ...frame.section, notes: { ...frame.section.notes, [ctx.part.id]: written } };
  const line = realizedNotes(ctx.song, { ...frame, section }, ctx.part, true);
  const ground = {
    chords: ctx.chords,
    sections: [{ start: 0, key: ctx.key, meter: ctx.meter }],
    loops: true,
    duration: ctx.length,
    ...(ctx.onward ? { onward: ctx.onward } : {}),
  };
  return reportOf({
    ...ctx,
    notes: line,
    roles: noteRoles(ground, { role: ctx.part.role, linked: false, notes: line }),
  });
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
function addGlides(ctx: BassContext, line: readonly Chosen[], notes: (NewNote & { id?: string })[]): void {
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
