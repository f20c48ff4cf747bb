import { readFileSync } from "node:fs";
import { drumCell, expect, newSong, saved, songOf, test, typeLine, goTo } from "./fixtures";
import { firstOf, nth, Song, sure } from "./orchard";

test("the main job: chords, kick, voicings, bass, check, hearing, editing, coming back, MIDI", async ({ page }) => {
  const id = await newSong(page, "Windfall Evening");
  await typeLine(page, "| Ebmaj9 | Cm7 F7sus4 F7 | Bbm7 Eb9 | Abmaj7 |");
  await expect(page.locator("[data-chord]")).toHaveCount(7);
  // Voiced at once.
  await expect
    .poll(async () =>
      firstOf((await songOf(page)).sections).chords.every((c) => (c.voicings?.keys?.pitches.length ?? 0) === 4),
    )
    .toBe(true);

  // A mistake is shown at its column, the rest of the line stays.
  await typeLine(page, "| Ebmaj9 | Cm7 F7sus4 Fjj7 | Bbm7 Eb9 | Abmaj7 |");
  await expect(page.getByRole("alert")).toContainText("column 24");
  await expect(page.locator("[data-chord]")).toHaveCount(7);
  await typeLine(page, "| Ebmaj9 | Cm7 F7sus4 F7 | Bbm7 Eb9 | Abmaj7 |");
  await expect(page.getByRole("alert")).toHaveCount(0);

  // Paint a kick by clicks and a drag, repeat it.
  await goTo(page, "Groove");
  for (const beat of [0, 2.5]) {
    const at = await drumCell(page, "kick", beat);
    await page.mouse.click(at.x, at.y);
  }
  await expect(page.locator('[data-hit^="kick@"]')).toHaveCount(2);
  await page.getByRole("button", { name: "Repeat bar 1 through the section" }).click();
  await expect(page.locator('[data-hit^="kick@"]')).toHaveCount(8);

  // Bass lines to hear and compare; one is taken and undone as one step.
  await goTo(page, "Bass");
  await page.getByRole("button", { name: "Write lines" }).click();
  const lines = page.getByRole("list", { name: "Candidates" });
  await expect.poll(() => lines.getByRole("button", { name: "Take", exact: true }).count()).toBeGreaterThan(1);
  await lines.getByRole("button", { name: "Hear" }).first().click();
  await expect(page.getByText("Hearing: line 1")).toBeVisible();
  expect(firstOf((await songOf(page)).sections).notes.bass ?? []).toHaveLength(0);
  await lines.getByRole("button", { name: "Take", exact: true }).first().click();
  await page.getByRole("tab", { name: "Report" }).click();
  const bass = async () => firstOf((await songOf(page)).sections).notes.bass ?? [];
  await expect.poll(async () => (await bass()).length).toBeGreaterThan(7);
  const written = await bass();
  expect(written.every((n) => n.reason)).toBe(true);
  await expect(page.locator(".report")).toContainText("8 of 8");
  await page.keyboard.press("Control+z");
  await expect.poll(async () => (await bass()).length).toBe(0);
  await page.keyboard.press("Control+Shift+z");
  await expect.poll(async () => (await bass()).length).toBe(written.length);

  // A deleted note on a main accent becomes a finding; its fix is taken and undone.
  await page.locator(".lane.bass [data-note]").first().click();
  await page.keyboard.press("Delete");
  await expect(page.locator(".findings")).toContainText("The main kick at bar 1, beat 1 has no bass note");
  await page.locator(".findings li").first().getByRole("button", { name: "Take" }).first().click();
  await expect(page.locator(".report")).toContainText("8 of 8");
  await page.keyboard.press("Control+z");
  await expect(page.locator(".findings")).toContainText("no bass note");
  await page.keyboard.press("Control+z");

  // Tomorrow it is still there.
  await saved(page);
  await page.reload();
  await expect(page.locator("[data-chord]")).toHaveCount(7);
  expect(await bass()).toEqual(written);

  // It plays, and is taken away.
  await page.keyboard.press("Space");
  await expect(page.getByRole("button", { name: "Stop", exact: true })).toBeVisible();
  await expect(page.locator(".where b")).toContainText("bar");
  await page.keyboard.press("Space");
  await goTo(page, "Hand over");
  const midi = page.waitForEvent("download");
  await page.getByRole("button", { name: "As it is played" }).click();
  const bytes = readFileSync(await (await midi).path());
  expect(bytes.subarray(0, 4).toString()).toBe("MThd");
  const score = page.waitForEvent("download");
  await page.getByRole("button", { name: "Save as MusicXML" }).click();
  expect(readFileSync(await (await score).path(), "utf8")).toMatch(
    /<score-partwise version="3.1"><work><work-title>.*<part-list>.*<measure number="1">/s,
  );
  const json = page.waitForEvent("download");
  await page.getByRole("button", { name: "Save as JSON" }).click();
  const file = await (await json).path();
  const parsed = Song.parse(readFileSync(file, "utf8"));
  expect(parsed.ok && parsed.value.id).toBe(id);
  await page
    .locator(".desk input[type=file]")
    .setInputFiles({ name: "windfall.json", mimeType: "application/json", buffer: readFileSync(file) });
  await page.waitForURL((url) => /songs\/.+\/chords/.test(url.pathname) && !url.pathname.includes(id));
  await expect(page.locator("[data-chord]")).toHaveCount(7);
});

test("the header is edited in place and refuses what cannot be", async ({ page }) => {
  await newSong(page, "Header");
  const set = async (label: RegExp | string, text: string) => {
    const field = page.getByLabel(label);
    await field.fill(text);
    await field.press("Enter");
  };
  await set(/^Key,/, "f# minor");
  await set(/^Tempo/, "132");
  await set(/^Swing, /, "66.7");
  await set(/^Meter/, "7/8");
  expect(await songOf(page)).toMatchObject({
    key: "F# minor",
    tempo: 132,
    meter: "7/8",
    swing: { ratio: 0.667, unit: 8 },
  });
  for (const [label, bad, message] of [
    [/^Tempo/, "0", "at least 20"],
    [/^Tempo/, "1000", "at most 400"],
    [/^Key,/, "H major", '"H major" is not a key'],
    [/^Meter/, "4/5", "is not a meter"],
    [/^Swing, /, "90", "50 to 75"],
    [/^Bars/, "900", "at most 512"],
  ] as const) {
    await set(label, bad);
    await expect(page.getByRole("alert")).toContainText(message);
    await page.getByRole("button", { name: "Close" }).click();
  }
  expect(await songOf(page)).toMatchObject({ key: "F# minor", tempo: 132, meter: "7/8" });
  const tap = page.getByRole("button", { name: "tap" });
  await page.clock.install();
  for (let i = 0; i < 5; i++) {
    await tap.click();
    await page.clock.fastForward(500);
  }
  const { tempo } = await songOf(page);
  // At least 500 ms between taps: at most 120 bpm, and less on a slow machine.
  expect(tempo).toBeLessThan(121);
});

test("voicings: cost terms are shown, another layout is pinned, the others stay, and laying out anew is offered", async ({
  page,
}) => {
  await page.goto("/songs/lanterns-on-row-nine/voicings");
  await page.locator("[data-chord]").nth(1).click();
  await page.getByRole("tab", { name: "Chord" }).click();
  await expect(page.locator(".measures tfoot")).toContainText("cost of this chord");
  const before = firstOf((await songOf(page)).sections).chords.map((c) =>
    sure(sure(c.voicings).keys).pitches.join(" "),
  );
  await page.locator(".choices li").nth(5).getByRole("button", { name: "Pin" }).click();
  await expect(page.getByText("This one is pinned.")).toBeVisible();
  const changed = async () =>
    firstOf((await songOf(page)).sections).chords.filter(
      (c, i) => sure(sure(c.voicings).keys).pitches.join(" ") !== before[i],
    ).length;
  // The others stay; what the rest would gain laid out anew around it is an offer.
  await expect.poll(changed).toBe(1);
  expect(sure(sure(nth(firstOf((await songOf(page)).sections).chords, 1).voicings).keys).pinned).toBe(true);
  const anew = page.getByRole("group", { name: "Laid out anew" });
  await expect(anew).toContainText("pinned ones stay");
  await anew.getByRole("button", { name: "Take" }).click();
  await expect.poll(changed).toBeGreaterThan(1);
  await expect(anew).toHaveCount(0);
  await page.keyboard.press("Control+z");
  await expect.poll(changed).toBe(1);
  await page.keyboard.press("Control+z");
  await expect
    .poll(async () =>
      firstOf((await songOf(page)).sections).chords.map((c) => sure(sure(c.voicings).keys).pitches.join(" ")),
    )
    .toEqual(before);
  // Another style voices every chord anew; where it does not suit, that is said.
  await page.getByRole("tab", { name: "Path" }).click();
  await page.getByLabel("Style").selectOption({ label: "Shell" });
  const sizes = async () =>
    firstOf((await songOf(page)).sections).chords.map((c) => sure(sure(c.voicings).keys).pitches.length);
  await expect.poll(async () => new Set(await sizes())).toEqual(new Set([3]));
  await page.getByLabel("Style").selectOption({ label: "Triad over shell" });
  await expect(page.getByText(/The style does not suit .*Cm7.*: they are laid out freely instead/)).toBeVisible();
  await page.keyboard.press("Control+z");
  await page.keyboard.press("Control+z");
  await expect
    .poll(async () =>
      firstOf((await songOf(page)).sections).chords.map((c) => sure(sure(c.voicings).keys).pitches.join(" ")),
    )
    .toEqual(before);
  await saved(page);
});

test("the list of songs: rename, duplicate, delete and undo, and a broken file", async ({ page }) => {
  await newSong(page, "List me");
  await page.goto("/");
  await page.getByRole("button", { name: "Rename List me" }).click();
  const field = page.getByLabel("Title of List me");
  await field.fill("Listed");
  await field.press("Enter");
  const row = page.getByRole("row").filter({ has: page.getByRole("link", { name: "Listed", exact: true }) });
  await expect(row).toHaveCount(1);
  await row.getByRole("button", { name: "Duplicate" }).click();
  await expect(page.getByRole("link", { name: "Listed (copy)" })).toBeVisible();
  await row.getByRole("button", { name: /Delete/ }).click();
  await expect(row).toHaveCount(0);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(row).toHaveCount(1);
  await page.locator("input[type=file]").setInputFiles({
    name: "broken.json",
    mimeType: "application/json",
    buffer: Buffer.from('{"version": 1, "title": "x"}'),
  });
  await expect(page.getByRole("alert")).toContainText("broken.json: id:");
});

test("a section of its own, checked by the profile that is chosen", async ({ page, request }) => {
  // A copy: other tests read the demo song as it came.
  const demo = (await (await request.get("/api/songs/lanterns-on-row-nine")).json()) as Song;
  const copy = (await (await request.post("/api/songs", { data: demo })).json()) as Song;
  await page.goto(`/songs/${copy.id}/check`);
  await expect(page.locator(".findings .severity")).toHaveText(["note"]);
  await page.getByLabel("judged as").selectOption("chorale");
  await expect(page.locator(".findings .severity").first()).toHaveText("fault");
  await page.getByRole("button", { name: "Leave, with a reason" }).first().click();
  await page.getByLabel("Reason for leaving it").fill("doubling is wanted here");
  await page.getByLabel("Reason for leaving it").press("Enter");
  await expect(page.getByText("“doubling is wanted here”")).toBeVisible();
  await page.getByLabel("Section", { exact: true }).selectOption({ label: "Chorus" });
  await expect(page.locator("[data-chord]").first()).toContainText("A");
  const song: Song = await songOf(page);
  expect(song.waivers).toHaveLength(1);
});
