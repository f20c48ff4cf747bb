import { firstOf, sure } from "../base/list";
import type { PitchName } from "../theory/pitch/pitch";
import type { Ticks } from "../theory/time/meter";
import type { Matter, Waiver } from "./schema/song";

/** What a finding is about, without ids: its place in the section and the pitches concerned. */
export const aboutText = (tick: Ticks | string, pitches: readonly PitchName[]): string =>
  pitches.length ? `${tick}|${pitches.join(" ")}`.slice(0, 400) : String(tick);

/** Where a matter is, and its pitches: what `aboutText` has put into words. */
export function readAbout(about: string): { place: string; pitches: string[] } {
  const [place = "", pitches] = about.split("|");
  return { place, pitches: pitches ? pitches.split(" ") : [] };
}

/**
 * Whether a waiver covers a matter: its rule, its section or any, its parts or any, and the same thing, the same place
 * or anything; for as long as it was when it was left, where that is known.
 */
export function covers(waiver: Waiver, matter: Matter): boolean {
  const { place, pitches } = readAbout(waiver.about);
  return (
    waiver.rule === matter.rule &&
    (waiver.sectionId === undefined || waiver.sectionId === matter.sectionId) &&
    waiver.parts.every((p) => matter.parts.includes(p)) &&
    (waiver.duration === undefined || (matter.duration ?? 0) <= waiver.duration) &&
    (waiver.about === "" ||
      waiver.about === matter.about ||
      (!pitches.length && place === readAbout(matter.about).place))
  );
}

const encode = (texts: readonly string[]): string => texts.map(encodeURIComponent).join("+");

/** One text for a matter: the id of its finding. */
export const matterId = ({ rule, sectionId = "", parts, about }: Matter): string =>
  [encode([rule]), encode([sectionId]), encode(parts), encode([about])].join(":");

/** The matter an id stands for; null where the text is not such an id. */
export function matterOf(id: string): Matter | null {
  const fields = id.split(":");
  if (fields.length !== 4 || !fields[0]) return null;
  try {
    const [rule, section, parts, about] = fields.map((f) => f.split("+").map(decodeURIComponent));
    return {
      rule: firstOf(sure(rule)),
      ...(sure(section)[0] ? { sectionId: sure(section)[0] } : {}),
      parts: sure(parts).filter(Boolean),
      about: sure(about)[0] ?? "",
    };
  } catch {
    return null;
  }
}
