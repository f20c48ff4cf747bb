import type { Song } from "../../core/src/index";
import type { RevisionInfo, SongSummary } from "../../shared/songs";

/** What the server said was wrong, or that it could not be reached (status 0). */
export class ApiProblem extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    /** What to do about it; after a stale save the stored song and its revision. */
    readonly more: { hint?: string | undefined; current?: Song | undefined; revision?: number | undefined } = {},
  ) {
    super(message);
  }
  get hint(): string | undefined {
    return this.more.hint;
  }
}

/** What did not come whole over the line says as little about the song as what never came: it is asked again. */
async function whole<T>(answer: Promise<T>): Promise<T> {
  try {
    return await answer;
  } catch {
    throw new ApiProblem(0, "server.away", "The server is away", {
      hint: "Your edits are kept in this browser and sent when it is back.",
    });
  }
}

interface Refusal {
  code?: string;
  title?: string;
  hint?: string;
  current?: Song;
  revision?: number;
}

/** The refusal that an answer states; nothing where what stands between here and the server has its own words. */
const refusal = async (response: Response): Promise<Refusal> =>
  response.headers.get("content-type")?.includes("json") ? whole(response.json() as Promise<Refusal>) : {};

async function call(path: string, init?: RequestInit): Promise<Response> {
  const response = await whole(fetch(`/api/songs${path}`, init));
  if (response.ok) return response;
  const body = await refusal(response);
  throw new ApiProblem(
    response.status >= 502 && response.status <= 504 ? 0 : response.status,
    body.code ?? "server.failed",
    body.title ?? `The server answered ${response.status}`,
    { hint: body.hint, current: body.current, revision: body.revision },
  );
}

/** Which songs are listed. */
export interface Asked {
  search?: string;
  sort?: "changed" | "title";
  limit?: number;
  offset?: number;
}

const send = (method: string, body: unknown, headers: Record<string, string> = {}): RequestInit => ({
  method,
  headers: { "Content-Type": "application/json", ...headers },
  body: JSON.stringify(body),
});
const revisionOf = (response: Response): number => Number(/\d+/.exec(response.headers.get("etag") ?? "0")?.[0] ?? 0);
const json = <T>(response: Response): Promise<T> => whole(response.json() as Promise<T>);
const stored = async (response: Response) => ({
  song: await json<Song>(response),
  revision: revisionOf(response),
});

export const api = {
  /** A page of the songs, and how many there are in all. */
  list: async (asked: Asked = {}): Promise<{ songs: SongSummary[]; total: number }> => {
    const query = new URLSearchParams(
      Object.entries(asked).flatMap(([name, value]) => (value === "" ? [] : [[name, String(value)]])),
    );
    const response = await call(query.size ? `?${query}` : "");
    return {
      songs: await json<SongSummary[]>(response),
      total: Number(response.headers.get("x-total-count") ?? 0),
    };
  },
  get: async (id: string) => stored(await call(`/${id}`)),
  /** The stored document as it stands, for a song that cannot be read. */
  documentUrl: (id: string): string => `/api/songs/${id}/document`,
  create: async (settings: { title: string } | Song) => stored(await call("", send("POST", settings))),
  save: async (song: Song, revision: number) =>
    revisionOf(await call(`/${song.id}`, send("PUT", song, { "If-Match": `"${revision}"` }))),
  remove: async (id: string) => void (await call(`/${id}`, { method: "DELETE" })),
  restore: async (id: string) => void (await call(`/${id}/restore`, { method: "POST" })),
  duplicate: async (id: string) => stored(await call(`/${id}/duplicate`, { method: "POST" })),
  revisions: async (id: string) => json<RevisionInfo[]>(await call(`/${id}/revisions`)),
  revision: async (id: string, revision: number) => json<Song>(await call(`/${id}/revisions/${revision}`)),
  nameRevision: async (id: string, revision: number, name: string | null) =>
    void (await call(`/${id}/revisions/${revision}`, send("PATCH", { name }))),
};
