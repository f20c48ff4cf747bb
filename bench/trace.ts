/** Tasks of the page's main thread while something is done in a browser, read from its trace. */
import { sure } from "../core/src/base/list";
import { readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { chromium, type Page } from "@playwright/test";
import config from "../playwright.config";
import type { Song } from "../core/src/index";
import { launchServer } from "../e2e/fixtures";

/** Milliseconds of the main thread's tasks: in all, and each, longest first. */
export interface Tasks {
  sum: number;
  longest: number;
  each: number[];
}

interface TraceEvent {
  name: string;
  ph: string;
  dur?: number;
  tid: number;
  pid: number;
  args?: { name?: string };
}

/** The tasks of the page's main thread that a trace holds. */
export function mainTasks(trace: string): Tasks {
  const { traceEvents } = JSON.parse(trace) as { traceEvents: TraceEvent[] };
  const mains = new Set(
    traceEvents
      .filter((e) => e.name === "thread_name" && e.args?.name === "CrRendererMain")
      .map((e) => `${e.pid}:${e.tid}`),
  );
  const each = traceEvents
    .filter((e) => e.ph === "X" && /RunTask/.test(e.name) && mains.has(`${e.pid}:${e.tid}`))
    .map((e) => (e.dur ?? 0) / 1000)
    .sort((a, b) => b - a);
  return { each, sum: each.reduce((a, b) => a + b, 0), longest: each[0] ?? 0 };
}

/**
 * Opens a song in a workspace; `act` is done once outside the trace, so that nothing is compiled for the first time in
 * it, and once inside.
 */
export async function trace(
  label: string,
  song: Song,
  workspace: string,
  { prepare, act }: { prepare: (page: Page) => Promise<void>; act: (page: Page) => Promise<void> },
): Promise<void> {
  const server = await launchServer();
  const browser = await chromium.launch(sure(sure(config.use).launchOptions));
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const stored = (await (await page.request.post(`${server.url}/api/songs`, { data: song })).json()) as { id: string };
  await page.goto(`${server.url}/songs/${stored.id}/${workspace}`);
  await prepare(page);
  await act(page);
  const file = path.join(tmpdir(), `orchard-trace-${process.pid}.json`);
  await browser.startTracing(page, {
    path: file,
    categories: ["toplevel", "disabled-by-default-devtools.timeline", "devtools.timeline", "__metadata"],
  });
  await act(page);
  await browser.stopTracing();
  const { each: tasks } = mainTasks(readFileSync(file, "utf8"));
  const longest = tasks
    .slice(0, 5)
    .map((t) => t.toFixed(1))
    .join(", ");
  console.log(
    `${label}: ${tasks.length} tasks, the longest ${longest} ms; ${tasks.filter((t) => t > 50).length} over 50 ms`,
  );
  rmSync(file, { force: true });
  await browser.close();
  server.stop();
}
