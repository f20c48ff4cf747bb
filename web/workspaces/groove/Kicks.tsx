import { Groove, type KickHit, Meter } from "../../../core/src/index";
import { setHit, setMain } from "../../app/commands/drums";
import type { SectionData } from "../../app/store/sectionData";
import { edit } from "../../app/store/song";
import { Check } from "../../kit/Check";
import { Slider } from "../../kit/Slider";
import { Button } from "../../kit/Button";

/** The main accents of the kick: by rule, or marked by hand. */
export function Kicks({ data }: { data: SectionData }) {
  const section = data.section.id;
  return (
    <>
      <h3>Kick</h3>
      <p className="small">
        Main accents are what the bass must meet: kicks on a beat or with velocity {Groove.LOUD_KICK} and more, unless
        you mark them yourself.
      </p>
      {data.kicks.length ? (
        <>
          <ul className="kicks">
            {data.kicks.map((k) => (
              <li key={k.start}>
                <Kick data={data} kick={k} />
              </li>
            ))}
          </ul>
          {data.section.groove.accents && (
            <Button onClick={() => edit({ do: "setAccents", section, accents: null })}>Back to the rule</Button>
          )}
        </>
      ) : (
        <p>No kick yet: click into the kick row of the drum lane.</p>
      )}
    </>
  );
}

function Kick({ data, kick }: { data: SectionData; kick: KickHit }) {
  const section = data.section.id;
  const place = Meter.position(data.meter, kick.start);
  return (
    <>
      <Check on={kick.main} set={(on) => setMain(section, data.kicks, [kick.start], on)}>
        {place}
      </Check>
      <Slider
        className="velocity"
        label={`Velocity of the kick at ${place}`}
        from=""
        to={kick.velocity}
        min={1}
        max={127}
        step={1}
        value={kick.velocity}
        set={(n, quiet) => setHit(section, "kick", kick.start, { velocity: n, quiet })}
      />
    </>
  );
}
