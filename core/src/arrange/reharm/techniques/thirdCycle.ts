import { nth, sure } from "../../../base/list";
import { mod } from "../../../theory/pitch/pitch";
import { rootPc } from "../../../theory/chord/chord";
import type { Technique } from "../technique";
import { colorAt, halves, has, parts, sizeOf, symbolAt } from "../tools";

export const thirdCycle: Technique = {
  id: "third-cycle",
  title: "Cycle of thirds",
  explanation:
    "The octave divided into three or four equal steps: major chords that fall by major thirds, or rise by " +
    "minor thirds, come back to where they began. With a dominant before each one, ii–V–I becomes a tour of " +
    "three keys.",
  source: "any jazz harmony textbook; Cohn 2012",
  adventure: 0.85,
  aim: "more",
  words: {
    three: "{line}: major thirds divide the octave into three and come back to {home}",
    four: "{line}: minor thirds divide the octave into four, each chord of the same kind",
    tour: "{line}: three keys a major third apart, each with its dominant, come home to {home}",
  },
  propose(spot) {
    const { chord, key, event } = spot.here;
    const four = has(chord, "3") && !has(chord, "b7") && !has(chord, "#5") && !chord.bass ? parts(spot.here, 4) : null;
    const quality = sizeOf(chord) === 4 ? "maj7" : "";
    const circle = (steps: readonly number[], reason: string) => {
      const line = steps.map((s, i) =>
        i === 0 || s % 12 === 0 ? chord.root + quality : colorAt(chord.root, sure(LETTERS[s]), s, { quality, key }),
      );
      return {
        chords: line.map((symbol, i) => ({ symbol, duration: nth(sure(four), i) })),
        reason,
        params: { line: line.join(" – "), home: event.symbol },
      };
    };
    // Minor thirds come back with the chord after them; major thirds come back in time.
    const back = spot.next !== undefined && rootPc(spot.next.chord) === rootPc(chord);
    return [
      ...(four ? [circle([0, 8, 4, 0], "three"), ...(back ? [circle([0, 3, 6, 9], "four")] : [])] : []),
      ...tour(spot),
    ];
  },
};

/** Letters up to each step of a cycle. */
const LETTERS: Record<number, number> = { 3: 2, 4: 2, 6: 4, 8: 5, 9: 5 };

/** ii – V – I before one more bar of I: Dm7 Eb7 | Abmaj7 B7 | Emaj7 G7 | C. */
const tour: Technique["propose"] = ({ slots, index, meter }) => {
  const [two, five, one, home] = [0, 1, 2, 3].map((by) => slots[index + by]);
  if (!two || !five || !one || !home) return [];
  const tonic = rootPc(one.chord);
  const above = (i: number) => mod(rootPc(nth(slots, index + i).chord) - tonic, 12);
  if (
    above(0) !== 2 ||
    above(1) !== 7 ||
    above(3) !== 0 ||
    !has(two.chord, "b3") ||
    !has(five.chord, "3") ||
    !has(one.chord, "3")
  )
    return [];
  const key = one.key;
  const at = (semitones: number, quality: string) => symbolAt(tonic + semitones, quality, key);
  const pairs = [
    [two.event.symbol, at(3, "7")],
    [at(8, "maj7"), at(11, "7")],
    [at(4, "maj7"), at(7, "7")],
  ];
  const cuts = [two, five, one].map((slot) => halves(slot, meter));
  if (cuts.some((c) => !c)) return [];
  return [
    {
      span: 3,
      chords: pairs.flatMap((pair, i) => pair.map((symbol, k) => ({ symbol, duration: nth(sure(cuts[i]), k) }))),
      needsNext: true,
      reason: "tour",
      params: { line: pairs.flat().join(" – "), home: home.event.symbol },
    },
  ];
};
