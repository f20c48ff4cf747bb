import { sure } from "../../base/list";
import { coveringOf, registersOf, type Covering, type Register } from "../../arrange/room/register";
import { formRealized } from "../../hear/sounding";
import { createMemory, type Memory } from "../../facts/memory";
import { sectionMeter, sectionOf } from "../../song/document";
import type { Song } from "../../song/schema";
import { createChecker } from "./check";
import type { Severity } from "./rule";

/** One bar of the form. */
export interface OverviewBar {
  pass: string;
  section: string;
  /** Name of its pass, and number of the bar in its section, from 1. */
  name: string;
  bar: number;
  /** Places found there that are not left with a reason. */
  found: Record<Severity, number>;
}

/** The whole form at a glance. */
export interface Overview {
  bars: OverviewBar[];
  registers: Register[];
  covering: Covering;
}

/** Where the trouble lies over the whole form, where each part lies, and who covers whom. */
export function overviewOf(song: Song, memory: Memory = createMemory()): Overview {
  const checker = createChecker(memory);
  const bySection = new Map(
    song.sections.map((s) => [s.id, checker.section(song, s.id).filter((f) => f.waived === undefined)] as const),
  );
  const bars = song.form.flatMap((pass): OverviewBar[] => {
    const section = sectionOf(song, pass.sectionId);
    if (!section) return [];
    const meter = sectionMeter(song, section);
    const [from, to] = pass.bars ?? [0, section.bars];
    const bars = Array.from({ length: Math.max(0, Math.min(to, section.bars) - from) }, (_, i): OverviewBar => ({
      pass: pass.id,
      section: section.id,
      name: pass.name ?? section.name,
      bar: from + i + 1,
      found: { fault: 0, warning: 0, note: 0 },
    }));
    for (const f of sure(bySection.get(section.id)))
      for (const p of f.places) {
        const bar = bars[Math.max(0, Math.floor(p.tick / meter.bar)) - from];
        if (bar) bar.found[f.severity]++;
      }
    return bars;
  });
  const real = memory.at(song).get(formRealized, "played");
  return { bars, registers: registersOf(real), covering: coveringOf(song, real) };
}
