import { sure } from "../../src/base/list";
import type { Jotted } from "./bandSong";
import { edit } from "../helpers";

const POWER = { E5: "E2 B2 E3", G5: "G2 D3 G3", A5: "A2 E3 A3", C5: "C3 G3 C4", D5: "D3 A3 D4" };

/** The other half of the songs of a band. */
export const MORE_SONGS: readonly Jotted[] = [
  {
    title: "Thresher",
    key: "E minor",
    tempo: 142,
    profile: "band",
    parts: {
      Voice: ["melody", "tenor"],
      Left: ["chords", "electricGuitar"],
      Right: ["chords", "electricGuitar"],
      Bass: ["bass", "bassGuitar"],
    },
    sections: {
      Riff: {
        line: "| E5 | E5 | G5 | A5 | E5 | E5 | C5 | D5 |",
        parts: {
          Left: { layouts: POWER, rhythm: "x-x-x---x-x-x---" },
          Right: { layouts: POWER, rhythm: "x-x-x---x-x-x---" },
          Bass: { low: "E1", steps: "R-R-R---R-R-R---" },
        },
        drums: { kick: "X.o.....X.o.....", snare: "....X.......X...", closedHat: "o.o.o.o.o.o.o.o." },
      },
      Verse: {
        line: "| Em | C | G | D | Em | C | Am | B7 |",
        parts: {
          Voice: "E3 q G B h | C4 q B3 G h | B3 q D4 B3 h | A3 h. r q | B3 q D4 E h | E4 q D C h | C4 w | B3 h F#3 q r",
          Left: {
            layouts: {
              Em: "E2 B2 E3 G3",
              C: "C3 G3 C4 E4",
              G: "G2 D3 G3 B3",
              D: "D3 A3 D4 F#4",
              Am: "A2 E3 A3 C4",
              B7: "B2 F#3 A3 D#4",
            },
            rhythm: "x---x---x---x---",
          },
          Right: "G4 w | r | B4 w | A4 w | r w | G4 w | E4 w | C5 w",
          Bass: { low: "E1", steps: "R-----R-R-----5-" },
        },
        drums: { kick: "X.....o.X.....o.", snare: "....X.......X...", closedHat: "o.o.o.o.o.o.o.o." },
      },
    },
    form: ["Riff", "Verse", "Riff", "Verse"],
    marks: [
      ["long-outside", "Verse", 8, "Right"],
      ["seam-motion", "Verse", 8, "Bass"],
    ],
  },
  {
    title: "Press House Blues",
    key: "A major",
    tempo: 112,
    profile: "band",
    parts: {
      Voice: ["melody", "baritone"],
      Organ: ["chords", "organ"],
      Guitar: ["chords", "electricGuitar"],
      Bass: ["bass", "bassGuitar"],
    },
    sections: {
      Chorus: {
        line: "| A7 | D7 | A7 | A7 | D7 | D7 | A7 | A7 | E7 | D7 | A7 | E7 |",
        parts: {
          Voice:
            "E3 q G A h | A3 q F# h. | E3 q G A h | r w | A3 q C4 h A3 q | F#3 q A h. | E3 q G A h | r w | B3 " +
            "q D4 h B3 q | A3 q F# D h | E3 q C# A2 h | r w",
          Organ: {
            layouts: { A7: "G3 C#4 E4", D7: "F#3 C4 D4", E7: "G#3 B3 D4" },
            rhythm: "x-----x-x-----x-",
          },
          Guitar: { layouts: { A7: "A2 E3 G3", D7: "D3 A3 C4", E7: "E2 B2 D3 G#3" }, rhythm: "x.x.x.x.x.x.x.x." },
          Bass: { low: "E1", steps: "R---3---5---7---" },
        },
        drums: { kick: "X.......X.......", snare: "....X.......X...", closedHat: "o.o.o.o.o.o.o.o." },
      },
      Turn: {
        line: "| A7 | Am7 | D7 | E7 |",
        parts: {
          Voice: "E3 q G A h | C4 q A3 G h | F#3 q A h. | E3 w",
          Organ: {
            layouts: { A7: "G3 C#4 E4", Am7: "G3 C#4 E4", D7: "F#3 C4 D4", E7: "G#3 B3 D4" },
            rhythm: "x-----x-x-----x-",
          },
          Guitar: {
            layouts: { A7: "A2 E3 G3 C#4", Am7: "A2 E3 G3 C#4", D7: "D3 A3 C4 F#4", E7: "E2 B2 D3 G#3" },
            rhythm: "x.x.x.x.x.x.x.x.",
          },
          Bass: { low: "E1", steps: "R---5---8---5---" },
        },
      },
    },
    form: ["Chorus", "Chorus", "Turn", "Chorus"],
    marks: [
      ["other-chord", "Turn", 2, "Organ", "Guitar"],
      ["same-again", "Chorus", 1],
    ],
  },
  {
    title: "Kiln Song",
    key: "F major",
    meter: "6/8",
    tempo: 60,
    profile: "band",
    parts: {
      Orla: ["melody", "mezzo"],
      Wren: ["vocal", "alto"],
      Piano: ["chords", "piano"],
      Cello: ["bass", "cello"],
    },
    sections: {
      Verse: {
        line: "| F | Dm | Bb | C | F | Dm | Gm | C |",
        parts: {
          Orla: "A4 q. C5 q. | A4 q. F q. | Bb4 q. D5 q. | C5 q. G4 q. | A4 q. C5 q. | F5 h. | F5 h. _ _ q. r q. r r",
          Wren: "F4 q. A q. | F4 q. D q. | F4 q. Bb q. | E4 q. r q. | F4 q. A q. | A4 h. | Bb4 h. | G4 h.",
          Piano: { layouts: { F: "C4 F4", Dm: "D4 F4", Bb: "D4 F4", C: "C4 E4", Gm: "D4 G4" }, rhythm: "xxxxxx" },
          Cello: { low: "C2", steps: "R-----" },
        },
      },
      Chorus: {
        line: "| Bb | F | C | Dm | Bb | F | C | F |",
        parts: {
          Orla: "D5 q. F q. | C5 q. A4 q. | G4 q. C5 q. | A4 h. | D5 q. F q. | C5 q. F q. | E5 q. C q. | F4 h.",
          Wren: "Bb4 q. D5 q. | A4 q. F q. | E4 q. G q. | F4 h. | Bb4 q. D5 q. | A4 q. A q. | G4 q. E q. | F4 h.",
          Piano: { layouts: { Bb: "D4 F4 Bb4", F: "C4 F4 A4", C: "C4 E4 G4", Dm: "D4 F4 A4" }, rhythm: "x-xx-x" },
          Cello: { low: "C2", steps: "R--5--" },
        },
      },
    },
    form: ["Verse", "Verse", "Chorus"],
    marks: [
      ["breath", "Verse", 1, "Orla"],
      ["high-voice", "Verse", 7, "Orla"],
    ],
  },
  {
    title: "Ladder Round",
    key: "C major",
    tempo: 116,
    profile: "band",
    parts: {
      Tune: ["melody", "flute"],
      Clarinet: ["counter", "clarinet"],
      Guitar: ["chords", "nylonGuitar"],
      Bass: ["bass", "doubleBass"],
    },
    sections: {
      Round: {
        line: "| C | Am | F | G | C | Am | Dm G | C |",
        parts: {
          Tune: "G5 q E C h | A5 q E C h | A5 q F C h | B5 q G D h | G5 q E C h | A5 q E C h | F5 q A G F | E5 h. r q",
          // The player's own part, a tone too high: in C it reads E G …
          Clarinet: "F#4 h A | E4 h B | G4 h B | A4 h E | F#4 h A | E4 h B | G4 h A | F#4 h. r q",
          Guitar: {
            layouts: { C: "C3 G3 C4 E4", Am: "A2 E3 A3 C4", F: "F2 C3 F3 A3", G: "G2 D3 G3 B3", Dm: "D3 A3 D4 F4" },
            rhythm: "x--x--x-x--x--x-",
          },
          Bass: { low: "E1", steps: "R-----5-5-----5-" },
        },
        drums: { shaker: "o.o.o.o.o.o.o.o.", kick: "X...............", rim: "...x..x.......x." },
        also: (song, section) =>
          edit(song, {
            do: "setPlaying",
            section,
            part: sure(song.parts.find((p) => p.name === "Guitar")).id,
            voicing: { capo: 2 },
          }),
      },
    },
    form: ["Round", "Round"],
    marks: [
      ["old-key", "Round", 1, "Clarinet"],
      ["capo", "Round", 3, "Guitar"],
    ],
  },
  {
    title: "Windfall",
    key: "D dorian",
    tempo: 104,
    profile: "band",
    parts: {
      Trumpet: ["melody", "trumpet"],
      Alto: ["counter", "altoSax"],
      Trombone: ["counter", "trombone"],
      Keys: ["chords", "electricPiano"],
      Bass: ["bass", "bassGuitar"],
    },
    sections: {
      Vamp: {
        line: "| Dm7 | G7 | Dm7 | G7 | Dm7 | G7 | Dm7 | G7 |",
        parts: {
          Trumpet: "r w | r h D5 e r D r | r w | r h F5 e r D r | r w | r h D5 e r D r | r w | G5 q F D h",
          Alto: "r w | r h B4 e r B r | r w | r h D5 e r B4 r | r w | r h B4 e r B r | r w | D5 q B4 B h",
          Trombone: "r w | r h G4 e r G r | r w | r h B4 e r G r | r w | r h G4 e r G r | r w | B4 q G G h",
          Keys: { layouts: { Dm7: "F3 C4 D4 A4", G7: "F3 B3 D4 A4" }, rhythm: "x..x..x...x.x..." },
          Bass: { low: "E1", steps: "R..R..5.R..R..8." },
        },
        drums: { kick: "X..o..o.X..o....", snare: "....X.......X...", closedHat: "oooooooooooooooo" },
      },
      Shout: {
        line: "| Am7 | Dm7 | Am7 | Dm7 |",
        parts: {
          Trumpet: "E5 q G A5 h | F5 q D h. | E5 q G E h | D5 w",
          Alto: "C5 q E E h | A4 q F h. | C5 q E C h | A4 w",
          Trombone: "A3 q C4 C h | D4 q D h. | A3 q C4 G3 h | F4 w",
          Keys: { layouts: { Am7: "G2 C4 E4 G5", Dm7: "F2 C4 F4 A5" }, rhythm: "x-------x-------" },
          Bass: { low: "E1", steps: "R..R..5.R..R..8." },
        },
        drums: { kick: "X..o..o.X..o....", snare: "....X.......X...", closedHat: "oooooooooooooooo" },
        also: (song, section) =>
          edit(song, {
            do: "addNote",
            section,
            part: sure(song.parts.find((p) => p.name === "Trumpet")).id,
            note: { start: 3 * 1920, duration: 1920, pitch: "F5", velocity: 88 },
          }),
      },
    },
    form: ["Vamp", "Vamp", "Shout", "Vamp"],
    marks: [
      ["polyphony", "Shout", 4, "Trumpet"],
      ["out-of-range", "Vamp", 4, "Trombone"],
      ["reach", "Shout", 1, "Keys"],
    ],
  },
];
