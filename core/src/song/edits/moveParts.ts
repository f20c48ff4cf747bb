import type { Draft } from "immer";
import { z } from "zod";
import { must, type Problem } from "../../result";
import { keyName, parseKey, type Key } from "../../pitch/key";
import { mod, noteOf, pitchMidi, pitchName, transposeNote, type PitchName } from "../../pitch/pitch";
import { chordOf } from "../../chord/progression";
import { isWritten, partOf, sectionKey, sectionOf } from "../document";
import { KeyText, LIMITS, NoteId, PartId, SectionId, Transposition, type Note, type Section, type Song } from "../schema";
import { defineEdit, draftOf, refuse } from "./define";
import { isLeading, movingDegrees, pitchTo } from "./degrees";
import { moveMaterial, movePassMaterial, type Material, type Moving } from "./moving";

/** Steps of the scale: an octave has seven. */
const Steps = z.int("steps are whole numbers").min(-14, "at most two octaves").max(14, "at most two octaves");

/** Letters an interval of so many semitones goes up: a second, a third, a fourth, an augmented fourth, a fifth … */
const LETTERS = [0, 1, 1, 2, 2, 3, 3, 4, 5, 5, 6, 6];

const lost = (pitch: PitchName): Problem =>
  refuse("transpose", `${pitch} would leave the range of all instruments`, "Move it the other way.");

/** A note moved, by semitones or along the scale; null where it leaves the range of MIDI. */
function movedNote(n: Note, semitones: number, move: Moving | null): Note | null {
  const letters = Math.sign(semitones) * LETTERS[Math.abs(semitones) % 12]!;
  const to = (name: PitchName): PitchName =>
    move ? move.pitch(name) : pitchName(pitchMidi(name) + semitones, transposeNote(noteOf(name), mod(letters, 7), mod(semitones, 12)));
  const inMidi = (name: PitchName) => /-?\d+$/.test(name) && pitchMidiOf(name) !== null;
  const pitch = to(n.pitch);
  const slide = n.slide && { ...n.slide, to: to(n.slide.to) };
  if (!inMidi(pitch) || (slide && !inMidi(slide.to))) return null;
  const { reason: _, slide: _slide, ...plain } = n;
  return { ...plain, pitch, ...(slide ? { slide } : {}) };
}

function pitchMidiOf(name: PitchName): number | null {
  try {
    return pitchMidi(name);
  } catch {
    return null;
  }
}

/**
 * Moves the notes of one part, in one section or in all, all of them or some: by semitones, or by steps of the scale of each section. The chords stay, and what
 * was said of a note's reason no longer holds.
 */
export const transposePart = defineEdit({
  name: "transposePart",
  title: "move the notes of a part",
  schema: {
    part: PartId,
    section: SectionId.optional(),
    notes: z.array(NoteId).max(LIMITS.notes).optional(),
    semitones: Transposition.optional(),
    steps: Steps.optional(),
  },
  apply(draft, { part: id, section, notes, semitones = 0, steps = 0 }, { song }) {
    const part = partOf(song, id)!;
    if (!isWritten(part))
      return refuse(
        "part",
        `${part.name} has no notes of its own: it ${part.role === "drums" ? "is struck" : "plays what it is linked to"}`,
      );
    if (semitones && steps) return refuse("transpose", "A part is moved by semitones or along the scale, not both at once");
    const only = notes && new Set(notes);
    for (const s of section === undefined ? song.sections : [sectionOf(song, section)!]) {
      const key = sectionKey(song, s);
      const move = steps ? movingDegrees(key, key, steps) : null;
      const list = s.notes[id] ?? [];
      const next: Note[] = [];
      for (const n of list) {
        const moved = only && !only.has(n.id) ? n : movedNote(n, semitones, move);
        if (!moved) return lost(n.pitch);
        next.push(moved);
      }
      if (list.length) draftOf(draft, s.id).notes[id] = next;
    }
  },
});

/** Names of layouts that are held as shapes go: the section is laid out anew there. */
function withoutShapes({ chords = [] }: Material): void {
  for (const chord of chords) {
    delete chord.written;
    for (const [part, v] of Object.entries(chord.voicings ?? {})) if (v.shape || !v.pinned) delete chord.voicings![part];
  }
}

/** Whether some note would leave the range of MIDI by a move. */
function outOf(sections: readonly Section[], move: Moving): Problem | null {
  for (const s of sections) for (const n of Object.values(s.notes).flat()) if (!movedNote(n, 0, move)) return lost(n.pitch);
  return null;
}

/** Moves a section, or all of them, along their scales: chords become those of the degrees they come to, notes and pinned layouts go by as many steps. The key stays. */
export const shiftInScale = defineEdit({
  name: "shiftInScale",
  title: "move along the scale",
  schema: { section: SectionId.optional(), steps: Steps },
  apply(draft, { section, steps }, { song }) {
    const sections = section === undefined ? song.sections : [sectionOf(song, section)!];
    for (const s of sections) {
      const key = sectionKey(song, s);
      const move = movingDegrees(key, key, steps);
      const refused = outOf([s], move);
      if (refused) return refused;
      moveAll(draft, s, move);
    }
  },
});

function moveAll(draft: Draft<Song>, section: Section, move: Moving): void {
  const target = draftOf(draft, section.id);
  const all: Material[] = [target, target.beyond ?? {}];
  for (const pass of draft.form) if (pass.sectionId === section.id) movePassMaterial(pass, move);
  for (const pass of draft.form) if (pass.sectionId === section.id) all.push(...(pass.own ?? []));
  for (const pass of draft.form) if (pass.sectionId === section.id) pass.own?.forEach(withoutShapes);
  for (const material of all) withoutShapes(material);
  for (const material of all.slice(0, 2)) moveMaterial(material, move);
  for (const take of draft.takes)
    if (take.sectionId === section.id) {
      withoutShapes(take);
      moveMaterial(take, move);
    }
}

/**
 * Changes the mode of a section, or of the song: every scale degree goes to the same degree of the new key, of the same tonic or of another (the relative one). The
 * dominant keeps its leading tone; chords with notes from outside keep their kind.
 */
export const changeMode = defineEdit({
  name: "changeMode",
  title: "change the mode",
  schema: { key: KeyText, section: SectionId.optional() },
  apply(draft, { key, section }, { song }) {
    const to = must(parseKey(key));
    const sections = section === undefined ? song.sections.filter((s) => s.key === undefined) : [sectionOf(song, section)!];
    const from = section === undefined ? must(parseKey(song.key)) : sectionKey(song, sections[0]!);
    if (from.mode === to.mode)
      return refuse("mode", `${keyName(to)} is the same mode as ${keyName(from)}`, "Move it to the other key instead.");
    const move = movingDegrees(from, to, 0);
    const refused = outOf(sections, move);
    if (refused) return refused;
    for (const s of sections) {
      moveAll(draft, s, move);
      keepLeadingTones(draftOf(draft, s.id), s, from, move);
    }
    if (section === undefined) draft.key = keyName(to);
    else if (keyName(to) === song.key) delete draftOf(draft, section).key;
    else draftOf(draft, section).key = keyName(to);
  },
});

/** Over a dominant the seventh degree of a line stays a leading tone. */
function keepLeadingTones(target: Draft<Section>, section: Section, from: Key, move: ReturnType<typeof movingDegrees>): void {
  for (const [part, list] of Object.entries(section.notes))
    list.forEach((n, i) => {
      const chord = section.chords.find((c) => c.start <= n.start && n.start < c.start + c.duration);
      if (!chord || !isLeading(chordOf(chord.symbol), from)) return;
      const name = move.leading(noteOf(n.pitch));
      if (name === move.note(noteOf(n.pitch))) return;
      const at = target.notes[part]![i]!;
      at.pitch = pitchTo(at.pitch, name, 1);
    });
}
