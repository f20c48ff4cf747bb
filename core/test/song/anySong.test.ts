import { firstOf } from "../../src/base/list";
import fc from "fast-check";
import { adaptBass } from "../../src/write/bass/adapt";
import { analyzeSection } from "../../src/hear/harmony/analyze";
import { applyEdit } from "../../src/song/edits";
import { bendTone, COLORS, moveBySemitones, moveInScale, toggleColor } from "../../src/theory/chord/modify";
import { checkSong } from "../../src/judge/check/check";
import { chordSymbol } from "../../src/theory/chord/chord";
import { describeChange, reharmonize } from "../../src/arrange/reharm/reharmonize";
import { fittingScales, tensions } from "../../src/hear/harmony/scales";
import { judgeProgression } from "../../src/arrange/reharm/verdict";
import { must } from "../../src/base/result";
import { newSong, parseSong } from "../../src/song/document";
import { parseChord } from "../../src/theory/chord/parse";
import { parseKey } from "../../src/theory/pitch/key";
import { parseMeter } from "../../src/theory/time/meter";
import { parseNumeral, romanOf } from "../../src/theory/chord/numerals";
import { reharmonizeSection } from "../../src/arrange/reharm/section";
import { RHYTHMS } from "../../src/arrange/reharm/choices";
import { harmonizations } from "../../src/arrange/reharm/harmonize";
import { voiceSection } from "../../src/arrange/voicing/section";
import { VOICING_STYLES } from "../../src/arrange/voicing/styles";
import type { Song } from "../../src/song/schema/song";

/**
 * Songs nobody would write, in rare keys, odd meters and spellings: nothing may throw, and every offer can be taken and
 * stored.
 */
const ROOTS = ["C", "C#", "Db", "D#", "Eb", "E", "F", "F#", "Gb", "G#", "Ab", "A", "A#", "B", "Cb", "Fb", "E#", "B#"];
const QUALITIES = [
  "",
  "m",
  "7",
  "maj7",
  "m7b5",
  "dim7",
  "aug",
  "5",
  "sus4",
  "9sus4",
  "7(b9,#9,#11,b13)",
  "13",
  "m11",
  "6/9",
  "mMaj7",
  "maj7(no3)",
  "(add9)",
];
const root = fc.constantFrom(...ROOTS);
const symbol = fc
  .tuple(root, fc.constantFrom(...QUALITIES), fc.option(root, { freq: 5 }))
  .map(([r, q, bass]) => r + q + (bass ? `/${bass}` : ""));
const bar = fc.array(fc.oneof({ weight: 9, arbitrary: symbol }, { weight: 1, arbitrary: fc.constant("N.C.") }), {
  minLength: 1,
  maxLength: 3,
});
const notes = fc.array(
  fc.record({
    start: fc.integer({ min: 0, max: 15 }).map((i) => i * 240),
    duration: fc.constantFrom(240, 480, 960),
    pitch: fc.constantFrom("C5", "Eb5", "F#5", "A4", "Bb4", "E5", "Cb5"),
    velocity: fc.constant(80),
  }),
  { maxLength: 10 },
);
const song = fc
  .record({
    key: fc.constantFrom(
      "C major",
      "F# major",
      "D# minor",
      "Ab minor",
      "E phrygian",
      "B locrian",
      "F lydian",
      "Cb major",
    ),
    meter: fc.constantFrom("4/4", "3/4", "6/8", "7/8", "5/4"),
    bars: fc.array(bar, { minLength: 3, maxLength: 7 }),
    melody: notes,
    bass: notes,
  })
  .map(({ key, meter, bars, melody, bass }): Song => {
    const length = bars.length * must(parseMeter(meter)).bar;
    const inside = (list: typeof melody) => list.filter((n) => n.start < length);
    return [
      { do: "setLine" as const, section: "s1", line: `| ${bars.map((b) => b.join(" ")).join(" | ")} |` },
      { do: "setNotes" as const, section: "s1", part: "melody", notes: inside(melody) },
      { do: "setNotes" as const, section: "s1", part: "bass", notes: inside(bass) },
    ].reduce((s, e) => must(applyEdit(s, e)).song, must(newSong({ title: "Windfalls", key, meter, bars: 3 })));
  });
const run = (check: (s: Song) => void, numRuns: number) => fc.assert(fc.property(song, check), { seed: 17, numRuns });

test("any song is analyzed, judged and checked; every chord has its words and a numeral that reads back", () => {
  run((s) => {
    const key = must(parseKey(s.key));
    const report = analyzeSection(s, "s1");
    expect(report.chords).toHaveLength(firstOf(s.sections).chords.length);
    for (const c of report.chords) expect(JSON.stringify(c)).not.toMatch(/undefined|NaN/);
    for (const { symbol: text } of firstOf(s.sections).chords) {
      const chord = parseChord(text);
      if (!chord.ok) continue;
      const numeral = romanOf(chord.value, key);
      expect([numeral, parseNumeral(numeral, key).ok]).toEqual([numeral, true]);
    }
    judgeProgression(s, "s1");
    checkSong(s);
  }, 40);
});

test("any chord can be changed where it stands, and what comes out is a chord", () => {
  run((s) => {
    const key = must(parseKey(s.key));
    for (const { symbol: text } of firstOf(s.sections).chords) {
      const read = parseChord(text);
      if (!read.ok) continue;
      const changed = [
        ...COLORS.map((c) => toggleColor(read.value, c, key)),
        ...[1, 2, -1].flatMap((n) => [moveInScale(read.value, n, key), moveBySemitones(read.value, n, key)]),
      ].map(chordSymbol);
      const bent = read.value.tones.flatMap((_, i) => [
        bendTone(read.value, i, 1, key)?.symbol ?? "C",
        bendTone(read.value, i, -1, key)?.symbol ?? "C",
      ]);
      for (const next of [...changed, ...bent]) expect([text, next, parseChord(next).ok]).toEqual([text, next, true]);
      tensions(read.value, key);
      fittingScales(read.value, key);
    }
  }, 12);
});

test("every offer for any song can be taken and stored, and the bass can follow it", () => {
  run((s) => {
    const chords = firstOf(s.sections).chords;
    for (const offer of reharmonize({ song: s, section: "s1", chordIds: chords.map((c) => c.id), range: 0.5 })) {
      const taken = must(
        applyEdit(s, { do: "setChords", section: "s1", from: offer.from, to: offer.to, chords: offer.chords }),
      ).song;
      const follow = adaptBass(s, taken, { section: "s1", part: "bass", span: [offer.from, offer.to] });
      expect(parseSong(follow ? must(applyEdit(taken, follow)).song : taken).ok).toBe(true);
      expect(describeChange(offer.reasons[0])).not.toMatch(/undefined|\{/);
    }
    reharmonizeSection({ song: s, section: "s1", range: 0.5 });
    for (const as of ["melody", "bass"] as const)
      for (const rhythm of RHYTHMS) {
        const found = harmonizations({ song: s, section: "s1", part: as, rhythm }, as);
        if (!found.ok) continue;
        const to = firstOf(s.sections).bars * must(parseMeter(s.meter)).bar;
        expect(
          applyEdit(s, { do: "setChords", section: "s1", from: 0, to, chords: firstOf(found.value).events }).ok,
        ).toBe(true);
      }
  }, 4);
});

test("any song is voiced in every style, if need be freely", () => {
  run((s) => {
    for (const { id } of VOICING_STYLES) {
      const styled = must(applyEdit(s, { do: "setPlaying", part: "keys", voicing: { style: id } })).song;
      const voiced = must(voiceSection(styled, "s1", "keys"));
      expect([id, voiced.ids.length]).toEqual([
        id,
        firstOf(s.sections).chords.filter((c) => c.symbol !== "N.C.").length,
      ]);
    }
  }, 4);
});
