import { firstOf, sure } from "../base/list";
import { getUntracked } from "proxy-compare";
import { fail, must, ok, type Result } from "../base/result";
import { parseKey, type Key } from "../theory/pitch/key";
import { parseMeter, type Meter } from "../theory/time/meter";
import type { ZodType } from "zod";
import { cutAt } from "./beyond";
import { mendDocument } from "./mend/mend";
import { fromVersion1 } from "./migrate/fromVersion1";
import { Song1 } from "./migrate/version1";
import { LIMITS, SONG_VERSION, SongSchema, type Part, type Pass, type Section, type Song } from "./schema";

type Json = Record<string, unknown>;

/** "sections.0.notes.bass.2.pitch" in words a user can follow back to the file. */
const pathText = (path: readonly PropertyKey[]): string => path.map(String).join(".") || "the document";

interface Issues {
  issues: readonly { path: PropertyKey[]; message: string }[];
}

/** The first of several issues as an error. */
function invalid({ issues }: Issues): ReturnType<typeof fail> {
  const more = issues.length - 1;
  return fail(
    "song.invalid",
    `${pathText(firstOf(issues).path)}: ${firstOf(issues).message}${more > 0 ? ` (and ${more} more)` : ""}`,
    {
      hint: "Correct this place in the file and try again.",
    },
  );
}

/** Reads a document by the schema of its version. */
type Reader = <T>(schema: ZodType<T>, document: Json) => Result<T>;

const strictly: Reader = (schema, document) => {
  const read = schema.safeParse(document);
  return read.success ? ok(read.data) : invalid(read.error);
};

/**
 * Turns a document of version n (the key) into one of version n + 1; its errors name the path in the older document.
 */
export const MIGRATIONS: Record<number, (document: Json, read?: Reader) => Result<Json>> = {
  1: (document, read = strictly) => {
    const found = read(Song1, document);
    return found.ok ? ok(fromVersion1(found.value) as unknown as Json) : found;
  },
};

const THIS_APPLICATION = { hint: "Choose a song file that this application wrote." };

/**
 * Brings a document of any known version up to date and checks all of it. Errors name the path of the first thing that
 * is wrong.
 */
export const parseSong = (json: unknown): Result<Song> => readSong(json, strictly);

/** A song that was opened, and what was mended in its file, in sentences; none where it was whole. */
export interface Opened {
  song: Song;
  mended: string[];
}

/**
 * Brings a document of any known version up to date like `parseSong`, and mends what is wrong in it where something
 * can be: a name that is too long is cut, a note without its pitch left out, a number set to the nearest that is
 * allowed, and each is told. What would lie past the most bars of a section is kept beyond its end. Errors are those of
 * `parseSong`, where nothing helps.
 */
export function openSong(json: unknown): Result<Opened> {
  const mended: string[] = [];
  const read = readSong(json, (schema, document) => {
    const whole = schema.safeParse(document);
    if (whole.success) return ok(whole.data);
    const found = mendDocument(schema, document);
    if (!found) return invalid(whole.error);
    mended.push(...found.told);
    return ok(found.value);
  });
  if (!read.ok) return read;
  if (!mended.length) return ok({ song: read.value, mended });
  const song = read.value;
  const within = song.sections.map((s) =>
    s.bars < LIMITS.bars || s.beyond ? s : cutAt(s, s.bars * sectionMeter(song, s).bar),
  );
  return ok({ song: { ...song, sections: within }, mended });
}

function readSong(json: unknown, read: Reader): Result<Song> {
  let document = json;
  if (typeof document === "string") {
    try {
      document = JSON.parse(document) as unknown;
    } catch (error) {
      return fail(
        "song.json",
        `This is not JSON: ${error instanceof Error ? error.message : String(error)}`,
        THIS_APPLICATION,
      );
    }
  }
  if (typeof document !== "object" || document === null || Array.isArray(document))
    return fail("song.shape", "A song is a JSON object", THIS_APPLICATION);
  let current = document as Json;
  const version = current.version;
  if (typeof version !== "number" || !Number.isInteger(version) || version < 1)
    return fail("song.version", 'The document has no version number in "version"', THIS_APPLICATION);
  if (version > SONG_VERSION)
    return fail(
      "song.newer",
      `The document has version ${version}; this application reads up to version ${SONG_VERSION}`,
      {
        hint: "Update the application, then open the song again.",
      },
    );
  for (let v = version; v < SONG_VERSION; v++) {
    const next = sure(MIGRATIONS[v])(current, read);
    if (!next.ok) return next;
    current = next.value;
  }
  return read(SongSchema, current);
}

export interface NewSong {
  id?: string;
  title: string;
  key?: string;
  tempo?: number;
  meter?: string;
  swing?: Song["swing"];
  profile?: Song["profile"];
  bars?: number;
}

/** A song with an empty section and a small band: melody, piano, bass, drums. */
export function newSong(settings: NewSong): Result<Song> {
  const profile = settings.profile ?? "band";
  return parseSong({
    version: SONG_VERSION,
    id: settings.id ?? "new",
    title: settings.title,
    key: settings.key ?? "C major",
    tempo: settings.tempo ?? 96,
    meter: settings.meter ?? "4/4",
    swing: settings.swing ?? { ratio: 0.5, unit: 8 },
    profile,
    parts: [
      { id: "melody", name: "Voice", role: "melody", instrument: "mezzo", playing: {} },
      {
        id: "keys",
        name: "Piano",
        role: "chords",
        instrument: "piano",
        link: { kind: "voicing", loop: true },
        playing: profile === "band" ? {} : { voicing: { school: profile } },
      },
      { id: "bass", name: "Bass", role: "bass", instrument: "bassGuitar", playing: { bass: { style: "kick-locked" } } },
      { id: "drums", name: "Drums", role: "drums", instrument: "drums", playing: {} },
    ],
    sections: [{ id: "s1", name: "Verse", bars: settings.bars ?? 4, chords: [], groove: { lanes: [] }, notes: {} }],
    form: [{ id: "o1", sectionId: "s1" }],
    singers: [],
    waivers: [],
    takes: [],
    log: [],
    nextId: 1,
  });
}

export const sectionKey = (song: Song, section: Section): Key => must(parseKey(section.key ?? song.key));
export const sectionMeter = (song: Song, section: Section): Meter => must(parseMeter(section.meter ?? song.meter));
export const sectionTempo = (song: Song, section: Section): number => section.tempo ?? song.tempo;
export const sectionSwing = (song: Song, section: Section): Song["swing"] => section.swing ?? song.swing;
export const sectionOf = (song: Song, id: string): Section | undefined => song.sections.find((s) => s.id === id);
export const partOf = (song: Song, id: string): Part | undefined => song.parts.find((p) => p.id === id);

/**
 * A pass by its id. Of a song whose readings are recorded only this pass is read, not those before it: a form of many
 * passes stays cheap.
 */
export function passOf(song: Song, id: string): Pass | undefined {
  const at = getUntracked(song)?.form.findIndex((p) => p.id === id) ?? -1;
  const pass = at < 0 ? undefined : song.form[at];
  return pass?.id === id ? pass : song.form.find((p) => p.id === id);
}

/** Whether a part has notes of its own to be written: no drums, no chords it is derived from, no part it echoes. */
export const isWritten = (part: Part): boolean => !part.link && part.echoes === undefined && part.role !== "drums";
export const partByRole = (song: Song, role: Part["role"]): Part | undefined => song.parts.find((p) => p.role === role);
