import { firstOf, nth } from "../../base/list";
import type { Draft } from "immer";
import type { Problem } from "../../base/result";
import { positionText, type Meter, type Ticks } from "../../theory/time/meter";
import { readLine, writeLine } from "../../theory/chord/progression";
import type { Section, Song } from "../schema";
import { refuse, type EditTools } from "./define";

/**
 * Why a section cannot be written in another meter: a note or hit past the end of its shorter bar, chords that cannot
 * be shared out.
 */
export function meterRefused(song: Song, section: Section, old: Meter, meter: Meter): Problem | null {
  if (old.text !== meter.text && song.form.some((p) => p.sectionId === section.id && p.own))
    return refuse(
      "meter",
      `${section.name} has passes with bars of their own, written in ${old.text}`,
      "Give those bars back first.",
    );
  const starts = [...Object.values(section.notes).flat(), ...section.groove.lanes.flatMap((l) => l.hits)].map(
    (n) => n.start,
  );
  const lost = starts.find((start) => start >= 0 && start % old.bar >= meter.bar);
  if (lost !== undefined)
    return refuse(
      "meter",
      `${section.name} has a note or hit at ${positionText(old, lost)}, past the end of a bar of ${meter.text}`,
      "Move or delete what lies past the end of the shorter bar first.",
    );
  const line = readLine(writeLine(section.chords, old, section.bars), meter);
  return section.chords.length && line.problems.length
    ? refuse("meter", `${section.name}: ${firstOf(line.problems).message}`, firstOf(line.problems).hint)
    : null;
}

/**
 * Writes a section in another meter: chords are shared out anew bar by bar, notes and hits keep their place in their
 * bar.
 */
export function rebar(
  section: Draft<Section>,
  original: Section,
  old: Meter,
  { meter, fresh }: { meter: Meter; fresh: EditTools["fresh"] },
): void {
  const move = (start: Ticks) => (start < 0 ? start : Math.floor(start / old.bar) * meter.bar + (start % old.bar));
  const { beyond } = section;
  for (const { notes = {}, groove } of beyond ? [section, beyond] : [section]) {
    const hits = groove?.lanes.flatMap((lane) => lane.hits) ?? [];
    for (const event of [...Object.values(notes).flat(), ...hits]) event.start = move(event.start);
    if (groove?.accents) groove.accents = groove.accents.filter((a) => a % old.bar < meter.bar).map(move);
  }
  for (const chord of beyond?.chords ?? []) {
    // A chord past the end takes whole bars of the new meter.
    const inBars = (t: Ticks) => Math.round(t / old.bar) * meter.bar;
    const [from, to] = [inBars(chord.start), inBars(chord.start + chord.duration)];
    chord.start = from;
    chord.duration = Math.max(meter.bar, to - from);
  }
  if (!original.chords.length) return;
  const line = readLine(writeLine(original.chords, old, original.bars), meter);
  section.chords = line.chords.map((c, i) => ({
    ...(original.chords[i]?.symbol === c.symbol ? nth(original.chords, i) : { id: fresh("c") }),
    ...c,
  }));
}
