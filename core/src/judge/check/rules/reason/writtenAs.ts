import { listed } from "../../../../theory/words/english";
import { playingOf } from "../../../../song/playing";
import type { Rule } from "../../rule";

export const writtenAs: Rule = {
  id: "written-as",
  title: "Written in four parts, judged otherwise",
  family: "reason",
  explanation:
    "Voices were written as a four-part chorale, whose rules of doubling, spacing and parallels are mostly silent by " +
    "the school by which the song is judged. It may be meant: a choir in a band song is free to be judged as a " +
    "band. By the other school its own rules are told.",
  source: "common practice: a setting is judged by what it was written for",
  severity: { chorale: "off", band: "note", jazz: "note", loop: "note" },
  heard: 0.4,
  find({ song, section, sliced }) {
    const voices = song.parts.filter(
      (part) =>
        playingOf(part, "vocal", { section }).school === "chorale" &&
        (sliced.real.parts.find((p) => p.id === part.id)?.notes.length ?? 0) > 0,
    );
    const [first] = voices.flatMap((v) => sliced.real.parts.find((p) => p.id === v.id)?.notes[0] ?? []);
    if (!first) return [];
    const were = voices.length === 1 ? "was" : "were";
    return [
      {
        tick: first.start,
        parts: voices.map((v) => v.id),
        notes: [],
        message: `${listed(voices.map((v) => v.name))} ${were} written as a chorale; the song is judged otherwise.`,
        amount: "another school",
        fixes: [{ label: "Judge the song as a chorale", edit: { do: "setProfile", profile: "chorale" } }],
      },
    ];
  },
};
