import { fail, ok, type Result } from "../result";
import { parseMeter, type Ticks } from "../time/meter";
import { LINE_LIMIT, readLine, writeLine } from "../chord/progression";
import { sectionMeter } from "./document";
import { done, type Applied } from "./edit";
import { LIMITS, type ChordEvent, type Section, type Song } from "./schema";

/** Replaces the chords of a section by those of a line. Chords that keep place, length and symbol keep their voicings and pins. */
export function setLine(song: Song, section: Section, line: string): Result<Applied> {
  const meter = sectionMeter(song, section);
  const parsed = readLine(line, meter);
  if (!parsed.bars) return { ok: false, error: parsed.problems[0] ?? { code: "line.empty", message: "The line has no chord." } };
  if (parsed.bars > LIMITS.bars)
    return fail("line.bars", `The line has ${parsed.bars} bars; a section has at most ${LIMITS.bars}`, {
      hint: `A line has at most ${LINE_LIMIT} characters and ${LIMITS.bars} bars.`,
    });
  let nextId = song.nextId;
  // Where the line cannot be read, what stood there stays, cut to that place.
  const kept = parsed.unread.flatMap((u) =>
    section.chords.flatMap((c): ChordEvent[] => {
      const start = Math.max(c.start, u.start);
      const end = Math.min(c.start + c.duration, u.start + u.duration);
      if (end <= start) return [];
      return start === c.start && end === c.start + c.duration ? [c] : [{ ...c, id: `c${nextId++}`, start, duration: end - start }];
    }),
  );
  const old = new Map(section.chords.map((c) => [`${c.start}:${c.symbol}`, c]));
  const chords: ChordEvent[] = [
    ...parsed.chords.map((c): ChordEvent => {
      const same = old.get(`${c.start}:${c.symbol}`);
      if (!same) return { id: `c${nextId++}`, ...c };
      return same.duration === c.duration ? same : { ...same, duration: c.duration };
    }),
    ...kept,
  ].sort((a, b) => a.start - b.start);
  const result = done(song, (s) => {
    const target = s.sections.find((x) => x.id === section.id)!;
    target.chords = chords;
    target.bars = Math.max(parsed.bars, lastUsedBar(section, meter.bar));
    s.nextId = nextId;
  });
  return result.ok ? ok({ ...result.value, problems: parsed.problems }) : result;
}

/** Number of bars that hold notes or drum hits: a shorter chord line never cuts them off. */
function lastUsedBar(section: Section, bar: Ticks): number {
  const starts = [
    ...Object.values(section.notes).flatMap((list) => list.map((n) => n.start)),
    ...section.groove.lanes.flatMap((l) => l.hits.map((h) => h.start)),
  ];
  return starts.reduce((last, start) => Math.max(last, Math.floor(start / bar) + 1), 1);
}

/** Changes the meter: chords are shared out anew bar by bar, notes and hits keep their place in their bar. Fails where the new bar is too short for them. */
export function setMeter(song: Song, text: string): Result<Applied> {
  const next = parseMeter(text);
  if (!next.ok) return next;
  const meter = next.value;
  for (const section of song.sections) {
    if (section.meter) continue;
    const old = sectionMeter(song, section).bar;
    const starts = [...Object.values(section.notes).flat(), ...section.groove.lanes.flatMap((l) => l.hits)].map((n) => n.start);
    const lost = starts.find((start) => start >= 0 && start % old >= meter.bar);
    if (lost !== undefined)
      return fail(
        "edit.meter",
        `${section.name}, bar ${Math.floor(lost / old) + 1} has a note or hit at tick ${lost % old}; a bar of ${meter.text} has ${meter.bar} ticks`,
        { hint: "Move or delete what lies past the end of the shorter bar first." },
      );
    const line = readLine(writeLine(section.chords, sectionMeter(song, section), section.bars), meter);
    if (section.chords.length && line.problems.length)
      return fail(
        "edit.meter",
        `${section.name}: ${line.problems[0]!.message}`,
        line.problems[0]!.hint ? { hint: line.problems[0]!.hint } : {},
      );
  }
  return done(song, (s) => {
    for (const section of s.sections) {
      if (section.meter) continue;
      const original = song.sections.find((x) => x.id === section.id)!;
      const oldMeter = sectionMeter(song, original);
      const move = (start: Ticks) => (start < 0 ? start : Math.floor(start / oldMeter.bar) * meter.bar + (start % oldMeter.bar));
      for (const list of Object.values(section.notes)) for (const note of list) note.start = move(note.start);
      for (const lane of section.groove.lanes) for (const hit of lane.hits) hit.start = move(hit.start);
      if (section.groove.accents) section.groove.accents = section.groove.accents.filter((a) => a % oldMeter.bar < meter.bar).map(move);
      if (!original.chords.length) continue;
      const line = readLine(writeLine(original.chords, oldMeter, original.bars), meter);
      section.chords = line.chords.map((c, i) => ({
        ...(original.chords[i]?.symbol === c.symbol ? original.chords[i]! : { id: `c${s.nextId++}` }),
        ...c,
      }));
    }
    s.meter = meter.text;
  });
}
