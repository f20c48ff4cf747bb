import { firstOf, sure } from "../../base/list";
import { z } from "zod";
import { covers, matterOf } from "../matter";
import { Matter, PartId, SectionId, Take, TakeId, Waiver, WaiverId, type Note } from "../schema";
import { defineEdit, refuse } from "./define";

/** Kept states of one part in one section; older ones give way. */
const MOST_TAKES = 24;

const textOf = (notes: readonly Note[]): string =>
  notes.map((n) => `${n.start}:${n.duration}:${n.pitch}:${n.velocity}`).join();

/**
 * Keeps what a part plays in a section under a name, to come back to; a state that is kept already is not kept twice.
 */
export const keepTake = defineEdit({
  name: "keepTake",
  title: "keep a state",
  schema: { section: SectionId, part: PartId, name: Take.shape.name, why: Take.shape.why, made: Take.shape.made },
  apply(draft, { section, part, name, why, made }, { song, fresh }) {
    const notes = sure(song.sections.find((s) => s.id === section)).notes[part] ?? [];
    const same = song.takes.filter((t) => t.sectionId === section && t.notes?.[part]);
    if (!notes.length || same.some((t) => textOf(sure(sure(t.notes)[part])) === textOf(notes))) return;
    const oldest = same.length >= MOST_TAKES ? firstOf(same).id : null;
    if (oldest) {
      draft.takes = draft.takes.filter((t) => t.id !== oldest);
      for (const entry of draft.log) if (entry.takeId === oldest) delete entry.takeId;
    }
    draft.takes.push({
      id: fresh("t"),
      name,
      ...(why === undefined ? {} : { why }),
      ...(made === undefined ? {} : { made }),
      sectionId: section,
      notes: { [part]: [...notes] },
    });
  },
});

export const removeTake = defineEdit({
  name: "removeTake",
  title: "remove a kept state",
  schema: { take: TakeId },
  apply(draft, { take }) {
    draft.takes = draft.takes.filter((t) => t.id !== take);
    for (const entry of draft.log) if (entry.takeId === take) delete entry.takeId;
  },
});

/**
 * Lets something stand, with a reason: a finding by its id, or all findings of a rule in a section (or anywhere), of
 * these parts (or any), about this (or anything). Made: the waiver.
 */
export const waive = defineEdit({
  name: "waive",
  title: "let a finding stand",
  schema: {
    finding: z.string().max(2000).optional(),
    rule: Matter.shape.rule.optional(),
    section: SectionId.optional(),
    parts: Matter.shape.parts.optional(),
    about: Matter.shape.about.optional(),
    duration: Matter.shape.duration,
    reason: Waiver.shape.reason,
  },
  apply(draft, { finding, rule, section, parts = [], about = "", duration, reason }, { fresh }) {
    let matter: Matter | null;
    if (finding !== undefined) matter = matterOf(finding);
    else if (rule) matter = { rule, ...(section === undefined ? {} : { sectionId: section }), parts, about };
    else matter = null;
    if (!matter) return refuse("waive", "A waiver names a finding or a rule");
    draft.waivers = draft.waivers.filter(
      (w) => !(covers(w, matter) && w.about === matter.about && w.parts.length === matter.parts.length),
    );
    draft.waivers.push({ id: fresh("w"), ...matter, ...(duration === undefined ? {} : { duration }), reason });
  },
});

/** Takes a waiver back, by its own id or by the finding it covers. */
export const unwaive = defineEdit({
  name: "unwaive",
  title: "no longer let a finding stand",
  schema: { finding: z.string().max(2000).optional(), waiver: WaiverId.optional() },
  apply(draft, { finding, waiver }) {
    const matter = finding === undefined ? null : matterOf(finding);
    if (waiver === undefined && !matter)
      return refuse("waive", "A waiver is lifted by its id or by the finding it covers");
    draft.waivers = draft.waivers.filter((w) => w.id !== waiver && !(matter && covers(w, matter)));
  },
});
