import type { Page } from "@playwright/test";
import { readFileSync } from "node:fs";
import { applyEdit, must, newSong, type Edit, type Song } from "../core/src/index";
import { demoSongs } from "../demo/songs";
import { expect, songOf, test } from "./fixtures";

/** A voice that is too high in four bars, over a bass that stands outside its chord once. */
function faulty(): Song {
  const edits: Edit[] = [
    { do: "setLine", section: "s1", line: "| C | F | G | C |" },
    {
      do: "setNotes",
      section: "s1",
      part: "melody",
      notes: [0, 1, 2, 3].map((b) => ({ start: b * 1920, duration: 960, pitch: b % 2 ? "F6" : "C6", velocity: 80 })),
    },
    { do: "setNotes", section: "s1", part: "bass", notes: [{ start: 0, duration: 1920, pitch: "C#2", velocity: 80 }] },
  ];
  return edits.reduce((s, e) => must(applyEdit(s, e)).song, must(newSong({ title: "Too high", bars: 4 })));
}

async function openCheck(page: Page, song: Song): Promise<void> {
  const stored = (await (await page.request.post("/api/songs", { data: song })).json()) as Song;
  await page.goto(`/songs/${stored.id}/check`);
  await expect(page.locator(".finding, .panel p").first()).toBeVisible();
}
const cards = (page: Page) => page.locator(".finding");

test("one fault of one part is one finding: its places are walked, one is left with a reason, all are mended at once", async ({ page }) => {
  await openCheck(page, faulty());
  const high = cards(page).filter({ hasText: "Outside the range" });
  await expect(high).toHaveCount(1);
  await expect(high).toContainText("1 of 4 places");
  await high.getByRole("button", { name: "Next place" }).click();
  await expect(high).toContainText("2 of 4 places");
  await expect(high).toContainText("bar 2, beat 1");
  await expect(page.locator(".lane.melody .note.selected")).toHaveCount(1);
  expect(await page.locator(".found").count()).toBeGreaterThanOrEqual(4);
  await high.getByRole("button", { name: "Leave it here, with a reason" }).click();
  await page.getByLabel("Reason for leaving it").fill("a shout");
  await page.keyboard.press("Enter");
  await expect(cards(page).filter({ hasText: "of 3 places" })).toHaveCount(1);
  await expect(page.getByText("Left: “a shout”")).toBeVisible();
  await cards(page)
    .filter({ hasText: "of 3 places" })
    .getByRole("button", { name: /^Take: All 3 places/ })
    .click();
  await expect(cards(page).filter({ hasText: "of 3 places" })).toHaveCount(0);
  const notes = (await songOf(page)).sections[0]!.notes.melody!;
  expect(notes.filter((n) => n.pitch.endsWith("6")).map((n) => n.start)).toEqual([1920]);
});

test("findings are shown by part and kind; a rule weighs what the song says, whoever judges; the list goes out as a table", async ({
  page,
}) => {
  await openCheck(page, faulty());
  await expect(cards(page).filter({ hasText: "Outside the range" })).toHaveCount(1);
  await page.getByRole("button", { name: /how grave each rule/ }).click();
  await page.getByLabel("Outside the range").selectOption("note");
  await expect(cards(page).filter({ hasText: "Outside the range" }).locator(".severity")).toHaveText("note");
  await page.getByLabel("judged as").selectOption("jazz");
  await expect(cards(page).filter({ hasText: "Outside the range" }).locator(".severity")).toHaveText("note");
  expect((await songOf(page)).severities).toEqual({ "out-of-range": "note" });
  await page.getByRole("button", { name: /take the list/ }).click();
  const [file] = await Promise.all([page.waitForEvent("download"), page.getByRole("button", { name: "Table (CSV)" }).click()]);
  const text = readFileSync(await file.path(), "utf8");
  expect(text.split("\r\n")[0]).toBe("severity,rule,family,section,where,parts,message,amount,fixes,left");
  expect(text.match(/Outside the range/g)).toHaveLength(4);
});

test("a moment is read and walked by keys; a layer is heard without; nothing of it changes the song", async ({ page }) => {
  await openCheck(page, demoSongs()[0]!);
  const before = await songOf(page);
  await page.getByRole("tab", { name: "Moment" }).click();
  const moment = page.getByRole("group", { name: "A moment" });
  const where = moment.locator(".finding-places b");
  await expect(where).toHaveText("bar 1, beat 1");
  await expect(moment).toContainText("major third");
  await moment.focus();
  await page.keyboard.press("ArrowRight");
  await expect(where).toHaveText("bar 1, beat 1½");
  await page.keyboard.press("End");
  await expect(where).toContainText("bar 8");
  await page.getByRole("tab", { name: "Layers" }).click();
  await page.getByRole("button", { name: "Hear it without Piano" }).click();
  await expect(page.getByRole("button", { name: "solo Bass" })).toHaveAttribute("aria-pressed", "true");
  await expect(page.getByRole("button", { name: "solo Piano" })).toHaveAttribute("aria-pressed", "false");
  expect(await songOf(page)).toEqual(before);
});
