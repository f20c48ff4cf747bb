import { firstOf, nth, sure } from "../../base/list";
import type { Draft } from "immer";
import { z } from "zod";
import { must, type Problem } from "../../base/result";
import { keyName, parseKey } from "../../theory/pitch/key";
import { LETTERS } from "../../theory/pitch/interval";
import { mod, noteOf, parsePitch, pitchMidi, pitchName, transposeNote, type PitchName } from "../../theory/pitch/pitch";
import { chordSymbol } from "../../theory/chord/chord";
import { isWritten, partOf, sectionKey, sectionOf } from "../document";
import {
  KeyText,
  LIMITS,
  NoteId,
  PartId,
  SectionId,
  Transposition,
  type Note,
  type Part,
  type Section,
  type Song,
} from "../schema";
import { defineEdit, draftOf, refuse } from "./define";
import { movingDegrees, type MovingDegrees } from "./degrees";
import { moveMaterial, type Material } from "./moving";

/** Steps of the scale: an octave has seven. */
const Steps = z.int("steps are whole numbers").min(-14, "at most two octaves").max(14, "at most two octaves");

const lost = (pitch: PitchName): Problem =>
  refuse("transpose", `${pitch} would leave the range of all instruments`, "Move it the other way.");

/** How a pitch goes: so many semitones, named by the letters of the interval. */
function bySemitones(semitones: number): (name: PitchName) => PitchName {
  const letters = mod(Math.sign(semitones) * nth(LETTERS, Math.abs(semitones) % 12), 7);
  return (name) => pitchName(pitchMidi(name) + semitones, transposeNote(noteOf(name), letters, mod(semitones, 12)));
}

const notWritten = ({ name, role }: Part): Problem =>
  refuse(
    "part",
    `${name} has no notes of its own: it ${role === "drums" ? "is struck" : "plays what it is linked to"}`,
  );

/** A note moved; null where it leaves the range of MIDI. */
function movedNote(n: Note, to: (name: PitchName) => PitchName): Note | null {
  const pitch = to(n.pitch);
  const slide = n.slide && { ...n.slide, to: to(n.slide.to) };
  if (!parsePitch(pitch).ok || (slide && !parsePitch(slide.to).ok)) return null;
  const { reason: _, slide: _slide, ...plain } = n;
  return { ...plain, pitch, ...(slide ? { slide } : {}) };
}

/** Moves notes of a list, all or some; gives the pitch of one that cannot go there, or null. */
function moveList(
  list: Draft<Note>[],
  only: ReadonlySet<string> | undefined,
  to: (name: PitchName) => PitchName,
): PitchName | null {
  for (const [i, n] of list.entries()) {
    if (only && !only.has(n.id)) continue;
    const moved = movedNote(n, to);
    if (!moved) return n.pitch;
    list[i] = moved;
  }
  return null;
}

/**
 * Moves the notes of one part, in one section or in all, by semitones or by steps of the scale of each section: all of
 * them, with those that passes have for themselves, what is kept past the end, and takes; or some of the section. The
 * chords stay, and what was said of a note's reason no longer holds.
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
    const part = sure(partOf(song, id));
    if (!isWritten(part)) return notWritten(part);
    if (!semitones === !steps) return refuse("transpose", "A part is moved by semitones or along the scale");
    const only = notes && new Set(notes);
    for (const s of section === undefined ? song.sections : [sure(sectionOf(song, section))]) {
      const key = sectionKey(song, s);
      const to = steps ? movingDegrees(key, key, steps).pitch : bySemitones(semitones);
      const lists = (only ? [draftOf(draft, s.id)] : heldIn(draft, s.id)).map((held) => held.notes?.[id] ?? []);
      for (const list of lists) {
        const stuck = moveList(list, only, to);
        if (stuck) return lost(stuck);
      }
    }
  },
});

/**
 * All that holds music of a section: itself, what is kept past its end, bars that passes have for themselves, takes.
 */
const heldIn = (draft: Draft<Song>, id: string): Material[] => [
  draftOf(draft, id),
  draftOf(draft, id).beyond ?? {},
  ...draft.form.flatMap((p) => (p.sectionId === id ? (p.own ?? []) : [])),
  ...draft.takes.filter((t) => t.sectionId === id),
];

/** Layouts that are held as shapes, or were laid out by the path, go: the chords are laid out anew. */
function withoutShapes({ chords = [] }: Material): void {
  for (const chord of chords) {
    delete chord.written;
    for (const [part, v] of Object.entries(chord.voicings ?? {}))
      if (v.shape || !v.pinned) delete sure(chord.voicings)[part];
  }
}

/** Moves all music of a section; the note that would leave the range of MIDI, where one would. */
function moveAll(draft: Draft<Song>, song: Song, section: Section, move: MovingDegrees): Problem | null {
  const was = heldIn(song, section.id);
  for (const [i, material] of heldIn(draft, section.id).entries()) {
    const chords = nth(was, i).chords ?? section.chords;
    const moved = move.row(chords.map((c) => c.symbol));
    const over = moved.map((m) => move.over(m));
    withoutShapes(material);
    material.chords?.forEach((chord, k) => {
      moveMaterial({ chords: [chord] }, nth(over, k));
      const to = moved[k];
      if (to) chord.symbol = chordSymbol(to.after);
    });
    for (const list of Object.values(material.notes ?? {})) {
      const at = list.map(({ start }) => chords.findIndex((c) => c.start <= start && start < c.start + c.duration));
      for (const [k, n] of list.entries()) {
        const by = over[nth(at, k)] ?? move;
        if (!movedNote(n, by.pitch)) return lost(n.pitch);
        moveMaterial({ notes: { moved: [n] } }, by);
      }
      const pitches = list.map((n) => n.pitch);
      list.forEach((n, k) => {
        n.pitch = move.between(n.pitch, [pitches[k - 1], pitches[k + 1]], moved[nth(at, k)] ?? null);
      });
    }
    moveMaterial({ groove: material.groove }, move);
  }
  // Layouts of a pass alone are laid out anew with its chords.
  for (const pass of draft.form) if (pass.sectionId === section.id) delete pass.voicings;
  return null;
}

/**
 * Moves a section, or all of them, along their scales: chords become those of the degrees they come to, notes and
 * pinned layouts go by as many steps. The key stays.
 */
export const shiftInScale = defineEdit({
  name: "shiftInScale",
  title: "move along the scale",
  schema: { section: SectionId.optional(), steps: Steps },
  apply(draft, { section, steps }, { song }) {
    const sections = section === undefined ? song.sections : [sure(sectionOf(song, section))];
    for (const s of sections) {
      const key = sectionKey(song, s);
      const move = movingDegrees(key, key, steps);
      const refused = moveAll(draft, song, s, move);
      if (refused) return refused;
    }
  },
});

/**
 * Changes the mode of a section, or of the song: every scale degree goes to the same degree of the new key, of the same
 * tonic or of another (the relative one). The dominant keeps its leading tone; chords with notes from outside keep
 * their kind, and go with the chord they lead to; a chord tone stays one.
 */
export const changeMode = defineEdit({
  name: "changeMode",
  title: "change the mode",
  whole: true,
  schema: { key: KeyText, section: SectionId.optional() },
  apply(draft, { key, section }, { song }) {
    const to = must(parseKey(key));
    const sections =
      section === undefined ? song.sections.filter((s) => s.key === undefined) : [sure(sectionOf(song, section))];
    const from = section === undefined ? must(parseKey(song.key)) : sectionKey(song, firstOf(sections));
    if (from.mode === to.mode)
      return refuse("mode", `${keyName(to)} is the same mode as ${keyName(from)}`, "Move it to the other key instead.");
    const move = movingDegrees(from, to, 0);
    for (const s of sections) {
      const refused = moveAll(draft, song, s, move);
      if (refused) return refused;
    }
    if (section === undefined) draft.key = keyName(to);
    else if (keyName(to) === song.key) delete draftOf(draft, section).key;
    else draftOf(draft, section).key = keyName(to);
  },
});
