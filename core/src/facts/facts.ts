import type { Place } from "../song/place";
import {
  assemble,
  frameOf,
  joinPasses,
  realizedChords,
  realizedHits,
  realizedNotes,
  type RealizedChord,
  type RealizedHit,
  type RealizedNote,
  type RealizedSong,
} from "../song/realize";
import { passPlace, sectionPlace } from "../song/place";
import { chordOf } from "../chord/progression";
import { partOf, sectionOf, sectionTempo } from "../song/document";
import { eventAfter, firstNote, wayOn, type FirstNote } from "../song/onward";
import { kicks, type KickHit } from "../slice/accents";
import { noteRoles, type RoleContext, type RoleSpan } from "../slice/roles";
import { namesOver, sliceReal, type Sliced } from "../slice/slices";
import { analyzeSection, type HarmonyReport } from "../harmony/analyze";
import {
  askVoicing,
  layOut,
  layoutsOf,
  pathsThrough,
  type AskedVoicing,
  type Layouts,
  type SectionPath,
  type SectionVoicing,
} from "../voicing/section";
import { layOutAnew, type Anew } from "../voicing/anew";
import { blockNotes } from "../voicing/block";
import { judgeProgression, type Verdict } from "../reharm/verdict";
import type { TuneContext } from "../line/tune";
import { accentMap, type AccentMap } from "../groove/accentMap";
import { agreeOnAccents, type Agreement } from "../groove/agree";
import type { Result } from "../result";
import type { NewNote } from "../song/schema";
import type { Fact } from "./memory";

/** Small values that say the same although they were made anew. */
const alike = <T>(a: T, b: T): boolean => JSON.stringify(a) === JSON.stringify(b);

/** How linked parts are read: as they are played, or as the chords they come from. */
export type Reading = "played" | "held";

/** Chords of a place, as written. */
export const chordsAt: Fact<[Place], RealizedChord[]> = {
  id: "chords",
  of(read, place) {
    const frame = frameOf(read.song, place);
    return frame ? realizedChords(frame) : [];
  },
};

/** Notes of one part at a place. */
export const notesAt: Fact<[Place, string, Reading], RealizedNote[]> = {
  id: "notes",
  of(read, place, id, reading) {
    const frame = frameOf(read.song, place);
    const part = partOf(read.song, id);
    return frame && part ? realizedNotes(read.song, frame, part, reading === "held") : [];
  },
};

/** Drum hits of a place. */
export const hitsAt: Fact<[Place], RealizedHit[]> = {
  id: "hits",
  of(read, place) {
    const frame = frameOf(read.song, place);
    return frame ? realizedHits(read.song, frame) : [];
  },
};

/** A place realized by itself, from tick 0. */
export const realizedAt: Fact<[Place, Reading], RealizedSong> = {
  id: "realized",
  of: (read, place, reading) =>
    assemble(
      read.song,
      frameOf(read.song, place),
      read.get(chordsAt, place),
      (part) => read.get(notesAt, place, part.id, reading),
      read.get(hitsAt, place),
    ),
};

/** The whole form on one axis; passes that differ in nothing are worked out once. */
export const formRealized: Fact<[Reading], RealizedSong> = {
  id: "form",
  of: (read, reading) =>
    joinPasses(
      read.song,
      read.song.form.map((pass) => read.get(realizedAt, passPlace(read.song, pass.id), reading)),
    ),
};

export interface Onward {
  chord: RealizedChord;
  first: FirstNote | null;
  into: string;
}

/** The chord with which the form goes on after a section, and the first note of a part there; null where it leads back to its own beginning. */
export const onwardAt: Fact<[section: string, part: string], Onward | null> = {
  id: "onward",
  of(read, section, part) {
    const event = eventAfter(read.song, section);
    const way = event && wayOn(read.song, section);
    const chord = event && chordOf(event.symbol);
    if (!event || !way || !chord) return null;
    const { into, ...rest } = event;
    return { chord: { ...rest, pass: way.next, chord }, first: firstNote(read.song, way, part), into };
  },
  same: alike,
};

/** What roles are read against, apart from the chords. */
const groundAt: Fact<[Place], Omit<RoleContext, "chords"> | null> = {
  id: "ground",
  of(read, place) {
    const frame = frameOf(read.song, place);
    return frame && { sections: [{ start: 0, key: frame.key, meter: frame.meter }], loops: true, duration: frame.to - frame.from };
  },
  same: alike,
};

/** Roles of the notes of one part at a place, by note. */
export const rolesAt: Fact<[Place, string, Reading], Map<RealizedNote, RoleSpan[]>> = {
  id: "roles",
  of(read, place, id, reading) {
    const part = partOf(read.song, id);
    const ground = read.get(groundAt, place);
    if (!part || !ground) return new Map();
    const section = place.startsWith("section:") ? place.slice("section:".length) : null;
    const onward = section === null || part.link ? null : read.get(onwardAt, section, id);
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
};

/** A part of a section looked at as a tune; null where there is no such part. */
export const tuneAt: Fact<[section: string, part: string], TuneContext | null> = {
  id: "tune",
  of(read, section, part) {
    const place = sectionPlace(section);
    const frame = frameOf(read.song, place);
    if (!frame || !partOf(read.song, part)) return null;
    const { meter, from, to } = frame;
    return {
      notes: read.get(notesAt, place, part, "played"),
      meter,
      tempo: sectionTempo(read.song, frame.section),
      length: to - from,
      chords: read.get(chordsAt, place),
    };
  },
};

/** Kicks of a place with their weight. */
export const kicksAt: Fact<[Place], KickHit[]> = {
  id: "kicks",
  of(read, place) {
    const frame = frameOf(read.song, place);
    return frame ? kicks(frame.section.groove, frame.meter).filter((k) => k.start >= frame.from && k.start < frame.to) : [];
  },
};

/** The harmony of a section, chord by chord. */
export const harmonyAt: Fact<[section: string], HarmonyReport> = {
  id: "harmony",
  of: (read, section) => analyzeSection(read.song, section),
};

/** Whether the progression of a section needs anything. */
export const verdictAt: Fact<[section: string], Verdict> = {
  id: "verdict",
  of: (read, section) => judgeProgression(read.song, section),
  same: alike,
};

/** Who strikes where in a section. */
export const accentsAt: Fact<[section: string], Result<AccentMap>> = {
  id: "accents",
  of: (read, section) => accentMap(read.song, section, read.get(realizedAt, sectionPlace(section), "played")),
};

/** What players whose accents miss each other could agree on. */
export const agreementAt: Fact<[section: string], Result<Agreement>> = {
  id: "agreement",
  of: (read, section) => agreeOnAccents(read.song, section, read.get(accentsAt, section)),
};

/** What the layouts of a part in a section depend on. */
export const voicingAskedAt: Fact<[section: string, part: string], Result<AskedVoicing>> = {
  id: "voicing asked",
  of: (read, section, part) => askVoicing(read.song, section, part),
  same: alike,
};

/** Layouts a part has in a section, by chord id. */
export const layoutsAt: Fact<[section: string, part: string], Layouts> = {
  id: "layouts",
  of(read, id, part) {
    const section = sectionOf(read.song, id);
    return section ? layoutsOf(section, part) : {};
  },
  same: alike,
};

/** A part through a section as it is laid out, with other layouts for each chord; chords that have none yet get the cheapest. */
export const voicingAt: Fact<[section: string, part: string], Result<SectionVoicing>> = {
  id: "voicing",
  of(read, section, part) {
    const asked = read.get(voicingAskedAt, section, part);
    return asked.ok ? layOut(asked.value, read.get(layoutsAt, section, part)) : asked;
  },
};

/** What laying a section out anew would gain. */
export const anewAt: Fact<[section: string, part: string], Result<Anew | null>> = {
  id: "anew",
  of(read, section, part) {
    const asked = read.get(voicingAskedAt, section, part);
    return asked.ok ? layOutAnew(asked.value, read.get(layoutsAt, section, part)) : asked;
  },
};

/** Several ways of laying a section out. */
export const pathsAt: Fact<[section: string, part: string], Result<SectionPath[]>> = {
  id: "paths",
  of(read, section, part) {
    const asked = read.get(voicingAskedAt, section, part);
    return asked.ok ? pathsThrough(asked.value) : asked;
  },
};

/** Chords of a part under every note of a tune. */
export const blockAt: Fact<[section: string, part: string], Result<NewNote[] | null>> = {
  id: "block",
  of: (read, section, part) => blockNotes(read.song, section, part),
  same: alike,
};
