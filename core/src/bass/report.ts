import type { Result } from "../result";
import { ok } from "../result";
import { mod } from "../pitch/pitch";
import type { Ticks } from "../time/meter";
import type { RealNote } from "../song/realize";
import type { Reason, Song } from "../song/schema";
import type { RoleSpan } from "../slice/roles";
import type { Sliced } from "../slice/slices";
import { bassContext, figures, type BassTargets } from "./context";
import { lastBarRepeats } from "./rhythm";

export interface BassReport {
  notes: number;
  /** Share of the sounding time under chords that is on chord tones, 0–1; null when nothing sounds. */
  chordTime: number | null;
  /** Longest stretch of one note outside its chord (pedals and anticipations by name excepted). */
  longestOutside: Ticks;
  accentsMet: number;
  accents: number;
  offKick: number;
  /** Most different pitch classes in any one figure. */
  pitchClasses: number;
  /** Share of the section in which the bass is silent, 0–1. */
  silence: number;
  approaches: number;
  approachesResolved: number;
  withoutReason: number;
  lastBarVaried: boolean | null;
  targets: BassTargets | null;
  /** The notes each measure rests on. */
  links: Record<"outside" | "offKick" | "unresolved" | "withoutReason", string[]>;
  /** Positions of main accents without a bass attack. */
  missed: Ticks[];
}

const OUTSIDE = new Set(["outside", "tension", "passing", "neighbor", "appoggiatura", "escape", "approach", "suspension", "retardation"]);
const LEADS = new Set(["outside", "tension", "passing", "neighbor", "appoggiatura", "approach"]);

export const isOutside = (span: RoleSpan): boolean => OUTSIDE.has(span.kind);

/** The reason of a note: the stored one, the user's pin, or what its place justifies; null when nothing does. */
export function reasonOf(note: RealNote, spans: readonly RoleSpan[], onKick: boolean): Reason | null {
  if (note.reason) return note.reason;
  if (note.pinned) return { id: "pinned" };
  const first = spans[0];
  if (!first?.chord) return null;
  const pitch = note.pitch.replace(/-?\d+$/, "");
  if (first.kind === "chord")
    return first.role === "R"
      ? { id: onKick ? "rootWithKick" : "chordTone", params: { pitch, role: "Root", chord: first.chord.symbol } }
      : { id: "chordTone", params: { role: first.role, chord: first.chord.symbol } };
  if (first.kind === "anticipation") return { id: "anticipation", params: { chord: spans[1]?.chord?.symbol ?? "the next chord" } };
  if (first.kind === "outside" || first.kind === "tension" || first.kind === "free") return null;
  return { id: first.kind };
}

/** Measures a bass line of one section, written or drawn. */
export function reportBass(
  song: Song,
  { section, part, targets = null, sliced }: { section: string; part: string; targets?: BassTargets | null; sliced?: Sliced },
): Result<BassReport> {
  const context = bassContext(song, section, part, sliced);
  if (!context.ok) return context;
  const ctx = context.value;
  const real = ctx.sliced.real.parts.find((p) => p.id === part)!;
  const roles = ctx.sliced.roles.get(part)!;
  const kickAt = new Set(ctx.kicks.map((k) => k.start));
  const report: BassReport = {
    notes: real.notes.length,
    chordTime: null,
    longestOutside: 0,
    accentsMet: 0,
    accents: 0,
    offKick: 0,
    pitchClasses: 0,
    silence: 1,
    approaches: 0,
    approachesResolved: 0,
    withoutReason: 0,
    lastBarVaried: null,
    targets,
    links: { outside: [], offKick: [], unresolved: [], withoutReason: [] },
    missed: [],
  };
  let onChord = 0;
  let underChord = 0;
  let sounding = 0;
  let soundedTo = 0;
  for (const note of real.notes) {
    const spans = roles.get(note)!;
    const end = Math.min(note.start + note.duration, ctx.length);
    sounding += Math.max(0, end - Math.max(note.start, soundedTo, 0));
    soundedTo = Math.max(soundedTo, end);
    for (const span of spans) {
      if (span.kind === "free") continue;
      underChord += span.duration;
      if (span.kind === "chord") onChord += span.duration;
      if (isOutside(span)) {
        report.links.outside.push(note.id);
        report.longestOutside = Math.max(report.longestOutside, span.duration);
      }
    }
    if (!kickAt.has(note.start)) report.links.offKick.push(note.id);
    const last = spans.at(-1)!;
    if (LEADS.has(last.kind)) {
      report.approaches++;
      if (last.kind === "outside" || last.kind === "tension") report.links.unresolved.push(note.id);
      else report.approachesResolved++;
    }
    if (!reasonOf(note, spans, kickAt.has(note.start))) report.links.withoutReason.push(note.id);
  }
  const attacks = new Set(real.notes.map((n) => n.start));
  for (const kick of ctx.kicks) {
    if (!kick.main || !ctx.chords.some((c) => c.chord && c.start <= kick.start && kick.start < c.start + c.duration)) continue;
    report.accents++;
    if (attacks.has(kick.start)) report.accentsMet++;
    else report.missed.push(kick.start);
  }
  report.chordTime = underChord ? onChord / underChord : null;
  report.silence = Math.max(0, 1 - sounding / ctx.length);
  report.offKick = report.links.offKick.length;
  report.withoutReason = report.links.withoutReason.length;
  for (const figure of figures(ctx))
    report.pitchClasses = Math.max(
      report.pitchClasses,
      new Set(real.notes.filter((n) => n.start >= figure.from && n.start < figure.to).map((n) => mod(n.midi, 12))).size,
    );
  if (ctx.bars > 1 && real.notes.length)
    report.lastBarVaried = !lastBarRepeats(
      real.notes.map((n) => n.start),
      ctx.bars,
      ctx.meter.bar,
    );
  return ok(report);
}
