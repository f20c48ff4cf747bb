import type { Song } from "../src/index";
import { edit, songWith } from "./helpers";

/** A song whose lines are written as "beat pitch beats", by name; the first is the tune. Voices are a choir, so that ranges say nothing. */
export function withLines(line: string, lines: Record<string, string[]>, more: { key?: string; bars?: number } = {}): Song {
  const [first, ...others] = Object.entries(lines);
  const base = songWith({ line, ...(more.key ? { key: more.key } : {}), melody: first![1] });
  const start = more.bars ? edit(base, { do: "setSection", section: "s1", bars: more.bars }) : base;
  const song = edit(start, { do: "setPart", part: "melody", instrument: "choir", name: first![0] });
  return others.reduce((s, [name, notes]) => {
    const bass = name === "Bass";
    const added = bass ? s : edit(s, { do: "addPart", name, role: "vocal", instrument: "choir" });
    const part = bass ? "bass" : added.parts.find((p) => p.name === name)!.id;
    const list = songWith({ melody: notes }).sections[0]!.notes.melody!.map(({ id: _, ...n }) => n);
    return edit(added, { do: "setNotes", section: "s1", part, notes: list });
  }, song);
}
