import { firstOf, nth, sure } from "../../base/list";
import { fail, ok, type Result } from "../../base/result";
import { nameInKey } from "../../theory/pitch/key";
import { mod, pitchMidi, pitchName } from "../../theory/pitch/pitch";
import { positionText } from "../../theory/time/meter";
import { partOf, sectionOf } from "../../song/document";
import { sectionPlace } from "../../song/place";
import { playingOf } from "../../song/playing";
import { frameOf, realizedNotes } from "../../song/realize";
import type { NewNote, Note, Part, Reason, Section, Song } from "../../song/schema";
import { noteRoles } from "../../hear/slice/roles";
import { factsOf, type Fact, type Reader } from "../../facts/memory";
import { causesOf, missesOf, type Conflict, type Measure } from "../lines/measure";
import { collector, distinctRhythms, withPins } from "../lines/slots";
import { counterContext, type CounterContext, type CounterPlace } from "./context";
import { counterMeasures, counterReportOf, EVERY_COUNTER_MEASURE, type CounterReport } from "./measures";
import { choosePitches, otherPitches, pitchSlots, type PitchSlot } from "./pitches";
import { reasonFor, reasonUnder, spell, type Chosen } from "./reasons";
import { counterSettings, type CounterSettings } from "./settings";
import type { CounterSlot, CounterStyle } from "./style";
import { COUNTER_STYLES } from "./styles";

export interface CounterRequest extends CounterPlace {
  /** A style's id; what the part has stored for the section, or the answer, where it is absent. */
  style?: string;
  seed?: number;
  /** Over what is stored in the part. */
  settings?: Partial<CounterSettings>;
}

export interface CounterLine {
  /** The whole part for the section: pinned notes kept, everything else new. */
  notes: (NewNote & { id?: string })[];
  reasons: (Reason | undefined)[];
  report: CounterReport;
  conflicts: Conflict[];
  seed: number;
  style: string;
  /** What sets this candidate apart, in words. */
  title: string;
}

/** How many lines are offered, and how many rhythms are tried for them. */
const LINES = 5;
const ATTEMPTS = 8;

const USUAL = firstOf(COUNTER_STYLES);

/** The style of a part in a section. */
export const counterStyleOf = (part: Part, section: Section | undefined): CounterStyle =>
  COUNTER_STYLES.find((s) => s.id === playingOf(part, "counter", { section }).style) ?? USUAL;

/**
 * The context of a request with its style and settings resolved. Errors: `counter.style`, and those of
 * `counterContext`.
 */
export function counterRequest(
  read: Reader,
  request: CounterRequest,
): Result<{ ctx: CounterContext; style: CounterStyle }> {
  const { song } = read;
  const part = partOf(song, request.part);
  const section = sectionOf(song, request.section);
  let style: CounterStyle | undefined;
  if (request.style === undefined) {
    if (part) style = counterStyleOf(part, section);
    else style = USUAL;
  } else style = COUNTER_STYLES.find((s) => s.id === request.style);
  if (!style)
    return fail("counter.style", `No style of counter melody is called "${request.style}"`, {
      hint: `Styles: ${COUNTER_STYLES.map((s) => s.id).join(", ")}.`,
    });
  const settings = part ? counterSettings(part, section, style.usual) : ({} as CounterSettings);
  const ctx = counterContext(read, request, { ...settings, ...request.settings });
  return ctx.ok ? ok({ ctx: ctx.value, style }) : ctx;
}

/**
 * Writes up to five counter melodies for a section in one style, those that meet most aims first. Where pins, chords,
 * the tune and the aims cannot all be met, the line names the conflict. Errors: `counter.style`, `counter.section`,
 * `counter.part`, `counter.against`, `counter.range`, `counter.chords`, `counter.place` (the style finds no place to
 * sound), `counter.none`.
 */
export function counterLines(song: Song, request: CounterRequest): Result<CounterLine[]> {
  const resolved = counterRequest(factsOf(song), request);
  if (!resolved.ok) return resolved;
  const { ctx, style } = resolved.value;
  if (!style.withoutChords && !ctx.chords.some((c) => c.chord))
    return fail("counter.chords", `${ctx.section.name} has no chords yet`, {
      hint: "Type a chord line first; the line is written against it.",
    });
  if (ctx.range[1] - ctx.range[0] < 7) {
    const [low, high] = ctx.range.map((m) => pitchName(m, nameInKey(mod(m, 12), ctx.key)));
    return fail("counter.range", `${low} to ${high} is less than a fifth`, {
      hint: "A line needs a fifth at least to move in.",
    });
  }
  const seed = request.seed ?? 1;
  const rhythms = distinctRhythms(ATTEMPTS, (attempt) => style.slots(ctx, seed * 97 + attempt, attempt));
  if (!rhythms.length) {
    const { message, hint } = style.nothing?.(ctx) ?? {
      message: "The style finds no place to sound here",
      hint: "Choose another style.",
    };
    return fail("counter.place", message, { hint });
  }
  const titles = style.titles?.(ctx);
  const { lines, add } = collector<CounterLine>(ATTEMPTS);
  for (const [attempt, rhythm] of rhythms.entries()) {
    if (lines.length >= LINES) break;
    const { slots, stuck } = pitchSlots(
      ctx,
      style,
      withPins(rhythm, ctx.pinned, (pin): CounterSlot => ({ start: pin.start, duration: pin.duration })),
    );
    const picks = slots.length ? choosePitches(style, slots) : null;
    if (!picks) continue;
    const own = { ctx, style, seed, stuck };
    add(finish(own, slots, picks, titles?.[attempt] ?? (attempt ? "Another rhythm" : "As the style has it")));
    // The first rhythms give two lines each: another rhythm is not the only other way.
    const other = attempt < 2 ? otherPitches(style, slots, picks) : null;
    if (other) {
      const otherTitle = () => {
        if (titles?.[attempt]) return `${titles[attempt]}, other notes`;
        if (attempt) return "That rhythm, other notes";
        return "Same rhythm, other notes";
      };
      add(finish(own, other.slots, other.picks, otherTitle()));
    }
  }
  const short = new Map(
    lines.map((l) => [l, missesOf(counterMeasures(l.report, { style, settings: ctx.settings }, ctx.meter))]),
  );
  lines.sort((a, b) => sure(short.get(a)) - sure(short.get(b)));
  setApart(lines);
  return lines.length
    ? ok(lines.slice(0, LINES))
    : fail("counter.none", "No line fits the range, the tune and the pinned notes", {
        hint: "Widen the range or unpin a note.",
      });
}

/** Lines that are called the same say what sets them apart from the first one of that name, or are counted. */
function setApart(lines: CounterLine[]): void {
  const firsts = new Map<string, CounterLine>();
  const taken = new Set<string>();
  for (const line of lines) {
    const first = firsts.get(line.title);
    if (first) {
      const named = `${line.title}${apart(line, first)}`;
      line.title = taken.has(named)
        ? `${line.title} (${[...taken].filter((t) => t.startsWith(line.title)).length + 1})`
        : named;
    } else firsts.set(line.title, line);
    taken.add(line.title);
  }
}

/** How a line differs from another one, in words; empty where it is much alike. */
function apart({ notes, report }: CounterLine, first: CounterLine): string {
  const more = report.notes / Math.max(1, first.report.notes);
  if (more > 1.08) return ", fuller";
  if (more < 0.93) return ", sparser";
  const mean = (list: CounterLine["notes"]) => list.reduce((sum, n) => sum + pitchMidi(n.pitch), 0) / list.length;
  const higher = mean(notes) - mean(first.notes);
  if (Math.abs(higher) >= 1.5) return higher > 0 ? ", higher" : ", lower";
  const longer = notes.reduce((sum, n) => sum + n.duration, 0) / first.notes.reduce((sum, n) => sum + n.duration, 0);
  if (longer > 1.08) return ", longer notes";
  if (longer < 0.93) return ", shorter notes";
  return "";
}

/** The lines alone, best first; empty where `counterLines` would name an error. */
export function writeCounterMelody(song: Song, request: CounterRequest): CounterLine[] {
  const result = counterLines(song, request);
  return result.ok ? result.value : [];
}

/** Loudness of a note: softer than the tune while it sounds, a little forward where it rests (common practice). */
const velocityOf = (ctx: CounterContext, start: number): number => (ctx.tuneAt(start) ? 66 : 80);

/** Notes of one pitch that only a change of chord parts are one note, in styles that hold. */
function tied(line: readonly Chosen[]): { chosen: Chosen[]; index: number }[] {
  const out: { chosen: Chosen[]; index: number }[] = [];
  line.forEach((chosen, index) => {
    const last = out.at(-1);
    const before = last?.chosen.at(-1);
    const joins =
      chosen.slot.ties &&
      before?.slot.ties &&
      !before.slot.pin &&
      !chosen.slot.pin &&
      before.pick.midi === chosen.pick.midi &&
      before.slot.start + before.slot.duration === chosen.slot.start &&
      sure(last).chosen.length < 2;
    if (joins) sure(last).chosen.push(chosen);
    else out.push({ chosen: [chosen], index });
  });
  return out;
}

interface Writing {
  ctx: CounterContext;
  style: CounterStyle;
  seed: number;
  stuck: readonly CounterSlot[];
}

function finish(
  { ctx, style, seed, stuck }: Writing,
  slots: readonly PitchSlot[],
  picks: readonly number[],
  title: string,
): CounterLine | null {
  const line: Chosen[] = slots.map((slot, i) => ({ slot, pick: nth(slot.candidates, nth(picks, i)) }));
  const notes = tied(line).flatMap(({ chosen, index }): (NewNote & { id?: string })[] => {
    const { slot, pick } = firstOf(chosen);
    if (slot.pin) return [slot.pin];
    const duration = chosen.reduce((sum, c) => sum + c.slot.duration, 0);
    const base = { start: slot.start, duration, velocity: velocityOf(ctx, slot.start) };
    const top = { ...base, pitch: spell(ctx, slot, pick.midi), reason: reasonFor(ctx, style, line, index) };
    if (pick.under === undefined) return [top];
    return [
      {
        ...base,
        velocity: base.velocity - 6,
        pitch: spell(ctx, slot, pick.under),
        reason: reasonUnder(ctx, firstOf(chosen)),
      },
      top,
    ];
  });
  const report = measure(ctx, notes);
  if (!report) return null;
  return {
    notes,
    reasons: notes.map((n) => n.reason),
    report: report.report,
    conflicts: conflictsOf(report.ctx, style, line, { stuck, report: report.report }),
    seed,
    style: style.id,
    title,
  };
}

/** The report of a line that is not yet written: it stands in the place of the part's own. */
function measure(
  ctx: CounterContext,
  notes: readonly (NewNote & { id?: string })[],
): { ctx: CounterContext; report: CounterReport } | null {
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
  };
  const placed = { ...ctx, notes: line, roles: noteRoles(ground, { role: ctx.part.role, linked: false, notes: line }) };
  return { ctx: placed, report: counterReportOf(placed) };
}

/** What stands between the material and the aims. */
function conflictsOf(
  ctx: CounterContext,
  style: CounterStyle,
  line: readonly Chosen[],
  { stuck, report }: { stuck: readonly CounterSlot[]; report: CounterReport },
): Conflict[] {
  const at = stuck[0];
  const known: Conflict[] = at
    ? [
        {
          code: "stuck",
          tick: at.start,
          measures: [],
          message:
            "No tone of the range stands clear of the tune and the chords at " +
            `${positionText(ctx.meter, at.start)}${stuck.length > 1 ? ` and ${stuck.length - 1} other places` : ""}: ` +
            "the line rests there.",
        },
      ]
    : [];
  return [
    ...known,
    ...causesOf(EVERY_COUNTER_MEASURE, known, { ctx, line, report, aim: { style, settings: ctx.settings } }),
  ];
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
    const { ctx, style } = resolved.value;
    const report = counterReportOf(ctx);
    return ok({
      style: style.id,
      report,
      measures: counterMeasures(report, { style, settings: ctx.settings }, ctx.meter),
    });
  },
};
