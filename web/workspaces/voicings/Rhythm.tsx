import { Comp, Drums, Meter, type Part, sure } from "../../../core/src/index";
import type { SectionData } from "../../app/store/sectionData";
import type { PlayingChange } from "../../app/store/song";
import { Check } from "../../kit/Check";
import { Select, type Choice } from "../../kit/Select";
import { Slider } from "../../kit/Slider";
import { Button } from "../../kit/Button";

/** Marks of a rhythm in the order in which a click goes through them. */
const MARKS: Record<string, { next: string; words: string; look: string }> = {
  ".": { next: "x", words: "silent", look: "rest" },
  x: { next: "X", words: "played", look: "soft" },
  X: { next: "-", words: "accented", look: "hard" },
  "-": { next: ".", words: "held on", look: "hold" },
};
const OWN = "own";
/** Longest rhythm, in sixteenths. */
const LONGEST = 256;
/** Steps that fit one row. */
const ROW = 16;

interface Props {
  data: SectionData;
  part: Part;
  set(comp: PlayingChange["comp"], quiet?: boolean): boolean;
}

/** A rhythm by name, of one's own, or a drum's; anticipation and length. */
export function Rhythm({ data, part, set }: Props) {
  const { rhythm = "held", follow, anticipate, gate = 100 } = part.playing.comp ?? {};
  const steps = Comp.steps(rhythm, data.meter);
  let value: string;
  if (follow) value = Drums.player(follow);
  else if (Comp.PATTERNS.some((p) => p.id === rhythm)) value = rhythm;
  else value = OWN;
  const drums = Drums.ALL.filter((d) => data.section.groove.lanes.some((l) => l.drum === d));
  return (
    <>
      <div className="controls">
        <Select
          label={`Rhythm of ${part.name}`}
          text="rhythm"
          value={value}
          choices={[
            ...Comp.PATTERNS.map((p): Choice<string> => [p.id, p.title]),
            [OWN, "Your own"],
            ...drums.map((d): Choice<string> => [Drums.player(d), `With the ${Drums.KINDS[d].title}`]),
          ]}
          set={(v) => {
            const drum = Drums.of(v);
            set(drum ? { follow: drum } : { follow: null, rhythm: v === OWN ? steps : v });
          }}
        />
        {value !== "held" && (
          <Check
            on={anticipate === true}
            title="An attack in the last eighth before a change plays the next chord"
            set={(on) => set({ anticipate: on || null })}
          >
            anticipates
          </Check>
        )}
      </div>
      {!follow && rhythm !== "held" && (
        <Steps name={part.name} steps={steps} meter={data.meter} set={(next) => set({ rhythm: next })} />
      )}
      {value !== "held" && (
        <Slider
          className="slider"
          label={`Length of ${part.name}`}
          from="length"
          to={`${gate} %`}
          value={gate}
          min={20}
          max={100}
          step={5}
          set={(n, quiet) => set({ gate: n }, quiet)}
        />
      )}
    </>
  );
}

/** The rhythm in sixteenths: a click goes through played, accented, held on, silent. */
function Steps({ name, steps, meter, set }: { name: string; steps: string; meter: Meter; set(steps: string): void }) {
  const bar = meter.bar / Meter.SIXTEENTH;
  const beats = meter.beats.map((b) => b.start / Meter.SIXTEENTH);
  return (
    <>
      <div
        className="step-grid"
        style={{ gridTemplateColumns: `repeat(${bar <= ROW ? bar : bar / 2}, 1fr)` }}
        role="group"
        aria-label={`Steps of ${name}, sixteenths`}
      >
        {[...steps].map((mark, i) => (
          <Button
            key={i}
            className={`step ${sure(MARKS[mark]).look}${beats.includes(i % bar) ? " beat" : ""}`}
            aria-label={`Step ${i + 1}: ${sure(MARKS[mark]).words}`}
            onClick={() => set(steps.slice(0, i) + sure(MARKS[mark]).next + steps.slice(i + 1))}
          />
        ))}
      </div>
      <div className="controls">
        <Button onClick={() => set(steps + steps)} disabled={steps.length * 2 > LONGEST}>
          Twice as long
        </Button>
        {steps.length > bar && <Button onClick={() => set(steps.slice(0, bar))}>One bar</Button>}
        <span className="small">Click a step: played, accented, held on, silent.</span>
      </div>
    </>
  );
}
