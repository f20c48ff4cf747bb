import { firstOf, lastOf } from "../../../base/list";
import type { RawVoicing, VoicingStyle } from "../style";

/** All of the given styles at once. */
export const everyOf = (styles: readonly VoicingStyle[]): VoicingStyle => ({
  id: "every",
  title: "Every keyboard style",
  explanation:
    "All layouts of all styles for the keyboard at once; the path changes between them wherever that is cheaper.",
  source: "common practice",
  candidates(chord, limits) {
    const seen = new Map<string, RawVoicing>();
    for (const style of styles)
      // Colors that the symbol does not name belong to a style that is chosen for them.
      for (const v of style.candidates(chord, { ...limits, scale: [] })) {
        const id = v.pitches.join();
        const known = seen.get(id);
        if (!known || known.missing + known.doubling > v.missing + v.doubling) seen.set(id, v);
      }
    return [...seen.values()].sort(
      (a, b) => firstOf(a.pitches) - firstOf(b.pitches) || lastOf(a.pitches) - lastOf(b.pitches),
    );
  },
});
