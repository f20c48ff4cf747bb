import type { Page } from "@playwright/test";
import { getDocument } from "pdfjs-dist/legacy/build/pdf.mjs";
import type { Song } from "../core/src/index";
import { expect, songOf, test } from "./fixtures";
import { demoSongs, firstOf, nth, sure } from "./orchard";

/** Opens a demo song in Lines, with one of its tabs. */
async function openLines(page: Page, tab: string, song = 0): Promise<Song> {
  const stored = (await (await page.request.post("/api/songs", { data: nth(demoSongs(), song) })).json()) as Song;
  await page.goto(`/songs/${stored.id}/lines`);
  await page.getByRole("tab", { name: tab }).click();
  return stored;
}
const candidates = (page: Page) => page.getByRole("list", { name: "Candidates" });

test("a voice is written beside the tune, a rough spot is mended, it is heard and taken; hearing changes nothing", async ({
  page,
}) => {
  await openLines(page, "Voices");
  await page.getByRole("button", { name: "Write for Wren, voice" }).click();
  await page.getByLabel("School").selectOption({ label: "A fixed interval" });
  await page.getByLabel("semitones away").selectOption("4");
  await page.getByRole("button", { name: "Write the voice" }).click();
  await expect(candidates(page)).toContainText("4 semitones up");
  const before = await songOf(page);
  const wren = sure(before.parts.find((p) => p.name === "Wren, voice")).id;
  await candidates(page)
    .getByRole("button", { name: /rough spots/ })
    .first()
    .click();
  const spots = page.locator(".rough li").filter({ has: page.getByRole("button") });
  const count = await page.locator(".choices .more").first().textContent();
  await spots.first().getByRole("button").first().click();
  await expect(page.locator(".choices .more").first()).not.toHaveText(sure(count));
  await candidates(page).getByRole("button", { name: "Hear" }).first().click();
  await expect(candidates(page).getByRole("button", { name: "Stop" })).toBeVisible();
  await candidates(page).getByRole("button", { name: "Stop" }).click();
  expect(await songOf(page)).toEqual(before);
  await candidates(page).getByRole("button", { name: "Take" }).first().click();
  const verse = async () => firstOf((await songOf(page)).sections).notes;
  expect((await verse())[wren]).toHaveLength(sure(firstOf(before.sections).notes.melody).length);
  await expect(page.locator(".voices")).toContainText("Orla");
  await page.keyboard.press("Control+z");
  expect((await verse())[wren] ?? []).toHaveLength(0);
});

test("four parts: two voices that are not there yet are added when they are taken, in one step", async ({ page }) => {
  await openLines(page, "Voices");
  await page.getByRole("button", { name: "Write for Wren, voice" }).click();
  await page.getByLabel("School").selectOption({ label: "Four-part chorale" });
  await expect(page.getByLabel("Voice 2")).toHaveValue("new");
  await page.getByRole("button", { name: "Write the voices" }).click();
  await expect(candidates(page)).toContainText("3 voices");
  const before = await songOf(page);
  await candidates(page).getByRole("button", { name: "Take" }).first().click();
  const after = await songOf(page);
  const added = after.parts.filter((p) => !before.parts.some((q) => q.id === p.id));
  expect(added).toHaveLength(2);
  for (const p of added) expect(sure(firstOf(after.sections).notes[p.id]).length).toBeGreaterThan(8);
  await expect(page.locator(".voices tbody tr")).toHaveCount(4);
  await page.keyboard.press("Control+z");
  expect((await songOf(page)).parts).toHaveLength(before.parts.length);
});

test("singers: measured ranges, twelve keys, the song heard and moved there and back", async ({ page }) => {
  await openLines(page, "Singers");
  const orla = page.getByRole("region", { name: "Orla", exact: true });
  await expect(orla).toContainText("at ease");
  await orla.getByLabel("Highest note at ease").fill("B4");
  await orla.getByLabel("Highest note at ease").press("Enter");
  await expect(orla.getByRole("note")).toContainText("voice professional");
  await orla.getByLabel("Lowest note at ease").fill("H9");
  await orla.getByLabel("Lowest note at ease").press("Enter");
  await expect(page.getByRole("alert")).toContainText("H9");
  const keys = page.locator(".song-keys tbody tr");
  await expect(keys).toHaveCount(12);
  await expect(keys.first()).toContainText(/capo|%/);
  const before = await songOf(page);
  await keys.first().getByRole("button").click();
  const shown = page.locator(".key-shown");
  await expect(shown).toContainText("Guitar:");
  await shown.getByRole("button", { name: /^Hear/ }).first().click();
  await expect(shown.getByRole("button", { name: /^Stop/ }).first()).toBeVisible();
  await shown.getByRole("button", { name: /^Stop/ }).first().click();
  expect(await songOf(page)).toEqual(before);
  await shown.getByRole("button", { name: /^Move/ }).first().click();
  const moved = await songOf(page);
  expect(moved.key).not.toBe(before.key);
  await expect(page.locator(".song-keys tr.current")).toContainText(
    firstOf(moved.key.split(" ")).replace("b", "♭").replace("#", "♯"),
  );
  await page.getByRole("button", { name: "Undo" }).first().click();
  expect(await songOf(page)).toEqual(before);
});

test("an echo is a part of its own: set, judged, printed to notes", async ({ page }) => {
  await openLines(page, "Voices");
  await page.getByRole("button", { name: "an echo of this line" }).click();
  await page.getByRole("button", { name: "Add an echo" }).click();
  const echo = page.locator(".echo");
  await expect(echo).toContainText("592 ms; each repeat 6.02 dB softer");
  await echo.getByLabel("Repeats").selectOption("1");
  const part = sure((await songOf(page)).parts.find((p) => p.echoes === "melody"));
  const attacks = sure(firstOf((await songOf(page)).sections).notes.melody).filter(
    (n) => n.start + 360 < 8 * 1920,
  ).length;
  await echo.getByRole("button", { name: "Print to notes" }).click();
  const after = await songOf(page);
  expect(sure(after.parts.find((p) => p.id === part.id)).echoes).toBeUndefined();
  expect(firstOf(after.sections).notes[part.id]).toHaveLength(attacks);
});

test("pages for the singers are printed to PDF and read back: names, key, words, symbols, entrances, a page each", async ({
  page,
}) => {
  const stored = await openLines(page, "Singers");
  await page.getByRole("link", { name: "Pages for the singers" }).click();
  await expect(page.locator(".singer-page")).toHaveCount(2);
  await expect(page.locator("[aria-busy=true]")).toHaveCount(0);
  await expect(page.locator(".sheet-text.syllable").first()).toBeVisible();
  const pdf = await page.pdf({ preferCSSPageSize: true });
  const document = await getDocument({ data: new Uint8Array(pdf), verbosity: 0 }).promise;
  const pages = await Promise.all(
    Array.from({ length: document.numPages }, async (_, i) => {
      const content = await (await document.getPage(i + 1)).getTextContent();
      return content.items.map((item) => ("str" in item ? item.str : "")).join(" ");
    }),
  );
  const [own, other] = [pages.findIndex((t) => /Orla\s+mezzo/.test(t)), pages.findIndex((t) => /Wren\s+alto/.test(t))];
  expect(own).toBe(0);
  expect(other).toBeGreaterThan(own);
  // Signs come from a font of their own: spaces between pieces of a text mean nothing.
  const plain = (text: string) => text.replace(/\s+/g, "");
  const all = plain(pages.join(" "));
  for (const text of [
    stored.title,
    "E♭ major",
    "Verse",
    "Chorus",
    "Bring",
    "bers",
    "Fm9",
    "A♭maj9",
    "Does not sing here: 8 bars",
    "major third below Orla’s C5",
  ])
    expect([text, all.includes(plain(text))]).toEqual([text, true]);
  // Controls are not printed.
  expect(all).not.toContain(plain("Back to the song"));
  // Of one singer alone.
  await page.getByRole("checkbox", { name: "Orla" }).uncheck();
  await expect(page.locator(".singer-page")).toHaveCount(1);
});
