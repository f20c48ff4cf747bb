import { sure } from "../../src/base/list";
import { counterLines, type CounterLine } from "../../src/write/counter/write";
import { must } from "../../src/base/result";
import type { Edit } from "../../src/song/edits/list";
import type { Note } from "../../src/song/schema/material";
import type { Song } from "../../src/song/schema/song";
import { edit } from "../helpers";

/** A song with a fiddle that answers the melody. */
export function withFiddle(song: Song, notes: Omit<Note, "id">[] = []): Song {
  const added = edit(song, { do: "addPart", name: "Fiddle", role: "counter", instrument: "violin" });
  const id = sure(added.parts.find((p) => p.name === "Fiddle")).id;
  const named = { ...added, parts: added.parts.map((p) => (p.id === id ? { ...p, id: "answer" } : p)) };
  return notes.length ? edit(named, { do: "setNotes", section: "s1", part: "answer", notes } as Edit) : named;
}
export const note = (beat: number, pitch: string, beats: number, more: Partial<Note> = {}): Omit<Note, "id"> => ({
  start: beat * 480,
  duration: beats * 480,
  pitch,
  velocity: 80,
  ...more,
});
export const write = (song: Song, style: string, more: object = {}): CounterLine[] =>
  must(counterLines(song, { section: "s1", part: "answer", style, seed: 3, ...more }));
