import { openSong, type Opened } from "../song/document";
import type { Song } from "../song/schema";
import type { Result } from "../base/result";

/** The song as a file: indented JSON, the document itself and nothing else. */
export const writeSongFile = (song: Song): string => `${JSON.stringify(song, null, 1)}\n`;

/** Reads a song file and mends what can be mended in it; see `openSong`. */
export const readSongFile = (text: string): Result<Opened> => openSong(text);
