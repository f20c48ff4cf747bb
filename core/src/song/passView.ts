import { sure } from "../base/list";
import { produce } from "immer";
import { keyName, transposeKey } from "../theory/pitch/key";
import { passOf, sectionKey, sectionOf } from "./document";
import { moveMaterial, moving, type Material, type Moving } from "./edits/moving";
import { layoutIn } from "./layouts";
import { withOwnBars } from "./place";
import { playingOver } from "./playing";
import { LIMITS, type Pass, type Playing, type Section, type Song } from "./schema";

/** Whether a pass writes or plays something else than its section: bars of its own, another key, ways of playing. */
export const isUnlike = (pass: Pass): boolean =>
  pass.own !== undefined || pass.playing !== undefined || pass.voicings !== undefined || (pass.transpose ?? 0) !== 0;

/**
 * How the names of a section go to the key in which a pass plays it, and back; null where it plays in the section's
 * own.
 */
export function movesOf(song: Song, pass: Pass): { there: Moving; back: Moving; id: string } | null {
  const section = sectionOf(song, pass.sectionId);
  if (!pass.transpose || !section) return null;
  const home = sectionKey(song, section);
  const away = transposeKey(home, pass.transpose);
  const id = `${keyName(home)} ${pass.transpose}`;
  return {
    there: { ...moving(home, away, pass.transpose), shapes: "hand" },
    back: { ...moving(away, home, -pass.transpose), shapes: "hand" },
    id,
  };
}

type Lists = Section["chords"] | Section["groove"] | Section["notes"][string];
const known = new WeakMap<object, Map<string, Lists>>();
const remember = (from: Lists, id: string, to: Lists): void => {
  const by = known.get(from) ?? new Map<string, Lists>();
  known.set(from, by);
  by.set(id, to);
};

/**
 * A section's music moved to another key, or back. Each list is moved once and remembered both ways: an edit of one
 * part moves that part alone, and what did not change comes back as the very list it was.
 */
export function movedMusic(section: Section, move: Moving, id: string, way: "there" | "back"): Section {
  const [go, come] = way === "there" ? [`> ${id}`, `< ${id}`] : [`< ${id}`, `> ${id}`];
  const once = <K extends "chords" | "groove">(kind: K, value: Section[K]): Section[K] => {
    const found = known.get(value)?.get(go) as Section[K] | undefined;
    if (found) return found;
    const made = produce({ [kind]: value } as Pick<Section, K>, (draft) => moveMaterial(draft as Material, move))[kind];
    remember(value, go, made);
    remember(made, come, value);
    return made;
  };
  const list = (notes: Section["notes"][string]): Section["notes"][string] => {
    const found = known.get(notes)?.get(go) as Section["notes"][string] | undefined;
    if (found) return found;
    const made = produce({ notes: { n: notes } }, (draft) => moveMaterial(draft, move)).notes.n;
    remember(notes, go, made);
    remember(made, come, notes);
    return made;
  };
  return {
    ...section,
    chords: once("chords", section.chords),
    groove: once("groove", section.groove),
    notes: Object.fromEntries(Object.entries(section.notes).map(([part, notes]) => [part, list(notes)])),
    ...(section.beyond ? { beyond: produce(section.beyond, (draft) => moveMaterial(draft, move)) } : {}),
  };
}

/**
 * The section with what a pass changes: its bars put in, its names in the key of the pass, its ways of playing over
 * those of the section.
 */
function sectionIn(song: Song, section: Section, pass: Pass): Section {
  const whole = voicedIn(withOwnBars(song, section, pass), pass);
  const moves = movesOf(song, pass);
  const moved = moves
    ? {
        ...movedMusic(whole, moves.there, moves.id, "there"),
        key: keyName(transposeKey(sectionKey(song, section), sure(pass.transpose))),
      }
    : whole;
  if (!pass.playing) return moved;
  const playing: Record<string, Playing> = { ...moved.playing };
  for (const [part, ways] of Object.entries(pass.playing)) playing[part] = playingOver(playing[part], ways);
  return { ...moved, playing };
}

/** A section with the layouts that are of one pass alone. */
function voicedIn(section: Section, { voicings }: Pass): Section {
  if (!voicings) return section;
  const chords = section.chords.map((chord) => {
    const own = Object.entries(voicings).flatMap(([part, layouts]) => {
      const layout = layouts[chord.id];
      return layout ? [[part, layoutIn(layout)] as const] : [];
    });
    return own.length ? { ...chord, voicings: { ...chord.voicings, ...Object.fromEntries(own) } } : chord;
  });
  return { ...section, chords };
}

const views = new WeakMap<Song, Map<string, Song>>();

/**
 * The song with one pass written out: the section of that pass stands as the pass plays it, so that everything that
 * reads or writes a section reads and writes this pass. Its other passes go to a section of their own with what is
 * stored. The song itself where the pass is as its section is, unless it is wanted `alone`: then what follows it is
 * what follows this pass.
 */
export function passView(song: Song, passId: string | null, alone = false): Song {
  const pass = passId === null ? undefined : passOf(song, passId);
  const section = pass && sectionOf(song, pass.sectionId);
  if (!section || !(alone || isUnlike(pass))) return song;
  let known = views.get(song);
  if (!known) views.set(song, (known = new Map()));
  let view = known.get(pass.id);
  if (!view) known.set(pass.id, (view = written(song, section, pass)));
  return view;
}

/**
 * The song in which the section of a pass stands as the pass plays it, whatever becomes of its other passes: what an
 * edit of the pass is made in.
 */
export function passAlone(song: Song, section: Section, pass: Pass): Song {
  const { own: _, transpose: _transpose, playing: _playing, voicings: _voicings, ...plain } = pass;
  const written = sectionIn(song, section, pass);
  return {
    ...song,
    sections: song.sections.map((s) => (s === section ? written : s)),
    form: song.form.map((p) => (p.id === pass.id ? plain : p)),
  };
}

function written(song: Song, section: Section, pass: Pass): Song {
  const alone = passAlone(song, section, pass);
  // A song that has all the sections there may be has no room for another one.
  const others = song.form.some((p) => p.id !== pass.id && p.sectionId === section.id);
  if (!others || song.sections.length >= LIMITS.sections) return alone;
  let rest = `${section.id}~`.slice(-40);
  while (sectionOf(song, rest)) rest = `~${rest}`.slice(0, 40);
  return {
    ...alone,
    sections: [...alone.sections, { ...section, id: rest, copyOf: section.id }],
    form: alone.form.map((p) => (p.id !== pass.id && p.sectionId === section.id ? { ...p, sectionId: rest } : p)),
  };
}
