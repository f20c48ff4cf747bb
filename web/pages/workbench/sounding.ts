import { type RealizedNote, type RealizedPart, type RoleSpan, Slice, type Ticks } from "../../../core/src/index";
import type { SectionData } from "../../app/store/sectionData";

/** A note that sounds, with what it is in the chord of the moment. */
export interface Sounding {
  note: RealizedNote;
  part: RealizedPart;
  role: RoleSpan | undefined;
}

/** Everything that sounds at a place. */
export const soundingAt = (data: Pick<SectionData, "real" | "roles">, at: Ticks): Sounding[] =>
  data.real.parts.flatMap((part) =>
    Slice.sounding(part.notes, at).map((note) => ({
      note,
      part,
      role: data.roles
        .get(part.id)
        ?.get(note)
        ?.find((s) => s.start <= at && at < s.start + s.duration),
    })),
  );
