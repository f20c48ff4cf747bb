import { writeMidi, type MidiEvent } from "midi-file";
import type { Page } from "@playwright/test";
import { drag, drumCell, expect, newSong, playheadAt, songOf, test, typeLine, unreadable, goTo } from "./fixtures";
import { firstOf, nth, sure } from "./orchard";

const lane = async (page: Page, drum: string) =>
  firstOf((await songOf(page)).sections).groove.lanes.find((l) => l.drum === drum);
const starts = async (page: Page, drum: string) => (await lane(page, drum))?.hits.map((h) => h.start / 480) ?? [];

test("patterns by feel are heard, taken, added to, spread, filled, varied and undone", async ({ page }) => {
  await newSong(page, "Barn floor");
  await goTo(page, "Groove");
  await expect(page.getByRole("list", { name: "Patterns" }).getByRole("button", { name: "Take" })).toHaveCount(9);
  // The number keys hear what is offered once the list has settled.
  const hearing = page.getByText("Hearing: four on the floor");
  await expect(async () => {
    if (!(await hearing.isVisible())) await page.keyboard.press("1");
    await expect(hearing).toBeVisible({ timeout: 2000 });
  }).toPass();
  expect(await starts(page, "kick")).toEqual([]);
  await page.keyboard.press("t");
  await expect.poll(() => starts(page, "kick")).toEqual(Array.from({ length: 16 }, (_, i) => i));
  await page.getByLabel("add to what is there").check();
  await page
    .getByRole("list", { name: "Patterns" })
    .getByRole("listitem")
    .nth(4)
    .getByRole("button", { name: "Take" })
    .click();
  await expect.poll(async () => (await starts(page, "rim")).length).toBeGreaterThan(8);
  expect((await starts(page, "kick")).slice(0, 5)).toEqual([0, 1, 1.5, 2, 3]);
  // New rows stand in the grid.
  await expect(page.locator('[data-hit^="shaker@"]').first()).toBeAttached();
  await page.getByRole("button", { name: "Put it there" }).click();
  await expect.poll(async () => (await starts(page, "rim")).slice(0, 5)).toEqual([0, 0.75, 1.5, 2.25, 3]);
  const before = await songOf(page);
  await page.getByRole("button", { name: "Fill on the last beat" }).click();
  await expect
    .poll(async () => firstOf((await songOf(page)).sections).groove)
    .not.toEqual(firstOf(before.sections).groove);
  await page.keyboard.press("Control+z");
  await expect.poll(async () => firstOf((await songOf(page)).sections).groove).toEqual(firstOf(before.sections).groove);
});

test("a lane is named, swings and lies by itself; hits are moved off the grid and tuned; wrong values are refused", async ({
  page,
}) => {
  await newSong(page, "Cellar drum");
  await goTo(page, "Groove");
  await page
    .getByRole("list", { name: "Patterns" })
    .getByRole("listitem")
    .nth(1)
    .getByRole("button", { name: "Take" })
    .click();
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
  await expect(page.getByRole("alert")).toContainText("is not a pitch");
  await pitch.fill("f1");
  await pitch.press("Enter");
  await expect.poll(async () => firstOf(sure(await lane(page, "kick")).hits).pitch).toBe("F1");
  const late = page.getByLabel(/^Milliseconds late at bar 1, beat 1(ms)?$/);
  await late.fill("13");
  await late.press("Enter");
  await expect.poll(async () => firstOf(sure(await lane(page, "kick")).hits).offset).toBe(10);
  const swing = page.getByLabel("Swing of the lane");
  await swing.focus();
  await swing.press("End");
  await expect.poll(async () => sure(await lane(page, "kick")).swing).toBe(0.75);
  await page.getByRole("button", { name: "Swing with the song" }).click();
  await expect.poll(async () => sure(await lane(page, "kick")).swing).toBeUndefined();
  expect(await unreadable(page, "beside the score")).toEqual([]);
});

test("triplets are painted, a hit is dragged off the grid, a kick is marked by hand", async ({ page }) => {
  await newSong(page, "Ladder step");
  await goTo(page, "Groove");
  const painted = await drumCell(page, "kick", 0);
  await page.getByLabel("Steps of the grid").selectOption("160");
  await drag(page, painted, await drumCell(page, "kick", 0.8));
  await expect.poll(async () => (await lane(page, "kick"))?.hits.map((h) => h.start)).toEqual([0, 160, 320]);
  await page.getByLabel("Steps of the grid").selectOption("120");
  // A hit between the steps of this grid is still met where it stands.
  const stem = async (beat: number) => {
    const { x, y } = await drumCell(page, "kick", beat);
    return { x: x + 4, y };
  };
  const hit = await stem(1 / 3);
  await page.keyboard.down("Alt");
  await drag(page, hit, { x: hit.x + 4, y: hit.y }, 4);
  await page.keyboard.up("Alt");
  await expect.poll(async () => nth(sure(await lane(page, "kick")).hits, 1).offset ?? 0).toBeGreaterThan(20);
  expect(nth(sure(await lane(page, "kick")).hits, 1).start).toBe(160);
  const last = await stem(2 / 3);
  await page.keyboard.down("Shift");
  await page.mouse.click(last.x, last.y);
  await page.keyboard.up("Shift");
  await expect.poll(async () => firstOf((await songOf(page)).sections).groove.accents ?? []).toContain(0);
  const marked = sure(firstOf((await songOf(page)).sections).groove.accents);
  expect(marked.includes(320)).toBe(false);
});

test("accents that just miss: the bass weaves or all agree, heard and taken; a rhythm is moved away from a reference", async ({
  page,
}) => {
  await newSong(page, "Gate and post");
  await typeLine(page, "| Dm | Bb | F | C |");
  await goTo(page, "Groove");
  await page
    .getByRole("list", { name: "Patterns" })
    .getByRole("listitem")
    .first()
    .getByRole("button", { name: "Take" })
    .click();
  const drums = page.locator(".drums.editable");
  // A clap a sixteenth before the third beat of every bar, loud enough to be an accent.
  await page.getByLabel("Lane for it").selectOption("rim");
  await page.getByLabel("pulses", { exact: true }).fill("1");
  await page.getByLabel("rotated by").fill("9");
  await page.getByRole("button", { name: "Put it there" }).click();
  await expect.poll(() => starts(page, "rim")).toEqual([1.75, 5.75, 9.75, 13.75]);
  await page.getByRole("tab", { name: "Accents" }).click();
  await expect(page.getByText(/kick and rim/)).toContainText("just miss");
  await expect(page.getByText(/“Rim: you accent beat 2¾/)).toBeVisible();
  const ways = page.locator("#panel .offer-head");
  await ways.filter({ hasText: "The bass weaves" }).getByRole("button", { name: "Hear" }).click();
  await expect(page.getByText("Hearing: the bass weaves")).toBeVisible();
  await ways.filter({ hasText: "The bass weaves" }).getByRole("button", { name: "Take" }).click();
  await expect.poll(async () => firstOf((await songOf(page)).sections).notes.bass?.length ?? 0).toBeGreaterThan(8);
  expect(sure(firstOf((await songOf(page)).sections).notes.bass).some((n) => n.start % 1920 === 840)).toBe(false);
  await ways.filter({ hasText: "All agree" }).getByRole("button", { name: "Take" }).click();
  await expect.poll(() => starts(page, "rim")).toEqual([2, 6, 10, 14]);
  await expect(drums).toBeVisible();
  // A main accent is taken back for all bars in the map.
  await page.getByRole("button", { name: "Main accent of the kick at beat 2", exact: true }).click();
  await expect
    .poll(async () => firstOf((await songOf(page)).sections).groove.accents?.some((a) => a % 1920 === 480))
    .toBe(false);

  await page.getByLabel("Rhythm to compare").selectOption({ label: "kick" });
  await page.getByLabel("Reference rhythm").fill("x...x..x...x....");
  await expect(page.getByText("Far enough")).toBeVisible();
  await page.getByRole("button", { name: "this one" }).click();
  await expect(page.getByText("Too close", { exact: true })).toBeVisible();
  for (const name of ["Patterns", "Lanes", "Play in", "File", "Accents"]) {
    await page.getByRole("tab", { name }).click();
    if (name === "Accents") await expect(page.getByText("Too close", { exact: true })).toBeVisible();
    expect([name, await unreadable(page, "panel")]).toEqual([name, []]);
  }
  await page.locator("#panel .offer-head").last().getByRole("button", { name: "Take" }).click();
  await expect
    .poll(async () => (await starts(page, "kick")).join())
    .not.toBe(Array.from({ length: 16 }, (_, i) => i).join());
});

test("drums of a MIDI file go to the lanes that are chosen, over the bars that are chosen", async ({ page }) => {
  await newSong(page, "Borrowed barn");
  await goTo(page, "Groove");
  await page.getByRole("tab", { name: "File" }).click();
  const note = (deltaTime: number, noteNumber: number): MidiEvent[] => [
    { deltaTime, type: "noteOn", channel: 9, noteNumber, velocity: 90 },
    { deltaTime: 60, type: "noteOff", channel: 9, noteNumber, velocity: 0 },
  ];
  const bar = (first: number): MidiEvent[] => [
    ...note(first, 36),
    ...note(420, 67),
    ...note(420, 36),
    ...note(420, 67),
  ];
  const bytes = writeMidi({
    header: { format: 1, numTracks: 1, ticksPerBeat: 480 },
    tracks: [[...bar(0), ...bar(420), { deltaTime: 0, type: "endOfTrack", meta: true }]],
  });
  await page
    .locator('#panel input[type="file"]')
    .setInputFiles({ name: "barn.mid", mimeType: "audio/midi", buffer: Buffer.from(bytes) });
  await expect(page.getByText("hits of drum note 67")).toBeVisible();
  await page.getByLabel("Lane of note 67").selectOption("conga");
  await page.getByLabel("Last bar").fill("1");
  await page.getByRole("button", { name: /^Write into/ }).click();
  await expect.poll(() => starts(page, "conga")).toEqual([1, 3]);
  expect(await starts(page, "kick")).toEqual([0, 2]);
});

test("drums are played in on the keys, heard, and join what was painted", async ({ page }) => {
  await newSong(page, "Threshing floor");
  await goTo(page, "Groove");
  const clap = await drumCell(page, "clap", 3);
  await page.mouse.click(clap.x, clap.y);
  await expect.poll(() => starts(page, "clap")).toEqual([3]);
  await page.getByRole("tab", { name: "Play in" }).click();
  await page.getByLabel("count-in").first().click();
  await page.getByRole("button", { name: "computer keys play" }).click();
  await page.getByRole("button", { name: "Record" }).click();
  await expect(page.locator(".where b")).toContainText("bar 1");
  for (const [beat, key] of ["a", "s", "a", "s"].entries()) {
    await playheadAt(page, 1, beat + 1);
    await page.keyboard.press(key);
  }
  await page.getByRole("button", { name: "Stop recording" }).click();
  await expect(page.getByText(/4 hits played: kick 2, snare 2/)).toBeVisible();
  await page.locator("#panel").getByRole("button", { name: "Take" }).click();
  await expect.poll(async () => (await starts(page, "kick")).length).toBe(2);
  expect(sure(await lane(page, "snare")).hits.every((h) => h.start % 120 === 0)).toBe(true);
  expect(await starts(page, "clap")).toEqual([3]);
});
