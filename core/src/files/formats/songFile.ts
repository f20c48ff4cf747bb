import type { Format } from "../format";
import { readSongFile, writeSongFile } from "../json";

/** The document itself. */
export const songFile: Format = {
  id: "song",
  title: "Song file",
  explanation: "Everything there is: all that was written, tried and kept. An opened file becomes a song of its own.",
  extensions: ["json"],
  media: "application/json",
  read: (bytes) => readSongFile(new TextDecoder().decode(bytes)),
  ways: [
    {
      id: "json",
      title: "Save as JSON",
      write: (song) => new TextEncoder().encode(writeSongFile(song)),
    },
  ],
};
