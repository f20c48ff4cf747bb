import type { Seconds, Ticks } from "../../../core/src/index";
import type { Plan, SoundEvent } from "./events";

/** So many ticks are worked out at a time: four bars of four quarters. */
const PIECE: Ticks = 7680;
/** What sounds is worked out so long before it is asked for. */
const AHEAD: Seconds = 0.5;
/** How far before and behind its place a note is played at most: a beat of its own, one of its part, and the swing. */
const EARLY: Ticks = 960;
const LATE: Ticks = 1200;
/** Times that differ by less are the same. */
const NOTHING: Seconds = 1e-6;

/** Something that sounds, in seconds since playing began; what is looped goes on counting. */
export interface Due {
  at: Seconds;
  event: SoundEvent;
}

/** What is to sound next of a plan, once or round and round: worked out by pieces, a little ahead of the ear. */
export class Queue {
  private due: Due[] = [];
  /** Up to where all is worked out in this round; null at the beginning of a round. */
  private made: Ticks | null = null;
  private round = 0;
  private finished = false;
  private notBefore: Seconds = 0;

  /** @param from where playing begins, in seconds of the plan: what sounds before that is left out */
  constructor(
    private plan: Plan,
    private readonly loop: boolean,
    from: Seconds = 0,
  ) {
    this.begin(from);
  }

  /** Takes everything that sounds before a moment. */
  take(until: Seconds): Due[] {
    while (!this.finished && this.reached() < until + AHEAD) this.make();
    const count = this.due.findIndex((d) => d.at >= until);
    return this.due.splice(0, count < 0 ? this.due.length : count);
  }

  /** Goes on with another plan from a moment on; what sounds before it stays as it was. */
  change(plan: Plan, from: Seconds): void {
    this.due = this.due.filter((d) => d.at < from);
    this.plan = plan;
    this.begin(from);
  }

  /** Whether all of it was taken. */
  get done(): boolean {
    return this.finished && !this.due.length;
  }

  /** Seconds of the plan at a moment since playing began. */
  inPlan(moment: Seconds): Seconds {
    const { lead } = this.plan;
    return this.goesRound() && moment >= lead ? lead + ((moment - lead) % this.lap()) : moment;
  }

  private lap(): Seconds {
    return this.plan.length - this.plan.lead;
  }

  private goesRound(): boolean {
    return this.loop && this.lap() > 0;
  }

  private begin(from: Seconds): void {
    const { lead, from: first, tickAt } = this.plan;
    this.round = this.goesRound() && from >= lead ? Math.floor((from - lead) / this.lap()) : 0;
    this.finished = this.lap() <= 0;
    this.notBefore = from - NOTHING;
    this.made = null;
    const inPlan = this.inPlan(from);
    if (inPlan <= lead + NOTHING) return;
    this.made = Math.max(first, Math.floor(tickAt(inPlan)) - LATE);
  }

  /** Up to when all is worked out: nothing that comes later is played before it. */
  private reached(): Seconds {
    const { lead, at } = this.plan;
    const first = this.round ? lead : 0;
    return this.round * this.lap() + (this.made === null ? first : at(this.made - EARLY));
  }

  private make(): void {
    const { plan, round, made } = this;
    const to = Math.min(plan.to, (made ?? plan.from) + PIECE);
    for (const event of plan.between(made ?? -Infinity, to)) {
      const at = event.time + round * this.lap();
      // Only the first round has a count-in.
      if (at >= this.notBefore && (!round || event.time >= plan.lead)) this.due.push({ at, event });
    }
    this.due.sort((a, b) => a.at - b.at);
    this.made = to < plan.to ? to : null;
    if (to < plan.to) return;
    if (this.goesRound()) this.round++;
    else this.finished = true;
  }
}
