import type { Locator, Page } from "@playwright/test";
import { expect, newSong, playheadAt, saved, songOf, test, typeLine, unreadable, goTo } from "./fixtures";
import { eightParts, firstOf, nth, sure } from "./orchard";

const bassOf = async (page: Page, part = "bass") => firstOf((await songOf(page)).sections).notes[part] ?? [];
const panel = (page: Page) => page.locator("#panel");
const tab = (page: Page, name: string) => panel(page).getByRole("tab", { name });

/** A song with chords and a kick on the beats, in the Bass workspace. */
async function bench(page: Page, title: string, line = "| Am | F | C | G |"): Promise<void> {
  await newSong(page, title);
  if (line) await typeLine(page, line);
  await goTo(page, "Groove");
  await page
    .getByRole("list", { name: "Patterns" })
    .getByRole("listitem")
    .first()
    .getByRole("button", { name: "Take" })
    .click();
  await goTo(page, "Bass");
}

test("style and settings shape the lines; the report shows its notes; a line is thinned, built, cut and brought back", async ({
  page,
}) => {
  await bench(page, "Press house");
  await page.getByLabel("Style").selectOption("slash-bass");
  await page.getByRole("button", { name: "Write lines" }).click();
  const lines = page.getByRole("list", { name: "Candidates" });
  await lines.getByRole("button", { name: "Take with its slash chords" }).first().click();
  await expect
    .poll(async () => firstOf((await songOf(page)).sections).chords.filter((c) => c.symbol.includes("/")).length)
    .toBeGreaterThan(0);
  await page.keyboard.press("Control+z");
  await expect
    .poll(async () => firstOf((await songOf(page)).sections).chords.filter((c) => c.symbol.includes("/")).length)
    .toBe(0);

  await page.getByLabel("Style").selectOption("walking");
  await page.getByRole("button", { name: /how it is played/ }).click();
  await page.getByLabel("Highest note").fill("C3");
  await page.getByLabel("Highest note").press("Enter");
  await page.getByRole("button", { name: "Write lines" }).click();
  await lines.getByRole("listitem").nth(1).waitFor();
  await page.keyboard.press("2");
  await expect(page.getByText("Hearing: line 2")).toBeVisible();
  await page.keyboard.press("t");
  await expect.poll(async () => (await bassOf(page)).length).toBeGreaterThan(15);
  const walked = await bassOf(page);

  await tab(page, "Report").click();
  const report = page.locator(".report");
  await expect(report).toContainText("16 of 16");
  await report.getByRole("button", { name: "Moves by step" }).click();
  await expect(page.locator(".lane.bass .note.selected").first()).toBeVisible();
  await page.keyboard.press("Escape");

  await tab(page, "Shape").click();
  await page.getByRole("button", { name: "Build up" }).click();
  await expect(panel(page).getByText(/^Added /)).toBeVisible();
  await expect.poll(async () => (await bassOf(page)).length).toBe(walked.length + 1);
  for (const left of [walked.length, walked.length - 1]) {
    await page.getByRole("button", { name: "Thin out" }).click();
    await expect.poll(async () => (await bassOf(page)).length).toBe(left);
  }
  await page.getByRole("button", { name: "Take: Short" }).click();
  await expect
    .poll(async () => (await bassOf(page)).filter((n) => n.duration <= 240).length)
    .toBeGreaterThan(walked.length / 2);
  await page.locator(".takes li").last().getByRole("button", { name: "Back to it" }).click();
  await expect.poll(() => bassOf(page)).toEqual(walked);
  // One undo takes a whole step back, the kept state with it.
  const takes = (await songOf(page)).takes.length;
  await page.getByRole("button", { name: "Thin out" }).click();
  await expect.poll(async () => (await bassOf(page)).length).toBe(walked.length - 1);
  await page.keyboard.press("Control+z");
  await expect.poll(() => bassOf(page)).toEqual(walked);
  expect((await songOf(page)).takes.length).toBe(takes);
  await saved(page);
  for (const name of ["Write", "Report", "Shape", "Layers", "Play in"]) {
    await tab(page, name).click();
    expect([name, await unreadable(page, "panel")]).toEqual([name, []]);
  }
});

test("two bass sounds share a line, disagreement is found, and a tuned kick takes the bass over", async ({ page }) => {
  await bench(page, "Two cellars");
  await page.getByRole("button", { name: "Write lines" }).click();
  await page
    .getByRole("list", { name: "Candidates" })
    .getByRole("button", { name: "Take", exact: true })
    .first()
    .click();
  await tab(page, "Layers").click();
  await expect(panel(page).getByText("No more than one bass sound plays here.")).toBeVisible();
  await page.getByRole("button", { name: "Add a bass part" }).click();
  const all = (await bassOf(page)).length;
  const turns = panel(page).getByText("Turns, figure by figure").locator("..");
  // What is taken is made from the song as it is, not from what is being heard.
  await turns.getByRole("button", { name: "Hear" }).click();
  await expect(page.getByText(/^Hearing: turns/)).toBeVisible();
  await turns.getByRole("button", { name: "Take" }).click();
  await expect(panel(page).getByText("The bass sounds take turns: never two at once.")).toBeVisible();
  const other = nth(
    (await songOf(page)).parts.filter((p) => p.role === "bass"),
    1,
  ).id;
  expect((await bassOf(page, other)).length).toBeGreaterThan(2);
  expect((await bassOf(page)).length + (await bassOf(page, other)).length).toBe(all);
  // The second sound moved under the first bar is in the way.
  await page.getByRole("combobox", { name: "Bass part" }).selectOption(other);
  await tab(page, "Play in").click();
  await tab(page, "Layers").click();
  await page
    .locator(`.lane.bass`)
    .nth(1)
    .locator("svg.editable")
    .click({ position: { x: 60, y: 40 } });
  await expect(panel(page).getByText("In each other’s way")).toBeVisible();
  await page.keyboard.press("Control+z");
  await page.getByRole("combobox", { name: "Bass part" }).selectOption("bass");
  await panel(page).getByLabel("Rhythm of the drum").selectOption("line");
  await panel(page).getByRole("button", { name: "Take" }).last().click();
  await expect
    .poll(async () => sure(firstOf((await songOf(page)).sections).groove.lanes.find((l) => l.drum === "kick")).tuned)
    .toBe(true);
  const hits = sure(firstOf((await songOf(page)).sections).groove.lanes.find((l) => l.drum === "kick")).hits;
  expect(hits.every((h) => h.pitch && h.duration)).toBe(true);
  expect(await bassOf(page)).toEqual([]);
  await panel(page).getByRole("button", { name: "Only a drum again" }).click();
  await expect.poll(async () => (await bassOf(page)).length).toBe(hits.length);
});

test("bass first: a line played in on the keys, its implied roots, and chords from them", async ({ page }) => {
  await bench(page, "Well song", "");
  await expect(panel(page).getByText(/begin with the bass/)).toBeVisible();
  await tab(page, "Play in").click();
  await panel(page).getByLabel("count-in").click();
  await page.getByLabel("set on").selectOption("480");
  await page.getByRole("button", { name: "computer keys play" }).click();
  await page.getByRole("button", { name: "Record" }).click();
  await expect(page.locator(".where b")).toContainText("bar 1");
  for (const [key, bar, beat] of [
    ["a", 1, 1],
    ["a", 1, 3],
    ["f", 2, 1],
    ["f", 2, 3],
  ] as const) {
    await playheadAt(page, bar, beat);
    await page.keyboard.down(key);
    await playheadAt(page, bar, beat + 1);
    await page.keyboard.up(key);
  }
  // A key on the screen goes the same way; on a slow machine well behind the note before, which it would share a place
  // with.
  await playheadAt(page, 3, 1);
  await page.locator('[data-key="43"]').click({ delay: 300 });
  await page.getByRole("button", { name: "Stop recording" }).click();
  await expect(panel(page).getByText(/notes played/)).toContainText("C2");
  await panel(page).getByRole("button", { name: "Take" }).click();
  await expect.poll(async () => (await bassOf(page)).length).toBeGreaterThan(2);
  const played = await bassOf(page);
  expect(played.every((n) => n.start % 480 === 0 && n.reason?.id === "played")).toBe(true);
  expect(new Set(played.map((n) => n.pitch))).toEqual(new Set(["C2", "F2", "G2"]));
  await tab(page, "Write").click();
  await expect(panel(page).getByText("Roots the line implies")).toBeVisible();
  await panel(page).getByRole("button", { name: "Write them as chords" }).click();
  await expect.poll(async () => firstOf((await songOf(page)).sections).chords[0]?.symbol ?? "").toMatch(/^[CF]/);
});

test("the bass is heard alone, with the kick, and with all", async ({ page }) => {
  await page.goto("/songs/cider-press-strut/bass");
  const lane = page.getByRole("button", { name: "solo Bass" });
  await page.getByRole("button", { name: "alone" }).click();
  await expect(lane).toHaveAttribute("aria-pressed", "true");
  // What sounds is rendered with the same choice of parts.
  const energy = (solo: string[]) =>
    page.evaluate(async (list) => {
      const { samples } = await window.orchard!.render({ section: "s1", to: 1920, solo: list });
      return samples.reduce((sum, x) => sum + x * x, 0);
    }, solo);
  const [alone, kick, withKick] = [
    await energy(["bass"]),
    await energy(["drum:kick"]),
    await energy(["bass", "drum:kick"]),
  ];
  expect(alone).toBeGreaterThan(0);
  expect(kick).toBeGreaterThan(0);
  expect(withKick).toBeGreaterThan(Math.max(alone, kick));
  await page.getByRole("button", { name: "with the kick" }).click();
  await expect(page.getByRole("button", { name: "with the kick" })).toHaveAttribute("aria-pressed", "true");
  await page.getByRole("button", { name: "with all" }).click();
  await expect(lane).toHaveAttribute("aria-pressed", "false");
});

test("lines over 128 bars come one by one; Stop keeps those that are there, and each can be heard and taken meanwhile", async ({
  page,
}) => {
  const { id } = (await (await page.request.post("/api/songs", { data: eightParts(128) })).json()) as { id: string };
  await page.goto(`/songs/${id}/bass`);
  await page.getByRole("tab", { name: "Write" }).click();
  await page.getByLabel("Style").selectOption("arpeggio");
  await saved(page);
  const lines = page.getByRole("list", { name: "Candidates" }).locator("li:not(.hint)");
  const stop = page.getByRole("button", { name: "Stop" });
  await page.getByRole("button", { name: "Write lines" }).click();
  await expect(lines.first()).toBeVisible();
  await expect(page.getByRole("button", { name: "Writing …" })).toBeVisible();
  await stop.click();
  await expect(page.getByRole("button", { name: "More lines" })).toBeEnabled();
  await expect(stop).toHaveCount(0);
  const found = await lines.count();
  expect(found).toBeGreaterThan(0);
  const before = JSON.stringify(await bassOf(page));
  await lines.first().getByRole("button", { name: "Take" }).click();
  await expect.poll(async () => JSON.stringify(await bassOf(page))).not.toBe(before);

  // What acts on a chosen note is in sight however little room there is.
  for (const width of [1280, 1024]) {
    await page.setViewportSize({ width, height: 720 });
    await page.locator(".lane.bass [data-note] .head").first().click();
    const edges = async (on: Locator) => {
      const { x, width } = sure(await on.boundingBox());
      return [x, x + width] as const;
    };
    const strip = page.getByRole("toolbar", { name: "Notes" });
    await expect
      .poll(async () => (await edges(strip.getByRole("button", { name: "Delete the note" })))[1])
      .toBeLessThanOrEqual((await edges(strip))[1]);
    const [, gridEnds] = await edges(strip.getByRole("group", { name: "Time grid" }));
    expect((await edges(strip.getByLabel("Pitch", { exact: true })))[0]).toBeGreaterThanOrEqual(gridEnds);
  }
});
