/** What sounds is worked out by pieces and handed on a little ahead: nothing is lost, doubled or late. */
import fc from "fast-check";
import { demoSongs } from "../../core/test/demos";
import { goldenSong } from "../../core/test/fixtures";
import { edit } from "../../core/test/helpers";
import { firstOf, Form, Meter, nth, Song } from "../../core/src/index";
import { planOf, schedule, type EventOptions, type Plan, type SoundEvent } from "../app/audio/events";
import { Queue, type Due } from "../app/audio/queue";
import { stageOf, stageOfForm } from "../app/audio/stage";

const demo = firstOf(demoSongs());
const real = Song.realize(demo, { section: "s1" });
const plan = (options: EventOptions = {}): Plan => planOf(stageOf(real), options);

const told = ({ at, event }: Due): string => `${at.toFixed(4)} ${JSON.stringify({ ...event, time: 0 })}`;
const dues = (events: readonly SoundEvent[], by = 0): Due[] => events.map((event) => ({ at: event.time + by, event }));

/** Everything up to a moment, taken in steps of these lengths. */
function taken(queue: Queue, until: number, steps: readonly number[] = [0.05]): Due[] {
  const all: Due[] = [];
  for (let now = 0, i = 0; now < until; i++) {
    now = Math.min(until, now + nth(steps, i % steps.length));
    for (const due of queue.take(now)) {
      expect(due.at).toBeLessThan(now);
      all.push(due);
    }
  }
  return all;
}

test("once through, in any steps, it is all of the plan in the order of time, the count-in first", () => {
  const options = { countIn: true, click: true };
  const { events, length } = schedule(real, options);
  fc.assert(
    fc.property(fc.array(fc.double({ min: 0.01, max: 2, noNaN: true }), { minLength: 1, maxLength: 5 }), (steps) => {
      const queue = new Queue(plan(options), false);
      const all = taken(queue, length + 1, steps);
      expect(all.map((d) => d.at)).toEqual([...all.map((d) => d.at)].sort((a, b) => a - b));
      expect(all.map(told).sort()).toEqual(dues(events).map(told).sort());
      expect(queue.done).toBe(true);
    }),
    { numRuns: 20 },
  );
});

test("round and round: every round is the plan again, without its count-in", () => {
  const { events, lead, length } = schedule(real, { countIn: true });
  const rounds = [0, 1, 2].flatMap((round) =>
    dues(
      events.filter((e) => !round || e.time >= lead),
      round * (length - lead),
    ),
  );
  const queue = new Queue(plan({ countIn: true }), true);
  const all = taken(queue, 3 * (length - lead) + lead - 0.001, [0.3]);
  expect(all.map(told).sort()).toEqual(rounds.map(told).sort());
  expect(queue.done).toBe(false);
  expect(queue.inPlan(lead / 2)).toBe(lead / 2);
  expect(queue.inPlan(length + 1)).toBeCloseTo(lead + 1, 6);
});

test("begun in the middle, it is what sounds from there on", () => {
  const { events, length } = schedule(real);
  for (const beat of [1, 2.5, 7, 13]) {
    const from = plan().at(beat * Meter.QUARTER);
    const queue = new Queue(plan(), false, from);
    const all = queue.take(length + 1);
    expect(all.map(told).sort()).toEqual(
      dues(events.filter((e) => e.time >= from - 1e-6))
        .map(told)
        .sort(),
    );
  }
});

test("only what is near is worked out: a piece when it begins, and no further ahead of the ear than a note may be early", () => {
  const asked: [number, number][] = [];
  const long = planOf(stageOf(Song.realize(goldenSong("every-setting"), {})));
  const spied: Plan = {
    ...long,
    between(a, b) {
      asked.push([a, b]);
      return long.between(a, b);
    },
  };
  const queue = new Queue(spied, false);
  for (let now = 0; now < long.length; now += 0.5) {
    queue.take(now);
    const [, reached] = nth(asked, asked.length - 1);
    expect(reached).toBeLessThanOrEqual(
      Math.max(7680, Song.tickAt(Song.realize(goldenSong("every-setting"), {}), now + 3) + 7680),
    );
  }
  for (const [i, [a, b]] of asked.entries()) {
    expect(b - (i ? a : 0)).toBeLessThanOrEqual(7680);
    if (i) expect(a).toBe(nth(asked, i - 1)[1]);
  }
});

test("changed to the same plan at any moment, nothing is lost and nothing sounds twice, once and round and round", () => {
  const { length } = plan();
  fc.assert(
    fc.property(
      fc.boolean(),
      fc.array(fc.double({ min: 0, max: 2.5, noNaN: true }), { minLength: 1, maxLength: 4 }),
      (loop, shares) => {
        const until = length * 2.5;
        const plain = taken(new Queue(plan(), loop), until).map(told);
        const queue = new Queue(plan(), loop);
        const all: Due[] = [];
        for (const moment of shares.map((s) => s * length).sort((a, b) => a - b)) {
          all.push(...queue.take(moment));
          queue.change(plan(), moment + 0.15);
        }
        all.push(...queue.take(until));
        expect(all.map(told).sort()).toEqual(plain.sort());
      },
    ),
    { numRuns: 60 },
  );
});

test("an edit while it plays is heard from that moment on, and not before", () => {
  const quiet = edit(demo, { do: "setPart", part: "bass", muted: true });
  const silenced = planOf(stageOf(Song.realize(quiet, { section: "s1" })));
  const queue = new Queue(plan(), true);
  const before = queue.take(2);
  queue.change(silenced, 2.15);
  const after = queue.take(plan().length * 2);
  const bass = (list: readonly Due[]) => list.filter((d) => d.event.kind === "note" && d.event.part === "bass");
  expect(bass(before).length).toBeGreaterThan(0);
  expect(bass(after).every((d) => d.at < 2.15)).toBe(true);
});

test("a section without length ends at once, also where it is looped", () => {
  const none = planOf(stageOf(real), { from: 0, to: 0 });
  const queue = new Queue(none, true);
  expect(queue.take(100)).toEqual([]);
  expect(queue.done).toBe(true);
});

test.each([...demoSongs().map((s) => [s.title, s] as const), ["pickups", goldenSong("pickup")] as const])(
  "the form of %s by its passes is the whole song, and only passes that come near are realized",
  (_, song) => {
    const form = Form.of(song);
    const asked = new Set<string>();
    const whole = Song.realize(song, {});
    const stage = stageOfForm(song, form, (pass) => {
      asked.add(pass);
      return Song.realize({ ...song, form: song.form.filter((p) => p.id === pass) }, {});
    });
    const options = { click: true, countIn: true };
    planOf(stage, options).between(-Infinity, Meter.QUARTER);
    expect(asked.size).toBeLessThanOrEqual(2);
    const listed = (events: readonly SoundEvent[]) =>
      events.map((e) => `${e.time.toFixed(6)} ${JSON.stringify({ ...e, time: 0 })}`).sort();
    const events = planOf(stage, options).between(-Infinity, Infinity);
    expect(listed(events)).toEqual(listed(schedule(whole, options).events));
    expect(planOf(stage).length).toBeCloseTo(Song.secondsAt(whole, whole.duration), 6);
  },
);

/** A plan of single notes: where each is written, and when it sounds; a tick is a millisecond. */
function planOfNotes(notes: readonly { written: number; sounds: number }[], length = 60): Plan {
  return {
    lead: 0,
    length,
    from: 0,
    to: length * 1000,
    at: (tick) => tick / 1000,
    tickAt: (time) => time * 1000,
    between: (a, b) =>
      notes.flatMap(({ written, sounds }) =>
        written >= a && written < b ? [{ kind: "click", time: sounds, strong: false } as const] : [],
      ),
  };
}
const heardOf = (queue: Queue, until: number, step = 0.05): number[] => taken(queue, until, [step]).map((d) => d.at);

test("a note that sounds before its place is worked out in time, 960 ticks and half a second before it", () => {
  // Written where the second piece begins, and played early.
  const early = (by: number) => new Queue(planOfNotes([{ written: 7680, sounds: 7.68 - by }]), false);
  const inTime = (by: number) => early(by).take(7.68 - by + 0.01).length;
  expect([inTime(0), inTime(0.96), inTime(1.4), inTime(1.6)]).toEqual([1, 1, 1, 0]);
  // Beyond that it comes late, and is not lost.
  expect(heardOf(early(1.6), 20)).toEqual([7.68 - 1.6]);
});

test("a note that sounds behind its place is kept when the plan changes in between, up to 1200 ticks behind it", () => {
  const late = (by: number) => planOfNotes([{ written: 1000, sounds: 1 + by / 1000 }]);
  const changed = (by: number) => {
    const queue = new Queue(late(by), false);
    const before = queue.take(0.9);
    // The change comes right before it sounds.
    queue.change(late(by), 1 + by / 1000 - 0.001);
    return [...before, ...queue.take(20)].length;
  };
  expect([changed(0), changed(480), changed(1199), changed(1250)]).toEqual([1, 1, 1, 0]);
});
