import { expect, saved, songOf, test } from "./fixtures";
import { sure } from "./orchard";

test("loop over bars of the ruler, solo, mute, click and count-in", async ({ page }) => {
  await page.goto("/songs/cider-press-strut/bass");
  const ruler = page.locator(".bar-number");
  await expect(ruler.nth(2)).toBeVisible();
  const second = sure(await ruler.nth(1).boundingBox());
  const third = sure(await ruler.nth(2).boundingBox());
  await page.mouse.move(second.x + 30, second.y + 10);
  await page.mouse.down();
  await page.mouse.move(third.x + 30, third.y + 10, { steps: 4 });
  await page.mouse.up();
  await expect(page.locator(".loop-range")).toBeVisible();
  const solo = page.getByRole("button", { name: "solo Bass" });
  await solo.click();
  await expect(solo).toHaveAttribute("aria-pressed", "true");
  await page.getByRole("button", { name: "click", exact: true }).click();
  await page.keyboard.press("Space");
  await expect(page.locator(".where b")).toContainText("bar");
  // Round and round the two bars, never outside them.
  const seen = await page.evaluate(
    () =>
      new Promise<number[]>((resolve) => {
        const bars: number[] = [];
        const look = () => {
          const [, bar] = /bar (\d+)/.exec(document.querySelector(".where b")!.textContent!) ?? [];
          if (bar && Number(bar) !== bars.at(-1)) bars.push(Number(bar));
          if (bars.length < 5) requestAnimationFrame(look);
          else resolve(bars);
        };
        look();
      }),
  );
  expect(seen).toEqual([2, 3, 2, 3, 2]);
  await page.keyboard.press("Space");
  await expect(page.locator(".where b")).toHaveText("Stopped");
  await page.getByRole("button", { name: "mute Electric piano" }).click();
  expect(sure((await songOf(page)).parts.find((p) => p.id === "keys")).muted).toBe(true);
  await page.keyboard.press("Control+z");
  expect(sure((await songOf(page)).parts.find((p) => p.id === "keys")).muted ?? false).toBe(false);
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
  await finding
    .getByRole("button", { name: /^Hear: / })
    .first()
    .click();
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
  const menu = page.getByRole("button", { name: "What to do with sections" });
  await menu.click();
  await page.getByRole("button", { name: "Copy Verse" }).click();
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
  await menu.click();
  await page.getByRole("button", { name: "Delete Second verse" }).click();
  await expect.poll(async () => (await songOf(page)).sections.map((s) => s.name)).toEqual(["Verse", "Chorus"]);
  // It is undone from where it was done.
  await page.getByRole("status").getByRole("button", { name: "Undo" }).click();
  await expect
    .poll(async () => (await songOf(page)).sections.map((s) => s.name))
    .toEqual(["Verse", "Chorus", "Second verse"]);
  await page.keyboard.press("Control+z");
  await saved(page);
});
