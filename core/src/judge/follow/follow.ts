import { nth, sure } from "../../base/list";
import { orNull } from "../../base/result";
import { pitchMidi } from "../../theory/pitch/pitch";
import type { Ticks } from "../../theory/time/meter";
import { NO_CHORD } from "../../theory/chord/progression";
import { COMP_KINDS } from "../../song/comp/kinds";
import { isWritten, passOf, sectionOf } from "../../song/document";
import { layoutIn } from "../../song/layouts";
import { movesOf, passView } from "../../song/passView";
import { applyEdit, type Edit } from "../../song/edits";
import type { ChordEvent, NewNote, Note, Part, Pass, Section, Song } from "../../song/schema";
import { spellAt } from "../../song/spell";
import { blockAt, voicingAskedAt } from "../../arrange/voicing/facts";
import { createMemory, type Memory } from "../../facts/memory";
import {
  layOutBeside,
  layoutsOf,
  storeVoicing,
  type AskedVoicing,
  type Layouts,
  type SectionVoicing,
} from "../../arrange/voicing/section";
import { refitShapes } from "../../arrange/voicing/refit";
import { adaptBass } from "../../write/bass/adapt";

export interface FollowOptions {
  /** Written bass lines are led along with chords that change under them. */
  bass?: boolean;
  /** Where facts are remembered from one call to the next. */
  memory?: Memory;
}

/** The label of the edit that brings what follows. */
export const WHAT_FOLLOWS = "what follows";

/** Parts that the voicing path lays out: with layouts of their own, or block chords under a tune. */
export const laidOutParts = (song: Pick<Song, "parts">): Part[] =>
  song.parts.filter((p) => p.link && !p.link.from && COMP_KINDS.some((k) => k.id === sure(p.link).kind && k.voices));

/**
 * The edits that belong to an edit of a song: spelling, a bass that is led along, layouts and block chords. They are to
 * be made after it and undone with it. Empty where the edit is refused, and where nothing follows.
 */
export function follow(song: Song, edit: Edit, options: FollowOptions = {}): Edit[] {
  if (isComplete(edit)) return [];
  const applied = applyEdit(song, edit);
  return applied.ok ? followChange(song, applied.value.song, options) : [];
}

/**
 * Whether an edit takes along all that belongs to it: a song that is moved or spelled anew keeps its layouts and lines
 * as they are.
 */
export const isComplete = (edit: Edit): boolean =>
  (edit.do === "all" && edit.edits.length > 0 && edit.edits.every(isComplete)) ||
  edit.do === "logEntry" ||
  edit.do === "transpose" ||
  edit.do === "respell" ||
  edit.do === "transposeSection";

/** An edit with all that belongs to it, as one. */
export function withFollowing(song: Song, edit: Edit, options: FollowOptions = {}): Edit {
  const following = follow(song, edit, options);
  return following.length ? { do: "all", label: "with what follows", edits: [edit, ...following] } : edit;
}

/** Edits that follow from each other: each is made on the song as the others leave it; what changes nothing is none. */
interface Following {
  edits: Edit[];
  now: Song;
}

function make(following: Following, edit: Edit | null): void {
  const made = edit && applyEdit(following.now, edit);
  if (!edit || !made?.ok || made.value.song === following.now) return;
  following.edits.push(edit);
  following.now = made.value.song;
}

/** What follows from other chords of a section: names of notes, and basses that are led along. */
function followChords(
  following: Following,
  [before, after]: readonly [Song, Song],
  { section, bass }: { section: Section; bass: boolean },
): void {
  const old = sectionOf(before, section.id);
  const span = old && old !== section ? changedSpan(old.chords, section.chords) : null;
  if (!old || !span) return;
  for (const edit of respelled(before, after, old, { section, span })) make(following, edit);
  const led = bass ? after.parts.filter((p) => p.role === "bass" && isWritten(p)) : [];
  for (const part of led)
    make(following, adaptBass(before, following.now, { section: section.id, part: part.id, span }));
}

/** Layouts of chords that a pass has for itself: they are laid out beside those it shares. */
function followOwnChords(following: Following, before: Song | null, pass: Pass, memory: Memory): void {
  const { id, sectionId, own } = pass;
  const known = before && passOf(before, id)?.own === own && before.parts === following.now.parts;
  if (known || !own?.some((o) => o.chords)) return;
  for (const part of laidOutParts(following.now)) {
    const view = passView(following.now, id);
    const edit = layoutEdit(null, view, sure(sectionOf(view, sectionId)), { part, memory });
    if (edit) make(following, { do: "inPass", pass: id, edit });
  }
}

/**
 * What follows from all that changed between two versions of a song; from nothing: what a song that is opened still
 * lacks.
 */
export function followChange(
  before: Song | null,
  after: Song,
  { bass = false, memory = createMemory() }: FollowOptions = {},
): Edit[] {
  const following: Following = { edits: [], now: after };
  if (before) for (const section of after.sections) followChords(following, [before, after], { section, bass });
  for (const part of before ? laidOutParts(following.now) : [])
    for (const section of following.now.sections)
      for (const edit of refitShapes(sure(before), following.now, section, part)) make(following, edit);
  for (const part of laidOutParts(following.now))
    for (const section of following.now.sections)
      make(following, layoutEdit(before, following.now, section, { part, memory }));
  for (const pass of following.now.form) followOwnChords(following, before, pass, memory);
  for (const pass of following.now.form)
    for (const part of laidOutParts(following.now))
      make(following, passLayoutEdit(before, following.now, pass, { part, memory }));
  return following.edits;
}

/** Whether nothing has changed that the layouts of a part in a pass come from. */
function isSettled(before: Song | null, now: Song, pass: Pass): boolean {
  if (!before || before.parts !== now.parts || passOf(before, pass.id) !== pass) return false;
  return sectionOf(before, pass.sectionId) === sectionOf(now, pass.sectionId);
}

/** Layouts of a pass that stay: of chords that are what they were, where the path is asked the same. */
function stayingInPass(
  was: AskedVoicing | null,
  is: AskedVoicing,
  { stored, layouts }: { stored: Readonly<Record<string, unknown>> | undefined; layouts: Layouts },
): Layouts {
  if (!stored) return {};
  const symbols = new Map(was?.ids.map((id, i) => [id, was.symbols[i]]) ?? []);
  const same = (id: string) => !symbols.has(id) || symbols.get(id) === is.symbols[is.ids.indexOf(id)];
  const has = Object.fromEntries(Object.entries(layouts).filter(([id]) => stored[id] && same(id)));
  return was ? stayingLayouts(was, is, has) : has;
}

/**
 * Layouts of a part in a pass where it is voiced in its own way; where it no longer is, those of the section come back.
 */
function passLayoutEdit(
  before: Song | null,
  now: Song,
  pass: Pass,
  { part, memory }: { part: Part; memory: Memory },
): Edit | null {
  const stored = pass.voicings?.[part.id];
  const put = (pitches: Record<string, string[]> | null): Edit => ({
    do: "setPassVoicings",
    pass: pass.id,
    part: part.id,
    pitches,
  });
  if (!pass.playing?.[part.id]?.voicing) return stored ? put(null) : null;
  if (stored && (!before || isSettled(before, now, pass))) return null;
  const asked = (song: Song) => memory.at(song).get(voicingAskedAt, pass.sectionId, part.id);
  const view = passView(now, pass.id);
  const is = asked(view);
  if (!is.ok) return null;
  const was = viewBefore(before, pass.id);
  const layouts = layoutsOf(sure(sectionOf(view, pass.sectionId)), part.id);
  const stay = stayingInPass(was && orNull(asked(was)), is.value, { stored, layouts });
  const voiced = layOutBeside(is.value, stay);
  if (!voiced.ok) return stored ? put(null) : null;
  const pitches = asWritten(now, pass, voiced.value);
  const stands = stored && JSON.stringify(pitches) === JSON.stringify(pitchesIn(stored));
  return stands ? null : put(pitches);
}

/** Pitches of stored layouts, by chord. */
const pitchesIn = (stored: NonNullable<NonNullable<Pass["voicings"]>[string]>): Layouts =>
  Object.fromEntries(Object.entries(stored).map(([id, layout]) => [id, layoutIn(layout).pitches]));

const viewBefore = (before: Song | null, pass: string): Song | null =>
  before && passOf(before, pass) ? passView(before, pass) : null;

type LaidOut = Pick<SectionVoicing, "ids" | "chords">;

/** Layouts of a pass by chord, where its section has them: a pass may be in another key. */
function asWritten(song: Song, pass: Pass, { ids, chords }: LaidOut): Record<string, string[]> {
  const back = movesOf(song, pass)?.back;
  return Object.fromEntries(
    ids.map((id, i) => {
      const { pitches } = nth(chords, i);
      return [id, back ? pitches.map((p) => back.pitch(p)) : pitches];
    }),
  );
}

/** The stretch in which two lists of chords differ in time or name. */
function changedSpan(a: readonly ChordEvent[], b: readonly ChordEvent[]): [from: Ticks, to: Ticks] | null {
  if (a === b) return null;
  const text = (c: ChordEvent) => `${c.start}:${c.duration}:${c.symbol}`;
  const [inA, inB] = [new Set(a.map(text)), new Set(b.map(text))];
  const odd = [...a.filter((c) => !inB.has(text(c))), ...b.filter((c) => !inA.has(text(c)))];
  return odd.length ? [Math.min(...odd.map((c) => c.start)), Math.max(...odd.map((c) => c.start + c.duration))] : null;
}

/** Notes that were named as their chord named them are named as the new one does; other names are the user's. */
function respelled(
  before: Song,
  after: Song,
  old: Section,
  { section, span: [from, to] }: { section: Section; span: [Ticks, Ticks] },
): Edit[] {
  return Object.entries(section.notes).flatMap(([part, list]): Edit[] => {
    const changes = list.flatMap((n: Note) => {
      if (n.start < from || n.start >= to) return [];
      const midi = pitchMidi(n.pitch);
      const pitch = spellAt(after, section, n.start, midi);
      return pitch !== n.pitch && spellAt(before, old, n.start, midi) === n.pitch ? [{ id: n.id, pitch }] : [];
    });
    return changes.length ? [{ do: "changeNotes", section: section.id, part, notes: changes }] : [];
  });
}

/**
 * Stores layouts that are called for: all that are not pinned where the part is laid out in another way or most chords
 * are others, otherwise only those of chords that have none, or that ask for another top or lowest note. The others
 * stay.
 */
function layoutEdit(
  before: Song | null,
  now: Song,
  section: Section,
  { part, memory }: { part: Part; memory: Memory },
): Edit | null {
  if (before && isUntouched(before, now, section)) return null;
  if (sure(part.link).kind === "block") return blockEdit(before, now, section, { part, memory });
  const bare = section.chords.some((c) => c.symbol !== NO_CHORD && !c.voicings?.[part.id]);
  if (!before && !bare) return null;
  const is = memory.at(now).get(voicingAskedAt, section.id, part.id);
  const was = before && memory.at(before).get(voicingAskedAt, section.id, part.id);
  if (!is.ok) return null;
  const has = layoutsOf(section, part.id);
  const stay = was?.ok === false ? {} : stayingLayouts(was?.value ?? null, is.value, has);
  if (is.value.ids.every((id) => stay[id])) return null;
  const voiced = layOutBeside(is.value, stay);
  if (!voiced.ok) return null;
  return stands(section, has, voiced.value) ? null : storeVoicing(section.id, part.id, voiced.value);
}

const isUntouched = (before: Song, now: Song, section: Section): boolean =>
  before.sections.includes(section) && before.parts === now.parts && before.instruments === now.instruments;

/** Every chord has the layout it is given, and none has one that is given none. */
function stands(section: Section, has: Layouts, { ids, chords }: LaidOut): boolean {
  const wanted = new Map(ids.map((id, i) => [id, nth(chords, i).pitches.join()]));
  return section.chords.every((c) => (has[c.id]?.join() ?? "") === (wanted.get(c.id) ?? ""));
}

/** The layouts that stay when what is asked of the path has changed. */
function stayingLayouts(was: AskedVoicing | null, is: AskedVoicing, has: Layouts): Layouts {
  if (!was) return has;
  const general = ({ options: { pins: _, outer: __, shapes: ___, ...options } }: AskedVoicing) =>
    JSON.stringify(options);
  if (general(was) !== general(is)) return {};
  const wishes = ({ ids, options: { outer } }: AskedVoicing) =>
    new Map(ids.map((id, i) => [id, JSON.stringify(outer?.[i])]));
  const [before, now] = [wishes(was), wishes(is)];
  const stay = is.ids.filter((id) => has[id] && now.get(id) === before.get(id));
  // Another progression is laid out as a whole.
  if (stay.length * 2 < is.ids.length) return {};
  return Object.fromEntries(stay.map((id) => [id, sure(has[id])]));
}

const textOf = (notes: readonly NewNote[]): string =>
  notes
    .map((n) => `${n.start}:${n.duration}:${n.pitch}`)
    .sort()
    .join();

function blockEdit(
  before: Song | null,
  now: Song,
  section: Section,
  { part, memory }: { part: Part; memory: Memory },
): Edit | null {
  if (!before) return null;
  const made = memory.at(now).get(blockAt, section.id, part.id);
  if (!made.ok) return null;
  // A chord that hands have changed stays as it is, with the rest under the tune.
  const own = (section.notes[part.id] ?? []).filter((n) => n.pinned);
  const kept = new Set(own.map((n) => n.start));
  const notes = [...own, ...(made.value ?? []).filter((n) => !kept.has(n.start))];
  return textOf(notes) === textOf(section.notes[part.id] ?? [])
    ? null
    : { do: "setNotes", section: section.id, part: part.id, notes };
}
