import { runShortcut, withAny, type Shortcut } from "../kit/shortcuts";
import { BENCH_KEYS, OFFER_KEYS, VOICING_KEYS } from "../pages/workbench/benchKeys";
import { CHORD_KEYS } from "../score/chordKeys";
import { DRUM_KEYS } from "../score/drumKeys";
import { NOTE_KEYS } from "../score/noteKeys";
import { key } from "./pressed";

jest.mock("../app/workers/client");
jest.mock("../app/audio/sound");

const PLACES: Record<string, readonly Shortcut<never>[]> = {
  notes: NOTE_KEYS,
  chords: CHORD_KEYS,
  drums: DRUM_KEYS,
  bench: [...BENCH_KEYS, ...OFFER_KEYS, ...VOICING_KEYS],
};

test.each(Object.entries(PLACES))("%s: no press means two things, every row says what it does", (_, rows) => {
  // Escape ends what is heard, and lets notes go: each in its own place.
  const presses = rows.flatMap((row) => [...row.on]);
  expect(presses.length).toBe(new Set(presses).size);
  expect(presses.every((press) => /^(mod\+)?(alt\+)?(shift\+)?(.|[a-z0-9]+)$/.test(press))).toBe(true);
  for (const row of rows) expect([row.keys || row.mouse, row.what].every((text) => text)).toBe(true);
});

test("the first row that wants a press has it; one that answers false leaves it to the next, and to the browser", () => {
  const ran: string[] = [];
  const row = (what: string, on: string[], answer: boolean | void): Shortcut<string> => ({
    keys: what,
    what,
    on,
    run(ctx) {
      ran.push(`${what} ${ctx}`);
      return answer;
    },
  });
  const rows = [row("no", ["a"], false), row("yes", withAny(["a"], "shift+"), undefined), row("late", ["a"], true)];
  expect(runShortcut(rows, key("a"), "here")).toBe(true);
  expect(runShortcut(rows, key("Shift+A"), "there")).toBe(true);
  expect(runShortcut(rows, key("b"), "here")).toBe(false);
  expect(runShortcut(rows.slice(0, 1), key("a"), "here")).toBe(false);
  expect(ran).toEqual(["no here", "yes here", "yes there", "no here"]);
});
