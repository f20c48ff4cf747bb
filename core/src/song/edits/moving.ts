import { aboutText, readAbout } from "../matter";
import { firstOf, sure } from "../../base/list";
import type { Draft } from "immer";
import { must, type Problem } from "../../base/result";
import { keyName, parseKey, type Key } from "../../theory/pitch/key";
import {
  mod,
  noteOf,
  parseNote,
  parsePitch,
  pitchMidi,
  pitchName,
  transposeNote,
  type NoteName,
  type PitchName,
  type Semitones,
} from "../../theory/pitch/pitch";
import { chordSymbol } from "../../theory/chord/chord";
import { chordOf } from "../../theory/chord/progression";
import { layoutIn } from "../layouts";
import { KeyText, Transposition, type Note, type Reason, type Section, type Song } from "../schema";
import { defineEdit, refuse } from "./define";

/**
 * What moving a song to another key does to each kind of name: all go by the same number of letters and semitones, so
 * that the way back is exact.
 */
export interface Moving {
  semitones: Semitones;
  note(name: NoteName): NoteName;
  pitch(name: PitchName, by?: Semitones): PitchName;
  symbol(text: string): string;
  /** A chord as it was typed: its root and bass move, the rest stays as the user writes it. */
  typed(text: string): string;
  key(text: string): string;
  /** What takes a shape along: the capo where a song moves, else the hand, in one pass of it. */
  shapes?: "hand";
}

export function moving(from: Key, to: Key, semitones: Semitones): Moving {
  const letters = mod(sure(parseNote(to.tonic)).step - sure(parseNote(from.tonic)).step, 7);
  const note = (name: NoteName): NoteName => transposeNote(name, letters, mod(semitones, 12));
  return {
    semitones,
    note,
    pitch: (name, by = semitones) => pitchName(pitchMidi(name) + by, note(noteOf(name))),
    symbol(text) {
      const chord = chordOf(text);
      return chord
        ? chordSymbol({ ...chord, root: note(chord.root), ...(chord.bass ? { bass: note(chord.bass) } : {}) })
        : text;
    },
    typed: (text) =>
      text.replace(/(^|\/)([A-G](?:##|bb|[#b♯♭x])?)/g, (whole, slash: string, name: string) => {
        const read = parseNote(name.replace("♯", "#").replace("♭", "b"));
        return read ? slash + note(name.replace("♯", "#").replace("♭", "b")) : whole;
      }),
    key(text) {
      const read = parseKey(text);
      if (!read.ok) return text;
      const moved = parseKey(`${note(read.value.tonic)} ${read.value.mode}`);
      // A section whose key could not be written with these letters keeps a name one can read.
      return moved.ok ? keyName(moved.value) : text;
    },
  };
}

/** Gaps of a reason that hold a note, a chord or a key. */
const NOTES: readonly string[] = ["pitch", "target", "from"];

function movedReason(reason: Reason, move: Moving): Reason {
  if (!reason.params) return reason;
  const params = Object.entries(reason.params).map(([name, value]): [string, string | number] => {
    if (typeof value !== "string") return [name, value];
    if (NOTES.includes(name)) {
      const movedNote = () => {
        if (parsePitch(value).ok) return move.pitch(value);
        if (parseNote(value)) return move.note(value);
        return value;
      };
      return [name, movedNote()];
    }
    const movedName = () => {
      if (name === "chord") return move.symbol(value);
      if (name === "key") return move.key(value);
      return value;
    };
    return [name, movedName()];
  });
  return { ...reason, params: Object.fromEntries(params) };
}

/** What sections, own bars of passes, and takes hold. */
export type Material = { [K in "chords" | "notes" | "groove"]?: Draft<Song>["sections"][number][K] | undefined };

function moveNote(n: Draft<Note>, move: Moving): void {
  n.pitch = move.pitch(n.pitch);
  if (n.slide) n.slide.to = move.pitch(n.slide.to);
  if (n.reason) n.reason = movedReason(n.reason, move);
}

/** By how much a held shape goes: its capo takes it, over the octave where it would come below the nut. */
export const capoMoved = (capo: number, semitones: Semitones): number => mod(capo + semitones, 12);

type Layout = NonNullable<NonNullable<Material["chords"]>[number]["voicings"]>[string];

/** Frets a hand can go to; where a string is open, the shape does not go along. */
const MOST_FRETS = 24;

function moveShape(v: Layout, { shapes, semitones }: Moving): Semitones {
  if (!v.shape) return semitones;
  if (shapes !== "hand") {
    const by = capoMoved(v.shape.capo, semitones) - v.shape.capo;
    v.shape.capo += by;
    return by;
  }
  const frets = v.shape.frets.map((f) => (f === null ? null : f + semitones));
  const open = v.shape.frets.includes(0) || frets.some((f) => f !== null && (f < 1 || f > MOST_FRETS));
  if (open) delete v.shape;
  else v.shape.frets = frets;
  return semitones;
}

function moveLayout(v: Layout, move: Moving): void {
  const by = moveShape(v, move);
  v.pitches = v.pitches.map((p) => move.pitch(p, by));
  for (const note of v.strokes?.flatMap((s) => s.notes) ?? []) note.pitch = move.pitch(note.pitch, by);
  if (v.top) v.top = move.pitch(v.top, by);
  if (v.bottom) v.bottom = move.pitch(v.bottom, by);
}

function moveChord(chord: NonNullable<Material["chords"]>[number], move: Moving): void {
  chord.symbol = move.symbol(chord.symbol);
  if (chord.written !== undefined) chord.written = move.typed(chord.written);
  if (chord.readings) chord.readings = chord.readings.map(move.symbol);
  if (chord.why) chord.why = movedReason(chord.why, move);
  for (const v of Object.values(chord.voicings ?? {})) moveLayout(v, move);
}

export function moveMaterial({ chords = [], notes = {}, groove }: Material, move: Moving): void {
  for (const chord of chords) moveChord(chord, move);
  for (const list of Object.values(notes)) for (const n of list) moveNote(n, move);
  for (const hit of groove?.lanes.flatMap((l) => l.hits) ?? []) {
    if (hit.pitch) hit.pitch = move.pitch(hit.pitch);
    if (hit.glideTo) hit.glideTo = move.pitch(hit.glideTo);
  }
}

/** What one pass has for itself goes along with its section. */
export function movePassMaterial({ own = [], voicings = {} }: Draft<Song>["form"][number], move: Moving): void {
  for (const bars of own) moveMaterial(bars, move);
  for (const layouts of Object.values(voicings))
    for (const [chord, stored] of Object.entries(layouts)) {
      const layout = layoutIn(stored);
      moveLayout(layout, move);
      layouts[chord] = layout;
    }
}

/** Every name in a song goes along. */
function moveSong(draft: Draft<Song>, song: Song, move: Moving): void {
  for (const section of draft.sections) {
    if (section.key) section.key = move.key(section.key);
    moveMaterial(section, move);
    moveMaterial(section.beyond ?? {}, move);
  }
  for (const pass of draft.form) movePassMaterial(pass, move);
  for (const take of draft.takes) moveMaterial(take, move);
  moveCapos(draft, song, move);
  for (const waiver of draft.waivers) waiver.about = movedAbout(waiver.about, move);
}

/** What a waiver is about, with its pitches moved. */
function movedAbout(about: string, move: Moving): string {
  const { place, pitches } = readAbout(about);
  return aboutText(
    place,
    pitches.map((p) => (parsePitch(p).ok ? move.pitch(p) : p)),
  );
}

/** A part that is held in shapes plays on with its capo elsewhere; no capo is none, not one in fret 0. */
function moveCapos(draft: Draft<Song>, song: Song, move: Moving): void {
  const shaped = new Set(
    song.sections.flatMap((s) =>
      s.chords.flatMap((c) => Object.entries(c.voicings ?? {}).flatMap(([id, v]) => (v.shape ? [id] : []))),
    ),
  );
  for (const part of draft.parts) {
    const { voicing } = part.playing;
    if (voicing?.capo === undefined && !shaped.has(part.id)) continue;
    const capo = capoMoved(voicing?.capo ?? 0, move.semitones);
    const { capo: _, ...rest } = voicing ?? {};
    const next = capo ? { ...rest, capo } : rest;
    if (Object.keys(next).length) part.playing.voicing = next;
    else delete part.playing.voicing;
  }
  for (const { playing = {} } of [...draft.sections, ...draft.form])
    for (const { voicing } of Object.values(playing))
      if (voicing?.capo !== undefined) voicing.capo = capoMoved(voicing.capo, move.semitones);
}

/** Says which note a move would take out of the range of all instruments; null where none. */
export function outOfMidi(sections: readonly Section[], semitones: Semitones): Problem | null {
  const lost = sections
    .flatMap((s) => Object.values(s.notes).flat())
    .find((n) => pitchMidi(n.pitch) + semitones < 0 || pitchMidi(n.pitch) + semitones > 127);
  return lost
    ? refuse("transpose", `${lost.pitch} would leave the range of all instruments`, "Move it the other way.")
    : null;
}

/** Why music cannot be moved from one key to another by so many semitones; null where it can. */
export function moveRefused(from: Key, to: Key, semitones: Semitones, sections: readonly Section[]): Problem | null {
  const [home, away] = [keyName(from), keyName(to)];
  if (from.mode !== to.mode)
    return refuse(
      "transpose",
      `${away} is another mode than ${home}`,
      "Move within the mode; rename the key where only the name is wrong.",
    );
  if (mod(firstOf(to.pcs) - firstOf(from.pcs), 12) !== mod(semitones, 12))
    return refuse(
      "transpose",
      `${away} does not lie ${Math.abs(semitones)} semitones ${semitones < 0 ? "below" : "above"} ${home}`,
    );
  return outOfMidi(sections, semitones);
}

/**
 * Writes the whole song in another spelling of its key (D# minor as Eb minor) without changing a sound: every root,
 * bass, note and section key moves by the same number of letters.
 */
export const respell = defineEdit({
  name: "respell",
  title: "spell the song in another key of the same sound",
  schema: { key: KeyText },
  apply(draft, edit, { song }) {
    const [from, to] = [must(parseKey(song.key)), must(parseKey(edit.key))];
    if (from.pcs[0] !== to.pcs[0] || from.mode !== to.mode)
      return refuse(
        "respell",
        `${edit.key} does not sound like ${song.key}`,
        "Use another key of the same sound, or set the key instead.",
      );
    draft.key = keyName(to);
    moveSong(draft, song, moving(from, to, 0));
  },
});

/**
 * Moves the whole song to another key: chords as they are written and typed, notes, layouts, shapes with their capo,
 * glides, tuned drums, takes, keys of sections, reasons and waivers. There and back is the song as it was. Refused
 * where the key does not lie so many semitones away.
 */
export const transpose = defineEdit({
  name: "transpose",
  title: "move the song to another key",
  schema: { key: KeyText, semitones: Transposition },
  apply(draft, { key, semitones }, { song }) {
    const [from, to] = [must(parseKey(song.key)), must(parseKey(key))];
    const refused = moveRefused(from, to, semitones, song.sections);
    if (refused) return refused;
    draft.key = keyName(to);
    moveSong(draft, song, moving(from, to, semitones));
  },
});
