import { firstOf, nth, sure } from "../../base/list";
import { fail, ok, type Result } from "../../base/result";
import { madeOf, type Steps } from "../../base/steps";
import { pitchMidi, type Midi } from "../../theory/pitch/pitch";
import type { Ticks } from "../../theory/time/meter";
import type { NewNote, Note, Part, Section, Song } from "../../song/schema";
import type { RealizedNote } from "../../song/realize";
import { spellOver } from "../../song/spell";
import { cheapestPath, type Lattice } from "../../search/lattice";
import { factsOf, type Reader } from "../../facts/memory";
import { lineSteps, OFFERED, lineSetting } from "../lines/engine";
import { noChords } from "../lines/ground";
import type { LineKind, LineNote, Setting, WrittenLine } from "../lines/kind";
import { settingsOf, styleOf } from "../lines/playing";
import { byDensity } from "../lines/titles";
import { vocalContext, type VocalContext, type VocalRequest } from "./context";
import { vocalConflicts, vocalReportOf, vocalRows, type VocalReport } from "./measures";
import type { Stack, VocalSchool, VocalSlot, VocalWay } from "./school";
import { VOCAL_SCHOOLS } from "./schools";
import { USUAL_VOCAL, type VocalSettings } from "./settings";
import { roughSpots, type RoughSpot } from "./spots";
import { moveCost } from "./tones";

export type { VocalRequest } from "./context";

/** What one voice sings in the section: pinned notes kept, everything else new. */
export interface WrittenVoice {
  /** Null for a voice that is still to be added as a part. */
  part: string | null;
  name: string;
  /** The type of voice of the part that is to be added. */
  type?: string;
  notes: LineNote[];
}

export interface VocalLines extends WrittenLine<VocalReport> {
  /** High to low; `notes` are those of the first: all there is where one is written. */
  parts: WrittenVoice[];
  /** Where it is rough, with what would mend it. */
  spots: RoughSpot[];
  school: string;
}

/** What was asked for comes first, unless another way misses more than this fewer of the aims. */
const LEAD = 1.5;
/** How many voices are written in a school. */
export const writtenVoices = ({ voices: [least, most] }: VocalSchool, inAll: number): number =>
  Math.min(most, Math.max(least, inAll - 1));

type Asked = Omit<VocalRequest, "voices">;
type VocalSetting = Setting<VocalContext, VocalSchool>;

/** Voices beside a tune as the engine writes them. */
const VOCAL: LineKind<VocalSettings, Asked, VocalSchool, VocalContext, VocalLines> = {
  id: "vocal",
  field: "school",
  words: { one: "school of vocal harmony", all: "Schools" },
  styles: VOCAL_SCHOOLS,
  first: firstOf(VOCAL_SCHOOLS),
  usual: USUAL_VOCAL,
  asked: (request) => request.school,
  context: (read, request, { settings, style }) =>
    vocalContext(read, request, settings, { count: writtenVoices(style, settings.voices), types: style.types }),
  lacks,
  candidates,
  most: OFFERED,
  rows: (report, { ctx, style }) => vocalRows(report, style.targets, ctx.meter),
  lead: LEAD,
  apart: (line, first) => byDensity(line.report.notes, first.report.notes),
  none: {
    message: "No voice fits the tune, the chords and the ranges",
    hint: "Choose another school, or widen the ranges.",
  },
};

/** The school of a part in a section. */
export const vocalSchoolOf = (part: Part, section: Section | undefined): VocalSchool => styleOf(VOCAL, part, section);

/** Settings of a part in a section, over what is usual. */
export const vocalSettings = (
  part: Part,
  section: Section | undefined,
  over: Partial<VocalSettings> = {},
): VocalSettings => settingsOf(VOCAL, part, { section, over });

/** A request in which the number of voices is one of the settings. */
const asked = ({ voices, ...request }: VocalRequest): Asked =>
  voices === undefined ? request : { ...request, settings: { ...request.settings, voices } };

/**
 * The context of a request with its school and settings resolved. Errors: `vocal.school`, and those of `vocalContext`.
 */
export const vocalRequest = (read: Reader, request: VocalRequest): Result<VocalSetting> =>
  lineSetting(VOCAL, read, asked(request));

/** What a school needs and the section does not have. */
function lacks({ ctx, style }: VocalSetting): Result<never> | null {
  if (style.needs.includes("chords")) {
    const bare = noChords("vocal", ctx, "the voices are written from it.");
    if (bare) return bare;
  }
  if (!style.needs.includes("tune") || ctx.tune.length) return null;
  return fail("vocal.tune", `${ctx.lead?.name ?? "The tune"} has no note in ${ctx.section.name}`, {
    hint: "Write the tune first; the voices go along with it.",
  });
}

/**
 * Writes voices beside a tune in one school: up to five ways, those that meet most aims first. Where ranges, pins,
 * chords and the aims cannot all be met, the conflict is named. Errors: `vocal.school`, `vocal.section`, `vocal.part`,
 * `vocal.lead`, `vocal.chords`, `vocal.tune`, `vocal.none`.
 */
export const vocalLines = (song: Song, request: VocalRequest): Result<VocalLines[]> =>
  madeOf(vocalSteps(song, request));

/** The same way by way, as `lineSteps` says. */
export const vocalSteps = (song: Song, request: VocalRequest): Steps<VocalLines[], Result<VocalLines[]>> =>
  lineSteps(VOCAL, song, asked(request));

/** The lines alone, best first; empty where `vocalLines` would name an error. */
export function writeVocalHarmony(song: Song, request: VocalRequest): VocalLines[] {
  const result = vocalLines(song, request);
  return result.ok ? result.value : [];
}

function* candidates({ ctx, style }: VocalSetting): Iterable<VocalLines | null> {
  for (const way of style.ways(ctx))
    for (const [k, voices] of plans(ctx, way).entries())
      if (voices.some((v) => v.length))
        yield judged({ ctx, style }, voices, k ? `${way.title}, another way` : way.title);
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
      sungNotes(ctx, way, slots, { line: picks.map((p, c) => nth(at(c, p).pitches, v)), voice: v }),
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
function sungNotes(
  ctx: VocalContext,
  way: VocalWay,
  slots: readonly VocalSlot[],
  { line, voice }: { line: readonly Midi[]; voice: number },
): NewNote[] {
  const out: { note: NewNote; slot: VocalSlot; midi: Midi }[] = [];
  slots.forEach((slot, c) => {
    const last = out.at(-1);
    const midi = nth(line, c);
    if (slot.joins && last?.midi === midi && last.note.start + last.note.duration === slot.start) {
      last.note.duration += slot.duration;
      return;
    }
    const { lead } = slot;
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
      note: {
        start: slot.start,
        duration: slot.duration,
        pitch: spellOver(ctx.key, slot.chord?.chord, midi),
        velocity: lead ? Math.max(1, Math.round(lead.velocity * BESIDE)) : HELD,
        ...sung(),
        ...(swell ? { swell } : {}),
      },
    });
  });
  const places = new Map(out.map(({ note, slot }) => [note.start, slot]));
  const finished = withPinned(
    ctx,
    out.map((x) => x.note),
    voice,
  );
  // Why each is there is asked of the voice as it is in the end, pinned notes among its own.
  return finished.map((note, i): NewNote => {
    const slot = places.get(note.start);
    if (note.pinned || !slot) return note;
    const before = finished[i - 1];
    const kept = before?.pitch === note.pitch && before.start + before.duration === note.start;
    return { ...note, reason: way.reason({ voice, slot, midi: pitchMidi(note.pitch), kept }) };
  });
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
  { ctx, style: school }: VocalSetting,
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
  return ok(
    judged(
      resolved.value,
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
