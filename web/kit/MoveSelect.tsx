import { Pitch, Text } from "../../core/src/index";
import type { MoveBy } from "../app/commands/moves";
import { AskSelect, type Offer } from "./AskSelect";

const SEMITONES = [1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12];
const STEPS = ["a second", "a third", "a fourth", "a fifth", "a sixth", "a seventh", "an octave"];
const WAYS = [
  { sign: 1, way: "up", arrow: "↑" },
  { sign: -1, way: "down", arrow: "↓" },
];

type Go = (by: MoveBy, said: string) => unknown;

const intervals = (go: Go) =>
  WAYS.map(({ sign, way, arrow }) => ({
    title: way,
    offers: SEMITONES.map((n): Offer => ({
      shown: `${arrow} ${Pitch.interval(n)}`,
      go: () => go({ semitones: sign * n }, `${way} ${Text.withArticle(Pitch.interval(n))}`),
    })),
  }));

const alongScale = (go: Go) =>
  WAYS.map(({ sign, way, arrow }) => ({
    title: `${way} along the scale`,
    offers: STEPS.map((step, i): Offer => ({
      shown: `${arrow} ${step}`,
      go: () => go({ steps: sign * (i + 1) }, `${way} ${step} along the scale`),
    })),
  }));

/** By how much something is moved, up or down: an interval, or along the scale. */
export function MoveSelect({
  label,
  words = "move",
  steps = false,
  go,
}: {
  label: string;
  words?: string;
  /** Only along the scale. */
  steps?: boolean;
  go: Go;
}) {
  return <AskSelect label={label} words={words} groups={[...(steps ? [] : intervals(go)), ...alongScale(go)]} />;
}
