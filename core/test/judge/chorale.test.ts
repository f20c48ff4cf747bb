import { firstOf, nth, sure } from "../../src/base/list";
import { applyEdit } from "../../src/song/edits";
import { must } from "../../src/base/result";
import { newSong } from "../../src/song/document";
import { parseMeter } from "../../src/theory/time/meter";
import { parseTune } from "../../src/hear/line/text";
import { pitchMidi } from "../../src/theory/pitch/pitch";
import { transposeSong } from "../../src/song/transposeSong";
import { vocalLines } from "../../src/write/vocal/write";
import type { Song } from "../../src/song/schema/song";
import { FORMS } from "./putFaults";
import { FOUR_PART } from "../../src/arrange/voicing/styles/fourPart";

/**
 * Textbook forms in four parts, judged by a second hand: the rules are those of Kostka & Payne, Tonal Harmony, counted
 * here from the notes alone, by code that shares nothing with the writer.
 */
const METER = must(parseMeter("4/4"));

function written([key, line, tune]: (typeof FORMS)[number], semitones: number): { song: Song; voices: number[][] } {
  const bars = line.split("|").length - 2;
  const edit = (s: Song, e: Parameters<typeof applyEdit>[1]) => must(applyEdit(s, e)).song;
  let song = edit(must(newSong({ title: "Form", key, bars })), { do: "setLine", section: "s1", line });
  song = edit(song, { do: "setNotes", section: "s1", part: "melody", notes: must(parseTune(tune, { meter: METER })) });
  if (semitones) song = edit(song, must(transposeSong(song, { semitones })).edit);
  song = edit(song, { do: "addPart", name: "Alto", role: "vocal", instrument: "alto" });
  const part = sure(song.parts.find((p) => p.name === "Alto")).id;
  const [best] = must(vocalLines(song, { section: "s1", part, lead: "melody", school: "chorale" }));
  const soprano = sure(firstOf(song.sections).notes.melody);
  const at = (notes: readonly { start: number; duration: number; pitch: string }[], t: number) =>
    pitchMidi(sure(notes.find((n) => n.start <= t && t < n.start + n.duration)).pitch);
  const starts = soprano.map((n) => n.start);
  return { song, voices: starts.map((t) => [at(soprano, t), ...sure(best).parts.map((p) => at(p.notes, t))]) };
}

/** Pitch classes of a chord symbol of these forms. */
const ROOTS: Record<string, number> = { C: 0, D: 2, E: 4, F: 5, G: 7, A: 9, B: 11 };
function tones(symbol: string): { root: number; third: number; seventh: number | null; bass: number; pcs: number[] } {
  const [, letter, sign, quality, bassLetter, bassSign] = sure(
    /^([A-G])(b|#)?([^/]*)(?:\/([A-G])(b|#)?)?$/.exec(symbol),
  );
  const pc = (l: string, s?: string) => {
    const signOf = () => {
      if (s === "#") return 1;
      if (s === "b") return 11;
      return 0;
    };
    return (sure(ROOTS[l]) + signOf()) % 12;
  };
  const root = pc(sure(letter), sign);
  const minor = sure(quality).startsWith("m");
  const third = (root + (minor ? 3 : 4)) % 12;
  const fifth = (root + (sure(quality).includes("b5") ? 6 : 7)) % 12;
  const seventh = sure(quality).includes("7") ? (root + 10) % 12 : null;
  return {
    root,
    third,
    seventh,
    bass: bassLetter ? pc(bassLetter, bassSign) : root,
    pcs: [root, third, fifth, ...(seventh === null ? [] : [seventh])],
  };
}

type Tones = ReturnType<typeof tones>;

/** What is wrong with four pitches, soprano to bass, over a chord. */
function wrongIn(v: readonly number[], symbol: string): string[] {
  const [s, a, t, b] = v as [number, number, number, number];
  const chord = tones(symbol);
  const heard = v.map((m) => m % 12);
  const times = (pc: number | null) => heard.filter((x) => x === pc).length;
  // The third of a dominant is a leading tone.
  const leading = chord.seventh !== null && chord.third === (chord.root + 4) % 12;
  const away = [b, t, a].some((m, k) => m < nth(FOUR_PART, k)[0] || m > nth(FOUR_PART, k)[1]);
  const faults = {
    crossed: !(s >= a && a >= t && t >= b),
    spacing: s - a > 12 || a - t > 12,
    range: away,
    outside: heard.some((pc) => !chord.pcs.includes(pc)),
    incomplete: !times(chord.third) || !times(chord.root),
    seventh: chord.seventh !== null && times(chord.seventh) !== 1,
    "leading tone": leading && times(chord.third) > 1,
    bass: symbol.includes("/") && b % 12 !== chord.bass,
  };
  return Object.entries(faults).flatMap(([what, is]) => (is ? [what] : []));
}

/** What is wrong between two chords of four pitches: parallels, a seventh that does not fall, leaps. */
function wrongBetween(before: readonly number[], v: readonly number[], previous: Tones, chord: Tones): string[] {
  const out: string[] = [];
  for (let x = 0; x < 4; x++)
    for (let y = x + 1; y < 4; y++) {
      const [was, is] = [(nth(before, x) - nth(before, y)) % 12, (nth(v, x) - nth(v, y)) % 12];
      const [mx, my] = [nth(v, x) - nth(before, x), nth(v, y) - nth(before, y)];
      if (was === is && [0, 7].includes(is) && mx !== 0 && my !== 0 && Math.sign(mx) === Math.sign(my))
        out.push(`parallel ${is ? "fifths" : "octaves"}`);
    }
  before.forEach((m, k) => {
    if (k === 0) return;
    const ways = [m - 1, m - 2];
    const wants = m % 12 === previous.seventh && !chord.pcs.includes(m % 12);
    const may = ways.some((d) => chord.pcs.includes(((d % 12) + 12) % 12));
    if (wants && may && !ways.includes(nth(v, k))) out.push("seventh does not fall");
    if (Math.abs(nth(v, k) - m) > 12) out.push("leap");
  });
  return out;
}

const shifts = [0, 1, 2, 3, 4, -1, -2, -3];

test.each(FORMS.map((form) => [`${form[0]} ${form[1]}`, form] as const))(
  "%s: no rule of four parts is broken, in eight keys",
  (_, form) => {
    for (const by of shifts) {
      const { song, voices } = written(form, by);
      const chords = firstOf(song.sections).chords;
      const soprano = sure(firstOf(song.sections).notes.melody);
      const symbols = soprano.map((n) => sure(chords.findLast((c) => c.start <= n.start)).symbol);
      const wrong: string[] = [];
      voices.forEach((v, i) => {
        const symbol = nth(symbols, i);
        wrong.push(...wrongIn(v, symbol).map((what) => `${i}: ${what}`));
        const before = voices[i - 1];
        const previous = symbols[i - 1];
        if (!before || !previous || symbol === previous) return;
        wrong.push(...wrongBetween(before, v, tones(previous), tones(symbol)).map((what) => `${i}: ${what}`));
      });
      expect([form[1], by, wrong]).toEqual([form[1], by, []]);
    }
  },
);
