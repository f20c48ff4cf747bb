import { pitchMidi } from "../pitch/pitch";
import type { Edit } from "../song/edits";
import type { Song } from "../song/schema";
import { voiceAround } from "../singer/range";
import type { VocalLines } from "./write";

/** A name that no part has yet. */
function freeName(taken: ReadonlySet<string>, name: string): string {
  for (let n = 1; ; n++) {
    const free = n === 1 ? name : `${name} ${n}`;
    if (!taken.has(free)) return free;
  }
}

/** The edit that takes written voices: into the parts they are for, and into new ones for those that have none yet. */
export function takeVoices(song: Song, section: string, lines: VocalLines): Edit {
  const taken = new Set(song.parts.map((p) => p.name));
  const edits = lines.parts.flatMap(({ part, notes }): Edit[] => {
    if (part !== null) return [{ do: "setNotes", section, part, notes }];
    if (!notes.length) return [];
    const mean = notes.reduce((sum, n) => sum + pitchMidi(n.pitch) * n.duration, 0) / notes.reduce((sum, n) => sum + n.duration, 0);
    const voice = voiceAround(mean);
    const name = freeName(taken, voice.title);
    taken.add(name);
    return [{ do: "addPart", name, role: "vocal", instrument: voice.id, notes: { [section]: notes.map(({ id: _, ...n }) => n) } }];
  });
  return edits.length === 1 ? edits[0]! : { do: "all", label: `voices: ${lines.title}`, edits };
}
