import AxeBuilder from "@axe-core/playwright";
import type { Page } from "@playwright/test";
import { expect, newSong, songOf, test } from "./fixtures";

const lane = async (page: Page, drum: string) => (await songOf(page)).sections[0]!.groove.lanes.find((l) => l.drum === drum);
const starts = async (page: Page, drum: string) => (await lane(page, drum))?.hits.map((h) => h.start / 480) ?? [];

test("patterns by feel are heard, taken, added to, spread, filled, varied and undone", async ({ page }) => {
  await newSong(page, "Barn floor");
  await page.getByRole("link", { name: "Groove" }).click();
  await expect(page.getByRole("list", { name: "Patterns" }).getByRole("button", { name: "Take" })).toHaveCount(9);
  await page.keyboard.press("1");
  await expect(page.getByText("Hearing: four on the floor")).toBeVisible();
  expect(await starts(page, "kick")).toEqual([]);
  await page.keyboard.press("t");
  await expect.poll(() => starts(page, "kick")).toEqual(Array.from({ length: 16 }, (_, i) => i));
  await page.getByLabel("add to what is there").check();
  await page.getByRole("list", { name: "Patterns" }).getByRole("listitem").nth(4).getByRole("button", { name: "Take" }).click();
  await expect.poll(async () => (await starts(page, "rim")).length).toBeGreaterThan(8);
  expect((await starts(page, "kick")).slice(0, 5)).toEqual([0, 1, 1.5, 2, 3]);
  // New rows stand in the grid.
  await expect(page.locator('[data-hit^="shaker@"]').first()).toBeVisible();
  await page.getByRole("button", { name: "Put it there" }).click();
  await expect.poll(async () => (await starts(page, "rim")).slice(0, 5)).toEqual([0, 0.75, 1.5, 2.25, 3]);
  const before = await songOf(page);
  await page.getByRole("button", { name: "Fill on the last beat" }).click();
  await expect.poll(async () => (await songOf(page)).sections[0]!.groove).not.toEqual(before.sections[0]!.groove);
  await page.keyboard.press("Control+z");
  await expect.poll(async () => (await songOf(page)).sections[0]!.groove).toEqual(before.sections[0]!.groove);
});

test("a lane is named, swings and lies by itself; hits are moved off the grid and tuned; wrong values are refused", async ({ page }) => {
  await newSong(page, "Cellar drum");
  await page.getByRole("link", { name: "Groove" }).click();
  await page.getByRole("list", { name: "Patterns" }).getByRole("listitem").nth(1).getByRole("button", { name: "Take" }).click();
  await page.getByRole("tab", { name: "Lanes" }).click();
  await page.getByLabel("Lane", { exact: true }).selectOption("kick");
  const name = page.getByLabel("Name of the lane");
  await name.fill("low drum");
  await name.press("Enter");
  await expect(page.locator(".drum-name", { hasText: "low drum" })).toBeVisible();
  await page.getByLabel("tuned").click();
  const pitch = page.getByLabel("Pitch at bar 1, beat 1");
  await pitch.fill("h1");
  await pitch.press("Enter");
  await expect(page.locator(".problem-bar")).toContainText("no pitch");
  await pitch.fill("f1");
  await pitch.press("Enter");
  await expect.poll(async () => (await lane(page, "kick"))!.hits[0]!.pitch).toBe("F1");
  const late = page.getByLabel(/^Milliseconds late at bar 1, beat 1(ms)?$/);
  await late.fill("13");
  await late.press("Enter");
  await expect.poll(async () => (await lane(page, "kick"))!.hits[0]!.offset).toBe(10);
  const swing = page.getByLabel("Swing of the lane");
  await swing.focus();
  await swing.press("End");
  await expect.poll(async () => (await lane(page, "kick"))!.swing).toBe(0.75);
  await page.getByRole("button", { name: "Swing with the song" }).click();
  await expect.poll(async () => (await lane(page, "kick"))!.swing).toBeUndefined();
  const found = await new AxeBuilder({ page }).exclude("#score").analyze();
  expect(found.violations.map((v) => `${v.id}: ${v.nodes[0]!.html.slice(0, 160)}`)).toEqual([]);
});
