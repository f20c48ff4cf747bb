/** Longest task of the page's main thread while a bass note of a long song is dragged with the findings open. */
import { sure } from "../core/src/base/list";
import type { Page } from "@playwright/test";
import { longSong } from "./songs";
import { trace } from "./trace";

export async function drag(): Promise<void> {
  const head = (page: Page) => page.locator(".lane.bass [data-note] .head").nth(4);
  await trace("dragging a bass note with findings open", longSong(), "check", {
    prepare: async (page) => {
      await head(page).waitFor();
      await page.waitForTimeout(3000);
    },
    act: async (page) => {
      const box = sure(await head(page).boundingBox());
      await page.mouse.move(box.x + 8, box.y + 8);
      await page.mouse.down();
      for (let i = 0; i < 40; i++)
        await page.mouse.move(box.x + 8 + Math.sin(i / 6) * 60, box.y + 8 - Math.sin(i / 4) * 40);
      await page.mouse.move(box.x + 8, box.y + 8);
      await page.mouse.up();
      await page.waitForTimeout(1500);
    },
  });
}
