import { keyName } from "../../pitch/key";
import { chordPitchClasses } from "../../chord/chord";
import { isDiatonic } from "../../chord/numerals";
import { findKeysOfChords } from "../../harmony/keys";
import type { Rule } from "../rule";

/** The stated key loses by this much, and less than this share of the time lies in it, before it is contradicted (common practice). */
const MARGIN = 0.2;
const SHARE = 0.6;

export const keyContradicted: Rule = {
  id: "key-contradicted",
  title: "The stated key and the chords disagree",
  explanation:
    "The key that is written names the degrees, spells the notes and guides every suggestion. When most of the chords lie outside it and another key fits them clearly better, one of the two is wrong. A tonic that is only named in the other spelling (D sharp minor, E flat minor) is no contradiction.",
  source: "Krumhansl & Kessler 1982; common practice for the limits",
  scope: "section",
  reads: [],
  severity: { chorale: "warning", band: "warning", jazz: "note", loop: "warning" },
  find({ section, sliced, key }) {
    const chords = sliced.real.chords.flatMap((c) => (c.chord ? [{ chord: c.chord, duration: c.duration }] : []));
    if (chords.length < 3) return [];
    const keys = findKeysOfChords(chords);
    const best = keys[0]!;
    const stated = keys.find((k) => k.key === keyName(key));
    const total = chords.reduce((sum, c) => sum + c.duration, 0);
    const share = (pcs: readonly number[]) =>
      chords.reduce((sum, c) => sum + (chordPitchClasses(c.chord).every((pc) => pcs.includes(pc)) ? c.duration : 0), 0) / total;
    const inside = chords.reduce((sum, c) => sum + (isDiatonic(c.chord, key, true) ? c.duration : 0), 0) / total;
    // Modes other than major and minor have no profile: only the notes speak.
    if (inside >= SHARE || (stated && best.score - stated.score < MARGIN) || share(key.pcs) >= SHARE) return [];
    return [
      {
        tick: 0,
        duration: 0,
        parts: [],
        notes: [],
        measure: `${Math.round(inside * 100)} % of the time`,
        message: `${keyName(key)} is written, but only ${Math.round(inside * 100)} % of the chords' time lies in it; ${best.key} fits better${best.equal.length ? `, and so does ${best.equal[0]}` : ""}.`,
        fixes: section.key
          ? []
          : [best.key, ...best.equal.slice(0, 1)].map((k) => ({
              label: `Write the song in ${k}`,
              edit: { do: "setKey" as const, key: k },
            })),
      },
    ];
  },
};
