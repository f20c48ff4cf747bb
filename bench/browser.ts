/**
 * What the page costs its main thread, in the built application: a key press, a move of a drag, a second of playing,
 * opening, each workspace, for 8, 64 and 256 bars of eight parts. Told as ratios to a fixed loop timed in the same
 * page, beside what the last version that was kept needed. `npm run bench -- browser`; `keep` writes what is measured.
 */
import { existsSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { chromium, type Browser, type Page } from "@playwright/test";
import { nth, sure } from "../core/src/base/list";
import { launchServer } from "../e2e/fixtures";
import config from "../playwright.config";
import { eightParts } from "./songs";
import { mainTasks, type Tasks } from "./trace";

const SIZES = [8, 64, 256];
const KEPT = path.join(import.meta.dirname, "kept", "browser.json");
const WORKSPACES = ["form", "chords", "voicings", "bass", "lines", "groove", "check", "handover"];

/** Main thread of one gesture and its longest task, as shares of the loop. */
interface Figure {
  main: number;
  longest: number;
}
type Figures = Record<string, Figure>;

/** Milliseconds the page takes to sort 200 000 numbers: what all else is told against. */
const loopOf = (page: Page): Promise<number> =>
  page.evaluate(() => {
    const took: number[] = [];
    for (let run = 0; run < 5; run++) {
      const numbers = new Array<number>(200_000);
      for (let i = 0, seed = 1; i < numbers.length; i++) numbers[i] = seed = (seed * 48271) % 2147483647;
      const from = performance.now();
      numbers.sort((a, b) => a - b);
      took.push(performance.now() - from);
    }
    return took.sort((a, b) => a - b)[2]!;
  });

/** Tasks of the main thread while something is done. */
async function traced(browser: Browser, page: Page, act: () => Promise<unknown>): Promise<Tasks> {
  const file = path.join(tmpdir(), `orchard-trace-${process.pid}.json`);
  await browser.startTracing(page, { path: file, categories: ["toplevel", "__metadata"] });
  await act();
  await browser.stopTracing();
  const tasks = mainTasks(readFileSync(file, "utf8"));
  rmSync(file, { force: true });
  return tasks;
}

/** Waits until the workers have answered and nothing is drawn any more. */
const settled = (page: Page, ms = 1200) => page.waitForTimeout(ms);

/** A gesture: what is done before it is measured, then so many times as its main thread is divided by. */
interface Gesture {
  name: string;
  workspace: string;
  times: number;
  ready(page: Page): Promise<unknown>;
  act(page: Page): Promise<unknown>;
}

const head = (page: Page, lane: string, n: number) => page.locator(`.lane.${lane} [data-note] .head`).nth(n);

const PRESSES = 6;
const MOVES = 30;
const SECONDS = 4;

const GESTURES: Gesture[] = [
  {
    name: "a key press on the tune",
    workspace: "lines",
    times: PRESSES,
    async ready(page) {
      await head(page, "melody", 3).click();
      await page.keyboard.press("ArrowUp");
      await settled(page);
    },
    async act(page) {
      for (let i = 0; i < PRESSES; i++) {
        await page.keyboard.press(i % 2 ? "ArrowUp" : "ArrowDown");
        await settled(page, 700);
      }
    },
  },
  {
    name: "a move of a drag in the bass",
    workspace: "bass",
    times: MOVES,
    async ready(page) {
      const box = sure(await head(page, "bass", 4).boundingBox());
      await page.mouse.move(box.x + 8, box.y + 8);
      await page.mouse.down();
      await page.mouse.move(box.x + 9, box.y - 20);
      await settled(page);
    },
    async act(page) {
      const box = sure(await page.locator(".lane.bass .note.selected .head").first().boundingBox());
      for (let i = 0; i < MOVES; i++) {
        await page.mouse.move(box.x + 8 + Math.sin(i / 6) * 60, box.y + 8 - Math.sin(i / 4) * 40);
        await page.waitForTimeout(40);
      }
      await page.mouse.up();
      await settled(page);
    },
  },
  {
    name: "a second of playing",
    workspace: "lines",
    times: SECONDS,
    async ready(page) {
      await page.keyboard.press("Escape");
      await page.getByRole("button", { name: "Play", exact: true }).click();
      await page.locator(".score .playhead").waitFor({ state: "visible" });
      await settled(page, 2500);
    },
    act: (page) => page.waitForTimeout(SECONDS * 1000),
  },
];

/** What the song of so many bars costs, and what the loop of its page took on average. */
async function figuresOf(browser: Browser, url: string, bars: number): Promise<{ figures: Figures; loop: number }> {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const { id } = (await (await page.request.post(`${url}/api/songs`, { data: eightParts(bars) })).json()) as {
    id: string;
  };
  // What is loaded and compiled for the first time is not counted.
  await page.goto(`${url}/songs/${id}/lines`);
  await head(page, "melody", 0).waitFor();
  await settled(page, 4000);
  const figures: Figures = {};
  const loops: number[] = [];
  const take = async (name: string, times: number, act: () => Promise<unknown>) => {
    // The machine is not as fast at all times: the loop is timed right before and right after.
    const before = await loopOf(page);
    const { sum, longest } = await traced(browser, page, act);
    const loop = (before + (await loopOf(page))) / 2;
    loops.push(loop);
    figures[name] = { main: sum / times / loop, longest: longest / loop };
  };
  await page.goto(`${url}/`);
  const row = page.locator(`a[href*="${id}"]`).first();
  await row.waitFor();
  await settled(page);
  await take("opening", 1, async () => {
    await row.click();
    await head(page, "melody", 0).waitFor();
    await settled(page, 4000);
  });
  for (const name of WORKSPACES) {
    const link = page.locator(`nav.workspaces a[href$="/${name}"]`);
    await take(`to ${name}`, 1, async () => {
      await link.click();
      await settled(page, 1500);
    });
  }
  for (const { name, workspace, times, ready, act } of GESTURES) {
    await page.locator(`nav.workspaces a[href$="/${workspace}"]`).click();
    await settled(page, 1500);
    await ready(page);
    await take(name, times, () => act(page));
  }
  await page.close();
  return { figures, loop: loops.reduce((a, b) => a + b, 0) / loops.length };
}

export async function browser({ keep, sizes = SIZES }: { keep: boolean; sizes?: readonly number[] }): Promise<void> {
  const server = await launchServer();
  const chrome = await chromium.launch(sure(sure(config.use).launchOptions));
  const kept = existsSync(KEPT) ? (JSON.parse(readFileSync(KEPT, "utf8")) as Record<string, Figures>) : {};
  const now: Record<string, Figures> = {};
  for (const bars of sizes) {
    const { figures, loop } = await figuresOf(chrome, server.url, bars);
    now[bars] = figures;
    console.log(`${bars} bars of eight parts, in loops (one is ${loop.toFixed(0)} ms here); in brackets as kept`);
    for (const [name, { main, longest }] of Object.entries(figures)) {
      const was = kept[bars]?.[name];
      const before = (value: number | undefined) => (value === undefined ? "" : ` (${value.toFixed(2)})`);
      console.log(
        `  ${name}: ${main.toFixed(2)}${before(was?.main)}, longest task ${longest.toFixed(2)}${before(was?.longest)}`,
      );
    }
  }
  const [small = {}, large = {}] = [nth(SIZES, 1), nth(SIZES, 2)].map((bars) => now[bars]);
  for (const name of Object.keys(small).filter((n) => large[n])) {
    const [a, b] = [sure(small[name]).main, sure(large[name]).main];
    console.log(`  ${name}: 256 bars take ${(b / a).toFixed(1)} × of 64`);
  }
  const rounded = (_: string, value: unknown) => (typeof value === "number" ? Math.round(value * 1000) / 1000 : value);
  if (keep) writeFileSync(KEPT, `${JSON.stringify(now, rounded, 2)}\n`);
  await chrome.close();
  server.stop();
}
