import { sure } from "../src/base/list";
import { applyEdit } from "../src/song/edits";
import { must } from "../src/base/result";
import { newSong } from "../src/song/document";
import { QUARTER } from "../src/theory/time/meter";
import type { Edit } from "../src/song/edits/list";
import type { Note } from "../src/song/schema/material";
import type { Song } from "../src/song/schema/song";

export const edit = (song: Song, ...edits: Edit[]): Song => edits.reduce((s, e) => must(applyEdit(s, e)).song, song);

/** Notes written as "beat pitch beats". */
export const notesOf = (texts: readonly string[]): Omit<Note, "id">[] =>
  texts.map((text) => {
    const [beat, pitch, beats] = text.split(" ");
    return {
      start: Math.round(Number(beat) * QUARTER),
      duration: Math.round(Number(beats) * QUARTER),
      pitch: sure(pitch),
      velocity: 90,
    };
  });

/** A song with one section: a chord line, kicks in beats with velocities, and bass notes "beat pitch beats". */
export function songWith({
  key = "C major",
  meter = "4/4",
  line,
  kicks = [],
  bass = [],
  melody = [],
}: {
  key?: string;
  meter?: string;
  line?: string;
  kicks?: [number, number][];
  bass?: string[];
  melody?: string[];
}): Song {
  return edit(
    must(newSong({ title: "Test", key, meter })),
    ...(line ? [{ do: "setLine", section: "s1", line } as Edit] : []),
    ...kicks.map(([beat, velocity]): Edit => ({
      do: "setHit",
      section: "s1",
      drum: "kick",
      start: Math.round(beat * QUARTER),
      velocity,
    })),
    { do: "setNotes", section: "s1", part: "bass", notes: notesOf(bass) },
    { do: "setNotes", section: "s1", part: "melody", notes: notesOf(melody) },
  );
}

/** A guitar that holds A and sounds as B with a capo in the second fret. */
export function heldSong(): Song {
  const song = edit(songWith({ key: "B major", line: "| B |" }), {
    do: "setPart",
    part: "keys",
    instrument: "guitar",
    name: "Guitar",
  });
  const held = { pitches: ["B2", "F#3", "B3", "D#4", "F#4"], shape: { frets: [null, 0, 2, 2, 2, 0], capo: 2 } };
  const [home] = song.sections;
  return {
    ...song,
    sections: [{ ...sure(home), chords: sure(home).chords.map((c) => ({ ...c, voicings: { keys: held } })) }],
  };
}
