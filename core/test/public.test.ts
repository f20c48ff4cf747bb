import { existsSync, readFileSync } from "node:fs";
import path from "node:path";
import * as core from "../src/index";
import { nth, sure } from "../src/base/list";

/** What `docs/api.md` says of the public interface is what it is. */
const text = readFileSync(path.join(process.cwd(), "docs/api.md"), "utf8");
const names = Object.keys(core);
const everything = core as unknown as Record<string, Record<string, unknown>>;
const rowsUnder = (title: string): string[][] => {
  const [, part] = sure(new RegExp(`## ${title}\n([\\s\\S]*?)(\n## |$)`).exec(text));
  return sure(part)
    .split("\n")
    .filter((line) => line.startsWith("| `"))
    .map((line) => line.split(" | ").map((cell) => cell.replace(/^\| |\|$/g, "").trim()));
};
const ticked = (cell: string): string[] => [...cell.matchAll(/`([^`]+)`/g)].map((m) => nth(m, 1));

const [setup, ...examples] = nth(sure(/```ts\n([\s\S]*?)\n```/.exec(text)), 1).split("\n");

test.each(examples)("%s", (line) => {
  const [, call, answer] = sure(/^(.*) \/\/ (.*)$/.exec(line));
  const run = new Function(...names, `${setup}\nreturn (${call});`) as (...all: unknown[]) => unknown;
  expect(run(...names.map((name) => everything[name]))).toEqual(JSON.parse(sure(answer)));
});

test("every noun is listed with all its members, and has an example", () => {
  const nouns = names.filter((name) => /^[A-Z]/.test(name));
  const rows = new Map(rowsUnder("Nouns").map(([noun, , members]) => [ticked(sure(noun))[0], ticked(sure(members))]));
  expect([...rows.keys()].sort()).toEqual(nouns.sort());
  for (const [noun, members] of rows)
    expect([noun, members.slice().sort()]).toEqual([noun, Object.keys(sure(everything[sure(noun)])).sort()]);
  for (const noun of nouns) expect([noun, examples.some((line) => line.includes(`${noun}.`))]).toEqual([noun, true]);
});

test("flat names are those that are listed; what moved is where it is said to be", () => {
  const [, flat] = sure(/## Flat names\n([\s\S]*?)\n## /.exec(text));
  expect(ticked(sure(flat)).sort()).toEqual(names.filter((name) => /^[a-z]/.test(name)).sort());
  for (const [, now] of rowsUnder("What moved")) {
    const [place] = ticked(sure(now));
    const [noun, member] = sure(place).split(".");
    const there = sure(now).startsWith("not public")
      ? existsSync(sure(place))
      : sure(member) in sure(everything[sure(noun)]);
    expect([now, there]).toEqual([now, true]);
  }
});

test("nothing that reads throws, whatever it is given", () => {
  const { Chord, Frets, Key, Meter, Midi, Pitch, Song, SongFile, Tune } = core;
  const meter = core.must(Meter.parse("4/4"));
  for (const odd of ["", " ", "|", "Cm7/", "x".repeat(5000), "♭♯", "{}", "null", "\u0000", "🎵", "-1/0", "99/99"]) {
    const answers = [Chord.parse, Key.parse, Meter.parse, Pitch.parse, Frets.parse, Song.parse, SongFile.read].map(
      (read) => (read as (input: string) => core.Result<unknown>)(odd),
    );
    answers.push(Tune.parse(odd, { meter }), Midi.read(new TextEncoder().encode(odd)));
    for (const answer of answers) if (!answer.ok) expect(answer.error.message.length).toBeGreaterThan(5);
  }
});
