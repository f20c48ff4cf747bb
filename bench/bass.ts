/**
 * The whole grid of styles, progressions, kicks and meters; a line of sixteen bars against a check of it; painting
 * kicks with the report open.
 */
import { sure } from "../core/src/base/list";
import { Bass, Check } from "../core/src/index";
import { GRID, judge } from "./bassGrid";
import { longSong } from "./songs";
import { trace } from "./trace";

const median = (list: readonly number[]): number => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)] ?? 0;

export async function bass(
  time: (run: () => unknown, times?: number) => number,
  { grid, browser }: { grid: boolean; browser: boolean },
): Promise<void> {
  const song = longSong(16);
  const check = time(() => Check.song(song));
  const ratios = Bass.STYLES.map((s) => ({
    id: s.id,
    ratio: time(() => Bass.write(song, { section: "s1", part: "bass", style: s.id }), 3) / check,
  }));
  const worst = ratios.reduce((a, b) => (b.ratio > a.ratio ? b : a));
  console.log(
    `writing five lines of 16 bars: ${median(ratios.map((r) => r.ratio)).toFixed(1)} × one check of the song ` +
      `(median of ${ratios.length} styles), worst ${worst.ratio.toFixed(1)} × (${worst.id})`,
  );
  if (grid) {
    const worstCases: string[] = [];
    let [met, named, silent] = [0, 0, 0];
    const values = new Map<string, number[]>();
    for (const c of GRID) {
      const { unmet, unexplained, report } = judge(c);
      if (!unmet.length) met++;
      else if (unexplained.length) silent++;
      else named++;
      if (unmet.length)
        worstCases.push(
          `${unmet.map((m) => `${m.id} ${m.value}`).join(", ")}: ${c.style}, ${c.meter}, ${c.kick}, ${c.line}`,
        );
      const put = (name: string, value: number | null) =>
        value !== null && values.set(name, [...(values.get(name) ?? []), value]);
      // A pedal is meant to lie outside its chords.
      if (c.style !== "pedal") put("time on chord tones, least", report.chordTime);
      put("accents met, least", report.accents ? report.accentsMet / report.accents : null);
      put("pitches in a figure, most", report.pitchClasses);
      put("silence, least", report.silence);
      put("moves by step, least", report.stepwise);
      put("longest outside in ticks, most", report.longestOutside);
      put("same again in a row, most", report.repeats);
      put("notes a bar, most", report.notes / 4);
    }
    console.log(
      `grid of ${GRID.length} combinations: ${met} meet every target, ${named} name the conflict, ${silent} do neither`,
    );
    for (const [name, list] of values)
      console.log(
        `  ${name.split(",")[0]}: median ${median(list).toFixed(2)}, worst ` +
          `${(/least$/.test(name) ? Math.min(...list) : Math.max(...list)).toFixed(2)}`,
      );
    for (const text of worstCases.slice(0, 12)) console.log(`  falls short: ${text}`);
  }
  if (browser)
    await trace("painting kicks with the bass report open", longSong(), "bass", {
      prepare: async (page) => {
        await page.getByRole("tab", { name: /Report/ }).click();
        await page.locator(".report").waitFor();
        await page.waitForTimeout(3000);
      },
      act: async (page) => {
        const box = sure(await page.locator(".drums.editable").boundingBox());
        const y = box.y + box.height - 8;
        await page.mouse.move(box.x + 120, y);
        await page.mouse.down();
        for (let i = 0; i < 30; i++) await page.mouse.move(box.x + 120 + i * 14, y);
        await page.mouse.up();
        await page.waitForTimeout(1500);
        await page.keyboard.press("Control+z");
        await page.waitForTimeout(800);
      },
    });
}
