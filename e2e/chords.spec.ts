import type { Page } from "@playwright/test";
import { beatX, drag, expect, newSong, songOf, test, typeLine, unreadable } from "./fixtures";
import { demoSongs, firstOf, lastOf, Midi, must, nth, Song, sure } from "./orchard";

const symbols = async (page: Page): Promise<string> =>
  firstOf((await songOf(page)).sections)
    .chords.map((c) => c.symbol)
    .join(" ");
const chord = (page: Page, i: number) => page.locator("[data-chord]").nth(i);
const tab = (page: Page, name: string) => page.getByRole("tab", { name }).click();
const way = (page: Page, name: string) =>
  page.getByRole("tablist", { name: "Ways in" }).getByRole("tab", { name, exact: true }).click();

test("sixteen bars without the mouse: the line by one key, chords typed in the score, and what they mean under them", async ({
  page,
}) => {
  await newSong(page, "Ladder");
  await page.keyboard.press("c");
  await page.keyboard.type(
    "| Cmaj7 | A7 | Dm7 | G7 | Cmaj7 | Bbm7 | Eb7 | Abmaj7 | Ab7 | G7sus4 | G7 | Em7 | A7(b9) | Dm7 |",
  );
  await page.keyboard.press("Enter");
  await expect.poll(() => symbols(page)).toMatch(/^Cmaj7 A7 .* Dm7$/);
  // On to the chords in the score: the last one, a new bar, and another.
  await chord(page, 0).focus();
  await page.keyboard.press("End");
  await page.keyboard.press("Enter");
  await page.keyboard.press("Tab");
  await page.keyboard.type("Db7");
  await page.keyboard.press("Tab");
  await page.keyboard.type("Cjj");
  await page.keyboard.press("Enter");
  await expect(page.locator(".chord-problem")).toContainText("is not a chord quality");
  await page.keyboard.press("Backspace");
  await page.keyboard.press("Backspace");
  await page.keyboard.type("6/9");
  await page.keyboard.press("Enter");
  await expect.poll(() => symbols(page)).toMatch(/Dm7 Db7 C6\/9$/);
  expect(firstOf((await songOf(page)).sections).bars).toBe(16);
  // Explanations stand where the chords are.
  await page.locator(".score").evaluate((e) => (e.scrollLeft = 0));
  await expect(page.locator(".chord").filter({ hasText: "A7" }).first()).toContainText("V7/ii");
  await expect(page.locator(".key-region")).toHaveText(/in A♭ major/);
  await chord(page, 1).focus();
  await page.keyboard.press("ArrowRight");
  await page.keyboard.press("ArrowLeft");
  await expect(page.getByRole("region", { name: "Chosen chord" })).toContainText("C♯ is its third and leads up to D");
  // Along the scale and back, pinned, deleted and undone, all by keys.
  await page.keyboard.press("ArrowRight");
  await page.keyboard.press("ArrowUp");
  await expect.poll(() => symbols(page)).toMatch(/^Cmaj7 A7 Em7/);
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("p");
  await expect
    .poll(async () => firstOf((await songOf(page)).sections).chords[2])
    .toMatchObject({ symbol: "Dm7", pinned: true });
  await page.keyboard.press("Delete");
  await expect.poll(() => symbols(page)).toMatch(/^Cmaj7 A7 G7/);
  await page.keyboard.press("Control+z");
  await expect.poll(() => symbols(page)).toMatch(/^Cmaj7 A7 Dm7/);
});

test("ways in: numerals, fret shapes, keys on screen, of the computer and of a MIDI keyboard, the palette", async ({
  page,
}) => {
  // A stand-in for a MIDI keyboard, where the browser has none.
  await page.addInitScript(() => {
    const input: { name: string; onmidimessage: ((e: { data: number[] }) => void) | null } = {
      name: "Barn keys",
      onmidimessage: null,
    };
    Object.assign(window, { barnKeys: input });
    Object.defineProperty(navigator, "requestMIDIAccess", {
      value: () => Promise.resolve({ inputs: new Map([["1", input]]), onstatechange: null }),
    });
  });
  await newSong(page, "Ways");
  await way(page, "numerals");
  const numerals = page.getByRole("textbox", { name: /Numerals/ });
  await numerals.fill("6 4 Q 5");
  await expect(page.getByRole("alert")).toContainText('"Q" is not a numeral');
  await numerals.fill("6 4 1 5");
  await expect(page.locator(".line-preview")).toHaveText("| Am | F | C | G |");
  await numerals.press("Enter");
  await expect.poll(() => symbols(page)).toBe("Am F C G");

  await way(page, "frets");
  await page.getByLabel("capo").fill("3");
  await expect(page.locator(".named")).toContainText("The shape is C; with the capo it sounds");
  await page
    .getByRole("button", { name: /Put E♭? ?in a new bar|Put E♭ in a new bar|Put .* in a new bar at the end/ })
    .click();
  await expect.poll(() => symbols(page)).toBe("Am F C G Eb");
  await page.getByLabel("Instrument and tuning").selectOption({ label: "Ukulele, high G" });
  await page.getByLabel("capo").fill("0");
  await page.getByLabel("Frets", { exact: true }).fill("2222");
  await expect(page.locator(".readings-table tr").nth(0)).toContainText("Bm");
  await expect(page.locator(".readings-table tr").nth(1)).toContainText("D6");
  // Undecided: the readings are kept, and settled later.
  await page.getByRole("button", { name: "not sure: keep the readings with it" }).click();
  await expect
    .poll(async () => lastOf(firstOf((await songOf(page)).sections).chords).readings?.slice(0, 2))
    .toEqual(["Bm7", "D6"]);
  const readings = page.getByRole("group", { name: "Readings" });
  await readings.getByRole("button").nth(1).click();
  await expect.poll(async () => lastOf(firstOf((await songOf(page)).sections).chords).symbol).toBe("D6");
  await readings.getByRole("button", { name: "settled" }).click();
  await expect.poll(async () => lastOf(firstOf((await songOf(page)).sections).chords).readings).toBeUndefined();

  await way(page, "keys");
  await expect(page.getByText("Listening to Barn keys.")).toBeVisible();
  const send = (...bytes: number[][]) =>
    page.evaluate((list) => {
      for (const data of list)
        (window as unknown as { barnKeys: { onmidimessage(e: { data: number[] }): void } }).barnKeys.onmidimessage({
          data,
        });
    }, bytes);
  await send([0x90, 53, 80], [0x90, 57, 80], [0x90, 60, 80], [0x90, 64, 80], [0x80, 53, 0], [0x90, 57, 0]);
  await expect(page.locator(".played-notes")).toHaveText("F3 A3 C4 E4");
  await expect(page.locator(".readings-table tr").first()).toContainText("Fmaj7");
  await send([0x80, 60, 0], [0x80, 64, 0]);
  await page.getByRole("button", { name: "computer keys play" }).click();
  for (const key of ["KeyD", "KeyG", "KeyJ"]) await page.keyboard.down(key);
  for (const key of ["KeyD", "KeyG", "KeyJ"]) await page.keyboard.up(key);
  await expect(page.locator(".played-notes")).toHaveText("E3 G3 B3");
  // The song's keys stay silent meanwhile: S is no solo here.
  const before = firstOf((await songOf(page)).sections).chords.length;
  await page.keyboard.press("Enter");
  await expect
    .poll(async () =>
      firstOf((await songOf(page)).sections)
        .chords.map((c) => c.symbol)
        .slice(before),
    )
    .toEqual(["Em"]);
  await page.getByRole("button", { name: "computer keys play" }).click();
  await page.locator(".keyboard .white").nth(0).click();
  await page.locator(".keyboard .white").nth(4).click();
  await expect(page.locator(".played-notes")).toHaveText("C2 G2");

  await way(page, "palette");
  await page.getByRole("group", { name: "Dominants of its degrees" }).getByRole("button").first().click();
  await expect.poll(async () => lastOf(firstOf((await songOf(page)).sections).chords).symbol).toBe("A7");
});

test("a MIDI file: tracks are guessed and can be changed, doubt is shown, a broken file is refused", async ({
  page,
}) => {
  await newSong(page, "From a file");
  await way(page, "file");
  const open = (name: string, buffer: Buffer) =>
    page.locator('input[accept*="mid"]').setInputFiles({ name, mimeType: "audio/midi", buffer });
  await open("notes.txt", Buffer.from("apples"));
  await expect(page.getByRole("alert")).toContainText("does not begin with MThd");
  const strut = nth(demoSongs(), 1);
  await open("strut.mid", Buffer.from(Midi.write({ ...strut, form: strut.form.slice(1, 2) }, { swing: "straight" })));
  await expect(page.getByLabel("Use Bass as")).toHaveValue("bass");
  await expect(page.getByText(/of 8 chords are doubtful/)).toBeVisible();
  await page.getByLabel("a chord each").selectOption("half bar");
  await expect(page.locator(".line-preview")).toContainText("Em7♭5 A7(♭9)");
  await page.getByRole("button", { name: "Write into Verse" }).click();
  await expect.poll(() => symbols(page)).toMatch(/^Dm9 Gm7 Gm7\/F Bbmaj9 A7sus4 A7/);
  const song = await songOf(page);
  expect([
    song.key,
    song.tempo,
    sure(firstOf(song.sections).notes.bass).length > 10,
    firstOf(song.sections).groove.lanes.length > 2,
  ]).toEqual(["D minor", 102, true, true]);
  await page.keyboard.press("Control+z");
  await expect.poll(() => symbols(page)).toBe("");
});

test("one chord and rows of chords are changed where they stand; a border is dragged", async ({ page }) => {
  await newSong(page, "Bending");
  await typeLine(page, "| Am7 | Dm | G | C |");
  await chord(page, 0).click();
  const chosen = page.getByRole("region", { name: "Chosen chord" });
  await chosen.getByRole("button", { name: "9", exact: true }).click();
  await expect.poll(() => symbols(page)).toBe("Am9 Dm G C");
  await chosen.getByLabel("Bass").selectOption({ label: "G" });
  await expect.poll(() => symbols(page)).toBe("Am9/G Dm G C");
  await page.keyboard.press("Control+z");
  await page.keyboard.press("Control+z");
  await tab(page, "Tones");
  await page.getByRole("button", { name: "C becomes C♯, major third of A7" }).click();
  await expect.poll(() => symbols(page)).toBe("A7 Dm G C");
  await expect(chosen).toContainText("applied dominant");
  await expect(page.locator("#panel")).toContainText("avoid");
  // A row: chosen with Shift, moved, reversed.
  await chord(page, 1).click();
  await chord(page, 3).click({ modifiers: ["Shift"] });
  await page.getByRole("button", { name: "up along the scale" }).click();
  await expect.poll(() => symbols(page)).toBe("A7 Em Am Dm");
  await page.getByRole("button", { name: "reverse" }).click();
  await expect.poll(() => symbols(page)).toBe("A7 Dm Am Em");
  // The score follows the song a moment later.
  await expect(chord(page, 3)).toContainText("Em");
  const border = sure(await page.locator(".chord-border").first().boundingBox());
  const half = (await beatX(page, 2)) - (await beatX(page, 0));
  await drag(page, { x: border.x + 4, y: border.y + 40 }, { x: border.x + 4 + half, y: border.y + 40 }, 4);
  await expect.poll(async () => nth(firstOf((await songOf(page)).sections).chords, 1).start).toBe(1920 + 960);
});

test("reharmonizing: alternatives are ordered by the slider, heard, compared with what is written, taken and undone", async ({
  page,
}) => {
  await newSong(page, "Other light");
  await typeLine(page, "| Cmaj7 | Am7 | Dm7 | G7 |");
  await chord(page, 3).click();
  await tab(page, "Reharmonize");
  await expect(page.locator(".verdict")).toContainText("It needs nothing");
  const list = page.getByRole("list", { name: "Alternatives" });
  await expect(list.locator("li")).toHaveCount(9);
  await page.getByLabel("From close to adventurous").fill("0.6");
  await expect(list).toContainText("Tritone substitute");
  const count = await list.locator("li").count();
  const at = await list
    .locator("li")
    .evaluateAll((items) => items.findIndex((x) => x.textContent!.includes("Tritone substitute")));
  expect([count > 3, at >= 0]).toEqual([true, true]);
  await page.locator("body").press(String(at + 1));
  await expect(page.getByText(/Hearing: Tritone substitute/)).toBeVisible();
  // The preview is voiced and shown in the score, the song is untouched.
  await expect(page.locator(".chord").last()).toContainText("D♭");
  expect(await symbols(page)).toBe("Cmaj7 Am7 Dm7 G7");
  await page.keyboard.press("a");
  await expect(page.getByText("Hearing: what is written")).toBeVisible();
  await page.keyboard.press("a");
  await expect(page.getByText(/Hearing: Tritone substitute/)).toBeVisible();
  await page.keyboard.press("t");
  await expect.poll(() => symbols(page)).toMatch(/^Cmaj7 Am7 Dm7 Db/);
  await chord(page, 3).click();
  await expect(page.getByRole("region", { name: "Chosen chord" })).toContainText(
    /Chosen because: .* keeps the third and seventh of G7/,
  );
  await page.keyboard.press("Control+z");
  await expect.poll(() => symbols(page)).toBe("Cmaj7 Am7 Dm7 G7");
  // Switched off, it is offered no more.
  await page.getByText(/\d+ of \d+ techniques/).click();
  await page.getByLabel("Tritone substitute").uncheck();
  await expect(list).not.toContainText("Tritone substitute");
  // The whole section, with a pinned chord that stays.
  await chord(page, 0).click();
  await chord(page, 0).press("p");
  await page.getByRole("button", { name: "whole section" }).click();
  await expect(list.locator("li").first()).toContainText(/\d of 4 chords changed/);
  await list.getByRole("button", { name: "Take" }).nth(1).click();
  await expect.poll(() => symbols(page)).not.toBe("Cmaj7 Am7 Dm7 G7");
  expect(await symbols(page)).toMatch(/^Cmaj7 /);
});

test("a tune is harmonized with reasons, and the panel is accessible on every tab", async ({ page, request }) => {
  const song = { ...must(Song.create({ id: "press-house", title: "Press House", bars: 4 })) };
  firstOf(song.sections).notes.melody = ["C5", "E5", "F5", "A5", "G5", "B4", "C5"].map((pitch, i) => ({
    id: `n${i + 1}`,
    start: i * 960,
    duration: i === 6 ? 1920 : 960,
    pitch,
    velocity: 90,
  }));
  song.nextId = 20;
  const stored = (await (await request.post("/api/songs", { data: song })).json()) as { id: string };
  await page.goto(`/songs/${stored.id}/chords`);
  await tab(page, "For a line");
  await page.getByRole("button", { name: "Harmonize Voice" }).click();
  const list = page.getByRole("list", { name: "Harmonizations" });
  await expect(list.getByRole("button", { name: "Take" })).toHaveCount(5);
  await expect(list).toContainText("in C major: holds");
  await list.getByRole("button", { name: "Hear" }).first().click();
  await expect(page.getByText("Hearing: harmonization 1")).toBeVisible();
  await list.getByRole("button", { name: "Take" }).first().click();
  await expect.poll(async () => (await symbols(page)).split(" ").length).toBeGreaterThanOrEqual(3);
  expect((await symbols(page)).split(" ").at(-1)).toMatch(/^C/);
  await chord(page, 1).click();
  await expect(page.getByRole("region", { name: "Chosen chord" })).toContainText(
    /Chosen because: .*holds .* of the tune/,
  );
  for (const name of ["Write", "Tones", "Reharmonize", "For a line"]) {
    await tab(page, name);
    expect([name, await unreadable(page, "beside the score")]).toEqual([name, []]);
  }
});
