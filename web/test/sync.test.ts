import { firstOf, nth, sure } from "../../core/src/index";
import { edit, songWith } from "../../core/test/helpers";
import type { Edit, Song } from "../../core/src/index";
import { latest, tell, workers } from "../app/workers/sync";
import { idle } from "./bench";

jest.mock("../app/workers/client");
jest.mock("../app/audio/sound");

const later = (): { promise: Promise<string>; answer(text: string): void } => {
  let answer: (text: string) => void = () => undefined;
  const promise = new Promise<string>((resolve) => (answer = resolve));
  return { promise, answer: (text) => answer(text) };
};
const turn = () => new Promise((resolve) => setImmediate(resolve));

describe("only the newest request is answered", () => {
  test("one that fails is told as failed, unless a newer one is waiting, and the next is asked as ever", async () => {
    const said: string[] = [];
    const ask = latest(
      (text: string) => (text === "bad" ? Promise.reject(new Error("gone")) : Promise.resolve(text)),
      (text) => void said.push(text),
      () => void said.push("failed"),
    );
    ask("bad");
    await turn();
    ask("good");
    await turn();
    ask("bad");
    ask("newer");
    await turn();
    await turn();
    expect(said).toEqual(["failed", "good", "newer"]);
  });

  test("one is under way, one waits; what came between is never asked", async () => {
    const asked: string[] = [];
    const done: string[] = [];
    const open = [later(), later(), later()];
    const ask = latest(
      (text: string) => {
        asked.push(text);
        return nth(open, asked.length - 1).promise;
      },
      (text) => void done.push(text),
    );
    for (const text of ["a", "b", "c", "d"]) ask(text);
    expect(asked).toEqual(["a"]);
    firstOf(open).answer("A");
    await turn();
    // The first is out of date by now.
    expect([asked, done]).toEqual([["a", "d"], []]);
    nth(open, 1).answer("D");
    await turn();
    expect(done).toEqual(["D"]);
    ask("e");
    nth(open, 2).answer("E");
    await turn();
    expect([asked, done]).toEqual([
      ["a", "d", "e"],
      ["D", "E"],
    ]);
  });
});

describe("the workers follow the song", () => {
  const song = songWith({ line: "| C | F | G | C |", bass: ["0 C2 4", "4 F2 4"] });
  const heldBy = async (): Promise<string[]> => {
    const { harmony } = await workers.judge.analyze("s1", "bass", -1);
    return sure(harmony).harmony.chords.map((c) => c.symbol);
  };
  const change = (symbol: string): Edit => ({
    do: "setChord",
    section: "s1",
    chord: nth(firstOf(song.sections).chords, 1).id,
    symbol,
  });
  let version = 100;
  let now: Song = song;

  beforeEach(async () => {
    now = song;
    void tell({ version: ++version, song: now, edit: null });
    await idle();
  });

  test("edit by edit", async () => {
    for (const symbol of ["Dm", "Bb", "E7"]) {
      now = edit(now, change(symbol));
      void tell({ version: ++version, song: now, edit: change(symbol) });
      expect((await heldBy())[1]).toBe(symbol);
    }
  });

  test("where an edit was missed, or cannot be made there, the whole song is sent", async () => {
    now = edit(now, change("Dm"), change("Am"));
    version += 2;
    void tell({ version, song: now, edit: change("Am") });
    await idle();
    expect(await heldBy()).toEqual(["C", "Am", "G", "C"]);
    const foreign: Edit = { do: "setChord", section: "s1", chord: "nobody", symbol: "C" };
    void tell({ version: ++version, song, edit: foreign });
    await idle();
    expect(await heldBy()).toEqual(["C", "F", "G", "C"]);
  });

  test("harmony that the caller has does not cross the border again", async () => {
    const first = await workers.judge.analyze("s1", "bass", -1);
    const again = await workers.judge.analyze("s1", "bass", sure(first.harmony).number);
    expect(again.harmony).toBeNull();
    void tell({ version: ++version, song: (now = edit(now, change("Dm"))), edit: change("Dm") });
    const after = await workers.judge.analyze("s1", "bass", sure(first.harmony).number);
    expect(sure(after.harmony).number).not.toBe(sure(first.harmony).number);
  });

  test("an edit that is only tried is judged, and the song stays", async () => {
    const tried: Edit = {
      do: "setNotes",
      section: "s1",
      part: "bass",
      notes: [{ start: 0, duration: 1920, pitch: "C#3", velocity: 90 }],
    };
    const before = await workers.judge.analyze("s1", "bass", -1);
    const during = await workers.judge.analyze("s1", "bass", -1, tried);
    const after = await workers.judge.analyze("s1", "bass", -1);
    expect(during.findings).not.toEqual(before.findings);
    expect(after.findings).toEqual(before.findings);
    const refused = await workers.judge.analyze("s1", "bass", -1, change("Hm"));
    expect(refused.findings).toEqual(before.findings);
  });

  test("layouts are sent when they are others, by number", async () => {
    const [first] = await workers.writer.layouts("s1", {});
    expect(first).toMatchObject({ part: "keys", voicing: { ok: true } });
    const [same] = await workers.writer.layouts("s1", { keys: sure(first).number });
    expect(sure(same).voicing).toBeNull();
    expect(await workers.writer.layouts("nobody", {})).toMatchObject([{ part: "keys", voicing: { ok: false } }]);
  });

  test("what is asked of a section or part that is not there is an error with a name", async () => {
    expect(await workers.writer.bass({ section: "nobody", part: "bass", seed: 1 })).toMatchObject({
      ok: false,
      error: { code: "bass.section" },
    });
    expect(await workers.writer.paths("s1", "nobody")).toMatchObject({ ok: false });
    expect(await workers.writer.anew("nobody", "keys")).toMatchObject({ ok: false });
    expect(await workers.writer.capo("nobody")).toMatchObject({ ok: false });
    expect(await workers.judge.accents("nobody", "bass")).toBeNull();
  });
});
