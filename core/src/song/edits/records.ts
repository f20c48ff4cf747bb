import { z } from "zod";
import { covers, matterOf } from "../matter";
import { Matter, SectionId, Waiver, WaiverId } from "../schema";
import { defineEdit, refuse } from "./define";

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
