/** What a rule is given to look at. */
import { sure } from "../../base/list";
import { sharing } from "../../base/plain";
import { orNull } from "../../base/result";
import { agreementAt } from "../../arrange/groove/facts";
import { type Fact, type Reader } from "../../facts/memory";
import { accentsAt } from "../../hear/accents/facts";
import { slicesAt } from "../../hear/slice/facts";
import type { Sliced } from "../../hear/slice/slices";
import { notesAt, realizedAt } from "../../hear/sounding";
import { doublesAt, pairAt } from "../../hear/voice/pairs";
import { threadsAt } from "../../hear/voice/voices";
import { sectionKey, sectionMeter, sectionOf } from "../../song/document";
import { passPlace, sectionPlace } from "../../song/place";
import type { CheckContext } from "./rule";

/** What ways out of findings rest on in a section besides what sounds in it. */
const groundAt: Fact<[section: string], object> = {
  id: "ground of ways",
  of({ song }, id) {
    const section = sectionOf(song, id);
    return {
      section: id,
      key: section && sectionKey(song, section),
      meter: section && sectionMeter(song, section),
      playing: section?.playing,
      profile: song.profile,
      instruments: song.instruments,
      singers: song.singers,
      parts: song.parts.map(({ id, name, role, instrument, range, link, echoes, playing }) => ({
        ...{ id, name, role, instrument, range, link, echoes, playing },
      })),
    };
  },
  keep: sharing,
};

export function contextOf(
  read: Reader,
  sectionId: string,
  { rule = "", bare = false }: { rule?: string; bare?: boolean } = {},
): CheckContext | null {
  const { song } = read;
  const section = sectionOf(song, sectionId);
  if (!section) return null;
  let sliced: Sliced | undefined;
  return {
    rule,
    song,
    section,
    bare,
    ground: () => read.get(groundAt, sectionId),
    meter: sectionMeter(song, section),
    key: sectionKey(song, section),
    get sliced() {
      // Asked for at every note: that it was read is recorded once.
      return (sliced ??= read.get(slicesAt, sectionPlace(sectionId)));
    },
    threads: (part) => read.get(threadsAt, sectionPlace(sectionId), part, "held"),
    pair: (a, b) => sure(read.get(pairAt, sectionId, a.part.id, String(a.place), b.part.id, String(b.place))),
    areOne: (a, b) => read.get(doublesAt, sectionId, a.part.id, String(a.place), b.part.id, String(b.place)),
    played: (part) => read.get(notesAt, sectionPlace(sectionId), part, "played"),
    accents: () => orNull(read.get(accentsAt, sectionId)),
    agreement: () => orNull(read.get(agreementAt, sectionId)),
    pass: (id) => read.get(realizedAt, passPlace(song, id), "played"),
    other: (id) => read.get(realizedAt, sectionPlace(id), "played"),
  };
}
