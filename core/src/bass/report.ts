import type { Result } from "../result";
import { ok } from "../result";
import { mod, type Midi } from "../pitch/pitch";
import type { Ticks } from "../time/meter";
import { sectionMeter } from "../song/document";
import type { RealNote } from "../song/realize";
import type { Song } from "../song/schema";
import type { RoleSpan } from "../slice/roles";
import { soundingNames, type Sliced } from "../slice/slices";
import { syncopations } from "../groove/syncopation";
import { bassContext, beatLength, chordAt, figures, inGap, tuneAt, type BassContext } from "./context";
import { reasonOf } from "./reasons";
import type { BassSettings } from "./settings";
import { alike, attackProfile, lastBarRepeats } from "./rhythm";

/** How often each tone is played over chords of one kind. */
export interface ToneUse {
  root: number;
  third: number;
  fifth: number;
  other: number;
}

export interface BassReport {
  notes: number;
  /** Share of the sounding time under chords that is on chord tones, 0–1; null when nothing sounds. */
  chordTime: number | null;
  /** Longest stretch of one note outside its chord (pedals and anticipations by name excepted). */
  longestOutside: Ticks;
  accentsMet: number;
  accents: number;
  /** Notes away from the kick, and whether there is a kick on at least half of the beats. */
  offKick: number;
  steadyKick: boolean;
  /** Most different pitch classes in any one figure. */
  pitchClasses: number;
  /** Share of the section in which the bass is silent, 0–1. */
  silence: number;
  /** Notes shorter than half a beat, up to a beat and a half, and longer. */
  lengths: { short: number; middle: number; long: number };
  approaches: number;
  approachesResolved: number;
  /** Tones by the quality of their chord. */
  overMajor: ToneUse;
  overMinor: ToneUse;
  /** Notes that begin in a gap of the tune, and with or beside its own notes; null without a tune. */
  tune: { inGaps: number; under: number; close: number } | null;
  lowest: Midi | null;
  highest: Midi | null;
  /** Notes below or above what the part has to itself. */
  outOfRange: number;
  /** Chords that are heard as others, because of the bass. */
  sounding: { chord: string; symbol: string; heard: string; tick: Ticks }[];
  /** How much the rhythm figure is alike those of other sections, 0–1. */
  likeness: { section: string; name: string; share: number }[];
  /** Longest run of bars that repeat the bar (or two bars) before note for note. */
  repeats: number;
  /** Snares and claps before which the bass has ended. */
  backbeats: number;
  backbeatsFree: number;
  /** Syncopation a bar (Longuet-Higgins & Lee), held notes counted. */
  syncopation: number;
  /** Share of moves that are steps; repeats count with them. */
  stepwise: number | null;
  withoutReason: number;
  lastBarVaried: boolean | null;
  /** The notes each measure rests on. */
  links: Record<ReportLink, string[]>;
  /** Positions of main accents without a bass attack. */
  missed: Ticks[];
}

export type ReportLink =
  | "outside"
  | "offKick"
  | "unresolved"
  | "withoutReason"
  | "missed"
  | "figure"
  | "gaps"
  | "under"
  | "close"
  | "range"
  | "sounding"
  | "repeats"
  | "short"
  | "long"
  | "overMajor"
  | "overMinor"
  | "leaps"
  | "backbeats"
  | "syncopated"
  | "lastBar";

const OUTSIDE = new Set(["outside", "tension", "passing", "neighbor", "appoggiatura", "escape", "approach", "suspension", "retardation"]);
const LEADS = new Set(["outside", "tension", "passing", "neighbor", "appoggiatura", "approach"]);

export const isOutside = (span: RoleSpan): boolean => OUTSIDE.has(span.kind);

const noUse = (): ToneUse => ({ root: 0, third: 0, fifth: 0, other: 0 });

/** Measures a bass line of one section, written or drawn. Errors: `bass.section`, `bass.part`, `bass.range`. */
export function reportBass(
  song: Song,
  { section, part, sliced, settings }: { section: string; part: string; sliced?: Sliced; settings?: BassSettings },
): Result<BassReport> {
  const context = bassContext(song, section, part, { sliced, settings });
  return context.ok ? ok(reportOf(context.value)) : context;
}

export function reportOf(ctx: BassContext): BassReport {
  const real = ctx.sliced.real.parts.find((p) => p.id === ctx.part.id)!;
  const roles = ctx.sliced.roles.get(ctx.part.id)!;
  const { notes } = real;
  const report = emptyReport(ctx, notes);
  for (const measure of [measureRoles, measureTones, measureLengths, measureMotion, measureTune, measureKick, measureFigure])
    measure(ctx, notes, report, roles);
  for (const name of Object.keys(report.links) as ReportLink[]) report.links[name] = [...new Set(report.links[name])];
  return report;
}

const LINKS: readonly ReportLink[] = [
  "outside",
  "offKick",
  "unresolved",
  "withoutReason",
  "missed",
  "figure",
  "gaps",
  "under",
  "close",
  "range",
  "sounding",
  "repeats",
  "short",
  "long",
  "overMajor",
  "overMinor",
  "leaps",
  "backbeats",
  "syncopated",
  "lastBar",
];

function emptyReport(ctx: BassContext, notes: readonly RealNote[]): BassReport {
  return {
    notes: notes.length,
    chordTime: null,
    longestOutside: 0,
    accentsMet: 0,
    accents: 0,
    offKick: 0,
    steadyKick: ctx.kicks.length * 2 >= ctx.bars * ctx.meter.beats.length,
    pitchClasses: 0,
    silence: 1,
    lengths: { short: 0, middle: 0, long: 0 },
    approaches: 0,
    approachesResolved: 0,
    overMajor: noUse(),
    overMinor: noUse(),
    tune: ctx.tune.notes.length ? { inGaps: 0, under: 0, close: 0 } : null,
    lowest: notes.length ? Math.min(...notes.map((n) => n.midi)) : null,
    highest: notes.length ? Math.max(...notes.map((n) => n.midi)) : null,
    outOfRange: 0,
    sounding: [],
    likeness: [],
    repeats: 0,
    backbeats: 0,
    backbeatsFree: 0,
    syncopation: 0,
    stepwise: null,
    withoutReason: 0,
    lastBarVaried: null,
    links: Object.fromEntries(LINKS.map((l) => [l, []])) as unknown as BassReport["links"],
    missed: [],
  };
}

/** One group of measures: reads the notes with their roles, writes into the report. */
type MeasureNotes = (ctx: BassContext, notes: readonly RealNote[], report: BassReport, roles: ReadonlyMap<RealNote, RoleSpan[]>) => void;

/** Time inside and outside the chords, what leads on, what has no reason, and chords that are heard as others. */
const measureRoles: MeasureNotes = (ctx, notes, report, roles) => {
  const { links } = report;
  const kickAt = new Set(ctx.kicks.map((k) => k.start));
  let [onChord, underChord] = [0, 0];
  for (const note of notes) {
    const spans = roles.get(note)!;
    for (const span of spans) {
      // A pedal, and a chord taken early, are heard as what they are: they count neither way.
      if (span.kind === "free" || span.kind === "pedal" || span.kind === "anticipation") continue;
      underChord += span.duration;
      if (span.kind === "chord") onChord += span.duration;
      if (!isOutside(span)) continue;
      links.outside.push(note.id);
      report.longestOutside = Math.max(report.longestOutside, span.duration);
    }
    const last = spans.at(-1)!;
    if (LEADS.has(last.kind)) {
      report.approaches++;
      if (last.kind === "outside" || last.kind === "tension") links.unresolved.push(note.id);
      else report.approachesResolved++;
    }
    if (!reasonOf(note, spans, kickAt.has(note.start))) links.withoutReason.push(note.id);
  }
  report.chordTime = underChord ? onChord / underChord : null;
  report.withoutReason = links.withoutReason.length;
  for (const [chord, heard] of soundingNames(ctx.sliced.real)) {
    report.sounding.push({ chord: chord.id, symbol: chord.symbol, heard, tick: chord.start });
    const under = notes.filter((n) => n.start < chord.start + chord.duration && n.start + n.duration > chord.start);
    links.sounding.push(...under.map((n) => n.id));
  }
};

/** Roots, thirds and fifths by the quality of their chords. */
const measureTones: MeasureNotes = (_, notes, report, roles) => {
  for (const note of notes) {
    const first = roles.get(note)![0];
    if (first?.kind !== "chord" || !first.chord?.chord) continue;
    const minor = first.chord.chord.tones.some((t) => t.role === "b3");
    const tone = first.role === "R" ? "root" : /^b?3$/.test(first.role) ? "third" : /^[b#]?5$/.test(first.role) ? "fifth" : "other";
    (minor ? report.overMinor : report.overMajor)[tone]++;
    if (tone === "third" || tone === "fifth") report.links[minor ? "overMinor" : "overMajor"].push(note.id);
  }
};

/** How long notes are, how much is silent, and what rings into a backbeat. */
const measureLengths: MeasureNotes = (ctx, notes, report) => {
  const { links } = report;
  let [sounding, soundedTo] = [0, 0];
  for (const note of notes) {
    const end = Math.min(note.start + note.duration, ctx.length);
    sounding += Math.max(0, end - Math.max(note.start, soundedTo, 0));
    soundedTo = Math.max(soundedTo, end);
    const halves = (note.duration * 2) / beatLength(ctx, Math.max(0, note.start));
    const kind = halves < 1 ? "short" : halves <= 3 ? "middle" : "long";
    report.lengths[kind]++;
    if (kind !== "middle") links[kind].push(note.id);
  }
  report.silence = Math.max(0, 1 - sounding / ctx.length);
  report.backbeats = ctx.backbeats.length;
  for (const at of ctx.backbeats) {
    const ringing = notes.find((n) => n.start < at && n.start + n.duration > at);
    if (ringing) links.backbeats.push(ringing.id);
    else report.backbeatsFree++;
  }
};

/** Steps and leaps, and the range. */
const measureMotion: MeasureNotes = (ctx, notes, report) => {
  const { links } = report;
  const [low, high] = ctx.range;
  const moves = notes.slice(1).map((n, i) => Math.abs(n.midi - notes[i]!.midi));
  links.leaps = notes.filter((_, i) => moves[i] !== undefined && moves[i]! > 2).map((n) => n.id);
  report.stepwise = moves.length ? moves.filter((d) => d <= 2).length / moves.length : null;
  links.range = notes.filter((n) => n.midi < low || n.midi > high).map((n) => n.id);
  report.outOfRange = links.range.length;
};

/** Movement in the gaps of the tune and under it, and notes within its octave. */
const measureTune: MeasureNotes = (ctx, notes, report) => {
  if (!report.tune) return;
  const { links } = report;
  // With a main accent and a new chord the bass must sound, whatever the tune does.
  const must = new Set([...ctx.kicks.filter((k) => k.main).map((k) => k.start), ...ctx.chords.map((c) => c.start)]);
  for (const note of notes) {
    const tune = tuneAt(ctx, note.start);
    if (inGap(ctx, note.start)) links.gaps.push(note.id);
    else if (!must.has(note.start)) links.under.push(note.id);
    if (tune !== null && note.midi > tune - 12) links.close.push(note.id);
  }
  report.tune = { inGaps: links.gaps.length, under: links.under.length, close: links.close.length };
};

/** Main accents met, and notes away from the kick. */
const measureKick: MeasureNotes = (ctx, notes, report) => {
  const { links } = report;
  const kickAt = new Set(ctx.kicks.map((k) => k.start));
  links.offKick = notes.filter((n) => !kickAt.has(n.start)).map((n) => n.id);
  report.offKick = links.offKick.length;
  // Where several bass sounds share a line, it does not matter which of them meets an accent.
  const layers = ctx.sliced.real.parts.filter((p) => p.id !== ctx.part.id && p.role === "bass" && !p.muted);
  const attacks = new Set([...notes, ...layers.flatMap((p) => p.notes)].map((n) => n.start));
  for (const kick of ctx.kicks) {
    if (!kick.main || !chordAt(ctx, kick.start)?.chord) continue;
    report.accents++;
    if (attacks.has(kick.start)) report.accentsMet++;
    else {
      report.missed.push(kick.start);
      const held = notes.findLast((n) => n.start < kick.start && n.start + n.duration > kick.start);
      if (held) links.missed.push(held.id);
    }
  }
};

/** The figure: its pitches, its syncopation, its repeats, its end, and how much it is like those of other sections. */
const measureFigure: MeasureNotes = (ctx, notes, report) => {
  const { links } = report;
  const { bar } = ctx.meter;
  const starts = notes.map((n) => n.start);
  for (const figure of figures(ctx)) {
    const inside = notes.filter((n) => n.start >= figure.from && n.start < figure.to);
    const count = new Set(inside.map((n) => mod(n.midi, 12))).size;
    if (count <= report.pitchClasses) continue;
    report.pitchClasses = count;
    links.figure = inside.map((n) => n.id);
  }
  if (ctx.bars > 1 && notes.length) report.lastBarVaried = !lastBarRepeats(starts, ctx.bars, bar);
  links.lastBar = notes.filter((n) => n.start >= (ctx.bars - 1) * bar).map((n) => n.id);
  const off = syncopations(starts, ctx.meter, ctx.length);
  report.syncopation = off.reduce((sum, s) => sum + s.weight, 0) / ctx.bars;
  links.syncopated = notes.filter((n) => off.some((s) => s.start === n.start)).map((n) => n.id);
  findRepeats(ctx, notes, report);
  report.likeness = likenesses(ctx, starts);
};

/** Runs of bars that repeat what was one or two bars before, rhythm and pitch. */
function findRepeats(ctx: BassContext, notes: readonly RealNote[], report: BassReport): void {
  const { bar } = ctx.meter;
  const text = Array.from({ length: ctx.bars }, (_, b) =>
    notes
      .filter((n) => n.start >= b * bar && n.start < (b + 1) * bar)
      .map((n) => `${n.start - b * bar}:${n.midi}`)
      .join(),
  );
  for (const period of [1, 2]) {
    let run = 0;
    for (let b = period; b < ctx.bars; b++) {
      run = text[b] && text[b] === text[b - period] ? run + 1 : 0;
      const passes = Math.floor(run / period);
      if (passes > report.repeats) {
        report.repeats = passes;
        report.links.repeats = notes.filter((n) => n.start >= (b - run + 1) * bar && n.start < (b + 1) * bar).map((n) => n.id);
      }
    }
  }
}

/** Rhythm figures of the same part in the other sections. */
export function otherFigures(ctx: Pick<BassContext, "song" | "section" | "part">): { section: string; name: string; profile: number[] }[] {
  return ctx.song.sections.flatMap((s) => {
    const notes = s.notes[ctx.part.id] ?? [];
    if (s.id === ctx.section.id || !notes.length) return [];
    const meter = sectionMeter(ctx.song, s);
    return [
      {
        section: s.id,
        name: s.name,
        profile: attackProfile(
          notes.map((n) => n.start),
          meter.bar,
          s.bars,
        ),
      },
    ];
  });
}

function likenesses(ctx: BassContext, starts: readonly Ticks[]): BassReport["likeness"] {
  if (!starts.length) return [];
  const own = attackProfile(starts, ctx.meter.bar, ctx.bars);
  return otherFigures(ctx).map(({ section, name, profile }) => ({ section, name, share: alike(own, profile) }));
}
