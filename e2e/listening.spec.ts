import { expect, saved, songOf, test } from "./fixtures";

const bar = (text: string | null): number => Number(/bar (\d+)/.exec(text ?? "")?.[1] ?? 0);

test("loop over bars of the ruler, solo, mute, click and count-in", async ({ page }) => {
  await page.goto("/songs/cider-press-strut/bass");
  const ruler = page.locator(".bar-number");
  await expect(ruler.nth(2)).toBeVisible();
  const second = (await ruler.nth(1).boundingBox())!;
  const third = (await ruler.nth(2).boundingBox())!;
  await page.mouse.move(second.x + 30, second.y + 10);
  await page.mouse.down();
  await page.mouse.move(third.x + 30, third.y + 10, { steps: 4 });
  await page.mouse.up();
  await expect(page.locator(".loop-range")).toBeVisible();
  await page.locator(".lane.bass").getByRole("button", { name: "S", exact: true }).click();
  await expect(page.locator(".lane.bass").getByRole("button", { name: "S", exact: true })).toHaveAttribute("aria-pressed", "true");
  await page.getByRole("button", { name: "click", exact: true }).click();
  await page.keyboard.press("Space");
  await expect(page.locator(".where b")).toContainText("bar");
  // Over more than one turn of the two bars the playhead never leaves them.
  const seen = new Set<number>();
  for (let i = 0; i < 30; i++) {
    const now = bar(await page.locator(".where b").textContent());
    if (now) seen.add(now);
    await page.waitForTimeout(200);
  }
  expect([...seen].sort()).toEqual([2, 3]);
  await page.keyboard.press("Space");
  await expect(page.locator(".where b")).toHaveText("Stopped");
  await page.locator(".lane.chords").getByRole("button", { name: "M", exact: true }).click();
  expect((await songOf(page)).parts.find((p) => p.id === "keys")!.muted).toBe(true);
  await page.keyboard.press("Control+z");
  expect((await songOf(page)).parts.find((p) => p.id === "keys")!.muted ?? false).toBe(false);
});

test("a fix is heard in place before it is taken, and leaves nothing behind", async ({ page }) => {
  await page.goto("/songs/lanterns-on-row-nine/bass");
  const first = page.locator(".lane.bass [data-note]").first();
  await first.click();
  await expect(page.locator(".lane.bass .note.selected")).toHaveCount(1);
  await page.keyboard.press("Delete");
  const finding = page.locator(".findings li").first();
  await expect(finding).toContainText("has no bass note");
  const before = await songOf(page);
  await finding.getByRole("button", { name: "Hear" }).first().click();
  await expect(page.getByText(/^Hearing: Play/)).toBeVisible();
  await expect(page.locator("main.previewing")).toBeVisible();
  await page.getByRole("button", { name: "back to what is written" }).click();
  await expect(page.locator("main.previewing")).toHaveCount(0);
  expect(await songOf(page)).toEqual(before);
  await page.keyboard.press("Control+z");
  await page.getByRole("tab", { name: "Report" }).click();
  await expect(page.locator(".report")).toContainText("16 of 16");
  // Other tests read the demo song as it came.
  await saved(page);
});

test("sections: a copy is renamed, changed on its own, and deleted", async ({ page }) => {
  await page.goto("/songs/lanterns-on-row-nine/chords");
  const choose = page.getByLabel("Section", { exact: true });
  await expect(choose).toBeVisible();
  await choose.selectOption({ label: "Copy this section" });
  const name = page.getByLabel("Name of the section");
  await expect(name).toHaveValue("Verse again");
  await name.fill("Second verse");
  await name.press("Enter");
  await page.getByLabel("Chord line").fill("| Ebmaj9 | Abmaj9 |");
  await expect
    .poll(async () => (await songOf(page)).sections.map((s) => [s.name, s.chords.length]))
    .toEqual([
      ["Verse", 12],
      ["Chorus", 12],
      ["Second verse", 2],
    ]);
  await choose.selectOption({ label: "Delete this section" });
  await expect.poll(async () => (await songOf(page)).sections.map((s) => s.name)).toEqual(["Verse", "Chorus"]);
  await page.keyboard.press("Escape");
});
