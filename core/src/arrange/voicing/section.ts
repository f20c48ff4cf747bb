import { given } from "../../base/given";
import { firstOf, nth, sure } from "../../base/list";
import { ok, type Result } from "../../base/result";
import { madeOf, toldAs, type Steps } from "../../base/steps";
import { type PitchName } from "../../theory/pitch/pitch";
import type { Chord } from "../../theory/chord/chord";
import { chordOf } from "../../theory/chord/progression";
import { OCTAVE_SPAN, twoHands } from "../../theory/instrument/hands";
import { instrumentOf } from "../../theory/instrument/instruments";
import { partOf, sectionKey, sectionOf } from "../../song/document";
import { firstLayout, wayOn } from "../../song/onward";
import { playingOf } from "../../song/playing";
import type { ChordEvent, Note, Part, Section, Song } from "../../song/schema";
import type { Edit } from "../../song/edits";
import { trade, type Weights } from "./cost";
import { alternativesAt, describe, noPlace, type Alternative, type VoicedPath } from "./path";
import { pathsOf, pathSteps, type FoundPath } from "./ways";
import { heldSpace, type LayoutsByIndex } from "./held";
import { voicingSpace, type VoicingSpace } from "./space";
import { type TopReport } from "./candidate";
import type { PathOptions } from "./setting";
import { VOICING_STYLES } from "./styles";

export interface SectionVoicing extends VoicedPath {
  /** Chord event ids in the order of `chords`; N.C. has none. */
  ids: string[];
  /** Ids of the chords that the style does not suit: they are laid out freely. */
  fallbacks: string[];
  /** What became of the wanted top notes, by chord id. */
  tops: Record<string, TopReport>;
  /** Wanted lowest notes that could not be had, by chord id. */
  bottoms: Record<string, PitchName>;
  /** For chords that stretch a hand past an octave: the cheapest layout of any kind that does not. */
  easier: Record<string, PitchName[]>;
  /**
   * Other layouts for each chord beside its present neighbors, cheapest first, each with another bottom or top note.
   */
  alternatives: Record<string, Alternative[]>;
}

/** Another way through the whole section. */
export interface SectionPath {
  pitches: Record<string, PitchName[]>;
  motion: number;
  cost: number;
  /** What it trades against the cheapest. */
  trades: string[];
  exact: boolean;
}

/** How a part asks to be voiced in a section, from how it plays there. */
export function partOptions(song: Song, part: Part, section?: Section): PathOptions {
  const { style, school, over, weights, ...asked } = playingOf(part, "voicing", { section });
  const { voices, register = 0, topShape, hands = 2, span, capo = 0, tuning } = asked;
  return {
    // A style that a later version wrote is voiced freely.
    style: VOICING_STYLES.some((s) => s.id === style) ? sure(style) : "keyboard",
    instrument: part.instrument,
    ...(song.instruments ? { song: { instruments: song.instruments } } : {}),
    loop: part.link?.loop ?? false,
    profile: school ?? "band",
    bassCovered: over ? over === "bass" : song.parts.some((p) => p.role === "bass"),
    weights: (weights ?? {}) as Partial<Weights>,
    ...{ register, hands, capo },
    ...given({ voices, topShape, span, tuning, range: part.range }),
    ...(section ? { scale: sectionKey(song, section).pcs } : {}),
  };
}

/** The note of a part that sounds where a chord begins, or the first one within it. */
export function tuneOver(section: Section, part: string, chord: ChordEvent): Note | undefined {
  const notes = section.notes[part] ?? [];
  const end = chord.start + chord.duration;
  return (
    notes.findLast((n) => n.start <= chord.start && n.start + n.duration > chord.start) ??
    notes.find((n) => n.start > chord.start && n.start < end)
  );
}

/** Layouts a part has in a section, by chord id. */
export const layoutsOf = (section: Section, part: string): Layouts =>
  Object.fromEntries(
    section.chords.flatMap((c) => (c.voicings?.[part] ? [[c.id, c.voicings[part].pitches] as const] : [])),
  );

/** Everything the layouts of a part in a section depend on, as plain data. */
export interface AskedVoicing {
  /** Chords that are laid out, by id; N.C. is not among them. */
  ids: string[];
  symbols: string[];
  options: PathOptions;
  /** The chord and layout with which the form goes on: the last chord leads there, and not back to the first. */
  onto?: { symbol: string; pitches: PitchName[] };
}

/** What is asked of the voicing path. Errors: `voicing.place`. */
export function askVoicing(song: Song, sectionId: string, partId: string): Result<AskedVoicing> {
  const section = sectionOf(song, sectionId);
  const part = partOf(song, partId);
  if (!section || !part) return noPlace(sectionId, partId);
  const events = section.chords.filter((event) => chordOf(event.symbol));
  const pins: Record<number, PitchName[]> = {};
  const shapes: NonNullable<PathOptions["shapes"]> = {};
  const outer: NonNullable<PathOptions["outer"]> = {};
  const tune = part.link?.top;
  events.forEach((e, i) => {
    const v = e.voicings?.[partId];
    // A pinned chord keeps its name and its layout.
    if (v && (v.pinned || e.pinned)) pins[i] = v.pitches;
    if (pins[i] && v?.shape) shapes[i] = v.shape;
    const top = v?.top ?? (tune ? tuneOver(section, tune, e)?.pitch : undefined);
    const wanted = given({ top, bottom: v?.bottom });
    if (Object.keys(wanted).length) outer[i] = wanted;
  });
  const way = part.link?.loop ? wayOn(song, sectionId) : null;
  const layout = way?.symbol ? firstLayout(song, way, partId) : [];
  return ok({
    ids: events.map((e) => e.id),
    symbols: events.map((e) => e.symbol),
    options: { ...partOptions(song, part, section), pins, outer, ...(Object.keys(shapes).length ? { shapes } : {}) },
    ...(layout.length ? { onto: { symbol: sure(sure(way).symbol), pitches: layout } } : {}),
  });
}

/** The chords of a path and how it is laid out: what the form goes on with stands behind the last one, as it is. */
export function pathOf({ symbols, options, onto }: AskedVoicing): { chords: Chord[]; options: PathOptions } {
  const chords = [...symbols, ...(onto ? [onto.symbol] : [])].flatMap((symbol) => chordOf(symbol) ?? []);
  return {
    chords,
    options: onto ? { ...options, loop: false, pins: { ...options.pins, [symbols.length]: onto.pitches } } : options,
  };
}

/** A path without what follows it. */
export const ownOf = <P extends VoicedPath>(path: P, { ids }: AskedVoicing): P => ({
  ...path,
  chords: path.chords.slice(0, ids.length),
  candidates: path.candidates.slice(0, ids.length),
});

/** Voices a section for one chord part, keeping pinned voicings and wanted top and lowest notes. */
export function voiceSection(song: Song, sectionId: string, partId: string): Result<SectionVoicing> {
  const asked = askVoicing(song, sectionId, partId);
  return asked.ok ? layOut(asked.value) : asked;
}

const NOTHING: SectionVoicing = {
  ids: [],
  chords: [],
  cost: 0,
  motion: 0,
  terms: {},
  candidates: [],
  exact: true,
  freely: [],
  fallbacks: [],
  tops: {},
  bottoms: {},
  easier: {},
  alternatives: {},
};

/** Layouts that chords have, by chord id. */
export type Layouts = Readonly<Record<string, readonly PitchName[]>>;

/** Pinned layouts and those that are to stay, by the index of their chord. */
export function heldIn(asked: AskedVoicing, stay: Layouts): LayoutsByIndex {
  return {
    ...Object.fromEntries(asked.ids.flatMap((id, i) => (stay[id] ? [[i, stay[id]] as const] : []))),
    ...pathOf(asked).options.pins,
  };
}

/** The cheapest layouts for what is asked, where those that are to stay do: only what is stored of them. */
export function layOutBeside(
  asked: AskedVoicing,
  stay: Layouts,
): Result<Pick<SectionVoicing, "ids" | "chords" | "cost" | "motion">> {
  const { chords, options } = pathOf(asked);
  if (!asked.ids.length) return ok(NOTHING);
  const spaces = heldSpace(chords, options, heldIn(asked, stay));
  if (!spaces.ok) return spaces;
  const { space } = spaces.value;
  return ok({ ...ownOf(describe(space, firstOf(pathsOf(space, 1)).path), asked), ids: asked.ids });
}

/** The cheapest layouts for what is asked, with other ones for each chord; those that are to stay do. */
export function layOut(asked: AskedVoicing, stay: Layouts = {}): Result<SectionVoicing> {
  const { ids } = asked;
  const { chords, options } = pathOf(asked);
  if (!ids.length) return ok(NOTHING);
  const spaces = heldSpace(chords, options, heldIn(asked, stay));
  if (!spaces.ok) return spaces;
  const { space, free } = spaces.value;
  const best = firstOf(pathsOf(space, 1));
  const { columns } = space;
  const byId = <T>(value: (c: number) => T | undefined): Record<string, T> =>
    Object.fromEntries(
      ids.flatMap((id, c) => {
        const found = value(c);
        return found === undefined ? [] : [[id, found]];
      }),
    );
  return ok({
    ...ownOf(describe(space, best.path), asked),
    candidates: free.columns.slice(0, ids.length).map((c) => c.candidates.length),
    ids,
    fallbacks: ids.filter((_, c) => nth(columns, c).fallback),
    tops: byId((c) => nth(columns, c).top),
    bottoms: byId((c) => nth(columns, c).bottomMissed),
    easier: easierOnes(asked, space, best.path.picks),
    alternatives: byId((c) => alternativesAt(space, free, best.path.picks, { c })),
  });
}

/** For chords that stretch a hand past an octave, the cheapest layout of any kind that does not. */
function easierOnes(asked: AskedVoicing, space: VoicingSpace, picks: readonly number[]): SectionVoicing["easier"] {
  const { ids } = asked;
  const { chords, options } = pathOf(asked);
  const wide = ids
    .map((_, c) => c)
    .filter((c) => stretches(options, nth(nth(space.columns, c).candidates, nth(picks, c)).pitches));
  if (!wide.length) return {};
  const near = voicingSpace(chords, {
    ...options,
    style: "keyboard",
    span: OCTAVE_SPAN,
    pins: {},
    outer: {},
  });
  if (!near.ok) return {};
  return Object.fromEntries(
    wide.flatMap((c) => {
      const [first] = alternativesAt(space, near.value, picks, { c, most: 1 });
      return first ? [[nth(ids, c), first.pitches]] : [];
    }),
  );
}

/** Whether a layout asks for more than an octave from one hand. */
const stretches = ({ instrument = "", song, hands = 2 }: PathOptions, pitches: readonly number[]): boolean =>
  instrumentOf(instrument, song).held.by === "hands" && twoHands(pitches, 127, hands)?.stretch !== "none";

/** The edit that stores layouts by chord id. */
export const storeLayouts = (section: string, part: string, pitches: Record<string, PitchName[]>): Edit => ({
  do: "setVoicings",
  section,
  part,
  pitches,
});

/** The edit that stores what the path chose. */
export const storeVoicing = (section: string, part: string, voiced: Pick<SectionVoicing, "ids" | "chords">): Edit =>
  storeLayouts(section, part, Object.fromEntries(voiced.ids.map((id, i) => [id, nth(voiced.chords, i).pitches])));

/**
 * Up to k ways through a section, the cheapest first, each with what it trades against the first. Told on the way, in
 * the order in which they are found. Errors: `voicing.place`, and those of the voicing path.
 */
export function* sectionPathSteps(
  song: Song,
  { section, part, k = 6 }: { section: string; part: string; k?: number },
): Steps<SectionPath[], Result<SectionPath[]>> {
  const place = askVoicing(song, section, part);
  if (!place.ok) return place;
  const asked = place.value;
  const { chords, options } = pathOf(asked);
  if (!asked.ids.length) return ok([]);
  const spaces = heldSpace(chords, options, heldIn(asked, {}));
  if (!spaces.ok) return spaces;
  const { space } = spaces.value;
  const told = (found: readonly FoundPath[]): SectionPath[] => {
    const paths = found.map(({ path, exact }) => ownOf(describe(space, path, exact), asked));
    return paths.map((p) => ({
      pitches: Object.fromEntries(asked.ids.map((id, c) => [id, nth(p.chords, c).pitches])),
      motion: p.motion,
      cost: p.cost,
      exact: p.exact,
      trades: trade(firstOf(paths).terms, p.terms)
        .slice(0, 4)
        .map((t) => t.words),
    }));
  };
  return ok(told(yield* toldAs(pathSteps(space, k), told)));
}

/** The ways that `sectionPathSteps` finds when nobody looks. */
export const sectionPaths = (song: Song, section: string, part: string, k = 6): Result<SectionPath[]> =>
  madeOf(sectionPathSteps(song, { section, part, k }));
