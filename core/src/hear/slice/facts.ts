/** Slices, roles and kicks of a place, as facts. */
import { partOf } from "../../song/document";
import { type Place } from "../../song/place";
import { frameOf, type RealizedNote } from "../../song/realize";
import { sameValue, sharing } from "../../base/plain";
import { type Fact } from "../../facts/memory";
import { chordsAt, notesAt, onwardAt, realizedAt, type Sounding } from "../sounding";
import { kicks, type KickHit } from "./accents";
import { noteRoles, type RoleContext, type RoleSpan } from "./roles";
import { namesOver, sliceReal, type Sliced } from "./slices";

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

/** Slices of a place: chopped and arpeggiated parts count as the chords they come from. */
export const slicesAt: Fact<[Place], Sliced> = {
  id: "slices",
  of(read, place) {
    const real = read.get(realizedAt, place, "held");
    return sliceReal(real, new Map(real.parts.map((p) => [p.id, read.get(rolesAt, place, p.id, "held")])));
  },
};

/** Chords whose bass part makes them others, by chord id. */
export const soundingAt: Fact<[Place], Map<string, string>> = {
  id: "sounding",
  of(read, place) {
    const basses = read.song.parts.filter((p) => p.role === "bass");
    const names = namesOver(
      read.get(chordsAt, place),
      basses.flatMap((p) => read.get(notesAt, place, p.id, "played")),
    );
    return new Map([...names].map(([chord, name]) => [chord.id, name]));
  },
  keep: (before, now) => (sameValue([...before], [...now]) ? before : now),
};

/** Kicks of a place with their weight. */
export const kicksAt: Fact<[Place], KickHit[]> = {
  id: "kicks",
  of(read, place) {
    const frame = frameOf(read.song, place);
    return frame
      ? kicks(frame.section.groove, frame.meter).filter((k) => k.start >= frame.from && k.start < frame.to)
      : [];
  },
  keep: sharing,
};
