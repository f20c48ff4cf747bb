import { firstOf, nth, sure } from "../../src/base/list";
import fc from "fast-check";
import { bringsAt } from "../../src/arrange/room/brings";
import { checkSong, createChecker } from "../../src/judge/check/check";
import { factsOf } from "../../src/facts/memory";
import { momentAt, momentsOf } from "../../src/judge/check/moment";
import { must } from "../../src/base/result";
import { realize } from "../../src/song/realize";
import { tryFixes } from "../../src/judge/check/verify";
import type { Song } from "../../src/song/schema/song";
import { cleanSong, INJECTORS } from "./putFaults";
import { demoSongs } from "../demos";
import { edit, songWith } from "../helpers";
import { withLines } from "./lines";

describe("a moment", () => {
  test("holds everything that sounds then, high to low, with what each is over the chord, the bass and under the tune", () => {
    const song = withLines("| C | F |", {
      Tune: ["0 G4 4", "4 A4 4"],
      Alto: ["0 E4 2", "2 F4 2"],
      Bass: ["0 C3 4", "4 F2 4"],
    });
    const first = must(momentAt(song, "s1", 0));
    expect([
      first.where,
      first.chord,
      first.notes.map((n) => [n.name, n.pitch, n.role, n.overBass, n.toTune, n.struck]),
    ]).toEqual([
      "bar 1, beat 1",
      "C",
      [
        ["Tune", "G4", "fifth", "twelfth", null, true],
        ["Alto", "E4", "major third", "major tenth", "minor third below", true],
        ["Bass", "C3", "root", null, "twelfth below", true],
      ],
    ]);
    const second = must(momentAt(song, "s1", 960));
    expect(second.notes.map((n) => n.struck)).toEqual([false, true, false]);
    expect(nth(second.notes, 1).role).toMatch(/fourth|eleventh/);
    expect(first.roughness).toBeGreaterThan(0);
    expect(must(momentsOf(song, "s1")).map((m) => m.tick)).toEqual([0, 960, 1920]);
    expect(momentAt(song, "nowhere", 0).ok).toBe(false);
  });

  test("agrees with the notes of the realized song at any tick", () => {
    fc.assert(
      fc.property(fc.constantFrom(...demoSongs()), fc.nat(7679), (song, tick) => {
        const section = firstOf(song.sections).id;
        const found = must(momentAt(song, section, tick));
        const sounding = realize(song, { section, harmony: true }).parts.flatMap((p) =>
          p.notes.filter((n) => n.start <= found.tick && found.tick < n.start + n.duration).map((n) => n.midi),
        );
        expect(found.notes.map((n) => n.midi)).toEqual(sounding.sort((a, b) => b - a));
        expect(found.tick).toBeLessThanOrEqual(tick);
      }),
      { numRuns: 60, seed: 2 },
    );
  });
});

describe("what a layer brings", () => {
  const brings = (song: Song) =>
    new Map(
      factsOf(song)
        .get(bringsAt, "s1")
        .map((b) => [b.name, b]),
    );

  test("a unison double brings nothing, the first of the two stays; a line on unused steps brings all of its attacks", () => {
    const tune = ["0 C4 1", "1 D4 1", "2 E4 2"];
    const rows = brings(withLines("| C |", { Tune: tune, Double: tune, Off: ["0.5 G4 0.25", "1.5 A4 0.25"] }));
    const [double, off] = [sure(rows.get("Double")), sure(rows.get("Off"))];
    expect([double.ownAttacks, double.ownOctaves, double.ownTones]).toEqual([0, 0, 0]);
    expect([...rows.values()].filter((r) => r.spare).map((r) => r.name)).toHaveLength(1);
    expect([off.ownAttacks, off.ownTones, off.spare]).toEqual([1, 1, null]);
  });

  test("an octave double brings its octave and no tone; shares are those of the time, counted tick by tick", () => {
    const rows = brings(withLines("| C |", { Tune: ["0 C5 2", "2 E5 2"], Low: ["0 C3 4"] }));
    expect(rows.get("Low")).toMatchObject({ ownAttacks: 0, ownOctaves: 1, ownTones: 0.5 });
    expect(sure(rows.get("Tune")).ownAttacks).toBe(0.5);
    // A drum on the beat takes the attack as well.
    const drummed = edit(withLines("| C |", { Tune: ["0 C5 2", "2 E5 2"] }), {
      do: "setHit",
      section: "s1",
      drum: "snare",
      start: 960,
      velocity: 80,
    });
    expect(sure(brings(drummed).get("Tune")).ownAttacks).toBe(0.5);
    expect(factsOf(drummed).get(bringsAt, "nowhere")).toEqual([]);
  });
});

describe("fixes are tried", () => {
  test("every fix of a fault that was put in mends it; what it would bring is found by a check of the whole song", () => {
    let seed = 7;
    const pick = (n: number) => {
      seed = (seed * 16807) % 2147483647;
      return seed % n;
    };
    const checker = createChecker();
    let tried = 0;
    for (const [i, rule] of Object.keys(INJECTORS).entries()) {
      const faulty = sure(INJECTORS[rule])({ ...cleanSong(i % 10, 0), pick });
      if (!faulty) continue;
      const before = new Set(checkSong(faulty.song).flatMap((f) => f.places.map((p) => `${f.rule}|${p.tick}`)));
      for (const f of checker.section(faulty.song, "s1"))
        for (const place of f.places.slice(0, 2))
          for (const t of tryFixes(faulty.song, f, { fixes: place.fixes, ids: [place.id], checker })) {
            tried++;
            const after = edit(faulty.song, t.fix.edit);
            const grave = (s: string) => ["fault", "warning", "note"].indexOf(s);
            const now = checkSong(after).filter((x) => grave(x.severity) <= grave(f.severity));
            const added = now
              .flatMap((x) => x.places.map((p) => `${x.rule}|${p.tick}`))
              .filter((id) => !before.has(id));
            expect([f.rule, t.fix.label, t.mends]).toEqual([f.rule, t.fix.label, true]);
            // By rule and place alone it cannot be more than what is told.
            if (t.brings === null) expect([f.rule, t.fix.label, added]).toEqual([f.rule, t.fix.label, []]);
          }
    }
    expect(tried).toBeGreaterThan(10);
  });

  test("a fix that cannot be made mends nothing, nor does one that leaves the fault with another pitch", () => {
    const song = edit(songWith({ line: "| C |", bass: ["0 C#2 4"] }));
    const [f] = checkSong(song).filter((x) => x.rule === "long-outside");
    const [bad, gone] = tryFixes(song, sure(f), {
      fixes: [
        {
          label: "worse",
          edit: {
            do: "changeNotes",
            section: "s1",
            part: "bass",
            notes: [{ id: firstOf(sure(f).where.notes), pitch: "F#2" }],
          },
        },
        { label: "nobody", edit: { do: "removeNotes", section: "s1", part: "bass", notes: ["nobody"] } },
      ],
      ids: [firstOf(sure(f).places).id],
    });
    // Another foreign note in its place is the same fault.
    expect([sure(bad).mends, gone]).toEqual([false, { fix: sure(gone).fix, mends: false, brings: null }]);
  });
});
