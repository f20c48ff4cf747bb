import { kicks } from "../../hear/slice/accents";
import { sectionMeter, sectionOf } from "../../song/document";
import type { Note, Section, Song, Take } from "../../song/schema";
import { barsOf } from "../../song/takes";
import { THIRTY_SECOND, type Ticks } from "../../theory/time/meter";
import { counted } from "../../theory/words/english";

/** A bar of a take that would do well inside what stands there. */
export interface BestBar {
  /** Counted from 0. */
  bar: number;
  score: number;
  /** What speaks for it, in words. */
  reasons: string[];
}

/** How much each counts (common practice): accents that are met, notes in gaps of the tune, what comes back. */
const MET = 1;
const IN_GAPS = 1;
const COMES_BACK = 0.5;
/** A share from which it is worth a word. */
const WORTH_TELLING = 0.6;

const inBar = <T extends { start: Ticks }>(list: readonly T[], bar: Ticks, b: number): T[] =>
  list.filter((x) => x.start >= b * bar && x.start < (b + 1) * bar);
const rhythmOf = (notes: readonly Note[], bar: Ticks): string =>
  notes.map((n) => `${n.start % bar}:${n.duration}`).join();

/** The tunes against which a part is heard: what is sung or played as melody, but for the part itself. */
const tuneOf = (song: Song, section: Section, part: string): Note[] =>
  song.parts
    .filter((p) => p.id !== part && (p.role === "melody" || p.role === "vocal"))
    .flatMap((p) => section.notes[p.id] ?? []);

/**
 * Bars of a take of a part, the best first: those that meet the main accents of the kick, move where the tune rests,
 * and bring a rhythm that the take has more than once. Bars that are what stands there already are left out, and those
 * for which nothing speaks.
 */
export function bestBars(song: Song, take: Take, part: string): BestBar[] {
  const section = sectionOf(song, take.sectionId);
  const notes = take.notes?.[part];
  if (!section || !notes?.length) return [];
  const meter = sectionMeter(song, section);
  const { bar } = meter;
  const accents = kicks(section.groove, meter).filter((k) => k.main);
  const tune = tuneOf(song, section, part);
  const [from, to] = barsOf(take, section);
  const bars = Array.from({ length: to - from }, (_, i) => from + i);
  const rhythms = bars.map((b) => rhythmOf(inBar(notes, bar, b), bar));
  const text = (list: readonly Note[]) => list.map((n) => `${n.start}:${n.duration}:${n.pitch}`).join();
  return bars
    .flatMap((b, i): BestBar[] => {
      const mine = inBar(notes, bar, b);
      if (!mine.length || text(mine) === text(inBar(section.notes[part] ?? [], bar, b))) return [];
      const here = inBar(accents, bar, b);
      const met = here.filter((k) => mine.some((n) => Math.abs(n.start - k.start) <= THIRTY_SECOND)).length;
      const free = tune.length
        ? mine.filter((n) => !tune.some((t) => t.start <= n.start && n.start < t.start + t.duration)).length
        : 0;
      const again = rhythms.filter((r) => r === rhythms[i]).length - 1;
      const [metShare, freeShare] = [here.length ? met / here.length : 0, free / mine.length];
      const score = metShare * MET + freeShare * IN_GAPS + (again ? COMES_BACK : 0);
      const reasons = [
        ...(metShare >= WORTH_TELLING ? [`meets ${met} of ${counted(here.length, "accent")}`] : []),
        ...(freeShare >= WORTH_TELLING ? ["moves where the tune rests"] : []),
        ...(again ? ["its rhythm comes back"] : []),
      ];
      return reasons.length ? [{ bar: b, score: Math.round(score * 100) / 100, reasons }] : [];
    })
    .sort((a, b) => b.score - a.score || a.bar - b.bar);
}
