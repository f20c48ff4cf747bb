/**
 * Random edits in thousands: how many are accepted and then refused as a document, and how often what is remembered is
 * stale. `npm run bench -- edits`.
 */
import { Check, Edit, Fact, Place, Song } from "../core/src/index";
import { walk } from "../core/test/anyEdit";
import { goldenSong } from "../core/test/fixtures";

const STARTS = [
  "every-setting",
  "pickup",
  "another-key",
  "glides",
  "transposing",
  "seven-eight",
  "triplets",
  "micro-timing",
];

export function edits(count = 10_000): void {
  let [accepted, refused, hostile, stale] = [0, 0, 0, 0];
  const each = Math.ceil(count / STARTS.length);
  for (const [seed, name] of STARTS.entries()) {
    const [checker, memory] = [Check.checker(), Fact.memory()];
    const text = (song: Song, check: (s: Song) => unknown, read = memory) =>
      JSON.stringify([
        check(song),
        song.sections.map((s) => [
          read.at(song).get(Fact.harmony, s.id),
          read.at(song).get(Fact.realized, Place.section(s.id), "held"),
        ]),
      ]);
    let start = goldenSong(name);
    // Begun anew now and then, so that songs stay of a size that is met.
    for (let row = 0; row * 50 < each; row++) {
      walk(
        start,
        {
          seed: seed * 1000 + row,
          length: 50,
          apply(song, change) {
            const result = Edit.apply(song, change);
            if (result.ok) accepted++;
            else refused++;
            return result.ok ? result.value.song : song;
          },
        },
        (song, before) => {
          if (song === before) return;
          if (!Song.parse(JSON.parse(JSON.stringify(song))).ok) hostile++;
          const found = (by: ReturnType<typeof Check.checker>) => (s: Song) =>
            s.sections.flatMap((x) => by.section(s, x.id));
          if (text(song, found(checker)) !== text(song, found(Check.checker()), Fact.memory())) stale++;
        },
      );
      start = goldenSong(name);
    }
  }
  console.log(
    `${accepted + refused} random edits, ${accepted} accepted: ${hostile} of them left a document that cannot ` +
      `be read, ${stale} stale results`,
  );
}
