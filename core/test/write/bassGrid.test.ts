import { firstOf } from "../../src/base/list";
import { BASS_STYLES } from "../../src/write/bass/styles";
import { GRID, judge } from "../../../bench/bassGrid";

/**
 * A fixed sample of the whole grid, which `npm run bench -- grid` writes: every 139th combination, so that all styles,
 * meters and kicks come up.
 */
const SAMPLE = GRID.filter((_, i) => i % 139 === 0);

test(
  "every style meets its own targets on a grid of progressions, kicks and meters, or names the conflict that " +
    "prevents it",
  () => {
    expect(new Set(SAMPLE.map((c) => c.style)).size).toBe(BASS_STYLES.length);
    expect(new Set(SAMPLE.map((c) => `${c.meter}|${c.kick}`)).size).toBeGreaterThan(25);
    let met = 0;
    let choice = 0;
    for (const c of SAMPLE) {
      const place = `${c.style} ${c.meter} ${c.kick} ${c.line}`;
      const { unmet, unexplained, report, conflicts, lines } = judge(c);
      expect([place, unexplained.map((m) => `${m.id}: ${m.value}`)]).toEqual([place, []]);
      expect([place, report.accentsMet, report.withoutReason]).toEqual([place, report.accents, 0]);
      expect([place, report.notes > 0]).toEqual([place, true]);
      if (c.kick === "none") expect([place, firstOf(conflicts).code]).toEqual([place, "noKick"]);
      if (!unmet.length) met++;
      if (lines > 1) choice++;
    }
    expect(met / SAMPLE.length).toBeGreaterThan(0.95);
    expect(choice / SAMPLE.length).toBeGreaterThan(0.95);
  },
);
