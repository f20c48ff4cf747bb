import { firstOf } from "../../base/list";
import { freeName } from "../../theory/words/english";
import type { Edit } from "../../song/edits";
import type { Song } from "../../song/schema";
import { VOICES } from "../../hear/singer/range";
import type { VocalLines } from "./write";

/** The edit that takes written voices: into the parts they are for, and into new ones for those that have none yet. */
export function takeVoices(song: Song, section: string, lines: VocalLines): Edit {
  const taken = new Set(song.parts.map((p) => p.name));
  const edits = lines.parts.flatMap(({ part, type, notes }): Edit[] => {
    if (part !== null) return [{ do: "setNotes", section, part, notes }];
    if (!notes.length) return [];
    const voice = VOICES.find((v) => v.id === type) ?? firstOf(VOICES);
    const name = freeName(taken, voice.title);
    taken.add(name);
    return [
      {
        do: "addPart",
        name,
        role: "vocal",
        instrument: voice.id,
        notes: { [section]: notes.map(({ id: _, ...n }) => n) },
      },
    ];
  });
  return edits.length === 1 ? firstOf(edits) : { do: "all", label: `voices: ${lines.title}`, edits };
}
