import { must, Song, sure } from "../../core/src/index";
import { api, ApiProblem } from "../app/api";
import { openSong, resolveConflict, startAutosave } from "../app/store/autosave";
import { songNow, useSong } from "../app/store/song";
import type { Said } from "../app/store/windows";

/** Other windows: what they heard, and how they speak. */
const windows = { heard: [] as Said[], say: null as ((said: Said) => void) | null };
jest.mock("../app/store/windows", () => ({
  sayToWindows: (said: Said) => void windows.heard.push(said),
  hearWindows: (_: string, hear: (said: Said) => void) => ((windows.say = hear), () => (windows.say = null)),
  holdOpen: (_: string, told: (windows: number) => void) => (told(2), () => undefined),
}));

/** What the browser keeps between two visits. */
const kept = new Map<string, unknown>();
let writes = 0;
jest.mock("idb-keyval", () => ({
  keys: () => call("keys", () => [...kept.keys()]),
  get: (key: string) => call("get", () => structuredClone(kept.get(key))),
  set: (key: string, value: unknown) => call("set", () => void (writes++, kept.set(key, structuredClone(value)))),
  del: (key: string) => call("del", () => void kept.delete(key)),
}));
/** Calls of the browser's own store that fail: by being refused, by throwing, or by never answering. */
const failing = new Map<string, "refused" | "thrown" | "silent">();
function call<T>(name: string, run: () => T): Promise<T> {
  const how = failing.get(name);
  if (how === "thrown") throw new Error("blocked");
  if (how === "silent") return new Promise(() => undefined);
  return how === "refused" ? Promise.reject(new Error("refused")) : Promise.resolve(run());
}

/** A server of one song, which can be away, slow or of another opinion. */
const server = {
  song: null as unknown as Song,
  revision: 1,
  away: false,
  refuses: null as ApiProblem | null,
  saves: 0,
};
jest
  .spyOn(api, "get")
  .mockImplementation(() =>
    server.away
      ? Promise.reject(new ApiProblem(0, "server.away", "away"))
      : Promise.resolve({ song: server.song, revision: server.revision }),
  );
jest.spyOn(api, "save").mockImplementation((song, revision) => {
  server.saves++;
  if (server.away) return Promise.reject(new ApiProblem(0, "server.away", "away"));
  if (server.refuses) return Promise.reject(server.refuses);
  if (revision !== server.revision)
    return Promise.reject(
      new ApiProblem(409, "revision.stale", "stale", { current: server.song, revision: server.revision }),
    );
  server.song = song;
  return Promise.resolve(++server.revision);
});

const state = () => useSong.getState();
const edit = (tempo: number): void => void state().edit({ do: "setTempo", tempo });
const settle = async (ms = 0): Promise<void> => {
  await jest.advanceTimersByTimeAsync(ms);
};
const online: (() => void)[] = [];
const hidden: (() => void)[] = [];
let end: () => void;

beforeEach(async () => {
  jest.useFakeTimers();
  Object.assign(globalThis, {
    window: {
      addEventListener: (_: string, f: () => void) => online.push(f),
      removeEventListener: () => online.splice(0),
    },
    document: {
      visibilityState: "visible",
      addEventListener: (_: string, f: () => void) => hidden.push(f),
      removeEventListener: () => hidden.splice(0),
    },
  });
  kept.clear();
  failing.clear();
  Object.assign(server, {
    song: { ...must(Song.create({ title: "Cellar" })), id: "cellar" },
    revision: 4,
    away: false,
    refuses: null,
    saves: 0,
  });
  await openSong("cellar");
  end = startAutosave();
});
afterEach(async () => {
  end();
  await settle(10_000);
  jest.useRealTimers();
});

const copies = () => [...kept].filter(([key]) => key.startsWith("unsent:cellar:"));
const copied = () => (copies()[0]?.[1] as { song: Song } | undefined)?.song.tempo;

test("an edit is on the server within a second; until it is, the browser keeps it, and then nothing", async () => {
  let answer: (revision: number) => void = () => undefined;
  jest.spyOn(api, "save").mockImplementationOnce((song) => {
    server.song = song;
    return new Promise((resolve) => (answer = resolve));
  });
  edit(100);
  await settle(400);
  expect([state().status, copied(), server.song.tempo]).toEqual(["waiting", undefined, 96]);
  await settle(200);
  expect([state().status, copied()]).toEqual(["saving", 100]);
  answer(5);
  await settle(1000);
  expect([state().status, state().revision, server.song.tempo, kept.size]).toEqual(["saved", 5, 100, 0]);
});

test("many edits in a row are one save and one copy; where they do not end, a save comes all the same", async () => {
  writes = 0;
  for (let tempo = 60; tempo < 90; tempo++) {
    edit(tempo);
    await settle(50);
  }
  await settle(1000);
  expect([server.saves, server.song.tempo, writes]).toEqual([1, 89, 1]);
  for (let tempo = 90; tempo < 160; tempo++) {
    edit(tempo);
    await settle(100);
  }
  await settle(1000);
  // Seven seconds without a pause: every three seconds, and at the end.
  expect([server.saves, server.song.tempo, writes]).toEqual([4, 159, 4]);
});

test("a page that is left keeps and sends what is not stored", async () => {
  edit(100);
  Object.assign(globalThis.document, { visibilityState: "hidden" });
  hidden.forEach((leave) => leave());
  expect(copied()).toBe(100);
  await settle(10);
  expect([server.song.tempo, copied()]).toEqual([100, undefined]);
});

test("an edit made while the song is being saved is saved after it", async () => {
  let answer: (revision: number) => void = () => undefined;
  jest.spyOn(api, "save").mockImplementationOnce(() => new Promise((resolve) => (answer = resolve)));
  edit(100);
  await settle(600);
  expect(state().status).toBe("saving");
  edit(120);
  server.revision = 5;
  answer(5);
  await settle(2000);
  expect([state().status, server.song.tempo, state().revision]).toEqual(["saved", 120, 6]);
});

test("a server that is away is tried again, and at once when the network is back", async () => {
  server.away = true;
  edit(100);
  await settle(1000);
  expect(state().status).toBe("away");
  await settle(3000);
  expect(server.saves).toBeGreaterThan(1);
  server.away = false;
  online.forEach((f) => f());
  await settle(10);
  expect([state().status, server.song.tempo]).toEqual(["saved", 100]);
});

test("what could not be sent is there on the next visit, with the server or without it", async () => {
  server.away = true;
  edit(100);
  await settle(1000);
  end();
  await openSong("cellar");
  expect([songNow().tempo, state().status]).toEqual([100, "away"]);
  server.away = false;
  await openSong("cellar");
  expect([songNow().tempo, state().status]).toEqual([100, "waiting"]);
  end = startAutosave();
  await settle(1000);
  expect([server.song.tempo, state().status]).toEqual([100, "saved"]);
});

test("edits of two windows meet: both are shown, keeping mine saves over, taking the other is a step back", async () => {
  edit(100);
  server.song = { ...server.song, tempo: 140 };
  server.revision = 9;
  await settle(1000);
  expect([state().status, sure(state().conflict).song.tempo]).toEqual(["conflict", 140]);
  // Going on working keeps both.
  edit(101);
  await settle(3000);
  expect([state().status, server.song.tempo]).toEqual(["conflict", 140]);
  await resolveConflict("mine");
  await settle(1000);
  expect([state().status, server.song.tempo, state().conflict]).toEqual(["saved", 101, null]);

  edit(90);
  server.song = { ...server.song, tempo: 150 };
  server.revision = 20;
  await settle(1000);
  await resolveConflict("stored");
  expect([songNow().tempo, state().status]).toEqual([150, "saved"]);
  state().undo();
  expect(songNow().tempo).toBe(90);
  await settle(1000);
  expect(server.song.tempo).toBe(90);
});

/** Another window stores a change of its own. */
function elsewhere(change: Partial<Song>): void {
  server.song = { ...(JSON.parse(JSON.stringify(server.song)) as Song), ...change };
  server.revision++;
}

test("edits of different things in two windows join; undo takes back what was done here and nothing else", async () => {
  edit(100);
  elsewhere({ title: "Loft" });
  await settle(2000);
  expect([state().status, server.song.tempo, server.song.title]).toEqual(["saved", 100, "Loft"]);
  expect([songNow().title, sure(useSong.getState().song).tempo]).toEqual(["Loft", 100]);
  state().undo();
  expect([songNow().tempo, songNow().title]).toEqual([96, "Loft"]);
  await settle(1000);
  expect([server.song.tempo, server.song.title]).toEqual([96, "Loft"]);
  state().redo();
  expect([songNow().tempo, songNow().title]).toEqual([100, "Loft"]);
});

test("what another window stored is brought in at once where nothing waits here, and met by a save where it does", async () => {
  expect(state().windows).toBe(2);
  elsewhere({ title: "Loft" });
  windows.say?.({ kind: "stored", id: "cellar", revision: server.revision });
  await settle(0);
  expect([songNow().title, state().status, state().past.length, server.saves]).toEqual(["Loft", "saved", 0, 0]);
  // What is heard late changes nothing.
  const version = state().version;
  windows.say?.({ kind: "stored", id: "cellar", revision: server.revision });
  await settle(0);
  expect(state().version).toBe(version);
  edit(100);
  elsewhere({ title: "Attic" });
  windows.say?.({ kind: "stored", id: "cellar", revision: server.revision });
  await settle(600);
  expect([songNow().tempo, songNow().title, server.song.tempo]).toEqual([100, "Attic", 100]);
  expect(windows.heard.at(-1)).toEqual({ kind: "stored", id: "cellar", revision: server.revision });
});

test("of what both changed this window's stands where both are joined, and the rest goes together", async () => {
  edit(100);
  elsewhere({ tempo: 140, title: "Loft" });
  await settle(1000);
  expect([state().status, server.song.tempo]).toEqual(["conflict", 140]);
  await resolveConflict("both");
  await settle(1000);
  expect([state().status, server.song.tempo, server.song.title]).toEqual(["saved", 100, "Loft"]);
});

test("unsent edits of an earlier visit join what was stored since, from what the history of the server has", async () => {
  const before = server.song;
  server.away = true;
  edit(100);
  await settle(1000);
  end();
  server.away = false;
  elsewhere({ title: "Loft" });
  const history = jest.spyOn(api, "revision").mockResolvedValue(before);
  await openSong("cellar");
  end = startAutosave();
  await settle(1000);
  expect([state().status, server.song.tempo, server.song.title]).toEqual(["saved", 100, "Loft"]);
  expect(history).toHaveBeenLastCalledWith("cellar", 4);
  history.mockRestore();
});

test("a save that arrived but was never answered is no conflict, with or without the server at the next visit", async () => {
  const lost = (song: Song) => {
    server.song = song;
    server.revision++;
    return Promise.reject(new ApiProblem(0, "server.away", "away"));
  };
  const arrives = () => jest.spyOn(api, "save").mockImplementationOnce(lost);
  arrives();
  edit(100);
  await settle(600);
  expect([state().status, server.song.tempo]).toEqual(["away", 100]);
  edit(101);
  await settle(3000);
  expect([state().status, server.song.tempo]).toEqual(["saved", 101]);

  for (const away of [true, false]) {
    arrives();
    edit(110);
    await settle(600);
    end();
    server.away = away;
    await openSong("cellar");
    end = startAutosave();
    edit(111);
    await settle(600);
    server.away = false;
    await settle(4000);
    expect([state().status, server.song.tempo, kept.size]).toEqual(["saved", 111, 0]);
  }
  // What somebody else stored in the meantime is one, as before.
  arrives();
  edit(112);
  await settle(600);
  server.song = { ...server.song, tempo: 60 };
  server.revision++;
  edit(113);
  await settle(4000);
  expect(state().status).toBe("conflict");
});

test.each([
  [8, "saved"],
  [9, "conflict"],
])(
  "of saves that were never answered the last eight are known again: %i after the one that arrived",
  async (more, then) => {
    const save = jest.spyOn(api, "save");
    save.mockImplementationOnce((song: Song) => {
      server.song = song;
      server.revision++;
      return Promise.reject(new ApiProblem(0, "server.away", "away"));
    });
    edit(100);
    await settle(600);
    server.away = true;
    // The one that arrived is the first of them.
    for (let i = 1; i < more; i++) {
      edit(100 + i);
      await settle(700);
    }
    server.away = false;
    await settle(6000);
    expect(state().status).toBe(then);
  },
);

test("unsent edits on an older revision open as a conflict", async () => {
  server.away = true;
  edit(100);
  await settle(1000);
  end();
  Object.assign(server, { away: false, revision: 12, song: { ...server.song, tempo: 66 } });
  await openSong("cellar");
  expect([state().status, songNow().tempo, sure(state().conflict).song.tempo]).toEqual(["conflict", 100, 66]);
  end = startAutosave();
  await settle(2000);
  expect(server.song.tempo).toBe(66);
});

test("what the server refuses is told, and stays in the browser", async () => {
  server.refuses = new ApiProblem(413, "song.size", "The song is larger than 8 MB");
  edit(100);
  await settle(1000);
  expect([state().status, sure(state().problem).message]).toEqual([
    "refused",
    "Not saved: The song is larger than 8 MB",
  ]);
  expect(kept.size).toBe(1);
  server.refuses = null;
  edit(101);
  await settle(1000);
  expect([state().status, server.song.tempo]).toEqual(["saved", 101]);
});

test("a song that is neither here nor there is an error; kept rubbish is passed over", async () => {
  kept.set("unsent:cellar", { song: { version: 99 }, revision: 1 });
  await openSong("cellar");
  expect(songNow().title).toBe("Cellar");
  kept.clear();
  server.away = true;
  await expect(openSong("cellar")).rejects.toMatchObject({ status: 0 });
});

describe("the browser's own store is a help, not a condition", () => {
  const calls = ["keys", "get", "set", "del"];
  const ways = ["refused", "thrown", "silent"] as const;
  test.each(calls.flatMap((name) => ways.map((how) => [name, how] as const)))(
    "where %s is %s a song opens and is saved, once",
    async (name, how) => {
      failing.set(name, how);
      const opened = openSong("cellar");
      await settle(10_000);
      await opened;
      expect(state().song?.title).toBe("Cellar");
      edit(120);
      await settle(15_000);
      expect([state().status, server.song.tempo, server.saves]).toEqual(["saved", 120, 1]);
    },
  );

  test("edits of a window that is gone are taken over, and its copy goes once they are stored; what is older stays", async () => {
    const song = { ...server.song, tempo: 131 };
    kept.set("unsent:cellar:gone", { song, revision: 4, sent: [], at: 2 });
    kept.set("unsent:cellar:older", { song: { ...song, tempo: 132 }, revision: 4, sent: [], at: 1 });
    kept.set("unsent:cellarage:other", { song: { ...song, tempo: 133 }, revision: 4, sent: [], at: 3 });
    await openSong("cellar");
    expect(state().song?.tempo).toBe(131);
    end();
    end = startAutosave();
    await settle(5000);
    expect([server.song.tempo, [...kept.keys()].sort()]).toEqual([
      131,
      ["unsent:cellar:older", "unsent:cellarage:other"],
    ]);
  });

  test("a full disk is called that, and the save is tried again by itself", async () => {
    server.refuses = new ApiProblem(507, "disk.full", "The disk of the server is full; nothing was changed");
    edit(121);
    await settle(1000);
    expect([state().status, state().problem?.message]).toEqual([
      "away",
      expect.stringContaining("disk of the server is full"),
    ]);
    expect(copied()).toBe(121);
    server.refuses = null;
    await settle(5000);
    expect([state().status, server.song.tempo]).toEqual(["saved", 121]);
  });
});
