import { nth } from "../../base/list";
import { ticksToSeconds } from "../../theory/time/swing";
import { phrasesOf } from "../../hear/line/tune";
import {
  rowsOf,
  takeAll,
  causesOf,
  idsOf,
  percent,
  type Conflict,
  type Links,
  type Measure,
  type MeasureOf,
} from "../lines/measure";
import { USUAL_BREATH } from "../../hear/singer/range";
import type { VocalTargets } from "./school";
import type { RoughSpot, Sounding, SpotKind } from "./spots";
import { inChord } from "./tones";

/** What voices are, in figures. */
export interface VocalReport extends Links {
  /** Notes of all voices. */
  notes: number;
  chordTime: number | null;
  rubs: number;
  outOfKey: number;
  outside: number;
  parallels: number;
  crossings: number;
  unisons: number;
  leaps: number;
  outOfRange: number;
  spacing: number;
  tendencies: number;
  /** Seconds of the longest phrase. */
  longest: number;
}

/** What the measures are taken of. */
export interface Judged extends Sounding {
  spots: readonly RoughSpot[];
}

type VocalMeasure = MeasureOf<Judged, VocalReport, Pick<VocalReport, "notes">, VocalTargets, Judged>;

const found = (j: Judged, kind: SpotKind): RoughSpot[] => j.spots.filter((s) => s.kind === kind);
const notesOfSpots = (j: Judged, kind: SpotKind): string[] =>
  idsOf(found(j, kind).map((s) => nth(nth(j.voices, s.voice), s.note)));

/** A measure that counts rough spots of one kind; `aimed` says for which schools none is the aim. */
function count(
  kind: SpotKind,
  field: Exclude<keyof VocalReport, "links" | "notes" | "chordTime" | "longest">,
  {
    title,
    how,
    why,
    aimed,
    shown = () => true,
  }: {
    title: string;
    how: string;
    why: (j: Judged) => string;
    aimed: (targets: VocalTargets) => boolean;
    shown?: (targets: VocalTargets) => boolean | undefined;
  },
): VocalMeasure {
  return {
    id: field,
    title,
    unit: "notes",
    how,
    take: (j) => ({ [field]: shown(j.targets) ? found(j, kind).length : 0 }) as unknown as VocalReport,
    notes: (j) => notesOfSpots(j, kind),
    show: (own) => String(own[field]),
    target: (own, targets) => (aimed(targets) && shown(targets) ? ["none", own[field] === 0] : null),
    cause(j) {
      const list = found(j, kind);
      const told = list.slice(0, 3).map((s) => s.message);
      const more = list.length > told.length ? ` and ${list.length - told.length} more` : "";
      return {
        code: kind,
        ...(list[0] ? { tick: list[0].tick } : {}),
        message: `${told.join("; ")}${more}: ${why(j)}.`,
      };
    },
  };
}

const pinnedAmong = (j: Judged, kind: SpotKind): boolean =>
  found(j, kind).some((s) => nth(nth(j.voices, s.voice), s.note).pinned);
const because = (kind: SpotKind, otherwise: (j: Judged) => string) => (j: Judged) =>
  pinnedAmong(j, kind) ? "a pinned note stands there" : otherwise(j);
const tuneTakes = (j: Judged): string => {
  const tune = j.ctx.lead?.name ?? "the tune";
  if (j.targets.strict) return `${tune} stands outside the chord there`;
  return j.targets.parallel
    ? `${tune} and the chords leave no better tone beside it`
    : `the chord has no tone that keeps clear of ${tune}`;
};
const free = (t: VocalTargets): boolean => !t.given;

const chordTime: VocalMeasure = {
  id: "chordTime",
  title: "Time on chord tones",
  unit: "share",
  how: "The share of their time on tones of the chord of the moment",
  take(j) {
    let [all, on] = [0, 0];
    for (const n of j.voices.flat())
      for (const c of j.ctx.chordsWithin(n.start, n.start + n.duration)) {
        if (!c.chord) continue;
        const time = Math.min(n.start + n.duration, c.start + c.duration) - Math.max(n.start, c.start);
        all += time;
        if (inChord(c, n.midi)) on += time;
      }
    return { chordTime: all ? on / all : null } as VocalReport;
  },
  notes: (j) => notesOfSpots(j, "chord"),
  show: (own) => (own.chordTime === null ? null : percent(own.chordTime)),
  target: (own, targets) =>
    targets.chordTime === undefined || own.chordTime === null
      ? null
      : [`${percent(targets.chordTime)} or more`, own.chordTime >= targets.chordTime - 1e-9],
  cause: (j) => ({
    code: "outside",
    message: `${j.ctx.lead?.name ?? "The tune"} itself passes between the chords, and the voices go along with it.`,
  }),
};

const breath: VocalMeasure = {
  id: "longest",
  title: "Longest phrase",
  unit: "beats",
  how:
    `Seconds from one rest of a beat to the next; ${USUAL_BREATH} s is one breath at ease (common practice). ` +
    "Where to breathe stands under Singers",
  take: (j) => {
    const phrases = j.voices.flatMap((notes) =>
      phrasesOf({ notes, meter: j.ctx.meter, tempo: j.ctx.tempo, length: j.ctx.length }),
    );
    return {
      longest: phrases.reduce((most, p) => Math.max(most, ticksToSeconds(p.end - p.start, j.ctx.tempo)), 0),
    } as VocalReport;
  },
  show: (own) => `${own.longest.toFixed(1)} s`,
};

/** Every measure of written voices. */
export const VOCAL_MEASURES: readonly VocalMeasure[] = [
  chordTime,
  count("rub", "rubs", {
    title: "Rubs on a beat",
    how:
      "Notes a semitone or a minor ninth from the tune, another voice, a part that lays out the chords, or above " +
      "a tone of the chord; tones of the chord do not count",
    why: because("rub", tuneTakes),
    aimed: free,
  }),
  count("key", "outOfKey", {
    title: "Out of the key",
    how: "Notes neither in the key nor in the chord",
    why: because("key", () => "nothing else was left"),
    aimed: free,
  }),
  count("chord", "outside", {
    title: "Outside the chord",
    how: "Notes on a beat, or a beat long, that the chord does not hold, while the tune sings one of its tones",
    why: because("chord", tuneTakes),
    aimed: (t) => free(t) && t.chordTime !== undefined && t.chordTime > 0.9,
  }),
  count("parallel", "parallels", {
    title: "Parallel fifths, octaves",
    how: "Between any two voices, from a fifth, octave or unison into another of the same",
    why: because("parallel", () => "the tune and the chords leave no other way in these ranges"),
    aimed: (t) => t.strict === true,
    shown: (t) => t.strict === true,
  }),
  count("crossing", "crossings", {
    title: "Crossings",
    how: "Notes on the other side of the tune or of a neighbor",
    why: because("crossing", () => "the ranges lie too close"),
    aimed: (t) => free(t) && t.parallel === undefined,
  }),
  count("unison", "unisons", {
    title: "In unison",
    how: "Notes of a beat or more that are the tune's own, or another voice's",
    why: because("unison", tuneTakes),
    aimed: free,
  }),
  count("leap", "leaps", {
    title: "Hard leaps",
    how: "Tritones, sevenths and more than an octave within a phrase",
    why: because("leap", () => "the tones of the chords nearest to the tune lie so"),
    aimed: free,
  }),
  count("range", "outOfRange", {
    title: "Out of range",
    how: "Notes outside the range of singer or voice",
    why: (j) =>
      "another voice, key or octave would suit " +
      `${new Set(found(j, "range").map((s) => nth(j.ctx.voices, s.voice).name)).size > 1 ? "them" : "it"}`,
    aimed: () => true,
  }),
  count("spacing", "spacing", {
    title: "Spacing",
    how: "Upper neighbors more than an octave apart",
    why: because("spacing", () => "the tune goes too high above the other voices"),
    aimed: (t) => t.strict === true,
    shown: (t) => t.strict === true,
  }),
  count("tendency", "tendencies", {
    title: "Tones that do not resolve",
    how: "Leading tones in the bass that do not rise, sevenths that do not fall",
    why: because("tendency", () => "the next chord or the ranges keep them from it"),
    aimed: (t) => t.strict === true,
    shown: (t) => t.strict === true,
  }),
  breath,
];

export const vocalReportOf = (j: Judged): VocalReport =>
  takeAll<Judged, Pick<VocalReport, "notes">, VocalReport>(VOCAL_MEASURES as never, j, {
    notes: j.voices.flat().length,
  });

/** The report as rows to read; what a school does not judge by is not listed where it is 0. */
export const vocalRows = (report: VocalReport, targets: VocalTargets, meter: Sounding["ctx"]["meter"]): Measure[] =>
  rowsOf(VOCAL_MEASURES as never, report, targets as never, meter).filter(
    (row) => row.target !== null || !(row.value === "0"),
  );

export const vocalConflicts = (j: Judged, report: VocalReport): Conflict[] =>
  causesOf(VOCAL_MEASURES, [], { ctx: j, line: j, report, aim: j.targets });
