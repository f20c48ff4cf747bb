/** Takes one current picture of each main view from the demo songs: `npm run screenshots`. */
import { sure } from "../core/src/index";
import path from "node:path";
import { fileURLToPath } from "node:url";
import { chromium, type Page } from "@playwright/test";
import config from "../playwright.config";
import { launchServer } from "./fixtures";

const folder = path.join(path.dirname(fileURLToPath(import.meta.url)), "../docs/screenshots");
const ballad = "/songs/lanterns-on-row-nine";
const groove = "/songs/cider-press-strut";
const waltz = "/songs/hayloft-waltz";

const VIEWS: [name: string, path: string, prepare?: (page: Page) => Promise<unknown>][] = [
  ["songs", "/"],
  ["groove", `${groove}/groove`],
  [
    "chords",
    `${ballad}/chords`,
    async (page) => {
      await page.getByLabel("Section", { exact: true }).selectOption({ label: "Chorus" });
      await page.waitForTimeout(600);
      await page.locator("[data-chord]").nth(3).click();
      await page.getByRole("tab", { name: "Tones" }).click();
    },
  ],
  [
    "reharmonize",
    `${ballad}/chords`,
    async (page) => {
      await page.locator("[data-chord]").nth(2).click();
      await page.getByRole("tab", { name: "Reharmonize" }).click();
      await page.getByLabel("From close to adventurous").fill("0.5");
      await page.waitForTimeout(800);
    },
  ],
  [
    "voicings",
    `${ballad}/voicings`,
    async (page) => {
      await page.locator("[data-chord]").nth(2).click();
      await page.getByRole("button", { name: "Find five" }).click();
      await page.getByRole("list", { name: "Other ways" }).waitFor();
    },
  ],
  [
    "shapes",
    `${waltz}/voicings`,
    async (page) => {
      await page.locator("[data-chord]").nth(1).click();
      await page.getByRole("tab", { name: "Chord" }).click();
    },
  ],
  [
    "parts",
    `${waltz}/voicings`,
    (page) =>
      page
        .getByRole("tab", { name: "Parts" })
        .click()
        .then(() => page.locator(".part-name").nth(1).click()),
  ],
  [
    "staves",
    `${waltz}/voicings`,
    async (page) => {
      await page.getByRole("button", { name: "staves" }).click();
      await page.locator(".sheet svg").first().waitFor();
      await page.locator(".notation select").selectOption({ label: "Guitar" });
    },
  ],
  [
    "lines",
    `${waltz}/lines`,
    async (page) => {
      await page.getByRole("tab", { name: "Report" }).click();
      await page.locator(".report").waitFor();
      await page.getByRole("button", { name: "Leaps" }).click();
    },
  ],
  [
    "words",
    `${ballad}/lines`,
    async (page) => {
      await page.getByRole("tab", { name: "Words" }).click();
      await page.getByLabel("Verse", { exact: true }).selectOption({ label: "2" });
      await page.locator("#words").fill("Lanterns hang above the orchard row\nevery apple waits for you to go");
      await page.getByRole("group", { name: "Syllables" }).waitFor();
      await page.getByRole("button", { name: /^Lay under/ }).click();
    },
  ],
  [
    "answer",
    `${groove}/lines`,
    async (page) => {
      await page.getByRole("tab", { name: "Answer" }).click();
      await page.getByRole("button", { name: "Add a counter melody" }).click();
      await page.getByRole("button", { name: "Write lines" }).click();
      await page.getByRole("list", { name: "Candidates" }).waitFor();
      await page.keyboard.press("1");
      await page.waitForTimeout(500);
      await page.keyboard.press("Space");
    },
  ],
  [
    "voices",
    `${ballad}/lines`,
    async (page) => {
      await page.getByLabel("Section", { exact: true }).selectOption({ label: "Chorus" });
      await page.getByRole("tab", { name: "Voices" }).click();
      await page.getByRole("button", { name: "Write for Wren, voice" }).click();
      await page.getByRole("button", { name: "Write the voice" }).click();
      await page.getByRole("list", { name: "Candidates" }).waitFor();
      await page.evaluate(() => document.getElementById("panel")!.scrollBy(0, 90));
    },
  ],
  [
    "singers",
    `${ballad}/lines`,
    async (page) => {
      await page.getByRole("tab", { name: "Singers" }).click();
      await page.locator(".song-keys").waitFor();
      await page.evaluate(() => document.getElementById("panel")!.scrollBy(0, 150));
    },
  ],
  ["pages", `${ballad}/pages?for=lead`, (page) => page.locator(".sheet-text.syllable").first().waitFor()],
  [
    "bass",
    `${groove}/bass`,
    async (page) => {
      await page.getByRole("button", { name: "Write lines" }).click();
      await page.getByRole("list", { name: "Candidates" }).waitFor();
      await page.locator(".lane.bass [data-note]").nth(3).click();
    },
  ],
  [
    "form",
    `${ballad}/form`,
    async (page) => {
      await page.locator(".form-pass button").nth(4).click();
      await page.getByRole("button", { name: "pass", exact: true }).click();
    },
  ],
  ["check", `${ballad}/check`, (page) => page.getByLabel("judged as").selectOption("chorale")],
  ["handover", `${groove}/handover`],
  [
    "log",
    `${groove}/log`,
    async (page) => {
      await page.keyboard.press("Shift+T");
      await page.getByRole("tab", { name: "Takes" }).click();
      await page.locator(".lane.bass [data-note]").nth(1).click();
      await page.keyboard.press("Shift+ArrowUp");
      await page.keyboard.press("Delete");
      await page.keyboard.press("Shift+T");
      await page.getByRole("tab", { name: "Log", exact: true }).click();
      await page.getByLabel("A line for the log").fill("Bass leaves the second kick alone - the drummer asked");
      await page.getByLabel("A line for the log").press("Enter");
      await page.getByRole("tab", { name: "Takes" }).click();
    },
  ],
];

const server = await launchServer();
const browser = await chromium.launch(sure(sure(config.use).launchOptions));
for (const [name, address, prepare] of VIEWS) {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(server.url + address);
  await page.locator("table, [data-chord], .singer-page").first().waitFor();
  await prepare?.(page);
  await page.waitForTimeout(900);
  await page.screenshot({ path: path.join(folder, `${name}.png`) });
  await page.close();
}
await browser.close();
server.stop();
