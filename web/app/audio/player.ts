import * as Tone from "tone";
import { type Drum, type Midi, type RealizedSong, type Seconds, Song, type Ticks } from "../../../core/src/index";
import { Band } from "./band";
import { planOf, playersOf, schedule, type EventOptions, type BandPart as Part, type Plan } from "./events";
import { Queue } from "./queue";
import type { Stage } from "./stage";

interface Job {
  stage: Stage;
  options: EventOptions & { from: Ticks; to: Ticks };
  loop: boolean;
  plan: Plan;
  queue: Queue;
}

/** Milliseconds of a task in which players are made. */
const TASK = 12;
/** So often events are handed to the clock of the sound, in seconds. */
const HANDED: Seconds = 0.05;
/** What changes is heard so much later, in seconds: what was handed over is not taken back. */
const SOON: Seconds = 0.15;
/** Seconds in which the last note fades. */
const FADE: Seconds = 0.4;

/** Where the playhead goes evenly from now on. */
export interface Leg {
  tick: Ticks;
  /** Up to there at one tempo, in so many seconds. */
  until: Ticks;
  seconds: Seconds;
}

/** Plays a stage on the transport; one at a time. */
export class Player {
  private band: Band | null = null;
  private bandFor = "";
  private job: Job | null = null;
  onEnd: () => void = () => undefined;

  /** Makes the players of the song's parts, or of one, a few in a task, and waits for their samples. */
  async prepare(parts: readonly Part[], only?: string): Promise<Band> {
    await Tone.start();
    const id = parts.map((p) => `${p.id}:${p.sound}`).join();
    if (!this.band || this.bandFor !== id) {
      this.band?.dispose();
      this.band = new Band(parts);
      this.bandFor = id;
    }
    const band = this.band;
    let since = performance.now();
    for (const _ of band.make(only)) {
      if (performance.now() - since < TASK) continue;
      await new Promise((resolve) => setTimeout(resolve));
      // Another song was asked for meanwhile.
      if (this.band !== band) return this.band;
      since = performance.now();
    }
    await band.loaded();
    return band;
  }

  async play(
    stage: Stage,
    options: EventOptions & { from: Ticks; to: Ticks },
    loop: boolean,
    startAt?: Ticks,
  ): Promise<void> {
    const band = await this.prepare(playersOf(stage));
    this.halt();
    const plan = planOf(stage, options);
    const inside = startAt !== undefined && startAt > options.from && startAt < options.to;
    const from = inside ? plan.at(startAt) : 0;
    this.job = { stage, options, loop, plan, queue: new Queue(plan, loop, from) };
    const transport = Tone.getTransport();
    transport.bpm.value = 120;
    transport.scheduleRepeat((time) => this.hand(band, time), HANDED);
    transport.start("+0.06", from);
  }

  /** Hands to the clock of the sound what is due until this is called again. */
  private hand(band: Band, time: Seconds): void {
    const { job } = this;
    if (!job) return;
    const now = Tone.getTransport().getSecondsAtTime(time);
    for (const { at, event } of job.queue.take(now + HANDED)) band.play(event, Math.max(time, time + at - now));
    if (!job.queue.done || now < job.plan.length + FADE) return;
    Tone.getDraw().schedule(() => {
      if (this.job !== job) return;
      this.stop();
      this.onEnd();
    }, Tone.now());
  }

  /** The same stretch with another version of the song or other options, without a stop. */
  update(stage: Stage, options: Partial<EventOptions>): void {
    if (!this.job) return;
    const all = { ...this.job.options, ...options, countIn: this.job.plan.lead > 0 };
    const plan = planOf(stage, all);
    this.job.queue.change(plan, Tone.getTransport().getSecondsAtTime(Tone.now()) + SOON);
    this.job = { ...this.job, stage, options: all, plan };
  }

  get playing(): boolean {
    return this.job !== null;
  }

  /** Where the playhead is and how it goes on, in ticks of what is played; null when nothing plays. */
  leg(): Leg | null {
    if (!this.job) return null;
    // Where the ear is, not the scheduler, which runs ahead.
    const { stage, options, plan, queue } = this.job;
    const { speed = 1, from, to } = options;
    const seconds = (queue.inPlan(Tone.getTransport().getSecondsAtTime(Tone.immediate())) - plan.lead) * speed;
    const at = Math.min(to - 1, Song.tickAt(stage, Song.secondsAt(stage, from) + seconds));
    // Only a count-in lies before the beginning.
    const tick = plan.lead > 0 ? at : Math.max(from, at);
    const section = stage.sections.findLast((s) => s.start <= Math.max(0, tick));
    const until = Math.min(to, section ? section.start + section.duration : to);
    return { tick, until, seconds: (Song.secondsAt(stage, until) - Song.secondsAt(stage, tick)) / speed };
  }

  /** Position of the playhead in ticks of what is played; null when nothing plays. */
  position(): Ticks | null {
    return this.leg()?.tick ?? null;
  }

  private halt(): void {
    const transport = Tone.getTransport();
    transport.stop();
    transport.cancel();
    transport.seconds = 0;
    this.band?.silence();
    this.job = null;
  }

  stop(): void {
    this.halt();
  }

  /** A single stroke of a drum. */
  async strike(parts: readonly Part[], part: string, drum: Drum, velocity: number): Promise<void> {
    const band = await this.prepare(parts, part);
    band.play({ kind: "drum", time: 0, part, drum, velocity }, Tone.now() + 0.02);
  }

  /** A single note of a part, for a touch of a key or a note that is moved. */
  async soundNote(parts: readonly Part[], part: string, midi: Midi, duration = 0.35): Promise<void> {
    const band = await this.prepare(parts, part);
    const found = parts.find((p) => p.id === part);
    if (!found) return;
    band.play({ kind: "note", time: 0, duration, part, sound: found.sound, midi, velocity: 80 }, Tone.now() + 0.02);
  }
}

/**
 * Renders a realized song without playing it: samples of the left channel. Sampled and synthesized sounds are the same
 * as in `Player`.
 */
export async function render(
  real: RealizedSong,
  options: EventOptions = {},
  tail = 0.5,
): Promise<{ samples: Float32Array; rate: number }> {
  const plan = schedule(real, options);
  const buffer = await Tone.Offline(
    async ({ transport }) => {
      const band = new Band(playersOf(real));
      // Only who is heard: players that are silent take as long to render.
      for (const part of new Set(plan.events.flatMap((e) => (e.kind === "note" ? [e.part] : []))))
        for (const _ of band.make(part));
      await band.loaded();
      for (const event of plan.events) transport.schedule((time) => band.play(event, time), event.time);
      transport.start(0);
    },
    plan.length + tail,
    1,
    22050,
  );
  return { samples: buffer.getChannelData(0), rate: buffer.sampleRate };
}
