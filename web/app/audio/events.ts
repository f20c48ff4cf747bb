import {
  type Drum,
  Drums,
  Instrument,
  type Midi,
  Pitch,
  type RealizedNote,
  type RealizedSong,
  type Seconds,
  Song,
  type SoundKind,
  sure,
  type Ticks,
  type WithInstruments,
} from "../../../core/src/index";

import { stageOf, type Playing, type Stage } from "./stage";

/** What a band must know of a part. */
export interface BandPart {
  id: string;
  sound: SoundKind;
  /** The middle of its comfortable range: low instruments are given more, for the ear hears low notes less. */
  middle: Midi;
}

function middleOf(instrument: Instrument): Midi {
  const [low, high] = Instrument.range(instrument.comfortable);
  return (low + high) / 2;
}

/** The players of a song. */
export const playersOf = (
  song: WithInstruments & { parts: readonly { id: string; instrument: string }[] },
): BandPart[] =>
  song.parts.map((p) => {
    const instrument = Instrument.of(p.instrument, song);
    return { id: p.id, sound: instrument.sound, middle: middleOf(instrument) };
  });

/** Notes at once that are as loud together as one may be; more share what there is. */
const FULL_CHORD = 3;
/** Exponent that turns a share of power into a share of velocity, as the instruments are struck. */
const SHARE = 0.5;
/** What a change is brought forward by while it is auditioned, and what the others step back. */
const FORWARD = 1.2;
const BACK = 0.85;

/** How loud each note of a part is struck: chords share, what changed comes forward. */
function strengthOf({ id, notes }: Playing, forward: readonly string[]): (note: RealizedNote) => number {
  const together = new Map<Ticks, number>();
  for (const n of notes) together.set(n.start, (together.get(n.start) ?? 0) + 1);
  let step: 1 | 1.2 | 0.85;
  if (!forward.length) step = 1;
  else if (forward.includes(id)) step = FORWARD;
  else step = BACK;
  return (note) =>
    Math.min(127, note.velocity * step * Math.min(1, (FULL_CHORD / sure(together.get(note.start))) ** SHARE));
}

/** One sound at a time counted from the beginning of what is played. */
export type SoundEvent =
  | {
      kind: "note";
      time: Seconds;
      duration: Seconds;
      part: string;
      sound: SoundKind;
      midi: Midi;
      velocity: number;
      glideTo?: Midi;
      swell?: boolean;
    }
  | {
      kind: "drum";
      time: Seconds;
      part: string;
      drum: Drum;
      velocity: number;
      duration?: Seconds;
      midi?: Midi;
      glideTo?: Midi;
    }
  | { kind: "click"; time: Seconds; strong: boolean };

export interface EventOptions {
  from?: Ticks;
  to?: Ticks;
  /** Only these parts sound, when any are named; `drum:kick` is one drum alone. */
  solo?: readonly string[];
  click?: boolean;
  /** Beats of one bar before the beginning. */
  countIn?: boolean;
  /** Share of the tempo, for practice: 0.5 is half as fast. */
  speed?: number;
  /** Parts that come forward a little. */
  forward?: readonly string[];
}

/** Everything that sounds between two positions, worked out piece by piece. */
export interface Plan {
  /** Length of the count-in, and of the whole. */
  lead: Seconds;
  length: Seconds;
  from: Ticks;
  to: Ticks;
  /** When a position sounds, in seconds from the start of the plan. */
  at(tick: Ticks): Seconds;
  /** The position that sounds at a time: the inverse of `at`. */
  tickAt(time: Seconds): number;
  /** What is written to begin between two positions, in the order of time; the count-in stands before all of it. */
  between(from: Ticks, to: Ticks): SoundEvent[];
}

export interface Schedule extends Pick<Plan, "lead" | "length"> {
  events: SoundEvent[];
}

/** A stretch of the song as it is scheduled. */
interface Stretch {
  from: Ticks;
  to: Ticks;
  solo: readonly string[];
  /** Whether the beats before it are counted in. */
  countIn: boolean;
  /** When a position sounds, in seconds from the start of the schedule. */
  at(tick: Ticks): Seconds;
}

const isAudible = ({ solo }: Stretch, part: { id: string; muted: boolean }): boolean =>
  solo.length ? solo.includes(part.id) : !part.muted;

/**
 * Where a note of a stretch is entered, in ticks; null where it does not sound there. A pickup sounds into the
 * count-in, a note that began earlier is entered in its middle.
 */
function entry({ from, to, countIn, at }: Stretch, note: RealizedNote): Ticks | null {
  if (note.start >= to) return null;
  if (note.start >= from) return Math.max(note.played, from);
  if (note.start < 0) return from === 0 && (countIn || at(note.played) >= 0) ? note.played : null;
  return note.playedEnd <= from ? null : Math.max(note.played, from);
}

function noteEvents(
  stage: Stage,
  part: Playing,
  { stretch, forward }: { stretch: Stretch; forward: readonly string[] },
): SoundEvent[] {
  if (!isAudible(stretch, part)) return [];
  const { to, at } = stretch;
  const { sound } = Instrument.of(part.instrument, stage);
  const strength = strengthOf(part, forward);
  return part.notes.flatMap((note): SoundEvent[] => {
    const start = entry(stretch, note);
    if (start === null) return [];
    const time = Math.max(0, at(start));
    const end = at(Math.min(note.playedEnd, to));
    if (end <= time) return [];
    return [
      {
        kind: "note",
        time,
        duration: end - time,
        part: part.id,
        sound,
        midi: note.midi,
        velocity: strength(note),
        ...(note.glideTo ? { glideTo: Pitch.midi(note.glideTo) } : {}),
        ...(note.swell ? { swell: true } : {}),
      },
    ];
  });
}

function drumEvents(
  hits: RealizedSong["hits"],
  drums: Playing,
  { from, to, solo, at, ...more }: Stretch,
): SoundEvent[] {
  const heard = isAudible({ from, to, solo, at, ...more }, drums);
  return hits
    .filter((hit) => hit.start >= from && hit.start < to && (heard || solo.includes(Drums.player(hit.drum))))
    .map((hit) => ({
      kind: "drum",
      time: Math.max(0, at(hit.played)),
      part: drums.id,
      drum: hit.drum,
      velocity: hit.velocity,
      ...(hit.midi !== undefined ? { midi: hit.midi } : {}),
      ...(hit.glideTo !== undefined ? { glideTo: hit.glideTo } : {}),
      ...(hit.duration ? { duration: at(hit.played + hit.duration) - at(hit.played) } : {}),
    }));
}

/** A click on every beat between two positions. */
const clicks = (stage: Stage, [from, to]: readonly [Ticks, Ticks], at: Plan["at"]): SoundEvent[] =>
  stage.sections
    .filter((s) => s.start < to && s.start + s.duration > from)
    .flatMap(({ start, bars, meter }) =>
      Array.from({ length: bars }, (_, bar) => start + bar * meter.bar).flatMap((bar) =>
        meter.beats
          .filter((beat) => bar + beat.start >= from && bar + beat.start < to)
          .map((beat): SoundEvent => ({ kind: "click", time: at(bar + beat.start), strong: beat.start === 0 })),
      ),
    );

/**
 * What sounds between two positions of a stage, from the played positions of its notes: what is heard is what is
 * written. Nothing is worked out before it is asked for.
 */
export function planOf(stage: Stage, options: EventOptions = {}): Plan {
  const { from = 0, to = stage.duration, solo = [], click = false, countIn = false, speed = 1, forward = [] } = options;
  const first = stage.sections.findLast((s) => s.start <= from) ?? stage.sections[0];
  if (!first) return { lead: 0, length: 0, from, to: from, at: () => 0, tickAt: () => from, between: () => [] };
  const base = Song.secondsAt(stage, from);
  const lead = countIn ? (Song.secondsAt(stage, from + first.meter.bar) - base) / speed : 0;
  const at = (tick: number): Seconds => (Song.secondsAt(stage, tick) - base) / speed + lead;
  const stretch: Stretch = { from, to, solo, countIn, at };
  const counted = (lead ? first.meter.beats : []).map((beat): SoundEvent => ({
    kind: "click",
    time: at(from + beat.start) - lead,
    strong: beat.start === 0,
  }));
  return {
    lead,
    length: at(to),
    from,
    to,
    at,
    tickAt: (time) => Song.tickAt(stage, (time - lead) * speed + base),
    between(a, b) {
      const { parts, hits } = stage.between(a, b);
      const drums = parts.find((p) => p.role === "drums");
      const events = [
        ...parts.flatMap((part) => noteEvents(stage, part, { stretch, forward })),
        ...(drums ? drumEvents(hits, drums, stretch) : []),
        ...(a < from ? counted : []),
        ...(click ? clicks(stage, [Math.max(a, from), Math.min(b, to)], at) : []),
      ];
      return events.sort((x, y) => x.time - y.time);
    },
  };
}

/** The whole of a plan at once. */
export function schedule(real: RealizedSong, options: EventOptions = {}): Schedule {
  const { lead, length, between } = planOf(stageOf(real), options);
  return { lead, length, events: between(-Infinity, Infinity) };
}
