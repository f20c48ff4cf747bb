import { sure } from "../../core/src/index";
import { mkdirSync, rmSync, writeFileSync } from "node:fs";
import path from "node:path";
import { startServer, temporaryFolder } from "./helpers";

test("the built application is served under a strict policy, and its own addresses lead to it", async () => {
  const web = temporaryFolder();
  mkdirSync(path.join(web, "assets"));
  writeFileSync(path.join(web, "index.html"), "<title>orchard</title>");
  writeFileSync(path.join(web, "assets", "app.js"), "1;");
  const server = await startServer({ web });
  const page = await fetch(`${server.url}/songs/anything/bass`);
  expect([page.status, await page.text()]).toEqual([200, "<title>orchard</title>"]);
  const policy = sure(page.headers.get("content-security-policy"));
  for (const rule of [
    "default-src 'self'",
    "script-src 'self'",
    "worker-src 'self' blob:",
    "font-src 'self' data:",
    "object-src 'none'",
    "frame-ancestors 'none'",
  ]) {
    expect(policy).toContain(rule);
  }
  expect(policy).not.toMatch(/unsafe|https?:/);
  expect([page.headers.get("x-powered-by"), page.headers.get("x-content-type-options")]).toEqual([null, "nosniff"]);
  const asset = await fetch(`${server.url}/assets/app.js`);
  expect([asset.status, asset.headers.get("cache-control")]).toEqual([200, expect.stringContaining("immutable")]);
  expect((await fetch(`${server.url}/assets/gone.js`)).status).toBe(404);
  expect((await fetch(`${server.url}/%2e%2e/package.json`)).headers.get("content-type")).toContain("text/html");
  await server.stop();
  rmSync(web, { recursive: true });
});

test("without a built application only the interface for songs answers", async () => {
  const server = await startServer();
  expect((await fetch(`${server.url}/`)).status).toBe(404);
  expect(await (await fetch(`${server.url}/api/health`)).json()).toEqual({ ok: true });
  await server.stop();
});
