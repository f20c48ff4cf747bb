import { demoSongs } from "../../core/test/demos";
import { edit } from "../../core/test/helpers";
import { playersOf, schedule, type EventOptions } from "../app/audio/events";
import { soundingAt } from "../pages/workbench/sounding";
import { Fact, firstOf, nth, Place, realize, Song } from "../../core/src/index";
import type { SectionData } from "../app/store/sectionData";

const demos = demoSongs();
const plan = (song: Song, options: EventOptions = {}, section = "s1") => schedule(realize(song, { section }), options);
const notes = (song: Song, options: EventOptions = {}) =>
  plan(song, options).events.flatMap((e) =>
    e.kind === "note" ? [`${e.part} ${e.midi} ${e.time.toFixed(3)} ${e.duration.toFixed(3)}`] : [],
  );

describe.each(demos.map((d) => [d.title, d] as const))("what sounds of %s", (_, song) => {
  const real = realize(song, { section: "s1" });

  test("is every note and hit of the section, at the place where it is played, in order", () => {
    const { events, length, lead } = plan(song);
    const written = real.parts.reduce((sum, p) => sum + p.notes.filter((n) => n.start >= 0).length, 0);
    expect(events.filter((e) => e.kind === "note")).toHaveLength(written);
    expect(events.filter((e) => e.kind === "drum")).toHaveLength(real.hits.length);
    expect([lead, length]).toEqual([0, Song.secondsAt(real, real.duration)]);
    events.forEach((e, i) => expect(e.time).toBeGreaterThanOrEqual(events[i - 1]?.time ?? 0));
    for (const e of events) expect(e.time).toBeLessThanOrEqual(length);
  });

  test("half as fast is the same, twice as long; twice the tempo half as long", () => {
    const [plain, slow] = [plan(song), plan(song, { speed: 0.5 })];
    expect(slow.length).toBeCloseTo(plain.length * 2, 6);
    slow.events.forEach((e, i) => expect(e.time).toBeCloseTo(nth(plain.events, i).time * 2, 6));
    const fast = plan(edit(song, { do: "setTempo", tempo: song.tempo * 2 }));
    expect(fast.length).toBeCloseTo(plain.length / 2, 6);
  });

  test("alone, muted, and all the others together are all there is", () => {
    const all = notes(song).sort();
    const each = song.parts.flatMap((p) => notes(song, { solo: [p.id] }));
    expect(each.sort()).toEqual(all);
    for (const p of song.parts) {
      const muted = notes(edit(song, { do: "setPart", part: p.id, muted: true }));
      expect(muted.some((n) => n.startsWith(`${p.id} `))).toBe(false);
      expect([...muted, ...notes(song, { solo: [p.id] })].sort()).toEqual(all);
    }
  });

  test("bar after bar it is the whole", () => {
    const { bar } = Song.meterOf(song, firstOf(song.sections));
    const bars = firstOf(song.sections).bars;
    const attacks = (options: EventOptions, from = 0) =>
      plan(song, options).events.flatMap((e) => (e.kind === "drum" ? [`${e.drum} ${(e.time + from).toFixed(2)}`] : []));
    const parts = Array.from({ length: bars }, (_, b) =>
      attacks({ from: b * bar, to: (b + 1) * bar }, Song.secondsAt(real, b * bar)),
    ).flat();
    expect(parts).toHaveLength(attacks({}).length);
  });

  test("the click strikes every beat, the count-in one bar of them, the first strongest", () => {
    const meter = Song.meterOf(song, firstOf(song.sections));
    const clicks = (options: EventOptions) => plan(song, options).events.filter((e) => e.kind === "click");
    expect(clicks({ click: true })).toHaveLength(meter.beats.length * firstOf(song.sections).bars);
    const counted = clicks({ countIn: true });
    expect(counted.map((c) => c.kind === "click" && c.strong)).toEqual(meter.beats.map((b) => b.start === 0));
    expect(plan(song, { countIn: true }).lead).toBeCloseTo(Song.secondsAt(real, meter.bar), 6);
  });

  test("ticks and seconds are each other's inverse", () => {
    for (let tick = 0; tick < real.duration; tick += 333)
      expect(Song.tickAt(real, Song.secondsAt(real, tick))).toBeCloseTo(tick, 4);
  });

  test("at every moment the keyboard shows what sounds, with what it is in the chord", () => {
    const read = Fact.memory().at(song);
    const place = Place.section("s1");
    const section = firstOf(song.sections);
    const played = read.get(Fact.realized, place, "played");
    const data = {
      song,
      section,
      real: played,
      meter: Song.meterOf(song, section),
      key: Song.keyOf(song, section),
      kicks: read.get(Fact.kicks, place),
      roles: new Map(played.parts.map((p) => [p.id, read.get(Fact.roles, place, p.id, "played")])),
    } as unknown as SectionData;
    for (let tick = 0; tick < played.duration; tick += 480) {
      const there = soundingAt(data, tick);
      const expected = played.parts.flatMap((p) =>
        p.notes.filter((n) => n.start <= tick && tick < n.start + n.duration).map((n) => n.id),
      );
      expect(there.map((s) => s.note.id)).toEqual(expected);
      for (const s of there) if (s.role) expect(s.role.label.length).toBeGreaterThan(0);
    }
  });

  test("every part has a player, one each", () => {
    expect(playersOf(song).map((p) => p.id)).toEqual(song.parts.map((p) => p.id));
  });
});
