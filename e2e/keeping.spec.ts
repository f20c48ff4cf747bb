import { firstOf } from "../core/src/index";
import { expect, newSong, saved, songOf, test, typeLine } from "./fixtures";

test("unsent edits survive a server that is away and a reloaded page, and are sent when it is back", async ({
  page,
}) => {
  const id = await newSong(page, "Storm Cellar");
  await saved(page);
  await page.route("**/api/**", (route) => route.abort());
  await typeLine(page, "| Am7 | D9 | Gmaj7 | % |");
  await expect(page.locator(".status")).toHaveText("Server away: kept in this browser");
  await page.reload();
  await expect(page.locator("[data-chord]")).toHaveCount(4);
  await page.getByLabel(/^Tempo/).fill("111");
  await page.getByLabel(/^Tempo/).press("Enter");
  await page.unroute("**/api/**");
  await saved(page);
  const stored = await (await page.request.get(`/api/songs/${id}`)).json();
  expect(stored).toMatchObject({ tempo: 111 });
  expect(stored.sections[0].chords).toHaveLength(4);
});

test("two windows: the stale one is offered both versions side by side", async ({ page, context }) => {
  const id = await newSong(page, "Two Windows");
  await saved(page);
  const other = await context.newPage();
  await other.goto(`/songs/${id}/chords`);
  await expect(other.getByLabel("Title", { exact: true })).toHaveValue("Two Windows");
  await typeLine(page, "| C | F |");
  await saved(page);
  await typeLine(other, "| Am | Dm |");
  const dialog = other.getByRole("alertdialog");
  await expect(dialog).toContainText("| C | F |");
  await expect(dialog).toContainText("| Am | Dm |");
  await dialog.getByRole("button", { name: "Take the stored version" }).click();
  await expect(dialog).toHaveCount(0);
  expect(firstOf((await songOf(other)).sections).chords.map((c) => c.symbol)).toEqual(["C", "F", "F", "F"].slice(0, 2));
  await typeLine(other, "| G | D |");
  await saved(other);
});
