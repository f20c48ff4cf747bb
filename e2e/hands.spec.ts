import type { Page } from "@playwright/test";
import { expect, newSong, songOf, test } from "./fixtures";
import { firstOf, nth, sure } from "./orchard";

const tab = (page: Page, name: string) => page.getByRole("tab", { name }).click();
const way = (page: Page, name: string) =>
  page.getByRole("tablist", { name: "Ways in" }).getByRole("tab", { name, exact: true }).click();
const chords = async (page: Page) => firstOf((await songOf(page)).sections).chords;

test("four shapes, one after another: four chords, held as they were found; a voice is dragged, in every stroke and in one", async ({
  page,
}) => {
  await newSong(page, "Shapes of the ladder");
  await tab(page, "Write");
  await way(page, "frets");
  for (const shape of ["8x99xx", "x5x56x", "xx778x", "x3203x"]) {
    await page.getByLabel("Frets", { exact: true }).fill(shape);
    await page.getByRole("button", { name: /^Put .* (in a new bar at the end|in bar 1)$/ }).click();
  }
  const part = async () => sure((await songOf(page)).parts.find((p) => p.name === "Guitar")).id;
  await expect.poll(async () => (await chords(page)).length).toBe(4);
  const id = await part();
  expect((await chords(page)).map((c) => c.voicings?.[id]?.shape?.frets.map((f) => f ?? "x").join(""))).toEqual([
    "8x99xx",
    "x5x56x",
    "xx778x",
    "x3203x",
  ]);
  expect((await chords(page)).map((c) => c.duration)).toEqual([1920, 1920, 1920, 1920]);
  if (process.env.SHOTS) await page.screenshot({ path: `${process.env.SHOTS}/h1.png` });

  // A voice of the first chord goes up by a key; the layout is pinned, the part plays the chords as before.
  const lane = page.getByRole("group", { name: /^Guitar, / });
  const note = lane.locator("[data-note]").first();
  await note.click();
  if (process.env.SHOTS) await page.screenshot({ path: `${process.env.SHOTS}/h2.png` });
  const before = sure(nth(await chords(page), 0).voicings?.[id]).pitches;
  await page.keyboard.press("Shift+ArrowUp");
  await expect.poll(async () => sure(nth(await chords(page), 0).voicings?.[id]).pitches).not.toEqual(before);
  await page.keyboard.press("Control+z");
  await expect.poll(async () => sure(nth(await chords(page), 0).voicings?.[id]).pitches).toEqual(before);

  // In this stroke alone.
  await page.getByRole("button", { name: "this stroke" }).click();
  await lane.locator("[data-note]").first().focus();
  await page.keyboard.press("Shift+ArrowUp");
  await expect.poll(async () => nth(await chords(page), 0).voicings?.[id]?.strokes?.length).toBe(1);
  expect(sure(nth(await chords(page), 0).voicings?.[id]).pitches).toEqual(before);
  if (process.env.SHOTS) await page.screenshot({ path: `${process.env.SHOTS}/h3.png` });
  await page.getByRole("button", { name: "as written" }).click();
  await expect.poll(async () => nth(await chords(page), 0).voicings?.[id]?.strokes).toBeUndefined();
});
