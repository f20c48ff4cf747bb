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
  switch (name) {
    case "style":
      return { way: part.role === "bass" && !part.link ? "bass" : "voicing", field: "style", value };
    case "reference":
      return { way: "drums", field: "reference", value };
    case "tuning":
      return tuningOf(song, part, value);
    // Two ways of playing used these names with different values.
    case "octaves":
    case "gate":
      return { way: typeof value === "number" ? "comp" : "bass", field: name, value };
    case "turn":
      return { way: "bass", field: "ending", value };
    case "density":
      return { way: "bass", field: name, value: within(value, 0, 1) };
    case "pitches":
      return { way: "bass", field: name, value: within(typeof value === "number" ? Math.round(value) : value, 1, 7) };
    default: {
      const found = Object.entries({ voicing: VOICING, comp: COMP, bass: BASS }).find(([, names]) =>
        names.includes(name),
      );
      return found ? { way: found[0] as Way, field: name, value } : null;
    }
  }
}

const within = (value: Value, low: number, high: number): Value =>
  typeof value === "number" ? Math.min(high, Math.max(low, value)) : value;

function tuningOf(song: Song1, part: Part1, value: Value): Place {
  const { held } = instrumentOf(part.instrument, song);
  const read = parseTuning(String(value), held.by === "frets" ? held.strings : firstOf(TUNINGS).strings);
  return read.ok ? { way: "voicing", field: "tuning", value: read.value } : null;
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
    let taken: boolean;
    if (weight) taken = putWeight(out.playing, nth(weight, 1), value);
    else if (section) taken = putInSection(out, section.id, place);
    else taken = place !== null && put(out.playing, place);
    if (!taken) out.unread[name] = value;
  }
  // Before there were more and fewer slides there was one check mark for them.
  if (typeof glides === "boolean") {
    if (out.playing.bass?.slides === undefined)
      put(out.playing, { way: "bass", field: "slides", value: glides ? "some" : "none" });
  } else if (glides !== undefined) out.unread.glides = glides;
  if (laysOut(part)) takeOver(song, out.playing);
  return out;
}

function putInSection({ bySection }: Sorted, section: string, place: Place): boolean {
  if (place?.way !== "bass") return false;
  const own = bySection.get(section) ?? {};
  const taken = put(own, place);
  if (taken) bySection.set(section, own);
  return taken;
}

/** What layouts were written for followed the profile and the mute button; now it is theirs. */
function takeOver(song: Song1, playing: Playing): void {
  const basses = song.parts.filter((p) => p.role === "bass");
  if (song.profile !== "band") playing.voicing = { ...playing.voicing, school: song.profile };
  if (basses.length && basses.every((p) => p.muted)) playing.voicing = { ...playing.voicing, over: "nothing" };
}
