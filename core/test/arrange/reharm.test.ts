import { firstOf, lastOf, nth, sure } from "../../src/base/list";
import { adaptBass } from "../../src/write/bass/adapt";
import { applyEdit } from "../../src/song/edits";
import { describeChange, reharmonize, reharmonizations } from "../../src/arrange/reharm/reharmonize";
import { judgeProgression } from "../../src/arrange/reharm/verdict";
import { must } from "../../src/base/result";
import { parseChord } from "../../src/theory/chord/parse";
import { parseKey } from "../../src/theory/pitch/key";
import { reharmonizeSection } from "../../src/arrange/reharm/section";
import { TECHNIQUES } from "../../src/arrange/reharm/techniques";
import type { Song } from "../../src/song/schema/song";
import { edit, songWith } from "../helpers";

const section = (song: Song) => firstOf(song.sections);
const ids = (song: Song, ...indices: number[]) => indices.map((i) => nth(section(song).chords, i).id);
const offers = (song: Song, index: number, technique: string, more: number[] = []) =>
  reharmonize({ song, section: "s1", chordIds: ids(song, index, ...more), range: 0.5, techniques: [technique] }).map(
    (c) => c.chords.map((x) => x.symbol).join(" "),
  );

describe("techniques (as in the source that each names)", () => {
  test.each<[string, string, number, string, string?]>([
    ["relative", "| C | F | G7 | C |", 0, "Am"],
    ["color", "| C | F | G7 | C |", 2, "G13"],
    ["suspension", "| C | F | G7 | C |", 2, "G7sus4 G7"],
    ["inversion", "| C | G | Am | F |", 1, "G/B"],
    ["pedal", "| C | F | G | C |", 1, "F/C G/C"],
    ["other-bass", "| C | Am | Dm | G |", 1, "Am/F"],
    ["applied-dominant", "| C | C | Dm | G |", 1, "C A7"],
    ["two-five", "| C | G7 | C | F |", 1, "Dm7 G7"],
    ["tritone", "| Dm7 | G7 | C | F |", 1, "Db7"],
    ["backdoor", "| C | G7 | C | F |", 1, "Bb9"],
    ["borrowed", "| C | F | C | G |", 1, "Fm"],
    ["dominant-two", "| C | F | G | C |", 1, "D7"],
    ["raised-third", "| C | Dm7 | G7 | C |", 1, "D7"],
    ["applied-dominant", "| C | C | Dm | G |", 1, "A7"],
    ["applied-dominant", "| C | F | C | F |", 2, "C7"],
    ["altered-dominant", "| C | A7 | Dm | G7 |", 1, "A7(b13)"],
    ["altered-dominant", "| Am | E7 | Am | G |", 1, "E7(#9)"],
    ["tritone", "| Dm7 | G7 | C | F |", 1, "Abm7 Db7"],
    ["neapolitan", "| Cm | Fm | G7 | Cm |", 1, "Db/F"],
    ["neapolitan", "| Eb | Ab | Bb7 | Eb |", 1, "Fb/Ab"],
    ["third-cycle", "| C | F | G | C |", 0, "C Ab E C"],
    ["third-cycle", "| Dm7 | G7 | Cmaj7 | Cmaj7 |", 0, "Dm7 Eb7 Abmaj7 B7 Emaj7 G7"],
    ["homeward", "| C | D7 | G7 | C |", 1, "Dm7"],
    ["two-five", "| B7 | G | Em | B7 |", 1, "G F#m7b5 B7(b9)"],
    ["rootless-dominant", "| C | D7 | G7 | C |", 1, "F#m7b5"],
    ["passing-diminished", "| C | Dm | G | C |", 0, "C C#dim7"],
    ["common-tone-diminished", "| F | C | G | C |", 1, "Cdim7 C"],
    ["chromatic-dominant", "| Dm7 | C | G | C |", 0, "Dm7 Db7"],
    ["line-cliche", "| Am | F | G | C |", 0, "Am AmMaj7 Am7 Am6"],
    ["chromatic-mediant", "| C | F | G | C |", 0, "Ab"],
    ["deceptive", "| F | G7 | C | F |", 2, "Am"],
    ["delayed", "| F | G7 | C | F |", 2, "G7/C C"],
    ["quartal", "| Dm7 | G7 | C | F |", 1, "G9sus4"],
    ["turnaround", "| C | F | G | C |", 3, "Cmaj7 Am7 Dm7 G7"],
    ["rhythm-double", "| C | F | G | C |", 0, "C Am"],
    ["rhythm-half", "| C | Am | G | C |", 0, "C"],
    ["thinning", "| Cmaj9 | F | G | C |", 0, "C"],
  ])("%s in %s, chord %i: %s", (technique, line, index, expected) => {
    expect(offers(songWith({ line }), index, technique)).toContain(expected);
  });

  test("constant structure slides over the chosen row", () => {
    expect(offers(songWith({ line: "| Cmaj7 | Am7 | Dm7 | G7 |" }), 0, "planing", [1, 2, 3])).toContain(
      "Cmaj7 Amaj7 Dmaj7 Gmaj7",
    );
  });

  test("there are more than twenty, each a full card; every one is shown above or has its row", () => {
    expect(TECHNIQUES.length).toBeGreaterThanOrEqual(26);
    expect(new Set(TECHNIQUES.map((t) => t.id)).size).toBe(TECHNIQUES.length);
    for (const t of TECHNIQUES)
      expect([t.id, t.title && t.explanation.length > 40 && t.source && Object.keys(t.words).length > 0]).toEqual([
        t.id,
        true,
      ]);
  });

  test("every proposal in many surroundings fills exactly its time with readable chords, says why, and keeps all others", () => {
    for (const [line, key, meter] of [
      ["| Cmaj7 | Am7 D7 | Dm7 G7 | Em7b5 A7(b9) | F/A Fm | Db7 C6/9 | Bdim7 | C |", "C major", "4/4"],
      ["| Cm9 | Ab7 G7 | Fm | Bb9sus4 Bb7 | Ebmaj9 | D7(#9) | Gm/Bb | C5 |", "C minor", "3/4"],
      ["| Dm7 | G | F#dim7 G | C | N.C. | Am Am/G | F |", "D dorian", "6/8"],
    ] as const) {
      const song = songWith({ line, key, meter });
      const chords = section(song).chords;
      for (const chord of chords) {
        if (chord.symbol === "N.C.") continue;
        for (const range of [0, 1])
          for (const c of reharmonize({ song, section: "s1", chordIds: [chord.id], range })) {
            expect(c.chords.reduce((s, x) => s + x.duration, 0)).toBe(c.to - c.from);
            for (const x of c.chords)
              expect([c.technique, x.symbol, parseChord(x.symbol).ok]).toEqual([c.technique, x.symbol, true]);
            expect(describeChange(c.reasons[0])).not.toMatch(/\{|undefined|^\w+\.\w+$/);
            const outside = chords.filter((x) => x.start + x.duration <= c.from || x.start >= c.to);
            expect(c.events.filter((e) => outside.some((o) => o.id === e.id))).toEqual(outside);
            expect(c.adventure).toBeGreaterThanOrEqual(0);
            expect(c.adventure).toBeLessThanOrEqual(1);
          }
      }
    }
  });
});

describe("reharmonizing a selection", () => {
  const line = "| Cmaj7 | Am7 | Dm7 | G7 |";

  test("close comes before adventurous, and the other way around", () => {
    const song = songWith({ line });
    const mean = (range: number) => {
      const first = reharmonize({ song, section: "s1", chordIds: ids(song, 2, 3), range }).slice(0, 6);
      return first.reduce((s, c) => s + c.adventure, 0) / first.length;
    };
    expect(mean(0)).toBeLessThan(mean(0.5));
    expect(mean(0.5)).toBeLessThan(mean(1));
  });

  test("a tune that would clash is named with note and beat, and puts a candidate behind those that fit", () => {
    // C over the place of the dominant: a suspended chord holds it, the plain triad clashes.
    const song = songWith({ line: "| C | G | C |", melody: ["4 C5 4"] });
    const found = reharmonize({ song, section: "s1", chordIds: ids(song, 1), range: 0.3 });
    const rubbing = found.filter((c) => c.melody.clashes.length);
    expect(firstOf(rubbing).melody.clashes[0]).toMatch(
      /^Voice: C5 at bar 2, beat [13] would be the .+ of .+, [24] beats$/,
    );
    expect(found.findIndex((c) => !c.melody.clashes.length)).toBeLessThan(found.indexOf(firstOf(rubbing)));
    for (const c of found) {
      const worst = sure(c.terms.find((t) => t.name === "melody")).cost;
      if (!c.melody.clashes.length) expect(worst).toBeLessThan(1);
    }
  });

  test("pinned chords stay, switched-off techniques are silent, and what cannot be done is said", () => {
    const song = songWith({ line });
    const pinned = edit(song, { do: "pinChords", section: "s1", chords: ids(song, 2), pinned: true });
    const kept = nth(section(pinned).chords, 2);
    for (const c of reharmonize({ song: pinned, section: "s1", chordIds: ids(song, 0, 1, 2, 3), range: 0.5 }))
      expect(c.events).toContainEqual(kept);
    expect(reharmonizations({ song: pinned, section: "s1", chordIds: [kept.id], range: 0 })).toMatchObject({
      ok: false,
      error: { code: "reharm.pinned" },
    });
    expect(reharmonizations({ song, section: "s1", chordIds: [], range: 0 })).toMatchObject({
      ok: false,
      error: { code: "reharm.none" },
    });
    expect(
      reharmonize({ song, section: "s1", chordIds: ids(song, 3), range: 1, techniques: ["tritone"] }).every(
        (c) => c.technique === "tritone",
      ),
    ).toBe(true);
  });

  test("an offer is one edit: taken and undone it leaves nothing behind", () => {
    const song = songWith({ line });
    const [c] = reharmonize({ song, section: "s1", chordIds: ids(song, 3), range: 0.6, techniques: ["tritone"] });
    const taken = must(
      applyEdit(song, { do: "setChords", section: "s1", from: sure(c).from, to: sure(c).to, chords: sure(c).chords }),
    ).song;
    expect(section(taken).chords.map((x) => x.symbol)).toEqual(["Cmaj7", "Am7", "Dm7", "Db7"]);
    expect(nth(section(taken).chords, 3).why).toMatchObject({ id: "tritone.bass" });
    expect(section(taken).chords.slice(0, 3)).toEqual(section(song).chords.slice(0, 3));
  });

  test(
    "the bass can follow: what stood on the root goes to the new root, a held note is struck again, pinned notes " +
      "stay",
    () => {
      const song = songWith({ line: "| C | G7 | C |", bass: ["0 C2 4", "4 G2 2", "6 B2 2", "8 C2 4"] });
      const after = edit(song, {
        do: "setChords",
        section: "s1",
        from: 1920,
        to: 3840,
        chords: [{ start: 1920, duration: 1920, symbol: "Db7" }],
      });
      const change = sure(adaptBass(song, after, { section: "s1", part: "bass", span: [1920, 3840] }));
      expect(sure(section(edit(after, change)).notes.bass).map((n) => n.pitch)).toEqual(
        ["C2", "Db2", "Cb3", "C2"].map((p) => (p === "Cb3" ? expect.stringMatching(/^(B2|Cb3)$/) : p)),
      );
      const split = edit(song, {
        do: "setChords",
        section: "s1",
        from: 0,
        to: 1920,
        chords: [
          { start: 0, duration: 960, symbol: "C" },
          { start: 960, duration: 960, symbol: "A7(b9)" },
        ],
      });
      const held = sure(
        section(edit(split, sure(adaptBass(song, split, { section: "s1", part: "bass", span: [0, 1920] })))).notes.bass,
      );
      expect(held.slice(0, 2).map((n) => [n.pitch, n.start, n.duration])).toEqual([
        ["C2", 0, 960],
        ["A1", 960, 960],
      ]);
      expect(adaptBass(song, song, { section: "s1", part: "bass", span: [0, 5760] })).toBeNull();
    },
  );
});

describe("reharmonizing a section", () => {
  const song = songWith({ line: "| Cmaj7 | Am7 | Dm7 | G7 |", melody: ["0 E5 4", "4 C5 4", "8 F5 4", "12 D5 4"] });

  test("the wanted range moves whole progressions; at the close end what is written wins", () => {
    const close = must(reharmonizeSection({ song, section: "s1", range: 0 }));
    expect(close[0]).toMatchObject({ technique: "as written", changed: 0 });
    const far = must(reharmonizeSection({ song, section: "s1", range: 0.8 }));
    expect(firstOf(far).changed).toBeGreaterThan(2);
    expect(far.map((p) => p.cost)).toEqual([...far.map((p) => p.cost)].sort((a, b) => a - b));
    // Clearly different from each other: at least a quarter of the four places, here one.
    expect(new Set(far.map((p) => p.events.map((e) => `${e.symbol}@${e.start}`).join())).size).toBe(far.length);
    for (const p of [...close, ...far]) expect(p.events.reduce((s, e) => s + e.duration, 0)).toBe(4 * 1920);
  });

  test("pins, chosen techniques and the tune are obeyed", () => {
    const pinned = edit(song, {
      do: "pinChords",
      section: "s1",
      chords: [firstOf(section(song).chords).id, nth(section(song).chords, 3).id],
      pinned: true,
    });
    for (const p of must(
      reharmonizeSection({
        song: pinned,
        section: "s1",
        range: 0.7,
        techniques: ["borrowed", "applied-dominant", "tritone", "relative"],
      }),
    )) {
      expect(firstOf(p.events).symbol).toBe("Cmaj7");
      expect(lastOf(p.events).symbol).toBe("G7");
      for (const r of p.reasons)
        expect(["borrowed", "applied-dominant", "tritone", "relative"]).toContain(r.id.split(".")[0]);
    }
    expect(firstOf(must(reharmonizeSection({ song, section: "s1", range: 0.5 }))).clashes).toEqual([]);
    expect(reharmonizeSection({ song: songWith({ line: "| C |" }), section: "s1", range: 0.5 })).toMatchObject({
      ok: false,
      error: { code: "reharm.short" },
    });
  });

  test("a leading chord is only used while what it leads to stays", () => {
    for (const p of must(
      reharmonizeSection({
        song,
        section: "s1",
        range: 0.5,
        techniques: ["applied-dominant", "relative", "chromatic-mediant"],
        k: 8,
      }),
    )) {
      p.events.forEach((e, i) => {
        if (e.why?.id !== "applied-dominant.leads" || p.events[i + 1]?.why === e.why) return;
        const next = nth(p.events, (i + 1) % p.events.length);
        expect((parseRoot(next.symbol) - parseRoot(e.symbol) + 12) % 12).toBe(5);
      });
    }
  });
  const parseRoot = (symbol: string) => firstOf(must(parseKey(`${must(parseChord(symbol)).root} major`)).pcs);
});

test("a progression that works is left in peace; one whose tune clashes is not", () => {
  expect(judgeProgression(songWith({ line: "| C | Am | F | G |" }), "s1")).toMatchObject({
    enough: true,
    text: expect.stringContaining("It needs nothing"),
  });
  expect(judgeProgression(songWith({ line: "| C | G | C | G |", melody: ["0 F#5 4"] }), "s1")).toMatchObject({
    enough: false,
    text: expect.stringContaining("1 note of the tune clashes"),
  });
});
