import { sure } from "../../base/list";
import { fail, ok, type Result } from "../../base/result";
import type { Key } from "../../theory/pitch/key";
import type { Bpm, Meter, Ticks } from "../../theory/time/meter";
import type { Swing } from "../../theory/time/swing";
import { isSung } from "../../hear/singer/range";
import { partOf } from "../../song/document";
import { passPlace, placeKey } from "../../song/place";
import { realize, type RealizedSong } from "../../song/realize";
import type { Part, Pass, Song } from "../../song/schema";
import { engraveForm, type EngravedPass, type EngravingOptions } from "./engrave";

/**
 * How the form stands on paper: each section once with a road map, or pass by pass, what is repeated at once in repeat
 * signs.
 */
export const ORDERS = ["once", "through"] as const;
export type Order = (typeof ORDERS)[number];

/** One stretch of music on a page. */
export interface PageBlock {
  pass: string;
  name: string;
  /** How often it is played before the next one begins. */
  times: number;
  /** Number of its first bar, counted as printed. */
  first: number;
  bars: number;
  meter: Meter;
  /** As it sounds. */
  key: Key;
  tempo: Bpm;
  swing: Swing;
  chords: { start: Ticks; duration: Ticks; symbol: string }[];
}

export interface Pages {
  /** The passes in order, by name: the road map. */
  form: { name: string; times: number }[];
  blocks: PageBlock[];
  /** The blocks one after the other. */
  real: RealizedSong;
}

const ORDINALS = ["1st", "2nd", "3rd"];

/** A pass with nothing but what is different for some parts: for the others it is its section. */
function onlyAbout({ muted, playing, ...pass }: Pass, parts: readonly string[]): Pass {
  const out = muted?.filter((id) => parts.includes(id)) ?? [];
  const ways = Object.entries(playing ?? {}).filter(([id]) => parts.includes(id));
  return {
    ...pass,
    ...(out.length ? { muted: out } : {}),
    ...(ways.length ? { playing: Object.fromEntries(ways) } : {}),
  };
}

/**
 * The music of a song as it stands on pages; with `about`, what is different for other parts makes no page different.
 * Names of passes that differ from the first one of their section say which time it is.
 */
export function pagesOf(song: Song, order: Order, about?: readonly string[]): Pages {
  const whole: Pass[] = song.form.length ? song.form : song.sections.map((s) => ({ id: s.id, sectionId: s.id }));
  const form = about ? whole.map((p) => onlyAbout(p, about)) : whole;
  const laid = { ...song, form };
  const nth = new Map<string, number>();
  const firsts = new Map<string, string>();
  const names = new Map<string, string>();
  const passes = form.map((pass) => {
    const place = placeKey(passPlace(laid, pass.id));
    const time = (nth.get(pass.sectionId) ?? 0) + 1;
    nth.set(pass.sectionId, time);
    const section = sure(song.sections.find((s) => s.id === pass.sectionId));
    if (!names.has(place)) {
      const first = firsts.get(pass.sectionId);
      const plain = first === undefined || first === place;
      names.set(
        place,
        pass.name ?? (plain ? section.name : `${section.name}, ${ORDINALS[time - 1] ?? `${time}th`} time`),
      );
    }
    if (!firsts.has(pass.sectionId)) firsts.set(pass.sectionId, place);
    return { pass, place, name: pass.name ?? sure(names.get(place)) };
  });
  const runs: ((typeof passes)[number] & { times: number })[] = [];
  for (const p of passes) {
    const last = runs.at(-1);
    if (last?.place === p.place) last.times++;
    else runs.push({ ...p, times: 1 });
  }
  const known = new Set<string>();
  const chosen =
    order === "through"
      ? runs
      : runs.filter((r) => !known.has(r.place) && known.add(r.place)).map((r) => ({ ...r, times: 1 }));
  const real = realize({ ...laid, form: chosen.map((c) => c.pass) });
  let first = 1;
  const blocks = real.sections.map((s, i): PageBlock => {
    const { name, times } = sure(chosen[i]);
    const block = {
      pass: s.pass,
      name,
      times,
      first,
      bars: s.bars,
      meter: s.meter,
      key: s.key,
      tempo: s.tempo,
      swing: s.swing,
      chords: real.chords
        .filter((c) => c.pass === s.pass)
        .map((c) => ({ start: c.start - s.start, duration: c.duration, symbol: c.symbol })),
    };
    first += s.bars;
    return block;
  });
  return { form: runs.map(({ name, times }) => ({ name, times })), blocks, real };
}

/** A part block by block. Errors: `notation.place`. */
export const engraveBlocks = (
  song: Song,
  pages: Pages,
  partId: string,
  options: Omit<EngravingOptions, "apart"> = {},
): Result<EngravedPass[]> =>
  partOf(song, partId)
    ? engraveForm(song, pages.real, partId, { ...options, apart: true })
    : fail("notation.place", `No part "${partId}"`);

/**
 * The part that a lead sheet shows: the first melody that has notes, else the first that is sung, else the first that
 * has notes. Errors: `notation.tune`.
 */
export function tunePart(song: Song): Result<Part> {
  const has = (part: Part) => song.sections.some((s) => (s.notes[part.id]?.length ?? 0) > 0);
  const found =
    song.parts.find((p) => p.role === "melody" && has(p)) ??
    song.parts.find((p) => p.role !== "drums" && isSung(song, p) && has(p)) ??
    song.parts.find((p) => p.role !== "drums" && has(p));
  return found
    ? ok(found)
    : fail("notation.tune", "No part has notes for a lead sheet", { hint: "Write a tune in Lines." });
}
