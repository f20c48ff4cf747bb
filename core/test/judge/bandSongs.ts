import type { Jotted } from "./bandSong";
import { MORE_SONGS } from "./moreBandSongs";

const BEAT = { kick: "X.....o.X.o.....", snare: "....X.......X...", closedHat: "o.o.o.o.o.o.o.o." };
const GUITAR = {
  G: "G2 B2 D3 G3 B3 G4",
  Em: "E2 B2 E3 G3 B3 E4",
  C: "C3 E3 G3 C4 E4",
  D: "D3 A3 D4 F#4",
  Am: "A2 E3 A3 C4 E4",
  Bm: "B2 F#3 B3 D4",
};

/**
 * Songs of a band as they are jotted down, invented for this test; what is wrong was put in and marked by hand before
 * they were judged.
 */
export const BAND_SONGS: readonly Jotted[] = [
  {
    title: "Cider Moon",
    key: "G major",
    tempo: 98,
    profile: "band",
    parts: {
      Voice: ["melody", "mezzo"],
      Harmony: ["vocal", "alto"],
      Piano: ["chords", "piano"],
      Strum: ["chords", "guitar"],
      Bass: ["bass", "bassGuitar"],
    },
    sections: {
      Verse: {
        line: "| G | Em | C | D | G | Em | C | D |",
        parts: {
          Voice:
            "D4 q G e B e A q r | G4 q E e G e A h | E4 q G e C5 e B4 q A | A4 h. r q | B4 q A e G e E q r | " +
            "G4 q E B A | C5 q B4 e G e E q r | F#4 h A q r",
          Strum: { layouts: GUITAR, rhythm: "x---x-x-x---x-x-" },
          Bass:
            "G1 q. D2 e G1 q D2 | E1 q. B1 e E1 q G1 | C2 q. G1 e C2 q E | D2 q. A1 e D2 q F# | G1 q. D2 e G1 q " +
            "D2 | E1 q. B1 e E1 q G1 | C2 q. G1 e C2 h | D2 q r h",
        },
        drums: BEAT,
      },
      Chorus: {
        line: "| C | D | G | Em | C | D | G | G |",
        parts: {
          Voice:
            "E4 q G C5 h | D5 q C e B4 e A h | B4 h. r q | B4 q G E h | C5 q D E h | A5 h F#5 q D | B4 h. r q | r w",
          Harmony:
            "C4 q E G h | F#4 q E e G e F# h | G4 h. r q | D5 q B4 G h | G4 q A C5 h | D5 h D q A4 | G4 h. r q | r w",
          Piano: {
            layouts: { C: "C2 E2 C4 E4", D: "D3 A3 D4 F#4", G: "G2 D3 B3 D4", Em: "E3 B3 E4 G4" },
            rhythm: "x-------x-------",
          },
          Strum: { layouts: GUITAR, rhythm: "x-x-x-x-x-x-x-x-" },
          Bass: { low: "E1", steps: "R-----5-R---R-5-" },
        },
        drums: BEAT,
      },
    },
    form: ["Verse", "Verse", "Chorus", "Verse", "Chorus", "Chorus"],
    marks: [
      ["uncovered-accent", "Verse", 8, "Bass"],
      ["low-intervals", "Chorus", 1, "Piano"],
      ["out-of-range", "Chorus", 6, "Voice"],
      ["voice-crossing", "Chorus", 4, "Voice", "Harmony"],
    ],
  },
  {
    title: "Barn Lamps",
    key: "Bb major",
    tempo: 132,
    profile: "jazz",
    parts: {
      Sax: ["melody", "tenorSax"],
      Trumpet: ["counter", "trumpet"],
      Piano: ["chords", "piano"],
      Bass: ["bass", "doubleBass"],
    },
    sections: {
      Head: {
        line: "| Bbmaj7 | G7 | Cm7 | F7 | Dm7 | G7 | Cm7 F7 | Bbmaj7 |",
        parts: {
          Sax:
            "D4 q. F e A q G | B3 h. r q | C4 q Eb G e F Eb q | Eb4 h C q r | F4 q. A e C4 q A3 | B3 q D F e D " +
            "B3 q | Eb4 q G Eb C | D4 h. r q",
          Trumpet: "r w | r h D5 q F | r w | r h A4 q C5 | r w | r h B4 q D5 | E5 h Eb | r w",
          Piano: {
            layouts: {
              Bbmaj7: "A3 D4 F4",
              G7: "F3 B3 D4",
              Cm7: "Eb3 Bb3 D4",
              F7: "Eb3 A3 C4",
              Dm7: "F3 C4 E4",
            },
            rhythm: "....x-....x-....",
          },
          Bass:
            "Bb1 q D2 F G | G1 q B1 D2 B1 | C2 q D Eb E | F2 q Eb D C# | D2 q C B1 A | G1 q A B D2 | C2 q E F A1 " +
            "| Bb1 q F D2 A1",
        },
        drums: { ride: "o...o.oo..o.o.oo", kick: "o.......o......." },
      },
      Bridge: {
        line: "| Ebmaj7 | Edim7 | Bbmaj7/F | G7 | Cm7 | F7 | Bbmaj7 | F7 |",
        parts: {
          Sax:
            "G4 q. Bb e D5 q Bb4 | Bb4 h. r q | A4 q F D h | F4 q B3 D h | Eb4 q G h Eb q | F#4 w | D4 q F h. | " +
            "C4 q Eb r h",
          Trumpet: "r w | r w | F5 h. D5 q | r w | r w | A4 w | r w | r w",
          Piano: {
            layouts: {
              Ebmaj7: "D4 G4 Bb4",
              Edim7: "Db4 G4 Bb4",
              "Bbmaj7/F": "A3 D4 F4",
              G7: "F3 B3 D4",
              Cm7: "Eb3 Bb3 D4",
              F7: "Eb3 A3 C4",
              Bbmaj7: "A3 D4 F4",
            },
            rhythm: "x-....x-........",
          },
          Bass:
            "Eb2 q F G Bb | E2 q G Bb1 Db2 | F2 q D F A1 | G1 q B1 D2 B1 | C2 q Eb G E | F2 q C A1 C2 | Bb1 q D2 " +
            "F D | F2 q Eb C A1",
        },
        drums: { ride: "o...o.oo..o.o.oo", kick: "o.......o......." },
      },
    },
    form: ["Head", "Head", "Bridge", "Head"],
    marks: [
      ["long-outside", "Bridge", 6, "Sax"],
      ["loop-end", "Head", 8],
      ["long-outside", "Head", 7, "Trumpet"],
    ],
  },
  {
    title: "Frost Wheel",
    key: "A minor",
    tempo: 124,
    profile: "loop",
    parts: {
      Lead: ["melody", "electricPiano"],
      Pad: ["chords", "pad"],
      Pluck: ["chords", "electricPiano"],
      Growl: ["bass", "bassGuitar"],
      Sub: ["bass", "subBass"],
    },
    sections: {
      Drop: {
        line: "| Am | F | C | G | Am | F | C | G |",
        parts: {
          Lead:
            "A4 e C5 E h. | A4 e C5 F h. | G4 e C5 E h. | G4 e B D5 h. | A4 e C5 E h. | F5 e E C h. | E5 e D C " +
            "h. | D5 e B4 G h.",
          Pad: {
            layouts: { Am: "A3 C4 E4", F: "A3 C4 F4", C: "G3 C4 E4", G: "G3 B3 D4" },
            rhythm: "x---x---x---x---",
            velocity: 74,
          },
          Pluck: {
            layouts: { Am: "C4 E4 A4", F: "C4 F4 A4", C: "C4 E4 G4", G: "B3 D4 G4" },
            rhythm: "x---x---x---x---",
            velocity: 76,
          },
          Growl: { low: "E1", steps: "R...R...R...R..." },
          Sub: "A1 w | F1 w | C2 w | G1 w | A1 w | A1 w | C2 w | G1 w",
        },
        drums: { kick: "X...X...X...X...", clap: "....X.......X...", closedHat: "..o...o...o...o." },
      },
      Break: {
        line: "| Dm | Am | F | E |",
        parts: {
          Lead: "F5 h E q D | C5 h. r q | A4 h C5 q A4 | G#4 h. r q",
          Pad: {
            layouts: { Dm: "A3 D4 F4", Am: "A3 C4 E4", F: "A3 C4 F4", E: "G#3 B3 E4" },
            rhythm: "x---------------",
          },
          Sub: "D2 w | A1 w | F1 w | E1 w",
        },
        drums: { kick: "X.......X......." },
      },
    },
    form: ["Drop", "Break", "Drop", "Drop"],
    marks: [
      ["bass-layers", "Drop", 6, "Growl", "Sub"],
      ["masking", "Drop", 1, "Pad", "Pluck"],
    ],
  },
  {
    title: "Evensong for the Wagons",
    key: "D major",
    tempo: 84,
    profile: "chorale",
    parts: {
      Soprano: ["melody", "soprano"],
      Alto: ["vocal", "alto"],
      Tenor: ["vocal", "tenor"],
      "Bass voice": ["vocal", "bassVoice"],
    },
    sections: {
      Hymn: {
        line: "| D A | Bm F#m | G D | A | D G | Em A7 | D A7 | D |",
        parts: {
          Soprano: "F#4 h E | D4 h C# | B4 h A | A4 h. r q | A4 h B | B4 h A | A4 h G | F#4 h. r q",
          Alto: "D4 h C# | B3 h A | D4 h D | C#4 h. r q | D4 h D | E4 h C# | D4 h C# | D4 h. r q",
          Tenor: "A3 h A | F#3 h F# | G3 h F# | E3 h. r q | F#3 h G | G3 h G | F#3 h E | A3 h. r q",
          "Bass voice": "D3 h C# | B2 h F# | G2 h D3 | A2 h. r q | D3 h G2 | E3 h A2 | D3 h A2 | D3 h. r q",
        },
      },
    },
    form: ["Hymn", "Hymn"],
    marks: [
      // Soprano B–A over bass G–D is fine; alto and bass fall in octaves into bar 2.
      ["voice-parallels", "Hymn", 2, "Alto", "Bass voice"],
      ["voice-parallels", "Hymn", 8, "Tenor", "Bass voice"],
      ["doubled-leading-tone", "Hymn", 1, "Alto", "Bass voice"],
      ["wide-leap", "Hymn", 3, "Soprano"],
      ["breath", "Hymn", 1, "Soprano", "Alto", "Tenor", "Bass voice"],
    ],
  },
  {
    title: "Hay Waltz",
    key: "D major",
    meter: "3/4",
    tempo: 150,
    profile: "band",
    parts: {
      Fiddle: ["melody", "violin"],
      Whistle: ["counter", "flute"],
      Guitar: ["chords", "guitar"],
      Bass: ["bass", "doubleBass"],
    },
    sections: {
      A: {
        line: "| D | D | G | D | A7 | A7 | D | A7 |",
        parts: {
          Fiddle: "F#4 q G A | A4 h F# q | G4 q A B | A4 h. | C#5 q B4 A | G4 q F# E | F#4 q A D5 | C#5 h.",
          Whistle: "A5 q B A | D5 h A q | B5 q A G | F#5 h. | E5 q G E | C#5 q D E | A5 q F# A | E5 h.",
          Guitar: { layouts: { D: "A3 D4 F#4", G: "G3 B3 D4 G4", A7: "A3 C#4 G4" }, rhythm: "..x.x." },
          Bass: { low: "E1", steps: "R----." },
        },
      },
      B: {
        line: "| Bm | G | D | A | Bm | G | A7 | D |",
        parts: {
          Fiddle: "D5 q C# B4 | B4 h D5 q | A4 q B A | C#5 h E q | F#5 q E D | B4 q D5 G | E5 q C#5 G4 | D5 h. _ q",
          Guitar: {
            layouts: { Bm: "B2 F#3 B3 D4", G: "G3 B3 D4 G4", D: "A3 D4 F#4", A: "A3 C#4 E4", A7: "A3 C#4 G4" },
            rhythm: "..x.x.",
          },
          Bass: { low: "E1", steps: "R----." },
        },
      },
    },
    form: ["A", "A", "B", "A"],
    marks: [
      ["covered", "A", 2, "Fiddle", "Whistle"],
      ["wide-leap", "B", 7, "Fiddle"],
    ],
  },
  ...MORE_SONGS,
];
