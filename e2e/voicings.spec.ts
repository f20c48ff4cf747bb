import type { Page } from "@playwright/test";
import { expect, songOf, test, unreadable } from "./fixtures";
import { firstOf, lastOf, nth, Pitch, type Song, sure } from "./orchard";

/** A copy of a demo song, so that nothing a test does is seen by another. */
async function copyOf(page: Page, id: string, workspace = "voicings"): Promise<void> {
  const demo = (await (await page.request.get(`/api/songs/${id}`)).json()) as Song;
  const copy = (await (await page.request.post("/api/songs", { data: demo })).json()) as Song;
  await page.goto(`/songs/${copy.id}/${workspace}`);
  await expect(page.locator("[data-chord]").first()).toBeVisible();
}

const part = async (page: Page, name: string) => sure((await songOf(page)).parts.find((p) => p.name === name));
const pitches = async (page: Page, id: string) =>
  firstOf((await songOf(page)).sections).chords.map((c) => c.voicings?.[id]?.pitches.join(" ") ?? "");

test("the path: a weight is dragged, five other ways are heard, compared and taken, all of it undone step by step", async ({
  page,
}) => {
  await copyOf(page, "lanterns-on-row-nine");
  const before = await pitches(page, "keys");
  const slider = page.getByLabel("Weight of semitones moved in all");
  await slider.focus();
  await slider.press("Home");
  await expect.poll(() => pitches(page, "keys")).not.toEqual(before);
  await page.getByRole("button", { name: "Back to the usual weights" }).click();
  await expect.poll(() => pitches(page, "keys")).toEqual(before);

  await page.getByRole("button", { name: "Find five" }).click();
  const ways = page.getByRole("list", { name: "Other ways" });
  await expect(ways.getByRole("button", { name: "Take" })).toHaveCount(5);
  await page.getByRole("button", { name: "Remember these" }).click();
  await expect(ways.getByRole("button", { name: "Take" })).toHaveCount(6);
  await page.keyboard.press("2");
  await expect(page.getByText("Hearing: way 2")).toBeVisible();
  expect(await pitches(page, "keys")).toEqual(before);
  await page.keyboard.press("a");
  await expect(page.getByText("Hearing: what is written")).toBeVisible();
  await page.keyboard.press("a");
  await page.keyboard.press("t");
  await expect.poll(() => pitches(page, "keys")).not.toEqual(before);
  const chords = firstOf((await songOf(page)).sections).chords;
  expect(chords.every((c) => sure(sure(c.voicings).keys).pinned)).toBe(true);
  // What was kept aside is still there to come back to.
  await ways.getByRole("listitem").last().getByRole("button", { name: "Take" }).click();
  await expect.poll(() => pitches(page, "keys")).toEqual(before);
  await page.getByRole("button", { name: "Let all go" }).click();
  await expect
    .poll(async () => firstOf((await songOf(page)).sections).chords.some((c) => sure(sure(c.voicings).keys).pinned))
    .toBe(false);
});

test("one key each: inversion, style, register, instrument; a wanted top note; a stretch with an easier way", async ({
  page,
}) => {
  await copyOf(page, "lanterns-on-row-nine");
  await page.locator("[data-chord]").nth(1).click();
  await page.getByRole("tab", { name: "Chord" }).click();
  const chord = async () => sure(sure(nth(firstOf((await songOf(page)).sections).chords, 1).voicings).keys);
  const start = (await chord()).pitches.map(Pitch.midi);
  await page.keyboard.press("i");
  await expect.poll(async () => (await chord()).pitches.map(Pitch.midi)[0]).toBeGreaterThan(firstOf(start));
  expect((await chord()).pinned).toBe(true);
  await page.keyboard.press("Shift+I");
  await expect.poll(async () => (await chord()).pitches.map(Pitch.midi)).toEqual(start);
  await page.getByRole("button", { name: "Unpin" }).click();

  const wanted = page.getByLabel("Wanted top note");
  await wanted.fill("G5");
  await wanted.press("Enter");
  await expect.poll(async () => (await chord()).pitches.at(-1)).toBe("G5");
  await wanted.fill("any");
  await wanted.press("Enter");
  await expect.poll(async () => (await chord()).top).toBeUndefined();

  await page.getByRole("tab", { name: "Path" }).click();
  await page.getByRole("tab", { name: "Path" }).press("r");
  await expect.poll(async () => (await part(page, "Piano")).playing.voicing?.register).toBe(-1);
  await page.keyboard.press("v");
  await expect(page.getByLabel("Style")).toHaveValue("every");
  await page.keyboard.press("o");
  await expect.poll(async () => (await part(page, "Piano")).instrument).toBe("electricPiano");

  // A tenth in one hand is named, and an easier layout offered.
  const id = nth(firstOf((await songOf(page)).sections).chords, 1).id;
  await page.getByRole("tab", { name: "Chord" }).click();
  await page.getByRole("tab", { name: "Path" }).click();
  await page.getByLabel("Hands", { exact: true }).selectOption("1");
  await page.getByLabel("One hand reaches").selectOption("16");
  await page.getByLabel("Number of voices").selectOption("3");
  await page.getByLabel("Style").selectOption("open");
  await page.getByRole("tab", { name: "Chord" }).click();
  await expect(page.getByText(/A stretch of/)).toBeVisible();
  await page.getByRole("button", { name: /^Easier:/ }).click();
  await expect(page.getByText(/A stretch of/)).toHaveCount(0);
  expect(
    sure(sure(sure(firstOf((await songOf(page)).sections).chords.find((c) => c.id === id)).voicings).keys).pinned,
  ).toBe(true);
});

test("parts from one harmony: a guitar in a rhythm, a pad, block chords; they follow, and are detached", async ({
  page,
}) => {
  await copyOf(page, "lanterns-on-row-nine");
  await page.getByRole("tab", { name: "Parts" }).click();
  await page.getByRole("button", { name: "Chords in a rhythm", exact: true }).click();
  await expect.poll(async () => (await pitches(page, (await part(page, "Guitar")).id)).every(Boolean)).toBe(true);
  // Also where nobody is looking: in the chorus.
  await expect
    .poll(async () => {
      const { id } = await part(page, "Guitar");
      return nth((await songOf(page)).sections, 1).chords.every((c) => c.voicings?.[id]?.pitches.length);
    })
    .toBe(true);
  // Shapes stand beside the symbols.
  await expect(page.locator(".chord .fret-diagram").first()).toBeVisible();
  await page.getByLabel("Rhythm of Guitar").selectOption("backbeat");
  await expect(page.getByRole("region", { name: "Guitar" }).locator("[data-note]")).not.toHaveCount(0);
  const step = page.getByRole("button", { name: "Step 1: silent" });
  await step.click();
  await expect.poll(async () => (await part(page, "Guitar")).playing.comp?.rhythm).toBe("x...X.......X...");

  await page.getByRole("button", { name: "Pad", exact: true }).click();
  const pad = page.getByRole("region", { name: "Pad" }).locator("[data-note]");
  await expect(pad.first()).toBeVisible();
  await page.getByRole("button", { name: "Detach" }).click();
  const padId = (await part(page, "Pad")).id;
  expect((await part(page, "Pad")).link).toBeUndefined();
  expect(sure(firstOf((await songOf(page)).sections).notes[padId]).length).toBeGreaterThan(10);

  await page.getByRole("button", { name: "Block chords under a tune" }).click();
  const block = (await part(page, "Block chords")).id;
  await expect.poll(async () => firstOf((await songOf(page)).sections).notes[block]?.length ?? 0).toBeGreaterThan(80);
  // The tune moves, the block chords go with it.
  const count = sure(firstOf((await songOf(page)).sections).notes[block]).length;
  for (const lane of ["Guitar", "Pad", "Piano", "Bass"]) {
    // Where there is no room for all, some are folded already, or are in this moment.
    const open = page.getByRole("button", { name: `fold ${lane}`, exact: true });
    await expect(async () => {
      if (await open.count()) await open.click({ timeout: 1000 });
    }).toPass();
  }
  await page.getByRole("region", { name: "Orla, voice" }).locator("[data-note] .head").nth(3).click();
  await page.keyboard.press("Delete");
  await expect.poll(async () => sure(firstOf((await songOf(page)).sections).notes[block]).length).toBe(count - 4);
  await page.keyboard.press("Control+z");
  await expect.poll(async () => sure(firstOf((await songOf(page)).sections).notes[block]).length).toBe(count);
});

test("melodic chords: the piano's top follows the voice and the report counts", async ({ page }) => {
  await copyOf(page, "lanterns-on-row-nine");
  await page.getByLabel("The top follows").selectOption({ label: "Orla, voice" });
  await expect(page.getByText(/of 12 wanted top notes are met/)).toBeVisible();
  await expect
    .poll(async () => {
      const section = firstOf((await songOf(page)).sections);
      const tune = sure(section.notes.melody);
      return section.chords.filter((c) => {
        const note =
          tune.findLast((n) => n.start <= c.start && n.start + n.duration > c.start) ??
          sure(tune.find((n) => n.start > c.start));
        return Pitch.midi(lastOf(sure(sure(c.voicings).keys).pitches)) === Pitch.midi(note.pitch);
      }).length;
    })
    .toBeGreaterThan(9);
});

test("guitar: the easiest capo for the song is taken, its shapes are drawn, another tuning is read or refused", async ({
  page,
}) => {
  await copyOf(page, "lanterns-on-row-nine");
  await page.getByRole("tab", { name: "Instrument" }).click();
  await page.getByLabel("Instrument", { exact: true }).selectOption({ label: "Steel-string guitar" });
  await expect(page.locator(".chord .fret-diagram").first()).toBeVisible();
  await page.getByRole("tab", { name: "Path" }).click();
  await page.getByRole("button", { name: "Easiest for the song" }).click();
  const capos = page.getByRole("list", { name: "Capos" });
  await expect(capos).toContainText("Capo 3: think in C major", { timeout: 40_000 });
  await capos.getByRole("button", { name: "Take" }).first().click();
  await expect.poll(async () => (await part(page, "Piano")).playing.voicing?.capo).toBe(3);
  const tuning = page.getByLabel("Tuning, lowest drawn string first");
  await tuning.fill("D2 A2 H3 G3 B3 E4");
  await tuning.press("Enter");
  await expect(page.getByRole("alert")).toContainText('"H3" is not a note');
  await tuning.fill("D2 A2 D3 G3 B3 E4");
  await tuning.press("Enter");
  await expect
    .poll(async () => (await part(page, "Piano")).playing.voicing?.tuning?.join(" "))
    .toBe("D2 A2 D3 G3 B3 E4");
});

test("an instrument of one's own is made and changed; what cannot be is refused", async ({ page }) => {
  await copyOf(page, "lanterns-on-row-nine");
  await page.getByRole("tab", { name: "Instrument" }).click();
  await page.getByRole("button", { name: "New instrument from this one" }).click();
  const name = page.getByLabel("Name of the instrument");
  await expect(name).toHaveValue("Grand piano, my own");
  await name.fill("Barn upright");
  await name.press("Enter");
  const high = page.getByLabel("comfortable, highest note");
  await high.fill("A4");
  await high.press("Enter");
  await expect
    .poll(async () => (await songOf(page)).instruments?.[0])
    .toMatchObject({ title: "Barn upright", comfortable: ["C2", "A4"] });
  await expect
    .poll(async () =>
      firstOf((await songOf(page)).sections).chords.every((c) =>
        sure(sure(c.voicings).keys).pitches.every((p) => Pitch.midi(p) <= 69),
      ),
    )
    .toBe(true);
  await high.fill("C1");
  await high.press("Enter");
  await expect(page.getByRole("alert")).toContainText("the lower end of a range comes first");
  await page.getByRole("button", { name: "Remove this instrument" }).click();
  await expect.poll(async () => (await songOf(page)).instruments).toBeUndefined();
});

test("on staves: key, clefs, tablature, written pitch; the playhead goes along at practice tempo", async ({ page }) => {
  await copyOf(page, "cider-press-strut");
  await page.getByRole("button", { name: "staves" }).click();
  await expect(page.locator(".sheet svg").first()).toBeVisible();
  await expect(page.locator(".sheet-chord")).toHaveCount(10);
  // Clarinet, two staves of the piano, bass and its strings, drums with their legend: a clef each, and fret numbers.
  await expect(page.locator(".sheet svg").first().locator(".vf-clef")).toHaveCount(6);
  await expect(page.locator(".staff-name small")).toContainText("from below: kick");
  await expect(page.locator(".sheet .vf-tabnote").first()).toBeAttached();
  const signature = () => page.locator(".sheet svg").first().locator(".vf-keysignature").first().innerHTML();
  const sounding = await signature();
  await page.getByRole("button", { name: "as players read it" }).click();
  await expect.poll(signature).not.toBe(sounding);
  // Alone, the clarinet has its chord symbols in its own key; with others, as they sound, and that is said.
  await expect(page.getByText("chord symbols as they sound")).toBeVisible();
  await page.locator(".notation select").selectOption({ label: "Clarinet" });
  await expect(page.locator(".sheet-chord").first()).toHaveAccessibleName(/^Em9, /);
  await page.locator(".notation select").selectOption({ index: 0 });
  await page.getByLabel("Practice tempo").selectOption("0.5");
  await page.keyboard.press("Space");
  const head = page.locator(".sheet .playhead");
  await expect(head).toBeVisible();
  const first = (await head.boundingBox())?.x;
  await expect.poll(async () => (await head.boundingBox())?.x).not.toBe(first);
  await page.keyboard.press("Space");
  await expect(head).toBeHidden();
  await page.getByRole("button", { name: "lanes" }).click();
  await expect(page.locator(".lane.bass [data-note]").first()).toBeVisible();
});

test(
  "a note is chosen on the staff as in its lane: the arrows go on from it and move it, and the lane shows the " +
    "same one",
  async ({ page }) => {
    await copyOf(page, "cider-press-strut");
    await page.getByRole("button", { name: "staves" }).click();
    const heads = page.locator(".staff-note[data-part=melody]");
    await expect(heads.first()).toBeVisible();
    await heads.nth(1).click();
    const note = sure(await heads.nth(1).getAttribute("data-note"));
    const pitch = async () =>
      sure(sure(firstOf((await songOf(page)).sections).notes.melody).find((n) => n.id === note)).pitch;
    await expect(page.locator(".staff-note.chosen")).toHaveCount(1);
    const before = await pitch();
    await page.locator(".sheet").focus();
    await page.keyboard.press("Shift+ArrowUp");
    await expect.poll(pitch).not.toBe(before);
    // Drawn anew, it is still the chosen one; the arrow goes to the next.
    await expect(page.locator(`.staff-note.chosen[data-note="${note}"]`)).toHaveCount(1);
    await page.keyboard.press("Control+z");
    await expect.poll(pitch).toBe(before);
    await page.keyboard.press("ArrowRight");
    await expect(page.locator(`.staff-note.chosen[data-note="${note}"]`)).toHaveCount(0);
    const next = sure(await page.locator(".staff-note.chosen").first().getAttribute("data-note"));
    await page.getByRole("button", { name: "lanes" }).click();
    await expect(page.locator(`[data-note="${next}"]`).first()).toHaveAttribute("aria-pressed", "true");
  },
);

test("every tab and the staves can be read by everybody: axe finds nothing", async ({ page }) => {
  await copyOf(page, "hayloft-waltz");
  for (const name of ["Path", "Chord", "Parts", "Instrument"]) {
    await page.getByRole("tab", { name }).click();
    if (name === "Instrument") {
      await page.getByRole("button", { name: "Change it for this song" }).click();
      await page.getByRole("button", { name: "staves" }).click();
      await expect(page.locator(".sheet svg").first()).toBeVisible();
    }
    const where = name === "Instrument" ? "page" : "beside the score";
    expect([name, await unreadable(page, where)]).toEqual([name, []]);
  }
});
