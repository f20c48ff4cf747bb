import { nth } from "../../src/base/list";
import { fail, must, ok } from "../../src/base/result";
import { madeOf } from "../../src/base/steps";
import { lineSteps, OFFERED } from "../../src/write/lines/engine";
import { groundOf, type Ground } from "../../src/write/lines/ground";
import type { LineKind, LineRequest, LineStyle, WrittenLine } from "../../src/write/lines/kind";
import type { Links, Measure } from "../../src/write/lines/measure";
import { byDensity, setApart } from "../../src/write/lines/titles";
import { songWith } from "../helpers";

/** The engine with a kind of line of its own: nothing here is a bass, a counter melody or a voice. */
interface Report extends Links {
  misses: number;
}
type Settings = { density: number };
const style = (id: string, usual?: Partial<Settings>): LineStyle<Settings> => ({
  id,
  title: id,
  explanation: "",
  source: "",
  ...(usual ? { usual } : {}),
});
interface Line extends WrittenLine<Report> {
  density: number;
}
const line = (pitches: string[], misses: number, title = "Another rhythm", density = 0): Line => ({
  notes: pitches.map((pitch, i) => ({ start: i * 480, duration: 480, pitch, velocity: 80 })),
  reasons: [],
  report: { misses, links: {} },
  conflicts: [],
  title,
  density,
});
const row = (id: number): Measure => ({
  id: String(id),
  title: "",
  how: "",
  value: "",
  target: "",
  met: false,
  notes: [],
  ticks: [],
});

type Request = LineRequest<Settings> & { style?: string };
const kindOf = (
  found: (density: number) => (Line | null)[],
  more: Partial<LineKind<Settings, Request, LineStyle<Settings>, Ground & { settings: Settings }, Line>> = {},
): LineKind<Settings, Request, LineStyle<Settings>, Ground & { settings: Settings }, Line> => ({
  id: "counter",
  field: "style",
  words: { one: "toy", all: "Toys" },
  styles: [style("plain"), style("busy", { density: 0.9 })],
  first: style("plain"),
  usual: { density: 0.5 },
  asked: (request) => request.style,
  context(read, { section }, { settings }) {
    const ground = groundOf("counter", read, section);
    return ground.ok ? ok({ ...ground.value, settings }) : ground;
  },
  lacks: () => null,
  candidates: ({ ctx }) => found(ctx.settings.density),
  most: 20,
  rows: ({ misses }) => Array.from({ length: misses }, (_, i) => row(i)),
  apart: () => ["higher"],
  none: { message: "Nothing", hint: "Try" },
  ...more,
});
const song = songWith({ line: "| C |" });
const at = { section: "s1", part: "melody" };
const lines = (
  kind: Parameters<typeof lineSteps<Settings, Request, LineStyle<Settings>, never, Line>>[0],
  request = {},
) => must(madeOf(lineSteps(kind, song, { ...at, ...request })));

test("lines come once, those that miss fewest aims first, in the order found where they miss as many", () => {
  const kind = kindOf(() => [
    line(["C4"], 2, "a"),
    null,
    line(["C4"], 0, "again"),
    line(["D4"], 1, "b"),
    line(["E4"], 1, "c"),
  ]);
  expect(lines(kind as never).map((l) => l.title)).toEqual(["b", "c", "a"]);
  const many = kindOf(() => Array.from({ length: 9 }, (_, i) => line([`C${i}`], 0, String(i))));
  expect(lines(many as never)).toHaveLength(OFFERED);
  const few = kindOf(() => Array.from({ length: 9 }, (_, i) => line([`C${i}`], 0, String(i))), { most: 3 });
  expect(lines(few as never)).toHaveLength(3);
});

test("lines are told as they are found, and stopped there are those that were found, best first", () => {
  let looked = 0;
  const kind = kindOf(function* () {
    for (const [pitch, misses] of [
      ["C4", 2],
      ["C4", 0],
      ["D4", 1],
      ["E4", 0],
    ] as const) {
      looked++;
      yield line([pitch], misses);
    }
  } as never);
  const pitches = (of: readonly Line[]) => of.map((l) => nth(l.notes, 0).pitch);
  const told: Line[][] = [];
  const steps = lineSteps(kind, song, at);
  let now = steps.next();
  for (; !now.done; now = steps.next()) {
    // Nothing that was told is taken back or called otherwise while more is looked for.
    expect(now.value.slice(0, told.at(-1)?.length ?? 0)).toEqual(told.at(-1) ?? []);
    told.push(now.value);
  }
  expect(told.map(pitches)).toEqual([["C4"], ["C4"], ["C4", "D4"], ["C4", "D4", "E4"]]);
  expect(pitches(must(now.value))).toEqual(["E4", "D4", "C4"]);

  looked = 0;
  const stopped = lineSteps(kind, song, at);
  for (let i = 0; i < 3; i++) stopped.next();
  const last = stopped.next(false);
  expect([last.done, looked]).toEqual([true, 3]);
  expect(pitches(must(last.value as never))).toEqual(["D4", "C4"]);

  const atOnce = lineSteps(
    kindOf(() => [null, line(["C4"], 0)]),
    song,
    at,
  );
  atOnce.next();
  // Nothing was found because nobody looked on: that is not said to be impossible.
  expect(atOnce.next(false)).toEqual({ done: true, value: ok([]) });
});

test("what was asked for stays ahead by its lead, and no further", () => {
  const found = () => [line(["C4"], 2, "asked"), line(["D4"], 1, "one less"), line(["E4"], 0, "two less")];
  const titles = (lead: number) => lines(kindOf(found, { lead }) as never).map((l) => l.title);
  expect(titles(0)).toEqual(["two less", "one less", "asked"]);
  expect(titles(1.5)).toEqual(["two less", "asked", "one less"]);
  expect(titles(2.5)).toEqual(["asked", "two less", "one less"]);
});

test("several lines written at once are one only where all of them are", () => {
  const pair = (low: string, title: string): Line => ({
    ...line(["C4"], 0, title),
    parts: [line(["C4"], 0), line([low], 0)],
  });
  expect(lines(kindOf(() => [pair("E3", "a"), pair("E3", "b"), pair("G3", "c")]) as never).map((l) => l.title)).toEqual(
    ["a", "c"],
  );
});

test("settings: the usual ones, over them those of the style, of the part, of the request", () => {
  const kind = kindOf((density) => [line(["C4"], 0, "a", density)]);
  const density = (request: object) => nth(lines(kind as never, request), 0).density;
  expect([density({}), density({ style: "busy" }), density({ style: "busy", settings: { density: 0.1 } })]).toEqual([
    0.5, 0.9, 0.1,
  ]);
});

test("what is lacking, an unknown style, and no line at all are told in the words of the kind", () => {
  const code = (kind: unknown, request = {}) => {
    const result = madeOf(lineSteps(kind as ReturnType<typeof kindOf>, song, { ...at, ...request }));
    return result.ok ? null : [result.error.code, result.error.message];
  };
  expect(code(kindOf(() => []))).toEqual(["counter.none", "Nothing"]);
  expect(
    code(
      kindOf(() => []),
      { style: "grand" },
    ),
  ).toEqual(["counter.style", 'No toy is called "grand"']);
  expect(
    code(
      kindOf(() => []),
      { section: "s9" },
    )?.[0],
  ).toBe("counter.section");
  expect(code(kindOf(() => [], { lacks: () => fail("counter.tune", "No tune") }))).toEqual(["counter.tune", "No tune"]);
});

test("titles: no two are the same; another rhythm says what sets it apart from the first line", () => {
  const titled = (names: string[], meetsMost: boolean, words: string[] = []) => {
    const list = names.map((title) => ({ title }));
    const apart = setApart(list, { meetsMost, apart: () => words }).map((l) => l.title);
    // A line that is told on the way keeps the title it was found with.
    expect(list.map((l) => l.title)).toEqual(names);
    return apart;
  };
  expect(titled(["Another rhythm", "As the style has it"], true)).toEqual(["Meets most aims", "As the style has it"]);
  expect(titled(["Another rhythm", "As the style has it"], false)[0]).toBe("Another rhythm");
  expect(titled(["A", "Another rhythm", "Another rhythm"], true, ["fuller", "higher"])).toEqual([
    "A",
    "Another rhythm, fuller",
    "Another rhythm, higher",
  ]);
  expect(new Set(titled(["A", "A", "A"], true)).size).toBe(3);
  expect(titled(["A", "A"], true, ["lower"])).toEqual(["A", "A, lower"]);
});

test("fuller and sparser begin at 8 % more and 7 % fewer notes", () => {
  expect([108, 109, 93, 92].map((n) => byDensity(n, 100))).toEqual([[], ["fuller"], [], ["sparser"]]);
});
