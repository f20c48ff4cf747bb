import { BASS_STYLES, describeReason, must, reportBass, tryWriteBass } from "../src/index";
import { demoSongs } from "../../demo/songs";
import { edit, songWith } from "./helpers";

describe("bass writer", () => {
  const progressions = [
    "| Ebmaj9 | Cm7 F7sus4 F7 | Bbm7 Eb9 | Abmaj7 |",
    "| Dm7 | G7 | C | C |",
    "| Am | F | C | G/B |",
    "| C7 . . F7 | % | G7 F7 | C7 |",
    "| Em7b5 A7(b9) | Dm9 | Bb13 | A7 |",
  ];
  const kicks: [number, number][][] = [
    [0, 4, 8, 12].map((b) => [b, 100]),
    [0, 1.5, 2.75, 4, 5.5, 8, 9.5, 10.75, 12, 13.5].map((b) => [b, b % 4 === 0 ? 110 : 90]),
    [],
  ];
  const grid = progressions.flatMap((line) =>
    kicks.flatMap((k) => ["4/4", "3/4", "7/8"].flatMap((meter) => BASS_STYLES.map((s) => ({ line, k, meter, style: s.id })))),
  );

  test("on a grid of progressions, kicks, meters and styles every line meets its targets or names the conflict", () => {
    for (const { line, k, meter, style } of grid) {
      if (meter !== "4/4" && line.includes(". .")) continue;
      const place = `${style} ${meter} ${line} ${k.length}`;
      const song = songWith({
        key: "C major",
        meter,
        line,
        kicks: k.filter(([b]) => b < (meter === "4/4" ? 16 : meter === "3/4" ? 12 : 14)),
      });
      const lines = must(tryWriteBass(song, { section: "s1", part: "bass", style, seed: 4 }));
      expect([place, lines.length > 1]).toEqual([place, true]);
      for (const { notes, report, conflicts } of lines) {
        const targets = BASS_STYLES.find((s) => s.id === style)!.targets;
        expect([place, report.accentsMet]).toEqual([place, report.accents]);
        expect([place, report.withoutReason, report.approachesResolved]).toEqual([place, 0, report.approaches]);
        expect([place, report.longestOutside <= targets.longestOutside * 720]).toEqual([place, true]);
        if (report.pitchClasses > targets.pitchClasses)
          expect([place, conflicts.map((c) => c.code)]).toEqual([place, expect.arrayContaining(["pitchClasses"])]);
        if (!k.length) expect(conflicts[0]!.code).toBe("noKick");
        expect([place, report.lastBarVaried]).toEqual([place, true]);
        for (const n of notes) expect(describeReason(n.reason)).not.toMatch(/undefined|\{/);
      }
    }
  });
  test("the same seed gives the same lines; another seed others", () => {
    const song = demoSongs()[1]!;
    const write = (seed: number) =>
      JSON.stringify(must(tryWriteBass(song, { section: "s1", part: "bass", style: "kick-locked", seed })).map((l) => l.notes));
    expect(write(1)).toBe(write(1));
    expect(write(1)).not.toBe(write(2));
  });
  test("pinned notes stay as they are, and what they prevent is named", () => {
    const base = songWith({
      line: "| C | N.C. | F | G |",
      kicks: [
        [0, 100],
        [2, 100],
        [4, 100],
        [8, 100],
        [12, 100],
      ],
    });
    const song = edit(base, {
      do: "setNotes",
      section: "s1",
      part: "bass",
      notes: [{ start: 480, duration: 960, pitch: "C#2", velocity: 80, pinned: true }],
    });
    for (const { notes, conflicts } of must(tryWriteBass(song, { section: "s1", part: "bass", style: "root-fifth-octave", seed: 1 }))) {
      expect(notes.filter((n) => n.pinned)).toEqual(song.sections[0]!.notes.bass);
      expect(notes.some((n) => !n.pinned && n.start < 1440 && n.start + n.duration > 480)).toBe(false);
      expect(notes.some((n) => n.start >= 1920 && n.start < 3840)).toBe(false);
      expect(conflicts.map((c) => c.code)).toEqual(expect.arrayContaining(["noChord", "held", "pin"]));
    }
    expect(tryWriteBass(songWith({}), { section: "s1", part: "bass" })).toMatchObject({ ok: false, error: { code: "bass.chords" } });
    expect(tryWriteBass(song, { section: "s1", part: "bass", style: "polka" })).toMatchObject({ ok: false, error: { code: "bass.style" } });
  });
  test("glides lead into the next note", () => {
    const [line] = must(
      tryWriteBass(
        songWith({
          line: "| C | F | C | G |",
          kicks: [
            [0, 100],
            [4, 100],
            [8, 100],
            [12, 100],
          ],
        }),
        { section: "s1", part: "bass", style: "root-anchored", settings: { glides: true } },
      ),
    );
    const gliding = line!.notes.filter((n) => n.glideTo);
    expect(gliding.length).toBeGreaterThan(0);
    for (const n of gliding) expect(line!.notes.find((m) => m.start === n.start + n.duration)!.pitch).toBe(n.glideTo);
  });
  test("the report measures what is there", () => {
    const song = songWith({
      line: "| C | C |",
      kicks: [
        [0, 100],
        [2, 100],
        [4, 100],
      ],
      bass: ["0 C2 1", "1 D2 0.5", "1.5 E2 0.5", "4 C2 2", "6 F#2 1"],
    });
    const report = must(reportBass(song, { section: "s1", part: "bass" }));
    expect(report).toMatchObject({
      notes: 5,
      accents: 3,
      accentsMet: 2,
      offKick: 3,
      pitchClasses: 4,
      approaches: 2,
      approachesResolved: 1,
      withoutReason: 1,
      longestOutside: 480,
      missed: [960],
      lastBarVaried: true,
    });
    expect(report.chordTime).toBeCloseTo(3.5 / 5);
    expect(report.silence).toBeCloseTo(3 / 8);
  });
});
