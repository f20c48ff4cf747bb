import { firstOf } from "../../../../base/list";
import { onceFor } from "../../../../base/once";
import { keyName } from "../../../../theory/pitch/key";
import { inSentence, percent, withArticle } from "../../../../theory/words/english";
import { mod } from "../../../../theory/pitch/pitch";
import { intervalWords } from "../../../../theory/pitch/interval";
import { spellAt } from "../../../../song/spell";
import { pitchMidi } from "../../../../theory/pitch/pitch";
import { isWritten } from "../../../../song/document";
import { instrumentOf } from "../../../../theory/instrument/instruments";
import { rangeOfPart } from "../../../../hear/singer/range";
import type { Part } from "../../../../song/schema";
import type { RealizedNote } from "../../../../song/realize";
import type { CheckContext, RawFinding, Rule } from "../../rule";
import { chordOfLine, pcsOf } from "../lines";

/**
 * Shares of a part's time on chord tones: less than this as it stands, and more than that when moved, and it is in
 * another key (common practice).
 */
const WRONG = 0.4;
const RIGHT = 0.75;
const IN_KEY = 0.9;
const FEWEST = 8;

export const oldKey: Rule = {
  id: "old-key",
  title: "A part in another key than the chords",
  family: "handover",
  explanation:
    "Most notes of the part are foreign to the chords, and moved by one interval nearly all of them fit: it " +
    "was left behind when the song was moved, or the notes of a transposing instrument were entered as the " +
    "player reads them rather than as they sound.",
  source: "common practice",
  severity: { chorale: "warning", band: "warning", jazz: "warning", loop: "warning" },
  heard: 3,
  find: (ctx) =>
    displacedIn(ctx).map(({ part, notes, now, best }): RawFinding => {
      const instrument = instrumentOf(part.instrument, ctx.song);
      const asRead = instrument.transposition !== 0 && mod(best.by - instrument.transposition, 12) === 0;
      const way = `${intervalWords(Math.abs(best.by))} ${best.by < 0 ? "lower" : "higher"}`;
      return {
        tick: firstOf(notes).start,
        duration: firstOf(notes).duration,
        parts: [part.id],
        notes: notes.map((n) => n.id),
        message:
          `${part.name}: only ${percent(now.chord)} of its time fits the chords; a ${way} it would be ` +
          `${percent(best.chord)}.${
            asRead
              ? ` That is how the player of ${withArticle(inSentence(instrument.title))} reads it; it sounds a ` +
                `${way}.`
              : ""
          }`,
        amount: `${best.by > 0 ? "+" : "−"}${Math.abs(best.by)} semitones`,
        fixes: [
          {
            label: `All of it a ${way}`,
            edit: {
              do: "changeNotes",
              section: ctx.section.id,
              part: part.id,
              notes: (ctx.section.notes[part.id] ?? []).map((n) => ({
                id: n.id,
                pitch: spellAt(ctx.song, ctx.section, Math.max(0, n.start), pitchMidi(n.pitch) + best.by),
              })),
            },
          },
        ],
      };
    }),
};

/**
 * Parts whose notes are foreign to the chords as they stand and fit them when moved: what else is found in them follows
 * from that.
 */
export const inOtherKey = (ctx: CheckContext): Set<string> => new Set(displacedIn(ctx).map((d) => d.part.id));

interface Displaced {
  part: Part;
  notes: RealizedNote[];
  now: Fit;
  best: Fit & { by: number };
}

const displacedIn = (ctx: CheckContext): Displaced[] =>
  ctx.song.parts
    .filter((p) => isWritten(p))
    .flatMap((part): Displaced[] => {
      const own = ctx.sliced.real.parts.find((p) => p.id === part.id)?.notes ?? [];
      const [low, high] = rangeOfPart(ctx.song, part).extremes;
      const found = onceFor([own, ctx.sliced.real.chords], `displaced ${keyName(ctx.key)} ${low} ${high}`, () =>
        displaced(ctx, own, [low, high]),
      );
      return found ? [{ part, ...found }] : [];
    });

function displaced(
  ctx: CheckContext,
  own: readonly RealizedNote[],
  [low, high]: readonly [number, number],
): Omit<Displaced, "part"> | null {
  const notes = own.filter((n) => pcsOf(chordOfLine(ctx, n.start)).length > 0);
  if (notes.length < FEWEST || new Set(notes.map((n) => mod(n.midi, 12))).size < 3) return null;
  const now = fit(ctx, notes, 0);
  if (now.chord >= WRONG) return null;
  const best = Array.from({ length: 13 }, (_, i) => i - 6)
    .filter((by) => by !== 0 && notes.every((n) => n.midi + by >= low && n.midi + by <= high))
    .map((by) => ({ by, ...fit(ctx, notes, by) }))
    .filter((f) => f.chord >= RIGHT && f.key >= IN_KEY)
    .sort((a, b) => b.chord - a.chord)[0];
  return best ? { notes, now, best } : null;
}

interface Fit {
  chord: number;
  key: number;
}

/** Shares of the time of notes, moved by so many semitones, on chord tones and inside the key. */
function fit(ctx: CheckContext, notes: readonly RealizedNote[], by: number): Fit {
  let [all, chord, key] = [0, 0, 0];
  for (const n of notes) {
    const pc = mod(n.midi + by, 12);
    const pcs = pcsOf(chordOfLine(ctx, n.start));
    all += n.duration;
    if (pcs.includes(pc)) chord += n.duration;
    if (pcs.includes(pc) || ctx.key.pcs.includes(pc)) key += n.duration;
  }
  return { chord: chord / all, key: key / all };
}
