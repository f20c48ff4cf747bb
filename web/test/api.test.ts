import { createServer, type ServerResponse } from "node:http";
import type { AddressInfo } from "node:net";
import { api, ApiProblem } from "../app/api";

/** A server of Node's own, asked over a real line: what `answer` does with it is what arrives. */
async function answered<T>(answer: (to: ServerResponse) => void, ask: () => Promise<T>): Promise<T | ApiProblem> {
  const server = createServer((_, to) => answer(to));
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  const { fetch: before } = globalThis;
  const { port } = server.address() as AddressInfo;
  globalThis.fetch = (path, init) => before(`http://127.0.0.1:${port}${String(path)}`, init);
  try {
    return await ask().catch((error: unknown) => {
      if (error instanceof ApiProblem) return error;
      throw error;
    });
  } finally {
    globalThis.fetch = before;
    server.closeAllConnections();
    server.close();
  }
}

const text = '{"code":"revision.stale","title":"Changed elsewhere","revision":7}';
const JSON_TYPE = { "Content-Type": "application/problem+json; charset=utf-8" };
/** Half of an answer, of a length that was told, or of one that was to end with its line. */
const cutOff = (status: number, told: boolean) => (to: ServerResponse) => {
  to.writeHead(status, { ...JSON_TYPE, Connection: "close", ...(told ? { "Content-Length": text.length } : {}) });
  to.write(text.slice(0, 20), () => to.destroy());
};
const of = ({ status, code, message, more }: ApiProblem) => ({ status, code, message, revision: more.revision });

test("a refusal says what the server said; one in other words than the server's says its number", async () => {
  const refused = await answered(
    (to) => to.writeHead(409, JSON_TYPE).end(text),
    () => api.get("a"),
  );
  expect(of(refused as ApiProblem)).toEqual({
    ...{ status: 409, code: "revision.stale", message: "Changed elsewhere", revision: 7 },
  });
  const foreign = await answered(
    (to) => to.writeHead(413).end("<h1>Too large</h1>"),
    () => api.get("a"),
  );
  expect(of(foreign as ApiProblem)).toMatchObject({ status: 413, message: "The server answered 413" });
  const between = await answered(
    (to) => to.writeHead(502).end("<h1>Bad gateway</h1>"),
    () => api.get("a"),
  );
  expect(of(between as ApiProblem)).toMatchObject({ status: 0 });
});

test("what is cut off on its way, a refusal or an answer, is a server that is away: it is asked again", async () => {
  for (const status of [409, 200])
    for (const told of [true, false])
      for (const ask of [() => api.get("a"), () => api.revision("a", 2), () => api.revisions("a"), () => api.list()])
        expect(of((await answered(cutOff(status, told), ask as () => Promise<unknown>)) as ApiProblem)).toMatchObject({
          ...{ status: 0, code: "server.away" },
        });
});
