import { firstOf, nth, sure } from "../core/src/base/list";
import { Bass, Edit, Meter, must, type Note, Song, Voicing } from "../core/src/index";

const SYMBOLS = [
  "Ebmaj9",
  "Cm9",
  "Fm9",
  "Bb13",
  "Gm7",
  "C7(b9)",
  "Abmaj9",
  "Bb9sus4",
  "Am7b5",
  "D7(b9)",
  "Gm9",
  "C13",
  "Fm7",
  "Db9",
  "Ebmaj9",
  "G7(b13)",
];

/** A loop of n chords with at least five tones each where the symbol has them. */
export const loopOf = (n: number): string[] =>
  Array.from({ length: n }, (_, i) => nth(SYMBOLS, (i * 5 + Math.floor(i / 16)) % SYMBOLS.length));

/**
 * A song of 64 bars and four parts in one section: eighths in the melody, two chords a bar, a written bass, full drums.
 */
export function longSong(bars = 64): Song {
  const edit = (song: Song, ...edits: Edit[]): Song => edits.reduce((s, e) => must(Edit.apply(s, e)).song, song);
  const chords = loopOf(bars * 2);
  const line = `| ${Array.from({ length: bars }, (_, b) => `${chords[2 * b]} ${chords[2 * b + 1]}`).join(" | ")} |`;
  const melody = Array.from({ length: bars * 8 }, (_, i): Omit<Note, "id"> => ({
    start: i * 240,
    duration: 240,
    pitch: nth(["G4", "Bb4", "C5", "D5", "F4", "Ab4"], (i * 7) % 6),
    velocity: 80,
  }));
  let song = edit(
    must(Song.create({ id: "long", title: "Sixty-four bars", key: "Eb major", bars })),
    { do: "setLine", section: "s1", line },
    { do: "setNotes", section: "s1", part: "melody", notes: melody },
    ...Array.from({ length: bars * 8 }, (_, i): Edit => ({
      do: "setHit",
      section: "s1",
      drum: "closedHat",
      start: i * 240,
      velocity: 70,
    })),
    ...Array.from({ length: bars }, (_, b) =>
      [0, 1.5, 2.5].map((beat): Edit => ({
        do: "setHit",
        section: "s1",
        drum: "kick",
        start: (b * 4 + beat) * Meter.QUARTER,
        velocity: beat ? 90 : 110,
      })),
    ).flat(),
  );
  const voiced = must(Voicing.section(song, "s1", "keys"));
  song = edit(song, {
    do: "setVoicings",
    section: "s1",
    part: "keys",
    pitches: Object.fromEntries(voiced.ids.map((id, i) => [id, nth(voiced.chords, i).pitches])),
  });
  return edit(song, {
    do: "setNotes",
    section: "s1",
    part: "bass",
    notes: firstOf(must(Bass.write(song, { section: "s1", part: "bass" }))).notes,
  });
}

/** The long song with four more lines. */
export function eightParts(bars: number): Song {
  const song = longSong(bars);
  const tune = sure(firstOf(song.sections).notes.melody);
  return ["Second", "Third", "Fiddle", "Horn"].reduce(
    (s, name, k) =>
      must(
        Edit.apply(s, {
          do: "addPart",
          name,
          role: k < 2 ? "vocal" : "counter",
          instrument: k < 2 ? "alto" : "violin",
          notes: { s1: tune.filter((_, i) => i % (k + 2) === 0).map(({ id: _, ...n }) => n) },
        }),
      ).song,
    song,
  );
}
