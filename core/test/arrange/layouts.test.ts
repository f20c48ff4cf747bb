import { firstOf, nth, sure } from "../../src/base/list";
import fc from "fast-check";
import { anewAt, voicingAt } from "../../src/arrange/voicing/facts";
import { factsOf } from "../../src/facts/memory";
import { follow } from "../../src/judge/follow/follow";
import { must } from "../../src/base/result";
import { parseChord } from "../../src/theory/chord/parse";
import { pitchMidi, type PitchName } from "../../src/theory/pitch/pitch";
import { storeLayouts, voiceSection } from "../../src/arrange/voicing/section";
import type { Edit } from "../../src/song/edits/list";
import type { Song } from "../../src/song/schema/song";
import { edit, songWith } from "../helpers";

const SYMBOLS = ["C", "Am7", "Dm9", "G7", "Fmaj7", "E7(b9)", "Bbmaj7", "Ebm6", "F#m7b5", "B7", "Cmaj9", "Gsus4"];
const made = (song: Song, ...changes: Edit[]): Song => changes.reduce((s, c) => edit(s, c, ...follow(s, c)), song);
const chords = (song: Song) => firstOf(song.sections).chords;
const layouts = (song: Song, part = "keys") => chords(song).map((c) => c.voicings?.[part]?.pitches.join(" ") ?? "");
const line = (symbols: readonly string[]): Edit => ({
  do: "setLine",
  section: "s1",
  line: `| ${symbols.join(" | ")} |`,
});
const progression = fc.array(fc.constantFrom(...SYMBOLS), { minLength: 4, maxLength: 9 });
const runs = { numRuns: 6, seed: 41 };

describe("what a change leaves alone", () => {
  test("whichever chord is renamed, every other layout stays", () => {
    fc.assert(
      fc.property(progression, fc.nat(), fc.constantFrom(...SYMBOLS), (symbols, at, symbol) => {
        const song = made(songWith({}), line(symbols));
        const i = at % symbols.length;
        const after = made(song, { do: "setChord", section: "s1", chord: nth(chords(song), i).id, symbol });
        const [was, is] = [layouts(song), layouts(after)];
        was.forEach((layout, k) => k !== i && expect(is[k]).toBe(layout));
        expect(is[i]).not.toBe("");
      }),
      runs,
    );
  });

  test("the new layout is the cheapest beside those that stay", () => {
    fc.assert(
      fc.property(progression, fc.nat(), (symbols, at) => {
        const song = made(songWith({}), line(symbols));
        const i = at % symbols.length;
        const after = made(song, { do: "setChord", section: "s1", chord: nth(chords(song), i).id, symbol: "Ab13" });
        const shown = must(factsOf(after).get(voicingAt, "s1", "keys"));
        const id = nth(chords(after), i).id;
        const [best] = sure(shown.alternatives[id]);
        expect(sure(best).pitches.join(" ")).toBe(layouts(after)[i]);
      }),
      runs,
    );
  });

  test("a chord that is pinned keeps its layout through any settings of the part", () => {
    fc.assert(
      fc.property(
        progression,
        fc.nat(),
        fc.constantFrom<Extract<Edit, { do: "setPlaying" }>["voicing"]>(
          { style: "shell" },
          { style: "spread" },
          { voices: 3 },
          { register: 7 },
          { school: "chorale" },
          { over: "nothing" },
          { hands: 1 },
          { topShape: "rising" },
        ),
        (symbols, at, voicing) => {
          const song = made(songWith({}), line(symbols));
          const i = at % symbols.length;
          const pinned = made(song, {
            do: "pinChords",
            section: "s1",
            chords: [nth(chords(song), i).id],
            pinned: true,
          });
          expect(layouts(pinned)).toEqual(layouts(song));
          const after = made(pinned, { do: "setPlaying", part: "keys", voicing });
          expect(layouts(after)[i]).toBe(layouts(song)[i]);
        },
      ),
      runs,
    );
  });

  test("tempo, meter names, profile, mute, drums and the tune of another part concern no layout", () => {
    const song = made(songWith({}), line(SYMBOLS));
    for (const change of [
      { do: "setTempo", tempo: 80 },
      { do: "setProfile", profile: "chorale" },
      { do: "setPart", part: "bass", muted: true },
      { do: "setPart", part: "keys", muted: true },
      { do: "setHit", section: "s1", drum: "kick", start: 0, velocity: 100 },
      { do: "addNote", section: "s1", part: "melody", note: { start: 0, duration: 480, pitch: "E5", velocity: 90 } },
      { do: "movePart", part: "keys", before: null },
    ] as Edit[])
      expect([change.do, layouts(made(song, change))]).toEqual([change.do, layouts(song)]);
  });
});

describe("laying out anew", () => {
  const anew = (song: Song) => must(factsOf(song).get(anewAt, "s1", "keys"));

  test("is offered only where it gains, gains what it says, and leaves nothing more to gain", () => {
    fc.assert(
      fc.property(
        progression,
        fc.array(fc.tuple(fc.nat(), fc.constantFrom(...SYMBOLS)), { minLength: 1, maxLength: 4 }),
        (symbols, changes) => {
          let song = made(songWith({}), line(symbols));
          expect(anew(song)).toBeNull();
          for (const [at, symbol] of changes)
            song = made(song, {
              do: "setChord",
              section: "s1",
              chord: nth(chords(song), at % symbols.length).id,
              symbol,
            });
          const before = must(factsOf(song).get(voicingAt, "s1", "keys"));
          const offer = anew(song);
          const fresh = must(voiceSection(song, "s1", "keys"));
          if (!offer) {
            expect(before.cost - fresh.cost).toBeLessThan(0.5 + 1e-6);
            return;
          }
          expect(offer.gain).toBeCloseTo(before.cost - fresh.cost, 6);
          const after = edit(song, storeLayouts("s1", "keys", offer.pitches));
          expect(layouts(after)).toEqual(fresh.chords.map((c) => c.pitches.join(" ")));
          expect(layouts(after).filter((l, i) => l !== layouts(song)[i])).toHaveLength(offer.changed);
          expect(must(factsOf(after).get(voicingAt, "s1", "keys")).motion).toBe(offer.motion[0]);
          expect(anew(after)).toBeNull();
        },
      ),
      runs,
    );
  });

  test("pinned layouts take no part in it", () => {
    const song = made(songWith({}), line(["C", "Am7", "Dm9", "G7", "C"]));
    const far: PitchName[] = ["C5", "E5", "G5"];
    const pinned = made(song, {
      do: "pinVoicing",
      section: "s1",
      part: "keys",
      chord: firstOf(chords(song)).id,
      pitches: far,
    });
    const offer = anew(pinned);
    if (offer) expect(offer.pitches[firstOf(chords(pinned)).id]).toEqual(far);
    expect(
      layouts(edit(pinned, storeLayouts("s1", "keys", { [firstOf(chords(pinned)).id]: ["C3", "E3", "G3"] })))[0],
    ).toBe("C5 E5 G5");
  });
});

test("what is shown of a layout is what is stored, also where the style would never have found it", () => {
  const song = made(songWith({}), line(["C", "F", "G7", "C"]));
  const odd = edit(
    song,
    storeLayouts("s1", "keys", { ...stored(song), [nth(chords(song), 1).id]: ["F2", "C5", "F5", "A5"] }),
  );
  const shown = must(factsOf(odd).get(voicingAt, "s1", "keys"));
  expect(shown.chords.map((c) => c.pitches.join(" "))).toEqual(layouts(odd));
  expect(nth(shown.chords, 1).motion).toBeGreaterThan(0);
  expect(sure(shown.alternatives[nth(chords(odd), 1).id]).length).toBeGreaterThan(3);
  for (const c of shown.chords)
    expect(c.pitches.map(pitchMidi)).toEqual([...c.pitches.map(pitchMidi)].sort((a, b) => a - b));
  expect(must(parseChord("F")).root).toBe("F");
});

const stored = (song: Song): Record<string, PitchName[]> =>
  Object.fromEntries(chords(song).map((c) => [c.id, sure(sure(c.voicings).keys).pitches]));
