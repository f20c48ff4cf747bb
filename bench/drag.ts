/** Longest task of the page's main thread while a bass note of a long song is dragged, read from a browser trace. */
import { readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { chromium } from "@playwright/test";
import config from "../playwright.config";
import { launchServer } from "../e2e/fixtures";
import { longSong } from "./songs";

interface TraceEvent {
  name: string;
  ph: string;
  ts: number;
  dur?: number;
  tid: number;
  pid: number;
  args?: { name?: string };
}

export async function drag(): Promise<void> {
  const server = await launchServer();
  const browser = await chromium.launch(config.use!.launchOptions!);
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const song = (await (await page.request.post(`${server.url}/api/songs`, { data: longSong() })).json()) as { id: string };
  await page.goto(`${server.url}/songs/${song.id}/check`);
  await page.locator(".lane.bass [data-note] .head").nth(4).waitFor();
  await page.waitForTimeout(3000);
  const box = (await page.locator(".lane.bass [data-note] .head").nth(4).boundingBox())!;
  const file = path.join(tmpdir(), `orchard-trace-${process.pid}.json`);
  // Moved once outside the trace, so that nothing is compiled for the first time in it.
  const once = async () => {
    await page.mouse.move(box.x + 8, box.y + 8);
    await page.mouse.down();
    for (let i = 0; i < 40; i++) await page.mouse.move(box.x + 8 + Math.sin(i / 6) * 60, box.y + 8 - Math.sin(i / 4) * 40);
    await page.mouse.move(box.x + 8, box.y + 8);
    await page.mouse.up();
    await page.waitForTimeout(1500);
  };
  await once();
  await browser.startTracing(page, {
    path: file,
    categories: ["toplevel", "disabled-by-default-devtools.timeline", "devtools.timeline", "__metadata"],
  });
  await once();
  await browser.stopTracing();
  const { traceEvents } = JSON.parse(readFileSync(file, "utf8")) as { traceEvents: TraceEvent[] };
  const mains = new Set(
    traceEvents.filter((e) => e.name === "thread_name" && e.args?.name === "CrRendererMain").map((e) => `${e.pid}:${e.tid}`),
  );
  const tasks = traceEvents
    .filter((e) => e.ph === "X" && /RunTask/.test(e.name) && mains.has(`${e.pid}:${e.tid}`))
    .map((e) => (e.dur ?? 0) / 1000)
    .sort((a, b) => b - a);
  console.log(
    `dragging a bass note with findings open: ${tasks.length} tasks, the longest ${tasks
      .slice(0, 5)
      .map((t) => t.toFixed(1))
      .join(", ")} ms; ${tasks.filter((t) => t > 50).length} over 50 ms`,
  );
  rmSync(file, { force: true });
  await browser.close();
  server.stop();
}
