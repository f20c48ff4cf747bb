import { Router, type Request, type Response } from "express";
import { z } from "zod";
import { firstOf, type Result, Song } from "../../core/src/index";
import { HttpProblem } from "../httpProblem";
import type { SongStore, Stored } from "../store/songs";

const NewSong = z.object({
  title: z.string(),
  key: z.string().optional(),
  tempo: z.number().optional(),
  meter: z.string().optional(),
  bars: z.number().optional(),
});

/** How the list is asked for, in the address. */
const Listed = z
  .object({
    search: z.string().max(200),
    sort: z.enum(["changed", "title"]),
    limit: z.coerce.number().int().min(1).max(500),
    offset: z.coerce.number().int().min(0),
  })
  .partial();

/** The value of a core result, or the problem it carries as an answer 422. */
function accept<T>(result: Result<T>): T {
  if (result.ok) return result.value;
  throw new HttpProblem(422, result.error.code, result.error.message, {
    ...(result.error.hint ? { hint: result.error.hint } : {}),
  });
}

function basedOn(request: Request): number {
  const header = request.headers["if-match"];
  if (header === undefined)
    throw new HttpProblem(428, "revision.missing", "Saving needs the revision the edit is based on (If-Match)");
  const match = /^"(\d+)"$/.exec(header);
  if (!match)
    throw new HttpProblem(400, "revision.malformed", `"${header}" is not a revision`, { hint: 'Send If-Match: "3".' });
  return Number(match[1]);
}

const idOf = (request: Request): string => String(request.params.id);
const numberOf = (request: Request): number => {
  const value = Number(request.params.revision);
  if (!Number.isInteger(value))
    throw new HttpProblem(400, "revision.malformed", `"${String(request.params.revision)}" is not a revision`);
  return value;
};

function send(response: Response, { song, revision }: Stored, status = 200): void {
  response.status(status).set("ETag", `"${revision}"`).json(song);
}

/** Songs and revisions under /api/songs. */
export function songRoutes(store: SongStore): Router {
  const routes = Router();
  routes.get("/", async (request, response) => {
    const asked = Listed.safeParse(request.query);
    if (!asked.success)
      throw new HttpProblem(
        400,
        "list.settings",
        `${firstOf(asked.error.issues).path.join(".")}: ${firstOf(asked.error.issues).message}`,
        { hint: "search is a text; sort is changed or title; limit is 1 to 500; offset is 0 or more." },
      );
    const { songs, total } = await store.list(asked.data);
    response.set("X-Total-Count", String(total)).json(songs);
  });
  routes.post("/", async (request, response) => {
    const body: unknown = request.body;
    const isDocument = typeof body === "object" && body !== null && "version" in body;
    let song: Song;
    if (isDocument) song = accept(Song.parse(body));
    else {
      const settings = NewSong.safeParse(body);
      if (!settings.success)
        throw new HttpProblem(
          422,
          "song.settings",
          `${firstOf(settings.error.issues).path.join(".") || "body"}: ${firstOf(settings.error.issues).message}`,
          { hint: "Send at least a title." },
        );
      song = accept(
        Song.create(
          Object.fromEntries(Object.entries(settings.data).filter(([, v]) => v !== undefined)) as { title: string },
        ),
      );
    }
    send(response, await store.create(song), 201);
  });
  routes.get("/:id", async (request, response) => send(response, await store.get(idOf(request))));
  routes.get("/:id/document", async (request, response) => {
    const { title, document } = await store.document(idOf(request));
    response
      .attachment(`${title.replace(/[^\p{L}\p{N} ]+/gu, "").trim() || "song"}.json`)
      .type("application/json")
      .send(document);
  });
  routes.put("/:id", async (request, response) => {
    const revision = await store.save(idOf(request), basedOn(request), accept(Song.parse(request.body)));
    response.status(204).set("ETag", `"${revision}"`).end();
  });
  routes.delete("/:id", async (request, response) => {
    await store.remove(idOf(request));
    response.status(204).end();
  });
  routes.post("/:id/restore", async (request, response) => {
    await store.restore(idOf(request));
    send(response, await store.get(idOf(request)));
  });
  routes.post("/:id/duplicate", async (request, response) => send(response, await store.duplicate(idOf(request)), 201));
  routes.get("/:id/revisions", async (request, response) => void response.json(await store.revisions(idOf(request))));
  routes.get(
    "/:id/revisions/:revision",
    async (request, response) => void response.json(await store.revision(idOf(request), numberOf(request))),
  );
  routes.patch("/:id/revisions/:revision", async (request, response) => {
    const body = z.object({ name: z.string().trim().min(1).max(200).nullable() }).safeParse(request.body);
    if (!body.success)
      throw new HttpProblem(422, "revision.name", "A revision's name is a text of 1 to 200 characters, or null");
    await store.nameRevision(idOf(request), numberOf(request), body.data.name);
    response.status(204).end();
  });
  return routes;
}
