import type { Result } from "../../base/result";
import { sectionPlace } from "../../song/place";
import type { Fact } from "../../facts/memory";
import { realizedAt } from "../sounding";
import { accentMap, type AccentMap } from "./accentMap";

/** Who strikes where in a section. */
export const accentsAt: Fact<[section: string], Result<AccentMap>> = {
  id: "accents",
  of: (read, section) => accentMap(read.song, section, read.get(realizedAt, sectionPlace(section), "played")),
};
