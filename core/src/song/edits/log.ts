import { z } from "zod";
import { sure } from "../../base/list";
import { Entry, EntryId, LIMITS, PartId, PassId, SectionId, SectionTick, TakeId } from "../schema";
import { defineEdit, refuse } from "./define";

/**
 * Writes a line into the log of the song: what was tried, decided or agreed, where, and why. The caller says when.
 * Made: the line.
 */
export const logEntry = defineEdit({
  name: "logEntry",
  title: "write into the log",
  whole: true,
  schema: {
    at: Entry.shape.at,
    what: Entry.shape.what,
    why: Entry.shape.why,
    section: SectionId.optional(),
    pass: PassId.optional(),
    tick: SectionTick.optional(),
    bars: z.int().min(1).max(LIMITS.bars).optional(),
    parts: z.array(PartId).max(LIMITS.parts).optional(),
    take: TakeId.optional(),
    /** The application has written it, beside a deed. */
    byItself: z.boolean().optional(),
  },
  apply(draft, { at, what, why, take, byItself, section, pass, tick, bars, parts }, { song, fresh }) {
    if (song.log.length >= LIMITS.log)
      return refuse("log", `A log has at most ${LIMITS.log} lines`, "Delete some that nobody needs.");
    const where = {
      ...(section === undefined ? {} : { sectionId: section }),
      ...(pass === undefined ? {} : { passId: pass }),
      ...(tick === undefined ? {} : { tick }),
      ...(bars === undefined ? {} : { bars }),
      ...(parts?.length ? { parts } : {}),
    };
    draft.log.push({
      id: fresh("w"),
      at,
      what,
      ...(why ? { why } : {}),
      ...(Object.keys(where).length ? { where } : {}),
      ...(take === undefined ? {} : { takeId: take }),
      ...(byItself ? { byItself } : {}),
    });
  },
});

/** Changes what a line of the log says, or why. */
export const setEntry = defineEdit({
  name: "setEntry",
  title: "change a line of the log",
  whole: true,
  schema: { entry: EntryId, what: Entry.shape.what.optional(), why: Entry.shape.why.nullable() },
  apply(draft, { entry, what, why }) {
    const target = sure(draft.log.find((e) => e.id === entry));
    if (what !== undefined) target.what = what;
    if (why) target.why = why;
    else if (why !== undefined) delete target.why;
  },
});

export const removeEntry = defineEdit({
  name: "removeEntry",
  title: "delete a line of the log",
  whole: true,
  schema: { entry: EntryId },
  apply(draft, { entry }) {
    draft.log = draft.log.filter((e) => e.id !== entry);
  },
});
