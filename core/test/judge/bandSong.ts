import { firstOf, lastOf, sure } from "../../src/base/list";
import { bassPc } from "../../src/theory/chord/chord";
import { chordOf } from "../../src/theory/chord/progression";
import { mod, pitchMidi } from "../../src/theory/pitch/pitch";
import { must } from "../../src/base/result";
import { newSong } from "../../src/song/document";
import { parseMeter } from "../../src/theory/time/meter";
import { parseTune } from "../../src/hear/line/text";
import { spellAt } from "../../src/song/spell";
import type { Drum } from "../../src/theory/instrument/drums";
import type { Edit } from "../../src/song/edits/list";
import type { Part, Song } from "../../src/song/schema/song";
import type { Profile } from "../../src/song/schema/playing";
import { edit } from "../helpers";

/**
 * What a part does in a section: a tune as it is typed, layouts struck in a rhythm, or roots and fifths in a rhythm.
 */
export type Played =
  | string
  /** Layouts by chord symbol, low to high; steps of a bar: x strikes, - holds, . rests. */
  | { layouts: Record<string, string>; rhythm: string; velocity?: number }
  /**
   * Steps of a bar: R the root at or above `low`, 3 5 7 8 over it, < a semitone under the next root, - holds, . rests.
   */
  | { low: string; steps: string };

/** A song as a musician would jot it down, with what is wrong in it marked beforehand. */
export interface Jotted {
  title: string;
  key: string;
  meter?: string;
  tempo: number;
  profile: Profile;
  parts: Record<string, readonly [role: Part["role"], instrument: string]>;
  sections: Record<
    string,
    {
      line: string;
      parts: Record<string, Played>;
      drums?: Partial<Record<Drum, string>>;
      also?: (song: Song, section: string) => Song;
    }
  >;
  form: readonly string[];
  /** Rule, section, bar (1 is the first) and the parts that it is about. */
  marks: readonly (readonly [rule: string, section: string, bar: number, ...parts: string[]])[];
}

type Chords = Song["sections"][number]["chords"];
type NewNote = { start: number; duration: number; pitch: string; velocity: number };

/** The song that is jotted down, note for note. */
export function songOf(jotted: Jotted): Song {
  const { title, key, tempo, profile, sections, form } = jotted;
  const meter = must(parseMeter(jotted.meter ?? "4/4"));
  const names = Object.keys(sections);
  const barsOf = (name: string) => sure(sections[name]).line.split("|").length - 2;
  let song = must(newSong({ title, key, tempo, profile, meter: meter.text, bars: barsOf(firstOf(names)) }));
  for (const part of song.parts) if (part.role !== "drums") song = edit(song, { do: "removePart", part: part.id });
  for (const [name, [role, instrument]] of Object.entries(jotted.parts).reverse())
    song = edit(song, { do: "addPart", name, role, instrument });
  const ids = new Map<string, string>();
  names.forEach((name, i) => {
    song = i
      ? edit(song, { do: "addSection", name, bars: barsOf(name) })
      : edit(song, { do: "setSection", section: "s1", name });
    ids.set(name, lastOf(song.sections).id);
  });
  for (const [name, { line, parts, drums, also }] of Object.entries(sections)) {
    const section = sure(ids.get(name));
    song = edit(song, { do: "setLine", section, line });
    for (const [part, played] of Object.entries(parts)) {
      const id = sure(song.parts.find((p) => p.name === part)).id;
      song = edit(song, { do: "setNotes", section, part: id, notes: notesFor(song, section, played, meter.bar) });
    }
    for (const [drum, steps] of Object.entries(drums ?? {}))
      song = edit(song, ...hitsOf(section, drum as Drum, steps, { bars: barsOf(name), bar: meter.bar }));
    if (also) song = also(song, section);
  }
  return { ...song, form: form.map((name, i) => ({ id: `o${i + 1}`, sectionId: sure(ids.get(name)) })) };
}

const hitsOf = (section: string, drum: Drum, steps: string, { bars, bar }: { bars: number; bar: number }): Edit[] =>
  Array.from({ length: bars }, (_, b) =>
    [...steps].flatMap((s, i): Edit[] =>
      s === "."
        ? []
        : [{ do: "setHit", section, drum, start: b * bar + (i * bar) / steps.length, velocity: s === "X" ? 104 : 74 }],
    ),
  ).flat();

function notesFor(song: Song, sectionId: string, played: Played, bar: number): NewNote[] {
  const section = sure(song.sections.find((s) => s.id === sectionId));
  if (typeof played === "string") return must(parseTune(played, { meter: must(parseMeter(song.meter)) }));
  const text = "steps" in played ? played.steps : played.rhythm;
  const step = bar / text.length;
  const notes: NewNote[] = [];
  for (let i = 0; i < section.bars * text.length; i++) {
    const [mark, start] = [sure(text[i % text.length]), i * step];
    if (mark === ".") continue;
    const chord = sure(section.chords.find((c) => c.start <= start && start < c.start + c.duration));
    if (mark === "-") {
      for (const n of notes) if (n.start + n.duration === start) n.duration += step;
      continue;
    }
    const pitches =
      "steps" in played
        ? [spellAt(song, section, start, bassNote(section.chords, chord, mark, played.low))]
        : sure(played.layouts[chord.symbol]).split(" ");
    for (const pitch of pitches)
      notes.push({ start, duration: step, pitch, velocity: "rhythm" in played ? (played.velocity ?? 70) : 88 });
  }
  return notes;
}

function bassNote(chords: Chords, event: Chords[number], mark: string, low: string): number {
  const root = ({ symbol }: Chords[number]) => pitchMidi(low) + mod(bassPc(sure(chordOf(symbol))) - pitchMidi(low), 12);
  const tone = (degree: number) => sure(chordOf(event.symbol)).tones.find((t) => t.degree === degree)?.semitones ?? 0;
  if (mark === "<") return root(chords.find((c) => c.start > event.start) ?? firstOf(chords)) - 1;
  const above = () => {
    if (mark === "R") return 0;
    if (mark === "8") return 12;
    return tone(Number(mark));
  };
  return root(event) + above();
}
