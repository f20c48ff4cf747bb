import type { Page } from "@playwright/test";
import { expect, KILLED, test } from "./fixtures";

const WORKSPACES = ["groove", "chords", "voicings", "lines", "bass", "check", "form", "handover"];
const SONG = "/songs/lanterns-on-row-nine";

/** The workers that judge and write; the sound has one of its own. */
const workers = (page: Page) => page.workers().filter((w) => w.url().includes("music.worker"));

/** Both workers fail at something nobody catches. */
async function kill(page: Page): Promise<void> {
  await Promise.all(
    workers(page).map((worker) =>
      worker
        .evaluate((said) => {
          setTimeout(() => {
            throw new Error(said);
          });
        }, KILLED)
        .catch(() => undefined),
    ),
  );
}
/** What Check says is found, beside its title in the row of workspaces. */
const judged = (page: Page) => page.getByRole("link", { name: /^Check/ });

test("workers that are killed in any workspace are replaced, and go on with the song as it is", async ({ page }) => {
  for (const workspace of WORKSPACES) {
    await page.goto(`${SONG}/${workspace}`);
    await expect(judged(page)).toHaveText(/\d/);
    const before = workers(page);
    expect(before).toHaveLength(2);
    await kill(page);
    await expect.poll(() => workers(page).filter((w) => !before.includes(w)).length).toBe(2);
    await expect(page.getByText("beginning again")).toHaveCount(0);
  }
  // The last one answers what is asked of it: another school judges otherwise.
  await judged(page).click();
  await expect(page.getByLabel("Judged as")).toBeVisible();
  const heading = page.locator(".panel-head h2, .panel h2").first();
  const was = await heading.textContent();
  await page.getByLabel("Judged as").selectOption("chorale");
  await expect(heading).not.toHaveText(was ?? "");
  await page.getByLabel("Judged as").selectOption("band");
  await expect(heading).toHaveText(was ?? "");
});

test("after three deaths in a row it is said, nothing is called well, and a button starts them again", async ({
  page,
}) => {
  await page.goto(`${SONG}/check`);
  await expect(judged(page)).toHaveText(/\d/);
  const again = page.getByRole("button", { name: "Start again" });
  await expect(async () => {
    await kill(page);
    await expect(again).toBeVisible({ timeout: 300 });
  }).toPass();
  await expect(page.getByText("stopped three times in a row")).toBeVisible();
  await expect(page.getByText("Nothing is worth a remark")).toHaveCount(0);
  await again.click();
  await expect(again).toHaveCount(0);
  await page.getByLabel("Judged as").selectOption("chorale");
  await expect(page.locator(".finding").first()).toBeVisible();
});
