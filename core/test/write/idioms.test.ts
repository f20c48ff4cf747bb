import { firstOf, nth, sure } from "../../src/base/list";
import { BASS_STYLES } from "../../src/write/bass/styles";
import { bassLines, type BassLine } from "../../src/write/bass/write";
import { chordOf } from "../../src/theory/chord/progression";
import { chordPitchClasses } from "../../src/theory/chord/chord";
import { mod, pitchClass, pitchMidi } from "../../src/theory/pitch/pitch";
import { must } from "../../src/base/result";
import type { Song } from "../../src/song/schema/song";
import { GRID, gridSong } from "../../../bench/bassGrid";
import { songWith } from "../helpers";

/**
 * What a player would know a style by, over kicks that were never meant for it. Counted by code that shares nothing
 * with the writer.
 */
const FORMS = [
  ["C major", "| C | Am | Dm | G |"],
  ["F major", "| F Dm | Gm C7 | F | C |"],
  ["A minor", "| Am | G | F | E |"],
  ["Eb major", "| Ebmaj7 | Cm7 | Fm7 | Bb7 |"],
] as const;
type Kick = [beat: number, velocity: number];
const soft: Kick[] = Array.from({ length: 16 }, (_, b) => [b, 50]);
const syncopated: Kick[] = Array.from({ length: 4 }, (_, b): Kick[] => [
  [4 * b, 100],
  [4 * b + 0.75, 100],
  [4 * b + 2.5, 104],
]).flat();
const KICKS: Record<string, Kick[]> = { none: [], soft, syncopated };

const song = (key: string, line: string, kicks: Kick[] = [], meter = "4/4"): Song =>
  songWith({ key, meter, line, kicks });
const write = (s: Song, style: string): BassLine[] =>
  must(bassLines(s, { section: "s1", part: "bass", style, seed: 3 }));
const midi = (n: { pitch: string }) => pitchMidi(n.pitch);
const chordsOf = (s: Song) => firstOf(s.sections).chords.map((c) => ({ ...c, chord: chordOf(c.symbol) }));
const chordUnder = (s: Song, tick: number) => chordsOf(s).find((c) => c.start <= tick && tick < c.start + c.duration);
const isChordTone = (s: Song, n: { start: number; pitch: string }) => {
  const chord = chordUnder(s, n.start)?.chord;
  return chord ? chordPitchClasses(chord).includes(mod(midi(n), 12)) : false;
};

/** Shares over all forms of a style and a kick: notes outside the chord, and changes of chord that are stepped into. */
function walkOver(style: string, kicks: Kick[]): { passing: number; steps: number } {
  let [notes, outside, changes, stepped] = [0, 0, 0, 0];
  for (const [key, line] of [FORMS[0], FORMS[3]]) {
    const s = song(key, line, kicks);
    const own = firstOf(write(s, style)).notes;
    notes += own.length;
    outside += own.filter((n) => !isChordTone(s, n)).length;
    own.slice(1).forEach((n, i) => {
      if (
        chordUnder(s, n.start)?.start !== n.start ||
        chordUnder(s, nth(own, i).start)?.symbol === chordUnder(s, n.start)?.symbol
      )
        return;
      changes++;
      if (Math.abs(midi(n) - midi(nth(own, i))) <= 2) stepped++;
    });
  }
  return { passing: outside / notes, steps: stepped / changes };
}

test("a walking bass keeps its passing tones and its steps into the next chord over a soft kick on every beat", () => {
  for (const style of ["walking", "scale-walk"]) {
    const [plain, kicked] = [walkOver(style, []), walkOver(style, soft)];
    expect([style, plain.passing > 0.1, kicked.passing >= plain.passing - 0.05]).toEqual([style, true, true]);
    expect([style, kicked.steps >= plain.steps - 0.05]).toEqual([style, true]);
  }
});

test("a bossa has its dotted figure in most bars, whatever the kick does", () => {
  for (const [name, kicks] of Object.entries(KICKS)) {
    let [bars, dotted] = [0, 0];
    for (const [key, line] of FORMS) {
      const starts = new Set(firstOf(write(song(key, line, kicks), "bossa")).notes.map((n) => n.start));
      for (let b = 0; b < 4; b++) {
        bars++;
        // Root, the short note before the middle, and the middle.
        if ([0, 720, 960].every((t) => starts.has(b * 1920 + t))) dotted++;
      }
    }
    expect([name, dotted / bars >= 0.7]).toEqual([name, true]);
  }
});

test("driving eighths vary in every bar, also in 12/8, and their last bar is a fill, not an eighth split in two", () => {
  for (const [key, line] of FORMS.filter(([, l]) => l.split("|").every((bar) => bar.trim().split(" ").length < 2)))
    for (const meter of ["4/4", "12/8", "6/8"]) {
      const s = song(key, line, [], meter);
      let bar: 1920 | 2880 | 1440;
      if (meter === "4/4") bar = 1920;
      else if (meter === "12/8") bar = 2880;
      else bar = 1440;
      const { notes } = firstOf(write(s, "driving-eighths"));
      for (let b = 0; b < 4; b++) {
        const inBar = notes.filter((n) => n.start >= b * bar && n.start < (b + 1) * bar);
        expect([meter, line, b, new Set(inBar.map(midi)).size > 1]).toEqual([meter, line, b, true]);
      }
      // Nothing is shorter than its half-beat.
      expect(notes.filter((n) => n.start % 240 !== 0)).toEqual([]);
    }
});

test("root, fifth, octave goes up and comes back", () => {
  for (const [key, line] of FORMS.filter(([, l]) => !l.includes(" Dm |"))) {
    const s = song(key, line);
    const { notes } = firstOf(
      must(
        bassLines(s, {
          section: "s1",
          part: "bass",
          style: "root-fifth-octave",
          settings: { density: 1, ending: false },
        }),
      ),
    );
    // Where the octave lies inside the comfortable range, which ends on D3.
    for (const c of chordsOf(s).filter(
      (x) => x.duration === 1920 && ["E", "F", "G", "A", "B", "C", "D"].includes(sure(x.chord).root),
    )) {
      const [root, fifth, octave] = [0, 480, 960].map((t) => notes.find((n) => n.start === c.start + t));
      expect([c.symbol, midi(sure(octave)) - midi(sure(root))]).toEqual([c.symbol, 12]);
      if (fifth)
        expect([c.symbol, midi(fifth) > midi(sure(root)) && midi(fifth) < midi(sure(octave))]).toEqual([
          c.symbol,
          true,
        ]);
    }
  }
});

test("an arpeggio in 6/8 plays the third of its chord; stab and bounce begins each chord low", () => {
  for (const [key, line] of FORMS) {
    const s = song(key, line, [], "6/8");
    // Before the last bar, which is a fill.
    const { notes } = sure(write(s, "arpeggio").find((l) => l.title.startsWith("As")));
    for (const c of chordsOf(s).filter((x) => x.duration >= 1440 && x.start < 3 * 1440)) {
      const third = mod(
        pitchClass(sure(c.chord).root) + sure(sure(c.chord).tones.find((t) => t.degree === 3)).semitones,
        12,
      );
      const own = notes.filter((n) => n.start >= c.start && n.start < c.start + c.duration);
      expect([c.symbol, own.some((n) => mod(midi(n), 12) === third)]).toEqual([c.symbol, true]);
    }
    for (const kicks of Object.values(KICKS)) {
      const danced = song(key, line, kicks);
      const bounce = firstOf(write(danced, "stab-bounce")).notes;
      for (const c of chordsOf(danced)) {
        const own = bounce.filter((n) => n.start >= c.start && n.start < c.start + c.duration);
        const begins = own.find((n) => n.start === c.start);
        if (begins)
          expect([
            c.symbol,
            own.every((n) => midi(n) >= midi(begins) || mod(midi(n) - midi(begins), 12) !== 0),
          ]).toEqual([c.symbol, true]);
      }
    }
  }
});

test("a pedal is silent where there is no chord", () => {
  for (const line of ["| C | N.C. | F | G |", "| C | F | N.C. | C |"]) {
    const s = song("C major", line);
    for (const { notes } of write(s, "pedal"))
      for (const c of chordsOf(s).filter((x) => !x.chord))
        expect(notes.filter((n) => n.start < c.start + c.duration && n.start + n.duration > c.start)).toEqual([]);
  }
});

const SAMPLE = GRID.filter((_, i) => i % 197 === 0);
let written: BassLine[][] | undefined;
/** The lines for each combination of the sample, written once. */
const linesOf = (i: number): BassLine[] =>
  nth(
    (written ??= SAMPLE.map((c) =>
      must(bassLines(gridSong(c), { section: "s1", part: "bass", style: c.style, seed: 4 })),
    )),
    i,
  );

test("candidates differ: any two share at most three fifths of their notes, and no two have one title", () => {
  for (const [at, c] of SAMPLE.entries()) {
    const lines = linesOf(at);
    expect([c.style, new Set(lines.map((l) => l.title)).size]).toEqual([c.style, lines.length]);
    for (const [i, a] of lines.entries())
      for (const b of lines.slice(i + 1)) {
        const text = (l: BassLine) => new Set(l.notes.map((n) => `${n.start} ${n.pitch}`));
        const [x, y] = [text(a), text(b)];
        const shared = [...x].filter((t) => y.has(t)).length / Math.min(x.size, y.size);
        expect([c.style, c.meter, c.kick, shared <= 0.6]).toEqual([c.style, c.meter, c.kick, true]);
      }
  }
});

test("in C major nothing is called C flat, F flat, E sharp or B sharp unless a chord spells it", () => {
  for (const style of BASS_STYLES)
    for (const line of ["| C | Bb | Eb | E7 |"])
      for (const { notes } of write(song("C major", line), style.id))
        expect([style.id, line, notes.filter((n) => /^(Cb|Fb|E#|B#)/.test(n.pitch)).map((n) => n.pitch)]).toEqual([
          style.id,
          line,
          [],
        ]);
});
