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

/**
 * Everything that sounds between two positions, from the played positions of the realized song: what is heard is what
 * is written.
 */
export function schedule(
  real: RealizedSong,
  {
    from = 0,
    to = real.duration,
    solo = [],
    click = false,
    countIn = false,
    speed = 1,
    forward = [],
  }: EventOptions = {},
): Schedule {
  const events: SoundEvent[] = [];
  const first = real.sections.findLast((s) => s.start <= from) ?? real.sections[0];
  const base = Song.secondsAt(real, from);
  const lead = countIn && first ? (Song.secondsAt(real, from + first.meter.bar) - base) / speed : 0;
  const at = (tick: number): Seconds => (Song.secondsAt(real, tick) - base) / speed + lead;
  const audible = (id: string, muted: boolean) => (solo.length ? solo.includes(id) : !muted);
  for (const part of real.parts) {
    if (!audible(part.id, part.muted)) continue;
    const { sound } = Instrument.of(part.instrument, real);
    const strength = strengthOf(part, forward);
    for (const note of part.notes) {
      // A pickup sounds into the count-in; a note that began earlier is entered in its middle.
      const pickup = note.start < from && note.start < 0 && from === 0 && (countIn || at(note.played) >= 0);
      if (note.start >= to || (note.start < from && !pickup && note.playedEnd <= from)) continue;
      if (note.start < from && !pickup && note.start < 0) continue;
      const start = pickup ? note.played : Math.max(note.played, from);
      const time = Math.max(0, at(start));
      const end = at(Math.min(note.playedEnd, to));
      if (end <= time) continue;
      events.push({
        kind: "note",
        time,
        duration: end - time,
        part: part.id,
        sound,
        midi: note.midi,
        velocity: strength(note),
        ...(note.glideTo ? { glideTo: Pitch.midi(note.glideTo) } : {}),
        ...(note.swell ? { swell: true } : {}),
      });
    }
  }
  const drums = real.parts.find((p) => p.role === "drums");
  if (drums)
    for (const hit of real.hits)
      if (
        hit.start >= from &&
        hit.start < to &&
        (audible(drums.id, drums.muted) || solo.includes(Drums.player(hit.drum)))
      )
        events.push({
          kind: "drum",
          time: Math.max(0, at(hit.played)),
          part: drums.id,
          drum: hit.drum,
          velocity: hit.velocity,
          ...(hit.midi !== undefined ? { midi: hit.midi } : {}),
          ...(hit.glideTo !== undefined ? { glideTo: hit.glideTo } : {}),
          ...(hit.duration ? { duration: (hit.duration / Meter.QUARTER) * (60 / sure(first).tempo) } : {}),
        });
  if (lead && first)
    for (const beat of first.meter.beats)
      events.push({ kind: "click", time: at(from + beat.start) - lead, strong: beat.start === 0 });
  if (click)
    for (const section of real.sections)
      for (let bar = 0; bar < section.bars; bar++)
        for (const beat of section.meter.beats) {
          const tick = section.start + bar * section.meter.bar + beat.start;
          if (tick >= from && tick < to) events.push({ kind: "click", time: at(tick), strong: beat.start === 0 });
        }
  return { events: events.sort((a, b) => a.time - b.time), lead, length: at(to) };
}
