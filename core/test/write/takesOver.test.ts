import { firstOf, nth, sure } from "../../src/base/list";
import { demoSongs } from "../demos";
import { applyEdit } from "../../src/song/edits";
import { bassLayers } from "../../src/write/bass/layers";
import { drumAsBass, drumUntuned } from "../../src/write/bass/fromDrum";
import { DRUM_KINDS, TUNABLE } from "../../src/theory/instrument/drums";
import { must } from "../../src/base/result";
import { parseSong } from "../../src/song/document";
import { pitchMidi } from "../../src/theory/pitch/pitch";
import type { Song } from "../../src/song/schema/song";
import { goldenSong, VERSION1 } from "../fixtures";
import { edit } from "../helpers";

/** Songs whose first section has a written bass line. */
const songs = [...demoSongs(), ...VERSION1.map(goldenSong)].filter((s) => {
  const bass = s.parts.find((p) => p.role === "bass" && !p.link);
  return bass && (firstOf(s.sections).notes[bass.id] ?? []).some((n) => n.start >= 0);
});
const bassOf = (song: Song): string => sure(song.parts.find((p) => p.role === "bass" && !p.link)).id;
const line = (song: Song) =>
  (firstOf(song.sections).notes[bassOf(song)] ?? []).map((n) => [n.start, n.duration, n.pitch, n.velocity]);
const lane = (song: Song, drum: string) => firstOf(song.sections).groove.lanes.find((l) => l.drum === drum);

describe.each(songs.map((s) => [s.title, s] as const))("a low drum in place of the bass: %s", (_, song) => {
  const section = firstOf(song.sections).id;
  const part = bassOf(song);

  test.each(TUNABLE.map((d) => [DRUM_KINDS[d].title, d] as const))(
    "%s takes the line over and gives it back",
    (_title, drum) => {
      const taken = edit(
        song,
        must(drumAsBass(song, section, part, { drum, how: { rhythm: "line", glides: true, instead: true } })),
      );
      // The drum has the line's places and pitches, and ends before its next note; the bass is silent here, nowhere
      // else, and not muted.
      const hits = sure(lane(taken, drum)).hits;
      const written = sure(firstOf(song.sections).notes[part])
        .filter((n) => n.start >= 0)
        .sort((a, b) => a.start - b.start);
      expect(hits.map((h) => h.start)).toEqual(written.map((n) => n.start));
      hits.forEach((h, i) => {
        if (h.pitch) expect(pitchMidi(h.pitch)).toBe(pitchMidi(nth(written, i).pitch));
        if (hits[i + 1]) expect(h.start + sure(h.duration)).toBeLessThan(nth(hits, i + 1).start + 16);
      });
      expect([line(taken), taken.parts]).toEqual([[], song.parts]);
      expect(taken.sections.slice(1)).toEqual(song.sections.slice(1));
      expect(parseSong(JSON.stringify(taken)).ok).toBe(true);
      const layers = must(bassLayers(taken, section));
      expect(layers.layers.some((l) => l.id === part)).toBe(false);
      // And back: every note is there again, the drum has no pitch any more.
      const back = edit(taken, drumUntuned(taken, section, part, drum));
      expect(line(back)).toEqual(line(song));
      expect(sure(lane(back, drum)).tuned).toBeUndefined();
      expect(sure(lane(back, drum)).hits.every((h) => h.pitch === undefined && h.glideTo === undefined)).toBe(true);
    },
  );

  test("beside the bass it leaves the line alone", () => {
    const both = edit(
      song,
      must(drumAsBass(song, section, part, { drum: "kick", how: { rhythm: "line", glides: false, instead: false } })),
    );
    expect([line(both), both.takes]).toEqual([line(song), song.takes]);
    // Untuned, what the bass has since then stays.
    expect(line(edit(both, drumUntuned(both, section, part, "kick")))).toEqual(line(song));
  });
});

test("a drum without a pitch, a section that is not there, a line that is not written", () => {
  const song = firstOf(songs);
  const ask = (section: string, drum: "kick" | "snare") =>
    drumAsBass(song, section, bassOf(song), { drum, how: { rhythm: "line", glides: false, instead: true } });
  expect(ask("nobody", "kick")).toMatchObject({ ok: false, error: { code: "bass.section" } });
  expect(ask(firstOf(song.sections).id, "snare")).toMatchObject({ ok: false, error: { code: "bass.drum" } });
  const empty = must(
    applyEdit(song, { do: "setNotes", section: firstOf(song.sections).id, part: bassOf(song), notes: [] }),
  ).song;
  expect(
    drumAsBass(empty, firstOf(song.sections).id, bassOf(song), {
      drum: "kick",
      how: {
        rhythm: "line",
        glides: false,
        instead: true,
      },
    }),
  ).toMatchObject({
    ok: false,
    error: { message: "There is no bass line to follow" },
  });
});
