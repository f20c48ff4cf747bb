import { sure } from "../../base/list";
import { produce } from "immer";
import { z } from "zod";
import { fail, ok, type Problem, type Result } from "../../base/result";
import { INSTRUMENTS } from "../../theory/instrument/instruments";
import { breachOf, freeNumber } from "../integrity";
import { SongFields, type Song, type Thing } from "../schema";
import { issueIn, valueAt, type Issue } from "../validate";
import type { EditDefinition } from "./define";
import { EDITS, type Edit } from "./list";
import { beyondMusic, closePass, lengthRefused, openPass, playedInPass } from "./inPass";

export { EDITS, type Edit } from "./list";

export interface Applied {
  song: Song;
  /** Ids of what the edit made, what was asked for first. */
  created: string[];
  /** What could not be done while the rest stands, such as places of a chord line that could not be read. */
  problems: Problem[];
}

const REGISTRY = new Map(
  EDITS.map((definition) => {
    const erased = definition as unknown as EditDefinition;
    return [
      erased.name,
      { definition: erased, schema: z.strictObject({ do: z.literal(erased.name), ...erased.schema }) },
    ];
  }),
);

/**
 * Applies an edit. The song that was passed in is never changed; an accepted edit leaves a document that `parseSong`
 * accepts, with no reference into nothing; a refused one leaves everything as it was and says what and why. Error codes
 * begin with `edit.`, or are those of what is read.
 */
export function applyEdit(before: Song, edit: Edit): Result<Applied> {
  if (edit.do === "all") return applyAll(before, edit.edits);
  if (edit.do === "inPass") return applyInPass(before, edit);
  const entry = REGISTRY.get(edit.do);
  if (!entry) return fail("edit.unknown", `There is no edit called "${String(edit.do)}"`);
  const parsed = entry.schema.safeParse(edit);
  if (!parsed.success) {
    const [issue] = parsed.error.issues;
    const read = issue?.code === "custom" ? (issue.params?.problem as Problem | undefined) : undefined;
    if (read) return { ok: false, error: read };
    return fail(
      `edit.${edit.do}`,
      cannotUse(entry.definition, { ...sure(issue), value: valueAt(edit, sure(issue).path) }),
    );
  }
  const { do: _, ...fields } = parsed.data as Record<string, unknown>;
  const absent = absentIn(before, entry.definition, fields);
  if (absent) return { ok: false, error: absent };
  return make(before, entry.definition, fields);
}

function make(before: Song, { apply }: EditDefinition, edit: Record<string, unknown>): Result<Applied> {
  const created: string[] = [];
  const problems: Problem[] = [];
  let refused: Problem | undefined;
  const next = new Map<string, number>();
  const after = produce(before, (draft) => {
    const fresh = (prefix: string, taken?: ReadonlySet<string>): string => {
      let number = Math.max(draft.nextId, next.get(prefix) ?? freeNumber(before, prefix));
      while (taken?.has(prefix + number)) number++;
      next.set(prefix, number + 1);
      draft.nextId = number + 1;
      created.push(prefix + number);
      return prefix + number;
    };
    refused = apply(draft, edit as never, { song: before, fresh, note: (p) => void problems.push(p) }) ?? undefined;
  });
  if (refused) return { ok: false, error: refused };
  const issue = issueIn(SongFields, before, after);
  if (issue)
    return fail(
      "edit.invalid",
      `This would leave a song that cannot be kept: ${issue.path.map(String).join(".")}: ${issue.message}`,
    );
  const breach = after === before ? null : breachOf(after);
  if (breach)
    return fail(
      "edit.invalid",
      `This would leave a song that cannot be kept: ${breach.path.join(".")}: ${breach.message}`,
    );
  return ok({ song: after, created, problems });
}

function applyAll(song: Song, edits: readonly Edit[]): Result<Applied> {
  const all: Applied = { song, created: [], problems: [] };
  for (const edit of edits) {
    const next = applyEdit(all.song, edit);
    if (!next.ok) return next;
    all.song = next.value.song;
    all.created.push(...next.value.created);
    all.problems.push(...next.value.problems);
  }
  return ok(all);
}

function applyInPass(song: Song, { pass: id, here = false, edit }: Extract<Edit, { do: "inPass" }>): Result<Applied> {
  const pass = song.form.find((p) => p.id === id);
  const section = pass && song.sections.find((s) => s.id === pass.sectionId);
  if (!section) return fail("edit.pass", `No pass has the id "${id}"`);
  if (edit.do === "all")
    return applyAll(
      song,
      edit.edits.map((e) => ({ do: "inPass", pass: id, here, edit: e })),
    );
  if (REGISTRY.get(edit.do)?.definition.whole) return applyEdit(song, edit);
  if (
    edit.do === "setPlaying" &&
    edit.pass === undefined &&
    (edit.section === undefined || edit.section === section.id)
  )
    return applyAll(song, playedInPass(pass, edit, here));
  const open = openPass(song, section, pass);
  const made = applyEdit(open, edit);
  if (!made.ok) return made;
  if (beyondMusic(open, made.value.song, section.id)) return applyEdit(song, edit);
  const { bars } = sure(made.value.song.sections.find((s) => s.id === section.id));
  if (bars !== section.bars && here) return { ok: false, error: lengthRefused(section) };
  if (bars < section.bars) {
    // What falls out of a shorter section is what the section has there, not what the pass has.
    const shorter = applyEdit(song, { do: "setSection", section: section.id, bars });
    return !shorter.ok ? shorter : applyEdit(shorter.value.song, { do: "inPass", pass: id, edit });
  }
  const closed = closePass(song, pass, open, { after: made.value.song, here });
  if ("message" in closed) return { ok: false, error: closed };
  const breach = breachOf(closed);
  if (breach)
    return fail(
      "edit.invalid",
      `This would leave a song that cannot be kept: ${breach.path.join(".")}: ${breach.message}`,
    );
  return ok({ ...made.value, song: closed });
}

/** An issue in words: "The velocity 0 cannot be used: velocities go from 1 to 127". */
function cannotUse({ title }: EditDefinition, { path, message, value }: Issue): string {
  const name = path.findLast((key) => typeof key === "string");
  const index = path.find((key) => typeof key === "number");
  if (name === undefined) return `Cannot ${title}: ${message}`;
  const shown = JSON.stringify(value) ?? "nothing";
  const where = index === undefined ? "" : ` of number ${index + 1}`;
  return (
    `Cannot ${title}: the ${String(name)}${where} cannot be ` +
    `${shown.length > 60 ? `${shown.slice(0, 60)}…` : shown}: ${message}`
  );
}

/** What a schema's field refers to, through what makes it optional, nullable or a list. */
function refOf(schema: z.ZodType): Thing | undefined {
  const { innerType, element } = schema.def as unknown as { innerType?: z.ZodType; element?: z.ZodType };
  const inner = () => {
    if (innerType) return refOf(innerType);
    if (element) return refOf(element);
    return undefined;
  };
  return schema.meta()?.ref ?? inner();
}

/** Whether a song has the thing an id names; chords and notes are looked for in a section. */
function has(song: Song, thing: Thing, id: string, section: unknown): boolean {
  switch (thing) {
    case "instrument":
      return [...INSTRUMENTS, ...(song.instruments ?? [])].some((i) => i.id === id);
    case "chord":
      return song.sections.find((s) => s.id === section)?.chords.some((c) => c.id === id) ?? false;
    // The edits of notes look for theirs in one part.
    case "note":
      return true;
    default:
      return song[LISTS[thing]].some((x) => x.id === id);
  }
}
const LISTS = {
  section: "sections",
  part: "parts",
  pass: "form",
  take: "takes",
  waiver: "waivers",
  singer: "singers",
} as const;

/** A reference of an edit into nothing. */
function absentIn(song: Song, { schema }: EditDefinition, edit: Record<string, unknown>): Problem | null {
  for (const [name, field] of Object.entries(schema)) {
    const thing = refOf(field);
    if (!thing) continue;
    for (const id of [edit[name]].flat())
      if (typeof id === "string" && !has(song, thing, id, edit.section))
        return {
          code: `edit.${thing}`,
          message: thing === "chord" ? `No chord of this section has the id "${id}"` : `No ${thing} has the id "${id}"`,
        };
  }
  return null;
}
