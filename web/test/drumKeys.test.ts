import { drumKey, type Cursor } from "../score/drumKeys";
import { rowsOf } from "../score/layout";
import { bench, section } from "./bench";
import { data, key } from "./pressed";

jest.mock("../app/workers/client");
jest.mock("../app/audio/sound");
jest.mock("react-dom", () => ({ flushSync: (run: () => unknown) => run() }));

describe("keys of the drum grid", () => {
  let cursor: Cursor;
  const press = (...texts: string[]): boolean[] =>
    texts.map((text) => {
      const now = data();
      return drumKey(key(text), {
        data: now,
        rows: rowsOf(now.section),
        step: 120,
        cursor,
        moveCursor: (c) => void (cursor = c),
      });
    });
  const hits = (drum: string) =>
    section()
      .groove.lanes.find((l) => l.drum === drum)
      ?.hits.map((h) => [h.start, h.velocity]) ?? [];

  beforeEach(async () => {
    await bench();
    cursor = { row: rowsOf(section()).length - 1, start: 0 };
  });

  test("Enter strikes and takes away; + and − change the loudness; Delete takes away", () => {
    press("Enter");
    const [[, loud]] = hits("kick") as [[number, number]];
    press("-", "-", "+");
    expect(hits("kick")).toEqual([[0, loud - 8]]);
    press("Alt+ArrowUp", "Alt+ArrowDown");
    expect(hits("kick")).toEqual([[0, loud - 8]]);
    press("Enter");
    expect(hits("kick")).toEqual([]);
    press("Enter", "Delete");
    expect(hits("kick")).toEqual([]);
    expect(press("+", ".", "Delete")).toEqual([false, false, false]);
  });

  test("arrows move by the grid, with Shift by a beat, and stay inside the section", () => {
    press("ArrowRight", "Shift+ArrowRight", "ArrowUp");
    expect(cursor).toEqual({ row: 3, start: 600 });
    press("Shift+ArrowLeft", "Shift+ArrowLeft", "ArrowDown", "ArrowDown", "ArrowDown");
    expect(cursor).toEqual({ row: 4, start: 0 });
    press(...Array.from({ length: 40 }, () => "Shift+ArrowRight"));
    expect(cursor.start).toBe(4 * 1920 - 120);
    press(...Array.from({ length: 9 }, () => "ArrowUp"));
    expect(cursor.row).toBe(0);
  });

  test("a dot marks a kick as a main accent and takes the mark away, only on the kick", () => {
    press("Enter", "Shift+ArrowRight", "Shift+ArrowRight", "ArrowRight", "Enter");
    const before = section().groove.accents;
    expect(before).toBeUndefined();
    // The rule hears it as a main accent: the first press takes the mark away.
    expect(
      data()
        .kicks.filter((k) => k.main)
        .map((k) => k.start),
    ).toEqual([0, 1080]);
    press(".");
    expect(section().groove.accents).toEqual([0]);
    press(".");
    expect(section().groove.accents).toEqual([0, 1080]);
    cursor = { row: 3, start: 0 };
    press("Enter");
    expect(press(".")).toEqual([false]);
  });
});
