import type { Format } from "../format";
import { writeMusicXml } from "../musicxml/write";

/** MusicXML 3.1, score-partwise. */
export const musicXmlFile: Format = {
  id: "musicxml",
  title: "Score",
  explanation:
    "For notation programs: every part as its player reads it, words, chord symbols and drums, pass by pass. Muted " +
    "parts are included.",
  extensions: ["musicxml", "xml"],
  media: "application/vnd.recordare.musicxml+xml",
  ways: [
    {
      id: "musicxml",
      title: "Save as MusicXML",
      write: (song) => new TextEncoder().encode(writeMusicXml(song)),
    },
  ],
};
