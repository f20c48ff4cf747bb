import { mod } from "../../pitch/pitch";
import { bassPc, chordSymbol, rootPc, type Chord } from "../../chord/chord";
import { findShapes, SHAPE_LIMITS, type Neck } from "../../instrument/fretboard";
import { doublingCost, importanceOf, pcOf } from "../stack";
import type { RawVoicing, VoicingLimits, VoicingStyle } from "../style";

/** How much harder or poorer than the best shape one may be and still be a candidate (common practice). */
const ENOUGH = 2;

const known = new Map<string, RawVoicing[]>();

/** All shapes of a chord on a neck with what they leave out and double; remembered, for a song uses the same chords again and again. */
function shapesOf(chord: Chord, neck: Neck, least: number, bassCovered: boolean): RawVoicing[] {
  const id = [chordSymbol(chord), neck.strings.join(), neck.capo, neck.frets, neck.scale, least, bassCovered].join("|");
  const found = known.get(id);
  if (found) return found;
  const weight = new Map(chord.tones.map((t) => [pcOf(chord, t), importanceOf(t, chord, bassCovered)]));
  const tones = chord.tones.map((t) => ({ pc: pcOf(chord, t), doubled: doublingCost(t) * 0.4 }));
  const reentrant = neck.strings.some((s, i) => i > 0 && s < neck.strings[i - 1]!);
  const bass = bassPc(chord);
  const pcs = [...new Set([...chord.tones.map((t) => pcOf(chord, t)), ...(bassCovered ? [] : [bass])])];
  const strings = Math.min(least, neck.strings.length);
  // What the chord cannot do without; on few strings even that may have to give way.
  const essential = [...weight].filter(([, w]) => w >= 4).map(([pc]) => pc);
  const whole = findShapes(neck, pcs, essential, SHAPE_LIMITS, strings);
  const raw = (whole.length ? whole : findShapes(neck, pcs, [], SHAPE_LIMITS, strings)).flatMap((shape): RawVoicing[] => {
    const heard = shape.pitches.map((m) => mod(m, 12));
    // Alone, the lowest note is the bass; a re-entrant tuning has none.
    if (!bassCovered && !reentrant && heard[0] !== bass) return [];
    if (new Set(shape.pitches).size < shape.pitches.length && shape.pitches.length <= 3) return [];
    const missing = [...weight].reduce((sum, [pc, w]) => (heard.includes(pc) ? sum : sum + w), 0);
    const doubling = tones.reduce((sum, t) => sum + Math.max(0, heard.filter((pc) => pc === t.pc).length - 1) * t.doubled, 0);
    // Under a root of its own a guitar chord stands firmest.
    const inverted = bassCovered && !reentrant && heard[0] !== rootPc(chord) ? 0.8 : 0;
    return [{ pitches: shape.pitches, missing: missing + inverted, doubling, shape }];
  });
  // Of the same notes the easiest fingering in each position; of all, those that are not much harder or poorer than the best.
  const own = (v: RawVoicing) => v.missing + v.doubling + v.shape!.strain;
  const easiest = new Map<string, RawVoicing>();
  for (const v of raw) {
    const same = `${v.pitches.join()}:${v.shape!.position}`;
    if (!easiest.has(same) || own(v) < own(easiest.get(same)!)) easiest.set(same, v);
  }
  const best = Math.min(...[...easiest.values()].map(own));
  const good = [...easiest.values()].filter((v) => own(v) <= best + ENOUGH);
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
  alone: true,
  held: "frets",
  candidates: (chord, { neck, voices, bassCovered }: VoicingLimits) => (neck ? shapesOf(chord, neck, voices, bassCovered) : []),
};
