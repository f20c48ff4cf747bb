import { firstOf, nth, sure } from "../../src/base/list";
import fc from "fast-check";
import { applyEdit } from "../../src/song/edits";
import { COUNTER_STYLES } from "../../src/write/counter/styles";
import { counterLines, counterRequest } from "../../src/write/counter/write";
import { counterSettings } from "../../src/write/counter/write";
import type { CounterSettings } from "../../src/write/counter/settings";
import { describeReason } from "../../src/song/reasons";
import { factsOf } from "../../src/facts/memory";
import { must } from "../../src/base/result";
import { notesAt } from "../../src/hear/sounding";
import { parseSong } from "../../src/song/document";
import { pitchMidi } from "../../src/theory/pitch/pitch";
import { sectionPlace } from "../../src/song/place";
import type { Edit } from "../../src/song/edits/list";
import type { Song } from "../../src/song/schema/song";
import { REASONS } from "../../src/song/reasons";
import { demoSongs } from "../demos";
import { edit } from "../helpers";

/**
 * The demo songs, each with a clarinet that answers: their chords are laid out, their tunes have pickups and words, one
 * is in three.
 */
const SONGS = demoSongs().map((song): { song: Song; part: string } => {
  const added = edit(song, { do: "addPart", name: "Answer", role: "counter", instrument: "clarinet" });
  return { song: added, part: sure(added.parts.find((p) => p.name === "Answer")).id };
});

const anySettings: fc.Arbitrary<Partial<CounterSettings>> = fc.record(
  {
    density: fc.double({ min: 0, max: 1, noNaN: true }),
    side: fc.constantFrom("below", "above", "either"),
    hits: fc.constantFrom("few", "chord", "line"),
    cell: fc.constantFrom("hold", "refit", "scale"),
    under: fc.constantFrom("thirds", "sixths"),
    low: fc.constantFrom("", "E4", "G3"),
    high: fc.constantFrom("", "E5", "A5"),
  },
  { requiredKeys: [] },
);

test(
  "whatever is asked: lines stand inside the section, in order, in range, with words for every note, and can be " +
    "taken; asked again they are the same",
  () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...SONGS),
        fc.constantFrom(...COUNTER_STYLES),
        fc.integer({ min: 1, max: 500 }),
        anySettings,
        ({ song, part }, style, seed, settings) => {
          const section = nth(song.sections, seed % song.sections.length);
          const request = { section: section.id, part, style: style.id, seed, settings };
          const before = JSON.stringify(song);
          const written = counterLines(song, request);
          expect(JSON.stringify(song)).toBe(before);
          if (!written.ok) {
            expect(["counter.place", "counter.range", "counter.none", "counter.chords"]).toContain(written.error.code);
            expect(written.error.hint).toBeTruthy();
            return;
          }
          expect(counterLines(song, request)).toEqual(written);
          expect(JSON.parse(JSON.stringify(written.value))).toEqual(written.value);
          const { ctx } = must(counterRequest(factsOf(song), request));
          expect(new Set(written.value.map((l) => l.title)).size).toBe(written.value.length);
          for (const line of written.value) {
            const held = line.notes.filter((n) => sure(n.reason).id === "cellHeld");
            line.notes.forEach((n, i) => {
              const next = line.notes.slice(i + 1).find((m) => m.start > n.start);
              expect([n.start >= 0, n.duration > 0, n.start < ctx.length]).toEqual([true, true, true]);
              if (next) expect([style.id, n.start + n.duration <= next.start]).toEqual([style.id, true]);
              if (!held.includes(n))
                expect([style.id, pitchMidi(n.pitch) >= ctx.range[0], pitchMidi(n.pitch) <= ctx.range[1]]).toEqual([
                  style.id,
                  true,
                  true,
                ]);
              expect(describeReason(n.reason)).not.toMatch(/[{}]|undefined|null/);
            });
            expect(line.reasons).toEqual(line.notes.map((n) => n.reason));
            const taken = must(
              applyEdit(song, { do: "setNotes", section: section.id, part, notes: line.notes } as Edit),
            ).song;
            expect(must(parseSong(JSON.parse(JSON.stringify(taken))))).toEqual(taken);
            for (const c of line.conflicts) expect(c.message).not.toMatch(/undefined|null|NaN/);
          }
        },
      ),
      { seed: 77, numRuns: 8 },
    );
  },
);

test("against chords that are laid out no note rubs on a beat, but suspensions and tones of the chord", () => {
  for (const { song, part } of SONGS)
    for (const section of song.sections)
      for (const style of COUNTER_STYLES.filter((s) => !["species", "ostinato", "variation"].includes(s.id))) {
        const written = counterLines(song, { section: section.id, part, style: style.id, seed: 9 });
        if (!written.ok) continue;
        const { ctx } = must(counterRequest(factsOf(song), { section: section.id, part, style: style.id }));
        const layouts = song.parts
          .filter((p) => p.link)
          .flatMap((p) => factsOf(song).get(notesAt, sectionPlace(section.id), p.id, "held"));
        for (const n of firstOf(written.value).notes.filter((x) => sure(x.reason).id !== "suspension"))
          for (const b of ctx.meter.beats.flatMap((beat) =>
            Array.from({ length: ctx.bars }, (_, bar) => bar * ctx.meter.bar + beat.start),
          )) {
            if (b < n.start || b >= n.start + n.duration) continue;
            const chord = ctx.chords.find((c) => c.start <= b && b < c.start + c.duration)?.chord;
            const pcs = new Set(chord?.tones.map((t) => (pitchMidi(`${chord.root}4`) + t.semitones) % 12));
            const midi = pitchMidi(n.pitch);
            for (const other of layouts.filter((l) => l.start <= b && b < l.start + l.duration)) {
              const rub =
                [1, 13].includes(Math.abs(other.midi - midi)) && !(pcs.has(midi % 12) && pcs.has(other.midi % 12));
              expect([song.title, style.id, n.pitch, other.pitch, rub]).toEqual([
                song.title,
                style.id,
                n.pitch,
                other.pitch,
                false,
              ]);
            }
          }
      }
});

test("settings are inherited: of the style, of the part, of the section", () => {
  const { song, part } = firstOf(SONGS);
  const id = firstOf(song.sections).id;
  const set = edit(
    song,
    { do: "setPlaying", part, counter: { density: 0.9, side: "above" } },
    { do: "setPlaying", part, section: id, counter: { density: 0.1, style: "sustained" } },
  );
  const now = counterSettings(sure(set.parts.find((p) => p.id === part)), set.sections[0]);
  expect(now).toMatchObject({ density: 0.1, side: "above", cell: "refit" });
  const { style } = must(counterRequest(factsOf(set), { section: id, part }));
  expect(style.id).toBe("sustained");
  const refused = applyEdit(song, { do: "setPlaying", part, counter: { density: 2 } } as Edit);
  expect(refused).toMatchObject({ ok: false, error: { code: "edit.setPlaying" } });
  const given = edit(set, { do: "setPlaying", part, section: id, counter: { density: null, style: null } });
  expect(counterSettings(sure(given.parts.find((p) => p.id === part)), given.sections[0])).toMatchObject({
    density: 0.9,
  });
});

test("every reason there is has words for all its gaps, and no two say the same", () => {
  const params = new Proxy({}, { get: (_, name) => `<${String(name)}>`, has: () => true }) as Record<string, string>;
  const said = Object.entries(REASONS).map(([id, { words, weight }]) => {
    expect([id, weight >= 0 && weight <= 2]).toEqual([id, true]);
    const text = describeReason({ id, params });
    for (const [, gap] of words.matchAll(/\{(\w+)\}/g))
      expect([id, text]).toEqual([id, expect.stringContaining(`<${gap}>`)]);
    return words;
  });
  expect(new Set(said).size).toBe(said.length);
});
