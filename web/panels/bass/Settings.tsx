import {
  instrumentOf,
  bassSettings,
  usualFor,
  typeset,
  type BassSettings,
  type BassStyle,
  type Edit,
  type Part,
  type Section,
} from "../../../core/src/index";
import type { ScoreData } from "../../score/data";
import { useSong } from "../../store/song";
import { useView } from "../../store/view";
import { InPlace } from "../../ui/InPlace";
import { typedPitch } from "../../ui/texts";
import { Between } from "../../ui/Between";

type Name = keyof BassSettings;
type Choice = [value: string, label: string];

const CHOICES: [Name, string, Choice[]][] = [
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
  [
    "octaves",
    "octave jumps",
    [
      ["none", "none"],
      ["some", "some"],
      ["many", "many"],
    ],
  ],
  [
    "slides",
    "slides",
    [
      ["none", "none"],
      ["some", "some"],
      ["many", "many"],
    ],
  ],
  [
    "overMajor",
    "color over major",
    [
      ["fifth", "fifth"],
      ["third", "third"],
      ["either", "either"],
    ],
  ],
  [
    "overMinor",
    "color over minor",
    [
      ["fifth", "fifth"],
      ["third", "third"],
      ["either", "either"],
    ],
  ],
];
const CHECKS: [Name, string, string][] = [
  ["rests", "rest at the end of every figure", "The last beat of one or two bars is silent, but for what must sound"],
  ["melody", "leave room for the tune", "Moves in its gaps, holds under its motion, keeps out of its octave"],
  ["ownFigure", "a rhythm of its own in this section", "Unlike the figures of the other sections"],
  ["ending", "the last bar ends differently", "A change where the last bar would repeat an earlier one"],
];

/** What is set for a part in a section, over what is usual for the style. */
export const settingsFor = (part: Part, section: Section, style: BassStyle): BassSettings => bassSettings(part, section, usualFor(style));

/** How the bass is played, in plain terms. Every change is one of this section. */
export function Settings({ data, part, style }: { data: ScoreData; part: Part; style: BassStyle }) {
  const { edit, say } = useSong();
  const set = useView((s) => s.set);
  const section = data.section.id;
  const now = settingsFor(part, data.section, style);
  const put = (values: Partial<BassSettings>) => {
    set({ lines: [] });
    return edit({ do: "setPlaying", part: part.id, section, bass: values });
  };
  const { style: _, ...own } = data.section.playing?.[part.id]?.bass ?? {};
  const cleared = (playing: object): Extract<Edit, { do: "setPlaying" }>["bass"] =>
    Object.fromEntries(Object.keys(playing).map((name) => [name, null]));
  const everywhere = (): Edit => ({
    do: "all",
    label: "in every section",
    edits: [
      ...data.song.sections.flatMap((s): Edit[] => {
        const there = s.playing?.[part.id]?.bass;
        return there ? [{ do: "setPlaying", part: part.id, section: s.id, bass: cleared(there) }] : [];
      }),
      { do: "setPlaying", part: part.id, bass: { ...own, style: style.id } },
    ],
  });
  const usual = instrumentOf(part.instrument, data.song).comfortable;
  const pitch = (name: "low" | "high", shown: string) => (
    <InPlace
      label={name === "low" ? "Lowest note" : "Highest note"}
      value={typeset(now[name] || shown)}
      commit={(text) => {
        const read = typedPitch(text, say);
        return read !== null && put({ [name]: read });
      }}
    />
  );
  return (
    <div className="bass-settings">
      <Between from="few notes" to="many" label="Density" value={now.density} step={0.05} set={(n) => put({ density: n })} />
      <Between from="steady" to="varied" label="Variation" value={now.variation} set={(n) => put({ variation: n })} />
      <table className="measures settings">
        <tbody>
          <tr>
            <th scope="row">different pitches in a figure</th>
            <td>
              <select aria-label="Pitches in a figure" value={now.pitches} onChange={(e) => put({ pitches: Number(e.target.value) })}>
                {[1, 2, 3, 4, 5, 6, 7].map((n) => (
                  <option key={n} value={n}>
                    {n === 1 ? "one" : `up to ${n}`}
                  </option>
                ))}
              </select>
            </td>
          </tr>
          {CHOICES.map(([name, label, choices]) => (
            <tr key={name}>
              <th scope="row">{label}</th>
              <td>
                <select
                  aria-label={label}
                  value={String(now[name])}
                  onChange={(e) => put({ [name]: e.target.value as BassSettings[Name] })}
                >
                  {choices.map(([value, text]) => (
                    <option key={value} value={value}>
                      {text}
                    </option>
                  ))}
                </select>
              </td>
            </tr>
          ))}
          <tr>
            <th scope="row">range</th>
            <td className="span">
              {pitch("low", part.range?.[0] ?? usual[0])} – {pitch("high", part.range?.[1] ?? usual[1])}
            </td>
          </tr>
        </tbody>
      </table>
      {CHECKS.map(([name, label, title]) => (
        <label key={name} className="check" title={title}>
          <input type="checkbox" checked={now[name] as boolean} onChange={(e) => put({ [name]: e.target.checked })} /> {label}
        </label>
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
          <button type="button" onClick={() => edit(everywhere())}>
            Use in every section
          </button>
        )}
      </p>
    </div>
  );
}
