import * as Tone from "tone";
import { type Drum, type Midi, type RealizedSong, Song, sure, type Ticks } from "../../../core/src/index";
import { Band } from "./band";
import { playersOf, schedule, type EventOptions, type BandPart as Part } from "./events";

interface Job {
  real: RealizedSong;
  options: EventOptions & { from: Ticks; to: Ticks };
  loop: boolean;
  lead: number;
}

/** Milliseconds of a task in which players are made. */
const TASK = 12;

/** Plays realized songs on the transport; one at a time. */
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
    real: RealizedSong,
    options: EventOptions & { from: Ticks; to: Ticks },
    loop: boolean,
    startAt?: Ticks,
  ): Promise<void> {
    const band = await this.prepare(playersOf(real));
    this.halt();
    this.job = { real, options, loop, lead: 0 };
    const transport = Tone.getTransport();
    transport.bpm.value = 120;
    this.fill(band);
    const offset =
      startAt !== undefined && startAt > options.from && startAt < options.to
        ? (Song.secondsAt(real, startAt) - Song.secondsAt(real, options.from)) / (options.speed ?? 1) + this.job.lead
        : 0;
    transport.start("+0.06", offset);
  }

  /** The same stretch with another version of the song or other options, without a stop. */
  update(real: RealizedSong, options: Partial<EventOptions>): void {
    if (!this.job || !this.band) return;
    this.job = { ...this.job, real, options: { ...this.job.options, ...options, countIn: this.job.lead > 0 } };
    Tone.getTransport().cancel();
    this.fill(this.band);
  }

  private fill(band: Band): void {
    const job = sure(this.job);
    const transport = Tone.getTransport();
    const { events, lead, length } = schedule(job.real, job.options);
    job.lead = lead;
    for (const event of events) transport.schedule((time) => band.play(event, time), event.time);
    transport.loop = job.loop;
    if (job.loop) transport.setLoopPoints(lead, length);
    else
      transport.schedule(
        () =>
          Tone.getDraw().schedule(() => {
            this.stop();
            this.onEnd();
          }, Tone.now()),
        length + 0.4,
      );
  }

  get playing(): boolean {
    return this.job !== null;
  }

  /** Position of the playhead in ticks of what is played; null when nothing plays. */
  position(): Ticks | null {
    if (!this.job) return null;
    // Where the ear is, not the scheduler, which runs ahead.
    const { real, options, lead } = this.job;
    const seconds = (Tone.getTransport().getSecondsAtTime(Tone.immediate()) - lead) * (options.speed ?? 1);
    const at = Math.min(options.to - 1, Song.tickAt(real, Song.secondsAt(real, options.from) + seconds));
    // Only a count-in lies before the beginning.
    return lead > 0 ? at : Math.max(options.from, at);
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
