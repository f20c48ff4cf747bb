import { tabOf, type EngravedPart, type Neck, type TabPlace } from "../../core/src/index";

/** Strings and frets beside the notes of a part: one list a bar, null where nothing is struck. */
export interface Tablature {
  strings: number;
  measures: (TabPlace[] | null)[][];
}

/** Where the notes of a fretted part lie on its neck; what is tied over is not struck again. */
export function tablature(part: EngravedPart, neck: Neck): Tablature {
  let held = new Set<number>();
  const moments = part.staves[0]!.measures.map((measure) =>
    measure.map((chord) => {
      const attacked = chord.notes.filter((n) => !held.has(n.midi)).map((n) => n.midi);
      held = new Set(chord.notes.filter((n) => n.tied).map((n) => n.midi));
      return attacked;
    }),
  );
  const flat = moments.flat();
  const places = tabOf(
    neck,
    flat.filter((m) => m.length),
  );
  let next = 0;
  const all = flat.map((m) => (m.length ? places[next++]! : null));
  let at = 0;
  return { strings: neck.strings.length, measures: moments.map((m) => m.map(() => all[at++]!)) };
}
