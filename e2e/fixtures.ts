import { spawn } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { fileURLToPath } from "node:url";
import AxeBuilder from "@axe-core/playwright";
import { test as base, expect, type Locator, type Page } from "@playwright/test";
import type { Song } from "../core/src/index";
import { bundleServer } from "../scripts/bundle.mjs";
import { firstOf, songFile, sure } from "./orchard";

const root = path.join(path.dirname(fileURLToPath(import.meta.url)), "..");

/** The real server with its demo songs, on a free port, with a temporary data folder. */
export async function launchServer(): Promise<{ url: string; stop(): void }> {
  const folder = mkdtempSync(path.join(tmpdir(), "orchard-e2e-"));
  const child = spawn(process.execPath, [bundleServer()], {
    cwd: root,
    env: { ...process.env, PORT: "0", DATA_DIR: folder, SEED: songFile() },
    stdio: ["ignore", "pipe", "ignore"],
  });
  const url = await new Promise<string>((resolve, reject) => {
    child.stdout.on("data", (text: Buffer) => {
      const match = /http:\/\/localhost:\d+/.exec(String(text));
      if (match) resolve(match[0]);
    });
    child.on("exit", (code) => reject(new Error(`server ended with ${code}`)));
  });
  return {
    url,
    stop: () => {
      child.kill("SIGKILL");
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

/** What a worker says that a test has killed. */
export const KILLED = "killed by the test";

export const test = base.extend<{ quiet: undefined }, { server: { url: string } }>({
  server: [
    async ({}, use) => {
      const server = await launchServer();
      await use(server);
      server.stop();
    },
    { scope: "worker" },
  ],
  baseURL: async ({ server }, use) => use(server.url),
  // No page may log an error (a refused resource, a broken policy, a crash).
  quiet: [
    async ({ page }, use) => {
      const errors: string[] = [];
      page.on("pageerror", (e) => {
        if (e.message !== KILLED) errors.push(e.message);
      });
      page.on("console", (m) => {
        if (m.type() === "error" && !/Failed to load resource/.test(m.text())) errors.push(m.text());
      });
      await use(undefined);
      expect(errors).toEqual([]);
    },
    { auto: true },
  ],
});

export { expect };

/** Makes a new song in the list and opens it; returns its id. */
export async function newSong(page: Page, title: string): Promise<string> {
  await page.goto("/");
  await page.getByPlaceholder("Title of a new song").fill(title);
  await page.getByRole("button", { name: "chords", exact: true }).click();
  await page.waitForURL(/songs\/.+\/chords/);
  await expect(page.getByLabel("Title", { exact: true })).toHaveValue(title);
  return sure(page.url().split("/").at(-2));
}

/** Goes to another workspace; what is clicked next is its own and no longer of the one before. */
export async function goTo(page: Page, title: string): Promise<void> {
  await page.getByRole("link", { name: new RegExp(`^${title}`) }).click();
  await expect(page.locator(`#panel.${title.toLowerCase().replace(" ", "")}`)).toBeVisible();
}

export const typeLine = async (page: Page, line: string): Promise<void> => {
  await page.getByLabel("Chord line").fill(line);
};

/** The song as the page holds it. */
export const songOf = async (page: Page): Promise<Song> =>
  // As one text it travels many times faster than as a tree of values.
  JSON.parse(await page.evaluate(() => JSON.stringify(window.orchard!.song()))) as Song;
export const saved = (page: Page): Promise<void> => expect(page.locator(".status")).toHaveText("Saved");

/**
 * What axe finds on the page: each rule with the first place. The score has most of the nodes and is the same in every
 * workspace: `where` leaves it out, or keeps to the panel. There are no frames, for which axe would open another page.
 */
export async function unreadable(page: Page, where: "page" | "beside the score" | "panel" = "page"): Promise<string[]> {
  const axe = new AxeBuilder({ page }).options({ resultTypes: ["violations"] }).setLegacyMode();
  if (where === "beside the score") axe.exclude("#score");
  if (where === "panel") axe.include("#panel");
  const { violations } = await axe.analyze();
  return violations.map(({ id, nodes }) => {
    const { html, failureSummary } = firstOf(nodes);
    return `${id}: ${html.slice(0, 160)} ${failureSummary?.slice(0, 200)}`;
  });
}

/** Where a beat of the section stands on the page, by the ruler; beats are counted from 0 at bar 1. */
export async function beatX(page: Page, beat: number, beatsABar = 4): Promise<number> {
  const bar = sure(await page.locator(".bar-number").first().boundingBox());
  return bar.x + (beat / beatsABar) * bar.width;
}

/** A cell of the drum grid on the page: a drum's row, and just behind a beat. */
export async function drumCell(page: Page, drum: string, beat: number): Promise<{ x: number; y: number }> {
  const rows = await page.locator(".drums.editable .row").evaluateAll((all) => all.map((r) => r.classList[1]));
  const box = sure(await page.locator(".drums.editable").boundingBox());
  return { x: (await beatX(page, beat)) + 4, y: box.y + ((rows.indexOf(drum) + 0.5) * box.height) / rows.length };
}

/** Clicks in a lane at a beat, so many pixels under its upper edge. */
export async function clickLane(page: Page, role: string, beat: number, down: number): Promise<void> {
  const box = sure(await page.locator(`.lane.${role} .lane-svg`).boundingBox());
  await page.mouse.click((await beatX(page, beat)) + 5, box.y + down);
}

/** Presses at one place and lets go at another. */
export async function drag(
  page: Page,
  from: { x: number; y: number },
  to: { x: number; y: number },
  steps = 6,
): Promise<void> {
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move(to.x, to.y, { steps });
  await page.mouse.up();
}

type Rendering = Parameters<NonNullable<Window["orchard"]>["render"]>[0];

/**
 * Renders a section on the page, without a sound. The samples come as bytes: as a list of numbers they would take many
 * seconds on their way.
 */
export async function rendered(page: Page, what: Rendering): Promise<{ samples: number[]; rate: number }> {
  const { text, rate } = await page.evaluate(async (asked) => {
    const { samples, rate } = await window.orchard!.render(asked);
    const blob = new Blob([Float32Array.from(samples)]);
    const text = await new Promise<string>((resolve) => {
      const reader = new FileReader();
      reader.onload = () => resolve(String(reader.result));
      reader.readAsDataURL(blob);
    });
    return { text: text.slice(text.indexOf(",") + 1), rate };
  }, what);
  const bytes = Buffer.from(text, "base64");
  return { samples: Array.from({ length: bytes.length / 4 }, (_, k) => bytes.readFloatLE(4 * k)), rate };
}

/** Drags one thing onto another, by their middles. */
export async function dragOnto(page: Page, what: Locator, onto: Locator): Promise<void> {
  const middle = async (l: Locator) => {
    await l.scrollIntoViewIfNeeded();
    const { x, y, width, height } = sure(await l.boundingBox());
    return { x: x + width / 2, y: y + height / 2 };
  };
  await drag(page, await middle(what), await middle(onto), 10);
}

/** Waits until the playhead has come to a beat; both are counted from 1. */
export async function playheadAt(page: Page, bar: number, beat: number): Promise<void> {
  await page.waitForFunction(
    ([b, q]) => {
      const [, nowBar, nowBeat] =
        /bar (\d+), beat (\d+)/.exec(document.querySelector(".where b")?.textContent ?? "") ?? [];
      return Number(nowBar) > b! || (Number(nowBar) === b && Number(nowBeat) >= q!);
    },
    [bar, beat],
    { polling: "raf" },
  );
}
