import { firstOf, sure } from "../../base/list";
import { fail, ok, type Result } from "../../base/result";
import { keyName, parseKey, transposeKey, type Key } from "../../theory/pitch/key";
import type { Semitones } from "../../theory/pitch/pitch";
import { counted } from "../../theory/words/english";
import { partOf, passOf, sectionKey, sectionOf } from "../../song/document";
import { applyEdit, type Edit } from "../../song/edits";
import { passView } from "../../song/passView";
import type { Section, Song } from "../../song/schema";
import { transposeSong, waysTo, type Transposed } from "../../song/transposeSong";
import { afterMove } from "./moved";

/** By so many semitones, to a key (the nearer way), or by steps along the scale. A plain number is semitones. */
export type TransposeBy = Semitones | { semitones: Semitones } | { key: string } | { steps: number };

/**
 * What is moved: a section, one pass, a part in all sections or in one, some notes by their ids; the whole song where
 * nothing is named.
 */
export interface TransposeRequest {
  section?: string;
  pass?: string;
  part?: string;
  notes?: readonly string[];
  by: TransposeBy;
}

type Way = { semitones: Semitones } | { steps: number };

/**
 * The edit that moves something to another key, by an interval, or along its scale, and what does not come along as one
 * would wish, with the reason. Nothing is changed by asking. Errors: `transpose.section`, `transpose.pass`,
 * `transpose.part`, `transpose.notes` (nothing of that id), `transpose.key`, `transpose.mode`, `transpose.same`, and
 * those of the edit.
 * @example transpose(song, { pass: "o3", by: { key: "F major" } })
 */
export function transpose(song: Song, request: TransposeRequest): Result<Transposed> {
  const by = typeof request.by === "number" ? { semitones: request.by } : request.by;
  const { section, pass, part, notes } = request;
  if (section === undefined && pass === undefined && part === undefined && notes === undefined && !("steps" in by))
    return transposeSong(song, by);
  const edit = editOf(song, request, by);
  if (!edit.ok) return edit;
  const after = applyEdit(song, edit.value);
  if (!after.ok) return after;
  const brought = afterMove(song, after.value.song);
  return ok({ edit: edit.value, left: [...brought, ...leftBehind(song, after.value.song, request, "steps" in by)] });
}

function editOf(song: Song, { section, pass, part, notes }: TransposeRequest, by: Way | { key: string }): Result<Edit> {
  const one = section === undefined ? undefined : sectionOf(song, section);
  if (section !== undefined && !one) return fail("transpose.section", `There is no section ${section} in the song`);
  if (part !== undefined && !partOf(song, part)) return fail("transpose.part", `There is no part ${part} in the song`);
  if (pass !== undefined)
    return part === undefined && !notes ? passEdit(song, pass, by) : insidePass(song, { pass, part, notes }, by);
  const home = one ? sectionKey(song, one) : songKey(song);
  const way = wayOf(home, by);
  if (!way.ok) return way;
  if (notes) return notesEdit(song, { sections: one ? [one] : song.sections, part, notes }, way.value);
  return part === undefined
    ? wholeEdit(home, one, way.value)
    : ok({ do: "transposePart", part, ...(one ? { section: one.id } : {}), ...way.value });
}

/** A section in another key, or it or the whole song along the scale. */
function wholeEdit(home: Key, one: Section | undefined, way: Way): Result<Edit> {
  if ("steps" in way) return ok({ do: "shiftInScale", ...(one ? { section: one.id } : {}), steps: way.steps });
  if (!one) return fail("transpose.section", "A whole song is moved with all its sections");
  const { semitones } = way;
  return ok({ do: "transposeSection", section: one.id, key: keyName(transposeKey(home, semitones)), semitones });
}

const songKey = (song: Song): Key => {
  const read = parseKey(song.key);
  if (!read.ok) throw new Error(`the song is in no key: ${song.key}`);
  return read.value;
};

/** How far it is to a key, the nearer way; 0 where it is that key. */
function toKey(home: Key, text: string): Result<Semitones> {
  const to = parseKey(text);
  if (!to.ok) return fail("transpose.key", to.error.message);
  if (to.value.mode !== home.mode)
    return fail("transpose.mode", `${keyName(to.value)} is another mode than ${keyName(home)}`, {
      hint: "Change the mode instead.",
    });
  return ok(waysTo(keyName(home), keyName(to.value))[0] ?? 0);
}

const alreadyIn = (key: Key) => fail("transpose.same", `It is in ${keyName(key)} already`);

function wayOf(home: Key, by: Way | { key: string }): Result<Way> {
  if (!("key" in by)) return ok(by);
  const far = toKey(home, by.key);
  if (!far.ok) return far;
  return far.value === 0 ? alreadyIn(home) : ok({ semitones: far.value });
}

/** A pass is moved from where its section is: to a key, the nearer way from there. */
function passEdit(song: Song, id: string, by: Way | { key: string }): Result<Edit> {
  const pass = passOf(song, id);
  const section = pass && sectionOf(song, pass.sectionId);
  if (!section) return fail("transpose.pass", `There is no pass ${id} in the form`);
  if ("steps" in by)
    return ok({ do: "inPass", pass: id, here: true, edit: { do: "shiftInScale", section: section.id, ...by } });
  const [home, now] = [sectionKey(song, section), pass.transpose ?? 0];
  const goal = "key" in by ? toKey(home, by.key) : ok(now + by.semitones);
  if (!goal.ok) return goal;
  return goal.value === now
    ? alreadyIn(transposeKey(home, now))
    : ok({ do: "setPass", pass: id, transpose: goal.value });
}

/** A part or notes in one pass: as the pass plays them, for it alone. */
function insidePass(
  song: Song,
  { pass, part, notes }: { pass: string; part: string | undefined; notes: readonly string[] | undefined },
  by: Way | { key: string },
): Result<Edit> {
  const found = passOf(song, pass);
  if (!found) return fail("transpose.pass", `There is no pass ${pass} in the form`);
  const inner = editOf(
    passView(song, pass, true),
    { section: found.sectionId, ...(part === undefined ? {} : { part }), ...(notes ? { notes } : {}), by },
    by,
  );
  return inner.ok ? ok({ do: "inPass", pass, here: true, edit: inner.value }) : inner;
}

/** Notes by their ids, wherever they stand: one edit for each part and section that has some. */
function notesEdit(
  song: Song,
  { sections, part, notes }: { sections: readonly Section[]; part: string | undefined; notes: readonly string[] },
  way: Way,
): Result<Edit> {
  const wanted = new Set(notes);
  const edits = sections.flatMap((s) =>
    Object.entries(s.notes).flatMap(([id, list]): Edit[] => {
      const found = part === undefined || id === part ? list.flatMap((n) => (wanted.delete(n.id) ? [n.id] : [])) : [];
      return found.length ? [{ do: "transposePart", part: id, section: s.id, notes: found, ...way }] : [];
    }),
  );
  if (wanted.size)
    return fail(
      "transpose.notes",
      `No note is called ${[...wanted].join(", ")} ${part ? `in ${sure(partOf(song, part)).name}` : "here"}`,
    );
  if (!edits.length) return fail("transpose.notes", "No notes are named");
  return ok(edits.length === 1 ? firstOf(edits) : { do: "all", label: "move notes", edits });
}

/** What stays, or does not come along as it was. */
function leftBehind(
  song: Song,
  after: Song,
  { section, pass, part, notes }: TransposeRequest,
  steps: boolean,
): Transposed["left"] {
  if (part !== undefined || notes)
    return [{ what: "The chords", why: "notes of a part move alone, and are judged over the chords that stay" }];
  const typed = (s: Song) =>
    [...s.sections, ...s.form.flatMap((p) => p.own ?? [])].flatMap((m) =>
      (m.chords ?? []).filter((c) => c.written !== undefined),
    ).length;
  const respelled = typed(song) - typed(after);
  const capos = song.parts.flatMap((p) => {
    const fret = p.playing.voicing?.capo;
    return fret && (section !== undefined || pass !== undefined)
      ? [{ what: `${p.name}: its capo`, why: `stays in fret ${fret}: it is one for the song` }]
      : [];
  });
  return [
    ...capos,
    ...(steps && respelled > 0
      ? [
          {
            what: counted(respelled, "chord as typed", "chords as typed"),
            why: "written in the usual way on new degrees",
          },
        ]
      : []),
  ];
}
