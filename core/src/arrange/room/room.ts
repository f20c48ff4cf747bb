import { sure } from "../../base/list";
import { notesAt } from "../../hear/sounding";
import { tuneAt } from "../../hear/line/facts";
import { factsOf, type Fact } from "../../facts/memory";
import { fail, ok, type Result } from "../../base/result";
import { type Midi, type PitchName } from "../../theory/pitch/pitch";
import { metricalLevel, type Meter, type Ticks } from "../../theory/time/meter";
import { COMP_KINDS } from "../../song/comp/kinds";
import { STEP } from "../../song/comp/patterns";
import { partOf, sectionMeter, sectionOf } from "../../song/document";
import { applyEdit, type Edit } from "../../song/edits";
import { sectionPlace } from "../../song/place";
import { playingOf } from "../../song/playing";
import type { RealizedNote } from "../../song/realize";
import type { NewNote, Part, Section, Song } from "../../song/schema";
import { instrumentOf, midiRange } from "../../theory/instrument/instruments";
import { decibels, strengthOf } from "../../theory/instrument/loudness";
import { soundingIn } from "../../hear/slice/soundingIn";

/**
 * A note no farther from the sung one stands in its octave: less than half an octave up or down, so that an octave
 * lower it is clear.
 */
const NEAR = 5;
/**
 * Share of the voice's time in which a part must be in its way to be offered another way of playing (common practice).
 */
const IN_THE_WAY = 0.1;

/** What a part does while the voice sounds. */
export interface InTheRoom {
  part: string;
  name: string;
  /** Attacks while the voice sounds, and how many of them in a bar of singing. */
  attacks: number;
  attacksABar: number;
  /** Octaves it sounds in, by the number of their C: 3 is C3 to B3. */
  octaves: number[];
  /** Loudness against the voice, in decibels, by velocities and levels. */
  loudness: number;
  /** Its highest note while the voice sounds. */
  top: PitchName;
  /** Share of the voice's time in which it sounds within a fourth of the sung note. */
  conflict: number;
}

/** Another way of playing for a part that is in the way, with what is left of the conflict. */
export interface RoomOffer {
  id: "octave" | "rest" | "fewer" | "hold";
  label: string;
  edit: Edit;
  conflict: number;
  attacks: number;
}

export interface Room {
  /** Lowest sung note, and the highest note of what accompanies it while it sounds. */
  lowest: PitchName | null;
  parts: InTheRoom[];
}

const octaveOf = (midi: Midi): number => Math.floor(midi / 12) - 1;

const LABELS: Record<RoomOffer["id"], string> = {
  octave: "An octave down",
  rest: "Rest while it sounds",
  fewer: "Only on the beats",
  hold: "Hold instead of striking again",
};

/** Parts that could be in the way of a voice: everything pitched that does not sing. */
const accompanying = (song: Song, voice: string): Part[] =>
  song.parts.filter(
    (p) =>
      p.id !== voice &&
      p.role !== "drums" &&
      p.role !== "vocal" &&
      !(p.role === "melody" && instrumentOf(p.instrument, song).sound === "voice"),
  );

/** Length of what two notes share. */
const shared = (a: { start: Ticks; duration: Ticks }, b: { start: Ticks; duration: Ticks }): Ticks =>
  Math.max(0, Math.min(a.start + a.duration, b.start + b.duration) - Math.max(a.start, b.start));

/** Ticks of a list of stretches, those that overlap counted once. */
function covered(stretches: { from: Ticks; to: Ticks }[]): Ticks {
  let [sum, end] = [0, -Infinity];
  for (const { from, to } of stretches.sort((a, b) => a.from - b.from)) {
    sum += Math.max(0, to - Math.max(from, end));
    end = Math.max(end, to);
  }
  return sum;
}

const mean = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0) / Math.max(1, values.length);

/** What one part does while a voice sounds; null where it is silent then. */
function measured(
  part: Part,
  voice: Part,
  sung: readonly RealizedNote[],
  { notes, meter }: { notes: readonly RealizedNote[]; meter: Meter },
): InTheRoom | null {
  const tune = soundingIn(sung, meter.bar);
  const during = notes.filter((n) => tune.within(n.start, n.start + n.duration).length > 0);
  if (!during.length) return null;
  const other = soundingIn(during, meter.bar);
  const time = sung.reduce((sum, n) => sum + n.duration, 0);
  const conflict = sung.reduce((sum, n) => {
    const close = other.within(n.start, n.start + n.duration).filter((m) => Math.abs(m.midi - n.midi) <= NEAR);
    return (
      sum +
      covered(close.map((m) => ({ from: Math.max(n.start, m.start), to: Math.max(n.start, m.start) + shared(n, m) })))
    );
  }, 0);
  // Notes struck at once are one attack.
  const attacks = new Set(during.filter((n) => tune.at(n.start).length).map((n) => n.start)).size;
  const loud =
    decibels(strengthOf(mean(during.map((n) => n.velocity))) / strengthOf(mean(sung.map((n) => n.velocity)))) +
    (part.level ?? 0) -
    (voice.level ?? 0);
  return {
    part: part.id,
    name: part.name,
    attacks,
    attacksABar: attacks / (time / meter.bar),
    octaves: [...new Set(during.map((n) => octaveOf(n.midi)))].sort((a, b) => a - b),
    loudness: Math.round(loud * 10) / 10,
    top: during.reduce((high, n) => (n.midi > high.midi ? n : high)).pitch,
    conflict: conflict / time,
  };
}

/**
 * An octave up or down, where the instrument has the notes: layouts as they are stored, or the written notes that are
 * given. Null where the part cannot be moved so.
 */
export function octaveShift(
  song: Song,
  section: Section,
  part: Part,
  { during, way }: { during: readonly RealizedNote[]; way: 1 | -1 },
): Edit | null {
  const [low, high] = midiRange(part.range ?? instrumentOf(part.instrument, song).range);
  if (during.some((n) => n.midi + 12 * way < low || n.midi + 12 * way > high) || part.echoes !== undefined) return null;
  const moved = (pitch: PitchName): PitchName => pitch.replace(/-?\d+$/, (o) => String(Number(o) + way));
  if (!part.link)
    return {
      do: "changeNotes",
      section: section.id,
      part: part.id,
      notes: during.map((n) => ({ id: n.id, pitch: moved(n.pitch) })),
    };
  if (part.link.kind !== "voicing" || part.link.from) {
    if (!sure(COMP_KINDS.find((k) => k.id === sure(part.link).kind)).settings.includes("lift")) return null;
    const lift = playingOf(part, "comp", { section }).lift ?? (part.link.kind === "octave" ? 1 : 0);
    return lift + way >= -4 && lift + way <= 4
      ? { do: "setPlaying", part: part.id, section: section.id, comp: { lift: lift + way } }
      : null;
  }
  const pitches = Object.fromEntries(
    section.chords.flatMap((c) => {
      const own = c.voicings?.[part.id];
      return own ? [[c.id, own.pitches.map(moved)]] : [];
    }),
  );
  return Object.keys(pitches).length ? { do: "setVoicings", section: section.id, part: part.id, pitches } : null;
}

/** Rests while the voice sounds: written notes go, a rhythm of chords strikes in the gaps alone. */
function resting(
  song: Song,
  section: Section,
  part: Part,
  { sung, during }: { sung: readonly RealizedNote[]; during: readonly RealizedNote[] },
): Edit | null {
  if (!part.link) return { do: "removeNotes", section: section.id, part: part.id, notes: during.map((n) => n.id) };
  if (part.link.kind !== "voicing") return null;
  const meter = sectionMeter(song, section);
  const tune = soundingIn(sung, meter.bar);
  let open = false;
  const steps = Array.from({ length: (section.bars * meter.bar) / STEP }, (_, i) => {
    const silent = !tune.within(i * STEP, (i + 1) * STEP).length;
    let mark: "-" | "x" | ".";
    if (silent) {
      if (open) mark = "-";
      else mark = "x";
    } else mark = ".";
    open = silent;
    return mark;
  }).join("");
  return steps.length <= 256 && steps.includes("x")
    ? { do: "setPlaying", part: part.id, section: section.id, comp: { rhythm: steps, follow: null } }
    : null;
}

function calmerComping(part: Part, section: Section, held: boolean): Edit | null {
  const { rhythm = "held", follow } = playingOf(part, "comp", { section });
  if (part.link?.kind !== "voicing" || (rhythm === "held" && !follow)) return null;
  return {
    do: "setPlaying",
    part: part.id,
    section: section.id,
    comp: { rhythm: held ? "held" : "beats", follow: null },
  };
}

/** Fewer attacks: on the beats alone. Held: struck once with each chord, or note by note until another pitch comes. */
function calmer(
  song: Song,
  section: Section,
  part: Part,
  { during, held }: { during: readonly RealizedNote[]; held: boolean },
): Edit | null {
  if (part.link) return calmerComping(part, section, held);
  const meter = sectionMeter(song, section);
  const own = section.notes[part.id] ?? [];
  const among = new Set(during.map((n) => n.id));
  const changes = (note: NewNote) => section.chords.some((c) => c.start === note.start);
  const kept: (NewNote & { id?: string })[] = [];
  const mayGo = (note: NewNote, last: NewNote | undefined) =>
    held ? last?.pitch === note.pitch && !changes(note) : metricalLevel(meter, note.start) < -2;
  for (const note of own) {
    const last = kept.at(-1);
    const goes = among.has(note.id) && !note.pinned && mayGo(note, last);
    if (!goes) kept.push(note);
    else if (last && held)
      kept[kept.length - 1] = { ...last, duration: Math.max(last.duration, note.start + note.duration - last.start) };
  }
  return kept.length && kept.length < own.length
    ? { do: "setNotes", section: section.id, part: part.id, notes: kept }
    : null;
}

/**
 * What a part that is in the way of a voice could do instead, with what would be left of the conflict: empty where it
 * is not in the way. Best first.
 */
export function roomOffers(
  song: Song,
  { section: sectionId, voice: voiceId, part: partId }: { section: string; voice: string; part: string },
): RoomOffer[] {
  const [section, voice, part] = [sectionOf(song, sectionId), partOf(song, voiceId), partOf(song, partId)];
  const before = section && factsOf(song).get(inTheRoomAt, sectionId, voiceId, partId);
  if (!section || !voice || !part || !before || before.conflict <= IN_THE_WAY) return [];
  const sung = sure(factsOf(song).get(tuneAt, sectionId, voiceId)).notes;
  const tune = soundingIn(sung, sectionMeter(song, section).bar);
  const during = factsOf(song)
    .get(notesAt, sectionPlace(sectionId), partId, "played")
    .filter((n) => tune.within(n.start, n.start + n.duration).length > 0);
  const edits: [RoomOffer["id"], Edit | null][] = [
    ["octave", octaveShift(song, section, part, { during, way: -1 })],
    ["rest", resting(song, section, part, { sung, during })],
    ["fewer", calmer(song, section, part, { during, held: false })],
    ["hold", calmer(song, section, part, { during, held: true })],
  ];
  return edits
    .flatMap(([id, edit]): RoomOffer[] => {
      const after = edit && applyEdit(song, edit);
      if (!edit || !after?.ok) return [];
      const left = factsOf(after.value.song).get(inTheRoomAt, sectionId, voiceId, partId);
      const [conflict, attacks] = [left?.conflict ?? 0, left?.attacks ?? 0];
      // It must help: less in the way, or fewer attacks under the voice.
      const helps =
        conflict < before.conflict - 0.01 || (attacks < before.attacks && conflict <= before.conflict + 0.01);
      return helps ? [{ id, label: LABELS[id], edit, conflict, attacks }] : [];
    })
    .sort((a, b) => a.conflict - b.conflict);
}

/** What one part does while a voice sounds in a section; null where it is silent then. */
const inTheRoomAt: Fact<[section: string, voice: string, part: string], InTheRoom | null> = {
  id: "in the room",
  of(read, sectionId, voiceId, partId) {
    const { song } = read;
    const section = sectionOf(song, sectionId);
    const [voice, part] = [partOf(song, voiceId), partOf(song, partId)];
    const sung = read.get(tuneAt, sectionId, voiceId)?.notes;
    if (!section || !voice || !part || !sung?.length) return null;
    return measured(part, voice, sung, {
      notes: read.get(notesAt, sectionPlace(sectionId), partId, "played"),
      meter: sectionMeter(song, section),
    });
  },
};

/** Who plays while a voice sounds, where, and how much in its way; those most in the way first. */
export const roomAt: Fact<[section: string, voice: string], Room> = {
  id: "room",
  of(read, section, voice) {
    const sung = read.get(tuneAt, section, voice)?.notes ?? [];
    const lowest = sung.reduce<RealizedNote | null>((low, n) => (low && low.midi <= n.midi ? low : n), null);
    const parts = accompanying(read.song, voice).flatMap(
      (part) => read.get(inTheRoomAt, section, voice, part.id) ?? [],
    );
    return { lowest: lowest?.pitch ?? null, parts: parts.sort((a, b) => b.conflict - a.conflict) };
  },
};

/** The room a voice has in a section: see `roomAt`. Errors: `room.part`. */
export function roomForVoice(song: Song, { section, part }: { section: string; part: string }): Result<Room> {
  if (!sectionOf(song, section) || !partOf(song, part))
    return fail("room.part", `No part "${part}" or no section "${section}" is in the song`);
  return ok(factsOf(song).get(roomAt, section, part));
}
