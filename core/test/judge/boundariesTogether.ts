import { firstOf, sure } from "../../src/base/list";
import type { Song } from "../../src/song/schema/song";
import { edit } from "../helpers";
import { band, withLines, type BandPart } from "./lines";

const WORDS = "lan- terns in the or- chard glow now";

/** Two singers in thirds, a note a beat, with words: a syllable a note, . for none. */
export function inThirds(upper: string, lower: string, more: { upper?: string[]; lower?: string[] } = {}): Song {
  const notes = (pitches: string) => pitches.split(" ").map((p, i) => `${i} ${p} 1`);
  const song = withLines("| C | C |", {
    Tune: more.upper ?? notes("E5 F5 G5 F5 E5 D5 E5 G5"),
    Alto: more.lower ?? notes("C5 D5 E5 D5 C5 B4 C5 E5"),
  });
  return [upper, lower].reduce((s, words, i) => {
    const part = sure(s.parts.find((p) => p.name === (i ? "Alto" : "Tune"))).id;
    const texts = words.split(" ");
    return edit(s, {
      ...{ do: "changeNotes", section: "s1", part },
      notes: (firstOf(s.sections).notes[part] ?? []).map((n, k) => ({
        id: n.id,
        lyrics: texts[k] === "." || texts[k] === undefined ? [] : [texts[k]],
      })),
    });
  }, song);
}

/** The tune in beats, and an alto whose fourth note is as long as said. */
export const breathing = (beats: number, beside = 1): Song => {
  const line = (pitches: string, fourth: number) =>
    pitches.split(" ").map((p, i) => `${i} ${p} ${i === 3 ? fourth : 1}`);
  const [upper, lower] = [line("E5 F5 G5 F5 E5 D5 E5 G5", beside), line("C5 D5 E5 D5 C5 B4 C5 E5", beats)];
  return inThirds(WORDS, WORDS, { upper, lower });
};

/** Bass and organ on the change to F, and a guitar that comes so many beats early; one who waits, or two; a kick. */
export function pushing({
  early,
  waiting = 2,
  kick,
  pitches = ["F4", "A4"],
}: {
  early: number;
  waiting?: number;
  kick?: number;
  pitches?: string[];
}): Song {
  const parts: Record<string, BandPart> = {
    Bass: ["bass", "bassGuitar", ["0 C2 4", "4 F2 4"]],
    Guitar: [
      "counter",
      "guitar",
      [...["E4", "G4"].map((p) => `0 ${p} 3`), ...pitches.map((p) => `${4 - early} ${p} ${3 + early}`)],
    ],
    ...(waiting > 1 ? { Organ: ["counter", "organ", ["0 E4 4", "0 G4 4", "4 F4 4", "4 C5 4"]] as BandPart } : {}),
  };
  const song = band("| C | F |", parts);
  return kick === undefined
    ? song
    : edit(song, { do: "setHit", section: "s1", drum: "kick", start: kick * 480, velocity: 100 });
}

const asked = (song: Song, school: string): Song =>
  edit(song, {
    do: "setPlaying",
    part: sure(song.parts.find((p) => p.name === "Alto")).id,
    vocal: { school },
  });

const SIX = ["0 E5 1", "1 F5 1", "2 G5 1", "3 F5 1", "4 E5 1", "5 D5 1"];
const FIVE = SIX.slice(0, 5);

/** Just inside and just outside of what is asked of those who sound together. */
export const TOGETHER: [what: string, rule: string, inside: Song, outside: Song][] = [
  [
    "two who sing the same words sing all of them",
    "syllable",
    inThirds(WORDS, WORDS),
    inThirds(WORDS, "lan- terns in the or- chard . now"),
  ],
  [
    "another syllable is told, other signs and capitals are not",
    "syllable",
    inThirds(WORDS, "Lan- terns, in the or- chard glow Now!"),
    inThirds(WORDS, "lan- terns in the or- chard glow not"),
  ],
  [
    "a syllable that is held has its line",
    "syllable",
    inThirds(WORDS, "lan- terns in the or- chard _ now"),
    inThirds(WORDS, "lan- terns in the or- chard . now"),
  ],
  [
    "three quarters of the same syllables make the same words, less do not",
    "syllable",
    inThirds(WORDS, "lan- terns in the or- ah ah ah"),
    inThirds(WORDS, "lan- terns in the or- chard ah ah"),
  ],
  [
    "four syllables in common make the same words, three do not",
    "syllable",
    inThirds("lan- terns in . . . . .", "lan- terns in the . . . ."),
    inThirds("lan- terns in the or- . . .", "lan- terns in the . . . ."),
  ],
  [
    "six attacks in common are one rhythm, five are not",
    "syllable",
    inThirds("lan- terns in the or-", "lan- terns in the .", { upper: FIVE, lower: FIVE }),
    inThirds("lan- terns in the or- chard", "lan- terns in the or- .", { upper: SIX, lower: SIX }),
  ],
  ["a rest of less than half a beat is no breath", "breaths-apart", breathing(0.55), breathing(0.5)],
  [
    "who goes on for all but a thirty-second sings through, who leaves more does not",
    "breaths-apart",
    breathing(0.5, 0.875),
    breathing(0.5, 0.9),
  ],
  ["where all breathe, or nobody does, it is together", "breaths-apart", breathing(0.5, 0.5), breathing(0.5)],
  ["half a beat early is a push, earlier is not", "pushed", pushing({ early: 0.75 }), pushing({ early: 0.5 })],
  [
    "where one waits nobody is odd, where two do it is told",
    "pushed",
    pushing({ early: 0.5, waiting: 1 }),
    pushing({ early: 0.5 }),
  ],
  [
    "a push with the kick has its ground",
    "pushed",
    pushing({ early: 0.5, kick: 3.5 }),
    pushing({ early: 0.5, kick: 3 }),
  ],
  [
    "a tone of both chords pushes nothing",
    "pushed",
    pushing({ early: 0.5, pitches: ["C5"] }),
    pushing({ early: 0.5, pitches: ["A4"] }),
  ],
  [
    "voices of a chorale are offered its school, others are not",
    "written-as",
    asked(inThirds(WORDS, WORDS), "close"),
    asked(inThirds(WORDS, WORDS), "chorale"),
  ],
];
