import { firstOf, nth, sure } from "../base/list";
import { writeMidi as encode, type MidiEvent } from "midi-file";
import { pitchMidi } from "../theory/pitch/pitch";
import type { Key } from "../theory/pitch/key";
import { QUARTER, type Ticks } from "../theory/time/meter";
import { instrumentOf } from "../theory/instrument/instruments";
import { realize, type RealizedHit, type RealizedNote, type RealizedPart, type RealizedSong } from "../song/realize";
import { DRUM_KINDS, DRUMS } from "../theory/instrument/drums";
import type { Drum, Song } from "../song/schema";

/** General MIDI percussion notes (GM System Level 1). */
export const GM_DRUMS = Object.fromEntries(DRUMS.map((d) => [d, DRUM_KINDS[d].note])) as Record<Drum, number>;
const DRUM_CHANNEL = 9;
/** Bend range that is set at the start of a track with glides, in semitones. */
export const BEND_RANGE = 24;
/** Share of a note, at its end, that its glide takes. */
export const GLIDE_SHARE = 0.3;

interface Timed {
  at: Ticks;
  /** Order among events of one tick: set-up, then ends, then bends, then beginnings. */
  order: number;
  event: MidiEvent;
}

const make = (at: number, order: number, event: Record<string, unknown>): Timed => ({
  at: Math.round(at),
  order,
  event: { deltaTime: 0, ...event } as unknown as MidiEvent,
});

/**
 * Type 1 MIDI file (MMA RP-001): a tempo track, then one track a part. "straight" writes notated positions, "played"
 * applies swing and offsets.
 */
export function writeMidi(song: Song, options: { swing: "straight" | "played" }): Uint8Array {
  const real = realize(song);
  const played = options.swing === "played";
  const begin = (n: RealizedNote | RealizedHit) => (played ? n.played : n.start);
  const earliest = Math.min(0, ...real.parts.flatMap((p) => p.notes.map(begin)), ...real.hits.map(begin));
  const bar = real.sections[0]?.meter.bar ?? 4 * QUARTER;
  // A pickup needs a bar in front of the song.
  const shift = Math.ceil(-earliest / bar) * bar;
  const tracks = [finish(conductor(real, shift), song.title)];
  let channel = 0;
  const next = () => {
    channel = (channel + 1) % 16;
    if (channel === DRUM_CHANNEL) channel++;
  };
  for (const part of real.parts) {
    if (part.role === "drums") {
      tracks.push(
        finish(
          drumEvents(
            real.hits.filter((h) => h.midi === undefined),
            begin,
            shift,
          ),
          part.name,
        ),
      );
      // Drums with a pitch are a line of their own: on the drum channel a note is a drum, not a pitch.
      for (const drum of new Set(real.hits.flatMap((h) => (h.midi === undefined ? [] : [h.drum])))) {
        const line = real.hits.filter((h) => h.drum === drum && h.midi !== undefined);
        tracks.push(finish(tunedEvents(line, channel, begin, shift), `${DRUM_KINDS[drum].title}, tuned`));
        next();
      }
      continue;
    }
    tracks.push(finish(partEvents(real, part, channel, { played, shift }), part.name));
    next();
  }
  return encoded(tracks);
}

/** Events the encoder takes at once: the time it needs grows with the square of a track's length. */
const AT_ONCE = 500;
/** Bytes of the file's header, and of that of a track. */
const [HEADER, TRACK] = [14, 8];

function encoded(tracks: readonly MidiEvent[][]): Uint8Array {
  const write = (list: MidiEvent[][]) =>
    encode({ header: { format: 1, numTracks: list.length, ticksPerBeat: QUARTER }, tracks: list });
  const out: number[][] = [write(tracks.map(() => [])).slice(0, HEADER)];
  for (const track of tracks) {
    const pieces: number[][] = [];
    for (let i = 0; i < track.length; i += AT_ONCE)
      pieces.push(write([track.slice(i, i + AT_ONCE)]).slice(HEADER + TRACK));
    const length = pieces.reduce((sum, p) => sum + p.length, 0);
    out.push(
      [
        ...Array.from("MTrk", (letter) => letter.charCodeAt(0)),
        ...[24, 16, 8, 0].map((shift) => (length >>> shift) & 255),
      ],
      ...pieces,
    );
  }
  return Uint8Array.from(out.flat());
}

function conductor(real: RealizedSong, shift: Ticks): Timed[] {
  const events: Timed[] = [];
  let last = "";
  real.sections.forEach((section, i) => {
    const at = i === 0 ? 0 : section.start + shift;
    const state = `${section.tempo}|${section.meter.text}|${section.key.tonic} ${section.key.mode}`;
    if (state !== last) {
      events.push(
        make(at, 0, { type: "setTempo", meta: true, microsecondsPerBeat: Math.round(60_000_000 / section.tempo) }),
        make(at, 0, {
          type: "timeSignature",
          meta: true,
          numerator: section.meter.count,
          denominator: section.meter.unit,
          metronome: (firstOf(section.meter.beats).duration / QUARTER) * 24,
          thirtyseconds: 8,
        }),
        make(at, 0, {
          type: "keySignature",
          meta: true,
          key: section.key.signature,
          scale: isMinor(section.key) ? 1 : 0,
        }),
      );
      last = state;
    }
    events.push(make(section.start + shift, 1, { type: "marker", meta: true, text: section.name }));
  });
  return events;
}

/** A key signature names major or minor; other modes are written as the one with their third. */
const isMinor = (key: Key): boolean => (nth(key.pcs, 2) - firstOf(key.pcs) + 12) % 12 === 3;

function drumEvents(hits: readonly RealizedHit[], begin: (h: RealizedHit) => number, shift: Ticks): Timed[] {
  return hits.flatMap((hit) => {
    const note = { channel: DRUM_CHANNEL, noteNumber: hit.note ?? GM_DRUMS[hit.drum] };
    return [
      make(begin(hit) + shift, 3, { type: "noteOn", ...note, velocity: hit.velocity }),
      make(begin(hit) + shift + (hit.duration ?? 60), 1, { type: "noteOff", ...note, velocity: 0 }),
    ];
  });
}

/** General MIDI program of a tuned drum, "Melodic Tom" (GM System Level 1, from memory). */
const MELODIC_TOM = 117;

function tunedEvents(
  hits: readonly RealizedHit[],
  channel: number,
  begin: (h: RealizedHit) => number,
  shift: Ticks,
): Timed[] {
  const events = [make(0, 0, { type: "programChange", channel, programNumber: MELODIC_TOM })];
  if (hits.some((h) => h.glideTo !== undefined)) events.push(...bendRange(channel));
  hits.forEach((hit, i) => {
    const from = begin(hit);
    const after = hits[i + 1];
    const until = Math.max(from + 1, Math.min(from + (hit.duration ?? QUARTER / 2), after ? begin(after) : Infinity));
    events.push(
      make(from + shift, 3, { type: "noteOn", channel, noteNumber: hit.midi, velocity: hit.velocity }),
      make(until + shift, 1, { type: "noteOff", channel, noteNumber: hit.midi, velocity: 0 }),
    );
    if (hit.glideTo !== undefined) events.push(...glide(from, until, hit.glideTo - sure(hit.midi), { channel, shift }));
  });
  return events;
}

const bendRange = (channel: number): Timed[] =>
  [
    [101, 0],
    [100, 0],
    [6, BEND_RANGE],
    [38, 0],
  ].map(([controllerType, value]) => make(0, 0, { type: "controller", channel, controllerType, value }));

function partEvents(
  real: RealizedSong,
  part: RealizedPart,
  channel: number,
  { played, shift }: { played: boolean; shift: Ticks },
): Timed[] {
  const events = [
    make(0, 0, { type: "programChange", channel, programNumber: instrumentOf(part.instrument, real).program }),
  ];
  if (part.notes.some((n) => n.glideTo)) events.push(...bendRange(channel));
  part.notes.forEach((note, i) => {
    const from = played ? note.played : note.start;
    // A pitch that sounds again before its first sounding has ended is cut there: MIDI cannot hold the same key twice.
    const again = part.notes.slice(i + 1, i + 40).find((n) => n.midi === note.midi);
    const until = Math.min(
      played ? note.playedEnd : note.start + note.duration,
      again ? Math.max(from + 1, played ? again.played : again.start) : Infinity,
    );
    events.push(
      make(from + shift, 3, { type: "noteOn", channel, noteNumber: note.midi, velocity: note.velocity }),
      make(until + shift, 1, { type: "noteOff", channel, noteNumber: note.midi, velocity: 0 }),
    );
    if (note.glideTo) events.push(...glide(from, until, pitchMidi(note.glideTo) - note.midi, { channel, shift }));
  });
  return events;
}

/** A linear bend over the last part of the note, reset when it ends. */
function glide(
  from: number,
  until: number,
  semitones: number,
  { channel, shift }: { channel: number; shift: Ticks },
): Timed[] {
  const start = until - (until - from) * GLIDE_SHARE;
  const steps = 12;
  const bends = Array.from({ length: steps }, (_, i) => {
    const share = (i + 1) / steps;
    return make(start + (until - start) * (i / steps) + shift, 2, {
      type: "pitchBend",
      channel,
      value: Math.round(Math.max(-8192, Math.min(8191, (semitones * share * 8192) / BEND_RANGE))),
    });
  });
  return [...bends, make(until + shift, 2, { type: "pitchBend", channel, value: 0 })];
}

/** Sorted, with delta times, a name in front and an end. */
function finish(events: Timed[], name: string): MidiEvent[] {
  const sorted = [...events].sort((a, b) => a.at - b.at || a.order - b.order);
  let at = 0;
  const track = sorted.map(({ at: tick, event }) => {
    const delta = Math.max(0, tick - at);
    at = Math.max(at, tick);
    return { ...event, deltaTime: delta };
  });
  return [
    { deltaTime: 0, type: "trackName", meta: true, text: name } as MidiEvent,
    ...track,
    { deltaTime: 0, type: "endOfTrack", meta: true } as MidiEvent,
  ];
}
