import { expect, newSong, saved, songOf, test } from "./fixtures";
import { demoSongs, firstOf, Pitch, type Song } from "./orchard";

test("another key: the music moves up or down or only its name changes; heard first, taken back in one step", async ({
  page,
}) => {
  const stored = (await (await page.request.post("/api/songs", { data: firstOf(demoSongs()) })).json()) as Song;
  await page.goto(`/songs/${stored.id}/chords`);
  const field = page.getByLabel("Key, for example");
  await expect(field).toHaveValue("E♭ major");
  const before = await songOf(page);
  const retype = async (key: string) => {
    await field.fill(key);
    await field.press("Enter");
  };
  await retype("F major");
  const ask = page.getByRole("group", { name: "To F major" });
  await expect(ask.getByRole("button", { name: /^Move/ })).toHaveText([
    "Move up 2 semitones",
    "Move down 10 semitones",
  ]);
  expect(await songOf(page)).toEqual(before);
  await ask.getByRole("button", { name: "Hear" }).first().click();
  await expect(page.getByText("Hearing: F major, up 2 semitones")).toBeVisible();
  expect(await songOf(page)).toEqual(before);
  await ask.getByRole("button", { name: "Move up 2 semitones" }).click();
  await expect(ask).toHaveCount(0);
  const after = await songOf(page);
  expect([after.key, firstOf(firstOf(after.sections).chords).symbol]).toEqual(["F major", "Fmaj9"]);
  const notes = (song: Song) =>
    song.sections.flatMap((s) =>
      Object.values(s.notes)
        .flat()
        .map((n) => Pitch.midi(n.pitch)),
    );
  expect(notes(after)).toEqual(notes(before).map((m) => m + 2));
  await expect(page.locator("[data-chord]").first()).toContainText("F");
  // Layouts went along as they were, and nothing lays them out anew.
  await saved(page);
  expect((await songOf(page)).sections).toEqual(after.sections);
  await page.getByRole("button", { name: "Undo" }).last().click();
  await expect.poll(async () => (await songOf(page)).key).toBe(before.key);
  expect((await songOf(page)).sections).toEqual(before.sections);
  await retype("G major");
  await page.getByRole("button", { name: "Only rename the key" }).click();
  const renamed = await songOf(page);
  expect([renamed.key, firstOf(firstOf(renamed.sections).chords).symbol]).toEqual([
    "G major",
    firstOf(firstOf(before.sections).chords).symbol,
  ]);
  await retype("A major");
  await page.getByRole("group", { name: "To A major" }).getByRole("button", { name: "Cancel" }).click();
  await expect(field).toHaveValue("G major");
});

test("a song without music takes its key at once", async ({ page }) => {
  await newSong(page, "Empty");
  await page.getByLabel("Key, for example").fill("Bb major");
  await page.getByLabel("Key, for example").press("Enter");
  expect((await songOf(page)).key).toBe("Bb major");
  await expect(page.locator(".key-move")).toHaveCount(0);
});
