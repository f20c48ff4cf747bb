import { sure } from "../../../base/list";
import { mod, pitchClass } from "../../../theory/pitch/pitch";
import { chordSymbol, rootPc, toneName } from "../../../theory/chord/chord";
import { memberOf } from "../../../theory/chord/numerals";
import { hasColor, toggleColor, type Color } from "../../../theory/chord/modify";
import type { Technique } from "../technique";
import { has, mainNote, replacement } from "../tools";

export const color: Technique = {
  id: "color",
  title: "Seventh, ninth, thirteenth",
  explanation:
    "The same chord with more of the scale stacked on it: sevenths and ninths smooth, a thirteenth warms a dominant.",
  source: "common practice",
  adventure: 0.05,
  aim: "more",
  words: {
    add: "The same chord with its {what}: adds {note}, a note of the key",
    several: "The same chord with its {what}: adds {note}, notes of the key",
    sixth: "{sixth} instead of {seventh}: the tune rests on the root {root}, a semitone above the seventh",
  },
  propose(spot) {
    const { chord, key } = spot.here;
    if (chord.tones.some((t) => t.role === "b5")) return [];
    const tune = mainNote(spot);
    const onRoot = tune !== undefined && mod(tune.midi, 12) === rootPc(chord);
    const sixth = toggleColor(chord, "sixth", key);
    const under =
      onRoot && has(chord, "7") && !has(chord, "b3")
        ? replacement(spot, chordSymbol(sixth), "sixth", {
            params: {
              sixth: sure(memberOf(sixth, 6)).name,
              seventh: sure(memberOf(chord, 7)).name,
              root: chord.root,
            },
          })
        : [];
    const dominant = has(chord, "3") && has(chord, "b7");
    let wanted: Color[];
    if (hasColor(chord, "seventh")) {
      if (dominant) wanted = ["ninth", "thirteenth"];
      else wanted = ["ninth"];
    } else wanted = ["seventh", "ninth", "sixth"];
    return wanted
      .flatMap((what) => {
        if (hasColor(chord, what)) return [];
        const next = toggleColor(chord, what, key);
        const added = next.tones.filter((t) => !chord.tones.some((o) => o.role === t.role));
        // Only what the key has: a color should not need an excuse. Outside a dominant a flat ninth rubs.
        const names = added.map((t) => toneName(chord, t));
        if (!names.length || names.some((n) => !key.pcs.includes(pitchClass(n)))) return [];
        if (!dominant && added.some((t) => t.alter < 0 && t.degree > 7)) return [];
        if (what === "seventh" && onRoot && has(next, "7")) return [];
        return replacement(spot, chordSymbol(next), names.length > 1 ? "several" : "add", {
          params: {
            what,
            note: names.join(" and "),
          },
        });
      })
      .concat(under);
  },
};
