import { nth, sure } from "../../src/base/list";
import { readFileSync } from "node:fs";
import path from "node:path";
import { applyEdit } from "../../src/song/edits";
import { EDITS } from "../../src/song/edits/list";
import { factsOf } from "../../src/facts/memory";
import { RULES } from "../../src/judge/check/rules";
import type { Song } from "../../src/song/schema/song";
import { contextOf } from "../../src/judge/check/context";
import { silentBeginning } from "./example/silentBeginning";
import { edit, songWith } from "../helpers";

/** The worked example of CONTRIBUTING.md, kept true. */
const read = (file: string): string => readFileSync(path.join(process.cwd(), file), "utf8");
const find = (song: Song) => silentBeginning.find(sure(contextOf(factsOf(song), "s1")));
test("the rule that the recipe shows is the rule that is tested here", () => {
  const [, code] = sure(/```ts\n([\s\S]*?)```/.exec(read("CONTRIBUTING.md")));
  const shown = sure(code)
    .replace(/from "(\.\.\/){4}/g, 'from "../../../src/')
    .replace('from "../../rule"', 'from "../../../src/judge/check/rule"');
  expect(shown).toBe(read("core/test/judge/example/silentBeginning.ts"));
});

test("it finds what it says, and nothing where somebody plays or nobody ever does", () => {
  const late = songWith({ line: "| C | F |", bass: ["2 C2 2", "4 F2 4"] });
  // The piano plays with the chords as soon as it is laid out; here only the bass plays.
  expect(find(late)).toMatchObject([{ tick: 0, duration: 960, message: "Verse begins with 2 beats of silence." }]);
  expect(find(songWith({ line: "| C | F |", bass: ["0 C2 2"] }))).toEqual([]);
  expect(find(songWith({}))).toEqual([]);
  expect(
    find(edit(songWith({ bass: ["2 C2 2"] }), { do: "setHit", section: "s1", drum: "kick", start: 240, velocity: 90 })),
  ).toEqual([]);
});

test("it has all that a rule has", () => {
  // How plainly a rule's findings are heard need not be said.
  const fields = (rule: object) =>
    Object.keys(rule)
      .filter((k) => k !== "heard")
      .sort();
  for (const rule of RULES) expect(fields(silentBeginning)).toEqual(fields(rule));
});

test("every file, folder and name that the recipes point at is there", () => {
  const text = read("CONTRIBUTING.md");
  const paths = [...text.matchAll(/`((?:core|web|server|docs|bench|e2e|demo|scripts)\/[\w./-]*)`/g)].map((m) =>
    nth(m, 1),
  );
  expect(paths.length).toBeGreaterThan(15);
  for (const file of paths) expect([file, exists(file)]).toEqual([file, true]);
  expect(text).toContain("defineEdit");
  expect(EDITS.length).toBeGreaterThan(40);
  expect(applyEdit(songWith({}), { do: "setTempo", tempo: 100 }).ok).toBe(true);
});

function exists(file: string): boolean {
  try {
    return read(file) !== undefined;
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === "EISDIR";
  }
}
