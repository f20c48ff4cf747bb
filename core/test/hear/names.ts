import { nth } from "../../src/base/list";

/** Names of notes in a sentence, chords taken apart from notes: "G♯" but not the root of "A♭maj7". */
export const namesIn = (text: string): string[] =>
  [...text.matchAll(/(?<![A-Za-z♭♯])([A-G](?:𝄫|♭|𝄪|♯)?)(?![A-Za-z0-9♭♯(°ø])/g)].map((m) =>
    nth(m, 1).replace("♭", "b").replace("♯", "#").replace("𝄫", "bb").replace("𝄪", "##"),
  );
