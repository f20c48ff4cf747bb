import { mod, noteOf, pitchMidi } from "../../../../theory/pitch/pitch";
import { beatsText, positionText } from "../../../../theory/time/meter";
import { bassPc, chordPitchClasses, chordToneName } from "../../../../theory/chord/chord";
import { firstOf } from "../../../../base/list";
import type { SliceNote } from "../../../../hear/slice/slices";
import { partOf } from "../../../../song/document";
import { spellAt } from "../../../../song/spell";
import type { CheckContext, Fix, RawFinding, Rule } from "../../rule";
import { waysOut } from "../../ways/ways";
import { harmoniesOf, type Harmony } from "./harmony";

/** Share of a chord's time for which its written bass must be the lowest for the inversion to be as written. */
const SHARE = 0.5;

export const writtenBass: Rule = {
  id: "written-bass",
  title: "The written bass is not the lowest",
  family: "vertical",
  explanation:
    "The symbol names the lowest note: the root, or the one after the stroke. Where another tone of the chord lies " +
    "lowest as it begins and for most of its time, another inversion is heard than is written. A bass that only " +
    "walks through the chord after its first note is as written.",
  source: "common practice of chord symbols; Kostka & Payne, Tonal Harmony (inversions)",
  severity: { chorale: "warning", band: "warning", jazz: "note", loop: "note" },
  find(ctx) {
    const basses = new Set(ctx.song.parts.filter((p) => p.role === "bass").map((p) => p.id));
    return harmoniesOf(ctx).flatMap((harmony): RawFinding[] => {
      const low = otherBass(harmony, basses);
      if (!low) return [];
      const { written } = harmony;
      const slash = written.symbol.includes("/");
      const wanted = chordToneName(written.chord, bassPc(written.chord)) ?? written.chord.bass ?? written.chord.root;
      return [
        {
          tick: written.start,
          duration: written.duration,
          parts: [low.part],
          notes: [low.note.id],
          message:
            `${written.symbol} at ${positionText(ctx.meter, written.start)} has ${wanted} as its bass, but ` +
            `${noteOf(low.note.pitch)} of ${partOf(ctx.song, low.part)?.name ?? "a part"} lies lowest.`,
          amount: beatsText(ctx.meter, written.duration),
          chances: harmoniesOf(ctx).length,
          // A root that is turned over is an inversion; a bass that was asked for by name is more.
          lighter: slash ? 0 : 1,
          fixes: [...lowered(ctx, harmony, low), ...renamed(ctx, harmony, low)],
        },
      ];
    });
  },
};

/** The note that lies lowest at the beginning of a chord and for most of its time, where it is not the written bass. */
function otherBass({ written, slices, harmonic }: Harmony, bassParts: ReadonlySet<string>): SliceNote | null {
  const begins = slices.find((s) => s.start === written.start);
  const low = begins?.notes[0];
  const wanted = bassPc(written.chord);
  const slash = written.symbol.includes("/");
  if (!low || mod(low.note.midi, 12) === wanted) return null;
  // A bass that sounds alone makes no inversion.
  if (!slash && !harmonic.length) return null;
  const withBass = slices.some((s) => s.notes.some((n) => bassParts.has(n.part)));
  // Without a bass the chord stands for itself, unless the bass is asked for by name.
  if (withBass ? !bassParts.has(low.part) : !slash) return null;
  // What is no tone of the chord is told as a foreign note.
  if (!slash && !chordPitchClasses(written.chord).includes(mod(low.note.midi, 12))) return null;
  const sounding = slices.filter((s) => s.notes.length > 0);
  const right = sounding.filter((s) => mod(firstOf(s.notes).note.midi, 12) === wanted);
  const time = (list: typeof slices) => list.reduce((sum, s) => sum + s.duration, 0);
  return time(right) < SHARE * time(sounding) ? low : null;
}

/** So many of the notes above could go below it instead. */
const ABOVE = 2;

/** The lowest note goes to the written bass, or one above that has it goes below. */
function lowered(ctx: CheckContext, { written, slices }: Harmony, low: SliceNote): Fix[] {
  const begins = slices.find((s) => s.start === written.start)?.notes ?? [];
  const wanted = bassPc(written.chord);
  return waysOut(ctx, {
    notes: [low.note],
    later: begins.slice(1, ABOVE + 1).map((n) => n.note),
    clear(p) {
      const lowest = Math.min(...begins.map((n) => p(n.note)));
      return mod(lowest, 12) === wanted && (p(low.note) === low.note.midi || p(low.note) === lowest);
    },
  });
}

/** Or the symbol says what sounds. */
function renamed({ song, section }: CheckContext, { written }: Harmony, { note }: SliceNote): Fix[] {
  const upper = written.symbol.split("/")[0];
  const bass = noteOf(spellAt(song, section, written.start, pitchMidi(note.pitch)));
  const symbol =
    mod(note.midi, 12) === mod(bassPc({ ...written.chord, bass: written.chord.root }), 12) ? upper : `${upper}/${bass}`;
  if (!symbol) return [];
  return [{ label: `Write ${symbol}`, edit: { do: "setChord", section: section.id, chord: written.id, symbol } }];
}
