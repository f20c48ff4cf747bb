/**
 * Traditional tunes, out of copyright (and one invented line), with the degrees of the harmony that songbooks and
 * hymnals print under them; and basses with the chords that a harmony handbook puts on them. Tunes and harmonies
 * written down from memory before the harmonizer was made to agree with them; where books differ the plainer one is
 * taken. A tune is written in bars: a note of one beat is its name, others have their beats after a star; "-" is a
 * rest.
 */
export interface Tune {
  name: string;
  key: string;
  meter: string;
  /** Beats before the first bar. */
  pickup?: number;
  tune: string;
  /** Degrees, bar by bar; two in a bar share it. */
  degrees: string;
}

export const TUNES: readonly Tune[] = [
  {
    name: "Ode to Joy (Beethoven, 1824)",
    key: "C major",
    meter: "4/4",
    tune: "E4 E4 F4 G4|G4 F4 E4 D4|C4 C4 D4 E4|E4*1.5 D4*.5 D4*2|E4 E4 F4 G4|G4 F4 E4 D4|C4 C4 D4 E4|D4*1.5 C4*.5 C4*2",
    degrees: "I|V|I|I V|I|V|I|V I",
  },
  {
    name: "Ah! vous dirai-je, maman (France, 1761)",
    key: "C major",
    meter: "4/4",
    tune:
      "C4 C4 G4 G4|A4 A4 G4*2|F4 F4 E4 E4|D4 D4 C4*2|G4 G4 F4 F4|E4 E4 D4*2|G4 G4 F4 F4|E4 E4 D4*2|C4 C4 G4 " +
      "G4|A4 A4 G4*2|F4 F4 E4 E4|D4 D4 C4*2",
    degrees: "I|IV I|IV I|V I|I IV|I V|I IV|I V|I|IV I|IV I|V I",
  },
  {
    name: "Mary had a little lamb (1830)",
    key: "G major",
    meter: "4/4",
    tune: "B4 A4 G4 A4|B4 B4 B4*2|A4 A4 A4*2|B4 D5 D5*2|B4 A4 G4 A4|B4 B4 B4 B4|A4 A4 B4 A4|G4*4",
    degrees: "I|I|V|I|I|I|V|I",
  },
  {
    name: "Amazing Grace (New Britain, 1829)",
    key: "G major",
    meter: "3/4",
    tune:
      "G4*2 B4*.5 G4*.5|B4*2 A4|G4*2 E4|D4*2 D4|G4*2 B4*.5 G4*.5|B4*2 A4|D5*3|D5*2 B4|D5*2 B4*.5 G4*.5|B4*2 " +
      "A4|G4*2 E4|D4*2 D4|G4*2 B4*.5 G4*.5|B4*2 A4|G4*3|G4*3",
    degrees: "I|I|IV|I|I|I|V|V|I|I|IV|I|I|V|I|I",
  },
  {
    name: "Silent Night (Gruber, 1818)",
    key: "C major",
    meter: "3/4",
    tune:
      "G4*1.5 A4*.5 G4|E4*3|G4*1.5 A4*.5 G4|E4*3|D5*2 D5|B4*3|C5*2 C5|G4*3|A4*2 A4|C5*1.5 B4*.5 A4|G4*1.5 A4*.5 " +
      "G4|E4*3|A4*2 A4|C5*1.5 B4*.5 A4|G4*1.5 A4*.5 G4|E4*3|D5*2 D5|F5*1.5 D5*.5 B4|C5*3|E5*3|C5*1.5 G4*.5 " +
      "E4|G4*1.5 F4*.5 D4|C4*3|C4*3",
    degrees: "I|I|I|I|V|V|I|I|IV|IV|I|I|IV|IV|I|I|V|V|I|I|I|V|I|I",
  },
  {
    name: "Greensleeves (England, 16th century)",
    key: "A minor",
    meter: "3/4",
    tune:
      "C5*2 D5|E5*1.5 F5*.5 E5|D5*2 B4|G4*1.5 A4*.5 B4|C5*2 A4|A4*1.5 G#4*.5 A4|B4*2 G#4|E4*2 A4|C5*2 D5|E5*1.5 " +
      "F5*.5 E5|D5*2 B4|G4*1.5 A4*.5 B4|C5*1.5 B4*.5 A4|G#4*1.5 F#4*.5 G#4|A4*3|A4*3",
    degrees: "i|i|VII|VII|i|i|V|V|i|i|VII|VII|i|V|i|i",
  },
  {
    name: "Drunken Sailor (sea shanty)",
    key: "D dorian",
    meter: "4/4",
    tune:
      "A4 A4*.5 A4*.5 A4 A4*.5 A4*.5|A4 D4 F4 A4|G4 G4*.5 G4*.5 G4 G4*.5 G4*.5|G4 C4 E4 G4|A4 A4*.5 A4*.5 A4 " +
      "A4*.5 A4*.5|A4 B4 C5 D5|C5 A4 G4 E4|D4*2 D4*2",
    degrees: "i|i|VII|VII|i|i|VII|i",
  },
  {
    name: "Auld Lang Syne (Scotland, 18th century)",
    key: "F major",
    meter: "4/4",
    tune:
      "F4*1.5 F4*.5 F4 A4|G4*1.5 F4*.5 G4 A4|F4*1.5 F4*.5 A4 C5|D5*3 D5|C5*1.5 A4*.5 A4 F4|G4*1.5 F4*.5 G4 " +
      "A4|F4*1.5 D4*.5 D4 C4|F4*3 D5|C5*1.5 A4*.5 A4 F4|G4*1.5 F4*.5 G4 D5|C5*1.5 A4*.5 A4 C5|D5*3 D5|C5*1.5 " +
      "A4*.5 A4 F4|G4*1.5 F4*.5 G4 A4|F4*1.5 D4*.5 D4 C4|F4*4",
    degrees: "I|V|I|IV|I|V|IV V|I|I|V|I|IV|I|V|IV V|I",
  },
  {
    name: "Oh! Susanna (Foster, 1848)",
    key: "C major",
    meter: "4/4",
    tune:
      "E4 G4 G4*1.5 A4*.5|G4 E4 C4*1.5 D4*.5|E4 E4 D4 C4|D4*3 C4*.5 D4*.5|E4 G4 G4*1.5 A4*.5|G4 E4 C4*1.5 " +
      "D4*.5|E4 E4 D4 D4|C4*4|F4*2 F4*2|A4 A4*2 A4|G4 G4 E4 C4|D4*3 C4*.5 D4*.5|E4 G4 G4*1.5 A4*.5|G4 E4 C4*1.5 " +
      "D4*.5|E4 E4 D4 D4|C4*4",
    degrees: "I|I|I|V|I|I|I V|I|IV|IV|I|V|I|I|I V|I",
  },
  {
    name: "Jingle Bells, chorus (Pierpont, 1857)",
    key: "G major",
    meter: "4/4",
    tune:
      "B4 B4 B4*2|B4 B4 B4*2|B4 D5 G4*1.5 A4*.5|B4*4|C5 C5 C5*1.5 C5*.5|C5 B4 B4 B4|B4 A4 A4 B4|A4*2 D5*2|B4 B4 " +
      "B4*2|B4 B4 B4*2|B4 D5 G4*1.5 A4*.5|B4*4|C5 C5 C5*1.5 C5*.5|C5 B4 B4 B4|D5 D5 C5 A4|G4*4",
    degrees: "I|I|I|I|IV|I|V|V|I|I|I|I|IV|I|V|I",
  },
  {
    name: "When the Saints (spiritual)",
    key: "F major",
    meter: "4/4",
    tune:
      "- F4 A4 Bb4|C5*4|- F4 A4 Bb4|C5*4|- F4 A4 Bb4|C5*2 A4*2|F4*2 A4*2|G4*4|A4*2 A4 G4|F4*3 F4|A4*2 C5 " +
      "C5|Bb4*4|- - A4 Bb4|C5*2 A4*2|F4*2 G4*2|F4*4",
    degrees: "I|I|I|I|I|I|I|V|I|I|I|IV|IV I|I|I V|I",
  },
  {
    name: "Good King Wenceslas (Tempus adest floridum, 1582)",
    key: "G major",
    meter: "4/4",
    tune:
      "G4 G4 G4 A4|G4 G4 D4*2|E4 D4 E4 F#4|G4*2 G4*2|G4 G4 G4 A4|G4 G4 D4*2|E4 D4 E4 F#4|G4*2 G4*2|D5 C5 B4 " +
      "A4|B4 A4 G4*2|E4 D4 E4 F#4|G4*2 G4*2",
    degrees: "I|I V|IV V|I|I|I V|IV V|I|I V|I|IV V|I",
  },
  {
    name: "Deck the Halls (Nos Galan, Wales)",
    key: "F major",
    meter: "4/4",
    tune:
      "C5*1.5 Bb4*.5 A4 G4|F4 G4 A4 F4|G4*.5 A4*.5 Bb4*.5 G4*.5 A4*1.5 G4*.5|F4 E4 F4*2|C5*1.5 Bb4*.5 A4 G4|F4 " +
      "G4 A4 F4|G4*.5 A4*.5 Bb4*.5 G4*.5 A4*1.5 G4*.5|F4 E4 F4*2|G4*1.5 A4*.5 Bb4 G4|A4*1.5 Bb4*.5 C5 G4|A4*.5 " +
      "B4*.5 C5 D5*.5 E5*.5 F5|E5 D5 C5*2",
    degrees: "I|I|V I|V I|I|I|V I|V I|V|I|I|V",
  },
  {
    name: "Lightly Row (Germany)",
    key: "C major",
    meter: "4/4",
    tune:
      "G4 E4 E4*2|F4 D4 D4*2|C4 D4 E4 F4|G4 G4 G4*2|G4 E4 E4*2|F4 D4 D4*2|C4 E4 G4 G4|C4*4|D4 D4 D4 D4|D4 E4 " +
      "F4*2|E4 E4 E4 E4|E4 F4 G4*2|G4 E4 E4*2|F4 D4 D4*2|C4 E4 G4 G4|C4*4",
    degrees: "I|V|I|I|I|V|I|I|V|V|I|I|I|V|I|I",
  },
  {
    name: "London Bridge (England)",
    key: "D major",
    meter: "4/4",
    tune: "A4 B4 A4 G4|F#4 G4 A4*2|E4 F#4 G4*2|F#4 G4 A4*2|A4 B4 A4 G4|F#4 G4 A4*2|E4*2 A4*2|F#4 D4*3",
    degrees: "I|I|V|I|I|I|V|I",
  },
  {
    name: "Skip to my Lou (play-party song)",
    key: "F major",
    meter: "4/4",
    tune:
      "A4 A4 F4 F4*.5 F4*.5|A4 A4*.5 A4*.5 C5*2|G4 G4 E4 E4*.5 E4*.5|G4 G4*.5 G4*.5 Bb4*2|A4 A4 F4 F4*.5 " +
      "F4*.5|A4 A4*.5 A4*.5 C5*2|G4 A4*.5 Bb4*.5 A4 G4|F4*2 F4*2",
    degrees: "I|I|V|V|I|I|V|I",
  },
  {
    name: "Clementine (Montrose, 1884)",
    key: "F major",
    meter: "3/4",
    tune:
      "F4 C4 A4|A4 F4 F4*.5 A4*.5|C5 C5 Bb4*.5 A4*.5|G4*2 G4*.5 A4*.5|Bb4 Bb4 A4*.5 G4*.5|A4 F4 F4*.5 A4*.5|G4 " +
      "C4 E4*.5 G4*.5|F4*3",
    degrees: "I|I|I|V|V|I|V|I",
  },
  {
    name: "Lullaby (Brahms, 1868)",
    key: "C major",
    meter: "3/4",
    tune:
      "G4*2 E4*.5 E4*.5|G4*2 E4*.5 G4*.5|C5 B4*1.5 A4*.5|A4 G4 D4*.5 E4*.5|F4 D4 D4*.5 E4*.5|F4*2 D4*.5 " +
      "F4*.5|B4*.5 A4*.5 G4 B4|C5*3",
    degrees: "I|I|I|I|V|V|V|I",
  },
  {
    name: "We Three Kings, verse (Hopkins, 1857)",
    key: "E minor",
    meter: "3/4",
    tune: "B4*2 A4|G4*2 E4|F#4 G4 F#4|E4*3|B4*2 A4|G4*2 E4|F#4 G4 F#4|E4*3",
    degrees: "i|i|V|i|i|i|V|i",
  },
  {
    name: "La Mantovana (Italy, 1600)",
    key: "A minor",
    meter: "4/4",
    tune:
      "A4*.5 B4*.5 C5*.5 D5*.5 E5 E5|F5 F5 E5*2|D5 D5 C5 C5|B4*.5 A4*.5 B4*.5 C5*.5 A4*2|A4*.5 B4*.5 C5*.5 D5*.5 " +
      "E5 E5|F5 F5 E5*2|D5 D5 C5 C5|B4*.5 G#4*.5 B4 A4*2",
    degrees: "i|iv i|iv i|V i|i|iv i|iv i|V i",
  },
  {
    name: "This Old Man (England)",
    key: "C major",
    meter: "4/4",
    tune:
      "G4 E4 G4*2|G4 E4 G4*2|A4 G4 F4 E4|D4 E4 F4 E4*.5 F4*.5|G4 C4 C4 C4|C4*.5 D4*.5 E4*.5 F4*.5 G4*2|G4 D4 D4 " +
      "F4|E4 D4 C4*2",
    degrees: "I|I|IV I|V|I|I|V|V I",
  },
  {
    name: "Camptown Races (Foster, 1850)",
    key: "D major",
    meter: "4/4",
    tune: "A4 A4 F#4 A4|B4 A4 F#4*2|F#4 E4*3|F#4 E4*3|A4 A4 F#4 A4|B4 A4 F#4*2|E4 F#4*.5 E4*.5 D4*2|D4*4",
    degrees: "I|I|V|V|I|I|V I|I",
  },
  {
    name: "Vive l'amour (student song)",
    key: "G major",
    meter: "3/4",
    tune: "D4 G4 G4|G4 A4 B4|A4 F#4 F#4|F#4*2 D4|F#4 A4 A4|A4 B4 C5|B4 G4 G4|G4*3",
    degrees: "I|I|V|V|V|V|I|I",
  },
  {
    name: "Aura Lee (Poulton, 1861)",
    key: "F major",
    meter: "4/4",
    tune: "C4 F4 E4 F4|G4 D4 G4*2|F4 E4 D4 E4|F4*4|C4 F4 E4 F4|G4 D4 G4*2|F4 E4 D4 E4|F4*4",
    degrees: "I|ii|V|I|I|ii|V|I",
  },
  {
    name: "A line in minor with its leading tone held (invented)",
    key: "D minor",
    meter: "4/4",
    tune: "D4 E4 F4 G4|A4*2 F4*2|G4*2 E4*2|C#4*4|D4 E4 F4 G4|A4*2 Bb4*2|A4 G4 E4 C#4|D4*4",
    degrees: "i|i|iv V|V|i|i iv|V|i",
  },
];

/**
 * [key, "open" or "closed", bass, a bar each, chords that a handbook puts on it (any of those between slashes "or"),
 * where it is from].
 */
export const BASSES: readonly [key: string, ending: "open" | "closed", bass: string, chords: string, source: string][] =
  [
    ["C major", "open", "C G A F", "C G Am F", "common practice"],
    ["C major", "open", "C A F G", "C Am F G", "common practice"],
    ["C major", "closed", "C F G C", "C F G|G7 C", "any harmony textbook"],
    ["C major", "closed", "C A D G C", "C Am Dm|Dm7 G|G7 C", "any harmony textbook"],
    ["A minor", "open", "A G F E", "Am G F E|E7", "falling minor bass, any harmony textbook"],
    ["D minor", "open", "D C Bb A", "Dm C Bb A|A7", "falling minor bass, any harmony textbook"],
    ["E minor", "open", "E D C B", "Em D C B|B7", "falling minor bass, any harmony textbook"],
    ["D major", "open", "D A B F# G D G A", "D A Bm F#m|D/F# G D G A|A7", "Pachelbel's ground"],
    [
      "C major",
      "open",
      "C B A G F E D G",
      "C G/B|G7/B Am G|Em/G|C/G|Am7/G F C/E|Em Dm|Dm7 G|G7",
      "falling scale in the bass, common practice",
    ],
    ["C major", "closed", "C E F G C", "C C/E F G|G7 C", "any harmony textbook"],
    ["G major", "open", "G F# E D", "G D/F#|D7/F# Em D|D7", "common practice"],
    ["G major", "open", "G F# E C", "G D/F#|D7/F# Em C", "common practice"],
    ["A minor", "closed", "A G# A E A", "Am E/G#|E7/G#|G#dim7|G#dim Am E|E7 Am", "any harmony textbook"],
    [
      "A minor",
      "closed",
      "A D G C F B E A",
      "Am Dm|Dm7 G|G7 C|Cmaj7 F|Fmaj7 Bdim|Bm7b5 E|E7 Am",
      "circle of fifths in minor, any harmony textbook",
    ],
    [
      "C major",
      "closed",
      "C D E F G C",
      "C G/D|G7/D|Bdim/D C/E F|Dm/F|Dm7/F G|G7 C",
      "rule of the octave (Fenaroli, from memory)",
    ],
    ["C major", "closed", "G A B C", "G|G7 F/A|Am G/B|G7/B C", "rule of the octave (Fenaroli, from memory)"],
    ["C mixolydian", "closed", "C Bb F C", "C Bb F C", "common practice"],
    ["D dorian", "open", "D G D G", "Dm|Dm7 G|G7 Dm|Dm7 G|G7", "common practice"],
    ["E phrygian", "closed", "E F E", "Em F Em", "common practice"],
    ["C major", "closed", "C Ab Bb C", "C Ab Bb C", "common practice"],
    [
      "A minor",
      "open",
      "A G# G F# F E",
      "Am E/G#|E7/G#|Am/G# C/G|Am/G|Am7/G|Em/G D/F#|D7/F#|F#m7b5|Am/F# F|Fmaj7|Dm/F E|E7",
      "chromatic lament bass",
    ],
    ["F major", "closed", "F D Bb C F", "F Dm Bb|Gm/Bb C|C7 F", "common practice"],
  ];
