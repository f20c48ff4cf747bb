import { fail, ok, type Result } from "../result";
import { parseKey, type Key } from "../pitch/key";
import { must } from "../result";
import { parseMeter, type Meter } from "../time/meter";
import { SONG_VERSION, SongSchema, type Part, type Section, type Song } from "./schema";

type Json = Record<string, unknown>;

/** Turns a document of version n (the key) into one of version n + 1. Version 1 is the first, so there is none yet. */
export const MIGRATIONS: Record<number, (document: Json) => Json> = {};

/** "sections.0.notes.bass.2.pitch" in words a user can follow back to the file. */
const pathText = (path: readonly PropertyKey[]): string => path.map(String).join(".") || "the document";

/** Brings a document of any known version up to date and checks all of it. Errors name the path of the first thing that is wrong. */
export function parseSong(json: unknown): Result<Song> {
  let document = json;
  if (typeof document === "string") {
    try {
      document = JSON.parse(document) as unknown;
    } catch (error) {
      return fail("song.json", `This is no JSON: ${error instanceof Error ? error.message : String(error)}`, {
        hint: "Choose a song file that this application wrote.",
      });
    }
  }
  if (typeof document !== "object" || document === null || Array.isArray(document))
    return fail("song.shape", "A song is a JSON object", { hint: "Choose a song file that this application wrote." });
  let current = document as Json;
  const version = current.version;
  if (typeof version !== "number" || !Number.isInteger(version) || version < 1)
    return fail("song.version", 'The document has no version number in "version"', {
      hint: "Choose a song file that this application wrote.",
    });
  if (version > SONG_VERSION)
    return fail("song.newer", `The document has version ${version}; this application reads up to version ${SONG_VERSION}`, {
      hint: "Update the application, then open the song again.",
    });
  for (let v = version; v < SONG_VERSION; v++) current = MIGRATIONS[v]!(current);
  const parsed = SongSchema.safeParse(current);
  if (parsed.success) return ok(parsed.data);
  const issue = parsed.error.issues[0]!;
  const more = parsed.error.issues.length - 1;
  return fail("song.invalid", `${pathText(issue.path)}: ${issue.message}${more > 0 ? ` (and ${more} more)` : ""}`, {
    hint: "Correct this place in the file and try again.",
  });
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
  return parseSong({
    version: SONG_VERSION,
    id: settings.id ?? "new",
    title: settings.title,
    key: settings.key ?? "C major",
    tempo: settings.tempo ?? 96,
    meter: settings.meter ?? "4/4",
    swing: settings.swing ?? { ratio: 0.5, unit: 8 },
    profile: settings.profile ?? "band",
    parts: [
      { id: "melody", name: "Voice", role: "melody", instrument: "mezzo", settings: {} },
      { id: "keys", name: "Piano", role: "chords", instrument: "piano", link: { kind: "voicing", loop: true }, settings: {} },
      { id: "bass", name: "Bass", role: "bass", instrument: "bassGuitar", settings: { style: "kick-locked" } },
      { id: "drums", name: "Drums", role: "drums", instrument: "drums", settings: {} },
    ],
    sections: [{ id: "s1", name: "Verse", bars: settings.bars ?? 4, chords: [], groove: { lanes: [] }, notes: {} }],
    form: [{ id: "o1", sectionId: "s1" }],
    singers: [],
    waivers: [],
    takes: [],
    nextId: 1,
  });
}

export const sectionKey = (song: Song, section: Section): Key => must(parseKey(section.key ?? song.key));
export const sectionMeter = (song: Song, section: Section): Meter => must(parseMeter(section.meter ?? song.meter));
export const sectionTempo = (song: Song, section: Section): number => section.tempo ?? song.tempo;
export const sectionOf = (song: Song, id: string): Section | undefined => song.sections.find((s) => s.id === id);
export const partOf = (song: Song, id: string): Part | undefined => song.parts.find((p) => p.id === id);
export const partByRole = (song: Song, role: Part["role"]): Part | undefined => song.parts.find((p) => p.role === role);
