import { firstOf, sure } from "../../../../base/list";
import { instrumentOf } from "../../../../theory/instrument/instruments";
import { counted } from "../../../../theory/words/english";
import { intervalWords } from "../../../../theory/pitch/interval";
import { beatsText, positionText } from "../../../../theory/time/meter";
import { spellAt } from "../../../../song/spell";
import type { Midi } from "../../../../theory/pitch/pitch";
import { belowLimit } from "../../../../theory/motion/motion";
import { pairRoughness } from "../../../../theory/motion/roughness";
import { rangeOfPart } from "../../../../hear/singer/range";
import type { SliceNote } from "../../../../hear/slice/slices";
import type { CheckContext, Fix, RawFinding, Rule } from "../../rule";
import { partOf } from "../../../../song/document";
import { waysOut } from "../../ways/ways";

export const lowIntervals: Rule = {
  id: "low-intervals",
  title: "Close intervals too low",
  family: "vertical",
  explanation:
    "Close intervals turn to mud below a limit that depends on the interval: a minor third below C3, a fifth " +
    "below B flat 1. The lowest sounding pitches are judged where they last for a beat, whoever plays them: a " +
    "low piano that doubles the bass in octaves is one voice with it, one that plays a second beside it is " +
    "not. Roughness, the beating of partials, agrees: at its limit every interval is about as rough as any " +
    "other at its own, and rougher below; only a semitone is rough everywhere.",
  source: "low interval limits of arranging handbooks, which differ by a step; roughness after Sethares 1993",
  severity: { chorale: "warning", band: "warning", jazz: "note", loop: "warning" },
  find(ctx) {
    const { song, sliced, meter } = ctx;
    const found = new Map<string, RawFinding>();
    for (const slice of sliced.slices) {
      const pair = tooLow(slice.notes);
      if (!pair) continue;
      const { low, high, short } = pair;
      // A shape on a neck sounds as strings do: thin and plucked, never as thick as keys (common practice).
      const necked =
        instrumentOf(sure(song.parts.find((p) => p.id === high.part)).instrument, song).held.by === "frets";
      if (necked && (low.part === high.part || OPEN_STRINGS.has(high.note.midi - low.note.midi))) continue;
      // One finding for each pair of pitches under one chord tone, however often the lower one is struck.
      const id = `${low.note.midi}+${high.note.id}`;
      const known = found.get(id);
      if (known) {
        known.duration = (known.duration ?? 0) + slice.duration;
        if (!known.notes.includes(low.note.id)) known.notes.push(low.note.id);
        continue;
      }
      found.set(id, {
        tick: slice.start,
        duration: slice.duration,
        parts: [low.part, high.part],
        notes: [low.note.id, high.note.id],
        fixes: waysApart(ctx, low, high),
        amount: `${counted(short, "semitone")} too low`,
        message:
          `The ${intervalWords(high.note.midi - low.note.midi)} ${low.note.pitch}–${high.note.pitch} at ` +
          `${positionText(meter, slice.start)} lies below its limit; ` +
          `${roughnessText(low.note.midi, high.note.midi)}.`,
      });
    }
    // A passing tone of the bass is no color of the chord.
    const lasting = [...found.values()].filter((f) => sure(f.duration) >= firstOf(meter.beats).duration);
    const chances = sliced.real.chords.filter((x) => x.chord).length;
    return lasting.map((f) => ({ ...f, chances, amount: `${f.amount}, ${beatsText(meter, sure(f.duration))}` }));
  },
};

/** Unisons and octaves aside, the lowest two of the three lowest pitches that lie below the limit of their interval. */
function tooLow(notes: readonly SliceNote[]): { low: SliceNote; high: SliceNote; short: number } | null {
  const lowest = notes.filter((n, i) => n.note.midi !== notes[i - 1]?.note.midi).slice(0, 3);
  for (const [i, low] of lowest.entries()) {
    const high = lowest[i + 1];
    const short = high ? belowLimit(low.note.midi, high.note.midi) : 0;
    if (high && short) return { low, high, short };
  }
  return null;
}

/** A bass and the low strings of a guitar stand a fourth or a fifth apart wherever a band plays (common practice). */
const OPEN_STRINGS = new Set([5, 7]);

/** How much rougher an interval must be than in the middle for roughness to agree with the table. */
const ROUGHER = 1.3;
const MIDDLE = 60;

/** Whether roughness says the same as the table. */
function roughnessText(low: Midi, high: Midi): string {
  const times = pairRoughness(low, high) / pairRoughness(MIDDLE, MIDDLE + high - low);
  return times >= ROUGHER
    ? `it is ${times.toFixed(1)} times as rough as from C4`
    : "it is about as rough higher up: a semitone rubs anywhere";
}

/** The lowest string of a bass (E1). */
const LOWEST: Midi = 28;

/**
 * The upper note higher by as many octaves as it takes (a ninth may be too low where the second was), the lower one an
 * octave lower, or both as one voice: the upper note becomes the octave of the lower one.
 */
function waysApart(ctx: CheckContext, low: SliceNote, high: SliceNote): Fix[] {
  const [under, over] = [low.note.midi, high.note.midi];
  const up = [12, 24].find((n) => !belowLimit(under, over + n)) ?? 24;
  const octave = under + 12;
  const pitch = spellAt(ctx.song, ctx.section, Math.max(0, high.note.start), octave);
  const one = !high.note.chordId && low.part !== high.part && fits(ctx, high, octave);
  const deeper = !low.note.chordId && under - 12 >= LOWEST && !belowLimit(under - 12, over);
  return waysOut(ctx, {
    notes: [high.note, low.note],
    clear: (p) => p(low.note) < p(high.note) && !belowLimit(p(low.note), p(high.note)),
    ways: [
      ...(fits(ctx, high, over + up) ? [{ way: [{ note: high.note, midi: over + up }] }] : []),
      ...(deeper ? [{ way: [{ note: low.note, midi: under - 12 }] }] : []),
      ...(one
        ? [
            {
              way: [{ note: high.note, midi: octave }],
              label: `${high.note.pitch} to ${pitch}, the octave of ${low.note.pitch}`,
            },
          ]
        : []),
    ],
  });
}

function fits({ song }: CheckContext, { part }: SliceNote, midi: Midi): boolean {
  const [least, most] = rangeOfPart(song, sure(partOf(song, part))).extremes;
  return midi >= least && midi <= most;
}
