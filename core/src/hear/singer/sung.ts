import { sure } from "../../base/list";
import type { Midi, PitchName } from "../../theory/pitch/pitch";
import type { Seconds, Ticks } from "../../theory/time/meter";
import { ticksToSeconds } from "../../theory/time/swing";
import { sectionMeter, sectionOf, sectionTempo } from "../../song/document";
import { passPlace, sectionPlace, type Place } from "../../song/place";
import type { Singer, Song } from "../../song/schema";
import { notesAt } from "../sounding";
import type { Reader } from "../../facts/memory";
import { phrasesOf } from "../line/tune";

/** A note as a singer sings it in the form. */
export interface SungNote {
  midi: Midi;
  pitch: PitchName;
  seconds: Seconds;
  velocity: number;
  section: string;
  /** Place in its section. */
  start: Ticks;
  /** The highest note of its phrase. */
  peak: boolean;
}

/** The places of a form with their sections; every section once where there is no form. */
const placesOf = (song: Song): { place: Place; section: string }[] =>
  song.form.length
    ? song.form.map((p) => ({ place: passPlace(song, p.id), section: p.sectionId }))
    : song.sections.map((s) => ({ place: sectionPlace(s.id), section: s.id }));

/** All that a singer sings in the form, pass by pass; nothing where no part is theirs. */
export function sungBy(read: Reader, singer: Singer): SungNote[] {
  const { song } = read;
  const { partId } = singer;
  if (partId === undefined) return [];
  return placesOf(song).flatMap(({ place, section: id }) => {
    const section = sure(sectionOf(song, id));
    const meter = sectionMeter(song, section);
    const tempo = sectionTempo(song, section);
    const notes = read.get(notesAt, place, partId, "played");
    const peaks = new Set(
      phrasesOf({ notes, meter, tempo, length: section.bars * meter.bar }).map((p) =>
        p.notes.reduce((high, n) => (n.midi > high.midi ? n : high)),
      ),
    );
    return notes.map((n): SungNote => ({
      midi: n.midi,
      pitch: n.pitch,
      seconds: ticksToSeconds(n.duration, tempo),
      velocity: n.velocity,
      section: id,
      start: n.start,
      peak: peaks.has(n),
    }));
  });
}

/** Seconds on each pitch. */
export function timeByPitch(notes: readonly Pick<SungNote, "midi" | "seconds">[]): Map<Midi, Seconds> {
  const out = new Map<Midi, Seconds>();
  for (const n of notes) out.set(n.midi, (out.get(n.midi) ?? 0) + n.seconds);
  return out;
}

const CHORUS = /chorus|refrain|hook/i;

/** Sections in which a song should lift: those that are called so, else the one that lies highest. */
export function chorusOf(song: Song, notes: readonly SungNote[]): string[] {
  const named = song.sections
    .filter((s) => CHORUS.test(s.name) && notes.some((n) => n.section === s.id))
    .map((s) => s.id);
  if (named.length || !notes.length) return named;
  const mean = (id: string) => {
    const own = notes.filter((n) => n.section === id);
    return own.reduce((sum, n) => sum + n.midi * n.seconds, 0) / own.reduce((sum, n) => sum + n.seconds, 0);
  };
  const sung = [...new Set(notes.map((n) => n.section))];
  return [sung.reduce((best, id) => (mean(id) > mean(best) ? id : best))];
}
