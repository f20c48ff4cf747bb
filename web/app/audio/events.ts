import {
  type Drum,
  Drums,
  Instrument,
  Meter,
  type Midi,
  Pitch,
  type RealizedNote,
  type RealizedPart,
  type RealizedSong,
  type Seconds,
  Song,
  type SoundKind,
  sure,
  type Ticks,
  type WithInstruments,
} from "../../../core/src/index";

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
function strengthOf(part: RealizedPart, forward: readonly string[]): (note: RealizedNote) => number {
  const together = new Map<Ticks, number>();
  for (const n of part.notes) together.set(n.start, (together.get(n.start) ?? 0) + 1);
  let step: 1 | 1.2 | 0.85;
  if (!forward.length) step = 1;
  else if (forward.includes(part.id)) step = FORWARD;
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

export interface Schedule {
  events: SoundEvent[];
  /** Length of the count-in, and of the whole. */
  lead: Seconds;
  length: Seconds;
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

function noteEvents(real: RealizedSong, stretch: Stretch, forward: readonly string[]): SoundEvent[] {
  const { to, at } = stretch;
  return real.parts.flatMap((part): SoundEvent[] => {
    if (!isAudible(stretch, part)) return [];
    const { sound } = Instrument.of(part.instrument, real);
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
  });
}

function drumEvents(real: RealizedSong, stretch: Stretch, tempo: number): SoundEvent[] {
  const { from, to, solo, at } = stretch;
  const drums = real.parts.find((p) => p.role === "drums");
  if (!drums) return [];
  const heard = isAudible(stretch, drums);
  return real.hits
    .filter((hit) => hit.start >= from && hit.start < to && (heard || solo.includes(Drums.player(hit.drum))))
    .map((hit) => ({
      kind: "drum",
      time: Math.max(0, at(hit.played)),
      part: drums.id,
      drum: hit.drum,
      velocity: hit.velocity,
      ...(hit.midi !== undefined ? { midi: hit.midi } : {}),
      ...(hit.glideTo !== undefined ? { glideTo: hit.glideTo } : {}),
      ...(hit.duration ? { duration: (hit.duration / Meter.QUARTER) * (60 / tempo) } : {}),
    }));
}

/** A click on every beat of the stretch. */
const clicks = (real: RealizedSong, { from, to, at }: Stretch): SoundEvent[] =>
  real.sections.flatMap(({ start, bars, meter }) =>
    Array.from({ length: bars }, (_, bar) => start + bar * meter.bar).flatMap((bar) =>
      meter.beats
        .filter((beat) => bar + beat.start >= from && bar + beat.start < to)
        .map((beat): SoundEvent => ({ kind: "click", time: at(bar + beat.start), strong: beat.start === 0 })),
    ),
  );

/**
 * Everything that sounds between two positions, from the played positions of the realized song: what is heard is what
 * is written.
 */
export function schedule(real: RealizedSong, options: EventOptions = {}): Schedule {
  const { from = 0, to = real.duration, solo = [], click = false, countIn = false, speed = 1, forward = [] } = options;
  const first = real.sections.findLast((s) => s.start <= from) ?? real.sections[0];
  if (!first) return { events: [], lead: 0, length: 0 };
  const base = Song.secondsAt(real, from);
  const lead = countIn ? (Song.secondsAt(real, from + first.meter.bar) - base) / speed : 0;
  const at = (tick: number): Seconds => (Song.secondsAt(real, tick) - base) / speed + lead;
  const stretch: Stretch = { from, to, solo, countIn, at };
  const counted = lead ? first.meter.beats : [];
  const events = [
    ...noteEvents(real, stretch, forward),
    ...drumEvents(real, stretch, first.tempo),
    ...counted.map((beat): SoundEvent => ({
      kind: "click",
      time: at(from + beat.start) - lead,
      strong: beat.start === 0,
    })),
    ...(click ? clicks(real, stretch) : []),
  ];
  return { events: events.sort((a, b) => a.time - b.time), lead, length: at(to) };
}
