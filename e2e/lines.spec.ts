import type { Page } from "@playwright/test";
import { clickLane, drag, expect, newSong, songOf, test, typeLine, goTo } from "./fixtures";
import { demoSongs, firstOf, Meter, type Note, nth, type Song, sure, Tune } from "./orchard";

/** Opens a demo song in Lines, with one of its tabs. */
async function openLines(page: Page, song: number, tab: string): Promise<void> {
  const stored = (await (await page.request.post("/api/songs", { data: nth(demoSongs(), song) })).json()) as Song;
  await page.goto(`/songs/${stored.id}/lines`);
  await page.getByRole("tab", { name: tab }).click();
}

/** A new song with a tune of four bars, in Lines. */
async function withTune(page: Page, tune: string): Promise<void> {
  await newSong(page, "A tune");
  await typeLine(page, "| C | F | G7 | C |");
  await goTo(page, "Lines");
  await page.locator("#tune").fill(tune);
  await page.locator("#tune").blur();
}
const tune = async (page: Page): Promise<Note[]> => firstOf((await songOf(page)).sections).notes.melody ?? [];

test("the report on a tune shows its notes; a line is heard alone, with chords, with all; nothing is changed", async ({
  page,
}) => {
  await openLines(page, 0, "Report");
  const report = page.locator(".report").first();
  await expect(report).toContainText("B♭3 to D5, 16 semitones");
  const before = await songOf(page);
  await report.getByRole("button", { name: "Range" }).click();
  await expect(page.locator(".lane.melody .note.selected")).not.toHaveCount(0);
  await page.getByRole("button", { name: "with chords" }).click();
  await expect(page.getByRole("button", { name: "solo Piano" })).toHaveAttribute("aria-pressed", "true");
  await expect(page.getByRole("button", { name: "solo Bass" })).toHaveAttribute("aria-pressed", "false");
  await page.getByRole("button", { name: "with all" }).click();
  await expect(page.getByRole("button", { name: "solo Piano" })).toHaveAttribute("aria-pressed", "false");
  // A note says what it is, how it is reached, and how strong its place is.
  await page.locator(".lane.melody [data-note] .head").nth(3).click();
  await expect(page.locator(".reason")).toContainText(/ninth of E♭maj9.*between beats/);
  expect(await songOf(page)).toEqual(before);
});

test("a tune as text: read while it is typed, refused with its place, one step of undo", async ({ page }) => {
  await withTune(page, "E4 q F e G e A h | A q F r h | G w | E h. r q");
  const meter = Meter.parse("4/4");
  const expected = meter.ok
    ? Tune.parse("E4 q F e G e A h | A q F r h | G w | E h. r q", { meter: meter.value })
    : null;
  expect((await tune(page)).map((n) => [n.start, n.pitch, n.duration])).toEqual(
    expected?.ok ? expected.value.map((n) => [n.start, n.pitch, n.duration]) : null,
  );
  await page.locator("#tune").fill("E4 q F e G e A h | A q X");
  await expect(page.getByRole("alert")).toContainText("“X”".replace(/[“”]/g, '"'));
  await expect(page.getByRole("alert")).toContainText("^");
  expect(await tune(page)).toHaveLength(8);
  await page.locator("#tune").fill("C5 w");
  await page.locator("#tune").blur();
  expect((await tune(page)).map((n) => n.pitch)).toEqual(["C5"]);
  await page.keyboard.press("Control+z");
  expect(await tune(page)).toHaveLength(8);
});

test("words: typed under the notes, a second verse, a pasted line, and words that come first get a rhythm", async ({
  page,
}) => {
  await withTune(page, "E4 q F G A | A q F G h | G w | E h C h");
  const lyrics = async (verse = 0) => (await tune(page)).map((n) => n.lyrics?.[verse] ?? "");
  await page.locator(".lane.melody [data-note]").first().focus();
  await page.keyboard.press("w");
  await expect(page.getByLabel(/^Words under note 1 of 10/)).toBeFocused();
  await page.keyboard.type("or-chard row_ on");
  await page.keyboard.press("Enter");
  expect((await lyrics()).slice(0, 6)).toEqual(["or-", "chard", "row", "_", "on", ""]);
  await expect(page.locator(".lane.melody text.lyric").first()).toHaveText("or-");
  await page.getByRole("tab", { name: "Words" }).click();
  await page.getByLabel("Verse", { exact: true }).selectOption({ label: "2" });
  await page.locator("#words").fill("Lanterns hang above");
  await expect(page.getByRole("group", { name: "Syllables" })).toContainText("Lan-terns");
  await page.locator(".lane.melody [data-note] .head").nth(1).click();
  await page.getByRole("button", { name: "Lay under the notes from note 2" }).click();
  expect((await lyrics(1)).slice(0, 7)).toEqual(["", "Lan-", "terns", "hang", "a-", "bove", ""]);
  expect((await lyrics())[0]).toBe("or-");
  await expect(page.locator(".lane.melody text.lyric").first()).toHaveText("Lan-");
  // A stress by hand, and a rhythm of their own for other words.
  await page.getByLabel("Verse", { exact: true }).selectOption({ label: "1" });
  await page.locator("#words").fill("every apple waits for you\nto carry it away");
  await page.getByRole("button", { name: "you, not stressed" }).click();
  await expect(page.getByRole("button", { name: "you, stressed" })).toBeVisible();
  await page.getByRole("button", { name: "Take: the rhythm for the words" }).click();
  await expect.poll(lyrics).toEqual("ev- er- y ap- ple waits for you to car- ry it a- way".split(" "));
  const placed = await tune(page);
  expect(sure(placed.find((n) => sure(n.lyrics)[0] === "you")).start % 480).toBe(0);
});

test("a counter melody: added, written in a style, heard in place, taken, measured, written anew around a pin", async ({
  page,
}) => {
  await openLines(page, 1, "Answer");
  await page.getByRole("button", { name: "Add a counter melody" }).click();
  await page.getByRole("button", { name: "Write lines" }).click();
  const list = page.getByRole("list", { name: "Candidates" });
  await expect(list.getByRole("button", { name: "Take", exact: true }).first()).toBeVisible();
  const before = await songOf(page);
  await page.keyboard.press("2");
  await expect(page.getByText("Hearing: line 2")).toBeVisible();
  await expect(page.locator(".lane.counter [data-note]")).not.toHaveCount(0);
  expect(await songOf(page)).toEqual(before);
  await page.keyboard.press("t");
  const counter = async () => {
    const song = await songOf(page);
    return firstOf(song.sections).notes[sure(song.parts.find((p) => p.role === "counter")).id] ?? [];
  };
  await expect.poll(async () => (await counter()).length).toBeGreaterThan(3);
  await page.locator(".lane.counter [data-note] .head").first().click();
  await page.getByRole("tab", { name: "Report" }).click();
  await expect(page.locator(".reason")).toContainText("answers Clarinet where it rests");
  await expect(page.locator(".report").last()).toContainText("Outside the gaps");
  await page.getByRole("button", { name: "pin", exact: true }).click();
  const pinned = sure((await counter()).find((n) => n.pinned));
  await page.getByRole("tab", { name: "Answer" }).click();
  await page.getByLabel("Style", { exact: true }).selectOption("guideTones");
  await page.getByRole("button", { name: "Write lines" }).click();
  await expect(list).toContainText("guide tones");
  await list.getByRole("button", { name: "Take", exact: true }).first().click();
  expect((await counter()).find((n) => n.id === pinned.id)).toEqual(pinned);
  // A style that finds no place says so.
  await page.getByLabel("Style", { exact: true }).selectOption("percussion");
  await page.getByRole("button", { name: "how it is written" }).click();
  await expect(page.getByLabel("takes the hits of")).toBeVisible();
});

test("room for the voice: who is in its way, and what helps as much as it says", async ({ page }) => {
  await openLines(page, 0, "Room");
  const piano = page.locator(".room tr").filter({ hasText: "Piano" });
  await expect(piano).toContainText("48 %");
  const offers = page.getByRole("list", { name: "Room for the voice" });
  await offers.getByRole("button", { name: "Hear" }).first().click();
  await expect(page.getByText("Hearing: Piano: an octave down")).toBeVisible();
  await offers.getByRole("button", { name: "Take" }).first().click();
  await expect(piano).toContainText("0 %");
  await expect(page.getByText("Piano leaves it room.")).toHaveCount(0);
  await page.getByRole("button", { name: "Bass", exact: true }).click();
  await expect(page.getByText("Bass leaves it room.")).toBeVisible();
});

test("notes are chosen in a box across bars, moved together, copied with Alt, and no word of the page is chosen", async ({
  page,
}) => {
  await withTune(page, "E4 q F G A | A q F G h | G w | E h C h");
  const box = sure(await page.locator(".lane.melody .lane-svg").boundingBox());
  const heads = await page
    .locator(".lane.melody [data-note] .head")
    .evaluateAll((all) => all.map((e) => e.getBoundingClientRect().toJSON() as DOMRect));
  await page.keyboard.down("Shift");
  await drag(page, { x: firstOf(heads).x - 4, y: box.y + 3 }, { x: nth(heads, 5).x + 4, y: box.y + box.height - 3 });
  await page.keyboard.up("Shift");
  await expect(page.locator(".lane.melody .note.selected")).toHaveCount(6);
  expect(await page.evaluate(() => document.getSelection()!.toString())).toBe("");
  const before = await tune(page);
  const grab = { x: nth(heads, 2).x + 6, y: nth(heads, 2).y + 6 };
  // A half bar later, all six; the drag says what the note would be.
  await page.mouse.move(grab.x, grab.y);
  await page.mouse.down();
  await page.mouse.move(grab.x + (nth(heads, 1).x - firstOf(heads).x), grab.y + 1, { steps: 5 });
  await expect(page.locator(".drag-tag")).toHaveText(/in the chord|in the key|outside/);
  await page.mouse.up();
  await expect.poll(async () => (await tune(page)).map((n) => n.start).slice(0, 2)).toEqual([480, 960]);
  await page.keyboard.press("Control+z");
  expect((await tune(page)).map((n) => n.start)).toEqual(before.map((n) => n.start));
  await expect
    .poll(async () => sure(await page.locator(".lane.melody [data-note] .head").first().boundingBox()).x)
    .toBeCloseTo(firstOf(heads).x, -1);
  await expect(page.locator(".lane.melody .note.selected")).toHaveCount(6);
  // With Alt the notes stay and copies go.
  await page.keyboard.down("Alt");
  await drag(page, grab, { x: grab.x + 3 * (nth(heads, 1).x - firstOf(heads).x), y: grab.y });
  await page.keyboard.up("Alt");
  await expect.poll(async () => (await tune(page)).length).toBe(before.length + 6);
  await page.keyboard.press("Control+z");
  // By keys: a row, a copy behind it, cut.
  await page.locator(".lane.melody [data-note]").first().focus();
  for (const key of ["Shift+ArrowRight", "Shift+ArrowRight", "Shift+ArrowRight", "Control+d"])
    await page.keyboard.press(key);
  await expect(page.getByText(/4 notes, 3 gave way/)).toBeVisible();
  expect((await tune(page)).slice(4, 8).map((n) => n.pitch)).toEqual(["E4", "F4", "G4", "A4"]);
});

test("playing in: armed, counting, recording; what is played is seen at once, and taken or dropped", async ({
  page,
}) => {
  await withTune(page, "E4 w | F w | G w | E w");
  await expect(page.getByText("Armed: keys sound, nothing is kept")).toBeVisible();
  await page.getByRole("button", { name: "computer keys play" }).click();
  await page.getByRole("button", { name: "Record", exact: true }).click();
  await expect(page.getByText("Counting in …")).toBeVisible();
  await expect(page.getByText("Recording", { exact: true })).toBeVisible();
  await page.keyboard.down("d");
  await expect(page.locator(".lane.melody .live-notes rect")).toHaveCount(1);
  await page.keyboard.up("d");
  await page.getByRole("button", { name: "Stop recording" }).click();
  await expect(page.locator(".live-notes")).toHaveCount(0);
  await expect(page.locator(".played-in")).toContainText("1 note played");
  await page.locator(".played-in").getByRole("button", { name: "Take" }).click();
  expect((await tune(page)).some((n) => /^E/.test(n.pitch))).toBe(true);
  await clickLane(page, "melody", 0, 30);
});
