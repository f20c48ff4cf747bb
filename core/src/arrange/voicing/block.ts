import { firstOf, nth } from "../../base/list";
import { because } from "../../song/reasons";
import { ok, type Result } from "../../base/result";
import { pitchMidi } from "../../theory/pitch/pitch";
import type { Chord } from "../../theory/chord/chord";
import { chordOf } from "../../theory/chord/progression";
import { partOf, sectionOf } from "../../song/document";
import type { NewNote, Note, Song } from "../../song/schema";
import { spellAt } from "../../song/spell";
import { describe, noPlace } from "./path";
import { pathsOf } from "./ways";
import { partOptions } from "./section";
import { voicingSpace } from "./space";

/** Notes of a part that lays a chord under every note of a tune (its link's `top`); null when there is no tune. */
export function blockNotes(song: Song, sectionId: string, partId: string): Result<NewNote[] | null> {
  const section = sectionOf(song, sectionId);
  const part = partOf(song, partId);
  if (!section || !part) return noPlace(sectionId, partId);
  const tune = part.link?.top ? (section.notes[part.link.top] ?? []) : [];
  const events: { note: Note; chord: Chord; symbol: string }[] = [];
  for (const note of tune) {
    const at = Math.max(0, note.start);
    const event = section.chords.find((c) => c.start <= at && at < c.start + c.duration);
    const chord = event && chordOf(event.symbol);
    if (event && chord) events.push({ note, chord, symbol: event.symbol });
  }
  if (!events.length) return ok(null);
  const { range: _, ...options } = partOptions(song, part, section);
  const space = voicingSpace(
    events.map((e) => e.chord),
    {
      ...options,
      style: "block",
      loop: false,
      outer: Object.fromEntries(events.map((e, i) => [i, { top: e.note.pitch }])),
    },
  );
  if (!space.ok) return space;
  const path = describe(space.value, firstOf(pathsOf(space.value, 1)).path);
  return ok(
    events.flatMap(({ note, symbol }, i) =>
      nth(path.chords, i)
        .pitches.map(pitchMidi)
        .map((midi): NewNote => {
          const isTune = midi === pitchMidi(note.pitch);
          return {
            start: note.start,
            duration: note.duration,
            pitch: isTune ? note.pitch : spellAt(song, section, note.start, midi),
            velocity: isTune ? 80 : 68,
            reason: because("block", { pitch: note.pitch, chord: symbol }),
          };
        }),
    ),
  );
}
