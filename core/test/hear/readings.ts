/**
 * Progressions and how they are read, written down before the analysis was made to read them: [key, chords, numerals].
 * A chord that is not simply in its key has what it is after a colon. Harmony and jazz harmony textbooks say the same
 * of each (Kostka & Payne; Levine; from memory).
 */
export const READINGS: readonly [key: string, chords: string, reading: string][] = [
  // The key's own chords, major and minor; in minor degrees count from natural minor.
  ["C major", "C Am F G", "I vi IV V"],
  ["G major", "G D/F# Em D", "I V6 vi V"],
  ["Eb major", "Ebmaj7 Cm7 Fm7 Bb7", "Imaj7 vi7 ii7 V7"],
  ["A minor", "Am Dm E Am", "i iv V i"],
  ["A minor", "Am G F E", "i VII VI V"],
  ["D minor", "Dm Bb F C", "i VI III VII"],
  ["A minor", "Am7 Bm7b5 E7 Am", "i7 iiø7 V7 i"],
  ["E minor", "Em C Am B7", "i VI iv V7"],
  ["A minor", "Am G#dim7 Am E7", "i vii°7 i V7"],
  // Dorian and melodic color in minor.
  ["E minor", "Em7 A9 Em7 A9", "i7 IV9:raised-sixth i7 IV9:raised-sixth"],
  ["A minor", "Am6 Am6 E7 Am6", "i(add6):raised-sixth i(add6):raised-sixth V7 i(add6):raised-sixth"],
  ["A minor", "AmMaj7 Dm7 E7 AmMaj7", "imaj7 iv7 V7 imaj7"],
  ["A minor", "Am F#m7b5 Fmaj7 E7", "i #viø7:raised-sixth VImaj7 V7"],
  // Modes.
  ["D dorian", "Dm7 G7 Dm7 G7", "i7 IV7 i7 IV7"],
  ["D dorian", "Dm C G Dm", "i VII IV i"],
  ["G mixolydian", "G F C G", "I bVII IV I"],
  ["G mixolydian", "G Dm7 C G", "I v7 IV I"],
  ["A mixolydian", "A7 G D A7", "I7 bVII IV I7"],
  ["F lydian", "F G F G", "I II I II"],
  ["F lydian", "Fmaj7 G Em7 Fmaj7", "Imaj7 II vii7 Imaj7"],
  ["E phrygian", "Em F Em F", "i bII i bII"],
  ["E phrygian", "Em Dm F Em", "i vii bII i"],
  // Applied dominants to every degree, of borrowed degrees too.
  ["C major", "C A7 Dm G7", "I V7/ii:applied-dominant ii V7"],
  ["C major", "C B7 Em Am", "I V7/iii:applied-dominant iii vi"],
  ["C major", "C C7 F G", "I V7/IV:applied-dominant IV V"],
  ["C major", "C D7 G7 C", "I V7/V:applied-dominant V7 I"],
  ["C major", "C E7 Am F", "I V7/vi:applied-dominant vi IV"],
  ["C major", "C Eb7 Ab G7", "I V7/bVI:applied-dominant bVI:borrowed V7"],
  ["C major", "C Bb7 Eb F", "I V7/bIII:applied-dominant bIII:borrowed IV"],
  ["C major", "C Ab7 Db G7", "I V7/bII:applied-dominant bII:neapolitan V7"],
  ["A minor", "Am G7 C E7", "i V7/III:applied-dominant III V7"],
  ["A minor", "Am A7 Dm E7", "i V7/iv:applied-dominant iv V7"],
  ["A minor", "Am C7 F E7", "i V7/VI:applied-dominant VI V7"],
  ["A minor", "Am B7 E7 Am", "i V7/V:applied-dominant V7 i"],
  ["C major", "C E/G# Am F", "I V6/vi:applied-dominant vi IV"],
  ["F major", "F D7 Gm C7", "I V7/ii:applied-dominant ii V7"],
  // Through repeats and suspensions.
  ["F major", "C7 C7 F7 Bb", "V7 V7 V7/IV:applied-dominant IV"],
  ["C major", "A7 A7 Dm G7", "V7/ii:applied-dominant V7/ii:applied-dominant ii V7"],
  ["C major", "D7sus4 D7 G7 C", "V7sus4/V:suspension V7/V:applied-dominant V7 I"],
  ["C major", "A7sus4 A7 Dm G7", "V7sus4/ii:suspension V7/ii:applied-dominant ii V7"],
  ["C major", "E7 E7/G# Am F", "V7/vi:applied-dominant V65/vi:applied-dominant vi IV"],
  ["C major", "Db7 Db7 C C", "bII7:tritone-substitute bII7:tritone-substitute I I"],
  // ii–V of other degrees, minor ones, chains.
  ["C major", "Em7b5 A7 Dm7 G7", "iiø7/ii:applied-two V7/ii:applied-dominant ii7 V7"],
  ["C major", "Gm7 C7 F G7", "ii7/IV:applied-two V7/IV:applied-dominant IV V7"],
  ["C major", "F#m7b5 B7 Em7 A7", "iiø7/iii:applied-two V7/iii:applied-dominant iii7 V7/ii:applied-dominant"],
  ["C major", "Am7 D7 G7 C", "vi7 V7/V:applied-dominant V7 I"],
  ["C major", "E7 A7 D7 G7 C", "V7/vi:applied-dominant V7/ii:applied-dominant V7/V:applied-dominant V7 I"],
  [
    "C major",
    "B7 E7 A7 D7 G7 C",
    "V7/iii:applied-dominant V7/vi:applied-dominant V7/ii:applied-dominant V7/V:applied-dominant V7 I",
  ],
  ["C major", "Abm7 Db7 C C", "bvi7:applied-two bII7:tritone-substitute I I"],
  [
    "C major",
    "Em7 A7 Ebm7 Ab7 Dm7 G7 C",
    "iii7 V7/ii:applied-dominant biii7:sliding-two-five bVI7:sliding-two-five ii7 V7 I",
  ],
  ["A minor", "Em7b5 A7 Dm E7", "iiø7/iv:applied-two V7/iv:applied-dominant iv V7"],
  ["A minor", "Dm7 G7 Cmaj7 Fmaj7", "iv7 V7/III:applied-dominant IIImaj7 VImaj7"],
  // Modulating stretches are not here: see regions.
  ["C major", "C Bdim7 C G", "I vii°7:borrowed I V"],
  ["C major", "Dm7b5 G7 C C", "iiø7:borrowed V7 I I"],
  // Diminished chords.
  ["C major", "C C#dim7 Dm7 G7", "I #i°7:passing-diminished ii7 V7"],
  ["C major", "F F#dim7 G C", "IV #iv°7:passing-diminished V I"],
  ["C major", "C D#dim7 Em A7", "I vii°7/iii:applied-diminished iii V7/ii:applied-dominant"],
  ["C major", "Em7 Ebdim7 Dm7 G7", "iii7 biii°7:passing-diminished ii7 V7"],
  ["C major", "C Ebdim7 Dm7 G7", "I biii°7:passing-diminished ii7 V7"],
  ["C major", "C Cdim7 C G7", "I i°7:common-tone-diminished I V7"],
  ["C major", "C F#dim7 C/G G7", "I #iv°7:common-tone-diminished I64:cadential V7"],
  // Tritone substitutes, backdoor, augmented sixths, Neapolitan.
  ["C major", "Dm7 Db7 Cmaj7 Cmaj7", "ii7 bII7:tritone-substitute Imaj7 Imaj7"],
  ["C major", "Em7 Eb7 Dm7 G7", "iii7 bIII7:tritone-substitute ii7 V7"],
  ["C major", "Fm7 Bb7 Cmaj7 Cmaj7", "iv7:borrowed bVII7:backdoor Imaj7 Imaj7"],
  ["A minor", "Am F7 E7 Am", "i VI7:augmented-sixth V7 i"],
  ["C major", "C Ab7 G7 C", "I bVI7:augmented-sixth V7 I"],
  ["A minor", "Am Bb/D E7 Am", "i bII6:neapolitan V7 i"],
  ["C minor", "Cm Db G7 Cm", "i bII:neapolitan V7 i"],
  // Borrowed.
  ["C major", "C Fm C G", "I iv:borrowed I V"],
  ["C major", "C Ab Bb C", "I bVI:borrowed bVII:borrowed I"],
  ["C major", "C Eb F C", "I bIII:borrowed IV I"],
  ["D major", "D C G D", "I bVII:borrowed IV I"],
  ["C major", "Cmaj7 Gm7 Fmaj7 G7", "Imaj7 v7:borrowed IVmaj7 V7"],
  ["A minor", "Am D G C", "i IV:raised-sixth VII III"],
  ["A minor", "Am Dm E A", "i iv V I:picardy"],
  // Mediants.
  ["C major", "C E C E", "I III:chromatic-mediant I III:chromatic-mediant"],
  ["C major", "C A C A", "I VI:chromatic-mediant I VI:chromatic-mediant"],
  ["A minor", "Am Fm Am Fm", "i vi:chromatic-mediant i vi:chromatic-mediant"],
  // Clichés and bass lines.
  ["A minor", "Am AmMaj7 Am7 Am6", "i:line-cliche imaj7:line-cliche i7:line-cliche i(add6):line-cliche"],
  ["A minor", "Am Am/G# Am/G Am/F# F", "i:line-cliche i/#7:line-cliche i/7:line-cliche i/#6:line-cliche VI"],
  ["C major", "C Cmaj7 C7 F", "I:line-cliche Imaj7:line-cliche V7/IV:applied-dominant IV"],
  ["C major", "C Caug C6 C7", "I:line-cliche I+:line-cliche I(add6):line-cliche I7:line-cliche"],
  ["C major", "F C/E Dm7 G7", "IV I6 ii7 V7"],
  // Blues.
  [
    "C major",
    "C7 F7 C7 C7 F7 F7 C7 C7 G7 F7 C7 G7",
    "I7:blues IV7:blues I7:blues I7:blues IV7:blues IV7:blues I7:blues I7:blues V7 IV7:blues I7:blues V7",
  ],
  ["A minor", "Am7 Dm7 Am7 Am7 Dm7 Dm7 Am7 Am7 E7 Dm7 Am7 E7", "i7 iv7 i7 i7 iv7 iv7 i7 i7 V7 iv7 i7 V7"],
  ["G major", "G7 C7 G7 D7", "I7:blues IV7:blues I7:blues V7"],
  // Altered dominants.
  ["E minor", "Em7 Am7 B7(#9) Em7", "i7 iv7 V7(#9):altered-dominant i7"],
  ["C major", "Dm7 G7alt Cmaj7 Cmaj7", "ii7 V7alt:altered-dominant Imaj7 Imaj7"],
  ["C major", "C G7(b9) C C", "I V7(b9):altered-dominant I I"],
  ["F major", "Gm7 C7(#5) F F", "ii7 V7(#5):altered-dominant I I"],
  // Six-four, suspensions, pedals.
  ["C major", "F C/G G7 C", "IV I64:cadential V7 I"],
  ["A minor", "Dm Am/E E7 Am", "iv i64:cadential V7 i"],
  ["C major", "Dm7 G7sus4 G7 C", "ii7 V7sus4:suspension V7 I"],
];
