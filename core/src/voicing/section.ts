import { must, ok, type Result } from "../result";
import { keyName, parseKey, transposeKey } from "../pitch/key";
import { pitchMidi, type PitchName } from "../pitch/pitch";
import { parseTuning } from "../chord/frets";
import { parseChord } from "../chord/parse";
import type { Chord } from "../chord/chord";
import { NO_CHORD } from "../chord/progression";
import { OCTAVE_SPAN, twoHands } from "../instrument/hands";
import { instrumentOf } from "../instrument/instruments";
import { partOf, sectionOf } from "../song/document";
import { spellAt } from "../song/spell";
import type { ChordEvent, Note, Part, Section, Song } from "../song/schema";
import type { Edit } from "../song/edit";
import { TERM_NAMES, TOP_SHAPES, trade, type TopShape, type Weights } from "./cost";
import { beside, describe, noPlace, pathsOf, type Alternative, type VoicedPath } from "./path";
import { voicingSpace, type PathOptions, type TopReport } from "./space";
import { VOICING_STYLES } from "./styles";

export interface SectionVoicing extends VoicedPath {
  /** Chord event ids in the order of `chords`; N.C. has none. */
  ids: string[];
  /** Ids of the chords that the style does not suit: they are laid out freely. */
  instead: string[];
  /** What became of the wanted top notes, by chord id. */
  tops: Record<string, TopReport>;
  /** Wanted lowest notes that could not be had, by chord id. */
  bottoms: Record<string, PitchName>;
  /** For chords that stretch a hand past an octave: the cheapest layout of any kind that does not. */
  easier: Record<string, PitchName[]>;
  /** Other layouts for each chord beside its present neighbours, cheapest first, each with another bottom or top note. */
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

/** Setting of a part that holds the weight of a term. */
export const weightSetting = (term: string): string => `w.${term}`;

const numberIn = (part: Part, name: string): number | undefined =>
  typeof part.settings[name] === "number" ? (part.settings[name] as number) : undefined;

/** How a part asks to be voiced, from its settings. */
export function partOptions(song: Song, part: Part): PathOptions {
  const wanted = typeof part.settings.style === "string" ? part.settings.style : "keyboard";
  const weights: Partial<Weights> = {};
  for (const term of TERM_NAMES) {
    const weight = numberIn(part, weightSetting(term));
    if (weight !== undefined) weights[term] = weight;
  }
  const top = part.settings.topShape;
  const held = instrumentOf(part.instrument, song).held;
  const tuning = held.by === "frets" && typeof part.settings.tuning === "string" ? parseTuning(part.settings.tuning, held.strings) : null;
  return {
    song,
    // A style that a later version wrote is voiced freely.
    style: VOICING_STYLES.some((s) => s.id === wanted) ? wanted : "keyboard",
    instrument: part.instrument,
    loop: part.link?.loop ?? false,
    voices: numberIn(part, "voices") ?? 4,
    profile: song.profile,
    bassCovered: song.parts.some((p) => p.role === "bass" && !p.muted),
    weights,
    register: numberIn(part, "register") ?? 0,
    hands: part.settings.hands === 1 ? 1 : 2,
    capo: numberIn(part, "capo") ?? 0,
    ...(typeof top === "string" && top in TOP_SHAPES ? { topShape: top as TopShape } : {}),
    ...(numberIn(part, "span") ? { span: numberIn(part, "span")! } : {}),
    ...(tuning?.ok ? { tuning: tuning.value } : {}),
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

interface Asked {
  section: Section;
  part: Part;
  events: ChordEvent[];
  chords: Chord[];
  options: PathOptions;
}

function ask(song: Song, sectionId: string, partId: string): Result<Asked> {
  const section = sectionOf(song, sectionId);
  const part = partOf(song, partId);
  if (!section || !part) return noPlace(sectionId, partId);
  const events: ChordEvent[] = [];
  const chords: Chord[] = [];
  for (const event of section.chords) {
    const chord = event.symbol === NO_CHORD ? null : parseChord(event.symbol);
    if (!chord?.ok) continue;
    events.push(event);
    chords.push(chord.value);
  }
  const pins: Record<number, PitchName[]> = {};
  const ends: NonNullable<PathOptions["ends"]> = {};
  events.forEach((e, i) => {
    const v = e.voicings?.[partId];
    if (v?.pinned) pins[i] = v.pitches;
    const top = v?.top ?? (part.link?.top ? tuneOver(section, part.link.top, e)?.pitch : undefined);
    if (top || v?.bottom) ends[i] = { ...(top ? { top } : {}), ...(v?.bottom ? { bottom: v.bottom } : {}) };
  });
  return ok({ section, part, events, chords, options: { ...partOptions(song, part), pins, ends } });
}

/** Voices a section for one chord part, keeping pinned voicings and wanted top and lowest notes. */
export function voiceSection(song: Song, sectionId: string, partId: string): Result<SectionVoicing> {
  const asked = ask(song, sectionId, partId);
  if (!asked.ok) return asked;
  const { events, chords, options } = asked.value;
  if (!chords.length)
    return ok({
      ids: [],
      chords: [],
      cost: 0,
      motion: 0,
      terms: {},
      candidates: [],
      exact: true,
      instead: [],
      tops: {},
      bottoms: {},
      easier: {},
      alternatives: {},
    });
  const space = voicingSpace(chords, options);
  if (!space.ok) return space;
  const best = pathsOf(space.value, 1)[0]!;
  const alternatives: SectionVoicing["alternatives"] = {};
  const bound = Object.keys(options.pins!).length > 0;
  const free = bound ? voicingSpace(chords, { ...options, pins: {} }) : space;
  events.forEach((event, c) => {
    if (free.ok) alternatives[event.id] = beside(space.value, free.value, best.path.picks, c);
  });
  const { columns } = space.value;
  const easier: SectionVoicing["easier"] = {};
  const wide = events.map((_, c) => c).filter((c) => stretches(song, options, columns[c]!.candidates[best.path.picks[c]!]!.pitches));
  if (wide.length) {
    const near = voicingSpace(chords, { ...options, style: "keyboard", span: OCTAVE_SPAN, pins: {}, ends: {} });
    for (const c of near.ok ? wide : []) {
      const [first] = beside(space.value, (near as Extract<typeof near, { ok: true }>).value, best.path.picks, c, 1);
      if (first) easier[events[c]!.id] = first.pitches;
    }
  }
  return ok({
    ...describe(space.value, best.path),
    ids: events.map((e) => e.id),
    instead: events.filter((_, c) => columns[c]!.instead).map((e) => e.id),
    tops: Object.fromEntries(events.flatMap((e, c) => (columns[c]!.top ? [[e.id, columns[c]!.top]] : []))),
    bottoms: Object.fromEntries(events.flatMap((e, c) => (columns[c]!.bottomMissed ? [[e.id, columns[c]!.bottomMissed]] : []))),
    easier,
    alternatives,
  });
}

/** Whether a layout asks for more than an octave from one hand. */
const stretches = (song: Song, { instrument = "", hands = 2 }: PathOptions, pitches: readonly number[]): boolean =>
  instrumentOf(instrument, song).held.by === "hands" && twoHands(pitches, 127, hands)?.stretch !== "none";

/** The edit that stores what the path chose. */
export const storeVoicing = (section: string, part: string, voiced: Pick<SectionVoicing, "ids" | "chords">): Edit => ({
  do: "setVoicings",
  section,
  part,
  pitches: Object.fromEntries(voiced.ids.map((id, i) => [id, voiced.chords[i]!.pitches])),
});

/** Up to k ways through a section, the cheapest first, each with what it trades against the first. */
export function sectionPaths(song: Song, sectionId: string, partId: string, k = 6): Result<SectionPath[]> {
  const asked = ask(song, sectionId, partId);
  if (!asked.ok) return asked;
  const { events, chords, options } = asked.value;
  if (!chords.length) return ok([]);
  const space = voicingSpace(chords, options);
  if (!space.ok) return space;
  const paths = pathsOf(space.value, k).map(({ path, exact }) => describe(space.value, path, exact));
  return ok(
    paths.map((p) => ({
      pitches: Object.fromEntries(events.map((e, c) => [e.id, p.chords[c]!.pitches])),
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
export function blockNotes(song: Song, sectionId: string, partId: string): Result<Omit<Note, "id">[] | null> {
  const section = sectionOf(song, sectionId);
  const part = partOf(song, partId);
  if (!section || !part) return noPlace(sectionId, partId);
  const tune = part.link?.top ? (section.notes[part.link.top] ?? []) : [];
  const events: { note: Note; chord: Chord; symbol: string }[] = [];
  for (const note of tune) {
    const at = Math.max(0, note.start);
    const event = section.chords.find((c) => c.start <= at && at < c.start + c.duration);
    const chord = event && event.symbol !== NO_CHORD ? parseChord(event.symbol) : null;
    if (event && chord?.ok) events.push({ note, chord: chord.value, symbol: event.symbol });
  }
  if (!events.length) return ok(null);
  const { range: _, ...options } = partOptions(song, part);
  const space = voicingSpace(
    events.map((e) => e.chord),
    { ...options, style: "block", loop: false, ends: Object.fromEntries(events.map((e, i) => [i, { top: e.note.pitch }])) },
  );
  if (!space.ok) return space;
  const path = describe(space.value, pathsOf(space.value, 1)[0]!.path);
  return ok(
    events.flatMap(({ note, symbol }, i) =>
      path.chords[i]!.pitches.map(pitchMidi).map((midi): Omit<Note, "id"> => {
        const isTune = midi === pitchMidi(note.pitch);
        return {
          start: note.start,
          duration: note.duration,
          pitch: isTune ? note.pitch : spellAt(song, section, note.start, midi),
          velocity: isTune ? 80 : 68,
          reason: { id: "block", params: { pitch: note.pitch, chord: symbol } },
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
      const asked = ask(song, section.id, partId);
      if (!asked.ok) return asked;
      const { chords, options } = asked.value;
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
