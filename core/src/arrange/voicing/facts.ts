/** Layouts of the chords of a part, as facts. */
import type { Result } from "../../base/result";
import { sectionOf } from "../../song/document";
import type { NewNote } from "../../song/schema";
import { sharing } from "../../base/plain";
import { type Fact } from "../../facts/memory";
import { layOutAnew, type Anew } from "./anew";
import { blockNotes } from "./block";
import { askVoicing, layOut, layoutsOf, type AskedVoicing, type Layouts, type SectionVoicing } from "./section";

/** What the layouts of a part in a section depend on. */
export const voicingAskedAt: Fact<[section: string, part: string], Result<AskedVoicing>> = {
  id: "voicing asked",
  of: (read, section, part) => askVoicing(read.song, section, part),
  keep: sharing,
};

/** Layouts a part has in a section, by chord id. */
export const layoutsAt: Fact<[section: string, part: string], Layouts> = {
  id: "layouts",
  of(read, id, part) {
    const section = sectionOf(read.song, id);
    return section ? layoutsOf(section, part) : {};
  },
  keep: sharing,
};

/**
 * A part through a section as it is laid out, with other layouts for each chord; chords that have none yet get the
 * cheapest.
 */
export const voicingAt: Fact<[section: string, part: string], Result<SectionVoicing>> = {
  id: "voicing",
  of(read, section, part) {
    const asked = read.get(voicingAskedAt, section, part);
    return asked.ok ? layOut(asked.value, read.get(layoutsAt, section, part)) : asked;
  },
};

/** What laying a section out anew would gain. */
export const anewAt: Fact<[section: string, part: string], Result<Anew | null>> = {
  id: "anew",
  of(read, section, part) {
    const asked = read.get(voicingAskedAt, section, part);
    return asked.ok ? layOutAnew(asked.value, read.get(layoutsAt, section, part)) : asked;
  },
};

/** Chords of a part under every note of a tune. */
export const blockAt: Fact<[section: string, part: string], Result<NewNote[] | null>> = {
  id: "block",
  of: (read, section, part) => blockNotes(read.song, section, part),
  keep: sharing,
};
