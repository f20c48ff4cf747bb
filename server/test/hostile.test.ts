import { firstOf, must, Song } from "../../core/src/index";
import { startServer } from "./helpers";

let server: Awaited<ReturnType<typeof startServer>>;
let song: Song;
beforeAll(async () => {
  server = await startServer();
  song = (await (await post("", { title: "Row Nine" })).json()) as Song;
});
afterAll(() => server.stop());

const api = (path: string, init?: RequestInit) => fetch(`${server.url}/api/songs${path}`, init);
const post = (path: string, body: unknown, headers: Record<string, string> = {}) =>
  api(path, {
    method: "POST",
    headers: { "Content-Type": "application/json", ...headers },
    body: typeof body === "string" ? body : JSON.stringify(body),
  });
const put = (body: unknown, headers: Record<string, string> = {}) =>
  api(`/${song.id}`, {
    method: "PUT",
    headers: { "Content-Type": "application/json", ...headers },
    body: JSON.stringify(body),
  });
const titles = async (): Promise<string[]> =>
  ((await (await api("")).json()) as { title: string }[]).map((s) => s.title).sort();
const stored = async (): Promise<Song> => (await (await api(`/${song.id}`)).json()) as Song;

/** A problem as RFC 9457 has it, with a code, and nothing of the machine in it. */
async function problemOf(response: Response): Promise<{ status: number; code: string; title: string }> {
  expect(response.headers.get("content-type")).toContain("application/problem+json");
  const text = await response.text();
  expect(text).not.toMatch(/node_modules|at Object|\/work\/|\.ts:\d/);
  const body = JSON.parse(text) as { code: string; title: string };
  expect(body.title.length).toBeGreaterThan(5);
  return { status: response.status, ...body };
}

describe("what cannot be a song is refused, says where, and stores nothing", () => {
  test.each([
    ["no JSON", "{", 400],
    ["a list", "[]", 422],
    ["nothing", "null", 400],
    ["a number", "7", 400],
    ["no title", "{}", 422],
    ["an empty title", '{"title": ""}', 422],
    ["a tempo of nought", '{"title": "x", "tempo": 0}', 422],
    ["a key there is none of", '{"title": "x", "key": "H major"}', 422],
    ["a meter there is none of", '{"title": "x", "meter": "5/7"}', 422],
    ["a version to come", '{"version": 99, "title": "x"}', 422],
    ["a title that is a list", '{"title": ["x"]}', 422],
  ])("%s", async (_, body, status) => {
    const before = await titles();
    const problem = await problemOf(await post("", body));
    expect([problem.status, problem.code.length > 3]).toEqual([status, true]);
    expect(await titles()).toEqual(before);
  });

  test("a document that is nested deeper than any song, at once; brackets in a text are text", async () => {
    const nested = (levels: number) => `{"title": "x", "deep": ${"[".repeat(levels)}${"]".repeat(levels)}}`;
    expect((await problemOf(await post("", nested(64)))).code).toBe("body.deep");
    expect((await problemOf(await post("", "[".repeat(3_000_000)))).code).toBe("body.deep");
    for (const fine of [nested(63), JSON.stringify({ title: `"${"[{".repeat(60)}\\` })]) {
      const made = await post("", fine);
      expect(made.status).toBe(201);
      await api(`/${((await made.json()) as Song).id}`, { method: "DELETE" });
    }
  });

  test("a document larger than the limit", async () => {
    const huge = { ...must(Song.create({ title: "Huge" })), filler: "x".repeat(30_000_000) };
    const problem = await problemOf(await post("", huge));
    expect(problem.status).toBe(413);
    expect(await titles()).toEqual(["Row Nine"]);
  });

  test("a song whose parts point into nothing", async () => {
    const broken = { ...song, sections: [{ ...firstOf(song.sections), notes: { nobody: [] } }] };
    const problem = await problemOf(await put(broken, { "If-Match": '"1"' }));
    expect([problem.status, problem.title.includes("nobody")]).toEqual([422, true]);
    expect(await stored()).toEqual(song);
  });
});

describe("saving", () => {
  test("without the revision it is based on, or with one that is none, nothing is saved", async () => {
    for (const headers of [{}, { "If-Match": "x" }, { "If-Match": '"-1"' }, { "If-Match": '"1.5"' }] as Record<
      string,
      string
    >[]) {
      const response = await put({ ...song, tempo: 150 }, headers);
      expect([headers["If-Match"], response.status >= 400 && response.status < 500]).toEqual([
        headers["If-Match"],
        true,
      ]);
    }
    expect((await stored()).tempo).toBe(song.tempo);
  });

  test("under another id than the address names, the address counts or it is refused", async () => {
    const response = await put({ ...song, id: "another" }, { "If-Match": '"1"' });
    if (response.ok) expect((await stored()).id).toBe(song.id);
    else expect(response.status).toBe(422);
    expect((await api("/another")).status).toBe(404);
  });
});

describe("addresses that lead nowhere", () => {
  test.each([
    "/nobody",
    "/..%2f..%2fetc%2fpasswd",
    "/%00",
    "/nobody/revisions",
    "/nobody/revisions/1",
    "/nobody/document",
    `/${"x".repeat(3000)}`,
  ])("%s", async (path) => {
    const response = await api(path);
    expect([response.status >= 400 && response.status < 500, (await response.text()).includes("root:")]).toEqual([
      true,
      false,
    ]);
  });

  test("a revision that was never stored, or is no number", async () => {
    for (const revision of ["0", "99", "-1", "1.5", "x"])
      expect([400, 404]).toContain((await api(`/${song.id}/revisions/${revision}`)).status);
  });

  test("methods that are not for an address", async () => {
    for (const method of ["PATCH", "DELETE", "PUT"])
      expect((await api("", { method })).status).toBeGreaterThanOrEqual(404);
  });
});

test("a name of a version is a text of some length, or none", async () => {
  const name = (value: unknown) =>
    api(`/${song.id}/revisions/1`, {
      method: "PATCH",
      headers: { "Content-Type": "application/json" },
      body: JSON.stringify({ name: value }),
    });
  for (const bad of [7, ["x"], { a: 1 }, "x".repeat(10_000)])
    expect([JSON.stringify(bad).slice(0, 20), (await name(bad)).status]).toEqual([
      JSON.stringify(bad).slice(0, 20),
      422,
    ]);
  expect((await name("before the chorus")).ok).toBe(true);
  expect((await name(null)).ok).toBe(true);
});

test("what is deleted twice, restored without having been deleted, or copied from nowhere", async () => {
  const made = (await (await post("", { title: "Short lived" })).json()) as Song;
  expect((await api(`/${made.id}`, { method: "DELETE" })).status).toBe(204);
  expect((await api(`/${made.id}`, { method: "DELETE" })).status).toBe(404);
  expect((await post("/nobody/restore", {})).status).toBe(404);
  expect((await post("/nobody/duplicate", {})).status).toBe(404);
  expect((await post(`/${made.id}/duplicate`, {})).status).toBe(404);
  expect(await titles()).toEqual(["Row Nine"]);
});
