import { sure } from "../../../core/src/index";
import type { RealizedNote, RealizedPart, RoleSpan, Ticks } from "../../../core/src/index";
import type { SectionData } from "../../app/store/sectionData";

/** A note that sounds, with what it is in the chord of the moment. */
export interface Sounding {
  note: RealizedNote;
  part: RealizedPart;
  role: RoleSpan | undefined;
}

/** Everything that sounds at a place. */
export const soundingAt = (data: SectionData, at: Ticks): Sounding[] =>
  data.real.parts.flatMap((part) =>
    part.notes
      .filter((n) => n.start <= at && at < n.start + n.duration)
      .map((note) => ({
        note,
        part,
        role: sure(data.roles.get(part.id))
          .get(note)
          ?.find((s) => s.start <= at && at < s.start + s.duration),
      })),
  );
