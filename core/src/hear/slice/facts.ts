/** Slices, roles and kicks of a place, as facts. */
import { partOf } from "../../song/document";
import { type Place } from "../../song/place";
import { frameOf, type RealizedChord, type RealizedNote } from "../../song/realize";
import { sameValue, sharing } from "../../base/plain";
import { type Fact, type Reader } from "../../facts/memory";
import { chordsAt, hitsAt, notesAt, onwardAt, realizedAt, type Sounding } from "../sounding";
import { kicksStruck, type KickHit } from "./accents";
import { noteRoles, type RoleContext, type RoleSpan } from "./roles";
import { barFrames, keptBars, type BarFrame, type ChordBar, type HitBar, type PartBar } from "./bars";
import { chordBars, hitBars, namesOver, partBars, sliceBars, type Sliced } from "./slices";

/** What roles are read against, apart from the chords. */
const groundAt: Fact<[Place], Omit<RoleContext, "chords"> | null> = {
  id: "ground",
  of(read, place) {
    const frame = frameOf(read.song, place);
    return (
      frame && {
        sections: [{ start: 0, key: frame.key, meter: frame.meter }],
        loops: true,
        duration: frame.to - frame.from,
      }
    );
  },
  keep: sharing,
};

/** Roles of the notes of one part at a place, by note. */
export const rolesAt: Fact<[Place, string, Sounding], Map<RealizedNote, RoleSpan[]>> = {
  id: "roles",
  of(read, place, id, reading) {
    const part = partOf(read.song, id);
    const ground = read.get(groundAt, place);
    if (!part || !ground) return new Map();
    const onward = place.kind === "pass" || part.link ? null : read.get(onwardAt, place.id, id);
    const notes = read.get(notesAt, place, id, reading);
    return noteRoles(
      { ...ground, ...(onward ? { onward } : {}), chords: read.get(chordsAt, place) },
      { role: part.role, linked: part.link !== undefined, notes },
    );
  },
};

/** The bars of a place. */
const framesAt: Fact<[Place], BarFrame[]> = {
  id: "frames",
  of(read, place) {
    const frame = frameOf(read.song, place);
    return frame
      ? barFrames([{ pass: frame.passId, start: 0, duration: frame.to - frame.from, meter: frame.meter }])
      : [];
  },
  keep: sharing,
};

/** Notes of a part by bars, with their roles. */
const partBarsAt: Fact<[Place, string], readonly PartBar[]> = {
  id: "bars of a part",
  of: (read, place, id) =>
    partBars(read.get(framesAt, place), read.get(notesAt, place, id, "held"), read.get(rolesAt, place, id, "held")),
  keep: keptBars,
};

/** Chords by bars, with the names that the bass makes of them. */
const chordBarsAt: Fact<[Place], readonly ChordBar[]> = {
  id: "bars of chords",
  of(read, place) {
    const chords = read.get(chordsAt, place);
    return chordBars(read.get(framesAt, place), chords, namesByBass(read, place, "held"));
  },
  keep: keptBars,
};

/** Drums by bars. */
const hitBarsAt: Fact<[Place], readonly HitBar[]> = {
  id: "bars of drums",
  of: (read, place) => hitBars(read.get(framesAt, place), read.get(hitsAt, place), read.get(kicksAt, place)),
  keep: keptBars,
};

/** Slices of a place: chopped and arpeggiated parts count as the chords they come from. */
export const slicesAt: Fact<[Place], Sliced> = {
  id: "slices",
  of(read, place) {
    const real = read.get(realizedAt, place, "held");
    return sliceBars(real, new Map(real.parts.map((p) => [p.id, read.get(rolesAt, place, p.id, "held")])), {
      frames: read.get(framesAt, place),
      chords: read.get(chordBarsAt, place),
      hits: read.get(hitBarsAt, place),
      parts: real.parts.map((p) => read.get(partBarsAt, place, p.id)),
    });
  },
};

const namesByBass = (read: Reader, place: Place, reading: Sounding): Map<RealizedChord, string> =>
  namesOver(
    read.get(chordsAt, place),
    read.song.parts.filter((p) => p.role === "bass").flatMap((p) => read.get(notesAt, place, p.id, reading)),
  );

/** Chords whose bass part makes them others, by chord id. */
export const soundingAt: Fact<[Place], Map<string, string>> = {
  id: "sounding",
  of: (read, place) => new Map([...namesByBass(read, place, "played")].map(([chord, name]) => [chord.id, name])),
  keep: (before, now) => (sameValue([...before], [...now]) ? before : now),
};

/** Kicks of a place with their weight. */
export const kicksAt: Fact<[Place], KickHit[]> = {
  id: "kicks",
  of(read, place) {
    const frame = frameOf(read.song, place);
    return frame
      ? kicksStruck(read.get(hitsAt, place), () => ({ groove: frame.section.groove, meter: frame.meter }))
      : [];
  },
  keep: sharing,
};
