import { firstOf, sure } from "../../src/base/list";
import { octaveShift } from "../../src/arrange/room/room";
import { instrumentOf, midiRange } from "../../src/theory/instrument/instruments";
import { partOf } from "../../src/song/document";
import { realize } from "../../src/song/realize";
import { mod, pitchMidi, pitchName, plainName } from "../../src/theory/pitch/pitch";
import { edit, songWith } from "../helpers";

/** A flute whose only note lies so many semitones below the top of its range, moved an octave up or down. */
function moved(below: number, way: 1 | -1): string | null {
  const base = edit(songWith({ line: "| C |" }), {
    do: "addPart",
    name: "Flute",
    role: "counter",
    instrument: "flute",
  });
  const id = sure(base.parts.find((p) => p.name === "Flute")).id;
  const [low, high] = midiRange(instrumentOf("flute", base).range);
  const midi = way === 1 ? high - below : low + below;
  const pitch = pitchName(midi, plainName(mod(midi, 12), true));
  const song = edit(base, {
    do: "setNotes",
    section: "s1",
    part: id,
    notes: [{ start: 0, duration: 480, pitch, velocity: 80 }],
  });
  const part = sure(partOf(song, id));
  const during = sure(realize(song, { section: "s1" }).parts.find((p) => p.id === id)).notes;
  const change = octaveShift(song, firstOf(song.sections), part, { during, way });
  const made = change && edit(song, change);
  return made ? (firstOf(made.sections).notes[id]?.[0]?.pitch ?? null) : null;
}

test.each([1, -1] as const)(
  "an octave (way %d) is offered as far as the instrument has the note, and no farther",
  (way) => {
    const [low, high] = midiRange(instrumentOf("flute", songWith({})).range);
    expect(pitchMidi(sure(moved(12, way)))).toBe(way === 1 ? high : low);
    expect(moved(11, way)).toBeNull();
  },
);
