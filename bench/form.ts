/**
 * A song of many passes: what it costs to realize, slice, check and write it against one section, how that grows, and
 * what one edit in a section used twenty times costs.
 */
import { firstOf, lastOf, nth, sure } from "../core/src/base/list";
import { Check, Edit, Fact, Form, Midi, must, Place, Song } from "../core/src/index";
import { formRealized } from "../core/src/hear/sounding";
import { sliceReal } from "../core/src/hear/slice/slices";
import { eightParts } from "./songs";

const edit = (song: Song, ...edits: Edit[]): Song => edits.reduce((s, e) => must(Edit.apply(s, e)).song, song);

/**
 * Four sections of eight bars and eight parts, n passes of them: every fourth is moved, every fifth has a bar of its
 * own, every sixth a part out.
 */
function passes(n: number): Song {
  let song = eightParts(8);
  for (const name of ["Chorus", "Bridge", "Coda"]) song = edit(song, { do: "addSection", name, bars: 8, copyOf: "s1" });
  const ids = song.sections.map((s) => s.id);
  song = { ...song, form: Array.from({ length: n }, (_, i) => ({ id: `o${900 + i}`, sectionId: nth(ids, i % 4) })) };
  song.form.forEach((pass, i) => {
    const section = sure(song.sections.find((s) => s.id === pass.sectionId));
    if (i % 4 === 3) song = edit(song, { do: "setPass", pass: pass.id, transpose: (i % 5) - 2 });
    if (i % 6 === 5) song = edit(song, { do: "setPass", pass: pass.id, muted: ["bass"] });
    if (i % 5 === 4)
      song = edit(song, {
        do: "inPass",
        pass: pass.id,
        here: true,
        edit: {
          do: "changeNotes",
          section: section.id,
          part: "melody",
          notes: [
            {
              id: lastOf(sure(sure(Form.view(song, pass.id).sections.find((s) => s.id === section.id)).notes.melody))
                .id,
              pitch: "G4",
            },
          ],
        },
      });
  });
  return song;
}

export function form(time: (run: () => unknown, times?: number) => number): void {
  const [forty, eighty] = [passes(40), passes(80)];
  const one: Song = { ...forty, form: forty.form.slice(0, 1) };
  const bars = (song: Song) => Form.of(song).reduce((sum, p) => sum + p.bars, 0);
  const checked = (song: Song) => {
    const checker = Check.checker(Fact.memory());
    for (const { id } of song.sections.slice(0, song.form.length)) checker.section(song, id);
  };
  const rows: [string, (song: Song) => unknown][] = [
    ["realize", (song) => Song.realize(song)],
    ["realize and slice", (song) => sliceReal(Song.realize(song, { harmony: true }))],
    ["check", checked],
    ["MIDI, as it is played", (song) => Midi.write(song, { swing: "played" })],
    ["the form remembered", (song) => Fact.memory().at(song).get(formRealized, "played")],
    ["the grid of the form", (song) => Form.busy(song, Fact.memory().at(song))],
  ];
  console.log(`forty passes of eight bars in eight parts, ${bars(forty)} bars, against one pass; and twice as many`);
  for (const [name, run] of rows) {
    const [a, b, c] = [one, forty, eighty].map((song) => time(() => run(song), 3));
    console.log(
      `  ${name}: ${(sure(b) / sure(a)).toFixed(1)} × one pass (${sure(b).toFixed(0)} ms here); doubled ` +
        `${(sure(c) / sure(b)).toFixed(2)} ×`,
    );
  }
  const often: Song = {
    ...forty,
    form: Array.from({ length: 20 }, (_, i) => ({ id: `o${900 + i}`, sectionId: "s1" })),
  };
  const memory = Fact.memory();
  const shown = (song: Song) => {
    const read = memory.at(song);
    read.get(Fact.realized, Place.section("s1"), "played");
    for (const p of song.parts) read.get(Fact.roles, Place.section("s1"), p.id, "played");
    Form.of(song);
    Form.busy(song, read);
  };
  shown(often);
  const note = nth(sure(firstOf(often.sections).notes.melody), 9).id;
  let song = often;
  let up = false;
  const step = () => {
    song = edit(song, {
      do: "changeNotes",
      section: "s1",
      part: "melody",
      notes: [{ id: note, pitch: (up = !up) ? "A4" : "G4" }],
    });
    shown(song);
  };
  const checker = Check.checker(memory);
  checker.section(song, "s1");
  const all = time(() => {
    const read = Fact.memory().at(song);
    read.get(Fact.realized, Place.section("s1"), "played");
    for (const p of song.parts) read.get(Fact.roles, Place.section("s1"), p.id, "played");
    Form.busy(song, read);
  }, 3);
  const one20 = time(step, 9);
  const judged = time(() => {
    step();
    checker.section(song, "s1");
  }, 9);
  console.log(
    `one edit in a section used twenty times: what the page works out ${one20.toFixed(1)} ms here, ` +
      `${(one20 / all).toFixed(2)} × all of it; checked as well ${judged.toFixed(1)} ms`,
  );
}
