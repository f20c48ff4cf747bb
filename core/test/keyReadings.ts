/**
 * Progressions and the key a musician hears them in, written down before the key finder was made to hear them; a second key where both are heard. Invented
 * or common property (cadences, turnarounds, the twelve bars); judged by ear and by the rules of any harmony textbook.
 */
export const KEY_READINGS: readonly [chords: string, ...keys: string[]][] = [
  // The twelve bars, in major and minor, and shorter blues.
  ["C7 F7 C7 C7 F7 F7 C7 C7 G7 F7 C7 G7", "C major"],
  ["Am7 Dm7 Am7 Am7 Dm7 Dm7 Am7 Am7 E7 Dm7 Am7 E7", "A minor"],
  ["A7 D7 A7 E7", "A major"],
  ["Bb7 Eb7 Bb7 F7", "Bb major"],
  // Turnarounds that never say their tonic.
  ["Em7 A7 Dm7 G7", "C major"],
  ["Gm7 C7 Fm7 Bb7", "Eb major"],
  ["Cmaj7 A7 Dm7 G7", "C major"],
  ["E7 A7 D7 G7 C", "C major"],
  ["Bm7 E7 Am7 D7", "G major"],
  // Vamps and modes.
  ["Dm7 G7 Dm7 G7", "D dorian"],
  ["Am7 D9 Am7 D9", "A dorian"],
  ["Cm7 F7 Cm7 F7", "C dorian"],
  ["Dm Em F Em Dm", "D dorian"],
  ["G F C G", "G mixolydian"],
  ["D C G D", "D mixolydian"],
  ["G Dm C G", "G mixolydian"],
  ["F G F G F", "F lydian"],
  ["Em F Em F", "E phrygian"],
  // Major.
  ["C Am F G", "C major"],
  ["C G Am F", "C major"],
  ["D A Bm G", "D major"],
  ["A E F#m D", "A major"],
  ["Bb Gm Eb F", "Bb major"],
  ["Fm7 Bb7 Ebmaj7", "Eb major"],
  ["Ebmaj7 Fm7 Bb7 Ebmaj7", "Eb major"],
  ["E A E B7", "E major"],
  ["Gm C7 F F", "F major"],
  ["C E7 F G7 C", "C major"],
  ["C Eb F C", "C major"],
  ["C F C G C", "C major"],
  ["Bbmaj7 Am7 Gm7 C7 F", "F major"],
  ["C Fm C G7", "C major"],
  // Minor.
  ["Am G F E", "A minor"],
  ["Dm Gm A7 Dm", "D minor"],
  ["Dm7b5 G7 Cm", "C minor"],
  ["Am Dm G C F Bm7b5 E7 Am", "A minor"],
  ["Em D C D Em", "E minor"],
  ["Abmaj7 Bb7 Cm7 Cm7", "C minor"],
  ["Am7 D7 Gmaj7 Cmaj7 F#m7b5 B7 Em", "E minor", "G major"],
  // Loops between relatives: the one they begin on, the other a near rival.
  ["Am F C G", "A minor", "C major"],
  ["Bm G D A", "B minor", "D major"],
  ["Cm Ab Eb Bb", "C minor", "Eb major"],
  ["F#m D A E", "F# minor", "A major"],
  ["Gm Eb Bb F", "G minor", "Bb major"],
  ["Dm Bb F C", "D minor", "F major"],
];
