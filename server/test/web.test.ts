import { sure } from "../../core/src/index";
import { mkdirSync, rmSync, writeFileSync } from "node:fs";
import path from "node:path";
import { startServer, temporaryFolder } from "./helpers";

test("the built application is served under a strict policy, and its own addresses lead to it", async () => {
  const web = temporaryFolder();
  mkdirSync(path.join(web, "assets"));
  writeFileSync(path.join(web, "index.html"), "<title>orchard</title>");
  writeFileSync(path.join(web, "assets", "app.js"), "1;".repeat(2000));
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
  // Response headers that the OWASP Secure Headers Project asks for (from memory); encryption is a proxy's, before us.
  expect(Object.fromEntries(page.headers)).toMatchObject({
    "x-content-type-options": "nosniff",
    "x-frame-options": expect.stringMatching(/DENY|SAMEORIGIN/) as string,
    "referrer-policy": expect.stringMatching(/no-referrer|same-origin/) as string,
    "cross-origin-opener-policy": "same-origin",
    "cross-origin-resource-policy": "same-origin",
    "x-permitted-cross-domain-policies": "none",
  });
  const asset = await fetch(`${server.url}/assets/app.js`);
  expect([asset.status, asset.headers.get("cache-control")]).toEqual([200, expect.stringContaining("immutable")]);
  expect(asset.headers.get("content-encoding")).toMatch(/gzip|br/);
  for (const page of ["/", "/about", "/songs/x", "/songs/x/pages"])
    expect([page, (await fetch(`${server.url}${page}`)).status]).toEqual([page, 200]);
  // What is no page is not there, and nothing says where the files lie.
  for (const gone of [
    "/%2e%2e/package.json",
    "/wp-admin",
    "/songs",
    "/songs/x/y/z",
    "/assets/gone.js",
    "/assets/%00",
  ]) {
    const answer = await fetch(`${server.url}${gone}`);
    expect([gone, answer.status >= 400 && answer.status < 500]).toEqual([gone, true]);
    expect(await answer.text()).not.toContain(web);
  }
  const shown = await fetch(`${server.url}/wp-admin`, { headers: { Accept: "text/html,*/*;q=0.8" } });
  expect([shown.status, await shown.text()]).toEqual([404, "<title>orchard</title>"]);
  await server.stop();
  rmSync(web, { recursive: true });
});

test("without a built application only the interface for songs answers", async () => {
  const server = await startServer();
  expect((await fetch(`${server.url}/`)).status).toBe(404);
  expect(await (await fetch(`${server.url}/api/health`)).json()).toEqual({ ok: true });
  await server.stop();
});
