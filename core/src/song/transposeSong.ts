import { firstOf, sure } from "../base/list";
import { fail, ok, type Result } from "../base/result";
import { keyName, parseKey, transposeKey } from "../theory/pitch/key";
import { mod, pitchMidi, type Semitones } from "../theory/pitch/pitch";
import { counted } from "../theory/words/english";
import { instrumentOf, midiRange } from "../theory/instrument/instruments";
import { HIGHEST_CAPO } from "../theory/instrument/fretboard";
import { capoMoved } from "./edits/moving";
import { applyEdit, type Edit } from "./edits";
import type { Part, Song } from "./schema";

export interface Transposed {
  edit: Edit;
  /** What does not come along as one would wish, and why. */
  left: { what: string; why: string }[];
}

/** Notes of a part that are outside its instrument. */
function outside(song: Song, part: Part): number {
  const [low, high] = midiRange(instrumentOf(part.instrument, song).range);
  return song.sections
    .flatMap((s) => s.notes[part.id] ?? [])
    .filter((n) => pitchMidi(n.pitch) < low || pitchMidi(n.pitch) > high).length;
}

/** Capos that a part's shapes are held with. */
const caposOf = (song: Song, part: Part): number[] => [
  ...new Set(song.sections.flatMap((s) => s.chords.flatMap((c) => c.voicings?.[part.id]?.shape?.capo ?? []))),
];

/** The ways to a key: the nearer one first. From Bb to F: down 5, up 7. */
export function waysTo(from: string, to: string): Semitones[] {
  const [a, b] = [parseKey(from), parseKey(to)];
  if (!a.ok || !b.ok) return [];
  const up = mod(firstOf(b.value.pcs) - firstOf(a.value.pcs), 12);
  return up === 0 ? [] : [up, up - 12].sort((x, y) => Math.abs(x) - Math.abs(y));
}

/**
 * The edit that moves a whole song to another key, by an interval or to a key (the nearer way), and what does not come
 * along: notes that fall out of an instrument, capos too high. Errors: `transpose.key`, `transpose.same`, and those of
 * the edit.
 */
export function transposeSong(
  song: Song,
  to: { semitones: Semitones } | { key: string; semitones?: Semitones },
): Result<Transposed> {
  const home = parseKey(song.key);
  if (!home.ok) return home;
  const asked = "key" in to ? parseKey(to.key) : ok(transposeKey(home.value, to.semitones));
  if (!asked.ok) return asked;
  const key = keyName(asked.value);
  const semitones = to.semitones ?? waysTo(song.key, key)[0];
  if (semitones === undefined) return fail("transpose.same", `The song is in ${song.key} already`);
  const edit: Edit = { do: "transpose", key, semitones };
  const after = applyEdit(song, edit);
  if (!after.ok) return after;
  const left = song.parts.flatMap((part): Transposed["left"] => {
    const out: Transposed["left"] = [];
    const now = sure(after.value.song.parts.find((p) => p.id === part.id));
    const fallen = outside(after.value.song, now) - outside(song, part);
    if (fallen > 0) {
      const [low, high] = instrumentOf(part.instrument, song).range;
      out.push({
        what: `${part.name}: ${counted(fallen, "note")}`,
        why:
          `${semitones < 0 ? `below ${low}, its lowest` : `above ${high}, its highest`} note; the other way, or ` +
          "an octave, would help",
      });
    }
    const capo = Math.max(...caposOf(song, part).map((c) => capoMoved(c, semitones)), 0);
    if (capo > HIGHEST_CAPO)
      out.push({
        what: `${part.name}: its shapes`,
        why: `they would need a capo in fret ${capo}; other shapes are easier`,
      });
    return out;
  });
  return ok({ edit, left });
}
