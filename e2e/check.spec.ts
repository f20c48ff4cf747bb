import type { Page } from "@playwright/test";
import { readFileSync } from "node:fs";
import { expect, songOf, test } from "./fixtures";
import { demoSongs, Edit, firstOf, must, Song, sure } from "./orchard";

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
  return edits.reduce((s, e) => must(Edit.apply(s, e)).song, must(Song.create({ title: "Too high", bars: 4 })));
}

async function openCheck(page: Page, song: Song): Promise<void> {
  const stored = (await (await page.request.post("/api/songs", { data: song })).json()) as Song;
  await page.goto(`/songs/${stored.id}/check`);
  await expect(page.locator(".finding, .panel p").first()).toBeVisible();
}
const cards = (page: Page) => page.locator(".finding");

test("one fault of one part is one finding: its places are walked, one is left with a reason, all are mended at once", async ({
  page,
}) => {
  await openCheck(page, faulty());
  const high = cards(page).filter({ hasText: "Outside the range" });
  await expect(high).toHaveCount(1);
  await expect(high).toContainText("1 of 4 places");
  await high.getByRole("button", { name: "Next place" }).click();
  await expect(high).toContainText("2 of 4 places");
  await expect(high).toContainText("bar 2, beat 1");
  await expect(page.locator(".lane.melody .note.selected")).toHaveCount(1);
  expect(await page.locator(".found").count()).toBeGreaterThanOrEqual(4);
  await high.getByRole("button", { name: "Leave, with a reason" }).click();
  await page.getByLabel("Reason for leaving it").fill("a shout");
  await page.keyboard.press("Enter");
  await expect(cards(page).filter({ hasText: "of 3 places" })).toHaveCount(1);
  await expect(page.getByText("Left: “a shout”")).toBeVisible();
  await cards(page)
    .filter({ hasText: "of 3 places" })
    .getByRole("button", { name: /^Take: All 3 places/ })
    .click();
  await expect(cards(page).filter({ hasText: "of 3 places" })).toHaveCount(0);
  const notes = sure(firstOf((await songOf(page)).sections).notes.melody);
  expect(notes.filter((n) => n.pitch.endsWith("6")).map((n) => n.start)).toEqual([1920]);
});

test(
  "findings are shown by part and kind; a rule weighs what the song says, whoever judges; the list goes out as a " +
    "table",
  async ({ page }) => {
    await openCheck(page, faulty());
    await expect(cards(page).filter({ hasText: "Outside the range" })).toHaveCount(1);
    await page.getByRole("button", { name: /how grave each rule/ }).click();
    await page.getByLabel("Outside the range").selectOption("note");
    await expect(cards(page).filter({ hasText: "Outside the range" }).locator(".severity")).toHaveText("note");
    await page.getByLabel("judged as").selectOption("jazz");
    await expect(cards(page).filter({ hasText: "Outside the range" }).locator(".severity")).toHaveText("note");
    expect((await songOf(page)).severities).toEqual({ "out-of-range": "note" });
    await page.getByRole("button", { name: /take the list/ }).click();
    const [file] = await Promise.all([
      page.waitForEvent("download"),
      page.getByRole("button", { name: "Table (CSV)" }).click(),
    ]);
    const text = readFileSync(await file.path(), "utf8");
    expect(text.split("\r\n")[0]).toBe("song,severity,rule,family,section,where,parts,message,amount,fixes,left");
    expect(text.match(/Outside the range/g)).toHaveLength(4);
  },
);

test("a moment is read and walked by keys; a layer is heard without; nothing of it changes the song", async ({
  page,
}) => {
  await openCheck(page, firstOf(demoSongs()));
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

test(
  "what was found is walked by keys, heard with everybody or alone, and left for a part in the whole song; all " +
    "that is left is listed and lifted",
  async ({ page }) => {
    await openCheck(page, faulty());
    await expect(cards(page)).not.toHaveCount(0);
    const before = await songOf(page);
    await page.keyboard.press("j");
    await expect(page.locator(".finding.current")).toHaveCount(1);
    const first = page.locator(".finding.current");
    await expect(first).toContainText("1 of 4 places");
    await page.keyboard.press("j");
    await expect(first).toContainText("2 of 4 places");
    await page.keyboard.press("k");
    await expect(first).toContainText("1 of 4 places");
    await first.getByRole("button", { name: "These parts alone" }).click();
    await expect(page.getByText("the parts alone")).toBeVisible();
    await page.keyboard.press("Escape");
    expect((await songOf(page)).parts).toEqual(before.parts);
    await first.getByRole("button", { name: "Leave, with a reason" }).click();
    await first.getByLabel("Reason for leaving it").fill("falsetto");
    await first.getByLabel("Holds for").selectOption("part");
    await first.getByRole("button", { name: "Leave it" }).click();
    await expect(page.getByText("Left: “falsetto”")).toBeVisible();
    expect((await songOf(page)).waivers).toMatchObject([
      { rule: "out-of-range", parts: ["melody"], about: "", reason: "falsetto" },
    ]);
    await page.getByRole("button", { name: /left with a reason in this song: 1/ }).click();
    const listed = page.locator(".waivers li");
    await expect(listed).toContainText("Outside the range: Voice, the whole song. “falsetto”");
    await listed.getByRole("button", { name: "Judge it again" }).click();
    await expect(cards(page).filter({ hasText: "of 4 places" })).toHaveCount(1);
  },
);

test("what is safe is shown as a whole before it is made, and taken back in one step", async ({ page }) => {
  await openCheck(page, faulty());
  const before = await songOf(page);
  await page.getByRole("button", { name: "Fix what is safe …" }).click();
  const safe = page.getByRole("region", { name: "What would be changed" });
  // Every change is judged before it is shown: that takes as long as it takes.
  await expect(safe.getByRole("listitem").first()).toContainText("Bass", { timeout: 60_000 });
  expect(firstOf((await songOf(page)).sections).notes).toEqual(firstOf(before.sections).notes);
  const outside = page.locator(".finding").filter({ hasText: /Bass: .* is the flat ninth/ });
  await expect(outside).toHaveCount(1);
  await safe.getByRole("button", { name: "Take all: all these changes" }).click();
  await expect(outside).toHaveCount(0);
  // The tune is out of range as well: other notes for it are never taken with the rest.
  await expect(page.locator(".finding.fault")).toHaveCount(1);
  const after = firstOf((await songOf(page)).sections).notes;
  expect([after.melody, after.bass === firstOf(before.sections).notes.bass]).toEqual([
    firstOf(before.sections).notes.melody,
    false,
  ]);
  await page.keyboard.press("Control+z");
  await expect(outside).toHaveCount(1);
  expect(firstOf((await songOf(page)).sections).notes).toEqual(firstOf(before.sections).notes);
});

test("the overview shows the form, registers and who covers whom; the report prints what was found", async ({
  page,
}) => {
  await openCheck(page, faulty());
  await page.getByRole("tab", { name: "Overview" }).click();
  await expect(page.getByRole("img", { name: /^\d+ places over 4 bars$/ })).toBeVisible();
  await expect(page.getByRole("img", { name: /^Registers: Voice C6 to F6; Piano .*; Bass D♭2 to D♭2/ })).toBeVisible();
  await expect(page.locator(".covering tbody tr")).toHaveCount(3);
  await page.getByRole("tab", { name: "Findings" }).click();
  await page.getByRole("button", { name: /take the list/ }).click();
  await page.getByRole("link", { name: "To print" }).click();
  await expect(page.locator(".reported li").first()).toContainText("Outside the range");
  await expect(page.locator(".check-report header")).toContainText("1 fault");
});
