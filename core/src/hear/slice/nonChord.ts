import type { Song } from "../../song/schema";
import type { RealizedNote } from "../../song/realize";
import { sectionPlace } from "../../song/place";
import { factsOf } from "../../facts/memory";
import { rolesAt } from "./facts";
import { textbookKind, type RoleKind } from "./roles";

export interface NonChordTone {
  note: RealizedNote;
  /** Where it becomes one: its beginning, or the chord it is held into. */
  start: number;
  kind: RoleKind;
  /** On a stronger position than the note it goes on to. */
  accented: boolean;
}

/** The non-chord tones of a part in a section, by how each is reached and left (any harmony textbook). */
export function nonChordTones(song: Song, { section, part }: { section: string; part: string }): NonChordTone[] {
  return [...factsOf(song).get(rolesAt, sectionPlace(section), part, "played")].flatMap(([note, spans]) =>
    spans.flatMap((span) => {
      const kind = textbookKind(span);
      return kind ? [{ note, start: span.start, kind, accented: span.accented ?? false }] : [];
    }),
  );
}
