import {
  beatX,
  clickLane,
  drag,
  drumCell,
  expect,
  newSong,
  saved,
  songOf,
  test,
  typeLine,
  unreadable,
} from "./fixtures";
import { firstOf, sure } from "./orchard";

test("notes by mouse and keyboard: add, move, resize, step, pickup, delete", async ({ page }) => {
  await newSong(page, "By Hand");
  await typeLine(page, "| C | Am | F | G |");
  await expect(page.locator("[data-chord]")).toHaveCount(4);
  const bass = async () =>
    (firstOf((await songOf(page)).sections).notes.bass ?? []).map((n) => [n.start, n.duration, n.pitch] as const);
  // A click writes the nearest chord tone on the grid.
  await clickLane(page, "bass", 0, 60);
  const [first] = await bass();
  expect([sure(first)[0], sure(first)[1]]).toEqual([0, 240]);
  expect(["C", "E", "G"]).toContain(String(sure(first)[2]).replace(/\d/, ""));
  const head = page.locator(".lane.bass [data-note] .head").first();
  const box = sure(await head.boundingBox());
  const x = box.x + box.width / 2;
  const y = box.y + box.height / 2;
  // Drag by a bar: it lands on a tone of the chord there.
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + 100, y - 10, { steps: 5 });
  await page.mouse.move(x + (await beatX(page, 4)) - (await beatX(page, 0)), y - 14, { steps: 5 });
  await page.mouse.up();
  const [moved] = await bass();
  expect(sure(moved)[0]).toBe(1920);
  expect(["A", "C", "E"]).toContain(String(sure(moved)[2]).replace(/\d/, ""));
  // Resize by its end.
  const grip = sure(await page.locator(".lane.bass .grip").first().boundingBox());
  const beat = (await beatX(page, 1)) - (await beatX(page, 0));
  await drag(page, { x: grip.x + 5, y: grip.y + 7 }, { x: grip.x + 5 + beat, y: grip.y + 7 }, 4);
  expect(firstOf(await bass())[1]).toBe(720);
  // Keys: snap step, semitone, octave, time, length.
  await page.locator(".lane.bass [data-note]").first().focus();
  const pitch = async () => firstOf(await bass())[2];
  await page.getByRole("button", { name: "scale", exact: true }).click();
  await page.locator(".lane.bass [data-note] .head").first().click();
  const start = await pitch();
  await page.keyboard.press("ArrowUp");
  await page.keyboard.press("ArrowDown");
  expect(await pitch()).toBe(start);
  await page.keyboard.press("Alt+ArrowUp");
  expect(await pitch()).toBe(start.replace(/\d/, (d) => String(Number(d) + 1)));
  await page.keyboard.press("Alt+ArrowDown");
  await page.keyboard.press("Control+ArrowRight");
  await page.keyboard.press("Control+Shift+ArrowLeft");
  expect(firstOf(await bass()).slice(0, 2)).toEqual([2160, 480]);
  // A pickup note before bar 1.
  await clickLane(page, "melody", -0.5, 50);
  expect(firstOf(sure(firstOf((await songOf(page)).sections).notes.melody)).start).toBe(-240);
  await page.keyboard.press("Delete");
  expect(firstOf((await songOf(page)).sections).notes.melody).toEqual([]);
});

test("findings follow a note while it is dragged, and a chord that changes under a held note", async ({ page }) => {
  const id = await newSong(page, "Held");
  await typeLine(page, "| C | C |");
  await page.getByRole("button", { name: "semitones" }).click();
  await clickLane(page, "bass", 0, 60);
  await page.locator("#note-pitch").fill("C2");
  await page.locator("#note-pitch").press("Enter");
  await page.locator(".lane.bass [data-note]").first().click();
  for (let i = 0; i < 15; i++) await page.keyboard.press("Control+Shift+ArrowRight");
  await saved(page);
  await page.goto(`/songs/${id}/check`).catch(() => undefined);
  await expect(page.getByText("Nothing is worth a remark")).toBeVisible();
  // The note is held over both bars; the second chord changes under it.
  await page.locator("[data-chord]").nth(1).dblclick();
  await page.getByLabel("Chord symbol").fill("B7");
  await page.getByLabel("Chord symbol").press("Enter");
  await expect(page.locator(".findings")).toContainText("C2 is held into B7, where it is the flat ninth");
  // Dragging it down to B, without letting go: the findings change with the mouse.
  const head = sure(await page.locator(".lane.bass [data-note] .head").first().boundingBox());
  await page.getByRole("button", { name: "semitones" }).click();
  await page.mouse.move(head.x + 8, head.y + 8);
  await page.mouse.down();
  await page.mouse.move(head.x + 8, head.y + 16, { steps: 6 });
  await expect(page.locator(".findings")).not.toContainText("flat ninth");
  await page.mouse.up();
});

test("the drum grid: paint, erase, loudness, keys", async ({ page }) => {
  await newSong(page, "Grid");
  const at = (drum: string, beat: number) => drumCell(page, drum, beat);
  await drag(page, await at("closedHat", 0), await at("closedHat", 1), 8);
  const hits = async (drum: string) =>
    firstOf((await songOf(page)).sections)
      .groove.lanes.find((l) => l.drum === drum)
      ?.hits.map((h) => [h.start, h.velocity]) ?? [];
  expect((await hits("closedHat")).map((h) => h[0])).toEqual([0, 120, 240, 360, 480]);
  await page.keyboard.press("Control+z");
  // Between two events of a fast mouse nothing is left out.
  await drag(page, await at("closedHat", 0), await at("closedHat", 2), 1);
  expect(await hits("closedHat")).toHaveLength(9);
  await page.keyboard.press("Control+z");
  expect(await hits("closedHat")).toEqual([]);
  const kick = await at("kick", 0);
  await page.mouse.click(kick.x, kick.y);
  await drag(page, { x: kick.x + 4, y: kick.y }, { x: kick.x + 4, y: kick.y + 20 }, 5);
  expect(await hits("kick")).toEqual([[0, 70]]);
  await page.locator(".drums.editable").focus();
  for (const key of ["ArrowUp", "ArrowUp", "Shift+ArrowRight", "Enter"]) await page.keyboard.press(key);
  expect((await hits("clap")).map((h) => h[0])).toEqual([480]);
  await page.mouse.click(kick.x + 4, kick.y);
  expect(await hits("kick")).toEqual([]);
});

// In the dark the colors differ, not the structure: two views show all of them.
for (const [scheme, ...paths] of [
  ["light", "", "groove", "chords", "voicings"],
  ["light", "lines", "bass"],
  ["light", "check", "form", "handover"],
  ["dark", "", "bass"],
] as const)
  test(`axe finds nothing, ${scheme}: ${paths.map((p) => p || "the list").join(", ")}`, async ({ page }) => {
    await page.emulateMedia({ colorScheme: scheme, reducedMotion: "reduce" });
    for (const path of paths) {
      await page.goto(!path ? "/" : `/songs/lanterns-on-row-nine/${path}`);
      await expect(page.locator("h1, h2").first()).toBeVisible();
      // The score is the same in every workspace: it is read once in the light and once in the dark.
      expect([path, await unreadable(page, path === "bass" ? "page" : "beside the score")]).toEqual([path, []]);
    }
  });

test("a note announces itself", async ({ page }) => {
  await page.goto("/songs/lanterns-on-row-nine/chords");
  await expect(page.locator(".lane.bass [data-note]").first()).toHaveAttribute(
    "aria-label",
    "E flat 2, root, bar 1, beat 1, on the kick",
  );
  await expect(page.locator(".lane.melody [data-note]").nth(3)).toHaveAttribute(
    "aria-label",
    /^F 4, ninth, bar 1, beat 2½/,
  );
});
