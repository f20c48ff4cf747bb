import type { Page } from "@playwright/test";
import { expect, newSong, songOf, test, typeLine } from "./fixtures";
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

test("bars are repeated, taken out, divided and joined; a take is kept by one key, joined bar by bar; the log tells it", async ({
  page,
}) => {
  await newSong(page, "Bars of the orchard");
  await typeLine(page, "| C | F | G | Am |");
  await page.getByRole("link", { name: "Lines" }).click();
  await page.getByRole("tab", { name: "Enter" }).click();
  await page.getByLabel("The line as text").fill("E4 h G h | A h F h | B h D5 h | C h A4 h");
  await page.getByLabel("The line as text").press("Tab");
  const tune = async () =>
    firstOf((await songOf(page)).sections).notes.melody?.map((n) => `${n.start / 1920 + 1} ${n.pitch}`) ?? [];
  await expect.poll(async () => (await tune()).length).toBe(8);

  // Bars 2 and 3 by the ruler; then what the menu does with them.
  const bar = async (n: number) =>
    sure(
      await page
        .locator(".bar-number")
        .nth(n - 1)
        .boundingBox(),
    );
  const [two, three] = [await bar(2), await bar(3)];
  await page.mouse.move(two.x + 10, two.y + 5);
  await page.mouse.down();
  await page.mouse.move(three.x + 20, three.y + 5, { steps: 4 });
  await page.mouse.up();
  const menu = async (item: RegExp | string) => {
    await page.getByRole("button", { name: /^Work on (whole )?bars?/ }).click();
    if (process.env.SHOTS) await page.screenshot({ path: `${process.env.SHOTS}/b1.png` });
    // It opens below its button, the first time too.
    const button = sure(await page.getByRole("button", { name: /^Work on (whole )?bars?/ }).boundingBox());
    const opened = page.locator(".bars-menu .dropdown-menu");
    const below = async () => sure(await opened.boundingBox()).y - (button.y + button.height);
    await expect.poll(async () => Math.abs(await below())).toBeLessThan(8);
    await page.getByRole("button", { name: item }).click();
    await page.keyboard.press("Escape");
  };
  await menu("Repeat behind");
  await expect.poll(async () => firstOf((await songOf(page)).sections).bars).toBe(6);
  expect((await tune()).filter((t) => t.startsWith("4"))).toEqual(["4 A4", "4.5 F4"]);
  await menu("Take bars 2–3 out");
  await expect.poll(async () => firstOf((await songOf(page)).sections).bars).toBe(4);
  await page.locator(".ruler").click({ position: { x: (await bar(2)).x - (await bar(1)).x + 50, y: 8 } });
  await menu(/^Divide Verse before bar 2/);
  await expect.poll(async () => (await songOf(page)).sections.map((s) => s.bars)).toEqual([1, 3]);
  await menu(/^Join with Verse, second part/);
  await expect.poll(async () => (await songOf(page)).sections.map((s) => s.bars)).toEqual([4]);
  await page.keyboard.press("Home");
  expect(await tune()).toEqual(["1 E4", "1.5 G4", "2 A4", "2.5 F4", "3 B3", "3.5 D5", "4 C5", "4.5 A4"]);
  await page.locator(".ruler").click({ position: { x: 12, y: 8 } });
  await page.keyboard.press("Shift+T");
  await expect(page.getByText(/is kept\./)).toBeVisible();

  // Another try of the tune; bars 1 and 3 of the first come back.
  await page.getByLabel("The line as text").click();
  await page.getByLabel("The line as text").fill("C5 w | C w | C w | C w");
  await page.getByLabel("The line as text").press("Tab");
  await expect.poll(async () => (await tune()).length).toBe(4);
  await page.getByRole("link", { name: "Log" }).click();
  await page.getByRole("tab", { name: "Takes" }).click();
  if (process.env.SHOTS) await page.screenshot({ path: `${process.env.SHOTS}/b2.png` });
  await page.getByRole("tab", { name: "Bar by bar" }).click();
  await page
    .getByRole("button", { name: /^Bar 1 of / })
    .first()
    .click();
  await page
    .getByRole("button", { name: /^Bar 3 of / })
    .first()
    .click();
  if (process.env.SHOTS) await page.screenshot({ path: `${process.env.SHOTS}/b3.png` });
  await page.getByRole("button", { name: "Join", exact: true }).click();
  await expect.poll(async () => (await tune()).length).toBe(6);
  expect(await tune()).toContain("2 C5");

  // A line by one key, from anywhere; it is found again.
  await page.locator(".ruler").click({ position: { x: 12, y: 8 } });
  await page.keyboard.press("g");
  await page.keyboard.type("Drums stay out of bar 1 - the drummer asked");
  if (process.env.SHOTS) await page.screenshot({ path: `${process.env.SHOTS}/b4.png` });
  await page.keyboard.press("Enter");
  await page.getByRole("tab", { name: "Log", exact: true }).click();
  const lines = page.getByRole("list", { name: "Log" }).getByRole("listitem");
  await expect(lines).toHaveCount(2);
  await expect(lines.first()).toContainText("the drummer asked");
  await page.getByLabel("Search the log").fill("drums stay");
  await expect(lines).toHaveCount(1);
  await page.getByLabel("Search the log").fill("");
  if (process.env.SHOTS) await page.screenshot({ path: `${process.env.SHOTS}/b5.png` });
  const log = (await songOf(page)).log;
  expect(log.map((e) => [e.byItself ?? false, e.what.split(":")[0]])).toEqual([
    [true, "Joined"],
    [false, "Drums stay out of bar 1"],
  ]);
  // What was joined is undone with its line.
  await page.getByRole("button", { name: "Undo", exact: true }).first().click();
  await page.getByRole("button", { name: "Undo", exact: true }).first().click();
  await expect.poll(async () => (await songOf(page)).log.length).toBe(0);
});

test("a figure is copied and set down refitted to other chords, and given other values", async ({ page }) => {
  await newSong(page, "Figures for the press");
  await typeLine(page, "| C | F |");
  await page.getByRole("link", { name: "Lines" }).click();
  await page.getByRole("tab", { name: "Enter" }).click();
  await page.getByLabel("The line as text").fill("C4 q E G A");
  await page.getByLabel("The line as text").press("Tab");
  const tune = async () =>
    firstOf((await songOf(page)).sections)
      .notes.melody?.map((n) => n.pitch)
      .join(" ");
  await expect.poll(tune).toBe("C4 E4 G4 A4");
  const lane = page.getByRole("group", { name: /^Voice, / });
  await lane.locator("[data-note]").first().click();
  await page.keyboard.press("Control+a");
  await page.keyboard.press("Control+c");
  await page.keyboard.press("Control+Shift+V");
  await expect.poll(tune).toBe("C4 E4 G4 A4 F4 A4 C5 D5");
  await page.getByRole("button", { name: "Figure" }).click();
  if (process.env.SHOTS) await page.screenshot({ path: `${process.env.SHOTS}/f1.png` });
  await page.getByRole("button", { name: "Staccato" }).click();
  await expect
    .poll(async () => firstOf((await songOf(page)).sections).notes.melody?.map((n) => n.duration))
    .toEqual([480, 480, 480, 480, 240, 240, 240, 240]);
});
