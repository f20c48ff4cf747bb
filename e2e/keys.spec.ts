import type { Page } from "@playwright/test";
import type { Song } from "../core/src/index";
import { expect, songOf, test } from "./fixtures";
import { demoSongs, firstOf, nth } from "./orchard";

/** What has the focus: its element and how it is called. */
const focused = (page: Page): Promise<string> =>
  page.evaluate(() => {
    const e = document.activeElement!;
    const label = (e as HTMLInputElement).labels?.[0]?.textContent;
    return (
      `${e.tagName} ` +
      `${e.getAttribute("aria-label") ?? label ?? e.getAttribute("placeholder") ?? e.textContent ?? ""}`
    );
  });

/** Goes on with Tab until something that is called so has the focus. */
async function tabTo(page: Page, name: RegExp): Promise<void> {
  for (let i = 0; i < 90; i++) {
    if (name.test(await focused(page))) return;
    await page.keyboard.press("Tab");
  }
  throw new Error(`${String(name)} is not reached with Tab; the focus is on ${await focused(page)}`);
}

test("the first job without a mouse: a song, its chords, a kick, a bass line, a finding fixed", async ({ page }) => {
  await page.goto("/");
  await tabTo(page, /Title of the new song/);
  await page.keyboard.type("By keys");
  await tabTo(page, /^BUTTON chords$/);
  await page.keyboard.press("Enter");
  await page.waitForURL(/chords$/);
  await expect(page.getByLabel("Chord line")).toBeVisible();
  await page.keyboard.press("c");
  await expect(page.getByLabel("Chord line")).toBeFocused();
  await page.keyboard.type("| Am | F | C | G |");
  await page.keyboard.press("Enter");
  await expect(page.locator("[data-chord]")).toHaveCount(4);
  await tabTo(page, /^A Groove/);
  await page.keyboard.press("Enter");
  await expect(page.getByRole("list", { name: "Patterns" })).toBeVisible();
  await page.keyboard.press("1");
  await expect(page.getByText(/^Hearing:/)).toBeVisible();
  await page.keyboard.press("t");
  await expect.poll(async () => firstOf((await songOf(page)).sections).groove.lanes.length).toBeGreaterThan(1);
  await tabTo(page, /^A Bass/);
  await page.keyboard.press("Enter");
  await tabTo(page, /^BUTTON Write lines/);
  await page.keyboard.press("Enter");
  await expect(page.getByRole("list", { name: "Candidates" })).toBeVisible();
  await page.keyboard.press("2");
  await expect(page.getByText("Hearing: line 2")).toBeVisible();
  await page.keyboard.press("t");
  const bass = async () => firstOf((await songOf(page)).sections).notes.bass ?? [];
  await expect.poll(async () => (await bass()).length).toBeGreaterThan(3);
  // Its first note goes, what is found is fixed where it is told.
  const written = (await bass()).length;
  await page.locator(".lane.bass [data-note]").first().focus();
  await page.keyboard.press("Delete");
  await expect.poll(async () => (await bass()).length).toBe(written - 1);
  await expect(page.locator(".findings")).toContainText("no bass note");
  await tabTo(page, /^BUTTON Take: /);
  await page.keyboard.press("Enter");
  await expect.poll(async () => (await bass()).length).toBe(written);
});

test("a long section as a whole: no number touches the next, no symbol is cut, and one comes to each by keys", async ({
  page,
}) => {
  const demo = nth(demoSongs(), 1);
  const stored = (await (await page.request.post("/api/songs", { data: demo })).json()) as Song;
  await page.goto(`/songs/${stored.id}/chords`);
  await expect(page.locator("[data-chord]").first()).toBeVisible();
  await page.keyboard.press("c");
  await expect(page.getByLabel("Chord line")).toBeFocused();
  await page.keyboard.press("ControlOrMeta+a");
  const bars = ["Dm9", "Gm7", "Bbmaj9", "A7sus4 A7", "Em7b5 A7(b9)"];
  await page.keyboard.insertText(`| ${Array.from({ length: 64 }, (_, i) => bars[i % bars.length]).join(" | ")} |`);
  await page.keyboard.press("Enter");
  await expect.poll(async () => firstOf((await songOf(page)).sections).bars).toBe(64);
  await page.locator("[data-chord]").first().focus();
  await page.keyboard.press("f");
  await expect(page.getByRole("button", { name: "Fit the section to the window" })).toHaveAttribute(
    "aria-pressed",
    "true",
  );
  const numbers = page.locator(".bar-number").filter({ hasText: /\d/ });
  await expect(page.locator(".bar-number")).toHaveCount(64);
  await expect.poll(() => numbers.count()).toBeLessThan(33);
  // What stands in a chord stands inside it, or is not shown.
  const cut = () =>
    page.locator("[data-chord]").evaluateAll(
      (all) =>
        all.filter((e) => {
          const symbol = e.querySelector<HTMLElement>(".symbol")!;
          if (getComputedStyle(symbol).visibility === "hidden" || e === document.activeElement) return false;
          return symbol.getBoundingClientRect().right > e.getBoundingClientRect().right + 2;
        }).length,
    );
  await expect.poll(cut).toBe(0);
  await page.keyboard.press("ArrowRight");
  const chosen = page.locator("[data-chord]:focus");
  await expect(chosen.locator(".symbol")).toBeVisible();
  await expect(chosen).toContainText("Gm");
  // Given the usual width again, every chord shows its name.
  await page.keyboard.press("f");
  await expect(page.locator("[data-chord]").first().locator(".symbol")).toBeVisible();
  await expect.poll(cut).toBe(0);
});
