/**
 * Counter melodies: as a multiple of one check of the same song, how they grow, over the whole grid, and the main
 * thread while a tune and its words are edited.
 */
import { firstOf, nth, sure } from "../core/src/base/list";
import { Check, Counter, Edit, must, type Song } from "../core/src/index";
import { COUNTER_GRID, judgeCounter } from "./counterGrid";
import { longSong } from "./songs";
import { trace } from "./trace";

const median = (list: readonly number[]): number => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)] ?? 0;

/**
 * The long song with a fiddle; its tune rests in every second bar, so that it can be answered, and the fiddle has a
 * first half to vary.
 */
function withFiddle(bars: number): Song {
  const song = longSong(bars);
  const sung = sure(firstOf(song.sections).notes.melody).filter((n) => Math.floor(n.start / 1920) % 2 === 0);
  const edit = (s: Song, e: Parameters<typeof Edit.apply>[1]) => must(Edit.apply(s, e)).song;
  const added = edit(song, { do: "addPart", name: "Fiddle", role: "counter", instrument: "violin" });
  const fiddle = sure(added.parts.find((p) => p.name === "Fiddle")).id;
  const told = edit(added, { do: "setNotes", section: "s1", part: "melody", notes: sung });
  const half = Array.from({ length: bars / 2 }, (_, b) => ({
    start: b * 1920,
    duration: 1920,
    pitch: b % 2 ? "D5" : "C5",
    velocity: 80,
  }));
  return edit(told, { do: "setNotes", section: "s1", part: fiddle, notes: half });
}
const fiddleOf = (song: Song): string => sure(song.parts.find((p) => p.name === "Fiddle")).id;

export async function counter(
  time: (run: () => unknown, times?: number) => number,
  { grid, browser }: { grid: boolean; browser: boolean },
): Promise<void> {
  const songs = [16, 32, 64].map(withFiddle);
  const check = time(() => Check.song(firstOf(songs)));
  const rows = Counter.STYLES.map((s) => ({
    id: s.id,
    times: songs.map((song) =>
      time(() => Counter.write(song, { section: "s1", part: fiddleOf(song), style: s.id }), 3),
    ),
  }));
  const ratios = rows.map((r) => firstOf(r.times) / check);
  const worst = rows.reduce((a, b) => (firstOf(b.times) > firstOf(a.times) ? b : a));
  console.log(
    `writing five counter melodies over 16 bars: ${median(ratios).toFixed(1)} × one check of the song (median ` +
      `of ${rows.length} styles), worst ${(firstOf(worst.times) / check).toFixed(1)} × (${worst.id})`,
  );
  const growth = [1, 2].map((i) => median(rows.map((r) => nth(r.times, i) / nth(r.times, i - 1))).toFixed(1));
  console.log(`  doubled to 32 bars ${growth[0]} ×, to 64 bars ${growth[1]} × (medians)`);
  if (grid) overGrid();
  if (!browser) return;
  await trace("moving a note of the tune with the report open", withFiddle(64), "lines", {
    prepare: async (page) => {
      await page.getByRole("tab", { name: "Report" }).click();
      await page.locator(".report").first().waitFor();
      await page.waitForTimeout(3000);
    },
    act: async (page) => {
      await page.locator(".lane.melody [data-note]").nth(3).focus();
      for (let i = 0; i < 8; i++) await page.keyboard.press(i % 2 ? "ArrowDown" : "ArrowUp");
      await page.waitForTimeout(1500);
    },
  });
  await trace("typing words under the tune", withFiddle(64), "lines", {
    prepare: async (page) => {
      await page.waitForTimeout(3000);
    },
    act: async (page) => {
      await page.locator(".lane.melody [data-note]").first().focus();
      await page.keyboard.press("w");
      await page.keyboard.type("lan-terns hang a-bove the or-chard row ", { delay: 60 });
      await page.keyboard.press("Enter");
      await page.waitForTimeout(1500);
    },
  });
}

function overGrid(): void {
  let [met, named, silent, nothing] = [0, 0, 0, 0];
  const values = new Map<string, number[]>();
  const short: string[] = [];
  for (const c of COUNTER_GRID) {
    const outcome = judgeCounter(c);
    if ("nothing" in outcome) {
      nothing++;
      continue;
    }
    const { unmet, unexplained, report } = outcome;
    if (!unmet.length) met++;
    else if (unexplained.length) silent++;
    else named++;
    if (unmet.length)
      short.push(`${unmet.map((m) => `${m.id} ${m.value}`).join(", ")}: ${c.style}, ${c.tune}, ${c.meter}, ${c.line}`);
    const put = (name: string, value: number | null) =>
      value !== null && values.set(name, [...(values.get(name) ?? []), value]);
    put("rubs on a beat, most", report.clashes);
    put("parallels with the tune, most", report.parallels);
    if (c.style !== "species") put("goes its own way, least", report.independent);
    put("doubles the tune, most", report.doubling);
    put("time on chord tones, least", report.chordTime);
    put("different notes in two bars, most", report.pitches);
    if (c.style === "answer") put("under the tune (answers), most", report.overlap);
  }
  console.log(
    `grid of ${COUNTER_GRID.length} combinations: ${met} meet every aim, ${named} name the conflict, ${silent} ` +
      `do neither; ${nothing} answers find no gap and say so`,
  );
  for (const [name, list] of values)
    console.log(
      `  ${name.split(",")[0]}: median ${median(list).toFixed(2)}, worst ` +
        `${(/least$/.test(name) ? Math.min(...list) : Math.max(...list)).toFixed(2)}`,
    );
  for (const text of short.filter((_, i) => i % 9 === 0).slice(0, 8)) console.log(`  falls short: ${text}`);
}
