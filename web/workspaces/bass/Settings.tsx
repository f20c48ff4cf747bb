import { Bass, type BassSettings, type BassStyle, type Part, type Section } from "../../../core/src/index";
import { LineSettings, type Control } from "../../kit/LineSettings";
import type { PartProps } from "../../kit/partProps";
import type { Choice } from "../../kit/Select";

type Name = keyof BassSettings;

const AMOUNT: Choice<string>[] = [
  ["none", "none"],
  ["some", "some"],
  ["many", "many"],
];
const COLOR: Choice<string>[] = [
  ["fifth", "fifth"],
  ["third", "third"],
  ["either", "either"],
];
const PITCHES = [1, 2, 3, 4, 5, 6, 7];

const CONTROLS: readonly Control<Name>[] = [
  { kind: "slider", name: "density", label: "Density", from: "few notes", to: "many", step: 0.05 },
  { kind: "slider", name: "variation", label: "Variation", from: "steady", to: "varied" },
  {
    kind: "choice",
    name: "pitches",
    words: "different pitches in a figure",
    label: "Pitches in a figure",
    choices: PITCHES.map((n) => [n, n === 1 ? "one" : `up to ${n}`]),
  },
  {
    kind: "choice",
    name: "length",
    words: "notes are",
    choices: [
      ["short", "short"],
      ["usual", "as the style has them"],
      ["long", "as long as they can"],
    ],
  },
  {
    kind: "choice",
    name: "gate",
    words: "before a snare or clap",
    choices: [
      ["cut", "cut off"],
      ["ring", "ring on"],
    ],
  },
  {
    kind: "choice",
    name: "lock",
    words: "meets",
    choices: [
      ["chords", "new chords only"],
      ["main", "main kick accents"],
      ["every", "every kick"],
    ],
  },
  { kind: "choice", name: "octaves", words: "octave jumps", choices: AMOUNT },
  { kind: "choice", name: "slides", words: "slides", choices: AMOUNT },
  { kind: "choice", name: "overMajor", words: "color over major", choices: COLOR },
  { kind: "choice", name: "overMinor", words: "color over minor", choices: COLOR },
  {
    kind: "check",
    name: "rests",
    words: "rest at the end of every figure",
    title: "The last beat of one or two bars is silent, but for what must sound",
  },
  {
    kind: "check",
    name: "melody",
    words: "leave room for the tune",
    title: "Moves in its gaps, holds under its motion, keeps out of its octave",
  },
  {
    kind: "check",
    name: "ownFigure",
    words: "a rhythm of its own in this section",
    title: "Unlike the figures of the other sections",
  },
  {
    kind: "check",
    name: "ending",
    words: "the last bar ends differently",
    title: "A change where the last bar would repeat an earlier one",
  },
];

/** What is set for a part in a section, over what is usual for the style. */
export const settingsFor = (part: Part, section: Section, style: BassStyle): BassSettings =>
  Bass.settings(part, section, Bass.usual(style));

/** How the bass is played, in plain terms. Every change is one of this section. */
export function Settings({ data, part, style }: PartProps & { style: BassStyle }) {
  const now = settingsFor(part, data.section, style);
  return (
    <LineSettings
      data={data}
      part={part}
      way="bass"
      controls={CONTROLS}
      now={now}
      range={now}
      chosen={{ style: style.id }}
    />
  );
}
