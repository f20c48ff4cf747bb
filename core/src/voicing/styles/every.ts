import type { RawVoicing, VoicingStyle } from "../style";
import { close } from "./close";
import { drop2 } from "./drop2";
import { drop24 } from "./drop24";
import { drop3 } from "./drop3";
import { keyboard } from "./keyboard";
import { open } from "./open";
import { quartal } from "./quartal";
import { rootlessAny } from "./rootless";
import { shell } from "./shell";
import { spread } from "./spread";
import { upperStructure } from "./upperStructure";

const ALL: readonly VoicingStyle[] = [keyboard, close, open, drop2, drop3, drop24, spread, shell, rootlessAny, quartal, upperStructure];

export const every: VoicingStyle = {
  id: "every",
  title: "Every keyboard style",
  explanation: "All layouts of all styles for the keyboard at once; the path changes between them wherever that is cheaper.",
  source: "common practice",
  candidates(chord, limits) {
    const seen = new Map<string, RawVoicing>();
    for (const style of ALL)
      for (const v of style.candidates(chord, limits)) {
        const id = v.pitches.join();
        const known = seen.get(id);
        if (!known || known.missing + known.doubling > v.missing + v.doubling) seen.set(id, v);
      }
    return [...seen.values()].sort((a, b) => a.pitches[0]! - b.pitches[0]! || a.pitches.at(-1)! - b.pitches.at(-1)!);
  },
};
