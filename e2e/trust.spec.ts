import type { Page } from "@playwright/test";
import { expect, saved, songOf, test, unreadable } from "./fixtures";
import { demoSongs, Edit, firstOf, must, nth, type Song, sure } from "./orchard";

/** A demo song under eight parts with long names, and a bass that is found fault with all over. */
function crowded(): Song {
  const song = nth(demoSongs(), 1);
  const edits: Edit[] = [
    ...["Second clarinet of the upper orchard", "Third voice", "Fiddle by the gate", "Accordion"].map(
      (name, i): Edit => ({
        do: "addPart",
        name,
        role: i < 2 ? "vocal" : "counter",
        instrument: i < 2 ? "mezzo" : "clarinet",
      }),
    ),
    { do: "setTitle", title: "A very long working title for the last dance of the harvest night" },
    {
      do: "setNotes",
      section: "s1",
      part: "bass",
      notes: Array.from({ length: 8 }, (_, i) => ({
        start: i * 960,
        duration: 960,
        pitch: i % 2 ? "F#3" : "C#2",
        velocity: 90,
      })),
    },
  ];
  return edits.reduce((s, e) => must(Edit.apply(s, e)).song, song);
}

async function open(page: Page, song: Song, workspace: string): Promise<void> {
  const stored = (await (await page.request.post("/api/songs", { data: song })).json()) as Song;
  await page.goto(`/songs/${stored.id}/${workspace}`);
  await expect(page.locator("[data-chord]").first()).toBeVisible();
}

/** Where everything stands that one may aim at. */
const places = (page: Page): Promise<string[]> =>
  // Looked up and measured in one go: what is drawn anew in between would have no place.
  page.evaluate(() =>
    [
      ...document.querySelectorAll(
        "header button, nav a, [data-chord], .lane-label, #panel h2, #panel [role=tab], #panel li, #panel " +
          "select, .transport button",
      ),
    ].map((e) => {
      const { x, y, width, height } = e.getBoundingClientRect();
      return [Math.round(x), Math.round(y), Math.round(width), Math.round(height)].join();
    }),
  );

test("nothing on the page shifts while an offer is heard, nor when something is refused or told", async ({ page }) => {
  await open(page, firstOf(demoSongs()), "chords");
  await page.locator("[data-chord]").nth(3).click();
  await page.getByRole("tab", { name: "Reharmonize" }).click();
  const offers = page.getByRole("list", { name: "Alternatives" });
  await expect(offers.getByRole("button", { name: "Hear" }).first()).toBeVisible();
  // Findings and offers of the last edit have come: nothing moves for a while.
  await expect
    .poll(async () => {
      const at = (await places(page)).join();
      await page.evaluate(() => new Promise((done) => requestIdleCallback(done, { timeout: 500 })));
      return at === (await places(page)).join();
    })
    .toBe(true);
  const before = await places(page);
  await offers.getByRole("button", { name: "Hear" }).first().click();
  await expect(page.locator("main.previewing")).toBeVisible();
  expect(await places(page)).toEqual(before);
  await page.keyboard.press("a");
  await expect(page.getByText("Hearing: what is written")).toBeVisible();
  expect(await places(page)).toEqual(before);
  await page.getByRole("button", { name: "back to what is written" }).click();
  expect(await places(page)).toEqual(before);
  // A refusal and a notice float.
  await page.getByLabel(/^Tempo/).fill("0");
  await page.getByLabel(/^Tempo/).press("Enter");
  await expect(page.getByRole("alert")).toBeVisible();
  expect(await places(page)).toEqual(before);
});

test("a menu acts when something is chosen in it, and what was deleted comes back from where it was deleted", async ({
  page,
}) => {
  await open(page, firstOf(demoSongs()), "bass");
  const names = async () => (await songOf(page)).sections.map((s) => s.name);
  const choose = page.getByLabel("Section", { exact: true });
  await choose.focus();
  for (let i = 0; i < 6; i++) await page.keyboard.press("ArrowDown");
  expect(await names()).toEqual(["Verse", "Chorus"]);
  await expect(choose.locator("option:checked")).toHaveText("Chorus");
  await page.keyboard.press("ArrowUp");
  // Shorter: what is past the end is kept, and said.
  const bars = page.getByLabel("Bars of this section");
  await bars.fill("2");
  await bars.press("Enter");
  const told = page.getByRole("status").filter({ hasText: "past bar 2 are kept" });
  await expect(told).toBeVisible();
  await expect(page.locator("[data-chord]")).toHaveCount(2);
  await told.getByRole("button", { name: "Undo" }).click();
  expect(firstOf((await songOf(page)).sections).bars).toBe(8);
});

test("parts are named, moved, given an instrument, added and removed at their own label", async ({ page }) => {
  await open(page, firstOf(demoSongs()), "bass");
  const parts = async () => (await songOf(page)).parts;
  const menu = async (name: string) => page.getByRole("button", { name: `change ${name}`, exact: true }).click();
  await menu("Bass");
  await page.getByRole("button", { name: "Add bass" }).click();
  await page.keyboard.press("Escape");
  await expect(page.getByRole("region", { name: "Bass 2" })).toBeVisible();
  await menu("Bass 2");
  await page.getByLabel("Instrument of Bass 2").selectOption({ label: "Sub bass" });
  await page.getByRole("button", { name: "Move up" }).click();
  await expect
    .poll(async () => (await parts()).filter((p) => p.role === "bass").map((p) => p.name))
    .toEqual(["Bass 2", "Bass"]);
  const name = page.getByLabel("Name of Bass 2");
  await name.fill("Cellar");
  await name.press("Enter");
  await expect(page.getByRole("region", { name: "Cellar" })).toBeVisible();
  await page.getByRole("button", { name: "Remove Cellar" }).click();
  await expect(page.getByRole("region", { name: "Cellar" })).toHaveCount(0);
  await page.getByRole("status").getByRole("button", { name: "Undo" }).click();
  await expect(page.getByRole("region", { name: "Cellar" })).toBeVisible();
  expect(sure((await parts()).find((p) => p.name === "Cellar")).instrument).toBe("subBass");
});

test("with eight parts, in every workspace and window, its lane is in view and nothing covers anything", async ({
  page,
}) => {
  await open(page, crowded(), "check");
  const url = page.url().replace("/check", "");
  const about: Record<string, string> = {
    groove: "drums",
    chords: "chords",
    voicings: "chords",
    lines: "melody",
    bass: "bass",
    check: "bass",
  };
  for (const [width, height] of [
    [1024, 768],
    [1280, 800],
    [1920, 1080],
  ] as const) {
    await page.setViewportSize({ width, height });
    // What fits into the narrow window fits into wider ones: there the two with the most in them stand for all.
    for (const [workspace, role] of Object.entries(about).filter(
      ([w]) => width === 1024 || w === "lines" || (w === "check" && width === 1920),
    )) {
      await page.goto(`${url}/${workspace}`);
      await expect(page.locator(`.lane.${role}`).first()).toBeInViewport();
      const lane = sure(await page.locator(`.lane.${role}:not(.folded)`).first().boundingBox());
      expect([width, workspace, lane.height > 80 ? "high" : lane.height]).toEqual([width, workspace, "high"]);
      const box = async (selector: string) => sure(await page.locator(selector).boundingBox());
      const [head, score, panel, foot] = [
        await box("header"),
        await box("#score"),
        await box("#panel"),
        await box(".transport"),
      ];
      // All of its height: to the side it is as long as the section.
      expect([width, workspace, lane.y >= score.y, lane.y + lane.height <= foot.y + 1]).toEqual([
        width,
        workspace,
        true,
        true,
      ]);
      expect([width, workspace, head.height < 60]).toEqual([width, workspace, true]);
      expect(score.x + score.width).toBeLessThanOrEqual(panel.x + 1);
      expect(score.y + score.height).toBeLessThanOrEqual(foot.y + 1);
      expect(panel.y + panel.height).toBeLessThanOrEqual(foot.y + 1);
      expect(panel.x + panel.width).toBeLessThanOrEqual(width + 1);
      expect(foot.y + foot.height).toBeLessThanOrEqual(height + 1);
      expect(await page.evaluate(() => document.documentElement.scrollWidth <= window.innerWidth)).toBe(true);
    }
  }
  // Findings scroll in a column of their own.
  await page.goto(`${url}/check`);
  const last = page.locator(".findings > li").last();
  await last.scrollIntoViewIfNeeded();
  await expect(last).toBeInViewport();
  await expect(page.locator(".ruler .found.warning, .ruler .found.fault").first()).toBeVisible();
});

test("while nothing was checked no verdict is given; a judge that never comes gives none", async ({ page }) => {
  // The worker is never read: what it would find is not known.
  await page.route(/music\.worker/, () => undefined);
  await open(page, crowded(), "check");
  await expect(page.getByRole("heading", { name: "Checking …" })).toBeVisible();
  await expect(page.getByText("is being checked …")).toBeVisible();
  await expect(page.getByText(/Nothing (is worth|to look)|No findings/)).toHaveCount(0);
});

test("axe finds nothing in the crowded song: narrow in the light, usual in the dark", async ({ page }) => {
  test.setTimeout(240_000);
  await open(page, crowded(), "check");
  const url = page.url();
  for (const [scheme, width] of [
    ["light", 1024],
    ["dark", 1280],
  ] as const) {
    await page.emulateMedia({ colorScheme: scheme, reducedMotion: "reduce" });
    await page.setViewportSize({ width, height: Math.round(width * 0.6) });
    await page.goto(url);
    await expect(page.locator(".findings > li").first()).toBeVisible();
    expect([scheme, width, await unreadable(page)]).toEqual([scheme, width, []]);
  }
});

test("muting, soloing, choosing who judges and listening leave the song as it is, but for their own mark", async ({
  page,
}) => {
  await open(page, firstOf(demoSongs()), "check");
  const music = async () => {
    const { sections, form, takes } = await songOf(page);
    return { sections, form, takes };
  };
  const before = await music();
  await page.getByRole("button", { name: "mute Bass" }).click();
  await page.getByRole("button", { name: "solo Piano" }).click();
  await expect(page.locator(".finding-head").first()).toContainText("Bass (muted)");
  for (const profile of ["chorale", "jazz", "loop"]) await page.getByLabel("judged as").selectOption(profile);
  await page.keyboard.press("Space");
  await expect(page.locator(".where b")).toContainText("bar 1, beat 2");
  await page.keyboard.press("Space");
  await saved(page);
  expect(await music()).toEqual(before);
});

test("the score by keys: a link to it, buttons named in full, and a sheet of what is possible here", async ({
  page,
}) => {
  await open(page, firstOf(demoSongs()), "bass");
  await page.keyboard.press("Tab");
  await expect(page.getByRole("link", { name: "To the score" })).toBeFocused();
  await page.keyboard.press("Enter");
  await expect(page.locator("#score")).toBeFocused();
  for (const name of ["mute Bass", "solo Bass", "fold Bass", "change Bass"])
    await expect(page.getByRole("button", { name })).toBeVisible();
  await page.keyboard.press("?");
  await expect(page.getByRole("dialog")).toBeVisible();
  await page.keyboard.press("Escape");
  await expect(page.getByRole("dialog")).toHaveCount(0);
});
