import { firstOf, sure } from "../../base/list";
import { produce } from "immer";
import { z } from "zod";
import { fail, ok, type Problem, type Result } from "../../base/result";
import { INSTRUMENTS } from "../../theory/instrument/instruments";
import { breachOf, freeNumber } from "../integrity";
import { followWaivers } from "../waived";
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
  /** The edit as it was read: what `repeatEdit` makes elsewhere. */
  edit: Edit;
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
  const made = apply(before, edit, true);
  return made.ok ? ok({ ...made.value, song: followWaivers(before, made.value.song) }) : made;
}

/**
 * Makes an edit that `applyEdit` has accepted for the same song elsewhere (its `edit`, as it was read): nothing is read
 * or checked a second time. Null where it cannot be made here, so that the whole song has to be sent.
 */
export function repeatEdit(before: Song, edit: Edit): Song | null {
  const made = apply(before, edit, false);
  return made.ok ? followWaivers(before, made.value.song) : null;
}

/** `reads`: whether the edit is read by its schema, and the song that comes of it checked. */
function apply(before: Song, edit: Edit, reads: boolean): Result<Applied> {
  if (edit.do === "all") return applyAll(before, edit, reads);
  if (edit.do === "inPass") return applyInPass(before, edit, reads);
  const entry = REGISTRY.get(edit.do);
  if (!entry) return fail("edit.unknown", `There is no edit called "${String(edit.do)}"`);
  const read = reads ? readEdit(entry, edit) : ok(edit);
  if (!read.ok) return read;
  const { do: _, ...fields } = read.value as Record<string, unknown> & { do: string };
  const absent = absentIn(before, entry.definition, fields);
  if (absent) return { ok: false, error: absent };
  const made = make(before, entry.definition, fields, reads);
  return made.ok ? ok({ ...made.value, edit: read.value }) : made;
}

type Entry = NonNullable<ReturnType<typeof REGISTRY.get>>;

/** An edit as its schema reads it: texts without blanks around them. */
function readEdit({ schema, definition }: Entry, edit: Edit): Result<Edit> {
  const parsed = schema.safeParse(edit);
  if (parsed.success) return ok(parsed.data as Edit);
  const issue = firstOf(parsed.error.issues);
  const read = issue.code === "custom" ? (issue.params?.problem as Problem | undefined) : undefined;
  if (read) return { ok: false, error: read };
  return fail(`edit.${edit.do}`, cannotUse(definition, { ...issue, value: valueAt(edit, issue.path) }));
}

/** What is made of a song before the edit is put beside it. */
type Made = Omit<Applied, "edit">;

function make(before: Song, { apply }: EditDefinition, edit: Record<string, unknown>, checks: boolean): Result<Made> {
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
  const wrong = checks && after !== before ? (issueIn(SongFields, before, after) ?? breachOf(after)) : null;
  return wrong ? unkept(wrong) : ok({ song: after, created, problems });
}

const unkept = ({ path, message }: Pick<Issue, "path" | "message">): Result<never> =>
  fail("edit.invalid", `This would leave a song that cannot be kept: ${path.map(String).join(".")}: ${message}`);

function applyAll(song: Song, all: Extract<Edit, { do: "all" }>, reads: boolean): Result<Applied> {
  const made: Made = { song, created: [], problems: [] };
  const edits: Edit[] = [];
  for (const edit of all.edits) {
    const next = apply(made.song, edit, reads);
    if (!next.ok) return next;
    made.song = next.value.song;
    made.created.push(...next.value.created);
    made.problems.push(...next.value.problems);
    edits.push(next.value.edit);
  }
  return ok({ ...made, edit: { ...all, edits } });
}

function applyInPass(song: Song, whole: Extract<Edit, { do: "inPass" }>, reads: boolean): Result<Applied> {
  const { pass: id, here = false, edit } = whole;
  const pass = song.form.find((p) => p.id === id);
  const section = pass && song.sections.find((s) => s.id === pass.sectionId);
  if (!section) return fail("edit.pass", `No pass has the id "${id}"`);
  const together = (label: string, edits: Edit[]) => applyAll(song, { do: "all", label, edits }, reads);
  if (edit.do === "all")
    return together(
      edit.label,
      edit.edits.map((e) => ({ do: "inPass", pass: id, here, edit: e })),
    );
  if (REGISTRY.get(edit.do)?.definition.whole) return apply(song, edit, reads);
  if (isPlayingHere(edit, section.id)) return together("play it so here", playedInPass(pass, edit, here));
  const open = openPass(song, section, pass);
  const made = apply(open, edit, reads);
  if (!made.ok) return made;
  if (beyondMusic(open, made.value.song, section.id)) return apply(song, edit, reads);
  const { bars } = sure(made.value.song.sections.find((s) => s.id === section.id));
  if (bars !== section.bars && here) return { ok: false, error: lengthRefused(section) };
  // What falls out of a shorter section is what the section has there, not what the pass has.
  if (bars < section.bars)
    return together("a shorter section", [
      { do: "setSection", section: section.id, bars },
      { do: "inPass", pass: id, edit },
    ]);
  const closed = closePass(song, pass, open, { after: made.value.song, here });
  if ("message" in closed) return { ok: false, error: closed };
  return asRead({ ...made.value, song: closed, edit: { ...whole, edit: made.value.edit } }, reads);
}

/** What was made, read again as a whole where it is to be. */
function asRead(applied: Applied, reads: boolean): Result<Applied> {
  const breach = reads ? breachOf(applied.song) : null;
  return breach ? unkept(breach) : ok(applied);
}

/** The playing of a part in the section of a pass, and not for another pass. */
const isPlayingHere = (edit: Edit, section: string): edit is Extract<Edit, { do: "setPlaying" }> =>
  edit.do === "setPlaying" && edit.pass === undefined && (edit.section ?? section) === section;

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
  entry: "log",
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
