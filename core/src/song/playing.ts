import { isObject } from "../base/plain";
import type { Part, Pass, Section } from "./schema/song";
import type { Playing, PlayingOf, Way } from "./schema/playing";

/** Where something is played: in a section, in one pass of it, or anywhere. */
export interface Where {
  section?: Section | undefined;
  pass?: Pass | undefined;
}

/** Who says how something is played. */
export type Level = "part" | "section" | "pass";

const layers = (part: Part, { section, pass }: Where): [Level, Playing | undefined][] => [
  ["part", part.playing],
  ["section", section?.playing?.[part.id]],
  ["pass", pass?.playing?.[part.id]],
];

/**
 * How a part plays: its own values, over them those of the section, over them those of the pass. Weights are inherited
 * one by one.
 */
export function playingOf<W extends Way>(part: Part, way: W, where: Where = {}): PlayingOf<W> {
  return layers(part, where).reduce<Values>((out, [, playing]) => laidOver(out, playing?.[way]), {}) as PlayingOf<W>;
}

/** All ways of playing of one level over those of another. */
export function playingOver(under: Playing | undefined, over: Playing): Playing {
  const out: Record<string, Values | undefined> = { ...under };
  for (const [way, values] of Object.entries(over)) out[way] = laidOver(out[way], values);
  return out as Playing;
}

type Values = Record<string, unknown>;

/** Values over others; weights go one by one. */
function laidOver(under: Values = {}, over: Values = {}): Values {
  const out = { ...under };
  for (const [name, value] of Object.entries(over)) {
    const known = out[name];
    out[name] = isObject(value) && isObject(known) ? { ...known, ...value } : value;
  }
  return out;
}

/** The nearest level that has a value of its own; null where the usual one is taken. */
export function ownerOf<W extends Way>(part: Part, way: W, name: keyof PlayingOf<W>, where: Where = {}): Level | null {
  return (
    layers(part, where).findLast(
      ([, playing]) => (playing?.[way] as PlayingOf<W> | undefined)?.[name] !== undefined,
    )?.[0] ?? null
  );
}
