import { firstOf, nth, sure } from "../../base/list";
import { fail, ok, type Result } from "../../base/result";
import { pitchMidi, type Midi } from "../../theory/pitch/pitch";
import type { Ticks } from "../../theory/time/meter";
import { partOf, sectionOf } from "../../song/document";
import { playingOf } from "../../song/playing";
import type { NewNote, Note, Part, Reason, Section, Song } from "../../song/schema";
import type { RealizedNote } from "../../song/realize";
import { cheapestPath, type Lattice } from "../../search/lattice";
import { factsOf, type Reader } from "../../facts/memory";
import { missesOf, type Conflict } from "../lines/measure";
import { vocalContext, type VocalContext, type VocalPlace } from "./context";
import { vocalConflicts, vocalReportOf, vocalRows, type VocalReport } from "./measures";
import type { Stack, VocalSchool, VocalSlot, VocalWay } from "./school";
import { VOCAL_SCHOOLS } from "./schools";
import { vocalSettings, type VocalSettings } from "./settings";
import { roughSpots, type RoughSpot } from "./spots";
import { moveCost, spell } from "./tones";

export interface VocalRequest extends VocalPlace {
  /** A school's id; what the part has stored for the section, or the first, where it is absent. */
  school?: string;
  /** How many sing in all, the tune among them; over what is stored. */
  voices?: number;
  /** Over what is stored in the part. */
  settings?: Partial<VocalSettings>;
}

/** What one voice sings in the section: pinned notes kept, everything else new. */
export interface WrittenVoice {
  /** Null for a voice that is still to be added as a part. */
  part: string | null;
  name: string;
  /** The type of voice of the part that is to be added. */
  type?: string;
  notes: (NewNote & { id?: string })[];
}

export interface VocalLines {
  /** High to low. */
  parts: WrittenVoice[];
  /** Of the first voice: all there is where one is written. */
  notes: WrittenVoice["notes"];
  reasons: (Reason | undefined)[];
  report: VocalReport;
  /** Where it is rough, with what would mend it. */
  spots: RoughSpot[];
  conflicts: Conflict[];
  school: string;
  title: string;
}

const LINES = 5;
const USUAL = firstOf(VOCAL_SCHOOLS);

/** The school of a part in a section. */
export const vocalSchoolOf = (part: Part, section: Section | undefined): VocalSchool =>
  VOCAL_SCHOOLS.find((s) => s.id === playingOf(part, "vocal", { section }).school) ?? USUAL;

/** How many voices are written in a school. */
export const writtenVoices = ({ voices: [least, most] }: VocalSchool, inAll: number): number =>
  Math.min(most, Math.max(least, inAll - 1));

/**
 * The context of a request with its school and settings resolved. Errors: `vocal.school`, and those of `vocalContext`.
 */
export function vocalRequest(read: Reader, request: VocalRequest): Result<{ ctx: VocalContext; school: VocalSchool }> {
  const { song } = read;
  const part = partOf(song, request.part);
  const section = sectionOf(song, request.section);
  let school: VocalSchool | undefined;
  if (request.school === undefined) {
    if (part) school = vocalSchoolOf(part, section);
    else school = USUAL;
  } else school = VOCAL_SCHOOLS.find((s) => s.id === request.school);
  if (!school)
    return fail("vocal.school", `No school of vocal harmony is called "${request.school}"`, {
      hint: `Schools: ${VOCAL_SCHOOLS.map((s) => s.id).join(", ")}.`,
    });
  const stored = part ? vocalSettings(part, section, school.usual) : ({ voices: 2 } as VocalSettings);
  const settings = {
    ...stored,
    ...request.settings,
    ...(request.voices === undefined ? {} : { voices: request.voices }),
  };
  const ctx = vocalContext(read, request, settings, {
    count: writtenVoices(school, settings.voices),
    types: school.types,
  });
  return ctx.ok ? ok({ ctx: ctx.value, school }) : ctx;
}

/** What a school needs and the section does not have. */
function missing({ ctx, school }: { ctx: VocalContext; school: VocalSchool }): ReturnType<typeof fail> | null {
  if (school.needs.includes("chords") && !ctx.chords.some((c) => c.chord))
    return fail("vocal.chords", `${ctx.section.name} has no chords yet`, {
      hint: "Type a chord line first; the voices are written from it.",
    });
  if (school.needs.includes("tune") && !ctx.tune.length)
    return fail("vocal.tune", `${ctx.lead?.name ?? "The tune"} has no note in ${ctx.section.name}`, {
      hint: "Write the tune first; the voices go along with it.",
    });
  return null;
}

/**
 * Writes voices beside a tune in one school: up to five ways, those that meet most aims first. Where ranges, pins,
 * chords and the aims cannot all be met, the conflict is named. Errors: `vocal.school`, `vocal.section`, `vocal.part`,
 * `vocal.lead`, `vocal.chords`, `vocal.tune`, `vocal.none`.
 */
export function vocalLines(song: Song, request: VocalRequest): Result<VocalLines[]> {
  const resolved = vocalRequest(factsOf(song), request);
  if (!resolved.ok) return resolved;
  const lacking = missing(resolved.value);
  if (lacking) return lacking;
  const { ctx, school } = resolved.value;
  const seen = new Set<string>();
  const out: VocalLines[] = [];
  for (const way of school.ways(ctx))
    for (const [k, voices] of plans(ctx, way).entries()) {
      const id = JSON.stringify(voices.map((v) => v.map((n) => [n.start, n.duration, n.pitch])));
      if (out.length >= LINES || seen.has(id) || voices.every((v) => !v.length)) continue;
      seen.add(id);
      out.push(judged(ctx, school, voices, k ? `${way.title}, another way` : way.title));
    }
  const [wanted] = out;
  const misses = new Map(out.map((l) => [l, missesOf(vocalRows(l.report, school.targets, ctx.meter))]));
  // What was asked for comes first, unless another way meets two more of the aims.
  const order = (l: VocalLines) => sure(misses.get(l)) - (l === wanted ? 1.5 : 0);
  out.sort((a, b) => order(a) - order(b));
  return out.length
    ? ok(out)
    : fail("vocal.none", "No voice fits the tune, the chords and the ranges", {
        hint: "Choose another school, or widen the ranges.",
      });
}

/** The lines alone, best first; empty where `vocalLines` would name an error. */
export function writeVocalHarmony(song: Song, request: VocalRequest): VocalLines[] {
  const result = vocalLines(song, request);
  return result.ok ? result.value : [];
}

/** Share of places in which another way must differ for one to hear it. */
const OTHER = 0.3;

/** The voices of a plan, and of another way through it where it has several. */
function plans(ctx: VocalContext, way: VocalWay): NewNote[][][] {
  const slots: VocalSlot[] = [];
  const stacks: Stack[][] = [];
  for (const slot of way.slots) {
    const found = pinned(ctx, slot, way.stacks(slot));
    if (found.length) {
      slots.push(slot);
      stacks.push(found);
    }
  }
  if (!slots.length) return [];
  const at = (c: number, i: number) => nth(nth(stacks, c), i);
  const lattice: Lattice = {
    sizes: stacks.map((s) => s.length),
    node: (c, i) => at(c, i).cost,
    step(c, i, j) {
      const [a, b] = [nth(slots, c), nth(slots, c + 1)];
      // After a rest voices begin anew, near to where they were.
      const [from, to] = [at(c, i), at(c + 1, j)];
      const moves = way.free ? 0 : from.pitches.reduce((sum, p, v) => sum + moveCost(p, nth(to.pitches, v)), 0);
      return b.fresh ? moves * 0.3 : moves + (way.step?.(from, to, a, b) ?? 0);
    },
  };
  const best = cheapestPath(lattice)?.picks;
  if (!best) return [];
  const paths = [best, ...(way.several ? (otherPath(lattice, best, at) ?? []) : [])];
  return paths.map((picks) =>
    ctx.voices.map((_, v) =>
      notesOf(ctx, way, slots, { line: picks.map((p, c) => nth(at(c, p).pitches, v)), voice: v }),
    ),
  );
}

/**
 * Another way through the same places: what the first one took costs more and more, until enough of the places are set
 * otherwise.
 */
function otherPath(lattice: Lattice, taken: readonly number[], at: (c: number, i: number) => Stack): number[][] | null {
  const same = (c: number, i: number) => at(c, i).pitches.join() === at(c, nth(taken, c)).pitches.join();
  for (const surcharge of [0.4, 1, 2]) {
    const path = cheapestPath({
      ...lattice,
      node: (c, i) => lattice.node(c, i) + (nth(lattice.sizes, c) > 1 && same(c, i) ? surcharge : 0),
    });
    if (path && path.picks.filter((p, c) => !same(c, p)).length >= OTHER * taken.length) return [path.picks];
  }
  return null;
}

/** Ways of setting the voices with what is pinned in its place; the rest of each stays as it is. */
function pinned(ctx: VocalContext, slot: VocalSlot, stacks: Stack[]): Stack[] {
  const pins = ctx.voices.map((voice) =>
    voice.pinned.find((p) => p.start <= slot.start && slot.start < p.start + p.duration),
  );
  if (!pins.some((p) => p)) return stacks;
  const seen = new Map<string, Stack>();
  for (const s of stacks) {
    const pitches = s.pitches.map((p, v) => (pins[v] ? pitchMidi(pins[v].pitch) : p));
    const id = pitches.join();
    if (!seen.has(id) || sure(seen.get(id)).cost > s.cost) seen.set(id, { ...s, pitches });
  }
  return [...seen.values()];
}

/** Loudness beside the tune: a little behind it; voices that hold are softer still (common practice). */
const BESIDE = 0.86;
const HELD = 58;

/** The notes of one voice: places of one note of the tune, or of one breath, that stay on a pitch are one note. */
function notesOf(
  ctx: VocalContext,
  way: VocalWay,
  slots: readonly VocalSlot[],
  { line, voice }: { line: readonly Midi[]; voice: number },
): NewNote[] {
  const out: { note: NewNote; slot: VocalSlot; midi: Midi; from: number }[] = [];
  slots.forEach((slot, c) => {
    const last = out.at(-1);
    const midi = nth(line, c);
    if (slot.joins && last?.midi === midi && last.note.start + last.note.duration === slot.start) {
      last.note.duration += slot.duration;
      return;
    }
    const { lead } = slot;
    const before = last && !slot.fresh ? last.midi : null;
    const words = lead?.lyrics && (slot.start === lead.start ? lead.lyrics : lead.lyrics.map(() => "_"));
    const swell = !lead && ctx.settings.manner === "swelling";
    const sung = () => {
      if (words) return { lyrics: [...words] };
      if (!lead) return { lyrics: [out.length && !slot.fresh && slot.joins ? "_" : ctx.settings.syllable] };
      return {};
    };
    out.push({
      slot,
      midi,
      from: c,
      note: {
        start: slot.start,
        duration: slot.duration,
        pitch: spell(ctx, slot.chord, midi),
        velocity: lead ? Math.max(1, Math.round(lead.velocity * BESIDE)) : HELD,
        reason: way.reason({ voice, slot, midi, before }),
        ...sung(),
        ...(swell ? { swell } : {}),
      },
    });
  });
  return withPinned(
    ctx,
    out.map((x) => x.note),
    voice,
  );
}

/** Pinned notes stay as they are; what they cover gives way to them. */
function withPinned(ctx: VocalContext, notes: NewNote[], voice: number): NewNote[] {
  const pins = nth(ctx.voices, voice).pinned;
  if (!pins.length) return notes;
  const covers = (p: Note, t: Ticks) => p.start <= t && t < p.start + p.duration;
  const rest = notes
    .filter((n) => !pins.some((p) => covers(p, n.start)))
    .map((n) => {
      const next = pins.find((p) => p.start > n.start && p.start < n.start + n.duration);
      return next ? { ...n, duration: next.start - n.start } : n;
    });
  return [...rest, ...pins].sort((a, b) => a.start - b.start);
}

/** Notes that are not yet written, as they would sound. */
const asSung = (ctx: VocalContext, voice: number, notes: WrittenVoice["notes"]): RealizedNote[] =>
  notes.map((n, i) => ({
    id: n.id ?? `new${voice}.${i}`,
    part: nth(ctx.voices, voice).part?.id ?? "",
    section: ctx.section.id,
    pass: ctx.section.id,
    start: n.start,
    duration: n.duration,
    midi: pitchMidi(n.pitch),
    pitch: n.pitch,
    velocity: n.velocity,
    played: n.start,
    playedEnd: n.start + n.duration,
    ...(n.pinned ? { pinned: true } : {}),
  }));

/** Written voices with all that is to be said of them. */
function judged(
  ctx: VocalContext,
  school: VocalSchool,
  voices: readonly WrittenVoice["notes"][],
  title: string,
): VocalLines {
  const sounding = { ctx, voices: voices.map((notes, v) => asSung(ctx, v, notes)), targets: school.targets };
  const spots = roughSpots(sounding);
  const all = { ...sounding, spots };
  const report = vocalReportOf(all);
  const parts = voices.map((notes, v): WrittenVoice => {
    const { part, name, type } = nth(ctx.voices, v);
    return { part: part?.id ?? null, name, ...(type ? { type } : {}), notes };
  });
  return {
    parts,
    notes: firstOf(parts).notes,
    reasons: parts.flatMap((p) => p.notes.map((n) => n.reason)),
    report,
    spots,
    conflicts: vocalConflicts(all, report),
    school: school.id,
    title,
  };
}

/** Voices that were written, judged once more after a note of them was changed. Errors: as `vocalRequest`. */
export function rejudge(song: Song, request: VocalRequest, lines: VocalLines): Result<VocalLines> {
  const resolved = vocalRequest(factsOf(song), request);
  if (!resolved.ok) return resolved;
  const { ctx, school } = resolved.value;
  return ok(
    judged(
      ctx,
      school,
      lines.parts.map((p) => p.notes),
      lines.title,
    ),
  );
}

/** Voices with a rough spot mended: the note has another pitch, and no reason but the user's. */
export function mended(lines: VocalLines, spot: RoughSpot, pitch: string): VocalLines {
  const parts = lines.parts.map((part, v) =>
    v === spot.voice
      ? {
          ...part,
          notes: part.notes.map(({ reason, ...n }, i) =>
            i === spot.note ? { ...n, pitch } : { ...n, ...(reason ? { reason } : {}) },
          ),
        }
      : part,
  );
  return { ...lines, parts, notes: firstOf(parts).notes, reasons: parts.flatMap((p) => p.notes.map((n) => n.reason)) };
}
