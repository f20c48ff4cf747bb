import * as Tone from "tone";
import { type Drum, Drums, Midi, Pitch, type Seconds } from "../../../core/src/index";

/** Filtered noise, a skin with a falling pitch, or a short tone. */
type Recipe = { db: number; decay: Seconds; length: Seconds; share?: number } & (
  | { source: "noise"; filter: "highpass" | "bandpass"; frequency: number }
  | { source: "skin"; pitchDecay: Seconds; octaves: number; note: string }
  | { source: "tone"; wave: "triangle" | "sine"; note: string }
);

const noise = (
  filter: "highpass" | "bandpass",
  frequency: number,
  decay: Seconds,
  { db, length }: { db: number; length: Seconds },
): Recipe => ({
  source: "noise",
  filter,
  frequency,
  decay,
  db,
  length,
});
const skin = (
  octaves: number,
  decay: Seconds,
  {
    db,
    note,
    length,
    pitchDecay = 0.02,
  }: { db: number; note: string; length: Seconds; pitchDecay?: number | undefined },
): Recipe => ({
  source: "skin",
  octaves,
  decay,
  db,
  note,
  length,
  pitchDecay,
});
const tone = (
  decay: Seconds,
  db: number,
  note: string,
  { length, wave = "triangle" }: { length: Seconds; wave?: "triangle" | "sine" | undefined },
): Recipe => ({
  source: "tone",
  decay,
  db,
  note,
  length,
  wave,
});

/** What each drum is made of. Drums that share a first part choke each other, as one pair of hats does. */
const closed = noise("highpass", 7500, 0.04, { db: -16, length: 0.03 });
const rim = tone(0.04, -11, "G5", { length: 0.03 });
const conga = skin(1.2, 0.18, { db: -9, note: "D4", length: 0.14 });
const tom = skin(2.5, 0.3, { db: -8, note: "G2", length: 0.25 });
const tambourine = noise("highpass", 8500, 0.1, { db: -17, length: 0.08 });
const KIT: Record<Drum, Recipe[]> = {
  kick: [skin(5, 0.28, { db: -3, note: "C1", length: 0.2, pitchDecay: 0.03 })],
  snare: [
    noise("bandpass", 2400, 0.16, { db: -8, length: 0.1 }),
    skin(2, 0.1, { db: -14, note: "G2", length: 0.05, pitchDecay: 0.01 }),
  ],
  clap: [noise("bandpass", 1300, 0.12, { db: -8, length: 0.1 })],
  closedHat: [closed],
  pedalHat: [{ ...closed, length: 0.02, share: 0.8 }],
  openHat: [noise("highpass", 6500, 0.28, { db: -18, length: 0.24 })],
  ride: [noise("highpass", 5200, 0.4, { db: -21, length: 0.3 })],
  shaker: [noise("bandpass", 6000, 0.06, { db: -15, length: 0.05 })],
  tambourine: [tambourine],
  rim: [rim],
  clave: [tone(0.07, -12, "D#6", { length: 0.05 })],
  triangle: [{ ...tone(0.9, -24, "A6", { length: 0.5 }), share: 0.6 }],
  tom: [tom],
  conga: [conga],
  free1: [{ ...tom, note: "C3", length: 0.2 } as Recipe],
  free2: [{ ...conga, note: "A4", length: 0.1 } as Recipe],
  free3: [{ ...rim, note: "C6", length: 0.04 } as Recipe],
  free4: [{ ...tambourine, length: 0.05 }],
};
/** Drums that ring as long as their hit says. */
const RINGING: readonly Drum[] = ["openHat", "triangle"];

const CLICK = tone(0.03, -10, "G5", { length: 0.02, wave: "sine" });
const STRONG_CLICK = "C6";

/** A monophonic source must be started at strictly rising times. */
const GAP: Seconds = 0.002;

interface Source {
  start(time: Seconds, velocity: number, length: Seconds, note?: string): void;
}

/** A hit, perhaps of a tuned drum, with a pitch and one it slides to. */
export interface DrumHit {
  duration?: Seconds;
  midi?: Midi;
  glideTo?: Midi;
}

type Own = <T extends { dispose(): unknown }>(node: T) => T;

/** The drums of a band and its click, each made when it is first struck, or before by `make`. */
export class DrumKit {
  private readonly drums = new Map<Drum, { recipe: Recipe; source: Source }[]>();
  private readonly tails = new Map<Drum, Tone.MembraneSynth>();
  private readonly busyUntil = new Map<unknown, Seconds>();
  private metronome: Source | null = null;

  constructor(
    private readonly own: Own,
    private readonly out: Tone.InputNode,
  ) {}

  /** Makes all drums and the click, one at each step. */
  *make(): Generator<void> {
    for (const drum of Object.keys(KIT) as Drum[]) {
      this.piecesOf(drum);
      yield;
    }
    this.clickSource();
  }

  private piecesOf(drum: Drum): { recipe: Recipe; source: Source }[] {
    let pieces = this.drums.get(drum);
    if (!pieces)
      this.drums.set(drum, (pieces = KIT[drum].map((recipe) => ({ recipe, source: this.sourceOf(recipe) }))));
    return pieces;
  }

  private clickSource(): Source {
    return (this.metronome ??= this.sourceOf(CLICK));
  }

  click(time: Seconds, strong: boolean): void {
    this.clickSource().start(time, strong ? 0.7 : 0.42, CLICK.length, strong ? STRONG_CLICK : "G5");
  }

  strike(drum: Drum, time: Seconds, velocity: number, { duration, midi, glideTo }: DrumHit = {}): void {
    if (midi !== undefined && Drums.TUNABLE.includes(drum))
      return this.ring(drum, time, { velocity, midi, duration: duration ?? 0.3, glideTo });
    for (const { recipe, source } of this.piecesOf(drum)) {
      const length = RINGING.includes(drum) ? (duration ?? recipe.length) : recipe.length;
      source.start(time, velocity * (recipe.share ?? 1), length);
    }
  }

  /** A drum that plays the bass rings as long as its note, and can slide: a skin with a tail of its own. */
  private ring(
    drum: Drum,
    at: Seconds,
    {
      velocity,
      midi,
      duration,
      glideTo,
    }: { velocity: number; midi: Midi; duration: Seconds; glideTo: Midi | undefined },
  ): void {
    let tail = this.tails.get(drum);
    if (!tail) {
      const envelope = { attack: 0.001, decay: 0.9, sustain: 0.35, release: 0.02 };
      tail = this.own(new Tone.MembraneSynth({ pitchDecay: 0.025, octaves: 3, envelope }).connect(this.level(-4)));
      this.tails.set(drum, tail);
    }
    const time = this.free(tail, at);
    tail.triggerAttackRelease(Pitch.frequency(midi), Math.max(0.03, duration - 0.02), time, velocity);
    if (glideTo === undefined) return;
    tail.frequency.setValueAtTime(Pitch.frequency(midi), time + duration * (1 - Midi.GLIDE_SHARE));
    tail.frequency.exponentialRampToValueAtTime(Pitch.frequency(glideTo), time + duration - 0.015);
  }

  private level(db: number): Tone.Volume {
    return this.own(new Tone.Volume(db).connect(this.out));
  }

  /** The first time from `time` on at which a source can be started. */
  private free(source: unknown, time: Seconds): Seconds {
    const at = Math.max(time, (this.busyUntil.get(source) ?? -1) + GAP);
    this.busyUntil.set(source, at);
    return at;
  }

  private sourceOf(recipe: Recipe): Source {
    const envelope = { attack: 0.001, decay: recipe.decay, sustain: 0, release: 0.02 };
    if (recipe.source === "noise") {
      const filter = this.own(new Tone.Filter(recipe.frequency, recipe.filter).connect(this.level(recipe.db)));
      const synth = this.own(new Tone.NoiseSynth({ noise: { type: "white" }, envelope }).connect(filter));
      return {
        start: (time, velocity, length) => void synth.triggerAttackRelease(length, this.free(synth, time), velocity),
      };
    }
    const synth = this.own(
      recipe.source === "skin"
        ? new Tone.MembraneSynth({ pitchDecay: recipe.pitchDecay, octaves: recipe.octaves, envelope })
        : new Tone.Synth({ oscillator: { type: recipe.wave }, envelope }),
    );
    synth.connect(this.level(recipe.db));
    return {
      start: (time, velocity, length, note = recipe.note) =>
        void synth.triggerAttackRelease(note, length, this.free(synth, time), velocity),
    };
  }
}
