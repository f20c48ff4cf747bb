import { given } from "../base/given";
import { firstOf } from "../base/list";
import { counted } from "../theory/words/english";
import { parseMidi, type MidiEvent } from "midi-file";
import { fail, ok, type Result } from "../base/result";
import type { Midi } from "../theory/pitch/pitch";
import { QUARTER, type Bpm, type Ticks } from "../theory/time/meter";

export interface MidiNote {
  midi: Midi;
  start: Ticks;
  duration: Ticks;
  velocity: number;
}

/** The notes of one channel of one track. */
export interface MidiTrack {
  /** "track.channel", stable for a file. */
  id: string;
  name: string;
  /** 1–16. */
  channel: number;
  drums: boolean;
  /** General MIDI program of its first program change, 0-based. */
  program?: number;
  notes: MidiNote[];
  lowest: Midi;
  highest: Midi;
  /** Most notes that sound at once. */
  voices: number;
}

/** What a Standard MIDI File holds; ticks are 480 to a quarter whatever the file's own division was. */
export interface MidiContents {
  title: string;
  length: Ticks;
  tempos: { tick: Ticks; bpm: Bpm }[];
  meters: { tick: Ticks; text: string }[];
  keys: { tick: Ticks; key: string }[];
  tracks: MidiTrack[];
  /** What could not be read in it and was left out or set, in sentences; empty where it is whole. */
  mended: string[];
}

/** How loud a note is that does not say it (MIDI 1.0: 64 where there is no velocity). */
const UNSAID = 64;

const MAJOR_KEYS = ["Cb", "Gb", "Db", "Ab", "Eb", "Bb", "F", "C", "G", "D", "A", "E", "B", "F#", "C#"];
const MINOR_KEYS = ["Ab", "Eb", "Bb", "F", "C", "G", "D", "A", "E", "B", "F#", "C#", "G#", "D#", "A#"];

/**
 * Reads a Standard MIDI File of format 0 or 1 (MMA RP-001). Errors: `midi.file` for bytes that are none,
 * `midi.division` for time-code divisions, `midi.empty` for a file without notes.
 */
export function readMidi(bytes: Uint8Array): Result<MidiContents> {
  let file: ReturnType<typeof parseMidi>;
  if (String.fromCharCode(...bytes.slice(0, 4)) !== "MThd")
    return fail("midi.file", "This is not a Standard MIDI File: it does not begin with MThd", {
      hint: "Choose a file that ends in .mid.",
    });
  if (isCutOff(bytes))
    return fail("midi.file", "The MIDI file ends in the middle of a track", {
      hint: "The file is cut off; export it again.",
    });
  try {
    file = parseMidi(bytes);
  } catch (error) {
    return fail(
      "midi.file",
      `The MIDI file cannot be read: ${error instanceof Error ? error.message : String(error)}`,
      {
        hint: "The file may be cut off; export it again.",
      },
    );
  }
  const division = file.header.ticksPerBeat;
  if (!division)
    return fail("midi.division", "The file counts in frames, not in beats", {
      hint: "Export it with ticks per quarter note.",
    });
  const scale = QUARTER / division;
  const out: MidiContents = { title: "", length: 0, tempos: [], meters: [], keys: [], tracks: [], mended: [] };
  file.tracks.forEach((events, index) => readTrack(events, index, scale, out));
  if (!out.tracks.length)
    return fail("midi.empty", "The file has no notes", { hint: "Choose a file with notes in it." });
  for (const list of [out.tempos, out.meters, out.keys]) (list as { tick: Ticks }[]).sort((a, b) => a.tick - b.tick);
  if (!out.tempos.length || firstOf(out.tempos).tick > 0) out.tempos.unshift({ tick: 0, bpm: 120 });
  if (!out.meters.length || firstOf(out.meters).tick > 0) out.meters.unshift({ tick: 0, text: "4/4" });
  return ok(out);
}

/** Whether a chunk claims more bytes than there are. */
function isCutOff(bytes: Uint8Array): boolean {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  let at = 0;
  while (at < bytes.length) {
    if (at + 8 > bytes.length) return true;
    at += 8 + view.getUint32(at + 4);
  }
  return at > bytes.length;
}

/** A track as it is read: its name, and its notes and first program by channel. */
interface TrackRead {
  name: string;
  /** Notes that have not ended, by channel and number, the oldest first. */
  open: Map<string, MidiNote[]>;
  byChannel: Map<number, MidiNote[]>;
  programs: Map<number, number>;
  /** Notes without a pitch from 0 to 127 or without a channel, and where the first one stood. */
  broken: { count: number; first: Ticks };
}

function readTrack(events: readonly MidiEvent[], index: number, scale: number, out: MidiContents): void {
  const track: TrackRead = {
    name: "",
    open: new Map(),
    byChannel: new Map(),
    programs: new Map(),
    broken: { count: 0, first: 0 },
  };
  let tick = 0;
  for (const event of events) {
    tick += wholeFrom(event.deltaTime, 0, Infinity) ?? 0;
    const at = Math.round(tick * scale);
    readMeta(event, at, out);
    readEvent(event, at, track);
  }
  if (index === 0 && !out.title) out.title = track.name;
  const { count, first } = track.broken;
  if (count)
    out.mended.push(
      `${track.name.slice(0, 40) || `Track ${index + 1}`}: ${counted(count, "note")} without a pitch ` +
        `${count === 1 ? "was" : "were"} left out, the first after ${counted(Math.round(first / QUARTER), "beat")}.`,
    );
  const end = Math.round(tick * scale);
  // A note that is never ended lasts to the end of its track.
  for (const list of track.open.values()) for (const note of list) note.duration = Math.max(1, end - note.start);
  for (const [channel, notes] of track.byChannel) {
    out.tracks.push({
      id: `${index}.${channel + 1}`,
      name: track.name || `Track ${index + 1}`,
      channel: channel + 1,
      drums: channel === 9,
      ...given({ program: track.programs.get(channel) }),
      notes,
      // One by one: a list of a hundred thousand notes is too long for arguments of a call.
      lowest: notes.reduce((low, n) => Math.min(low, n.midi), 127),
      highest: notes.reduce((high, n) => Math.max(high, n.midi), 0),
      voices: mostAtOnce(notes),
    });
    out.length = notes.reduce((length, n) => Math.max(length, n.start + n.duration), out.length);
  }
}

/** A whole number within limits; undefined for what is none, which broken files hold. */
const wholeFrom = (x: unknown, least: number, most: number): number | undefined =>
  typeof x === "number" && Number.isInteger(x) && x >= least && x <= most ? x : undefined;

/** What is said of the whole file: tempos, meters and keys. */
function readMeta(event: MidiEvent, tick: Ticks, out: MidiContents): void {
  if (event.type === "setTempo") {
    if (wholeFrom(event.microsecondsPerBeat, 1, Infinity) === undefined) return;
    out.tempos.push({ tick, bpm: Math.round((60_000_000 / event.microsecondsPerBeat) * 100) / 100 });
  } else if (event.type === "timeSignature") out.meters.push({ tick, text: `${event.numerator}/${event.denominator}` });
  else if (event.type === "keySignature") {
    const tonic = (event.scale ? MINOR_KEYS : MAJOR_KEYS)[event.key + 7];
    if (tonic) out.keys.push({ tick, key: `${tonic} ${event.scale ? "minor" : "major"}` });
  }
}

function readEvent(event: MidiEvent, at: Ticks, track: TrackRead): void {
  const { open, byChannel, programs } = track;
  switch (event.type) {
    case "trackName":
      track.name = event.text.trim();
      break;
    case "noteOn": {
      const midi = wholeFrom(event.noteNumber, 0, 127);
      if (midi === undefined || wholeFrom(event.channel, 0, 15) === undefined) {
        if (!track.broken.count++) track.broken.first = at;
        break;
      }
      const velocity = wholeFrom(event.velocity, 1, 127) ?? UNSAID;
      const note: MidiNote = { midi, start: at, duration: 0, velocity };
      const id = `${event.channel}:${midi}`;
      open.set(id, [...(open.get(id) ?? []), note]);
      const list = byChannel.get(event.channel) ?? [];
      list.push(note);
      byChannel.set(event.channel, list);
      break;
    }
    case "programChange":
      if (!programs.has(event.channel)) programs.set(event.channel, event.programNumber);
      break;
    case "noteOff": {
      // The oldest note of a pitch ends first.
      const note = open.get(`${event.channel}:${event.noteNumber}`)?.shift();
      if (note) note.duration = Math.max(1, at - note.start);
      break;
    }
    default:
  }
}

function mostAtOnce(notes: readonly MidiNote[]): number {
  const edges = notes.flatMap((n) => [
    [n.start, 1],
    [n.start + n.duration, -1],
  ]) as [number, number][];
  edges.sort((a, b) => a[0] - b[0] || a[1] - b[1]);
  let now = 0;
  let most = 0;
  for (const [, change] of edges) most = Math.max(most, (now += change));
  return most;
}
