import { mod } from "../../pitch/pitch";
import { bassPc, chordSymbol, rootPc, type Chord } from "../../chord/chord";
import { findShapes, SHAPE_LIMITS, type Neck } from "../../instrument/fretboard";
import { doublingCost, importanceOf, pcOf } from "../stack";
import type { RawVoicing, VoicingLimits, VoicingStyle } from "../style";

const known = new Map<string, RawVoicing[]>();

/** All shapes of a chord on a neck with what they leave out and double; remembered, for a song uses the same chords again and again. */
function shapesOf(chord: Chord, neck: Neck, least: number, bassCovered: boolean): RawVoicing[] {
  const id = [chordSymbol(chord), neck.strings.join(), neck.capo, neck.frets, neck.scale, least, bassCovered].join("|");
  const found = known.get(id);
  if (found) return found;
  const weight = new Map(chord.tones.map((t) => [pcOf(chord, t), importanceOf(t, chord, bassCovered)]));
  const reentrant = neck.strings.some((s, i) => i > 0 && s < neck.strings[i - 1]!);
  const bass = bassPc(chord);
  const pcs = [...new Set([...chord.tones.map((t) => pcOf(chord, t)), ...(bassCovered ? [] : [bass])])];
  const raw = findShapes(neck, pcs, [], SHAPE_LIMITS, Math.min(least, neck.strings.length)).flatMap((shape): RawVoicing[] => {
    const heard = shape.pitches.map((m) => mod(m, 12));
    // Alone, the lowest note is the bass; a re-entrant tuning has none.
    if (!bassCovered && !reentrant && heard[0] !== bass) return [];
    if (new Set(shape.pitches).size < shape.pitches.length && shape.pitches.length <= 3) return [];
    const missing = [...weight].reduce((sum, [pc, w]) => (heard.includes(pc) ? sum : sum + w), 0);
    const doubling = chord.tones.reduce(
      (sum, t) => sum + Math.max(0, heard.filter((pc) => pc === pcOf(chord, t)).length - 1) * doublingCost(t) * 0.4,
      0,
    );
    // Under a root of its own a guitar chord stands firmest.
    const inverted = bassCovered && !reentrant && heard[0] !== rootPc(chord) ? 0.4 : 0;
    return [{ pitches: shape.pitches, missing: missing + inverted, doubling, shape }];
  });
  const lost = Math.min(...raw.map((v) => v.missing));
  const good = raw.filter((v) => v.missing <= lost + 1.2);
  if (known.size > 500) known.clear();
  known.set(id, good);
  return good;
}

export const shapes: VoicingStyle = {
  id: "shapes",
  title: "Shapes on the neck",
  explanation:
    "Every shape that one hand can hold, found by searching strings, frets, capo and tuning: four fingers over four or five frets, a barre where no open string forbids it, at most one silent string inside.",
  source: "common practice",
  held: "frets",
  candidates: (chord, { neck, voices, bassCovered }: VoicingLimits) => (neck ? shapesOf(chord, neck, voices, bassCovered) : []),
};
