import { firstOf, sure } from "../../base/list";
import { parseNote, type PitchName, noteOf } from "../../theory/pitch/pitch";
import type { Key } from "../../theory/pitch/key";
import {
  mapChords,
  voicesIn,
  type Accidental,
  type EngravedChord,
  type EngravedNote,
  type EngravedStaff,
} from "./staff";

interface Read {
  letter: string;
  alter: number;
  /** Letter and octave: a sign holds for its own line or space. */
  place: string;
}

const read = (pitch: PitchName): Read => {
  const letter = sure(pitch[0]);
  return { letter, alter: sure(parseNote(noteOf(pitch))).alter, place: letter + pitch.slice(noteOf(pitch).length) };
};

/** What a reader of a bar has in mind before a note. */
interface InMind {
  /** What the signature makes of the letter. */
  home: number;
  /** What stood on each line and space of the bar; letters shown there at all. */
  places: ReadonlyMap<string, number>;
  shown: ReadonlySet<string>;
  /** By letter, what came altered over the bar line, and what the bar before made of it. */
  altered: ReadonlyMap<string, number>;
  before: ReadonlyMap<string, number>;
}

const differs = (letters: ReadonlyMap<string, number>, { letter, alter }: Read): boolean =>
  letters.has(letter) && letters.get(letter) !== alter;

/** The sign that a note of a chord needs or is reminded with. */
function signOf(own: Read, chord: EngravedChord, mind: InMind): Accidental | null {
  const { home, places, shown, altered, before } = mind;
  const { letter, place, alter } = own;
  if ((places.get(place) ?? home) !== alter) return { alter, courtesy: false };
  if (places.has(place)) return null;
  // In one chord the same letter may stand twice: each head has its sign.
  const twice = chord.notes.map((o) => read(o.pitch)).some((o) => o.letter === letter && o.alter !== alter);
  const elsewhere = [...places].some(([p, other]) => p[0] === letter && p !== place && other !== alter);
  const reminded = elsewhere || (differs(before, own) && !shown.has(letter)) || differs(altered, own);
  return reminded || (twice && alter === home) ? { alter, courtesy: !twice } : null;
}

/**
 * Signs before the heads of a staff: one where a note differs from the signature and from what stood before it in its
 * bar, none where a tie leads into it; a reminding one where the letter was altered in the bar before, stands altered
 * in another octave of the same bar, or came altered over the bar line (Gould, *Behind Bars*, from memory).
 */
export function withAccidentals(staff: EngravedStaff, key: Key): EngravedStaff {
  const signature = new Map(key.scale.map((name) => [sure(name[0]), sure(parseNote(name)).alter]));
  const signs = new Map<EngravedNote, Accidental>();
  // By voice, the heights a tie leads on from; by letter, what the bar before made of it.
  let held: Set<number>[] = [new Set(), new Set()];
  let before = new Map<string, number>();
  for (let bar = staff.pickup.length ? -1 : 0; bar < staff.measures.length; bar++) {
    const places = new Map<string, number>();
    const altered = new Map<string, number>();
    const chords = voicesIn(staff, bar)
      .flatMap((chords, voice) => chords.map((c) => ({ c, voice })))
      .sort((a, b) => a.c.start - b.c.start || a.voice - b.voice);
    const shown = new Set<string>();
    for (const { c, voice } of chords) {
      for (const n of c.notes) {
        const own = read(n.pitch);
        const home = signature.get(own.letter) ?? 0;
        if (held[voice]?.has(n.midi)) {
          if (own.alter !== home) altered.set(own.letter, own.alter);
          continue;
        }
        const sign = signOf(own, c, { home, places, altered, before, shown });
        if (sign) signs.set(n, sign);
        shown.add(own.letter);
        places.set(own.place, own.alter);
      }
      held[voice] = new Set(c.notes.filter((n) => n.tied).map((n) => n.midi));
    }
    before = new Map(
      [...altered, ...[...places].map(([place, alter]): [string, number] => [sure(place[0]), alter])].filter(
        isForeign(signature),
      ),
    );
    if (!voicesIn(staff, bar)[1]) held = [firstOf(held), new Set()];
  }
  const marked = (c: EngravedChord): EngravedChord =>
    c.notes.some((n) => signs.has(n))
      ? { ...c, notes: c.notes.map((n) => (signs.has(n) ? { ...n, accidental: sure(signs.get(n)) } : n)) }
      : c;
  return mapChords(staff, marked);
}

const isForeign =
  (signature: ReadonlyMap<string, number>) =>
  ([letter, alter]: [string, number]): boolean =>
    alter !== (signature.get(letter) ?? 0);
