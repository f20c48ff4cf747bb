import { parseSong } from "../song/document";
import type { Song } from "../song/schema";
import type { Result } from "../base/result";

/** The song as a file: indented JSON, the document itself and nothing else. */
export const writeSongFile = (song: Song): string => `${JSON.stringify(song, null, 1)}\n`;

/** Reads a song file; see `parseSong` for the errors. */
export const readSongFile = (text: string): Result<Song> => parseSong(text);
