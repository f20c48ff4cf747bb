import { firstOf, nth, sure } from "../../base/list";
import type { z } from "zod";
import { parseTuning, TUNINGS } from "../../theory/chord/frets";
import { COMP_KINDS } from "../comp/kinds";
import { instrumentOf } from "../../theory/instrument/instruments";
import { VOICING_TERMS, WAYS, type Playing, type Way } from "../schema/playing";
import type { Part1, Song1 } from "./version1";

/**
 * A part's bag of settings, sorted into its own playing, that of single sections (by section), and what no setting has
 * a name for.
 */
export interface Sorted {
  playing: Playing;
  bySection: Map<string, Playing>;
  unread: Record<string, string | number | boolean>;
}

type Value = string | number | boolean;
/** Where a name of the bag goes, and its value there; null where version 1 read nothing under it. */
type Place = { way: Way; field: string; value: unknown } | null;

const VOICING = ["voices", "register", "topShape", "hands", "span", "capo"];
const COMP = [
  "rhythm",
  "follow",
  "anticipate",
  "gate",
  "lift",
  "notes",
  "step",
  "way",
  "gap",
  "strum",
  "strumWay",
  "slope",
  "human",
  "seed",
];
const BASS = [
  "length",
  "gate",
  "rests",
  "octaves",
  "slides",
  "lock",
  "overMajor",
  "overMinor",
  "melody",
  "ownFigure",
  "variation",
  "low",
  "high",
];

/** Parts that the voicing path lays out. */
const laysOut = (part: Part1): boolean =>
  part.link !== undefined && !part.link.from && COMP_KINDS.some((k) => k.id === sure(part.link).kind && k.voices);

function placeOf(song: Song1, part: Part1, name: string, value: Value): Place {
  const writesBass = part.role === "bass" && !part.link;
  if (name === "style") return { way: writesBass ? "bass" : "voicing", field: "style", value };
  if (name === "reference") return { way: "drums", field: "reference", value };
  if (name === "tuning") {
    const { held } = instrumentOf(part.instrument, song);
    const read = parseTuning(String(value), held.by === "frets" ? held.strings : firstOf(TUNINGS).strings);
    return read.ok ? { way: "voicing", field: "tuning", value: read.value } : null;
  }
  if (name === "density" && typeof value === "number")
    return { way: "bass", field: name, value: Math.min(1, Math.max(0, value)) };
  if (name === "pitches" && typeof value === "number")
    return { way: "bass", field: name, value: Math.min(7, Math.max(1, Math.round(value))) };
  // Two ways of playing used these names with different values.
  if (name === "octaves") return { way: typeof value === "number" ? "comp" : "bass", field: name, value };
  if (name === "gate") return { way: typeof value === "number" ? "comp" : "bass", field: name, value };
  if (name === "turn") return { way: "bass", field: "ending", value };
  if (VOICING.includes(name)) return { way: "voicing", field: name, value };
  if (COMP.includes(name)) return { way: "comp", field: name, value };
  return BASS.includes(name) ? { way: "bass", field: name, value } : null;
}

/** Puts a value where it belongs; false where the schema does not take it. */
function put(playing: Playing, place: NonNullable<Place>): boolean {
  const field = (WAYS[place.way].shape as Record<string, z.ZodType>)[place.field];
  const parsed = field?.safeParse(place.value);
  if (!parsed?.success) return false;
  (playing as Record<Way, Record<string, unknown>>)[place.way] = { ...playing[place.way], [place.field]: parsed.data };
  return true;
}

const WEIGHT = /^w\.(.+)$/;

function putWeight(playing: Playing, term: string, value: Value): boolean {
  const known = VOICING_TERMS.find((t) => t === term);
  if (!known || typeof value !== "number" || value < 0 || value > 100) return false;
  playing.voicing = { ...playing.voicing, weights: { ...playing.voicing?.weights, [known]: value } };
  return true;
}

/** Sorts the settings of one part of version 1. Section by section (`density@s1`) only a bass was read. */
export function sortSettings(song: Song1, part: Part1): Sorted {
  const out: Sorted = { playing: {}, bySection: new Map(), unread: {} };
  const { glides, ...bag } = part.settings;
  for (const [name, value] of Object.entries(bag)) {
    const weight = WEIGHT.exec(name);
    const at = name.lastIndexOf("@");
    const section = at > 0 ? song.sections.find((s) => s.id === name.slice(at + 1)) : undefined;
    const place = placeOf(song, part, section ? name.slice(0, at) : name, value);
    let taken = false;
    if (weight) taken = putWeight(out.playing, nth(weight, 1), value);
    else if (!section) taken = place !== null && put(out.playing, place);
    else if (place?.way === "bass") {
      const own = out.bySection.get(section.id) ?? {};
      taken = put(own, place);
      if (taken) out.bySection.set(section.id, own);
    }
    if (!taken) out.unread[name] = value;
  }
  // Before there were more and fewer slides there was one check mark for them.
  if (typeof glides === "boolean") {
    if (out.playing.bass?.slides === undefined)
      put(out.playing, { way: "bass", field: "slides", value: glides ? "some" : "none" });
  } else if (glides !== undefined) out.unread.glides = glides;
  if (laysOut(part)) {
    // What layouts were written for followed the profile and the mute button; now it is theirs.
    const basses = song.parts.filter((p) => p.role === "bass");
    if (song.profile !== "band") out.playing.voicing = { ...out.playing.voicing, school: song.profile };
    if (basses.length && basses.every((p) => p.muted))
      out.playing.voicing = { ...out.playing.voicing, over: "nothing" };
  }
  return out;
}
