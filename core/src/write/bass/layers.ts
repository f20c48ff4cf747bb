import { firstOf, lastOf, nth } from "../../base/list";
import { fail, ok, type Result } from "../../base/result";
import { mod, pitchMidi, type Midi } from "../../theory/pitch/pitch";
import { positionText, type Ticks } from "../../theory/time/meter";
import { partOf, sectionMeter, sectionOf } from "../../song/document";
import { DRUM_KINDS, TUNABLE, type Drum } from "../../theory/instrument/drums";
import type { Edit } from "../../song/edits";
import { drumPlayer, type PlayerId } from "../../song/players";
import { realize, type RealizedNote, type RealizedSong } from "../../song/realize";
import type { Hit, Note, Part, Section, Song } from "../../song/schema";
import { spellAt } from "../../song/spell";
import { bassPc } from "../../theory/chord/chord";
import { chordAtTick } from "../../song/realize";
import { instrumentOf, midiRange } from "../../theory/instrument/instruments";
import { figures } from "./context";

/** Below E2 (82 Hz) two full voices at once blur into one boom (common practice). */
export const LOW: Midi = 40;
/** A note this short does not fill the low octave. */
const FULL: Ticks = 240;

/** A player of bass notes: a bass part, or a tuned low drum. */
export interface BassLayer {
  id: PlayerId;
  name: string;
  kind: "part" | "drum";
  notes: Pick<RealizedNote, "id" | "start" | "duration" | "midi" | "pitch">[];
}

export type LayerProblem = {
  kind: "pitch" | "rhythm" | "low";
  tick: Ticks;
  duration: Ticks;
  /** The two layers, and their notes. */
  layers: [PlayerId, PlayerId];
  notes: [string, string];
  message: string;
};

export interface BassLayers {
  layers: BassLayer[];
  /** Who plays in each bar, by id. */
  bars: string[][];
  /** How the layers stand to each other: alone, taking turns, one voice in several sounds, or neither. */
  kind: "alone" | "turns" | "voice" | "mixed";
  problems: LayerProblem[];
}

/** The layers of a realized section: bass parts, and drums that are tuned. */
export function layersOf(real: RealizedSong): BassLayer[] {
  const parts: BassLayer[] = real.parts
    .filter((p) => p.role === "bass" && p.notes.length)
    .map((p) => ({ id: p.id, name: p.name, kind: "part", notes: p.notes }));
  const drums = new Map<Drum, BassLayer>();
  for (const hit of real.hits) {
    if (hit.midi === undefined || hit.midi >= 60) continue;
    const layer = drums.get(hit.drum) ?? {
      id: drumPlayer(hit.drum),
      name: `tuned ${DRUM_KINDS[hit.drum].title}`,
      kind: "drum",
      notes: [],
    };
    layer.notes.push({
      id: `${hit.drum}@${hit.start}`,
      start: hit.start,
      duration: hit.duration ?? FULL,
      midi: hit.midi,
      pitch: "",
    });
    drums.set(hit.drum, layer);
  }
  return [...parts, ...drums.values()];
}

/**
 * Who plays where, and where layers get in each other's way: at the same time with different pitch classes, with
 * attacks that miss each other, or both full below E2. Errors: `bass.section`.
 */
export function bassLayers(song: Song, sectionId: string): Result<BassLayers> {
  const section = sectionOf(song, sectionId);
  if (!section) return fail("bass.section", `No section has the id "${sectionId}"`);
  return ok(judgeLayers(realize(song, { section: sectionId }), sectionMeter(song, section).bar, section.bars));
}

export function judgeLayers(real: RealizedSong, bar: Ticks, bars: number): BassLayers {
  const layers = layersOf(real);
  const who = Array.from({ length: bars }, (_, b) =>
    layers
      .filter((l) => l.notes.some((n) => n.start < (b + 1) * bar && n.start + n.duration > b * bar))
      .map((l) => l.id),
  );
  const problems: LayerProblem[] = [];
  const { meter } = firstOf(real.sections);
  let together = 0;
  let agreed = 0;
  layers.forEach((a, i) =>
    layers.slice(i + 1).forEach((b) => {
      for (const x of a.notes)
        for (const y of b.notes) {
          const from = Math.max(x.start, y.start);
          const overlap = Math.min(x.start + x.duration, y.start + y.duration) - from;
          if (overlap < 60) continue;
          together++;
          const where = positionText(meter, from);
          const base = {
            tick: from,
            duration: overlap,
            layers: [a.id, b.id] as [string, string],
            notes: [x.id, y.id] as [string, string],
          };
          const samePitch = mod(x.midi - y.midi, 12) === 0;
          const apart = Math.abs(x.start - y.start);
          const low = x.midi < LOW && y.midi < LOW && overlap >= FULL ? ", both in the low octave" : "";
          if (!samePitch)
            problems.push({
              ...base,
              kind: "pitch",
              message: `${a.name} and ${b.name} play different notes at ${where}${low}.`,
            });
          else if (
            apart >= 60 &&
            (b.notes.every((n) => Math.abs(n.start - x.start) >= 60) ||
              a.notes.every((n) => Math.abs(n.start - y.start) >= 60))
          )
            problems.push({
              ...base,
              kind: "rhythm",
              message: `${a.name} and ${b.name} begin the same note at different times at ${where}.`,
            });
          else if (samePitch && apart < 60 && x.midi < LOW && y.midi < LOW && overlap >= FULL)
            problems.push({
              ...base,
              kind: "low",
              message: `${a.name} and ${b.name} both fill the low octave at ${where}.`,
            });
          else agreed++;
        }
    }),
  );
  let kind: "voice" | "alone" | "turns" | "mixed";
  if (layers.length < 2) kind = "alone";
  else if (together === 0) kind = "turns";
  else if (agreed === together) kind = "voice";
  else kind = "mixed";
  return { layers, bars: who, kind, problems };
}

export interface LayerOffer {
  id: string;
  title: string;
  explanation: string;
  edit: Edit;
}

const plainNotes = (notes: readonly Note[]): Omit<Note, "id">[] => notes.map(({ id: _, ...n }) => n);

/** Octaves by which a line is moved to lie in a range, as near as it can; null where it does not fit. */
function octavesInto(notes: readonly Note[], [low, high]: [Midi, Midi], prefers: number): number | null {
  const midis = notes.map((n) => pitchMidi(n.pitch));
  const fits = [prefers, 12, -12, 24, -24].filter((by) => midis.every((m) => m + by >= low && m + by <= high));
  return fits[0] ?? null;
}

const shifted = (song: Song, section: Section, notes: readonly Note[], by: number): Omit<Note, "id">[] =>
  plainNotes(notes).map((n) => ({
    ...n,
    pitch: spellAt(song, section, Math.max(0, n.start), pitchMidi(n.pitch) + by),
    ...(n.slide
      ? { slide: { ...n.slide, to: spellAt(song, section, Math.max(0, n.start), pitchMidi(n.slide.to) + by) } }
      : {}),
  }));

/**
 * Ways for two bass parts to share one line: taking turns by figure, the low notes for one and the moves for the other,
 * the ends for the other, or both as one voice an octave apart. Errors: `bass.layers`.
 */
export function layerOffers(song: Song, sectionId: string, lead: string, other: string): Result<LayerOffer[]> {
  const section = sectionOf(song, sectionId);
  const [a, b] = [partOf(song, lead), partOf(song, other)];
  const line = section?.notes[lead] ?? [];
  if (!section || !a || !b || a.id === b.id) return fail("bass.layers", "Two bass parts are needed");
  if (!line.length)
    return fail("bass.layers", `${a.name} has no notes in ${section.name} to share`, { hint: "Write its line first." });
  const meter = sectionMeter(song, section);
  const real = realize(song, { section: sectionId });
  const spans = figures({ meter, bars: section.bars, chords: real.chords });
  // Comfortable where that is possible, else whatever the instrument can.
  const comfortable = midiRange(b.range ?? instrumentOf(b.instrument, song).comfortable);
  const all = midiRange(b.range ?? instrumentOf(b.instrument, song).range);
  const octaves = (notes: readonly Note[], prefers: number) =>
    octavesInto(notes, comfortable, prefers) ?? octavesInto(notes, all, prefers);
  const offers: LayerOffer[] = [];
  /** The notes that are not the lead's go to the other, in the octave where they fit. */
  const share = (id: string, title: string, explanation: string, mine: (n: Note) => boolean): void => {
    const given = line.filter((n) => !mine(n));
    if (!given.length || given.length === line.length) return;
    // As a whole where it fits, otherwise each note in the nearest octave that the other has.
    const by = octaves(given, 0);
    const moved =
      by === null
        ? given.flatMap((n) => shifted(song, section, [n], octaves([n], 0) ?? 0))
        : shifted(song, section, given, by);
    offers.push({
      id,
      title,
      explanation,
      edit: {
        do: "all",
        label: "bass layers",
        edits: [
          { do: "setNotes", section: sectionId, part: lead, notes: line.filter(mine) },
          { do: "setNotes", section: sectionId, part: other, notes: moved },
        ],
      },
    });
  };
  share(
    "turns-figure",
    "Turns, figure by figure",
    `${a.name} plays the first figure, ${b.name} answers with the second.`,
    (n) => spans.findIndex((f) => n.start < f.to) % 2 === 0,
  );
  share(
    "turns-ends",
    "Turns, the ends for the other",
    `${a.name} carries the figure, ${b.name} plays what leads into the next one.`,
    (n) => !spans.some((f) => n.start >= f.to - lastOf(meter.beats).duration && n.start < f.to),
  );
  const anchor = (n: Note) => {
    const chord = chordAtTick(real.chords, n.start);
    return !chord?.chord || mod(pitchMidi(n.pitch), 12) === bassPc(chord.chord);
  };
  share(
    "turns-roots",
    `Roots for ${a.name}`,
    `${a.name} keeps the bass of every chord, ${b.name} has the other notes.`,
    anchor,
  );
  share(
    "turns-moves",
    `Roots for ${b.name}`,
    `${b.name} has the bass of every chord, ${a.name} keeps the other notes.`,
    (n) => !anchor(n),
  );
  const up = octaves(line, 12);
  if (up !== null && up !== 0)
    offers.push({
      id: "voice",
      title: `One voice, ${Math.abs(up) === 12 ? "an octave" : "two octaves"} ${up > 0 ? "higher" : "lower"}`,
      explanation: `${b.name} plays every note of ${a.name} with it: same rhythm, same pitches, another octave.`,
      edit: { do: "setNotes", section: sectionId, part: other, notes: shifted(song, section, line, up) },
    });
  // Underneath: the lead goes up an octave, and the other takes its place.
  const leadRange = midiRange(a.range ?? instrumentOf(a.instrument, song).comfortable);
  const under = octaves(line, 0);
  if (under === 0 && octavesInto(line, leadRange, 12) === 12)
    offers.push({
      id: "voice-under",
      title: `One voice, ${b.name} underneath`,
      explanation: `${a.name} moves an octave up, ${b.name} plays the same line where it was: one line in two sounds.`,
      edit: {
        do: "all",
        label: "bass layers",
        edits: [
          { do: "setNotes", section: sectionId, part: lead, notes: shifted(song, section, line, 12) },
          { do: "setNotes", section: sectionId, part: other, notes: plainNotes(line) },
        ],
      },
    });
  return offers.length
    ? ok(offers)
    : fail("bass.layers", `No octave of the line lies in ${b.name}’s range`, {
        hint: "Widen its range or choose another instrument.",
      });
}

/** The edit that makes a tuned drum a drum again, and brings the line back that made room for it. */
export function drumUntuned(song: Song, section: string, part: Part["id"], drum: Drum): Edit {
  const here = sectionOf(song, section);
  const lane = here?.groove.lanes.find((l) => l.drum === drum);
  const plain = (lane?.hits ?? []).map(({ pitch: _, glideTo: __, duration: ___, ...hit }) => hit);
  const kept = song.takes.findLast((t) => t.sectionId === section && t.notes?.[part])?.notes?.[part];
  const silent = !here?.notes[part]?.length;
  return {
    do: "all",
    label: "drum untuned",
    edits: [
      { do: "setLane", section, drum, change: { tuned: null, hits: plain } },
      ...(silent && kept ? [{ do: "setNotes" as const, section, part, notes: plainNotes(kept) }] : []),
    ],
  };
}

/**
 * A low tuned drum as the bass: its pitch from the line (or from the chords where the line is silent), every tail ended
 * before the next note. With `rhythm: "line"` its hits are the line's, otherwise its own. `instead`: the line is kept
 * as a take and makes room for the drum. Errors: `bass.drum`.
 */
export function drumAsBass(
  song: Song,
  sectionId: string,
  part: Part["id"],
  {
    drum,
    how: { rhythm, glides, instead },
  }: { drum: Drum; how: { rhythm: "line" | "drum"; glides: boolean; instead: boolean } },
): Result<Edit> {
  const section = sectionOf(song, sectionId);
  if (!section) return fail("bass.section", `No section has the id "${sectionId}"`);
  if (!TUNABLE.includes(drum))
    return fail("bass.drum", `The ${DRUM_KINDS[drum].title} has no pitch of its own`, {
      hint: `Drums that can be tuned: ${TUNABLE.map((d) => DRUM_KINDS[d].title).join(", ")}.`,
    });
  const length = section.bars * sectionMeter(song, section).bar;
  const line = [...(section.notes[part] ?? [])].filter((n) => n.start >= 0).sort((a, b) => a.start - b.start);
  const own = section.groove.lanes.find((l) => l.drum === drum)?.hits ?? [];
  const source: Hit[] =
    rhythm === "line"
      ? line.map((n) => ({ start: n.start, velocity: n.velocity }))
      : own.filter((h) => h.start < length);
  if (!source.length)
    return fail(
      "bass.drum",
      rhythm === "line" ? "There is no bass line to follow" : `The ${DRUM_KINDS[drum].title} has no hits yet`,
      {
        hint: rhythm === "line" ? "Write a line first." : "Paint some, or let it play the line’s rhythm.",
      },
    );
  const real = realize(song, { section: sectionId });
  const pitchAt = (tick: Ticks): string | null => {
    const note =
      line.findLast((n) => n.start <= tick && n.start + n.duration > tick) ??
      line.find((n) => Math.abs(n.start - tick) < 60);
    if (note) return note.pitch;
    const chord = chordAtTick(real.chords, tick);
    if (!chord?.chord) return null;
    // The chord's bass in the octave from E1, where such drums speak.
    return spellAt(song, section, tick, 28 + mod(bassPc(chord.chord) - 28, 12));
  };
  const hits = source.flatMap((hit, i): Hit[] => {
    const pitch = pitchAt(hit.start);
    if (!pitch) return [];
    const end = source[i + 1]?.start ?? length;
    const note = rhythm === "line" ? nth(line, i) : line.find((n) => n.start === hit.start);
    const room = end - hit.start;
    // The tail ends a moment before the next note, so that two of them never sound at once.
    const duration = Math.max(30, Math.min(note?.duration ?? room, room - 15));
    const next = source[i + 1] && pitchAt(nth(source, i + 1).start);
    return [
      {
        start: hit.start,
        velocity: hit.velocity,
        ...(hit.offset ? { offset: hit.offset } : {}),
        duration,
        pitch,
        ...(glides && next && next !== pitch && duration >= 360 ? { glideTo: next } : {}),
      },
    ];
  });
  const edits: Edit[] = [{ do: "setLane", section: sectionId, drum, change: { tuned: true, hits } }];
  if (instead && line.length) {
    edits.push({ do: "keepTake", section: sectionId, part, name: `before the ${DRUM_KINDS[drum].title} took over` });
    edits.push({ do: "setNotes", section: sectionId, part, notes: [] });
  }
  return ok({ do: "all", label: "drum as bass", edits });
}
