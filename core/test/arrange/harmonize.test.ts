import { firstOf, lastOf, nth, sure } from "../../src/base/list";
import { analyzeProgression } from "../../src/hear/harmony/analyze";
import { describeChange } from "../../src/arrange/reharm/reharmonize";
import { harmonizations, harmonizeBass, harmonizeMelody } from "../../src/arrange/reharm/harmonize";
import { must } from "../../src/base/result";
import { parseChord } from "../../src/theory/chord/parse";
import type { Song } from "../../src/song/schema/song";
import { edit, songWith } from "../helpers";

const section = (song: Song) => firstOf(song.sections);
const ids = (song: Song, ...indices: number[]) => indices.map((i) => nth(section(song).chords, i).id);

describe("harmonizing a line", () => {
  const scale = ["0 C5 1", "1 D5 1", "2 E5 1", "3 F5 1", "4 G5 2", "6 E5 2", "8 F5 2", "10 D5 2", "12 C5 4"];
  const tune = edit(songWith({ melody: scale }), { do: "setSection", section: "s1", bars: 4 });

  test("a tune gets chords that hold its long notes, a cadence at the end, and a reason each", () => {
    for (const rhythm of ["bar", "half bar", "beat", "free"] as const) {
      const [best] = harmonizeMelody({ song: tune, section: "s1", part: "melody", rhythm });
      expect(sure(best).events.reduce((s, e) => s + e.duration, 0)).toBe(4 * 1920);
      const analyzed = analyzeProgression(sure(best).events, "C major");

      expect([rhythm, lastOf(analyzed).roman.replace("maj7", "")]).toEqual([rhythm, "I"]);
      for (const e of sure(best).events) expect(describeChange(e.why)).toMatch(/in C major: holds .* of the tune/);
      expect(sure(best).clashes.length).toBeLessThanOrEqual(1);
    }
    const open = harmonizeMelody({
      song: edit(tune, {
        do: "setNotes",
        section: "s1",
        part: "melody",
        notes: [
          { start: 0, duration: 5760, pitch: "E5", velocity: 90 },
          { start: 5760, duration: 1920, pitch: "D5", velocity: 90 },
        ],
      }),
      section: "s1",
      part: "melody",
      rhythm: "bar",
      ending: "open",
    });
    expect(lastOf(analyzeProgression(firstOf(open).events, "C major")).function).toBe("dominant");
  });

  test("the harmonic rhythm is what was chosen, alternatives differ, and pinned chords stay", () => {
    const list = harmonizeMelody({ song: tune, section: "s1", part: "melody", rhythm: "bar", k: 4 });
    expect(list).toHaveLength(4);
    for (const h of list) for (const e of h.events) expect(e.start % 1920).toBe(0);
    expect(new Set(list.map((h) => h.events.map((e) => e.symbol).join())).size).toBe(4);
    const withChord = edit(tune, { do: "setLine", section: "s1", line: "| C | Em | F | C |" });
    const pinned = edit(withChord, { do: "pinChords", section: "s1", chords: ids(withChord, 1), pinned: true });
    for (const h of harmonizeMelody({ song: pinned, section: "s1", part: "melody", rhythm: "half bar" }))
      expect(h.events).toContainEqual(section(pinned).chords[1]);
  });

  test("a bass line is the bass of its chords, as root or inversion", () => {
    const bass = songWith({
      line: "| N.C. | N.C. | N.C. | N.C. | N.C. |",
      bass: ["0 C2 4", "4 B1 4", "8 A1 4", "12 G1 2", "14 G1 2", "16 C2 4"],
    });
    const [best] = harmonizeBass({ song: bass, section: "s1", part: "bass", rhythm: "bar" });
    const sounding = sure(best)
      .events.map((e) => must(parseChord(e.symbol)))
      .map((c) => c.bass ?? c.root);
    expect(sounding.slice(0, 4).join()).toBe("C,B,A,G");
    expect(nth(sure(best).events, 1).symbol).toMatch(/\/B$/);
    expect(lastOf(sure(best).events).symbol).toMatch(/^C(maj7)?$/);
    expect(describeChange(nth(sure(best).events, 1).why)).toContain("of the bass line");
  });

  test("a minor tune ends in minor, with the raised seventh in its cadence", () => {
    const minor = edit(
      songWith({ key: "A minor", melody: ["0 A4 2", "2 C5 2", "4 D5 4", "8 B4 2", "10 G#4 2", "12 A4 4"] }),
      {
        do: "setSection",
        section: "s1",
        bars: 4,
      },
    );
    const symbols = firstOf(harmonizeMelody({ song: minor, section: "s1", part: "melody", rhythm: "bar" })).events.map(
      (e) => e.symbol,
    );
    expect(symbols.slice(-2)).toEqual([expect.stringMatching(/^E7?$/), expect.stringMatching(/^Am/)]);
  });

  test("a part without notes is an error that says so", () => {
    expect(
      harmonizations({ song: songWith({ line: "| C |" }), section: "s1", part: "melody", rhythm: "bar" }, "melody"),
    ).toMatchObject({
      ok: false,
      error: { code: "harmonize.empty" },
    });
    expect(harmonizations({ song: tune, section: "s1", part: "nobody", rhythm: "bar" }, "melody")).toMatchObject({
      ok: false,
      error: { code: "harmonize.place" },
    });
  });
});
