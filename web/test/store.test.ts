import { firstOf, must, Song, sure } from "../../core/src/index";
import { walk } from "../../core/test/anyEdit";
import { goldenSong } from "../../core/test/fixtures";
import { useSong } from "../app/store/song";

const state = () => useSong.getState();
const open = () => state().open(must(Song.create({ title: "Row Three" })), 4);

describe("the open song", () => {
  beforeEach(open);

  test("an edit is one step of undo and redo; a quiet one joins the step before", () => {
    expect(state().edit({ do: "setTempo", tempo: 100 })).toBe(true);
    expect(state().edit({ do: "setTempo", tempo: 101 }, { quiet: true })).toBe(true);
    expect(state().edit({ do: "setKey", key: "G major" })).toBe(true);
    expect([state().past.length, state().status]).toEqual([2, "waiting"]);
    state().undo();
    expect(state().song).toMatchObject({ tempo: 101, key: "C major" });
    state().undo();
    expect(sure(state().song).tempo).toBe(96);
    state().undo();
    expect(sure(state().song).tempo).toBe(96);
    state().redo();
    state().redo();
    expect(state().song).toMatchObject({ tempo: 101, key: "G major" });
    state().undo();
    state().edit({ do: "setTitle", title: "Row Four" });
    expect(state().future).toEqual([]);
  });

  test("a refused edit changes nothing and says why; the next edit clears it", () => {
    const { song, version } = state();
    expect(state().edit({ do: "setTempo", tempo: 0 })).toBe(false);
    expect([state().song, state().version]).toEqual([song, version]);
    expect(sure(state().problem).message).toMatch(/at least 20/);
    state().edit({ do: "setTempo", tempo: 90 });
    expect(state().problem).toBeNull();
  });

  test("problems of a chord line stay beside the chords that could be read", () => {
    state().edit({ do: "setLine", section: "s1", line: "| C | Hm |" });
    expect(state().lineProblems.map((p) => p.position)).toEqual([7]);
    expect(firstOf(sure(state().song).sections).chords.map((c) => c.symbol)).toEqual(["C"]);
    state().edit({ do: "setLine", section: "s1", line: "| C | Bm |" });
    expect(state().lineProblems).toEqual([]);
  });

  test("the worker is told the edit, or after undo that it must take the whole song", () => {
    const before = state().version;
    state().edit({ do: "setTempo", tempo: 77 });
    expect([state().version, state().lastEdit]).toEqual([before + 1, { do: "setTempo", tempo: 77 }]);
    state().undo();
    expect([state().version, state().lastEdit]).toEqual([before + 2, null]);
  });

  test("a conflict is not hidden by going on working", () => {
    state().setSave({ status: "conflict" });
    state().edit({ do: "setTempo", tempo: 77 });
    expect(state().status).toBe("conflict");
  });
});

test("undo and redo of any row of edits, quiet ones among them, give the very documents that were there", () => {
  for (const [seed, name] of ["every-setting", "pickup", "glides"].entries()) {
    state().open(goldenSong(name), 1);
    const seen: Song[] = [sure(state().song)];
    let step = 0;
    walk(
      sure(state().song),
      {
        seed: 900 + seed,
        length: 40,
        apply(song, change) {
          const quiet = step++ % 5 === 4 && seen.length > 1;
          state().edit(change, { quiet });
          const now = sure(state().song);
          if (now !== song) {
            if (quiet) seen[seen.length - 1] = now;
            else seen.push(now);
          }
          return now;
        },
      },
      () => undefined,
    );
    expect(seen.length).toBeGreaterThan(5);
    for (const song of seen.slice(0, -1).reverse()) {
      state().undo();
      expect(state().song).toBe(song);
    }
    for (const song of seen.slice(1)) {
      state().redo();
      expect(state().song).toBe(song);
    }
  }
});
