import { mod, pitchMidi } from "../../../../theory/pitch/pitch";
import { firstOf, lastOf } from "../../../../base/list";
import { beatsText, positionText } from "../../../../theory/time/meter";
import { rootPc, toneName, type ChordTone } from "../../../../theory/chord/chord";
import { ROLE_WORDS } from "../../../../hear/slice/roles";
import { spellAt } from "../../../../song/spell";
import type { CheckContext, Fix, RawFinding, Rule } from "../../rule";
import type { RealizedNote } from "../../../../song/realize";
import { waysOut } from "../../ways/ways";
import { linesOf, noteAt } from "../lines";
import { harmoniesOf, type Harmony } from "./harmony";
import { contradictedIn } from "./otherChord";

/** So many notes at once could hold the chord. */
const ENOUGH = 3;

/**
 * The tone a chord cannot do without that nobody has: its third, in jazz its seventh too. A fourth in its place, or one
 * a semitone beside it, makes another chord, and is told there.
 */
function lacks(ctx: CheckContext, { written, slices, timeOf }: Harmony): ChordTone | null {
  const { tones } = written.chord;
  const root = rootPc(written.chord);
  const degrees = ctx.song.profile === "jazz" ? [3, 7] : [3];
  const heard = (semitones: number) =>
    slices.some((s) => s.notes.some((n) => mod(n.note.midi - root - semitones, 12) === 0));
  const missing = tones.find((t) => degrees.includes(t.degree) && !heard(t.semitones));
  if (!missing) return null;
  if (missing.degree === 7) return missing;
  return timeOf(root + 5) || timeOf(root + (missing.alter === 0 ? 3 : 4)) ? null : missing;
}

export const missingTone: Rule = {
  id: "missing-tone",
  title: "Nobody has the third",
  family: "vertical",
  explanation:
    "The third says whether a chord is major or minor; where three and more notes sound under the symbol and none " +
    "of them is the third, the chord is bare. In jazz the seventh belongs to the guide tones too. Power chords and " +
    "open fifths on purpose are written as such (C5), or happen nearly always.",
  source: "Kostka & Payne, Tonal Harmony (the third is not left out); Levine, The Jazz Piano Book (guide tones)",
  severity: { chorale: "warning", band: "note", jazz: "warning", loop: "off" },
  find(ctx) {
    const told = new Set(contradictedIn(ctx).map((c) => c.chord.id));
    return harmoniesOf(ctx).flatMap((harmony): RawFinding[] => {
      const { written, harmonic, time } = harmony;
      const full = harmonic.filter((s) => s.notes.length >= ENOUGH);
      if (!full.length || told.has(written.id)) return [];
      const missing = lacks(ctx, harmony);
      if (!missing) return [];
      const name = toneName(written.chord, missing);
      const notes = firstOf(full).notes;
      return [
        {
          tick: written.start,
          duration: written.duration,
          parts: [...new Set(notes.map((n) => n.part))],
          notes: notes.map((n) => n.note.id),
          message:
            `Nobody has ${name}, the ${ROLE_WORDS[missing.role] ?? missing.role} of ${written.symbol}, at ` +
            `${positionText(ctx.meter, written.start)}.`,
          amount: beatsText(ctx.meter, time),
          chances: harmoniesOf(ctx).length,
          fixes: waysIn(ctx, harmony, mod(rootPc(written.chord) + missing.semitones, 12)),
        },
      ];
    });
  },
};

/** A voice that doubles another one takes the tone, else one that can spare its own; or a chord part adds it. */
function waysIn(ctx: CheckContext, { written, harmonic }: Harmony, pc: number): Fix[] {
  const at = firstOf(harmonic).start;
  const here = linesOf(ctx).flatMap((line) => noteAt(line, at) ?? []);
  const lowest = Math.min(...here.map((n) => n.midi));
  const upper = here.filter((n) => n.midi > lowest);
  const isTwice = (n: RealizedNote) => here.some((o) => o !== n && mod(o.midi - n.midi, 12) === 0);
  const moves = waysOut(ctx, {
    notes: upper.filter(isTwice),
    later: upper,
    clear: (p) => upper.some((n) => mod(p(n), 12) === pc) && upper.every((n) => p(n) > lowest),
  });
  return [...moves, ...added(ctx, written.id, pc)].slice(0, 2);
}

/** A chord part takes the tone into its layout, in the middle of it. */
function added({ song, section }: CheckContext, chord: string, pc: number): Fix[] {
  const event = section.chords.find((c) => c.id === chord);
  return Object.entries(event?.voicings ?? {}).flatMap(([id, layout]): Fix[] => {
    const part = song.parts.find((p) => p.id === id && !p.link?.from);
    const pitches = layout?.pitches;
    if (!event || !part || !pitches?.length) return [];
    const midis = pitches.map((p) => ({ p, midi: pitchMidi(p) })).sort((a, b) => a.midi - b.midi);
    const [low, high] = [firstOf(midis).midi, lastOf(midis).midi];
    const midi = Array.from({ length: high - low + 12 }, (_, d) => low + d).find((m) => mod(m, 12) === pc);
    if (midi === undefined) return [];
    const pitch = spellAt(song, section, event.start, midi);
    return [
      {
        label: `${part.name.split(",")[0]} adds ${pitch}`,
        edit: { do: "pinVoicing", section: section.id, part: id, chord, pitches: [...pitches, pitch] },
      },
    ];
  });
}
