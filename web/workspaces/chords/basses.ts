import { type Chord, type Key, type NoteName, Pitch } from "../../../core/src/index";

/** Letters and semitones above the root by which its twelve neighbors are named. */
const STEPS: readonly [letters: number, semitones: number][] = [
  [1, 1],
  [1, 2],
  [2, 3],
  [2, 4],
  [3, 5],
  [4, 6],
  [4, 7],
  [5, 8],
  [5, 9],
  [6, 10],
  [6, 11],
];

/** The twelve notes as basses of a chord: the chord's and the key's names first. */
export function basses({ root, bass }: Chord, key: Key): NoteName[] {
  const names = [
    root,
    ...(bass ? [bass] : []),
    ...key.scale,
    ...STEPS.map(([letters, semitones]) => Pitch.transpose(root, letters, semitones)),
  ];
  const seen = new Set<number>();
  return names.filter((name) => {
    const above = Pitch.mod(Pitch.pitchClass(name) - Pitch.pitchClass(root), 12);
    if (seen.has(above)) return false;
    seen.add(above);
    return true;
  });
}
