import type { Page } from "@playwright/test";
import { loudness, peak, aWeight } from "./loudness";
import { expect, rendered, test } from "./fixtures";
import { firstOf, Instrument, must, nth, Pitch, Song, sure } from "./orchard";

/** Four bars of a demo song. */
const BARS = 7680;

const NAMES = ["C", "Db", "D", "Eb", "E", "F", "Gb", "G", "Ab", "A", "Bb", "B"];

/** Two notes of an instrument in the middle of its comfortable range, at velocity 80. */
function middle(id: string): Song {
  const instrument = sure(Instrument.ALL.find((i) => i.id === id));
  const [low, high] = Instrument.range(instrument.comfortable);
  const center = Math.round((low + high) / 2);
  const song = must(Song.create({ title: "Weighing", tempo: 120 }));
  const notes = [0, 4].map((above, i) => ({
    id: `n${i}`,
    start: i * 960,
    duration: 720,
    pitch: Pitch.name(center + above, nth(NAMES, (center + above) % 12)),
    velocity: 80,
  }));
  return {
    ...song,
    parts: [{ id: "p", name: "Player", role: firstOf(instrument.roles), instrument: id, playing: {} }],
    sections: [{ ...firstOf(song.sections), notes: { p: notes } }],
  };
}

test("the A-curve has its values (IEC 61672-1, from memory): 1 kHz 0, 100 Hz −19.1, 50 Hz −30.2, 4 kHz +1.0 dB", () => {
  const db = (f: number) => 20 * Math.log10(aWeight(f));
  expect(db(1000)).toBeCloseTo(0, 1);
  expect(db(100)).toBeCloseTo(-19.1, 0);
  expect(db(50)).toBeCloseTo(-30.2, 0);
  expect(db(4000)).toBeCloseTo(1.0, 0);
});

/** Renders a section on the page, without a sound. */
async function renderer(page: Page) {
  await page.goto("/songs/cider-press-strut/chords");
  await expect(page.locator("[data-chord]").first()).toBeVisible();
  return (song: Song, options: { solo?: string[]; to?: number }) => rendered(page, { song, section: "s1", ...options });
}

test("every instrument is as loud as the others", async ({ page }) => {
  test.setTimeout(300_000);
  const render = await renderer(page);
  // One instrument of each sound, and those that lie far from it.
  const weighed = Instrument.ALL.filter(
    (i, at) =>
      i.id !== "drums" &&
      (Instrument.ALL.findIndex((x) => x.sound === i.sound) === at || /cello|tenor$|bassVoice|trombone/.test(i.id)),
  );
  const levels = [];
  for (const { id } of weighed) {
    const { samples, rate } = await render(middle(id), { to: 1920 });
    levels.push({ id, level: loudness(samples, rate) });
  }
  const common = (Math.max(...levels.map((l) => l.level)) + Math.min(...levels.map((l) => l.level))) / 2;
  for (const { id, level } of levels)
    expect(
      Math.abs(level - common),
      `${id} at ${level.toFixed(1)} dB, the others around ${common.toFixed(1)}`,
    ).toBeLessThan(3);
});

test("chords are as loud as the tune, the bass as the chords; nothing is distorted", async ({ page, request }) => {
  test.setTimeout(300_000);
  const render = await renderer(page);
  for (const id of ["lanterns-on-row-nine", "sorting-shed-stomp"]) {
    const song = (await (await request.get(`/api/songs/${id}`)).json()) as Song;
    const level = async (role: string) => {
      const part = sure(song.parts.find((p) => p.role === role));
      const { samples, rate } = await render(song, { solo: [part.id], to: BARS });
      return loudness(samples, rate);
    };
    const [tune, chords, bass] = [await level("melody"), await level("chords"), await level("bass")];
    expect(Math.abs(chords - tune), `${id}: chords ${chords.toFixed(1)}, tune ${tune.toFixed(1)}`).toBeLessThan(4);
    expect(Math.abs(bass - chords), `${id}: bass ${bass.toFixed(1)}, chords ${chords.toFixed(1)}`).toBeLessThan(4);
    const { samples } = await render(song, { to: BARS });
    const most = peak(samples);
    const top = 20 * Math.log10(most);
    expect(top, `${id}: peak`).toBeGreaterThan(-9);
    expect(top, `${id}: peak`).toBeLessThan(-3);
    // A sound that is cut off stays at its highest value for samples on end.
    const flat = samples.filter((x, i) => Math.abs(x) > most * 0.999 && x === samples[i + 1]).length;
    expect(flat, `${id}: samples at the limit`).toBe(0);
  }
});
