import { Bass, type BassSettings, type BassStyle, type Part, type Section } from "../../../core/src/index";
import { clearLines } from "../../app/store/results";
import { edit } from "../../app/store/song";
import { Check } from "../../kit/Check";
import { Select, type Choice } from "../../kit/Select";
import { Slider } from "../../kit/Slider";
import { WayButtons, WayRange } from "../../kit/WaySettings";
import type { PartProps } from "../../kit/partProps";

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
const CHOICES: readonly [Name, string, readonly Choice<string>[]][] = [
  [
    "length",
    "notes are",
    [
      ["short", "short"],
      ["usual", "as the style has them"],
      ["long", "as long as they can"],
    ],
  ],
  [
    "gate",
    "before a snare or clap",
    [
      ["cut", "cut off"],
      ["ring", "ring on"],
    ],
  ],
  [
    "lock",
    "meets",
    [
      ["chords", "new chords only"],
      ["main", "main kick accents"],
      ["every", "every kick"],
    ],
  ],
  ["octaves", "octave jumps", AMOUNT],
  ["slides", "slides", AMOUNT],
  ["overMajor", "color over major", COLOR],
  ["overMinor", "color over minor", COLOR],
];
const CHECKS: readonly [Name, string, string][] = [
  ["rests", "rest at the end of every figure", "The last beat of one or two bars is silent, but for what must sound"],
  ["melody", "leave room for the tune", "Moves in its gaps, holds under its motion, keeps out of its octave"],
  ["ownFigure", "a rhythm of its own in this section", "Unlike the figures of the other sections"],
  ["ending", "the last bar ends differently", "A change where the last bar would repeat an earlier one"],
];
const PITCHES = [1, 2, 3, 4, 5, 6, 7];

/** What is set for a part in a section, over what is usual for the style. */
export const settingsFor = (part: Part, section: Section, style: BassStyle): BassSettings =>
  Bass.settings(part, section, Bass.usual(style));

/** How the bass is played, in plain terms. Every change is one of this section. */
export function Settings({ data, part, style }: PartProps & { style: BassStyle }) {
  const section = data.section.id;
  const now = settingsFor(part, data.section, style);
  const put = (values: Partial<BassSettings>, quiet = false): boolean => {
    clearLines();
    return edit({ do: "setPlaying", part: part.id, section, bass: values }, { quiet });
  };
  return (
    <div className="line-settings">
      <Slider
        from="few notes"
        to="many"
        label="Density"
        value={now.density}
        step={0.05}
        set={(n, quiet) => put({ density: n }, quiet)}
      />
      <Slider
        from="steady"
        to="varied"
        label="Variation"
        value={now.variation}
        set={(n, quiet) => put({ variation: n }, quiet)}
      />
      <table className="measures settings">
        <tbody>
          <tr>
            <th scope="row">different pitches in a figure</th>
            <td>
              <Select
                label="Pitches in a figure"
                value={now.pitches}
                choices={PITCHES.map((n) => [n, n === 1 ? "one" : `up to ${n}`])}
                set={(n) => put({ pitches: n })}
              />
            </td>
          </tr>
          {CHOICES.map(([name, label, choices]) => (
            <tr key={name}>
              <th scope="row">{label}</th>
              <td>
                <Select label={label} value={String(now[name])} choices={choices} set={(v) => put({ [name]: v })} />
              </td>
            </tr>
          ))}
          <tr>
            <th scope="row">range</th>
            <td className="span">
              <WayRange data={data} part={part} low={now.low} high={now.high} put={put} />
            </td>
          </tr>
        </tbody>
      </table>
      {CHECKS.map(([name, label, title]) => (
        <Check key={name} title={title} on={now[name] as boolean} set={(on) => put({ [name]: on })}>
          {label}
        </Check>
      ))}
      <WayButtons data={data} part={part} way="bass" chosen={{ style: style.id }} />
    </div>
  );
}
