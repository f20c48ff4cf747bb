import type { Page } from "@playwright/test";
import type { Song } from "../core/src/index";
import { expect, songOf, test, dragOnto, goTo } from "./fixtures";
import { demoSongs, firstOf, nth, sure } from "./orchard";

const strip = (page: Page) => page.getByRole("navigation", { name: "Form" });
const passes = (page: Page) => strip(page).locator(".form-pass");
const names = (page: Page) => passes(page).locator("b").allTextContents();

/** A copy of the ballad with each of its sections once. */
async function openBallad(page: Page): Promise<void> {
  const song = firstOf(demoSongs());
  const plain: Song = { ...song, form: song.sections.map((s, i) => ({ id: `o90${i}`, sectionId: s.id })) };
  const stored = (await (await page.request.post("/api/songs", { data: plain })).json()) as Song;
  await page.goto(`/songs/${stored.id}/chords`);
  await expect(passes(page)).toHaveCount(2);
}

async function playOnce(page: Page, section: string): Promise<void> {
  await page.getByRole("button", { name: "Add to the form" }).click();
  await strip(page).getByRole("button", { name: section, exact: true }).click();
}

test("passes are added behind the one in view, moved by keys and by dragging, taken out and brought back", async ({
  page,
}) => {
  await openBallad(page);
  await expect(strip(page)).toContainText("16 bars, 0:50.5");
  await passes(page).nth(1).getByRole("button").click();
  await playOnce(page, "Verse");
  await playOnce(page, "Chorus");
  expect(await names(page)).toEqual(["Verse", "Chorus", "Verse", "Chorus"]);
  // What was added is looked at.
  await expect(passes(page).nth(3).getByRole("button")).toHaveAttribute("aria-pressed", "true");
  await expect(page.getByLabel("Section", { exact: true })).toHaveValue(nth((await songOf(page)).sections, 1).id);
  await passes(page).nth(3).getByRole("button").press("Alt+ArrowLeft");
  expect(await names(page)).toEqual(["Verse", "Chorus", "Chorus", "Verse"]);
  await page.getByRole("button", { name: "Undo" }).first().click();
  await dragOnto(page, passes(page).nth(2), passes(page).nth(0));
  expect(await names(page)).toEqual(["Verse", "Verse", "Chorus", "Chorus"]);
  // A hand that shakes by four pixels has clicked; from six on it drags.
  const { x, y, width, height } = sure(await passes(page).nth(1).boundingBox());
  await page.mouse.move(x + width / 2, y + height / 2);
  await page.mouse.down();
  await page.mouse.move(x + width / 2 + 4, y + height / 2);
  await expect(passes(page).nth(1)).not.toHaveAttribute("style", /translate3d/);
  await page.mouse.move(x + width / 2 + 6, y + height / 2);
  await expect(passes(page).nth(1)).toHaveAttribute("style", /translate3d/);
  await page.keyboard.press("Escape");
  await page.mouse.up();
  expect(await names(page)).toEqual(["Verse", "Verse", "Chorus", "Chorus"]);
  await passes(page).nth(0).getByRole("button").press("Delete");
  await expect(passes(page)).toHaveCount(3);
  expect((await songOf(page)).sections).toHaveLength(2);
  await page.getByRole("button", { name: "Undo" }).first().click();
  await expect(passes(page)).toHaveCount(4);
});

test("a pass is trimmed, moved to a key, loses a part, gets it back; the section is left alone", async ({ page }) => {
  await openBallad(page);
  const before = await songOf(page);
  await passes(page).nth(1).getByRole("button").click();
  await page.getByRole("button", { name: "pass", exact: true }).click();
  const details = page.getByRole("group", { name: "This pass: Chorus" });
  const bars = details.getByLabel("Bars that are played, of 8");
  await bars.fill("5–8");
  await bars.press("Enter");
  await expect(strip(page)).toContainText("12 bars");
  await bars.fill("9-12");
  await bars.press("Enter");
  await expect(page.getByText("Chorus has 8 bars; bars 9 to 12 are not all in it")).toBeVisible();
  await details.getByLabel("Key of this pass").selectOption({ label: "F major, up 2" });
  await details.getByRole("checkbox", { name: "Piano" }).uncheck();
  const stored = await songOf(page);
  const piano = sure(before.parts.find((p) => p.name === "Piano")).id;
  expect(stored.form[1]).toMatchObject({ bars: [4, 8], transpose: 2, muted: [piano] });
  expect(stored.sections).toEqual(before.sections);
  await expect(passes(page).nth(1)).toContainText("F major");
  await details.getByRole("button", { name: "As its section" }).click();
  expect((await songOf(page)).form).toEqual(before.form);
  // The tempo of a section moves the times of the form.
  const tempo = details.getByLabel("Tempo of Chorus");
  await tempo.fill("152");
  await tempo.press("Enter");
  await expect(strip(page)).toContainText("16 bars, 0:37.9");
  await details.getByRole("button", { name: "As the song" }).click();
  expect((await songOf(page)).sections).toEqual(before.sections);
});

test("while the whole song plays, the strip and the score go along; a pass is looped; nothing is changed", async ({
  page,
}) => {
  await openBallad(page);
  const before = await songOf(page);
  await passes(page).nth(0).getByRole("button").click();
  await passes(page).nth(1).getByRole("button").dblclick();
  await expect(page.locator(".form-playhead")).toBeVisible({ timeout: 20_000 });
  await expect(page.getByLabel("Section", { exact: true })).toHaveValue(nth(before.sections, 1).id);
  await expect(page.locator(".where b")).toContainText(/^Chorus, bar \d/);
  await page.getByRole("button", { name: "Stop", exact: true }).click();
  await expect(page.locator(".form-playhead")).toBeHidden();
  await page.getByRole("button", { name: "pass", exact: true }).click();
  await page.getByRole("button", { name: "loop this pass" }).click();
  await expect(page.getByRole("button", { name: "Stop", exact: true })).toBeVisible();
  await expect(passes(page).nth(1)).toHaveClass(/looped/);
  await expect(passes(page).nth(0)).not.toHaveClass(/looped/);
  // From the pass in view up to another one.
  await passes(page)
    .nth(0)
    .getByRole("button")
    .click({ modifiers: ["Shift"] });
  await expect(strip(page).locator(".looped")).toHaveCount(2);
  await expect(page.locator(".form-playhead")).toBeVisible();
  await page.getByRole("button", { name: "Stop", exact: true }).click();
  expect(await songOf(page)).toEqual(before);
});

test(
  "the grid: who plays in which pass, how and how busy; a part is taken out, plays its own way in one pass, and " +
    "gives it back",
  async ({ page }) => {
    await openBallad(page);
    await passes(page).nth(1).getByRole("button").click();
    await playOnce(page, "Chorus");
    await goTo(page, "Form");
    const before = await songOf(page);
    const cell = (part: string, pass: string, time: number) =>
      page.getByRole("button", { name: new RegExp(`^${part} in ${pass}, time ${time}`) });
    const grid = page.locator(".form-grid");
    const choose = async (part: string, pass: number) => {
      await grid.getByRole("button", { name: part, exact: true }).click();
      await grid.getByRole("columnheader").nth(pass).getByRole("button").click();
    };
    await cell("Drums", "Verse", 1).click();
    const drums = sure(before.parts.find((p) => p.role === "drums")).id;
    await expect(cell("Drums", "Verse", 1)).toHaveAccessibleName(/: out$/);
    expect(firstOf((await songOf(page)).form).muted).toEqual([drums]);
    await choose("Piano", 2);
    expect(nth((await songOf(page)).form, 2).muted).toBeUndefined();
    await page.getByLabel("Rhythm of Piano here").selectOption({ label: "On every beat" });
    await expect(cell("Piano", "Chorus", 2)).toHaveAccessibleName(/4 attacks a bar, in its own way/);
    await expect(cell("Piano", "Chorus", 1)).not.toHaveAccessibleName(/its own way/);
    // Dragged to the other chorus, it is played so there as well.
    await dragOnto(page, cell("Piano", "Chorus", 2), cell("Piano", "Chorus", 1));
    await expect(cell("Piano", "Chorus", 1)).toHaveAccessibleName(/4 attacks a bar, in its own way/);
    await page.getByRole("button", { name: "Undo" }).first().click();
    await choose("Piano", 2);
    await page.getByRole("button", { name: "Play as in its section" }).click();
    await page.getByRole("button", { name: "Drums in Verse, time 1: out" }).press("Enter");
    expect((await songOf(page)).form).toEqual(before.form);
  },
);

test("a section is moved to another key, and back", async ({ page }) => {
  await openBallad(page);
  const before = await songOf(page);
  await passes(page).nth(1).getByRole("button").click();
  await page.getByRole("button", { name: "pass", exact: true }).click();
  await page.getByLabel("Move Chorus", { exact: true }).selectOption({ label: "F major, up 2" });
  const moved = await songOf(page);
  expect(moved.sections[1]).toMatchObject({ key: "F major" });
  expect(firstOf(nth(moved.sections, 1).chords).symbol).toBe("Bbmaj9");
  expect(moved.sections[0]).toEqual(before.sections[0]);
  await page.getByLabel("Move Chorus", { exact: true }).selectOption({ label: "E♭ major, down 2" });
  expect((await songOf(page)).sections).toEqual(before.sections);
});

test(
  "here only: a chord and a note are changed in one pass, shown as its own, and given back; without it all " +
    "passes change",
  async ({ page }) => {
    await openBallad(page);
    await passes(page).nth(1).getByRole("button").click();
    await playOnce(page, "Chorus");
    const before = await songOf(page);
    const chords = page.locator(".chord");
    await page.getByRole("button", { name: "here only" }).click();
    await expect(page.getByText("written for this pass alone")).toBeVisible();
    const rename = async (at: number, symbol: string) => {
      await chords.nth(at).dblclick();
      await page.getByLabel("Chord symbol").fill(symbol);
      await page.getByLabel("Chord symbol").press("Enter");
      await page.keyboard.press("Escape");
    };
    await rename(1, "Db7");
    await expect(chords.nth(1)).toContainText("D♭");
    await expect(page.locator(".own-bars")).toHaveCount(1);
    await expect
      .poll(async () =>
        nth((await songOf(page)).form, 2).own?.map((o) =>
          o.chords?.map((c) => [c.symbol, Object.keys(c.voicings ?? {})]),
        ),
      )
      .toEqual([[["Db7", ["keys"]]]]);
    expect((await songOf(page)).sections).toEqual(before.sections);
    // The first chorus is as it was.
    await passes(page).nth(1).getByRole("button").click();
    await expect(chords.nth(1)).toContainText("B♭");
    await expect(page.locator(".own-bars")).toHaveCount(0);
    // Without it every chorus changes, but for the bar that is owned.
    await rename(0, "Fm9");
    await passes(page).nth(2).getByRole("button").click();
    await expect(chords.nth(0)).toContainText("Fm");
    await expect(chords.nth(1)).toContainText("D♭");
    await page.getByRole("button", { name: "pass", exact: true }).click();
    const own = page.getByRole("group", { name: "Of this pass alone" });
    await expect(own).toContainText("bar 2, chords");
    await own.getByRole("button", { name: "Give back" }).click();
    await expect(chords.nth(1)).toContainText("B♭");
    expect((await songOf(page)).form).toEqual(before.form);
  },
);

test("a pass in another key is shown, written and undone in that key", async ({ page }) => {
  await openBallad(page);
  await passes(page).nth(1).getByRole("button").click();
  await page.getByRole("button", { name: "pass", exact: true }).click();
  await page.getByLabel("Key of this pass").selectOption({ label: "F major, up 2" });
  const chords = page.locator(".chord");
  await expect(chords.nth(0)).toContainText("B♭");
  await chords.nth(0).dblclick();
  await page.getByLabel("Chord symbol").fill("Bbmaj7");
  await page.getByLabel("Chord symbol").press("Enter");
  await expect.poll(async () => firstOf(nth((await songOf(page)).sections, 1).chords).symbol).toBe("Abmaj7");
  await page.keyboard.press("Escape");
  await page.getByRole("button", { name: "Undo" }).first().click();
  await expect.poll(async () => firstOf(nth((await songOf(page)).sections, 1).chords).symbol).toBe("Abmaj9");
});

test("a new section stands behind the pass in view; F2 names a pass where it stands", async ({ page }) => {
  await openBallad(page);
  await passes(page).nth(0).getByRole("button").click();
  await page.getByRole("button", { name: "Add to the form" }).click();
  await page.getByRole("button", { name: "New section", exact: true }).click();
  expect(await names(page)).toEqual(["Verse", "Section 3", "Chorus"]);
  await passes(page).nth(1).getByRole("button").press("F2");
  await page.getByLabel("Name of this pass").fill("Break");
  await page.getByLabel("Name of this pass").press("Enter");
  expect(await names(page)).toEqual(["Verse", "Break", "Chorus"]);
});

test("the bass leads on: what a written line goes to is told, and a pass that goes elsewhere gets a last bar of its own", async ({
  page,
}) => {
  await openBallad(page);
  // Verse, verse, chorus: once back to its beginning, once on.
  await passes(page).nth(0).getByRole("button").click();
  await playOnce(page, "Verse");
  await goTo(page, "Bass");
  await expect(page.getByText(/The line leads on to its own beginning .* It also goes on to Chorus/)).toBeVisible();
  await page.getByLabel("Style", { exact: true }).selectOption({ label: "Walking" });
  await page.getByRole("button", { name: "Write lines" }).click();
  await page.getByRole("button", { name: "Take", exact: true }).first().click();
  await expect.poll(async () => sure(firstOf((await songOf(page)).sections).notes.bass).length).toBeGreaterThan(24);
  const { form } = await songOf(page);
  const own = form.filter((p) => p.own);
  expect(own.map((p) => sure(p.own).map((o) => [o.bars, Object.keys(o.notes ?? {})]))).toEqual([[[[7, 8], ["bass"]]]]);
  await page.getByRole("button", { name: "Undo" }).first().click();
  await expect.poll(async () => (await songOf(page)).form.filter((p) => p.own).length).toBe(0);
});

test("notes, a part and a section are moved along the scale, the mode is changed; what it brings is told", async ({
  page,
}) => {
  await openBallad(page);
  await passes(page).nth(1).getByRole("button").click();
  const before = await songOf(page);
  await page.getByRole("button", { name: "change Orla, voice" }).click();
  await page.getByLabel("Move the notes of Orla, voice in Chorus").selectOption({ label: "↑ fourth" });
  await expect(page.getByText(/Orla, voice went up a fourth in Chorus\. .*where it is comfortable/)).toBeVisible();
  const pitch = async () => firstOf(sure(nth((await songOf(page)).sections, 1).notes.melody)).pitch;
  expect(await pitch()).toBe("F5");
  await page.getByRole("button", { name: "Undo" }).first().click();
  await page.keyboard.press("Escape");
  await page.getByRole("button", { name: "pass", exact: true }).click();
  await page.getByLabel("Move Chorus", { exact: true }).selectOption({ label: "up a second" });
  expect(firstOf(nth((await songOf(page)).sections, 1).chords).symbol).toMatch(/^Bb/);
  expect(await pitch()).toBe("D5");
  await page.getByRole("button", { name: "Undo" }).first().click();
  await expect.poll(pitch).toBe("C5");
  // The whole song along its scale, from the menu of the sections.
  await page.getByRole("button", { name: "What to do with sections" }).click();
  await page.getByLabel("Move the whole song along its scales").selectOption({ label: "↑ a second" });
  const [verse, chorus] = (await songOf(page)).sections;
  expect([firstOf(sure(verse).chords).symbol, firstOf(sure(chorus).chords).symbol]).toEqual([
    "Fm9",
    expect.stringMatching(/^Bb/),
  ]);
  await page.getByRole("button", { name: "Undo" }).first().click();
  await expect.poll(pitch).toBe("C5");
  await page.getByLabel("Move Chorus", { exact: true }).selectOption({ label: "C minor, the relative" });
  expect((await songOf(page)).sections[1]).toMatchObject({ key: "C minor" });
  expect(firstOf(nth((await songOf(page)).sections, 1).chords).symbol).toMatch(/^Fm/);
  await page.getByRole("button", { name: "Undo" }).first().click();
  await expect.poll(async () => (await songOf(page)).sections).toEqual(before.sections);
});

test("a section typed in another key is offered a key of its own; the song keeps its key for the others", async ({
  page,
}) => {
  await page.goto("/");
  await page.getByPlaceholder("Title of a new song").fill("Windfall Gate");
  await page.getByRole("button", { name: "chords", exact: true }).click();
  const line = page.getByLabel("Chord line");
  const type = async (text: string) => {
    await line.fill(text);
    await line.press("Control+Enter");
    await line.blur();
  };
  await type("| F | Dm7 | Gm7 | C7 |");
  // Nothing else is in the key that a new song begins with.
  await page.getByRole("button", { name: "F major?", exact: true }).click();
  await expect(page.getByLabel("Key, for example E♭ major")).toHaveValue("F major");
  await page.getByRole("button", { name: "Add to the form" }).click();
  await strip(page).getByRole("button", { name: "New section", exact: true }).click();
  await type("| Db | Ab/C | Bbm7 | Gb Ab7 |");
  await page.getByRole("button", { name: "D♭ major for Section 2?" }).click();
  await expect(passes(page).nth(1)).toContainText("D♭ major");
  const song = await songOf(page);
  expect([song.key, song.sections.map((s) => s.key ?? "")]).toEqual(["F major", ["", "Db major"]]);
});
