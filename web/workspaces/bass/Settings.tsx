import {
  bassSettings,
  instrumentOf,
  typeset,
  usualFor,
  type BassSettings,
  type BassStyle,
  type Edit,
  type Part,
  type Section,
  type Song,
} from "../../../core/src/index";
import { clearLines } from "../../store/results";
import { edit, say, type PlayingChange } from "../../store/song";
import { Check } from "../../ui/Check";
import { InPlace } from "../../ui/InPlace";
import { Select, type Choice } from "../../ui/Select";
import { Slider } from "../../ui/Slider";
import { typedPitch } from "../../ui/texts";
import type { BassProps } from "./props";

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
export const settingsFor = (part: Part, section: Section, style: BassStyle): BassSettings => bassSettings(part, section, usualFor(style));

/** Values as they are usual again. */
const cleared = (playing: object): PlayingChange["bass"] => Object.fromEntries(Object.keys(playing).map((name) => [name, null]));

/** The edit that makes a section's own way of playing that of all sections. */
function everywhere(song: Song, part: string, own: object, style: string): Edit {
  const there = song.sections.flatMap((s): Edit[] => {
    const playing = s.playing?.[part]?.bass;
    return playing ? [{ do: "setPlaying", part, section: s.id, bass: cleared(playing) }] : [];
  });
  return { do: "all", label: "in every section", edits: [...there, { do: "setPlaying", part, bass: { ...own, style } }] };
}

/** How the bass is played, in plain terms. Every change is one of this section. */
export function Settings({ data, part, style }: BassProps & { style: BassStyle }) {
  const section = data.section.id;
  const now = settingsFor(part, data.section, style);
  const put = (values: Partial<BassSettings>, quiet = false): boolean => {
    clearLines();
    return edit({ do: "setPlaying", part: part.id, section, bass: values }, { quiet });
  };
  const { style: _, ...own } = data.section.playing?.[part.id]?.bass ?? {};
  return (
    <div className="bass-settings">
      <Slider from="few notes" to="many" label="Density" value={now.density} step={0.05} set={(n, quiet) => put({ density: n }, quiet)} />
      <Slider from="steady" to="varied" label="Variation" value={now.variation} set={(n, quiet) => put({ variation: n }, quiet)} />
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
              <Range data={data} part={part} now={now} put={put} />
            </td>
          </tr>
        </tbody>
      </table>
      {CHECKS.map(([name, label, title]) => (
        <Check key={name} title={title} on={now[name] as boolean} set={(on) => put({ [name]: on })}>
          {label}
        </Check>
      ))}
      <p className="controls">
        <button
          type="button"
          disabled={!Object.keys(own).length}
          onClick={() => edit({ do: "setPlaying", part: part.id, section, bass: cleared(own) })}
        >
          Back to the usual
        </button>
        {data.song.sections.length > 1 && (
          <button type="button" onClick={() => edit(everywhere(data.song, part.id, own, style.id))}>
            Use in every section
          </button>
        )}
      </p>
    </div>
  );
}

/** Lowest and highest note: set here, for the part, or the instrument's comfortable ones. */
function Range({ data, part, now, put }: BassProps & { now: BassSettings; put(values: Partial<BassSettings>): boolean }) {
  const usual = instrumentOf(part.instrument, data.song).comfortable;
  const commit = (name: "low" | "high") => (text: string) => {
    const read = typedPitch(text, say);
    return read !== null && put({ [name]: read });
  };
  return (
    <>
      <InPlace label="Lowest note" value={typeset(now.low || (part.range?.[0] ?? usual[0]))} commit={commit("low")} /> –{" "}
      <InPlace label="Highest note" value={typeset(now.high || (part.range?.[1] ?? usual[1]))} commit={commit("high")} />
    </>
  );
}
