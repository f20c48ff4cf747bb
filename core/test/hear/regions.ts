/**
 * Progressions that visit another key, or only lean on it, and the stretches a musician hears: [home, chords, "key
 * first–last chord"], chords counted from 0. Held from the chord that turns until the music leaves; a dominant that
 * goes to its chord once is no visit (any harmony textbook). Written down before the finder was made to hear them.
 */
export const REGIONS: readonly [home: string, chords: string, ...stretches: string[]][] = [
  ["C major", "C Am Dm G C D7 G Em Am D7 G C F G7 C", "G major 4-10"],
  ["A minor", "Am Dm E7 Am C F G7 C Dm E7 Am", "C major 4-7"],
  ["C major", "C Am F G Am Dm E7 Am F G C", "A minor 4-7"],
  ["C major", "C Gm7 C7 F Bb C7 F G7 C", "F major 1-6"],
  ["C major", "C Am F G Ab7 Db Bbm Gb Ab Db", "Db major 4-9"],
  ["G major", "G Em C D B7 Em Am B7 Em D7 G", "E minor 4-8"],
  ["F major", "F Dm Gm C7 F F7 Bb Eb F7 Bb C7 F", "Bb major 5-9"],
  ["C major", "C D7 G C"],
  ["C major", "C A7 Dm G7 C"],
  ["Eb major", "Ebmaj7 Abm7 Db7 Gbmaj7 Fm7 Bb7 Ebmaj7", "Gb major 1-3"],
  ["C major", "Cmaj7 Cm7 F7 Bbmaj7 Bbm7 Eb7 Abmaj7 Dm7b5 G7 Cmaj7", "Bb major 1-3", "Ab major 4-6"],
  ["A minor", "Am E7 Am Dm A E7 A D A", "A major 4-8"],
  ["C major", "C F G7 C A7 D G A7 D", "D major 4-8"],
  ["D minor", "Dm Gm A7 Dm Bb C7 F Bb C7 F A7 Dm", "F major 4-9"],
  ["C major", "C F C G C Am E7 Am E7 Am G7 C", "A minor 5-9"],
  ["C major", "C E7 Am F G C"],
  ["A minor", "Am G C F Dm E Am"],
  ["A minor", "Am F C G Am F C G"],
  ["C major", "C Am F G C Am F G"],
  ["G major", "G C D G A7 D A7 D G D G", "D major 3-7"],
  ["E minor", "Em Am B7 Em D7 G C D7 G B7 Em", "G major 4-8"],
  ["Bb major", "Bb Gm Eb F7 Bb Am7b5 D7 Gm Cm D7 Gm F7 Bb", "G minor 5-10"],
  ["C major", "Cmaj7 Dm7 G7 Cmaj7 Em7b5 A7 Dm7 G7"],
  ["C major", "C F G Am E7 Am G C"],
  ["F major", "F C Dm Bb Am E7 Am E7 Am C7 F", "A minor 4-8"],
  ["C major", "C G Am F E7 A D E7 A", "A major 4-8"],
  ["D major", "D G A D Bb F Bb Eb F Bb A7 D", "Bb major 4-9"],
  ["C minor", "Cm Fm G7 Cm Ab Bb7 Eb Ab Bb7 Eb G7 Cm", "Eb major 4-9"],
];
