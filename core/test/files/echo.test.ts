import { firstOf, sure } from "../../src/base/list";
import fc from "fast-check";
import { applyEdit } from "../../src/song/edits";
import { chordPitchClasses } from "../../src/theory/chord/chord";
import { chordOf } from "../../src/theory/chord/progression";
import { decibels, strengthOf, velocityOf } from "../../src/theory/instrument/loudness";
import { echoDelays, echoReport } from "../../src/hear/line/echo";
import { must } from "../../src/base/result";
import { parseSong } from "../../src/song/document";
import { realize } from "../../src/song/realize";
import { ticksToSeconds } from "../../src/theory/time/swing";
import type { Edit } from "../../src/song/edits/list";
import type { Song } from "../../src/song/schema/song";
import { demoSongs } from "../demos";
import { edit, songWith } from "../helpers";

/** A song with an echo of its tune. */
function echoed(song: Song, echo: Extract<Edit, { do: "setPlaying" }>["echo"] = {}): { song: Song; part: string } {
  const added = edit(song, {
    do: "addPart",
    name: "Echo",
    role: "counter",
    instrument: "electricGuitar",
    echoes: "melody",
  });
  const part = sure(added.parts.find((p) => p.name === "Echo")).id;
  return { song: edit(added, { do: "setPlaying", part, echo }), part };
}
const played = (song: Song, part: string) =>
  sure(realize(song, { section: firstOf(song.sections).id }).parts.find((p) => p.id === part)).notes;

test(
  "a dotted eighth at 100 is 450 ms and 360 ticks; each repeat has half the amplitude, 6.02 dB less, through the " +
    "curve of velocity",
  () => {
    const { song, part } = echoed(
      edit(songWith({ line: "| C |", melody: ["0 C5 0.5"] }), { do: "setTempo", tempo: 100 }),
    );
    const report = must(echoReport(song, { section: "s1", part }));
    expect(report.settings.delay).toBe(360);
    expect(report.seconds).toBeCloseTo(0.45, 9);
    expect(report.decibels).toBeCloseTo(-6.0206, 3);
    const [source] = played(song, "melody");
    const notes = played(song, part);
    expect(notes.map((n) => [n.start, n.played - sure(source).played])).toEqual([
      [360, 360],
      [720, 720],
      [1080, 1080],
    ]);
    expect(ticksToSeconds(360, 100)).toBeCloseTo(0.45, 9);
    notes.forEach((n, k) => {
      // A velocity is a whole number: the nearest to the exact amplitude.
      const exact = velocityOf(strengthOf(sure(source).velocity) * 0.5 ** (k + 1));
      expect(Math.abs(n.velocity - exact)).toBeLessThanOrEqual(0.5);
      expect(decibels(strengthOf(n.velocity) / strengthOf(sure(source).velocity))).toBeCloseTo(-6.02 * (k + 1), 0);
    });
    for (let v = 1; v <= 127; v++) expect(velocityOf(strengthOf(v))).toBeCloseTo(v, 9);
  },
);

test("it sounds exactly its delay after the tune whatever the swing, stays inside the section, and dies away", () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...demoSongs()),
      fc.record({
        delay: fc.constantFrom(120, 160, 240, 360, 480, 720, 960),
        repeats: fc.integer({ min: 1, max: 12 }),
        decay: fc.constantFrom(0.1, 0.35, 0.5, 0.8),
        shift: fc.constantFrom(-12, 0, 7, 12),
      }),
      (demo, settings) => {
        const { song, part } = echoed(demo, settings);
        const tune = played(song, "melody");
        const length = realize(song, { section: firstOf(song.sections).id }).duration;
        for (const n of played(song, part)) {
          const [, id, repeat] = sure(/\.(.+)\.(\d+)$/.exec(n.id));
          const source = sure(tune.find((t) => t.id === id));
          expect(n.start).toBeLessThan(length);
          expect(n.start - source.start).toBe(settings.delay * Number(repeat));
          expect(n.midi - source.midi).toBe(settings.shift);
          // Ticks are whole numbers.
          expect(Math.abs(n.played - source.played - settings.delay * Number(repeat))).toBeLessThanOrEqual(1);
          expect(n.velocity).toBeLessThan(source.velocity);
        }
      },
    ),
    { numRuns: 25, seed: 3 },
  );
});

test(
  "printed, it has the notes it played; a tune that goes leaves them; what cannot be echoed says why, and " +
    "nothing changes",
  () => {
    const { song, part } = echoed(firstOf(demoSongs()));
    const what = (s: Song) => played(s, part).map((n) => [n.start, n.duration, n.pitch, n.velocity, n.played]);
    const printed = edit(song, { do: "setEcho", part, of: null });
    expect(what(printed)).toEqual(what(song));
    expect(sure(printed.parts.find((p) => p.id === part)).echoes).toBeUndefined();
    expect(what(edit(song, { do: "removePart", part: "melody" }))).toEqual(what(song));
    expect(must(parseSong(JSON.parse(JSON.stringify(song))))).toEqual(song);
    const code = (e: Edit) => {
      const r = applyEdit(song, e);
      return r.ok ? null : r.error.code;
    };
    expect(code({ do: "setEcho", part: "melody", of: "melody" })).toBe("edit.echo");
    expect(code({ do: "setEcho", part: "melody", of: part })).toBe("edit.echo");
    expect(code({ do: "setEcho", part: "melody", of: "bass" })).toBe("edit.echo");
    expect(code({ do: "setEcho", part: "keys", of: "melody" })).toBe("edit.echo");
    expect(code({ do: "setEcho", part: "bass", of: "drums" })).toBe("edit.echo");
    expect(code({ do: "addPart", name: "x", role: "counter", instrument: "flute", echoes: part })).toBe("edit.invalid");
    // A linked part can be echoed too, and a muted tune leaves nothing to repeat in its pass.
    const keys = edit(song, { do: "addPart", name: "Keys echo", role: "counter", instrument: "flute", echoes: "keys" });
    expect(played(keys, sure(keys.parts.find((p) => p.name === "Keys echo")).id).length).toBeGreaterThan(10);
    const silent = { ...song, form: song.form.map((p, i) => (i ? p : { ...p, muted: ["melody"] })) };
    const first = firstOf(song.form).id;
    expect(sure(realize(silent).parts.find((p) => p.id === part)).notes.filter((n) => n.pass === first)).toEqual([]);
  },
);

test(
  "its notes are judged against the chord they fall into, counted here from the chords alone; other delays are " +
    "judged alike",
  () => {
    const { song, part } = echoed(songWith({ line: "| C | Db |", melody: ["0 E4 1", "3 A4 1", "4 Ab4 1"] }), {
      delay: 480,
      repeats: 2,
    });
    const report = must(echoReport(song, { section: "s1", part }));
    const tones = (tick: number) =>
      chordPitchClasses(sure(chordOf(sure(firstOf(song.sections).chords.findLast((c) => c.start <= tick)).symbol)));
    const inChord = played(song, part).filter((n) => tones(n.start).includes(n.midi % 12)).length;
    // A falls into D flat, a semitone above its fifth: neither a tone nor a color.
    expect(report.outside.some((o) => /^A4 at bar 2.*Db/.test(o.words))).toBe(true);
    expect(report.notes).toBe(6);
    expect(report.inside).toBeGreaterThanOrEqual(inChord);
    const delays = must(echoDelays(song, { section: "s1", part }));
    const shares = delays.map((d) => d.inside / d.notes);
    expect(shares).toEqual([...shares].sort((a, b) => b - a));
    for (const d of delays) {
      const set = edit(song, { do: "setPlaying", part, section: "s1", echo: { delay: d.delay } });
      expect(must(echoReport(set, { section: "s1", part })).inside).toBe(d.inside);
    }
    expect(echoReport(song, { section: "s1", part: "melody" }).ok).toBe(false);
  },
);
