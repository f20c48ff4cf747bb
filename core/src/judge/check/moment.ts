import { sure } from "../../base/list";
import { fail, ok, type Result } from "../../base/result";
import { intervalWords } from "../../theory/pitch/interval";
import type { Midi, PitchName } from "../../theory/pitch/pitch";
import { positionText, type Ticks } from "../../theory/time/meter";
import { sectionMeter, sectionOf } from "../../song/document";
import { sectionPlace } from "../../song/place";
import type { Song } from "../../song/schema";
import { KIND_WORDS, ROLE_WORDS } from "../../hear/slice/roles";
import { sliceAt, type Slice } from "../../hear/slice/slices";
import { roughness } from "../../theory/motion/roughness";
import { slicesAt } from "../../hear/slice/facts";
import { factsOf } from "../../facts/memory";

/** One note of a moment. */
export interface MomentNote {
  part: string;
  name: string;
  pitch: PitchName;
  midi: Midi;
  /** Struck here, or held over. */
  struck: boolean;
  /** What it is: "minor third", "passing tone (fourth)". */
  role: string;
  /** Up from the lowest note, and to the tune; null for those themselves, and where there is none. */
  overBass: string | null;
  toTune: string | null;
}

/** Everything that sounds at one moment. */
export interface Moment {
  tick: Ticks;
  duration: Ticks;
  where: string;
  /** The chord that is written, and with the bass that sounds. */
  chord: string | null;
  sounding: string | null;
  /** High to low. */
  notes: MomentNote[];
  drums: string[];
  /** Of all notes together, by Sethares; 0 for one note. */
  roughness: number;
}

const TUNES = ["melody", "vocal"];

function momentOf(song: Song, slice: Slice, where: string): Moment {
  const parts = new Map(song.parts.map((p) => [p.id, p]));
  const [bass] = slice.notes;
  const tune = slice.notes
    .filter((n) => TUNES.includes(parts.get(n.part)?.role ?? ""))
    .sort((a, b) => TUNES.indexOf(sure(parts.get(a.part)).role) - TUNES.indexOf(sure(parts.get(b.part)).role))[0];
  return {
    tick: slice.start,
    duration: slice.duration,
    where,
    chord: slice.chord?.symbol ?? null,
    sounding: slice.sounding,
    notes: [...slice.notes].reverse().map((n): MomentNote => {
      const tone = ROLE_WORDS[n.span.role] ?? n.span.role;
      const apart = tune ? n.note.midi - tune.note.midi : 0;
      const roleText = () => {
        if (n.span.kind === "free") return "no chord here";
        if (n.span.kind === "chord") return tone;
        return `${KIND_WORDS[n.span.kind]} (${tone})`;
      };
      const toTune = () => {
        if (!tune || n === tune) return null;
        if (apart === 0) return "unison";
        return `${intervalWords(Math.abs(apart))} ${apart > 0 ? "above" : "below"}`;
      };
      return {
        part: n.part,
        name: parts.get(n.part)?.name ?? n.part,
        pitch: n.note.pitch,
        midi: n.note.midi,
        struck: n.attack,
        role: roleText(),
        overBass: n === bass ? null : intervalWords(n.note.midi - sure(bass).note.midi),
        toTune: toTune(),
      };
    }),
    drums: [...new Set(slice.hits.map((h) => h.drum))],
    roughness: roughness(slice.notes.map((n) => n.note.midi)),
  };
}

/** Every moment of a section at which something changes, in order. Errors: `moment.section`. */
export function momentsOf(song: Song, sectionId: string): Result<{ tick: Ticks }[]> {
  if (!sectionOf(song, sectionId)) return fail("moment.section", `No section has the id "${sectionId}"`);
  return ok(
    factsOf(song)
      .get(slicesAt, sectionPlace(sectionId))
      .slices.map((s) => ({ tick: s.start })),
  );
}

/** What sounds at a tick of a section. Errors: `moment.section`, `moment.tick` where nothing is there. */
export function momentAt(song: Song, sectionId: string, tick: Ticks): Result<Moment> {
  const section = sectionOf(song, sectionId);
  if (!section) return fail("moment.section", `No section has the id "${sectionId}"`);
  const slice = sliceAt(factsOf(song).get(slicesAt, sectionPlace(sectionId)).slices, tick);
  if (!slice)
    return fail("moment.tick", `${section.name} has nothing at ${positionText(sectionMeter(song, section), tick)}`);
  return ok(momentOf(song, slice, positionText(sectionMeter(song, section), slice.start)));
}
