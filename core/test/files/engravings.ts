/**
 * Bars as a copyist writes them: [what, meter, notes as "beat pitch beats", the bar]. A note has its value after a
 * colon, dots, t in a triplet, ~ tied, ' short, _ long; "|" divides bars, "//" stands before the lower voice. By the
 * rules of Gould, *Behind Bars* (2011), from memory.
 */
export const ENGRAVINGS: readonly [what: string, meter: string, notes: string[], bars: string][] = [
  // Shortness is a dot, not a rest.
  ["short quarters", "4/4", ["0 C5 .4", "1 D5 .4", "2 E5 .4", "3 F5 .4"], "C5:q' D5:q' E5:q' F5:q'"],
  [
    "short eighths",
    "4/4",
    ["0 C5 .25", ".5 D5 .25", "1 E5 .25", "1.5 F5 .25", "2 G5 2"],
    "C5:8' D5:8' E5:8' F5:8' G5:h",
  ],
  ["nearly full quarters have no sign", "4/4", ["0 C5 .9", "1 D5 .9", "2 E5 .9", "3 F5 .9"], "C5:q D5:q E5:q F5:q"],
  ["off-beats", "4/4", [".5 C5 .3", "1.5 C5 .3", "2.5 C5 .3", "3.5 C5 .3"], "r:8 C5:8' r:8 C5:8' r:8 C5:8' r:8 C5:8'"],
  [
    "off-beats, full",
    "4/4",
    [".5 C5 .5", "1.5 C5 .5", "2.5 C5 .5", "3.5 C5 .5"],
    "r:8 C5:8 r:8 C5:8 r:8 C5:8 r:8 C5:8",
  ],
  [
    "one note that is held between short ones",
    "4/4",
    ["0 C5 .5", "1 D5 .5", "2 E5 1", "3 F5 .5"],
    "C5:q' D5:q' E5:q_ F5:q'",
  ],
  [
    "sixteenths played short",
    "4/4",
    ["0 C5 .1", ".25 C5 .1", ".5 C5 .1", ".75 C5 .1", "1 C5 3"],
    "C5:16' C5:16' C5:16' C5:16' C5~:q C5:h",
  ],
  ["late releases are not written", "4/4", ["0 C5 1.05", "1 D5 1.02", "2 E5 2"], "C5:q D5:q E5:h"],
  ["played early and late", "4/4", ["0.01 C5 1", "0.99 D5 1", "2.02 E5 2"], "C5:q D5:q E5:h"],
  // Beats and half bars.
  ["one long note", "4/4", ["0 C5 4"], "C5:w"],
  ["dotted half", "4/4", ["0 C5 3", "3 D5 1"], "C5:h. D5:q"],
  ["a half note over the middle is tied", "4/4", ["0 C5 1", "1 D5 2", "3 E5 1"], "C5:q D5~:q D5:q E5:q"],
  ["eighth, quarter, eighth", "4/4", ["0 C5 .5", ".5 D5 1", "1.5 E5 .5", "2 F5 2"], "C5:8 D5:q E5:8 F5:h"],
  ["anticipation of the middle", "4/4", ["0 C5 1.5", "1.5 D5 2.5"], "C5:q. D5~:8 D5:h"],
  ["anticipation of the bar", "4/4", ["0 C5 3.5", "3.5 D5 4.5"], "C5~:h. C5:8 D5~:8 | D5:w"],
  ["dotted quarter from an off-beat to the middle", "4/4", ["0 C5 .5", ".5 D5 1.5", "2 E5 2"], "C5:8 D5:q. E5:h"],
  ["sixteenth and dotted eighth", "4/4", ["0 C5 .25", ".25 D5 .75", "1 E5 3"], "C5:16 D5:8. E5~:q E5:h"],
  ["a rest of a half bar", "4/4", ["2 C5 2"], "r:h C5:h"],
  ["rests show the beats", "4/4", ["0 C5 1", "3 D5 1"], "C5:q r:q r:q D5:q"],
  ["rests after an eighth", "4/4", ["0 C5 .5", "2.5 D5 .5", "3 E5 1"], "C5:8 r:8 r:q r:8 D5:8 E5:q"],
  ["a silent bar", "4/4", ["4 C5 4"], "r:w | C5:w"],
  ["sixteenths and an eighth", "4/4", ["0 C5 .25", ".25 D5 .25", ".5 E5 .5", "1 F5 3"], "C5:16 D5:16 E5:8 F5~:q F5:h"],
  ["dotted eighth and sixteenth", "4/4", ["0 C5 .75", ".75 D5 .25", "1 E5 3"], "C5:8. D5:16 E5~:q E5:h"],
  [
    "sixteenth, eighth, sixteenth",
    "4/4",
    ["0 C5 .25", ".25 D5 .5", ".75 E5 .25", "1 F5 3"],
    "C5:16 D5:8 E5:16 F5~:q F5:h",
  ],
  ["a note of three beats from the second", "4/4", ["1 C5 3"], "r:q C5~:q C5:h"],
  // Three, two and five.
  ["three four", "3/4", ["0 C5 3"], "C5:h."],
  ["a half note at the end of three", "3/4", ["0 C5 1", "1 D5 2"], "C5:q D5:h"],
  ["rests in three are quarters", "3/4", ["0 C5 1"], "C5:q r:q r:q"],
  ["two four", "2/4", ["0 C5 .5", ".5 D5 .5", "1 E5 1"], "C5:8 D5:8 E5:q"],
  // Compound meters.
  ["six eight in two", "6/8", ["0 C5 1.5", "1.5 D5 1", "2.5 E5 .5"], "C5:q. D5:q E5:8"],
  ["six eight, long", "6/8", ["0 C5 3"], "C5:h."],
  ["six eight rests", "6/8", ["1.5 C5 1.5"], "r:q. C5:q."],
  ["six eight, quarter and eighth", "6/8", ["0 C5 1", "1 D5 .5", "1.5 E5 1.5"], "C5:q D5:8 E5:q."],
  ["six eight over the middle", "6/8", ["0 C5 1", "1 D5 2"], "C5:q D5~:8 D5:q."],
  ["nine eight", "9/8", ["0 C5 1.5", "1.5 D5 1.5", "3 E5 1.5"], "C5:q. D5:q. E5:q."],
  ["twelve eight", "12/8", ["0 C5 3", "3 D5 1.5", "4.5 E5 1.5"], "C5:h. D5:q. E5:q."],
  // Groups.
  ["seven eight keeps its groups", "7/8", ["0 C5 1", "1 D5 1", "2 E5 1.5"], "C5:q D5:q E5:q."],
  [
    "seven eight in eighths",
    "7/8",
    ["0 C5 .5", ".5 D5 .5", "1 E5 .5", "1.5 F5 .5", "2 G5 .5", "2.5 A5 .5", "3 B5 .5"],
    "C5:8 D5:8 E5:8 F5:8 G5:8 A5:8 B5:8",
  ],
  // Triplets only where three equal parts are meant.
  ["a triplet", "4/4", ["0 C5 .3333", ".3333 D5 .3333", ".6667 E5 .3333", "1 F5 3"], "C5:8t D5:8t E5:8t F5~:q F5:h"],
  ["a quarter and an eighth in a triplet", "4/4", ["0 C5 .6667", ".6667 D5 .3333", "1 E5 3"], "C5:qt D5:8t E5~:q E5:h"],
  ["a short off-beat is no triplet", "4/4", ["0 C5 .5", ".5 D5 .17", "1 E5 1", "2 F5 2"], "C5:8 D5:8' E5:q F5:h"],
  [
    "a triplet that begins with a rest",
    "4/4",
    [".3333 D5 .3333", ".6667 E5 .3333", "1 F5 3"],
    "r:8t D5:8t E5:8t F5~:q F5:h",
  ],
  // Chords and voices.
  ["a chord tied over the bar", "4/4", ["2 C5 4", "2 E5 4"], "r:h C5~+E5~:h | C5+E5:h r:h"],
  ["two voices", "4/4", ["0 E5 1", "1 F5 1", "2 G5 2", "0 C5 4"], "E5:q F5:q G5:h // C5:w"],
  ["a tune over a held third", "3/4", ["0 G4 3", "0 B4 1", "1 C5 1", "2 D5 1"], "B4:q C5:q D5:q // G4:h."],
  [
    "two that move in turn",
    "4/4",
    ["0 E5 2", "0 C5 1", "1 D5 1", "2 F5 2", "2 B4 1", "3 A4 1"],
    "E5:h F5:h // C5:q D5:q B4:q A4:q",
  ],
  [
    "an upper note held over a moving lower one",
    "4/4",
    ["0 G5 4", "0 C5 1", "1 D5 1", "2 E5 2"],
    "G5:w // C5:q D5:q E5:h",
  ],
  [
    "a chord with uneven releases is one chord",
    "4/4",
    ["0 C5 .9", "0 E5 1", "1 D5 1", "1 F5 .9", "2 E5 2"],
    "C5+E5:q D5+F5:q E5:h",
  ],
];
