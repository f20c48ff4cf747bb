import { type CompKind, Meter, type Part, type PlayingOf, type SettingName } from "../../../core/src/index";
import type { SectionData } from "../../app/store/sectionData";
import { edit, type PlayingChange } from "../../app/store/song";
import { Select, type Choice } from "../../kit/Select";
import { Slider } from "../../kit/Slider";
import { milliseconds } from "../../kit/texts";
import { Rhythm } from "./Rhythm";
import { Button } from "../../kit/Button";

type Comp = PlayingOf<"comp">;
type NumberName = {
  [K in keyof Comp]-?: Comp[K] extends number | undefined ? K : never;
}[keyof Comp] &
  SettingName;

const OCTAVE_KIND: Choice<number>[] = [
  [-2, "two lower"],
  [-1, "one lower"],
  [1, "one higher"],
  [2, "two higher"],
];

/** Settings that are one of a few numbers: what they are called, and what is usual. */
const CHOICES: readonly { name: NumberName; label: string; usual: number; choices: readonly Choice<number>[] }[] = [
  {
    name: "lift",
    label: "octave",
    usual: 0,
    choices: [
      [-1, "one lower"],
      [0, "as voiced"],
      [1, "one higher"],
      [2, "two higher"],
    ],
  },
  {
    name: "notes",
    label: "notes",
    usual: 2,
    choices: [
      [1, "top one"],
      [2, "top two"],
      [3, "top three"],
    ],
  },
  {
    name: "step",
    label: "step",
    usual: Meter.EIGHTH,
    choices: [
      [Meter.QUARTER, "quarter"],
      [Meter.EIGHTH, "eighth"],
      [Meter.EIGHTH_TRIPLET, "eighth triplet"],
      [Meter.SIXTEENTH, "sixteenth"],
    ],
  },
  {
    name: "octaves",
    label: "over",
    usual: 1,
    choices: [
      [1, "one octave"],
      [2, "two octaves"],
      [3, "three octaves"],
    ],
  },
  {
    name: "gap",
    label: "gaps of",
    usual: 1.5,
    choices: [
      [1, "a beat and more"],
      [1.5, "one beat and a half"],
      [2, "two beats"],
      [3, "three beats"],
    ],
  },
];

interface Props {
  data: SectionData;
  part: Part;
  kind: CompKind;
}

/** How a part that plays the chords plays them: what its kind knows, in plain terms. */
export function CompSettings({ data, part, kind }: Props) {
  const comp = part.playing.comp ?? {};
  const set = (change: PlayingChange["comp"], quiet = false) =>
    edit({ do: "setPlaying", part: part.id, comp: change }, { quiet });
  const has = (name: SettingName) => kind.settings.includes(name);
  return (
    <>
      {has("rhythm") && <Rhythm data={data} part={part} set={set} />}
      <div className="controls">
        {CHOICES.filter((c) => has(c.name)).map(({ name, label, usual, choices }) => {
          const octave = name === "lift" && kind.id === "octave";
          return (
            <Select
              key={name}
              label={`${label} of ${part.name}`}
              text={label}
              value={comp[name] ?? (octave ? 1 : usual)}
              choices={octave ? OCTAVE_KIND : choices}
              set={(value) => set({ [name]: value })}
            />
          );
        })}
        {has("way") && (
          <Select<NonNullable<Comp["way"]>>
            label={`Direction of ${part.name}`}
            text="going"
            value={comp.way ?? "up"}
            choices={[
              ["up", "up"],
              ["down", "down"],
              ["up-down", "up and down"],
              ["outside-in", "from outside in"],
            ]}
            set={(way) => set({ way })}
          />
        )}
      </div>
      {has("strum") && <Strum data={data} part={part} comp={comp} set={set} />}
      {has("human") && <Human data={data} part={part} comp={comp} set={set} />}
    </>
  );
}

interface FeelProps {
  data: SectionData;
  part: Part;
  comp: Comp;
  set(change: PlayingChange["comp"], quiet?: boolean): boolean;
}

/** Chords rolled string by string, and how they grow. */
function Strum({ data, part, comp, set }: FeelProps) {
  const { strum = 0, slope = 0 } = comp;
  return (
    <>
      <Slider
        className="slider"
        label={`strum of ${part.name}`}
        from="strum"
        to={`${milliseconds(strum, data.song.tempo)} ms`}
        value={strum}
        max={60}
        step={2}
        set={(n, quiet) => set({ strum: n }, quiet)}
      />
      <div className="controls">
        <Select<NonNullable<Comp["strumWay"]>>
          label={`Strum of ${part.name}`}
          text="from"
          value={comp.strumWay ?? "up"}
          choices={[
            ["up", "the lowest note"],
            ["down", "the highest note"],
            ["alternate", "both in turn"],
          ]}
          set={(strumWay) => set({ strumWay })}
        />
      </div>
      <Slider
        className="slider"
        label={`louder note by note of ${part.name}`}
        from="louder note by note"
        to={slope}
        value={slope}
        min={-12}
        max={12}
        step={1}
        set={(n, quiet) => set({ slope: n }, quiet)}
      />
    </>
  );
}

/** Small unevenness of hands, repeatable from its seed. */
function Human({ data, part, comp, set }: FeelProps) {
  const { human = 0, seed = 1 } = comp;
  return (
    <>
      <Slider
        className="slider"
        label={`loose hands of ${part.name}`}
        from="loose hands"
        to={`${milliseconds(human, data.song.tempo)} ms`}
        value={human}
        max={40}
        step={1}
        set={(n, quiet) => set({ human: n }, quiet)}
      />
      {human > 0 && (
        <div className="controls">
          <Button onClick={() => set({ seed: seed + 1 })}>Another hand ({seed})</Button>
        </div>
      )}
    </>
  );
}
