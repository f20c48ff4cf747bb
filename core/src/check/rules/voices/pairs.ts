import { counted } from "../../../words";
import { mod, type Midi } from "../../../pitch/pitch";
import { positionText } from "../../../time/meter";
import { chordPitchClasses } from "../../../chord/chord";
import { chordAtTick, type RealizedNote } from "../../../song/realize";
import type { Edit } from "../../../song/edits";
import type { Part } from "../../../song/schema";
import { isWritten } from "../../../song/document";
import { spellAt } from "../../../song/spell";
import { byVoice, pairReport, type Between, type BetweenKind } from "../../../line/between";
import { isSung, rangeOfPart } from "../../../singer/range";
import type { CheckContext, Fix, RawFinding } from "../../rule";

interface Line {
  part: Part;
  notes: readonly RealizedNote[];
}

/** Sung lines of a section, takes of one line once. */
function sungLines({ song, sliced, meter }: CheckContext): Line[] {
  const lines = song.parts
    .filter((p) => isSung(song, p) && isWritten(p) && !p.muted)
    .map((part): Line => ({ part, notes: sliced.real.parts.find((r) => r.id === part.id)?.notes ?? [] }))
    .filter((l) => l.notes.length);
  return byVoice(lines, { meter }).map(([first]) => first!);
}

/** Notes of a finding that are shown; what it is about names no more of them. */
const SHOWN = 16;
/** Places that its words name. */
const TOLD = 3;
/** How far a tone that mends may lie from the one that stands there. */
const NEAR = 7;

interface PairRule {
  kind: BetweenKind;
  /** Which places count; all where it is absent. */
  counts?(place: Between, ctx: CheckContext): boolean;
  /** "cross", "sing one note" … after the names of the two. */
  says: string;
  /** Words of one place. */
  at?(place: Between): string;
}

/** One finding for each pair of sung lines in which something happens, with all its places; the fixes move the lower line, here or everywhere. */
export function betweenVoices(ctx: CheckContext, rule: PairRule): RawFinding[] {
  const lines = sungLines(ctx);
  const ground = { meter: ctx.meter, chords: ctx.sliced.real.chords };
  return lines.flatMap((a, i) =>
    lines.slice(i + 1).flatMap((b): RawFinding[] => {
      const report = pairReport(a.notes, b.notes, ground);
      const places = report.places.filter((p) => p.kind === rule.kind && (rule.counts?.(p, ctx) ?? true));
      if (!places.length) return [];
      const [top, low] = report.above ? [a, b] : [b, a];
      const moves = places.flatMap((place) => clearOf(ctx, top, low, place, report.above) ?? []);
      const told = places.slice(0, TOLD).map((p) => `${positionText(ctx.meter, p.tick)}${rule.at ? ` (${rule.at(p)})` : ""}`);
      const more = places.length - told.length;
      return [
        {
          tick: places[0]!.tick,
          duration: places[0]!.duration,
          parts: [low.part.id, top.part.id],
          notes: [...new Set(places.flatMap((p) => [p.first.id, p.second.id]))].slice(0, SHOWN),
          message: `${top.part.name} and ${low.part.name} ${rule.says}: ${told.join("; ")}${more > 0 ? ` and ${more} more` : ""}.`,
          amount: counted(places.length, "place"),
          fixes: fixesOf(ctx, low, moves),
        },
      ];
    }),
  );
}

/** Another tone for the lower line where the two meet: the nearest one of the chord that leaves nothing between them there. */
function clearOf(ctx: CheckContext, top: Line, low: Line, place: Between, above: boolean): { note: RealizedNote; midi: Midi } | null {
  const note = above ? place.second : place.first;
  if (note.pinned) return null;
  const chord = chordAtTick(ctx.sliced.real.chords, Math.max(0, place.tick))?.chord;
  const pcs = chord ? chordPitchClasses(chord) : ctx.key.pcs;
  const [least, most] = rangeOfPart(ctx.song, low.part).extremes;
  const from = low.notes.indexOf(note);
  const own = low.notes.slice(Math.max(0, from - 1), from + 2);
  const end = own.at(-1)!.start + own.at(-1)!.duration;
  const other = top.notes.filter((n) => n.start < end && n.start + n.duration > own[0]!.start);
  const tones = Array.from({ length: 2 * NEAR + 1 }, (_, k) => note.midi - NEAR + k)
    .filter((m) => m !== note.midi && m >= least && m <= most && pcs.includes(mod(m, 12)))
    .sort((x, y) => Math.abs(x - note.midi) - Math.abs(y - note.midi));
  const clear = tones.find((midi) => {
    const tried = own.map((n) => (n === note ? { ...n, midi } : n));
    return !pairReport(other, tried, { meter: ctx.meter, chords: ctx.sliced.real.chords }).places.some(
      (p) => p.second.id === note.id || (p.kind === "parallel" && p.first.start <= end),
    );
  });
  return clear === undefined ? null : { note, midi: clear };
}

/** The first place, and all of them at once where there are more. */
function fixesOf({ song, section }: CheckContext, { part }: Line, moves: readonly { note: RealizedNote; midi: Midi }[]): Fix[] {
  const once = moves.filter((m, i) => moves.findIndex((x) => x.note === m.note) === i);
  const [first] = once;
  if (!first) return [];
  const pitch = (m: { note: RealizedNote; midi: Midi }) => spellAt(song, section, Math.max(0, m.note.start), m.midi);
  const edit = (list: typeof once): Edit => ({
    do: "changeNotes",
    section: section.id,
    part: part.id,
    notes: list.map((m) => ({ id: m.note.id, pitch: pitch(m) })),
  });
  return [
    { label: `${part.name.split(",")[0]} to ${pitch(first)}`, edit: edit([first]) },
    ...(once.length > 1 ? [{ label: `All ${once.length} places, each to the nearest clear tone of its chord`, edit: edit(once) }] : []),
  ];
}
