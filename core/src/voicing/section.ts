import { because } from "../song/reasons";
import { must, ok, type Result } from "../result";
import { keyName, parseKey, transposeKey } from "../pitch/key";
import { pitchMidi, type PitchName, type Semitones } from "../pitch/pitch";
import type { Chord } from "../chord/chord";
import { chordOf } from "../chord/progression";
import { OCTAVE_SPAN, twoHands } from "../instrument/hands";
import { instrumentOf } from "../instrument/instruments";
import { partOf, sectionOf } from "../song/document";
import { spellAt } from "../song/spell";
import { playingOf } from "../song/playing";
import type { ChordEvent, NewNote, Note, Part, Section, Song } from "../song/schema";
import type { Edit } from "../song/edits";
import { trade, type Weights } from "./cost";
import { alternativesAt, describe, noPlace, pathsOf, type Alternative, type VoicedPath } from "./path";
import { heldSpace, type LayoutsByIndex } from "./held";
import { voicingSpace, type PathOptions, type TopReport, type VoicingSpace } from "./space";
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
  /** Other layouts for each chord beside its present neighbors, cheapest first, each with another bottom or top note. */
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
  const { style, school, over, voices, register, weights, topShape, hands, span, capo, tuning } = playingOf(part, "voicing", { section });
  return {
    // A style that a later version wrote is voiced freely.
    style: VOICING_STYLES.some((s) => s.id === style) ? style! : "keyboard",
    instrument: part.instrument,
    ...(song.instruments ? { song: { instruments: song.instruments } } : {}),
    loop: part.link?.loop ?? false,
    voices: voices ?? 4,
    profile: school ?? "band",
    bassCovered: over ? over === "bass" : song.parts.some((p) => p.role === "bass"),
    weights: (weights ?? {}) as Partial<Weights>,
    register: register ?? 0,
    hands: hands ?? 2,
    capo: capo ?? 0,
    ...(topShape ? { topShape } : {}),
    ...(span ? { span } : {}),
    ...(tuning ? { tuning } : {}),
    ...(part.range ? { range: part.range } : {}),
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
  Object.fromEntries(section.chords.flatMap((c) => (c.voicings?.[part] ? [[c.id, c.voicings[part].pitches] as const] : [])));

/** Everything the layouts of a part in a section depend on, as plain data. */
export interface AskedVoicing {
  /** Chords that are laid out, by id; N.C. is not among them. */
  ids: string[];
  symbols: string[];
  options: PathOptions;
}

/** What is asked of the voicing path. Errors: `voicing.place`. */
export function askVoicing(song: Song, sectionId: string, partId: string): Result<AskedVoicing> {
  const section = sectionOf(song, sectionId);
  const part = partOf(song, partId);
  if (!section || !part) return noPlace(sectionId, partId);
  const events = section.chords.filter((event) => chordOf(event.symbol));
  const pins: Record<number, PitchName[]> = {};
  const outer: NonNullable<PathOptions["outer"]> = {};
  events.forEach((e, i) => {
    const v = e.voicings?.[partId];
    // A pinned chord keeps its name and its layout.
    if (v?.pinned || (v && e.pinned)) pins[i] = v.pitches;
    const top = v?.top ?? (part.link?.top ? tuneOver(section, part.link.top, e)?.pitch : undefined);
    if (top || v?.bottom) outer[i] = { ...(top ? { top } : {}), ...(v?.bottom ? { bottom: v.bottom } : {}) };
  });
  return ok({
    ids: events.map((e) => e.id),
    symbols: events.map((e) => e.symbol),
    options: { ...partOptions(song, part, section), pins, outer },
  });
}

const chordsOf = ({ symbols }: AskedVoicing): Chord[] => symbols.flatMap((symbol) => chordOf(symbol) ?? []);

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
  fallbacks: [],
  tops: {},
  bottoms: {},
  easier: {},
  alternatives: {},
};

/** Layouts that chords have, by chord id. */
export type Layouts = Readonly<Record<string, readonly PitchName[]>>;

/** Pinned layouts and those that are to stay, by the index of their chord. */
function heldIn({ ids, options }: AskedVoicing, stay: Layouts): LayoutsByIndex {
  return { ...Object.fromEntries(ids.flatMap((id, i) => (stay[id] ? [[i, stay[id]] as const] : []))), ...options.pins };
}

/** The cheapest layouts for what is asked, where those that are to stay do: only what is stored of them. */
export function layOutBeside(asked: AskedVoicing, stay: Layouts): Result<Pick<SectionVoicing, "ids" | "chords" | "cost" | "motion">> {
  const chords = chordsOf(asked);
  if (!chords.length) return ok(NOTHING);
  const spaces = heldSpace(chords, asked.options, heldIn(asked, stay));
  if (!spaces.ok) return spaces;
  const { space } = spaces.value;
  return ok({ ...describe(space, pathsOf(space, 1)[0]!.path), ids: asked.ids });
}

/** The cheapest layouts for what is asked, with other ones for each chord; those that are to stay do. */
export function layOut(asked: AskedVoicing, stay: Layouts = {}): Result<SectionVoicing> {
  const { ids, options } = asked;
  const chords = chordsOf(asked);
  if (!chords.length) return ok(NOTHING);
  const spaces = heldSpace(chords, options, heldIn(asked, stay));
  if (!spaces.ok) return spaces;
  const { space, free } = spaces.value;
  const best = pathsOf(space, 1)[0]!;
  const { columns } = space;
  const byId = <T>(value: (c: number) => T | undefined): Record<string, T> =>
    Object.fromEntries(
      ids.flatMap((id, c) => {
        const found = value(c);
        return found === undefined ? [] : [[id, found]];
      }),
    );
  return ok({
    ...describe(space, best.path),
    candidates: free.columns.map((c) => c.candidates.length),
    ids,
    fallbacks: ids.filter((_, c) => columns[c]!.fallback),
    tops: byId((c) => columns[c]!.top),
    bottoms: byId((c) => columns[c]!.bottomMissed),
    easier: easierOnes(asked, space, best.path.picks),
    alternatives: byId((c) => alternativesAt(space, free, best.path.picks, c)),
  });
}

/** What laying a section out anew would gain against the layouts it has. */
export interface Anew {
  pitches: Record<string, PitchName[]>;
  /** Semitones moved in all: anew, and as it stands. */
  motion: [anew: Semitones, now: Semitones];
  /** How much less it costs. */
  gain: number;
  /** Chords whose layout would be another one. */
  changed: number;
  /** What is better, and what is worse. */
  trades: string[];
}

/** Gains below this are not worth an offer. */
const LEAST_GAIN = 0.5;

/** The cheapest way through a section beside the one it has; null where it has that one, or one that costs as little. */
export function layOutAnew(asked: AskedVoicing, now: Layouts): Result<Anew | null> {
  const chords = chordsOf(asked);
  if (!chords.length) return ok(null);
  const free = heldSpace(chords, asked.options, heldIn(asked, {}));
  if (!free.ok) return free;
  const held = heldSpace(chords, asked.options, heldIn(asked, now));
  if (!held.ok) return held;
  const [fresh, stands] = [free, held].map(({ value: { space } }) => describe(space, pathsOf(space, 1)[0]!.path));
  const pitches = Object.fromEntries(asked.ids.map((id, i) => [id, fresh!.chords[i]!.pitches]));
  const changed = asked.ids.filter((id) => now[id]?.join() !== pitches[id]!.join()).length;
  const gain = stands!.cost - fresh!.cost;
  if (!changed || gain < LEAST_GAIN) return ok(null);
  return ok({
    pitches,
    motion: [fresh!.motion, stands!.motion],
    gain,
    changed,
    trades: trade(stands!.terms, fresh!.terms)
      .slice(0, 3)
      .map((t) => t.words),
  });
}

/** For chords that stretch a hand past an octave, the cheapest layout of any kind that does not. */
function easierOnes({ ids, options, ...asked }: AskedVoicing, space: VoicingSpace, picks: readonly number[]): SectionVoicing["easier"] {
  const wide = ids.map((_, c) => c).filter((c) => stretches(options, space.columns[c]!.candidates[picks[c]!]!.pitches));
  if (!wide.length) return {};
  const near = voicingSpace(chordsOf({ ids, options, ...asked }), {
    ...options,
    style: "keyboard",
    span: OCTAVE_SPAN,
    pins: {},
    outer: {},
  });
  if (!near.ok) return {};
  return Object.fromEntries(
    wide.flatMap((c) => {
      const [first] = alternativesAt(space, near.value, picks, c, 1);
      return first ? [[ids[c]!, first.pitches]] : [];
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
  storeLayouts(section, part, Object.fromEntries(voiced.ids.map((id, i) => [id, voiced.chords[i]!.pitches])));

/** Up to k ways through a section, the cheapest first, each with what it trades against the first. */
export function sectionPaths(song: Song, sectionId: string, partId: string, k?: number): Result<SectionPath[]> {
  const asked = askVoicing(song, sectionId, partId);
  return asked.ok ? pathsThrough(asked.value, k) : asked;
}

export function pathsThrough(asked: AskedVoicing, k = 6): Result<SectionPath[]> {
  const chords = chordsOf(asked);
  if (!chords.length) return ok([]);
  const spaces = heldSpace(chords, asked.options, heldIn(asked, {}));
  if (!spaces.ok) return spaces;
  const { space } = spaces.value;
  const paths = pathsOf(space, k).map(({ path, exact }) => describe(space, path, exact));
  return ok(
    paths.map((p) => ({
      pitches: Object.fromEntries(asked.ids.map((id, c) => [id, p.chords[c]!.pitches])),
      motion: p.motion,
      cost: p.cost,
      exact: p.exact,
      trades: trade(paths[0]!.terms, p.terms)
        .slice(0, 4)
        .map((t) => t.words),
    })),
  );
}

/** Notes of a part that lays a chord under every note of a tune (its link's `top`); null when there is no tune. */
export function blockNotes(song: Song, sectionId: string, partId: string): Result<NewNote[] | null> {
  const section = sectionOf(song, sectionId);
  const part = partOf(song, partId);
  if (!section || !part) return noPlace(sectionId, partId);
  const tune = part.link?.top ? (section.notes[part.link.top] ?? []) : [];
  const events: { note: Note; chord: Chord; symbol: string }[] = [];
  for (const note of tune) {
    const at = Math.max(0, note.start);
    const event = section.chords.find((c) => c.start <= at && at < c.start + c.duration);
    const chord = event && chordOf(event.symbol);
    if (event && chord) events.push({ note, chord, symbol: event.symbol });
  }
  if (!events.length) return ok(null);
  const { range: _, ...options } = partOptions(song, part, section);
  const space = voicingSpace(
    events.map((e) => e.chord),
    { ...options, style: "block", loop: false, outer: Object.fromEntries(events.map((e, i) => [i, { top: e.note.pitch }])) },
  );
  if (!space.ok) return space;
  const path = describe(space.value, pathsOf(space.value, 1)[0]!.path);
  return ok(
    events.flatMap(({ note, symbol }, i) =>
      path.chords[i]!.pitches.map(pitchMidi).map((midi): NewNote => {
        const isTune = midi === pitchMidi(note.pitch);
        return {
          start: note.start,
          duration: note.duration,
          pitch: isTune ? note.pitch : spellAt(song, section, note.start, midi),
          velocity: isTune ? 80 : 68,
          reason: because("block", { pitch: note.pitch, chord: symbol }),
        };
      }),
    ),
  );
}

export interface CapoChoice {
  capo: number;
  /** Strain on the hand over the whole song, position changes included. */
  strain: number;
  barres: number;
  /** Open strings that sound. */
  open: number;
  /** The key the player thinks in. */
  keyOfShapes: string;
}

/** The capo that makes the whole song easiest for a fretted part: every fret up to `highest`, easiest first. */
export function chooseCapo(song: Song, partId: string, highest = 7): Result<CapoChoice[]> {
  const out: CapoChoice[] = [];
  for (let capo = 0; capo <= highest; capo++) {
    const sum = { capo, strain: 0, barres: 0, open: 0, keyOfShapes: keyName(transposeKey(must(parseKey(song.key)), -capo)) };
    for (const section of song.sections) {
      const asked = askVoicing(song, section.id, partId);
      if (!asked.ok) return asked;
      const { options } = asked.value;
      const chords = chordsOf(asked.value);
      if (!chords.length) continue;
      const space = voicingSpace(chords, { ...options, capo, pins: {} });
      if (!space.ok) return space;
      const best = pathsOf(space.value, 1)[0]!.path;
      const path = describe(space.value, best);
      sum.strain += path.terms.hand ?? 0;
      for (const { shape } of path.chords) {
        if (!shape) continue;
        sum.barres += shape.barre ? 1 : 0;
        sum.open += shape.frets.filter((f) => f === 0).length;
      }
    }
    out.push({ ...sum, strain: Math.round(sum.strain * 10) / 10 });
  }
  return ok(out.sort((a, b) => a.strain - b.strain));
}
