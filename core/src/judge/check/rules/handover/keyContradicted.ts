import { firstOf } from "../../../../base/list";
import { onceFor } from "../../../../base/once";
import { keyName } from "../../../../theory/pitch/key";
import { mod } from "../../../../theory/pitch/pitch";
import { isDiatonic } from "../../../../theory/chord/numerals";
import { findKeys, findKeysOfChords } from "../../../../hear/harmony/keys";
import type { Rule } from "../../rule";

/**
 * The stated key loses by this much, and less than this share of the time lies in it, before it is contradicted (common
 * practice).
 */
const MARGIN = 0.2;
const SHARE = 0.6;
/** Fewer notes than this say nothing about a key. */
const FEWEST = 8;

export const keyContradicted: Rule = {
  id: "key-contradicted",
  title: "The stated key and the chords disagree",
  family: "handover",
  explanation:
    "The key that is written names the degrees, spells the notes and guides every suggestion. When most of the " +
    "chords lie outside it and another key fits them clearly better, one of the two is wrong. A tonic that is " +
    "only named in the other spelling (D sharp minor, E flat minor) is no contradiction.",
  source: "Krumhansl & Kessler 1982; common practice for the limits",
  severity: { chorale: "warning", band: "warning", jazz: "note", loop: "warning" },
  find({ section, sliced, key }) {
    const { chords, ranked } = onceFor([sliced.real.chords], "keys", () => {
      const chords = sliced.real.chords.flatMap((c) => (c.chord ? [{ chord: c.chord, duration: c.duration }] : []));
      return { chords, ranked: chords.length < 3 ? [] : findKeysOfChords(chords) };
    });
    // With chords they decide; without, the notes do.
    const notes = chords.length < 3 ? sliced.real.parts.filter((p) => !p.linked).flatMap((p) => p.notes) : [];
    if (chords.length < 3 && notes.length < FEWEST) return [];
    const keys = chords.length < 3 ? findKeys(notes) : ranked;
    const best = firstOf(keys);
    const stated = keys.find((k) => k.key === keyName(key));
    const spans =
      chords.length < 3
        ? notes.map((n) => ({ inside: key.pcs.includes(mod(n.midi, 12)), duration: n.duration }))
        : chords.map((c) => ({ inside: isDiatonic(c.chord, key, true), duration: c.duration }));
    const sum = (list: typeof spans) => list.reduce((total, x) => total + x.duration, 0);
    const share = sum(spans.filter((x) => x.inside)) / sum(spans);
    // Modes other than major and minor have no profile: only the notes speak.
    if (share >= SHARE || (stated && best.score - stated.score < MARGIN)) return [];
    const percent = Math.round(share * 100);
    return [
      {
        tick: 0,
        duration: 0,
        parts: [],
        notes: [],
        amount: `${percent} % of the time`,
        message:
          `${keyName(key)} is written, but only ${percent} % of the ${chords.length < 3 ? "notes'" : "chords'"} ` +
          `time lies in it; ${best.key} fits better${best.equal.length ? `, and so does ${best.equal[0]}` : ""}.`,
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
