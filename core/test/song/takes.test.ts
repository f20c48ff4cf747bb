import { firstOf } from "../../src/base/list";
import { must } from "../../src/base/result";
import { parseSong } from "../../src/song/document";
import { edit, songWith } from "../helpers";

/** States of a line that are kept, and what becomes of them when its part goes. */
test("a part takes its kept states with it; a state that holds chords or drums as well stays with those", () => {
  const song = songWith({ line: "| C |", bass: ["0 C2 4"] });
  const { notes, chords, groove } = firstOf(song.sections);
  const take = (id: string, more: object) => ({
    id,
    name: id,
    sectionId: "s1",
    notes: { bass: notes.bass ?? [] },
    ...more,
  });
  const kept = must(
    parseSong({
      ...song,
      takes: [
        take("t1", {}),
        take("t2", { chords }),
        take("t3", { groove }),
        take("t4", { notes: { bass: notes.bass, melody: [{ ...notes.bass?.[0], id: "n99" }] } }),
      ],
    }),
  );
  const after = edit(kept, { do: "removePart", part: "bass" });
  expect(after.takes.map((t) => [t.id, Object.keys(t.notes ?? {})])).toEqual([
    ["t2", []],
    ["t3", []],
    ["t4", ["melody"]],
  ]);
});
