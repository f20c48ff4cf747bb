import { spawn } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { fileURLToPath } from "node:url";
import { test as base, expect, type Page } from "@playwright/test";
import type { Song } from "../core/src/index";

const root = path.join(path.dirname(fileURLToPath(import.meta.url)), "..");

/** The real server with its demo songs, on a free port, with a temporary data folder. */
export async function launchServer(): Promise<{ url: string; stop(): void }> {
  const folder = mkdtempSync(path.join(tmpdir(), "orchard-e2e-"));
  const child = spawn(process.execPath, ["--import", "tsx", "server/main.ts"], {
    cwd: root,
    env: { ...process.env, PORT: "0", DATA_DIR: folder },
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
      page.on("pageerror", (e) => errors.push(e.message));
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
  return page.url().split("/").at(-2)!;
}

export const typeLine = async (page: Page, line: string): Promise<void> => {
  await page.getByLabel("Chord line").fill(line);
};

/** The song as the page holds it. */
export const songOf = (page: Page): Promise<Song> => page.evaluate(() => window.orchard!.song()!);
export const saved = (page: Page): Promise<void> => expect(page.locator(".status")).toHaveText("Saved");
