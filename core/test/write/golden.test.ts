import { firstOf, lastOf, nth, sure } from "../../src/base/list";
import { must } from "../../src/base/result";
import type { NewNote, Song } from "../../src/song/schema";
import { BASS_STYLES } from "../../src/write/bass/styles";
import { bassLines } from "../../src/write/bass/write";
import { judgeBass } from "../../src/write/bass/judge";
import { COUNTER_STYLES } from "../../src/write/counter/styles";
import { counterLines } from "../../src/write/counter/write";
import { VOCAL_SCHOOLS } from "../../src/write/vocal/schools";
import { vocalLines } from "../../src/write/vocal/write";
import { GRID, gridSong, LINES } from "../../../bench/bassGrid";
import { counterSong } from "../../../bench/counterGrid";
import { vocalSong, VOCAL_GRID } from "./vocalGrid";
import { edit, notesOf } from "../helpers";
import { expectKept } from "../kept";

/** Beat, pitch and length of every note. */
const text = (notes: readonly NewNote[]): string =>
  notes.map((n) => `${+(n.start / 480).toFixed(2)} ${n.pitch} ${+(n.duration / 480).toFixed(2)}`).join(", ");

test("bass lines of every style over three grooves", () => {
  const found: Record<string, string[]> = {};
  for (const [at, [kick, meter]] of [
    ["boom-bap", "4/4"],
    ["pushed", "12/8"],
    ["none", "3/4"],
  ].entries())
    for (const style of BASS_STYLES) {
      const [key, line] = nth(LINES, at * 2);
      const song = gridSong(sure(GRID.find((c) => c.kick === kick && c.meter === meter && c.line === line)));
      const lines = must(bassLines(song, { section: "s1", part: "bass", style: style.id, seed: 3 }));
      found[`${style.id}, ${kick}, ${key}`] = lines
        .slice(0, 2)
        .flatMap((l) => [
          `${l.title}: ${text(l.notes)}`,
          ...l.conflicts.map((c) => c.message),
          l.reasons.map((r) => sure(r).id).join(" "),
        ]);
    }
  expectKept("bass", found);
});

/** A guitar that accents every third sixteenth of the bar against the kick. */
function besideGuitar(song: Song): Song {
  const added = edit(song, { do: "addPart", name: "Guitar", role: "counter", instrument: "guitar" });
  const steps = [0, 3, 6, 10, 12, 15];
  const notes = Array.from({ length: 4 }, (_, bar) => steps.map((s) => `${bar * 4 + s / 4} Bb3 .25`)).flat();
  return edit(added, { do: "setNotes", section: "s1", part: lastOf(added.parts).id, notes: notesOf(notes) });
}

test("bass lines beside another player's accents and under a tune, sparse and full", () => {
  const found: Record<string, string[]> = {};
  const [key, line] = nth(LINES, 3);
  const grooved = besideGuitar(
    gridSong(sure(GRID.find((c) => c.kick === "bossa" && c.meter === "4/4" && c.line === line))),
  );
  const tune = notesOf(["0 Eb4 1", "1 G4 2", "4 F4 .5", "4.5 G4 2.5", "8 C5 1.5", "10 Bb4 1", "12 G4 3"]);
  const song = edit(grooved, { do: "setNotes", section: "s1", part: "melody", notes: tune });
  for (const style of BASS_STYLES)
    for (const density of [0.3, 0.9]) {
      const request = { section: "s1", part: "bass", style: style.id, seed: 7, settings: { density, melody: true } };
      found[`${style.id}, ${density}, ${key}`] = must(bassLines(song, request))
        .slice(0, 2)
        .map((l) => text(l.notes));
    }
  expectKept("bassBeside", found);
});

test("what is measured of a bass line", () => {
  const song = gridSong(sure(GRID.find((c) => c.kick === "bossa" && c.meter === "4/4")));
  const found: Record<string, string[]> = {};
  for (const style of ["kick-locked", "walking", "pedal"]) {
    const [line] = must(bassLines(song, { section: "s1", part: "bass", style, seed: 2 }));
    const notes = { ...firstOf(song.sections).notes, bass: sure(line).notes.map((n, i) => ({ ...n, id: `b${i}` })) };
    const played = { ...song, sections: [{ ...firstOf(song.sections), notes }] };
    const { measures } = must(judgeBass(played, { section: "s1", part: "bass" }));
    found[style] = measures.map((m) => `${m.title}: ${m.value}; ${m.target ?? "no aim"}; ${m.met}`);
  }
  expectKept("bassReport", found);
});

test("counter melodies of every style beside two tunes", () => {
  const found: Record<string, string[]> = {};
  for (const [tune, meter, at] of [
    ["phrases", "4/4", 0],
    ["long", "6/8", 4],
  ] as const)
    for (const style of COUNTER_STYLES) {
      const [key, line] = nth(LINES, at);
      const song = counterSong({ key, line, meter, tune });
      const lines = counterLines(song, { section: "s1", part: "answer", style: style.id, seed: 2 });
      found[`${style.id}, ${tune}, ${key}`] = lines.ok
        ? lines.value
            .slice(0, 2)
            .flatMap((l) => [
              `${l.title}: ${text(l.notes)}`,
              ...l.conflicts.map((c) => c.message),
              l.reasons.map((r) => sure(r).id).join(" "),
            ])
        : [lines.error.message];
    }
  expectKept("counter", found);
});

test("voices of every school beside two tunes", () => {
  const found: Record<string, string[]> = {};
  for (const school of VOCAL_SCHOOLS)
    for (const tune of ["phrases", "sparse"]) {
      const c = sure(VOCAL_GRID.find((g) => g.school === school.id && g.tune === tune && g.meter === "4/4"));
      const song = vocalSong(c);
      const lines = must(
        vocalLines(song, { section: "s1", part: "beside", lead: "melody", school: c.school, voices: c.voices }),
      );
      found[`${school.id}, ${tune}`] = lines
        .slice(0, 2)
        .flatMap((l) => [
          l.title,
          ...l.parts.map((p) => `${p.name}: ${text(p.notes)}`),
          ...l.spots.slice(0, 4).map((s) => `${s.message} ${s.fixes.join("/")}`),
          ...l.conflicts.map((x) => x.message),
        ]);
    }
  expectKept("vocal", found);
});
