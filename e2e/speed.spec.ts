import type { CDPSession, Page } from "@playwright/test";
import type { Song } from "../core/src/index";
import { drumCell, expect, goTo, saved, test } from "./fixtures";
import { eightParts, sure } from "./orchard";
import { countRenders, rendersOf, type Rendered } from "./renders";

const song = eightParts(16);
const idOf = (role: string): string => sure(song.parts.find((p) => p.role === role)).id;
const [melody, drums] = [idOf("melody"), idOf("drums")];

/** Opens a song of eight parts; what renders is counted from then on. */
async function open(page: Page, workspace: string, opened: Song = song): Promise<void> {
  await countRenders(page);
  const { id } = (await (await page.request.post("/api/songs", { data: opened })).json()) as { id: string };
  await page.goto(`/songs/${id}/${workspace}`);
  await expect(page.locator(".lane.melody [data-note]").first()).toBeVisible();
  await expect(page.locator("nav.workspaces sup").first()).toBeAttached();
  await settled(page);
}

/** Waits until all is stored and nothing renders any more; all that did, since it was asked. */
async function settled(page: Page, since: Rendered[] = []): Promise<Rendered[]> {
  await saved(page);
  for (;;) {
    const more = await rendersOf(page, () => page.waitForTimeout(500));
    if (!more.length) return since;
    since.push(...more);
  }
}

/** All that renders from a gesture on, until nothing does any more. */
async function rendered(page: Page, gesture: () => Promise<unknown>): Promise<Rendered[]> {
  const first = await rendersOf(page, async () => {
    await gesture();
    await page.waitForTimeout(500);
  });
  return settled(page, first);
}

/** How often something rendered that shows such an element, in one place or anywhere. */
const times = (all: readonly Rendered[], shows: string, where?: string): number =>
  all.filter((r) => r.shows === shows && (where === undefined || r.where === where)).length;
const places = (all: readonly Rendered[]): string[] => [...new Set(all.map((r) => r.where))];
/** Heads of lanes have switches; nothing else in a lane has. */
const heads = (all: readonly Rendered[]): string[] =>
  all.flatMap((r) => (r.where.startsWith("lane-") && r.shows === "button.toggle" ? [r.where] : []));

test("a key press, a choice and a painted hit draw what they change, and no other note, lane, head or pass", async ({
  page,
}) => {
  await open(page, "lines");
  const notes = page.locator(".lane.melody [data-note]");
  const inSight = await notes.count();
  expect(inSight).toBeGreaterThan(40);
  await notes.nth(3).locator(".head").click();
  await page.keyboard.press("ArrowUp");
  await settled(page);

  const pressed = await rendered(page, () => page.keyboard.press("ArrowDown"));
  // The note, the ones beside it where their roles are others, and those that findings come and go on.
  expect(times(pressed, "g.note", `lane-${melody}`)).toBeGreaterThan(0);
  expect(times(pressed, "g.note", `lane-${melody}`)).toBeLessThan(inSight / 3);
  expect(heads(pressed).filter((where) => where !== `lane-${melody}`)).toEqual([]);
  expect(places(pressed)).not.toContain("form-strip");
  expect(places(pressed)).not.toContain(`lane-${drums}`);

  const chosen = await rendered(page, () => page.keyboard.press("ArrowRight"));
  expect(places(chosen).filter((where) => where.startsWith("lane-"))).toEqual([`lane-${melody}`]);
  expect(times(chosen, "g.note")).toBeLessThan(4);
  expect(heads(chosen)).toEqual([]);

  await goTo(page, "Groove");
  await settled(page);
  const cell = await drumCell(page, "openHat", 2);
  const painted = await rendered(page, () => page.mouse.click(cell.x, cell.y));
  expect(places(painted)).toContain(`lane-${drums}`);
  expect(times(painted, "g.note")).toBeLessThan(8);
  expect(heads(painted).filter((where) => where !== `lane-${drums}`)).toEqual([]);
});

test("what comes into sight is drawn, and what was there stays as it was", async ({ page }) => {
  await open(page, "lines");
  await page.mouse.move(700, 300);
  await page.mouse.wheel(400, 0);
  await settled(page);
  const before = await page.locator("[data-note]").count();
  const scrolled = await rendered(page, () => page.mouse.wheel(200, 0));
  expect(places(scrolled).some((where) => where.startsWith("lane-"))).toBe(true);
  expect(times(scrolled, "g.note")).toBeLessThan(before / 2);
  expect(heads(scrolled)).toEqual([]);
});

test("while it plays nothing renders but what is told of the place, and the head is moved by the compositor", async ({
  page,
}) => {
  await open(page, "lines");
  await page.keyboard.press("Space");
  const head = page.locator(".score .playhead");
  await expect(head).toBeVisible();
  await page.waitForTimeout(1000);
  const from = sure(await head.boundingBox()).x;
  const played = await rendersOf(page, () => page.waitForTimeout(1500));
  expect(places(played.filter((r) => r.shows))).toEqual(["transport"]);
  expect(sure(await head.boundingBox()).x).toBeGreaterThan(from);
  // Two heads, one way each: neither is set by the frame.
  const runs = await page.evaluate(() => document.getAnimations().filter((a) => a.playState === "running").length);
  expect(runs).toBeGreaterThan(0);
  await page.keyboard.press("Space");
  await expect(head).toBeHidden();
  expect(await page.evaluate(() => document.getAnimations().length)).toBe(0);
});

/** What is left of sound and listeners when what is not needed is cleared away. */
async function left(session: CDPSession): Promise<{ listeners: number; nodes: number }> {
  await session.send("HeapProfiler.collectGarbage");
  const { metrics } = await session.send("Performance.getMetrics");
  const of = (name: string) => sure(metrics.find((m) => m.name === name)).value;
  return { listeners: of("JSEventListeners"), nodes: of("AudioHandlers") };
}

test("what was heard leaves no listener and no node of sound behind", async ({ page }) => {
  await open(page, "lines");
  const session = await page.context().newCDPSession(page);
  await session.send("Performance.enable");
  const hear = async (n: number) => {
    for (let i = 0; i < n; i++) {
      await page.keyboard.press("Space");
      await expect(page.locator(".score .playhead")).toBeVisible();
      await page.waitForTimeout(150);
      await page.keyboard.press("Space");
    }
    // The longest sound fades.
    await page.waitForTimeout(4000);
    return left(session);
  };
  const before = await hear(6);
  await hear(18);
  // Far fewer than one for each time it was heard, once all of it has faded and is cleared away.
  await expect
    .poll(async () => (await left(session)).listeners - before.listeners, { timeout: 20_000 })
    .toBeLessThan(12);
  await expect.poll(async () => (await left(session)).nodes - before.nodes, { timeout: 20_000 }).toBeLessThan(20);
});
