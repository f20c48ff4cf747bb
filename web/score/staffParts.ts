import {
  type Drum,
  type EngravedPart,
  firstOf,
  Instrument,
  Notation,
  type Part,
  Pitch,
  type Song,
} from "../../core/src/index";
import { symbolWidth } from "./svg";
import type { SheetSymbol } from "./sheet";
import type { StaffPart } from "./rows";

/** A part of a section as it is drawn; null where there is nothing to draw. */
export function staffPart(song: Song, section: string, part: Part, written: boolean): StaffPart | null {
  const engraved = Notation.engrave(song, section, part.id, { written });
  if (!engraved.ok) return null;
  const drums = song.sections.find((s) => s.id === section)?.groove.lanes.filter((l) => l.hits.length) ?? [];
  return part.role === "drums" && !drums.length
    ? null
    : drawnAs(song, part, engraved.value, { place: { kind: "section", id: section }, hits: drums });
}

/** What stands under or beside the staves of a part: strings and frets, the legend of its drums. */
export function drawnAs(
  song: Song,
  part: Part,
  engraved: EngravedPart,
  {
    place,
    hits,
    notes = true,
  }: { place: Parameters<typeof Notation.tablature>[1]; hits: readonly { drum: Drum }[]; notes?: boolean | undefined },
): StaffPart {
  if (part.role === "drums") {
    const legend = Notation.legend(hits);
    return {
      ...engraved,
      ...(legend.length ? { legend: `from below: ${legend.map((d) => d.title).join(", ")}` } : {}),
    };
  }
  const tab = notes ? Notation.tablature(song, place, part, firstOf(engraved.staves)) : null;
  return { ...engraved, ...(tab ? { tab } : {}) };
}

/** Capo and tuning of a fretted part, as they stand above its strings; nothing where they are the usual ones. */
export function stringsText(song: Song, part: Part): string {
  const { capo, tuning } = part.playing.voicing ?? {};
  if (Instrument.of(part.instrument, song).held.by !== "frets") return "";
  return [
    ...(capo ? [`capo ${capo}`] : []),
    ...(tuning?.length ? [`tuning ${tuning.map((t) => Pitch.typeset(t.replace(/-?\d+$/, ""))).join(" ")}`] : []),
  ].join(", ");
}

export const sheetSymbols = (
  chords: readonly { start: number; symbol: string }[],
  name: (symbol: string) => string,
): SheetSymbol[] => chords.map((c) => ({ start: c.start, width: symbolWidth(name(c.symbol)), text: name(c.symbol) }));
