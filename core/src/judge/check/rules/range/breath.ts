import { firstOf, sure } from "../../../../base/list";
import { counted } from "../../../../theory/words/english";
import { positionText, type Meter, type Ticks } from "../../../../theory/time/meter";
import { breathsOf } from "../../../../hear/singer/breaths";
import { isSung, singerOf, USUAL_BREATH } from "../../../../hear/singer/range";
import { instrumentOf, type SoundKind } from "../../../../theory/instrument/instruments";
import type { Part } from "../../../../song/schema";
import { isWritten } from "../../../../song/document";
import type { RealizedNote } from "../../../../song/realize";
import { endOf } from "../lines";
import type { CheckContext, RawFinding, Rule } from "../../rule";

export const breath: Rule = {
  id: "breath",
  title: "No place to breathe",
  family: "range",
  explanation:
    "A stretch without a rest that is longer than one breath of its singer, eight seconds where none was measured, " +
    "or of its player: ten seconds on flute and brass, twelve on reeds. The fix ends notes early at the ends of " +
    "words, as few as will do.",
  source: "common practice",
  severity: { chorale: "warning", band: "warning", jazz: "warning", loop: "note" },
  find: (ctx) => sungTogether(phrasesOf(ctx)),
};

/** Voices that sing the same stretch without a rest are one matter. */
function sungTogether(found: readonly RawFinding[]): RawFinding[] {
  const groups = new Map<string, RawFinding[]>();
  for (const f of found) groups.set(`${f.tick}:${f.duration}`, [...(groups.get(`${f.tick}:${f.duration}`) ?? []), f]);
  return [...groups.values()].map((same) => {
    const [first, ...others] = same;
    if (!others.length) return sure(first);
    const firsts = same.flatMap((f) => f.fixes[0] ?? []);
    return {
      ...sure(first),
      parts: same.flatMap((f) => f.parts),
      notes: same.flatMap((f) => f.notes),
      message: `${sure(first).message} So does everyone who sings with it.`,
      fixes:
        firsts.length === same.length
          ? [
              {
                label: firstOf(firsts).label,
                edit: { do: "all", label: "breathe together", edits: firsts.map((f) => f.edit) },
              },
            ]
          : [],
    };
  });
}

/** A note so many times as long as the line's usual one, and two beats at least, ends a phrase (common practice). */
const ENDS = 2;

/**
 * The longest stretch between the ends of phrases: at the end of a clause one breathes without a rest that is written,
 * and in a chorale after the long note that ends each line.
 */
function longest(notes: readonly RealizedNote[], meter: Meter, chorale: boolean): Ticks {
  const usual = [...notes].map((n) => n.duration).sort((a, b) => a - b)[Math.floor(notes.length / 2)] ?? 0;
  const least = Math.max(ENDS * usual, 2 * firstOf(meter.beats).duration);
  let [from, most] = [notes[0]?.start ?? 0, 0];
  for (const n of notes) {
    most = Math.max(most, endOf(n) - from);
    if ((chorale && n.duration >= least) || /[,.;:!?–]["”’)]*$/.test(n.lyric ?? "")) from = endOf(n);
  }
  return most;
}

/** Sounds that are made with breath, and how long one of them lasts at ease, in seconds (common practice). */
const BLOWN: Partial<Record<SoundKind, number>> = { flute: 10, reed: 12, brass: 10 };

/** How long a part can go on in one breath; null where it needs none. */
function breathOf({ song }: CheckContext, part: Part): number | null {
  if (isSung(song, part)) return singerOf(song, part.id)?.breath ?? USUAL_BREATH;
  return part.role === "drums" ? null : (BLOWN[instrumentOf(part.instrument, song).sound] ?? null);
}

/** So many places to breathe are named; of more the first ones, and how many there are. */
const NAMED = 3;

const breathing = (places: readonly string[]): string =>
  `Breathe ${places.slice(0, NAMED).join("; ")}` +
  (places.length > NAMED ? `; and at ${counted(places.length - NAMED, "more place")}` : "");

const phrasesOf = (ctx: CheckContext): RawFinding[] =>
  ctx.song.parts
    .filter((p) => isWritten(p) && breathOf(ctx, p) !== null)
    .flatMap((part): RawFinding[] => {
      const { song, section, meter, sliced } = ctx;
      const most = breathOf(ctx, part) ?? USUAL_BREATH;
      // Read, so that the rule runs again when the line changes.
      const notes = sliced.real.parts.find((p) => p.id === part.id)?.notes ?? [];
      const found = notes.length ? breathsOf(song, { section: section.id, part: part.id, breath: most }) : null;
      if (!found?.ok) return [];
      return found.value
        .filter((p) => p.long && (!p.breaths.length || p.breaths.some((b) => b.edit)))
        .filter(
          (p) =>
            longest(
              notes.filter((n) => n.start >= p.start && n.start < p.end),
              meter,
              song.profile === "chorale",
            ) >
            (p.end - p.start) * (most / p.seconds),
        )
        .map((p) => ({
          tick: p.start,
          duration: p.end - p.start,
          parts: [part.id],
          notes: notes.filter((n) => n.start >= p.start && n.start < p.end).map((n) => n.id),
          message:
            `${part.name} ${isSung(song, part) ? "sings" : "plays"} for ${p.seconds.toFixed(1)} s from ` +
            `${positionText(meter, p.start)} without a rest; one breath is ${most} s.`,
          amount: `${p.seconds.toFixed(1)} s`,
          fixes: p.breaths.some((b) => b.edit)
            ? [
                {
                  label: breathing(p.breaths.filter((b) => b.edit).map((b) => b.words)),
                  edit: { do: "all" as const, label: "breathe", edits: p.breaths.flatMap((b) => b.edit ?? []) },
                },
              ]
            : [],
        }));
    });
