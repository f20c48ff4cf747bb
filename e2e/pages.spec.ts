import type { Page } from "@playwright/test";
import { getDocument } from "pdfjs-dist/legacy/build/pdf.mjs";
import { faultsOn } from "./boxes";
import { expect, test } from "./fixtures";
import { demoSongs, firstOf, nth, sure } from "./orchard";

/** A copy of a demo song for this test alone: others change theirs. Returns its address. */
async function copyOf(page: Page, id: string): Promise<string> {
  const song = sure(demoSongs().find((s) => s.id === id));
  const made = await page.request.post("/api/songs", { data: song });
  expect(made.ok()).toBe(true);
  return `/songs/${((await made.json()) as { id: string }).id}`;
}

const BALLAD = "lanterns-on-row-nine";
const SONGS = [BALLAD, "cider-press-strut", "hayloft-waltz", "sorting-shed-stomp"];

/** Songs with singers of their own. */
const SUNG = [BALLAD];

const drawn = async (page: Page): Promise<void> => {
  await expect(page.locator(".singer-page").first()).toBeVisible();
  await expect(page.locator(".page-host[aria-busy=true]")).toHaveCount(0);
};

interface Printed {
  width: number;
  height: number;
  text: string;
}

/** The pages of what is printed, read back: spaces between pieces of a text mean nothing. */
async function printed(page: Page): Promise<Printed[]> {
  const pdf = await page.pdf({ preferCSSPageSize: true });
  const document = await getDocument({ data: new Uint8Array(pdf), verbosity: 0 }).promise;
  return Promise.all(
    Array.from({ length: document.numPages }, async (_, i) => {
      const one = await document.getPage(i + 1);
      const content = await one.getTextContent();
      const [, , width, height] = one.view as [number, number, number, number];
      return {
        width,
        height,
        text: content.items
          .map((item) => ("str" in item ? item.str : ""))
          .join("")
          .replace(/\s+/g, ""),
      };
    }),
  );
}

test("from Hand over to a lead sheet on A4 and Letter: title, key, tempo, words and symbols, read back from the PDF", async ({
  page,
}) => {
  await page.goto(`${await copyOf(page, BALLAD)}/handover`);
  await page.getByRole("link", { name: "Lead sheet" }).click();
  await drawn(page);
  const [first] = await printed(page);
  expect([Math.round(sure(first).width), Math.round(sure(first).height)]).toEqual([595, 842]);
  for (const text of [
    "LanternsonRowNine",
    "E♭major",
    "♩=76",
    "swungeighths",
    "Verse",
    "Chorus",
    "bough",
    "Cm7/B♭",
    "A♭maj9",
  ])
    expect([text, sure(first).text.includes(text)]).toEqual([text, true]);
  expect(sure(first).text).not.toContain("Backtothesong");
  await page.getByLabel("Paper").selectOption("letter");
  await drawn(page);
  const [letter] = await printed(page);
  expect([Math.round(sure(letter).width), Math.round(sure(letter).height)]).toEqual([612, 792]);
  // For an instrument in B♭ everything stands a whole tone higher.
  await page.getByLabel("Written in").selectOption({ label: "B♭, a whole tone higher" });
  await drawn(page);
  const [higher] = await printed(page);
  for (const text of ["Fmajor", "Dm7/C", "B♭maj9"])
    expect([text, sure(higher).text.includes(text)]).toEqual([text, true]);
});

test("each player has pages of their own; comping can be laid out as slashes; a part left out is not printed", async ({
  page,
}) => {
  await page.goto(`${await copyOf(page, "cider-press-strut")}/pages?for=parts`);
  await drawn(page);
  await expect(page.locator(".singer-page")).toHaveCount(4);
  const pages = await printed(page);
  expect(pages).toHaveLength(4);
  expect(firstOf(pages).text).toContain("ClarinetinB♭");
  // Concert D minor is read in E minor.
  expect(firstOf(pages).text).toContain("Eminor");
  expect(firstOf(pages).text).toContain("Em9");
  // Signs are set in names of notes, not in words.
  await expect(page.getByRole("article", { name: /^Bass guitar/ })).toContainText("Bass guitar, four strings");
  expect(nth(pages, 3).text).toContain("frombelow:kick,clap,closedhat,openhat");
  const piano = page.locator(".singer-page").nth(1);
  const heads = await piano.locator(".staff-note").count();
  await page.getByLabel("Comping parts").selectOption("slashes");
  await drawn(page);
  // A slash a beat: eight bars of four, and the last time, which is played otherwise.
  await expect(piano.locator(".staff-note")).toHaveCount(64);
  expect(heads).not.toBe(64);
  await page.getByRole("checkbox", { name: "Drums" }).uncheck();
  await expect(page.locator(".singer-page")).toHaveCount(3);
});

test("a guitar part has its shapes above it, each once, and strings and frets under its staff", async ({ page }) => {
  await page.goto(`${await copyOf(page, "hayloft-waltz")}/pages?for=parts`);
  await drawn(page);
  const guitar = page.getByRole("article", { name: /guitar/i });
  const shapes = guitar.getByRole("list", { name: "Shapes" }).getByRole("listitem");
  await expect(shapes.first()).toContainText("Gmaj7");
  await expect(shapes.first().getByRole("img")).toHaveAccessibleName("Frets 3 2 0 0 0 2");
  expect(await shapes.count()).toBe(8);
  await expect(guitar.locator(".vf-tabnote").first()).toBeVisible();
});

test("a chord chart has each bar's symbols and stands in no other bar's place; a score names every part", async ({
  page,
}) => {
  await page.goto(`${await copyOf(page, BALLAD)}/pages?for=chart`);
  // Verse, chorus, the chorus with another ending, and the last one in its own key; the verse without drums has the
  // same chords.
  await expect(page.locator(".chart li")).toHaveCount(32);
  await expect(page.locator(".chart li").nth(3).locator(".chord-name")).toHaveText(["B♭9sus4", "B♭7"]);
  const crossing = await page.locator(".chart li").evaluateAll((bars) =>
    bars.flatMap((bar) => {
      const { right } = bar.getBoundingClientRect();
      const chords = [...bar.querySelectorAll(".chart-chord")].map((c) => c.getBoundingClientRect());
      return chords.filter((c, i) => c.right > (chords[i + 1]?.left ?? right)).map(() => bar.textContent);
    }),
  );
  expect(crossing).toEqual([]);
  const [chart] = await printed(page);
  expect(sure(chart).text).toContain("Gm7");
  await page.getByLabel("What to print").selectOption("score");
  await drawn(page);
  await expect(page.locator(".singer-page .part-name").first()).toBeVisible();
  const [score] = await printed(page);
  for (const name of ["Orla,voice", "Bass", "Drums"])
    expect([name, sure(score).text.includes(name)]).toEqual([name, true]);
});

for (const song of SONGS)
  test(`nothing touches and nothing is cut off on the pages and staves of ${song}`, async ({ page }) => {
    const address = await copyOf(page, song);
    for (const kind of ["lead", "parts", "score", ...(SUNG.includes(song) ? ["singers"] : [])]) {
      await page.goto(`${address}/pages?for=${kind}`);
      await drawn(page);
      expect([kind, await faultsOn(page)]).toEqual([kind, []]);
    }
    await page.goto(`${address}/voicings`);
    await page.getByRole("button", { name: "staves" }).click();
    const staves = page.locator(".notation select");
    for (const name of await staves.locator("option").allTextContents()) {
      await staves.selectOption({ label: name });
      await expect(page.locator(".sheet[aria-busy=false] .sheet-system svg").first()).toBeVisible();
      expect([name, await faultsOn(page)]).toEqual([name, []]);
    }
  });
