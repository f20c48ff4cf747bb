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
      // In one chord the same letter may stand twice: each head has its sign.
      const twice = (n: Read) =>
        c.notes.some((o) => read(o.pitch).letter === n.letter && read(o.pitch).alter !== n.alter);
      for (const n of c.notes) {
        const own = read(n.pitch);
        const home = signature.get(own.letter) ?? 0;
        if (held[voice]?.has(n.midi)) {
          if (own.alter !== home) altered.set(own.letter, own.alter);
          continue;
        }
        const needed = (places.get(own.place) ?? home) !== own.alter;
        const other = [...places].some(
          ([place, alter]) => place[0] === own.letter && place !== own.place && alter !== own.alter,
        );
        const reminded =
          !places.has(own.place) &&
          ((before.has(own.letter) && before.get(own.letter) !== own.alter && !shown.has(own.letter)) || other);
        const came = altered.has(own.letter) && altered.get(own.letter) !== own.alter && !places.has(own.place);
        if (needed) signs.set(n, { alter: own.alter, courtesy: false });
        else if (reminded || came || (twice(own) && own.alter === home && !places.has(own.place)))
          signs.set(n, { alter: own.alter, courtesy: !twice(own) });
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
