import http from "node:http";
import { readFileSync, rmSync } from "node:fs";
import { firstOf, must, Song, sure } from "../../core/src/index";
import type { SongSummary } from "../../shared/songs";
import { isToken } from "../guard";
import { openDatabase } from "../store/database";
import { SongStore } from "../store/songs";
import { startServer, temporaryFolder } from "./helpers";

let server: Awaited<ReturnType<typeof startServer>>;
let clock = 1_800_000_000_000;
beforeAll(async () => {
  server = await startServer({ now: () => clock });
});
afterAll(() => server.stop());

const json = (method: string, body: unknown, headers: Record<string, string> = {}) => ({
  method,
  headers: { "Content-Type": "application/json", ...headers },
  body: typeof body === "string" ? body : JSON.stringify(body),
});
const api = (path: string, init?: RequestInit) => fetch(`${server.url}/api/songs${path}`, init);
const create = async (title: string): Promise<Song> => (await api("", json("POST", { title }))).json() as Promise<Song>;

test("create, open, save, duplicate, delete and restore", async () => {
  const made = await api("", json("POST", { title: "Windfall", key: "G major", tempo: 90, meter: "6/8" }));
  expect([made.status, made.headers.get("etag")]).toEqual([201, '"1"']);
  const song = (await made.json()) as Song;
  const saved = await api(`/${song.id}`, json("PUT", { ...song, title: "Windfall Waltz" }, { "If-Match": '"1"' }));
  expect([saved.status, saved.headers.get("etag")]).toEqual([204, '"2"']);
  const copy = (await (await api(`/${song.id}/duplicate`, { method: "POST" })).json()) as Song;
  expect(copy).toMatchObject({ title: "Windfall Waltz (copy)", key: "G major", meter: "6/8" });
  expect((await api(`/${song.id}`, { method: "DELETE" })).status).toBe(204);
  expect((await api(`/${song.id}`)).status).toBe(404);
  expect((await api(`/${song.id}/restore`, { method: "POST" })).status).toBe(200);
  const list = (await (await api("")).json()) as { id: string; title: string; revision: number }[];
  expect(list.map((s) => s.title).sort()).toEqual(["Windfall Waltz", "Windfall Waltz (copy)"]);
});

test("a stale save is refused with what is stored, and changes nothing", async () => {
  const song = await create("Two hands");
  await api(`/${song.id}`, json("PUT", { ...song, tempo: 100 }, { "If-Match": '"1"' }));
  const stale = await api(`/${song.id}`, json("PUT", { ...song, tempo: 60 }, { "If-Match": '"1"' }));
  expect(stale.status).toBe(409);
  expect(stale.headers.get("content-type")).toContain("application/problem+json");
  expect(await stale.json()).toMatchObject({ code: "revision.stale", revision: 2, current: { tempo: 100 } });
  expect(((await (await api(`/${song.id}`)).json()) as Song).tempo).toBe(100);
});

test("autosaves are thinned by age, named ones stay", async () => {
  const song = await create("Old apples");
  const save = async (revision: number) => api(`/${song.id}`, json("PUT", song, { "If-Match": `"${revision}"` }));
  for (let r = 1; r <= 20; r++, clock += 60_000) {
    await save(r);
    if (r === 5) await api(`/${song.id}/revisions/5`, json("PATCH", { name: "with the good bridge" }));
  }
  clock += 3 * 24 * 3600_000;
  await save(21);
  const left = (await (await api(`/${song.id}/revisions`)).json()) as { revision: number; name: string | null }[];
  expect(firstOf(left).revision).toBe(22);
  expect(left.find((r) => r.name)?.revision).toBe(5);
  expect(left.length).toBeLessThan(6);
  expect(((await (await api(`/${song.id}/revisions/5`)).json()) as Song).title).toBe("Old apples");
});

describe("bad input gets a clear answer and changes nothing", () => {
  const good = () => must(Song.create({ title: "Quiet" }));
  const withNote = (note: object): unknown => {
    const song = good();
    return {
      ...song,
      sections: [
        {
          ...firstOf(song.sections),
          notes: { bass: [{ id: "n1", start: 0, duration: 480, pitch: "C2", velocity: 80, ...note }] },
        },
      ],
    };
  };
  const cases: [string, unknown, Record<string, string>, number, string, RegExp][] = [
    ["tempo 0", { ...good(), tempo: 0 }, {}, 422, "song.invalid", /tempo.*at least 20/],
    ["tempo 1000", { ...good(), tempo: 1000 }, {}, 422, "song.invalid", /tempo.*at most 400/],
    [
      "a tick far out of bounds",
      withNote({ start: 99_999_999 }),
      {},
      422,
      "song.invalid",
      /sections\.0\.notes\.bass\.0\.start/,
    ],
    ["half a tick", withNote({ start: 0.5 }), {}, 422, "song.invalid", /whole numbers/],
    ["a note outside MIDI", withNote({ pitch: "C12" }), {}, 422, "song.invalid", /"C12" lies outside the MIDI range/],
    [
      "an unknown chord",
      {
        ...good(),
        sections: [{ ...firstOf(good().sections), chords: [{ id: "c1", start: 0, duration: 480, symbol: "Hmaj7" }] }],
      },
      {},
      422,
      "song.invalid",
      /"Hmaj7"/,
    ],
    ["malformed JSON", "{ title:", {}, 400, "body.json", /not JSON/],
    ["a newer document", { ...good(), version: 3 }, {}, 422, "song.newer", /version 3/],
    ["no version", { title: "x" }, {}, 422, "song.version", /version/],
    ["a malformed If-Match", good(), { "If-Match": "yesterday" }, 400, "revision.malformed", /yesterday/],
    ["a body over the limit", `"${"x".repeat(9_000_000)}"`, {}, 413, "body.large", /larger than 8mb/],
    ["a foreign Origin", good(), { Origin: "http://elsewhere.example" }, 403, "origin.foreign", /elsewhere/],
    ["a malformed Origin", good(), { Origin: "apples" }, 403, "origin.foreign", /apples/],
    ["an Origin of nowhere", good(), { Origin: "null" }, 403, "origin.foreign", /null/],
  ];
  test.each(cases)("%s", async (...[, body, headers, status, code, message]) => {
    const song = await create("Untouched");
    const answer = await api(`/${song.id}`, json("PUT", body, { "If-Match": '"1"', ...headers }));
    const problem = (await answer.json()) as { code: string; title: string };
    expect([answer.status, problem.code]).toEqual([status, code]);
    expect(problem.title).toMatch(message);
    const after = await api(`/${song.id}`);
    expect(after.headers.get("etag")).toBe('"1"');
    expect(await after.json()).toEqual(song);
  });

  test("a missing If-Match, an unknown song, an unknown route", async () => {
    const song = await create("Untouched");
    expect((await api(`/${song.id}`, json("PUT", song))).status).toBe(428);
    expect(await (await api("/nowhere")).json()).toMatchObject({
      status: 404,
      code: "song.unknown",
      hint: expect.any(String),
    });
    expect((await fetch(`${server.url}/api/other`)).status).toBe(404);
  });

  test("a foreign Host", async () => {
    const { port } = new URL(server.url);
    const status = await new Promise((resolve) =>
      http.get({ port, host: "127.0.0.1", path: "/api/songs", headers: { Host: "evil.example" } }, (r) => {
        r.resume();
        resolve(r.statusCode);
      }),
    );
    expect(status).toBe(403);
  });
});

test(
  "the list reads summaries, and a document that cannot be read is listed as such, saved to a file, and hides no " +
    "other song",
  async () => {
    const own = await startServer();
    const call = (path: string, init?: RequestInit) => fetch(`${own.url}/api/songs${path}`, init);
    const make = async (title: string) =>
      (await call("", json("POST", { title, key: "G major" }))).json() as Promise<Song>;
    const [good, bad] = [await make("Whole"), await make("Broken: by hand")];
    const older = JSON.parse(readFileSync("core/test/fixtures/version1/pickup.json", "utf8")) as Song;
    await own
      .db("songs")
      .where({ id: bad.id })
      .update({ document: '{"version":2,"title":"half a song', summary: null });
    await own
      .db("songs")
      .where({ id: good.id })
      .update({ document: JSON.stringify({ ...older, id: good.id }), summary: null });
    const list = async () => (await (await call("")).json()) as SongSummary[];
    const byId = new Map((await list()).map((s) => [s.id, s]));
    expect(byId.get(bad.id)).toMatchObject({
      title: "Broken: by hand",
      contents: null,
      problem: { code: "song.json" },
    });
    expect(byId.get(good.id)).toMatchObject({
      contents: { key: "G major", meter: "3/4", bars: 4 + 4 + 3 },
      problem: null,
    });
    const opened = await call(`/${bad.id}`);
    expect([opened.status, ((await opened.json()) as { code: string }).code]).toEqual([422, "song.unreadable"]);
    const file = await call(`/${bad.id}/document`);
    expect([file.headers.get("content-disposition"), await file.text()]).toEqual([
      expect.stringContaining("Broken by hand.json"),
      '{"version":2,"title":"half a song',
    ]);
    // What was worked out once is stored: the document may even become unreadable without the list noticing.
    await own.db("songs").where({ id: good.id }).update({ document: "gone" });
    expect((await list()).find((s) => s.id === good.id)?.contents?.bars).toBe(11);
    await own.stop();
  },
);

test("beyond this machine a token is asked for", async () => {
  const open = await startServer({ token: "harvest-token" });
  expect((await fetch(`${open.url}/api/songs`)).status).toBe(401);
  expect((await fetch(`${open.url}/api/songs`, { headers: { Cookie: "token=harvest-toke" } })).status).toBe(401);
  const first = await fetch(`${open.url}/api/songs?token=harvest-token`);
  expect([first.status, first.headers.get("set-cookie")]).toEqual([200, expect.stringContaining("HttpOnly")]);
  expect((await fetch(`${open.url}/api/songs`, { headers: { Cookie: "token=harvest-token" } })).status).toBe(200);
  await open.stop();
});

test("any token of printable characters works; another one than before refuses the old one; wrong ones are limited", async () => {
  for (const token of ["harvest", "two words; and=signs", "100 %", "x".repeat(400)]) {
    const open = await startServer({ token });
    const first = await fetch(`${open.url}/api/songs?token=${encodeURIComponent(token)}`);
    const cookie = sure(sure(first.headers.get("set-cookie")).split(";")[0]);
    expect([first.headers.get("set-cookie"), first.status]).toEqual([
      expect.stringMatching(/HttpOnly; SameSite=Strict/),
      200,
    ]);
    expect((await fetch(`${open.url}/api/songs`, { headers: { Cookie: cookie } })).status).toBe(200);
    await open.stop();
    const changed = await startServer({ token: `${token}!` });
    expect((await fetch(`${changed.url}/api/songs`, { headers: { Cookie: cookie } })).status).toBe(401);
    await changed.stop();
  }
  const open = await startServer({ token: "harvest" });
  const codes: number[] = [];
  for (let i = 0; i < 21; i++) codes.push((await fetch(`${open.url}/api/songs?token=guess${i}`)).status);
  expect([codes[19], codes[20]]).toEqual([401, 429]);
  expect((await fetch(`${open.url}/api/songs?token=harvest`)).status).toBe(200);
  await open.stop();
});

test("a token is printable characters, at least one that is no space", () => {
  expect(["harvest", " a ", "~", "!"].map(isToken)).toEqual([true, true, true, true]);
  expect(["", " ", "\n", "a\tb", "tök", "\u0000"].map(isToken)).toEqual([false, false, false, false, false, false]);
});

test("songs are listed a page at a time, searched and in an order, whatever is in a title", async () => {
  const open = await startServer();
  for (const title of ["Beech row", "apple press", "100 % cider", "Apple_crate", "Pear"])
    await open.store.create(must(Song.create({ title })));
  const list = async (query: string) => {
    const response = await fetch(`${open.url}/api/songs${query}`);
    const songs = (await response.json()) as { title: string }[];
    return [songs.map((s) => s.title), Number(response.headers.get("x-total-count"))];
  };
  const byTitle = ["100 % cider", "apple press", "Apple_crate", "Beech row", "Pear"];
  expect(await list("?sort=title")).toEqual([byTitle, 5]);
  expect(await list("?sort=title&limit=2&offset=2")).toEqual([byTitle.slice(2, 4), 5]);
  expect(await list("?search=apple&sort=title")).toEqual([["apple press", "Apple_crate"], 2]);
  // Signs of the query language are letters like others.
  expect(await list("?search=%25")).toEqual([["100 % cider"], 1]);
  expect(await list("?search=_")).toEqual([["Apple_crate"], 1]);
  for (const bad of ["?limit=0", "?limit=501", "?offset=-1", "?sort=size"])
    expect((await fetch(`${open.url}/api/songs${bad}`)).status).toBe(400);
  await open.stop();
});

test("the history of a song is bounded in size: the oldest without a name go first, the newest stays", async () => {
  let now = Date.UTC(2026, 9, 1);
  const folder = temporaryFolder();
  const db = await openDatabase(folder);
  const song = must(Song.create({ title: "Row" }));
  const size = JSON.stringify(song).length;
  const store = new SongStore(db, () => now, 3.5 * size);
  const { song: stored } = await store.create(song, true);
  await store.nameRevision(stored.id, 1, "first");
  for (let revision = 1; revision < 7; revision++) {
    now += 1000;
    await store.save(stored.id, revision, stored);
  }
  expect((await store.revisions(stored.id)).map((r) => r.revision)).toEqual([7, 6, 5, 1]);
  const small = new SongStore(db, () => now, 1);
  await small.save(stored.id, 7, stored);
  expect((await small.revisions(stored.id)).map((r) => r.revision)).toEqual([8, 1]);
  await db.destroy();
  rmSync(folder, { recursive: true });
});

test("a full disk is called that, nothing is changed, and the save works once there is room", async () => {
  const open = await startServer();
  const { song, revision } = await open.store.create(must(Song.create({ title: "Row" })));
  const [{ page_count: pages }] = (await open.db.raw("PRAGMA page_count")) as [{ page_count: number }];
  expect(await open.db.raw(`PRAGMA max_page_count = ${pages}`)).toEqual([{ max_page_count: pages }]);
  const put = (title: string) =>
    fetch(`${open.url}/api/songs/${song.id}`, {
      method: "PUT",
      headers: { "Content-Type": "application/json", "If-Match": `"${revision}"` },
      body: JSON.stringify({ ...song, title, lyrics: undefined }),
    });
  let full = await put("Fuller");
  // Free pages may take the first copies.
  for (let i = 0; full.ok && i < 200; i++)
    full = await fetch(`${open.url}/api/songs/${song.id}/duplicate`, { method: "POST" });
  expect([full.status, ((await full.json()) as { code: string }).code]).toEqual([507, "disk.full"]);
  const held = await open.store.get(song.id);
  await open.db.raw("PRAGMA max_page_count = 1000000");
  expect((await open.store.get(song.id)).revision).toBe(held.revision);
  expect(await open.store.save(song.id, held.revision, { ...song, title: "Fuller" })).toBe(held.revision + 1);
  await open.stop();
});
