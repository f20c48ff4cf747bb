import { demoSongs } from "../demo/songs";
import type { Song } from "../core/src/index";
import { expect, songOf, test } from "./fixtures";

test("the report on a tune shows its notes; a line is heard alone, with the chords, with all; nothing is changed", async ({ page }) => {
  const stored = (await (await page.request.post("/api/songs", { data: demoSongs()[0]! })).json()) as Song;
  await page.goto(`/songs/${stored.id}/chords`);
  await page.getByRole("link", { name: "Lines" }).click();
  const report = page.locator(".report");
  await expect(report).toContainText("B♭3 to D5, 16 semitones");
  const before = await songOf(page);
  await report.getByRole("button", { name: "Range" }).click();
  await expect(page.locator(".lane.melody .note.selected")).not.toHaveCount(0);
  await page.getByRole("button", { name: "with chords" }).click();
  await expect(page.getByRole("button", { name: "solo Piano" })).toHaveAttribute("aria-pressed", "true");
  await expect(page.getByRole("button", { name: "solo Bass" })).toHaveAttribute("aria-pressed", "false");
  await page.getByRole("button", { name: "with all" }).click();
  await expect(page.getByRole("button", { name: "solo Piano" })).toHaveAttribute("aria-pressed", "false");
  expect(await songOf(page)).toEqual(before);
  // A second line is chosen, and told that it has no note yet.
  await page.getByRole("button", { name: "change Orla, voice" }).click();
  await page.getByRole("button", { name: "Add counter melody" }).click();
  await page.keyboard.press("Escape");
  await page.getByLabel("Line", { exact: true }).selectOption({ label: "Counter" });
  await expect(page.getByText("Counter has no note in Verse")).toBeVisible();
  await page.locator(".lane.counter .lane-svg").click({ position: { x: 60, y: 40 } });
  await expect(report).toContainText("Notes a bar");
});
